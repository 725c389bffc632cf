package e2e

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
)

// waitsToday sets today's day for the class at hand, in the minutes given.
func waitsToday(p *rod.Page, address string, minutes int) {
	p.MustNavigate(address + "/check-ins?class=1").MustWaitLoad()
	p.MustEval(`(on, minutes) => { const f = document.querySelector("[aria-labelledby=set-day] form"); f.on.value = on; f.minutes.value = minutes; }`, time.Now().Format(time.DateOnly), minutes)
	onwards(p, "^Schedule$")
	p.MustElementR("button", "Start check-ins")
}

// A class is heard in a queue by touch: one tap a chunk, nothing moves under it, what was
// typed stays, and the comment and the next day stand on the student's page.
func TestACheckinQueueByTouch(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1024)
	p.MustSetViewport(1024, 768, 1, true)
	waitsToday(p, address, 30)
	onwards(p, "Start check-ins")
	drawn := func() {
		until(t, p, "the music is drawn", `() => performance.getEntriesByName("due:drawn").length > 0 && document.querySelector(".due-sheet svg.lanes")`)
	}
	drawn()
	who, id := p.MustElement("h1").MustText(), p.MustEval(`() => new URL(document.querySelector(".board-ways a").href).pathname`).Str()
	chunks := len(p.MustElements(".due > li"))
	if chunks < 2 {
		t.Fatalf("in 30 minutes for 18 students %d chunks are due", chunks)
	}
	p.MustElement("[name=comment]").MustInput("Steadier in the low notes.")
	where := func() string {
		return p.MustEval(`() => [...document.querySelectorAll(".due-results, #end-checkin")].map((e) => Math.round(e.getBoundingClientRect().top + scrollY)).join(" ")`).Str()
	}
	before := where()
	tapOn(p.MustElement("#clean-0"))
	find(p, ".due > li.was-clean .due-how", "clean")
	scrolled := p.MustEval(`() => { scrollTo({ top: 200, behavior: "instant" }); return scrollY; }`).Int()
	p.MustEval(`() => document.getElementById("clean-0").click()`)
	find(p, ".due > li.was-clean .due-how", "before that")
	if now := p.MustEval(`() => scrollY`).Int(); now != scrolled {
		t.Errorf("a mark scrolls the page from %d to %d", scrolled, now)
	}
	tapOn(p.MustElement("#sound-1"))
	find(p, ".due > li.was-stumble .due-how", "stumble, sound")
	if after := where(); after != before {
		t.Errorf("marks move what is under the finger from %s to %s", before, after)
	}
	if said := p.MustElement("[name=comment]").MustProperty("value").Str(); said != "Steadier in the low notes." {
		t.Errorf("after marks the comment is %q", said)
	}
	if n := p.MustEval(`() => document.querySelectorAll(".due-sheet svg.lanes").length`).Int(); n != chunks {
		t.Errorf("after marks %d of %d chunks have music", n, chunks)
	}
	tapOn(find(p, ".due > li.was-stumble .due-how button", "Undo"))
	until(t, p, "the stumble is taken back", `() => !document.querySelector(".was-stumble")`)
	onwards(p, "Done, next")
	next := p.MustElement("h1").MustText()
	find(p, ".checkin-when", "17 wait · (10|9) min left")
	if next == who {
		t.Fatalf("after %s comes %s", who, next)
	}
	tapOn(p.MustElementR("a", "Pass .* over for now"))
	until(t, p, "another student", fmt.Sprintf(`() => document.querySelector("h1") && document.querySelector("h1").innerText !== %q`, next))
	p.MustNavigate(address + id).MustWaitLoad()
	find(p, ".checkin-notes li", "today: Steadier in the low notes.")
	find(p, ".checkin-notes li", "to come")
	find(p, ".day-plot .heard", "")
}

