package e2e

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
)

// ferryCount and ferryNames are exercise 6 of the demo as it is counted and named aloud, with
// the bar lines left out.
const (
	ferryCount = "1231(2)&3123[4]1231231(2)&341&2341[4]"
	ferryNames = "deffedcdede=fdefgfedcdedcb"
)

// press types a text key by key.
func press(p *rod.Page, text string) int {
	for _, key := range text {
		p.Keyboard.MustType(input.Key(key))
	}
	return len(text)
}

// sounds lists the counts and the names on a Bench.
func sounds(p *rod.Page, address string) string {
	bench(p, address)
	return p.MustEval(`() => JSON.parse(document.querySelector(".sheet-data").textContent).measures.map((m) =>
		m.pulses.filter((p) => p.look !== "quiet").map((p) => p.text).join(" ") + " " + m.events.map((e) => e.name + e.midi).join(" ")).join(" | ")`).Str()
}

// Eight measures of a printed book are entered by keys alone, with fewer than 80.
func TestEnteringByKeysAlone(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address := signedIn(t, 1280)
	want := sounds(p, address+"/bench/6?instrument=flute")
	p.MustNavigate(address + "/exercises/new").MustWaitLoad()
	until(t, p, "the count has the focus", `() => document.activeElement.name === "count"`)
	p.MustElement("[name=counted_key]").MustSelect("B flat major: B flat, E flat")
	p.MustElement("[name=count]").MustFocus()
	keys := len("B fl") // in the list of keys
	keys += press(p, ferryCount)
	p.Keyboard.MustType(input.Enter)
	keys += 1 + press(p, ferryNames)
	until(t, p, "the exercise is drawn", `() => document.querySelector(".counted-status").textContent.includes("8 measures, 25 notes.") && document.querySelectorAll("#counted-sheet svg.lanes").length === 1`)
	p.Keyboard.MustType(input.Enter)
	until(t, p, "the button has the focus", `() => document.activeElement.matches(".entry-do .main")`)
	p.MustEval(`() => { window.before = true; }`)
	if err := p.Keyboard.Type(input.Enter); err != nil {
		t.Log(err) // the page may be gone before the key is up
	}
	arrived(p)
	keys += 2
	p.MustElementR(".flash", "Saved: 41")
	if keys >= 80 {
		t.Errorf("it took %d keys", keys)
	}
	t.Logf("%d keys", keys)
	id := p.MustEval(`() => location.pathname.split("/").pop()`).Str()
	if got := sounds(p, address+"/bench/"+id+"?instrument=flute"); got != want {
		t.Errorf("entered is\n%s\nand it should be\n%s", got, want)
	}

	// It is heard as it was counted: 25 notes, at the onsets that the count line says, in
	// quarters.
	samples, notes := rendered(t, p, address+"/bench/"+id+"?instrument=flute&chunk=1-8")
	quarter := 60 / float64(p.MustEval(`() => Number(document.getElementById("tempo-now").textContent)`).Num())
	counted := []float64{0, 1, 2, 4, 5.5, 6, 8, 9, 10, 12, 13, 14, 16, 17, 18, 20, 21.5, 22, 23, 24, 24.5, 25, 26, 27, 28}
	if len(notes) != len(counted) {
		t.Fatalf("%d notes are heard, %d counted", len(notes), len(counted))
	}
	for k, at := range counted {
		if heard := onset(samples, 0.25+at*quarter); math.Abs(heard-0.25-at*quarter) > 0.002 {
			t.Errorf("note %d is counted at %.3f s and heard at %.4f", k+1, at*quarter, heard-0.25)
		}
	}

	// And its sheets come out of the printer, one a player.
	p.MustNavigate(address + "/bench/" + id + "/sheets?class=1").MustWaitLoad()
	until(t, p, "the sheets are drawn", `() => performance.getEntriesByName("sheets:drawn").length > 0`)
	if pages := printed(t, p, paperSize{"A4", 8.27, 11.69}); len(pages) != 6 {
		t.Errorf("six instruments have %d pages", len(pages))
	}
}

