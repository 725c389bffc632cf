package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/input"
)

// Start, Clean and Stumble stand at one place: at every stage, for four instruments, on
// three widths, and after marks that change the advice and the stage.
func TestNothingMovesTheMarks(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	const where = `() => ["go", "mark-clean", "mark-stumble"].map((id) => {
		const r = document.getElementById(id).getBoundingClientRect();
		return [r.left, r.top, r.width, r.height].map(Math.round).join(",");
	}).join(" ")`
	p, address := signedIn(t, 1280)
	for _, width := range []int{1280, 900, 390} {
		p.MustSetViewport(width, 844, 1, false)
		first := ""
		for _, student := range []struct {
			instrument string
			id         int
		}{{"clarinet", 4}, {"trombone", 1}, {"cello", 15}, {"snare", 17}} {
			for _, stage := range []string{"count", "name", "finger", "play"} {
				bench(p, fmt.Sprintf("%s/bench/6?instrument=%s&student=%d&stage=%s", address, student.instrument, student.id, stage))
				p.MustEval(`() => window.scrollTo(0, 0)`)
				at := p.MustEval(where).Str()
				if first == "" {
					first = at
				}
				if at != first {
					t.Errorf("%d px, %s at %s: the buttons are at %s, they were at %s", width, student.instrument, stage, at, first)
				}
			}
		}
		for _, key := range []input.Key{input.KeyC, input.KeyC, input.KeyX} {
			p.Keyboard.MustType(key)
			p.MustWaitRequestIdle()()
			p.MustWaitStable()
			if at := p.MustEval(where).Str(); at != first {
				t.Errorf("%d px: after %c the buttons are at %s, they were at %s", width, rune(key), at, first)
			}
		}
	}
}

// Everybody clean is one key and its undo another; the next student is a key too.
func TestTheClassFromTheKeyboard(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/12?instrument=clarinet")
	p.Keyboard.MustType(input.KeyE)
	p.MustElementR(".did", "Count, .*: 18 clean")
	p.Keyboard.MustType(input.KeyU)
	p.MustElementR(".did", "taken back")
	p.Keyboard.MustType(input.KeyN)
	first := p.MustElement(".student-now b").MustText()
	p.Keyboard.MustType(input.KeyN)
	until(t, p, "the next student is at hand", `() => document.querySelector(".student-now b") && document.querySelector(".student-now b").textContent !== "`+first+`"`)
	p.Keyboard.MustType(input.KeyC)
	p.MustElementR(".did", "Count, .*: clean")
}
