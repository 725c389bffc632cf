package e2e

import (
	"testing"
	"time"
)

// What is typed and not saved is there again after the page was left, and is dropped once it
// is saved.
func TestTypedTextIsKept(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/exercises/new").MustWaitLoad()
	p.MustElement("[name=title]").MustInput("Third Ferry")
	p.MustElement("[name=count]").MustInput("1 2 3 4 | 1 2")
	p.MustElement("[name=names]").MustInput("gab")
	until(t, p, "a draft is kept", `() => Object.entries(localStorage).some(([key, draft]) => key.startsWith("draft of exercise") && draft.includes("gab"))`)
	asks := `() => { window.dispatchEvent(new Event("beforeunload", { cancelable: true })); return window.asksToLeave === true; }`
	if !p.MustEval(asks).Bool() {
		t.Error("a page with typed text is left without a word")
	}
	p.MustNavigate(address + "/board").MustWaitLoad()
	p.MustNavigate(address + "/exercises/new").MustWaitLoad()
	p.MustElement(".draft-offer:not([hidden])")
	if said := p.MustElement("[name=count]").MustProperty("value").Str(); said != "" {
		t.Errorf("before it is wanted the draft stands in the form: %s", said)
	}
	click(p.MustElement("[data-draft-use]"))
	for name, want := range map[string]string{"title": "Third Ferry", "count": "1 2 3 4 | 1 2", "names": "gab"} {
		if got := p.MustElement("[name=" + name + "]").MustProperty("value").Str(); got != want {
			t.Errorf("the draft's %s is %q, want %q", name, got, want)
		}
	}
	p.MustElementR(".counted-status", "3 named")

	// A form that is refused keeps everything, and so does the draft.
	leads(p, p.MustElement(".entry-do .main"))
	find(p, ".problem, .problems", "")
	if got := p.MustElement("[name=count]").MustProperty("value").Str(); got != "1 2 3 4 | 1 2" {
		t.Errorf("after a refusal the count is %q", got)
	}
	p.MustElement("[name=count]").MustSelectAllText().MustInput("1 2 3 4 | 1 2 3 4")
	p.MustElement("[name=names]").MustSelectAllText().MustInput("gabc | cbag")
	p.MustElementR(".counted-status", "8 notes")
	leads(p, p.MustElement(".entry-do .main"))
	p.MustElementR("h1", "Third Ferry")
	until(t, p, "the draft is dropped", `() => !Object.keys(localStorage).some((key) => key.startsWith("draft of exercise"))`)
	p.MustNavigate(address + "/exercises/new").MustWaitLoad()
	if offered := p.MustEval(`() => !document.querySelector(".draft-offer").hidden`).Bool(); offered {
		t.Error("what was saved is offered again")
	}
	if p.MustEval(asks).Bool() {
		t.Error("a page with nothing typed asks before it is left")
	}
}

// Exceptions that are tapped in a lesson and not marked are asked for when the step is left,
// are there after a reload and a step elsewhere, and are asked for before the end.
func TestExceptionsAreAskedFor(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	inLesson(p, address)
	for range 3 { // past the warm-up
		click(p.MustElement("[data-next]"))
	}
	step := stepAt(p)
	chip := p.MustElements(".name-chip")[2]
	name := chip.MustAttribute("data-name")
	click(chip)
	click(p.MustElement("[data-over=rhythm]"))
	p.MustElementR(".name-chip.stumbled", *name)
	click(p.MustElement("[data-next]"))
	p.MustElementR("dialog.pending[open] p", *name+": rhythm. All the others clean\\?")
	if at := stepAt(p); at != step {
		t.Errorf("before the answer the lesson is at step %d, not %d", at, step)
	}
	click(p.MustElement("[data-pending=keep]"))
	until(t, p, "the next step", `() => !document.querySelector("dialog.pending[open]")`)
	if at := stepAt(p); at != step+1 {
		t.Errorf("after the answer the lesson is at step %d", at)
	}
	p.MustReload().MustWaitLoad()
	p.MustElement(".lesson-sheet svg.lanes")
	click(p.MustElements("[data-go]")[step])
	p.MustElementR(".name-chip.stumbled", *name)
	click(p.MustElements("[data-go]")[step+1])
	click(p.MustElement("[data-pending=keep]"))
	until(t, p, "the next step again", `() => !document.querySelector("dialog.pending[open]")`)
	click(p.MustElementR("[data-end] button", "End"))
	p.MustElementR("dialog.pending[open] p", *name+": rhythm")
	leads(p, p.MustElement("[data-pending=mark]"))
	find(p, "h2", "What was done")
	p.MustNavigate(address + "/board").MustWaitLoad()
	find(p, ".board td", "")
}

// On a phone Clean without a student says so where the thumb is, and in a lesson the next step
// is in reach.
func TestInReachOfTheThumb(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address := signedIn(t, 390)
	bench(p, address+"/bench/12?instrument=clarinet")
	tapOn(p.MustElement("#mark-clean"))
	p.MustElementR(".advice.told", "Nobody is chosen")
	if box := p.MustElement(".advice.told").MustShape().Box(); box.Y < 500 || box.Y+box.Height > 800 {
		t.Errorf("it is said at %v of 800", box)
	}
	inLesson(p, address)
	for _, size := range [][2]int{{390, 844}, {768, 1024}} {
		p.MustSetViewport(size[0], size[1], 1, true)
		time.Sleep(resettles)
		next := p.MustElement("[data-bar-next]")
		if box := next.MustShape().Box(); box.Y < 0 || box.Y+box.Height > float64(size[1]) {
			t.Errorf("%d wide: Next step lies at %v", size[0], box)
		}
		at := stepAt(p)
		tapOn(next)
		for end := time.Now().Add(patience); stepAt(p) != at+1; time.Sleep(settled) {
			if time.Now().After(end) {
				t.Fatalf("%d wide: Next step leads to %d from %d", size[0], stepAt(p), at)
			}
		}
	}
}