// What is wrong is marked in the line and in the music while it is typed, and notes without a
// name are pale.
func TestTypedLinesAreMarked(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/exercises/new").MustWaitLoad()
	p.MustElement("[name=count]").MustInput("1 2 3 4 | 1 2 5")
	p.MustElement("[name=names]").MustInput("ga")
	p.MustElementR(".counted-status .wrong", "Measure 2: 4/4 has no beat 5.")
	until(t, p, "the place in the line", `() => [...document.querySelectorAll(".typed-line.count mark")].map((m) => m.textContent).join() === "1 2 5"`)
	until(t, p, "the place in the music", `() => document.querySelectorAll("#counted-sheet .chunk-box").length === 1`)
	until(t, p, "four notes without a name", `() => document.querySelectorAll("#counted-sheet .unnamed").length === 4`)
	p.MustElement("[name=count]").MustSelectAllText().MustInput("1 2 3 4 | 1 2 3")
	until(t, p, "nothing is wrong any more", `() => !document.querySelector(".typed-line mark") && !document.querySelector("#counted-sheet .chunk-box") && document.querySelectorAll("#counted-sheet .unnamed").length === 5`)
	p.MustElement("[name=written_for]").MustSelect("trombone")
	until(t, p, "the note to start near is the trombone's", `() => document.querySelector("#starts option").textContent !== "B, line 3 (home)"`)
}

// With the keys on the screen it is done with a thumb.
func TestEnteringWithAThumb(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address := signedIn(t, 390)
	p.MustNavigate(address + "/exercises/new").MustWaitLoad()
	for _, key := range strings.Split("1 & 2 ( ) 3 | 1 [ ] 3", " ") {
		switch key {
		case "(", "[":
			p.MustElement(fmt.Sprintf("[data-line-of=count][data-type='%s']", map[string]string{"(": "()", "[": "[]"}[key])).MustClick()
		case ")", "]":
		default:
			click(p.MustElement(fmt.Sprintf("[data-line-of=count][data-type='%s']", key)))
		}
	}
	for _, key := range []string{"g", "a", "-", "b", "c"} {
		click(p.MustElement(fmt.Sprintf("[data-line-of=names][data-type='%s']", key)))
	}
	click(p.MustElement("[data-line-of=names][data-type='<']"))
	if got := p.MustElement("[name=names]").MustProperty("value").Str(); got != "ga-b" {
		t.Errorf("the names are %q", got)
	}
	if got := p.MustElement("[name=count]").MustProperty("value").Str(); got != "1 & 2 (3) | 1 [3]" {
		t.Errorf("the count is %q", got)
	}
	until(t, p, "it is drawn", `() => document.querySelectorAll("#counted-sheet svg.lanes").length === 1`)
	if p.MustEval(`() => document.documentElement.scrollWidth > innerWidth`).Bool() {
		t.Error("the page is wider than the screen")
	}
}

// A MIDI keyboard fills the name line, here a simulated one: what is played is what is read.
func TestNamesFromAMIDIKeyboard(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address := signedIn(t, 1280)
	p.MustEvalOnNewDocument(`const keys = {}; window.keyboard = keys; navigator.requestMIDIAccess = async () => ({ inputs: new Map([["one", keys]]) });`)
	for _, test := range []struct {
		key, written string
		notes        []int
	}{
		{"C major: no sign", "C5 D5 E5 F♯5", []int{72, 74, 76, 78}},
		{"B flat major: B flat, E flat", "B♭4 E♭5 E♮5 B♭5", []int{70, 75, 76, 82}},
		{"F major: B flat", "B♮4 B♭4 C4 A♭5", []int{71, 70, 60, 80}},
		{"D major: F sharp, C sharp", "F♯5 C♯5 C♮5 C♯5", []int{78, 73, 72, 73}},
	} {
		p.MustNavigate(address + "/exercises/new").MustWaitLoad()
		p.MustElement("[name=counted_key]").MustSelect(test.key)
		p.MustElement("[name=count]").MustFocus()
		press(p, "1234")
		p.MustElementR(".counted-status", "4 notes")
		click(p.MustElement("[data-midi]"))
		until(t, p, "the keyboard is heard", `() => window.keyboard.onmidimessage`)
		for _, n := range test.notes {
			p.MustEval(`(n) => { window.keyboard.onmidimessage({ data: [0x90, n, 64] }); window.keyboard.onmidimessage({ data: [0x80, n, 0] }); window.keyboard.onmidimessage({ data: [0x91, n, 0] }); }`, n)
		}
		const named = `JSON.parse(document.querySelector("#counted-sheet .sheet-data").textContent).measures[0].events`
		until(t, p, "the last note is named", fmt.Sprintf(`() => %s[3].midi === %d`, named, test.notes[3]))
		got := p.MustEval(`() => ` + named + `.map((e) => e.name + Math.floor(e.midi / 12 - 1)).join(" ")`).Str()
		if got != test.written {
			t.Errorf("in %s, %v is %s, want %s; typed is %q", test.key, test.notes, got, test.written, p.MustElement("[name=names]").MustProperty("value").Str())
		}
	}
}

