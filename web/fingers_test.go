package web

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/store"
)

func TestFingeringChart(t *testing.T) {
	s := open(t)
	v, _ := s.teacher(t, "a@school.example")
	_, page := v.get("/fingerings/trumpet")
	wants(t, page, "Trumpet fingerings", "C♯ or D♭", `data-fingering="1-2-3"`, "also sounds G4, C5, E5, G5, C6", "third-valve slide out", "Year one: B3 to D5")
	_, page = v.get("/fingerings/bassoon")
	wants(t, page, "flick", `data-fingering="W half 2 3 | 4 5 6"`, "Crow the soaked reed")
	_, page = v.get("/fingerings/timpani")
	wants(t, page, "the 29 inch drum")
	if strings.Contains(page, "also sounds") {
		t.Error("a drum is said to sound other notes, though it is tuned to one")
	}
	_, page = v.get("/fingerings/snare")
	wants(t, page, "Strokes, not notes", "by turns")
	for _, path := range []string{"/fingerings/kazoo", "/fingerings/"} {
		if status, _ := v.get(path); status != http.StatusNotFound {
			t.Errorf("%s gives %d", path, status)
		}
	}
}

// Under the music every fingering stands in words, so that it can be read aloud.
func TestFingeringsInWords(t *testing.T) {
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	id := s.exercise(t, account.ID, store.Exercise{Number: 1, Title: "Words", WrittenFor: "clarinet", Source: "T:Words\nM:4/4\nL:1/4\nK:C\nE G A2|]\n"})
	_, page := v.get(fmt.Sprintf("/bench/%d?instrument=clarinet", id))
	wants(t, page, "<td>left hand thumb, 1<", "<td>nothing pressed<", "or left hand A key; right hand 4 5 6: by choice")
	_, page = v.get(fmt.Sprintf("/bench/%d?instrument=trumpet", id))
	wants(t, page, "<td>valves 1 and 2<", "or valve 3: valve 3 alone")
}

// Four valves and the sticking are kept for an instrument and used on its chart and
// its Bench.
func TestWhatOurInstrumentsHave(t *testing.T) {
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	low := s.exercise(t, account.ID, store.Exercise{Number: 1, Title: "Low", WrittenFor: "euphonium-bc", Source: "T:Low\nM:4/4\nL:1/4\nK:C clef=bass\nC, D,, C,2|]\n"})
	drum := s.exercise(t, account.ID, store.Exercise{Number: 2, Title: "Drum", Source: "T:Drum\nM:4/4\nL:1/4\nK:C clef=perc\n{c}c c !///!c2|]\n"})
	euphonium, snare := fmt.Sprintf("/bench/%d?instrument=euphonium-bc", low), fmt.Sprintf("/bench/%d?instrument=snare&tempo=100", drum)
	_, page := v.get(euphonium)
	wants(t, page, "has a note beyond the euphonium", `"fingering":"1-3"`)
	_, page = v.get(snare)
	wants(t, page, `"fingering":"lR"`, `"fingering":"R","said":"right"`, `"roll":15`, "a 15-stroke roll at 100")

	if status, to := v.post("/fingerings/euphonium-bc/kind", url.Values{"valves": {"4"}}); status != http.StatusSeeOther || to != "/fingerings/euphonium-bc" {
		t.Fatalf("choosing four valves gives %d %s", status, to)
	}
	v.post("/fingerings/snare/kind", url.Values{"sticking": {"alternating"}})
	v.post("/fingerings/trumpet/kind", url.Values{"valves": {"4"}}) // has three
	v.post("/settings", url.Values{"school": {"numbers"}})          // does not forget them

	_, page = v.get(euphonium)
	wants(t, page, `"fingering":"4"`, `"fingering":"1-2-4"`)
	if strings.Contains(page, "has a note beyond") {
		t.Error("with four valves low D is still out of range")
	}
	_, page = v.get(snare)
	wants(t, page, `"fingering":"lR"`, `"fingering":"L","said":"left"`)
	_, page = v.get("/fingerings/euphonium-bc")
	wants(t, page, `<option value="4" selected>`, `id="note-36"`)
	_, page = v.get("/fingerings/trumpet")
	if strings.Contains(page, "four valves") {
		t.Error("a trumpet is offered four valves")
	}
}

