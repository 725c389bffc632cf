package e2e

import (
	"strings"
	"testing"

	"github.com/go-rod/rod"
)

// chooseTunes brings in a book of twenty tunes, the third of them wrong.
func chooseTunes(p *rod.Page) {
	p.MustElement("[name=files]").MustSetFiles("testdata/studies.abc")
	onwards(p, "Preview")
	p.MustElement(".many-list li:nth-child(20)")
}

// onwards presses a button that leads to another page, and waits for that.
func onwards(p *rod.Page, button string) {
	leads(p, p.MustElementR("button", button))
}

// A book of tunes goes on the Shelf at once, what is wrong with it stays behind and is mended,
// and all of it is undone.
func TestABookAtOnce(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/exercises/new").MustWaitLoad()
	click(p.MustElementR("a", "Import several"))
	chooseTunes(p)
	if got := len(p.MustElements(".many-list li")); got != 20 {
		t.Errorf("%d exercises are listed", got)
	}
	p.MustElement(".many-list li:nth-child(2) [name=title]").MustSelectAllText().MustInput("Second Study")
	onwards(p, "^Import$")
	p.MustElementR(".many-done", "19 exercises are in The Ferry Book.")
	p.MustElementR(".reading", "All are read for every instrument.")
	p.MustElement(".many-list textarea.abc").MustSelectAllText().MustInput("M:4/4\nL:1/4\nK:Bb\nB c d e|]")
	onwards(p, "^Import$")
	p.MustElementR(".many-done", "1 exercise is in The Ferry Book.")
	onwards(p, "Undo")
	p.MustElementR(".flash", "1 exercise is deleted again.")
	p.MustElementR(".exercise", "Second Study")
	if titles := p.MustElement("#books").MustText(); !strings.Contains(titles, "Study 20") || strings.Contains(titles, "Study 3\n") {
		t.Errorf("on the Shelf stand %s", titles)
	}
}