// A press on what was swapped in a moment before is a mark like any other, and where the
// browser sends a form by itself, what is typed beside it is there again.
func TestACheckinKeepsWhatIsTyped(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	waitsToday(p, address, 30)
	onwards(p, "Start check-ins")
	p.MustElement(".due-sheet svg.lanes")
	p.MustElement("[name=comment]").MustInput("half a sentence")
	p.MustEval(`() => { window.loaded = "once"; document.addEventListener("htmx:afterSwap", () => document.getElementById("rhythm-0")?.click(), { once: true }); }`)
	click(p.MustElement("#clean-0"))
	find(p, ".due > li.was-stumble .due-how", "before that")
	if loaded := p.MustEval(`() => window.loaded || "anew"`).Str(); loaded != "once" {
		t.Errorf("a press right after a mark loads the page %s", loaded)
	}
	if said := p.MustElement("[name=comment]").MustProperty("value").Str(); said != "half a sentence" {
		t.Errorf("after two marks the comment is %q", said)
	}
	p.MustEval(`() => { window.before = true; const f = document.querySelector(".due-mark"); for (const name of ["hx-post", "hx-target", "hx-swap"]) f.removeAttribute(name); const plain = f.cloneNode(true); f.replaceWith(plain); document.querySelector("[name=comment]").value = "another half"; plain.querySelector("button").click(); }`)
	arrived(p)
	if said := p.MustElement("[name=comment]").MustProperty("value").Str(); said != "another half" {
		t.Errorf("after a form sent by the browser the comment is %q", said)
	}
}

// A form that is wrong comes back with what is wrong, in its place, and with what was typed.
func TestACheckinRefuses(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	waitsToday(p, address, 10)
	onwards(p, "Start check-ins")
	p.MustElement("[name=comment]").MustInput("half a sentence")
	click(p.MustElementR("button", "Ask for it"))
	find(p, ".problem", "Choose a chunk from the list.")
	if said := p.MustElement("[name=comment]").MustProperty("value").Str(); said != "half a sentence" {
		t.Errorf("after a refusal the comment is %q", said)
	}
}

// Seats are changed by touch and by keys, and kept.
func TestSeatsByTouchAndKeys(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1024)
	p.MustSetViewport(1024, 768, 1, true)
	p.MustNavigate(address + "/classes/1/seats").MustWaitLoad()
	seats := func() string {
		return p.MustEval(`() => [...document.querySelectorAll("[data-rows] .seat-row")].filter((r) => r.querySelector(".seat")).map((r) => [...r.querySelectorAll(".seat-name")].map((n) => n.firstChild.textContent.trim()).join(" ")).join(" | ")`).Str()
	}
	if got, want := seats(), "Juno E. Oscar W. | Kofi B. Lena S. Piet H. Bea L. Ines P. Tomo K. | Jonah R. Marlo D. Odette V. Suri A. | Amara N. Rosa T. Theo G. Yuki M. Emil F. Nadia C."; !sameNames(got, want) {
		t.Fatalf("they sit %s, want %s", got, want)
	}
	tray := func() bool { return p.MustEval(`() => !document.querySelector(".no-seat").hidden`).Bool() }
	if tray() {
		t.Error("everybody sits, and there is a place for who has no seat")
	}
	tapOn(p.MustElementR(".seat-name", "Odette"))
	if !tray() {
		t.Error("a name is taken up, and there is no place without a seat for it")
	}
	tapOn(p.MustElementR(".seat-name", "Oscar"))
	find(p, ".seats-said", "Odette V.: row 4, place 1.")
	p.MustElementR(".seat-name", "Juno").MustFocus()
	p.Keyboard.MustType(input.Enter, input.ArrowUp, input.Enter)
	find(p, ".seats-said", "^$")
	after := seats()
	onwards(p, "Keep the seats")
	find(p, ".flash", "The seating of")
	if got := seats(); got != after {
		t.Errorf("kept, they sit %s, want %s", got, after)
	}
	if first := p.MustEval(`() => document.querySelector("[data-rows] .seat-row:not(.spare)").innerText`).Str(); !sameNames(first, "Row 5 Juno E. Snare drum") {
		t.Errorf("a new row has %q", first)
	}
}

// sameNames says whether two lists hold the same words, in any order.
func sameNames(a, b string) bool {
	words := func(text string) map[string]int {
		n := map[string]int{}
		for _, w := range strings.Fields(text) {
			n[w]++
		}
		return n
	}
	return fmt.Sprint(words(a)) == fmt.Sprint(words(b))
}
