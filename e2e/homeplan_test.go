package e2e

import (
	"strings"
	"testing"
)

// A class's plans come out of the printer, a page each on Letter and on A4, in black, with
// boxes to tick; a change of a day changes what follows.
func TestPlansOnPaper(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/plans?class=1").MustWaitLoad()
	onwards(p, "Make everybody")
	find(p, "button", "Print 18 plans")
	for _, size := range []paperSize{{"Letter", 8.5, 11}, {"A4", 8.27, 11.69}} {
		pages := printed(t, p, size)
		if len(pages) != 18 {
			t.Errorf("%s: 18 plans take %d pages", size.name, len(pages))
		}
		for n, page := range pages {
			var words []string
			for _, w := range wordBox.FindAllStringSubmatch(page, -1) {
				words = append(words, w[5])
			}
			text := strings.Join(words, " ")
			if !strings.Contains(text, " min") || strings.Contains(text, "Shelf") || strings.Contains(text, "Make a plan") {
				t.Errorf("%s, page %d has %s", size.name, n+1, text)
			}
		}
	}
	onwards(p, "Make pages of their own")
	find(p, ".flash", "18 pages are made")
	if codes := len(p.MustElements(".paper-code .code")); codes != 18 {
		t.Errorf("%d plans have a code", codes)
	}
	if pages := printed(t, p, paperSize{"Letter", 8.5, 11}); len(pages) != 18 || !strings.Contains(pages[0], "/my/") {
		t.Errorf("with codes 18 plans take %d pages", len(pages))
	}
	p.MustNavigate(address + "/students/1/family").MustWaitLoad()
	p.MustElement(".family .note-staff")
	for _, size := range []paperSize{{"Letter", 8.5, 11}, {"A4", 8.27, 11.69}} {
		if pages := printed(t, p, size); len(pages) != 1 || strings.Contains(pages[0], ">Shelf<") {
			t.Errorf("%s: what a family reads takes %d pages", size.name, len(pages))
		}
	}
	p.MustNavigate(address + "/students/6/plan").MustWaitLoad()
	before := p.MustElement(".home-days").MustText()
	p.MustEval(`() => { window.before = true; }`)
	p.MustElement(".home-days > li:not(.free) select").MustSelect("no time") // today, or the first day with time
	arrived(p)
	if after := find(p, ".home-days", "").MustText(); after == before {
		t.Errorf("with no time on a day there is still %s", after)
	}
	boxes := p.MustEval(`() => document.querySelectorAll(".tick-box").length`).Int()
	if lines := len(p.MustElements(".home-items li")); lines == 0 || boxes != lines {
		t.Errorf("%d lines have %d boxes", lines, boxes)
	}
}