func TestWordsForFingers(t *testing.T) {
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	form := url.Values{"school": {"numbers"}, "hands": {"yes"}, "strings": {"spacing"}, "two": {"near hand"}, "three": {"far hand"}, "colour-D": {"#FFEE00"}, "colour-A": {"#a03a3a"}}
	if status, _ := v.post("/settings", form); status != http.StatusSeeOther {
		t.Fatalf("the settings are refused: %d", status)
	}
	_, page := v.get("/settings")
	wants(t, page, `value="near hand"`, `value="#ffee00"`, `background:#ffee00;color:#1d2733`, `background:#a03a3a;color:#ffffff`)
	_, page = v.get(fmt.Sprintf("/bench/%d?instrument=violin", b.exercise))
	wants(t, page, "close to", `"colour":"#ffee00","ink":"#1d2733"`)
	_, page = v.get("/fingerings/flute")
	wants(t, page, "<code>T L1 L2 L3 | R1 R2 R3</code>", `data-fingering="T 1 2 3 | 4 5 6"`)
	_, page = v.get("/fingerings/cello")
	wants(t, page, "3 on D, the far hand", "2 on D, the near hand")

	form.Set("colour-D", "yellowish")
	status, page := v.post("/settings", form)
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a word for a colour gives %d", status)
	}
	wants(t, page, "the colour of the D string, &#34;yellowish&#34;", `value="near hand"`)
	form.Set("two", strings.Repeat("x", 30))
	if status, _ := v.post("/settings", form); status != http.StatusUnprocessableEntity {
		t.Errorf("a long word gives %d", status)
	}
}

// Contrast by WCAG 2.2: black on white is 21 to 1, and any colour has an ink that
// gives at least 3.8 (the page's ink is not quite black).
func TestInkOnColours(t *testing.T) {
	ratio := func(a, b string) float64 {
		x, y := luminance(a), luminance(b)
		return (math.Max(x, y) + 0.05) / (math.Min(x, y) + 0.05)
	}
	if got := ratio("#ffffff", "#000000"); math.Abs(got-21) > 0.01 {
		t.Errorf("black on white has a contrast of %.2f", got)
	}
	for _, colour := range ownColours {
		if got := ratio(colour, inkOn(colour)); got < 4.5 {
			t.Errorf("%s with %s has a contrast of %.2f", colour, inkOn(colour), got)
		}
	}
	for level := range 256 {
		grey := fmt.Sprintf("#%02x%02x%02x", level, level, level)
		if got := ratio(grey, inkOn(grey)); got < 3.8 {
			t.Errorf("%s with %s has a contrast of %.2f", grey, inkOn(grey), got)
		}
	}
}

func TestDrill(t *testing.T) {
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	bench := fmt.Sprintf("/bench/%d?instrument=trombone", b.exercise)
	_, page := v.get(bench + "&stage=finger")
	wants(t, page, "Hardest changes", "Drill them")
	_, page = v.get(bench + "&stage=finger&drill=yes")
	wants(t, page, "Hard changes of 1 · First Lamp", "start at", "Keep this drill in The Ferry Book", "Back to the exercise")
	if strings.Contains(page, "Who is trying?") {
		t.Error("a drill that is no exercise asks who is trying")
	}
	status, to := v.post(fmt.Sprintf("/bench/%d/drill", b.exercise), url.Values{"instrument": {"trombone"}})
	if status != http.StatusSeeOther || !strings.HasPrefix(to, "/bench/") {
		t.Fatalf("keeping the drill gives %d %s", status, to)
	}
	_, page = v.get(to)
	wants(t, page, "2 · Hard changes of 1, trombone", "The drill is exercise 2 of The Ferry Book", "Who is trying?", "As it was written for trombone.")

	// One note alone has no change to drill.
	plain := s.exercise(t, account.ID, store.Exercise{Number: 1, Title: "One", Source: "T:One\nM:4/4\nL:1/1\nK:C\nc|c|]\n"})
	_, to = v.post(fmt.Sprintf("/bench/%d/drill", plain), url.Values{"instrument": {"trumpet"}})
	_, page = v.get(to)
	wants(t, page, "no change here that is worth a drill")
	_, page = v.get(fmt.Sprintf("/bench/%d?instrument=trumpet&drill=yes", plain))
	wants(t, page, "1 · One")
}
