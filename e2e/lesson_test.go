package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
)

// inLesson has a lesson suggested for the class at hand and begins it.
func inLesson(p *rod.Page, address string) { inLessonOf(p, address, "30") }

// inLessonOf is inLesson for a lesson of some minutes.
func inLessonOf(p *rod.Page, address, minutes string) {
	p.MustNavigate(address + "/lessons").MustWaitLoad()
	p.MustElement("[name=minutes]").MustSelectAllText().MustInput(minutes)
	onwards(p, "Suggest a lesson")
	onwards(p, "Start lesson")
	p.MustElement(".lesson-sheet svg.lanes")
}

// stepAt is which step of a lesson is on the page, from 0.
func stepAt(p *rod.Page) int {
	return p.MustEval(`() => Number(document.querySelector(".lesson-head:not([hidden])").dataset.step)`).Int()
}

// told waits until the lesson says something.
func told(p *rod.Page, words string) { p.MustElementR(".lesson .advice", words) }

// A whole lesson with the eighteen students of the demo, by keys alone: from the plan to
// the end, with exceptions and an undo; and what one student stumbled over stands on the
// Board and on their page.
func TestAWholeLessonByKeys(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	inLessonOf(p, address, "15")
	if chips := len(p.MustElements(".name-chip")); chips != 18 {
		t.Fatalf("%d names are on the page", chips)
	}
	p.Keyboard.MustType(input.ArrowRight)
	if at := stepAt(p); at != 1 {
		t.Fatalf("the arrow leads to step %d", at)
	}
	p.Keyboard.MustType(input.Space)
	until(t, p, "the cursor moves", `() => document.querySelector(".lesson-sheet .cursor")`)
	p.Keyboard.MustType(input.Space)
	until(t, p, "it stops", `() => !document.querySelector(".lesson-sheet .cursor")`)

	// Three times the third name stumbles over the rhythm, and is stuck.
	name := p.MustElements(".name-chip")[2].MustText()
	steps := len(p.MustElements("[data-go]"))
	for range 3 {
		p.Keyboard.MustType(input.KeyX)
		p.Keyboard.MustType(input.ArrowRight, input.ArrowRight, input.Enter)
		p.MustElementR(".exception b", name)
		p.Keyboard.MustType(input.KeyR)
		p.MustElementR(".name-chip.stumbled", name+`(.|\n)*rhythm`)
		p.MustElementR("[data-clean]", "All the others clean")
		p.Keyboard.MustType(input.KeyC)
		told(p, "clean. "+name+", rhythm")
	}
	// Somebody is away, and a mark is taken back.
	p.Keyboard.MustType(input.KeyX)
	p.Keyboard.MustType(input.Enter)
	p.Keyboard.MustType(input.KeyA)
	p.MustElementR(".name-chip.away", "not here")
	p.Keyboard.MustType(input.KeyC)
	told(p, "one not here")
	p.Keyboard.MustType(input.KeyU)
	told(p, "Taken back")
	for at := 2; at < steps; at++ {
		p.MustElement("body").MustEval(`() => document.activeElement.blur()`)
		p.Keyboard.MustType(input.ArrowRight)
		if got := stepAt(p); got != at {
			t.Fatalf("the arrow leads to step %d, want %d", got, at)
		}
		p.Keyboard.MustType(input.KeyC)
		told(p, "clean")
	}
	until(t, p, "all marks are sent", `() => !JSON.parse(sessionStorage.getItem("marks that wait") || "[]").length`)
	onwards(p, "End the lesson")
	find(p, "h2", "What was done")
	find(p, ".after-steps .trouble", name+", rhythm")

	p.MustNavigate(address + "/board").MustWaitLoad()
	find(p, ".board tbody tr", name)
	p.MustNavigate(p.MustElementR(".board th a", name).MustProperty("href").Str()).MustWaitLoad()
	p.MustElementR(".by-chunk li", "stumble, rhythm × 3")
}

// The same by touch on a tablet, while the network is away for a minute: names are tapped,
// marks wait in their order, the last one is taken back before it is sent, and what is left
// is logged once when the network is back.
func TestALessonByTouchWithoutNetwork(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1024)
	p.MustSetViewport(1024, 768, 1, true)
	inLesson(p, address)
	tap := func(selector, words string) { tapOn(find(p, selector, words)) }
	tap("[data-next]", "")
	want := 1
	offline(t, p, true)
	for _, over := range []string{"fingering", "sound"} {
		chip := p.MustElements(".name-chip")[4]
		tapOn(chip)
		tap(".exception button", over)
		tap("[data-clean]", "All the others clean")
		tap("[data-next]", "")
		if want++; stepAt(p) != want {
			t.Fatalf("without a network it is at step %d, want %d", stepAt(p), want)
		}
		p.MustElement(".lesson-sheet svg.lanes")
	}
	tap("[data-clean]", "Everybody clean")
	told(p, "3 marks wait")
	until(t, p, "nothing is on its way", withModules(t, `async () => { return !$waiting.outbox.busy; }`))
	tap("button[data-undo]", "")
	told(p, "Taken back before it was sent")
	offline(t, p, false)
	until(t, p, "what waited is sent", `() => !JSON.parse(sessionStorage.getItem("marks that wait") || "[]").length`)
	who := p.MustElements(".name-chip")[4].MustText()
	id := *p.MustElements(".name-chip")[4].MustAttribute("data-student")
	p.MustNavigate(address + "/students/" + id).MustWaitLoad()
	find(p, "h1", who)
	for _, over := range []string{"stumble, fingering", "stumble, sound"} {
		find(p, ".by-chunk li", `today(.|\n)*`+over)
	}
}

