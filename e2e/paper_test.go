package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/proto"
)

// On paper a system is never cut in two, and the chart has every note.
func TestOnPaper(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	onPaper := func(path, drawn string) {
		t.Helper()
		p.MustNavigate(address + path).MustWaitLoad()
		p.MustElement(drawn)
		if err := (proto.EmulationSetEmulatedMedia{Media: "print"}).Call(p); err != nil {
			t.Fatal(err)
		}
		p.MustEval(`() => window.dispatchEvent(new Event("beforeprint"))`)
	}

	onPaper("/bench/6?instrument=trombone&stage=finger", "svg.lanes .touch")
	if drawn, blocks := p.MustEval(`() => document.querySelectorAll(".engraving.on-paper g.system").length`).Int(), len(p.MustElements(".paper-system")); blocks < 2 ||
		blocks != drawn {
		t.Errorf("%d systems are %d blocks on paper", drawn, blocks)
	}
	for k, block := range p.MustElements(".paper-system") {
		// Each shows the lanes of its own system, whole.
		if whole := block.MustEval(`() => {
			const page = this.getBoundingClientRect();
			const lanes = this.querySelector("svg.lanes > g").querySelectorAll("text");
			return lanes.length > 4 && [...lanes].every((text) => {
				const at = text.getBoundingClientRect();
				return at.top >= page.top && at.bottom <= page.bottom && at.right <= page.right;
			});
		}`).Bool(); !whole {
			t.Errorf("system %d is cut", k+1)
		}
	}
	p.MustEval(`() => window.dispatchEvent(new Event("afterprint"))`)
	if p.MustHas(".paper") || p.MustHas(".on-paper") {
		t.Error("the copy for paper stays on the page")
	}

	onPaper("/fingerings/violin#n76", ".chart-staff .touch.chosen")
	if hidden := p.MustEval(`() => [...document.querySelectorAll(".chart-notes article")].filter((note) => note.offsetHeight === 0).length`).Int(); hidden > 0 {
		t.Errorf("%d notes of the chart are left out", hidden)
	}
}
