package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
)

// The chart from both ends: a note to its fingering, and what is pressed to its
// notes; the mouse and the keyboard.
func TestChartBothWays(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/fingerings/trumpet#n62").MustWaitLoad()
	p.MustElement(".chart-staff .touch.chosen")
	p.MustElementR("article.chosen h2", "D first year")
	p.MustElementR("article.chosen", "valves 1 and 3")
	click(p.MustElement("[data-clear]"))
	p.MustElementR(".chart-found", "This sounds .*C, space 3; E, space 4; G, space above the staff; C, ")
	click(p.MustElement(`.figure-large [data-press="1"]`))
	p.MustElementR(".chart-found", "A♯, space 2, or B♭, line 3; .*F, line 5")
	p.MustEval(`() => document.querySelector('.figure-large [data-press="2"]').focus()`)
	p.Keyboard.MustType(input.Enter)
	p.MustElementR(".chart-found", "A, space 2; .*E, space 4; A, ")
	until(t, p, "the focus stays on the valve", `() => document.activeElement.dataset.press === "2"`)

	p.MustNavigate(address + "/fingerings/oboe#n74").MustWaitLoad()
	p.MustElement(".chart-staff .touch.chosen")
	click(p.MustElement(`.figure-large [aria-label="finger 1"]`)) // from half open to open
	p.MustElementR(".chart-found", "No note of this chart is played so.*Closest: .*D, line 4: add finger 1 by half")
	click(p.MustElement(`.figure-large [aria-label="finger 1"]`))
	p.MustElementR(".chart-found", "This sounds D, space below the staff")

	// A fourth finger is found where the open string sounds too.
	p.MustNavigate(address + "/fingerings/violin").MustWaitLoad()
	p.MustElement(".chart-staff .touch.chosen")
	click(p.MustElement(`.figure-large [data-press="1:7"]`))
	p.MustElementR("article.chosen", "D4")

	p.MustNavigate(address + "/fingerings/bells#n67").MustWaitLoad()
	p.MustElement(".chart-staff .touch.chosen")
	click(p.MustElement(`.figure-large [aria-label="bar F sharp or G flat"]`))
	p.MustElementR(".chart-found", "This sounds F♯, space 1, or G♭, line 2")
}

// A note is opened large with the next one and what moves; while the metronome
// runs in the Finger stage the panel looks ahead.
func TestLookingAhead(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/bench/6?instrument=trumpet&stage=finger").MustWaitLoad()
	click(p.MustElement(".lanes .touch"))
	p.MustElementR(".look:not([hidden]) [data-look=now]", "now")
	until(t, p, "what moves is drawn", `() => document.querySelector("[data-look=next] .moves")`)
	until(t, p, "the reasons are told", `() => document.querySelector(".look .why").children.length > 1`)
	click(p.MustElement("[data-look-close]"))
	until(t, p, "the panel is closed", `() => document.querySelector(".look").hidden`)
	click(p.MustElement("[data-play]"))
	p.MustElement(".look.playing:not([hidden])")
	click(p.MustElement("[data-play]"))
	until(t, p, "the panel goes with the metronome", `() => document.querySelector(".look").hidden`)
}

// On a phone the panel does not lie over the note it tells of.
func TestThePanelLeavesItsNoteInSight(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 390)
	p.MustNavigate(address + "/bench/10?instrument=violin&stage=finger").MustWaitLoad()
	p.MustElement(".lanes .touch")
	notes := p.MustElements(".lanes .touch")
	for _, k := range []int{3, 11} {
		note := notes[k]
		note.MustEval(`() => this.dispatchEvent(new MouseEvent("click", { bubbles: true }))`)
		p.MustElement(".look:not([hidden])")
		if clear := note.MustEval(`() => {
			const note = this.getBoundingClientRect();
			return note.top >= 0 && note.bottom <= document.querySelector(".look").getBoundingClientRect().top;
		}`).Bool(); !clear {
			t.Errorf("the panel lies over note %d", k+1)
		}
	}
}

// The hardest changes become a drill, and the drill an exercise.
func TestDrillIsKept(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/6?instrument=trombone&stage=finger") // drawn, so that nothing moves under the hand
	click(p.MustElement(".drills summary"))
	p.MustWaitStable()
	click(p.MustElementR("a", "Drill them"))
	p.MustElementR("h1", "Hard changes of 6")
	p.MustElement("svg.lanes")
	first := p.MustElement("#tempo-now").MustText()
	click(p.MustElement("#chunks li:last-child a"))
	p.MustElement("#chunks li:last-child a[aria-current]")
	if again := p.MustElement("#tempo-now").MustText(); again == first {
		t.Errorf("the last drill starts at %s like the first", again)
	}
	click(p.MustElementR("button", "Keep this drill"))
	p.MustElementR("h1", "41 · Hard changes of 6, trombone")
	p.MustElement("svg.lanes")
}
