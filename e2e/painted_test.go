package e2e

import (
	"bytes"
	"image/png"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/proto"
)

// Every clef in view is really painted: what is in the page's tree is not always
// on the screen.
func TestEveryClefIsPainted(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address := signedIn(t, 1280)
	for _, path := range []string{"/bench/6?instrument=clarinet&student=4", "/bench/6?instrument=trombone", "/bench/10?instrument=violin&chunk=7-8", "/bench/11?instrument=trumpet"} {
		bench(p, address+path)
		time.Sleep(500 * time.Millisecond) // two frames, on a slow machine
		picture, err := p.Screenshot(false, &proto.PageCaptureScreenshot{Format: proto.PageCaptureScreenshotFormatPng})
		if err != nil {
			t.Fatal(err)
		}
		img, err := png.Decode(bytes.NewReader(picture))
		if err != nil {
			t.Fatal(err)
		}
		var clefs []struct{ X, Y, Right, Bottom float64 }
		if err := p.MustEval(`() => [...document.querySelectorAll("g.staff[data-n='1'] g.clef")].map((c) => c.getBoundingClientRect())
			.filter((r) => r.top > 0 && r.bottom < innerHeight).map((r) => ({ X: r.left, Y: r.top, Right: r.right, Bottom: r.bottom }))`).Unmarshal(&clefs); err != nil {
			t.Fatal(err)
		}
		if len(clefs) == 0 {
			t.Errorf("%s: no clef is in view", path)
		}
		for k, c := range clefs {
			dark := 0
			for x := int(c.X); x < int(c.Right); x++ {
				for y := int(c.Y); y < int(c.Bottom); y++ {
					if r, g, b, _ := img.At(x, y).RGBA(); r+g+b < 3*0x5000 {
						dark++
					}
				}
			}
			// The staff lines alone are five pixels high and thin.
			if area := (c.Right - c.X) * (c.Bottom - c.Y); float64(dark) < area/7 {
				t.Errorf("%s: of clef %d only %d of %.0f pixels are dark", path, k+1, dark, area)
			}
		}
	}
}