// Notes are chosen in the music, by pointer or by keys, and marked; two marks pressed at once
// are both kept.
func TestMarksAreChosenInTheMusic(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/exercises/new").MustWaitLoad()
	p.MustElement("[name=count]").MustInput("1 2 3 4 | 1 2 3")
	p.MustElement("[name=names]").MustInput("gabc | bag")
	until(t, p, "seven notes stand", `() => document.querySelectorAll("#counted-sheet .touch").length === 7 && document.querySelector(".counted-status").textContent.includes("7 notes.")`)
	p.MustEval(`() => {
		const notes = document.querySelectorAll("#counted-sheet .touch");
		notes[0].dispatchEvent(new MouseEvent("click", { bubbles: true }));
		notes[3].dispatchEvent(new MouseEvent("click", { bubbles: true, shiftKey: true }));
		document.querySelector("[data-mark=slur]").click();
		document.querySelector("[data-mark=mf]").click();
	}`)
	marks := `() => document.querySelector("#marks-line").value`
	until(t, p, "both are kept", "() => ("+marks+")()"+` === "1.1 mf, 1.1-1.4 slur"`)
	until(t, p, "both are drawn", `() => !document.querySelector("#counted-sheet .stale") && document.querySelector("#counted-sheet g.slur") && document.querySelector("#counted-sheet g.dynam") && document.querySelector("#counted-sheet .touch.chosen")`)

	// By keys: into the music, to the next note, one further with Shift. Leaving the line does not
	// draw the music again.
	p.MustEval(`() => { window.requests = 0; document.addEventListener("htmx:beforeSend", () => window.requests++); }`)
	p.MustEval(`() => document.querySelector("#counted-sheet .touch").focus({ focusVisible: true })`)
	p.Keyboard.MustType(input.ArrowRight)
	p.MustElementR(".chosen-notes", "m. 1, note 2:")
	if n := p.MustEval(`() => window.requests`).Int(); n != 0 {
		t.Errorf("leaving the line asks for the music %d times", n)
	}
	// A mark draws the music again, and the note keeps the focus.
	p.MustEval(`() => document.querySelector("[data-mark=accent]").click()`)
	until(t, p, "the accent is drawn", `() => document.querySelector("#counted-sheet .engraving:not(.stale) g.artic")`)
	until(t, p, "the note has the focus", `() => document.activeElement.matches("#counted-sheet .engraving:not(.stale) .touch")`)
	p.Keyboard.MustType(input.ArrowRight, input.ArrowLeft)
	p.MustElementR(".chosen-notes", "m. 1, note 2:")
	p.MustElement("[data-mark-words]").MustInput("warmly")
	p.Keyboard.MustType(input.Enter)
	until(t, p, "the words are kept", "() => ("+marks+")()"+`.includes("1.2 accent \"warmly\"")`)
	until(t, p, "the words are drawn", `() => document.querySelector("#counted-sheet g.dir")`)
}
