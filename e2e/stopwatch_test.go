package e2e

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
)

// hand does what a teacher does and counts it.
type hand struct {
	t            *testing.T
	p            *rod.Page
	clicks, keys int
	began        time.Time
}

func (h *hand) click(selector string) {
	h.clicks++
	click(find(h.p, selector, ""))
}

func (h *hand) clickWords(selector, words string) {
	h.clicks++
	click(find(h.p, selector, words))
}

// key presses a key.
func (h *hand) key(key input.Key) {
	h.keys++
	h.p.Keyboard.MustType(key)
}

// tabTo presses Tab until the control at hand says words.
func (h *hand) tabTo(words string) {
	for range 100 {
		h.key(input.Tab)
		if strings.Contains(h.p.MustEval(`() => document.activeElement.textContent + (document.activeElement.getAttribute("aria-label") || "")`).Str(), words) {
			return
		}
	}
	h.t.Fatalf("Tab does not come to %q", words)
}

// sees waits for words in what a selector finds.
func (h *hand) sees(selector, words string) { find(h.p, selector, words) }

// scrolled is how far the page has been moved.
func (h *hand) scrolled() int { return h.p.MustEval(`() => Math.round(window.scrollY)`).Int() }

// task is one of a teacher's, with the most it may cost.
type task struct {
	name         string
	width        int
	start        string
	do           func(*hand)
	clicks, keys int
}

// stopwatchTasks are what a teacher does in front of a class.
var stopwatchTasks = []task{
	{"first opening to an own exercise on the Bench for trombone", 1280, "/", func(h *hand) {
		h.clickWords("a", "Add an exercise")
		h.p.MustElement("#counted-sheet")
		h.clicks++ // the list of instruments, and its item by the letters typed
		h.p.MustElement("[name=written_for]").MustSelect("trombone")
		h.p.MustElement("[name=count]").MustFocus() // has the focus at first
		h.keys += press(h.p, ferryCount)
		h.key(input.Enter)
		h.keys += press(h.p, ferryNames)
		h.p.MustElementR(".counted-status", "8 measures, 25 notes")
		h.p.MustWaitStable()
		h.clickWords("button", "Save")
		h.sees(".flash", "Saved: ")
		h.sees(".head-words", "^Trombone")
	}, 3, 80},
	{"a list of 12 students with instruments", 1280, "/people", func(h *hand) {
		var list []string
		for n := range 12 {
			list = append(list, fmt.Sprintf("Student%d A %s", n, []string{"trombone", "clarinet", "violin"}[n%3]))
		}
		h.p.MustElement(".new-class [name=name]").MustInput("Wednesday")
		h.p.MustElement(".new-class [name=list]").MustInput(strings.Join(list, "\n"))
		h.click(".new-class button")
		h.clickWords("button", "Keep 12 students")
		h.sees("h2", "Wednesday")
	}, 2, 0},
	{"count-off, two clean, a stumble, undo, for one student", 1280, "/bench/9?instrument=trombone", func(h *hand) {
		h.click("#students [data-at-hand] a")
		h.sees(".student-now", ".")
		h.click("#go")
		h.click("#mark-clean")
		h.sees(".advice", "1 of 2 clean")
		h.click("#mark-clean")
		h.sees(".advice", "on to Name")
		h.click("#mark-stumble")
		h.click("#marks .causes [value=rhythm]")
		h.sees(".did", "a stumble, rhythm")
		h.click("#marks .latest button")
		h.sees(".did", "Taken back")
	}, 7, 0},
	{"the same by keys", 1280, "/bench/9?instrument=trombone", func(h *hand) {
		h.key(input.KeyN)
		h.sees(".student-now", ".")
		h.p.MustWaitStable()
		h.key(input.Space)
		until(h.t, h.p, "the cursor moves", `() => document.querySelector(".cursor")`)
		h.key(input.KeyC)
		h.sees(".advice", "1 of 2 clean")
		h.key(input.KeyC)
		h.key(input.KeyX) // before the answer is there
		h.sees(".advice", "twice running: on to Name")
		h.p.MustElement(".causes:not([hidden])")
		h.p.MustWaitStable()
		h.key(input.KeyR)
		h.sees(".did", "a stumble, rhythm")
		h.key(input.KeyU)
		h.sees(".did", "Taken back")
	}, 0, 8},
	{"all 18 clean on a chunk at a stage, and its undo", 1280, "/bench/12?instrument=clarinet", func(h *hand) {
		h.click("#all-clean")
		h.sees(".did", "18 clean")
		h.clickWords(".did button", "Undo")
		h.sees(".did", "taken back")
	}, 2, 0},
	{"who is stuck, where, why, and what next", 1280, "/", func(h *hand) {
		h.clickWords("nav a", "Board")
		h.sees(".help-cards", "of the last")
		h.click(".help-cards a")
		h.sees(".student-now", ".")
	}, 2, 0},
	{"phone: open, choose, count off, mark clean", 390, "/", func(h *hand) {
		h.clickWords(".exercise", "Ferry Landing")
		h.p.MustElement("svg.lanes")
		h.p.MustWaitStable()
		h.click("#bar-who")
		h.sees(".student-now", ".")
		h.click("#go")
		until(h.t, h.p, "the cursor moves", `() => document.querySelector(".cursor")`)
		h.click("#mark-clean")
		h.sees(".did", "clean")
	}, 4, 0},
	{"open, choose, count off, mark clean by keys", 1280, "/", func(h *hand) {
		h.tabTo("Skip to the page")
		h.key(input.Enter)
		h.tabTo("Ferry Landing")
		h.key(input.Enter)
		h.p.MustElement("svg.lanes")
		h.p.MustWaitStable()
		h.key(input.KeyN)
		h.sees(".student-now", ".")
		h.p.MustWaitStable()
		h.key(input.Space)
		until(h.t, h.p, "the cursor moves", `() => document.querySelector(".cursor")`)
		h.key(input.KeyC)
		h.sees(".did", "clean")
	}, 0, 24},
}

// Each task costs no more clicks and keys than it may; the table is in the test's log.
func TestStopwatch(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	for _, task := range stopwatchTasks {
		p, address := signedIn(t, task.width)
		p.MustNavigate(address + task.start).MustWaitLoad()
		if strings.HasPrefix(task.start, "/bench") {
			p.MustElement("svg.lanes")
			p.MustWaitStable() // nothing moves under the hand
		}
		h := &hand{t: t, p: p, began: time.Now()}
		task.do(h)
		t.Logf("%-58s %2d clicks, %2d keys, %4.1f s, %d px scrolled", task.name, h.clicks, h.keys, time.Since(h.began).Seconds(), h.scrolled())
		if h.clicks > task.clicks || h.keys > task.keys {
			t.Errorf("%s costs %d clicks and %d keys, and may cost %d and %d", task.name, h.clicks, h.keys, task.clicks, task.keys)
		}
		p.MustClose()
	}
}