// Nothing under the fingers of who taps moves: neither choosing an exception nor the next
// step changes where the names and the buttons over them stand.
func TestMarksOfALessonStandStill(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1024)
	p.MustSetViewport(1024, 768, 1, true)
	inLesson(p, address)
	where := func() string {
		return p.MustEval(`() => [...document.querySelectorAll(".names, .lesson-bar")].map((e) => Math.round(e.getBoundingClientRect().top)).join(" ")`).Str()
	}
	before := where()
	tapOn(p.MustElements(".name-chip")[0])
	p.MustElement(".exception:not([hidden])")
	if after := where(); after != before {
		t.Errorf("an exception moves the marks from %s to %s", before, after)
	}
	tapOn(p.MustElementR(".exception button", "^clean$"))
	for range 3 {
		tapOn(p.MustElement("[data-next]"))
		p.MustElement(".lesson-sheet svg.lanes")
		if after := where(); after != before {
			t.Errorf("step %d moves the marks from %s to %s", stepAt(p), before, after)
		}
	}
	if over := p.MustEval(`() => document.documentElement.scrollHeight - document.documentElement.clientHeight`).Int(); over > 1 {
		t.Errorf("the lesson is %d pixels higher than the tablet", over)
	}
}

// A plan is changed by keys and by dragging, and what it adds up to follows.
func TestThePlanOfALesson(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/lessons").MustWaitLoad()
	onwards(p, "Suggest a lesson")
	find(p, "button", "Start lesson")
	click(find(p, "summary", "Edit steps"))
	name := func(k int) string {
		return p.MustEval(`(k) => document.querySelectorAll(".plan-what b")[k].textContent`, k).Str()
	}
	second, third := name(1), name(2)
	p.MustElement("#times-1").MustFocus()
	p.MustEval(`() => document.activeElement.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowDown", altKey: true, bubbles: true, cancelable: true }))`)
	until(t, p, "the step has moved", fmt.Sprintf(`() => document.querySelectorAll(".plan-what b")[2].textContent === %q`, second))
	if name(1) != third {
		t.Errorf("the second step is %s now, want %s", name(1), third)
	}
	until(t, p, "the focus went along", `() => document.activeElement.id === "times-2"`)
	p.MustElement("#times-1").MustSelect("× 6")
	until(t, p, "it is done six times", `() => document.querySelector("#times-1 option[selected]")?.value === "6"`)
	until(t, p, "the steps add up to what the page says", `() => { // once the page has settled
		const minutes = (e) => parseFloat(e.textContent.replace("½", ".5"));
		return [...document.querySelectorAll(".plan-steps li:not(.out) .plan-time")].reduce((sum, e) => sum + minutes(e), 0) === minutes({ textContent: document.querySelector(".plan-sum b").textContent.split(", ")[1] });
	}`)
	p.MustEval(`() => {
		const rows = [...document.querySelectorAll(".plan-steps [data-step]")], data = new DataTransfer();
		const send = (type, on, y) => on.dispatchEvent(new DragEvent(type, { bubbles: true, cancelable: true, dataTransfer: data, clientY: y }));
		send("dragstart", rows[3], 0);
		const top = rows[0].getBoundingClientRect().top + 2;
		send("dragover", rows[0], top); send("drop", rows[0], top); send("dragend", rows[3], 0);
	}`)
	until(t, p, "the step was dropped in the first place", `() => !document.querySelectorAll(".plan-what b")[0].textContent.startsWith("Long")`)
}

// While a lesson runs in one window, the Board in another one shows what is marked.
func TestTheBoardFollowsALesson(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	inLesson(p, address)
	board := failing(t, p.Browser().MustPage(address+"/board"))
	board.MustElementR(".board-lesson", "A lesson is running")
	before := *board.MustElement("#board-live").MustAttribute("data-latest")
	p.MustActivate() // a window in the background stands still
	click(p.MustElement("[data-next]"))
	click(p.MustElements(".name-chip")[3])
	click(p.MustElementR(".exception button", "sound"))
	click(p.MustElement("[data-clean]"))
	told(p, "clean")
	board.MustActivate()
	until(t, board, "the Board has fetched itself again", fmt.Sprintf(`() => document.querySelector("#board-live").dataset.latest !== %q`, before))
	if rows := len(board.MustElements(".board tbody tr")); rows != 18 {
		t.Errorf("the Board has %d rows then", rows)
	}
}
