package e2e

import (
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
)

func offline(t *testing.T, p *rod.Page, away bool) {
	t.Helper()
	if err := (proto.NetworkEnable{}).Call(p); err != nil {
		t.Fatal(err)
	}
	if err := (proto.NetworkEmulateNetworkConditions{Offline: away, DownloadThroughput: -1, UploadThroughput: -1}).Call(p); err != nil {
		t.Fatal(err)
	}
}

// Marks pressed while the server is away wait in the page and are logged once each when
// it is back.
func TestMarksWait(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/9?instrument=trombone&student=1&stage=count")
	p.MustWaitStable()
	offline(t, p, true)
	p.Keyboard.MustType(input.KeyC)
	p.MustElementR(".advice", "One mark waits in this page")
	p.Keyboard.MustType(input.KeyC)
	p.MustElementR(".advice", "2 marks wait in this page")
	p.Keyboard.MustType(input.KeyX)
	p.MustElement(".causes:not([hidden])")
	p.Keyboard.MustType(input.KeyR)
	p.MustElementR(".advice", "3 marks wait in this page")
	offline(t, p, false)
	p.MustElementR(".advice", "The 3 marks that waited are sent and logged")
	tries := p.MustElements(".latest li")
	if len(tries) != 3 {
		t.Fatalf("%d tries are logged, want 3", len(tries))
	}
	p.MustElementR(".latest li:first-child", "Count, .*stumble, rhythm")
	p.MustElementR(".latest li:last-child", "Count, .*clean")
	if left := p.MustEval(`() => sessionStorage.getItem("marks that wait")`).Str(); left != "[]" {
		t.Errorf("left in the page are %s", left)
	}
}
