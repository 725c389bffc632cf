package settings_test

import (
	"fmt"
	"math"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

func TestFingeringChart(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	_, page := v.Get("/fingerings/trumpet")
	testsite.Wants(
		t,
		page,
		"Trumpet fingerings",
		"C♯ or D♭",
		`<code>1-2-3</code>`,
		"also sounds G4, C5, E5, G5, C6",
		"third-valve slide out",
		"Year one: B3 to D5",
	)
	_, page = v.Get("/fingerings/bassoon")
	testsite.Wants(t, page, "flick", `<code>W half 2 3 | 4 5 6</code>`, "Crow the soaked reed")
	_, page = v.Get("/fingerings/timpani")
	testsite.Wants(t, page, "the 29 inch drum")
	if strings.Contains(page, "also sounds") {
		t.Error("a drum is said to sound other notes, though it is tuned to one")
	}
	_, page = v.Get("/fingerings/snare")
	testsite.Wants(t, page, "Strokes, not notes", "by turns")
	for _, path := range []string{"/fingerings/kazoo", "/fingerings/"} {
		if status, _ := v.Get(path); status != http.StatusNotFound {
			t.Errorf("%s gives %d", path, status)
		}
	}
}

// Under the music every fingering stands in words, so that it can be read aloud.
func TestFingeringsInWords(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	id := s.Exercise(t, account.ID, 1, "Words", "clarinet", "T:Words\nM:4/4\nL:1/4\nK:C\nE G A2|]\n")
	_, page := v.Get(fmt.Sprintf("/bench/%d?instrument=clarinet", id))
	testsite.Wants(t, page, "<td>left hand thumb, 1<", "<td>nothing pressed<", "or left hand A key; right hand 4 5 6: right hand down for resonance")
	_, page = v.Get(fmt.Sprintf("/bench/%d?instrument=trumpet", id))
	testsite.Wants(t, page, "<td>valves 1 and 2<", "or valve 3: valve 3 alone")
}

// Four valves and the sticking are kept for an instrument and used on its chart and
// its Bench.
func TestWhatOurInstrumentsHave(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	low := s.Exercise(t, account.ID, 1, "Low", "euphonium-bc", "T:Low\nM:4/4\nL:1/4\nK:C clef=bass\nC, D,, C,2|]\n")
	drum := s.Exercise(t, account.ID, 2, "Drum", "", "T:Drum\nM:4/4\nL:1/4\nK:C clef=perc\n{c}c c !///!c2|]\n")
	euphonium, snare := fmt.Sprintf("/bench/%d?instrument=euphonium-bc", low), fmt.Sprintf("/bench/%d?instrument=snare&tempo=100", drum)
	_, page := v.Get(euphonium)
	testsite.Wants(t, page, ": beyond the euphonium", `"fingering":"1-3"`)
	_, page = v.Get(snare)
	testsite.Wants(t, page, `"fingering":"lR"`, `"fingering":"L","said":"left"`, `"roll":"15"`, "a 15-stroke roll")

	if status, to := v.Post("/fingerings/euphonium-bc/kind", url.Values{"kind": {"4"}}); status != http.StatusSeeOther ||
		to != "/fingerings/euphonium-bc" {
		t.Fatalf("choosing four valves gives %d %s", status, to)
	}
	v.Post("/fingerings/snare/kind", url.Values{"kind": {"measures"}})
	v.Post("/fingerings/trumpet/kind", url.Values{"kind": {"4"}}) // has three
	v.Post("/fingerings/timpani/kind", url.Values{"kind": {"2"}})
	v.Post("/fingerings/oboe/kind", url.Values{"kind": {"no-resonance"}})
	v.Post("/fingerings/bass/kind", url.Values{"kind": {"two drums"}}) // is not offered
	v.Post("/settings", url.Values{"school": {"numbers"}})             // does not forget them

	_, page = v.Get(euphonium)
	testsite.Wants(t, page, `"fingering":"4"`, `"fingering":"1-2-4"`)
	if strings.Contains(page, "beyond the ") {
		t.Error("with four valves low D is still out of range")
	}
	_, page = v.Get(snare)
	testsite.Wants(t, page, `"fingering":"lR"`, `"fingering":"L","said":"left"`)
	for path, want := range map[string]string{
		"/fingerings/snare": `<option value="measures" selected>`, "/fingerings/timpani": `<option value="2" selected>`,
		"/fingerings/oboe": `<option value="no-resonance" selected>`, "/fingerings/bass": `<option value="" selected>`,
	} {
		_, page = v.Get(path)
		testsite.Wants(t, page, want)
	}
	_, page = v.Get("/fingerings/timpani")
	if strings.Contains(page, "the 32 inch drum") {
		t.Error("a school with two drums is shown a third")
	}
	_, page = v.Get("/fingerings/euphonium-bc")
	testsite.Wants(t, page, `<option value="4" selected>`, `id="note-36"`)
	_, page = v.Get("/fingerings/trumpet")
	if strings.Contains(page, "four valves") {
		t.Error("a trumpet is offered four valves")
	}
}

func TestWordsForFingers(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	form := url.Values{
		"school":   {"numbers"},
		"hands":    {"yes"},
		"strings":  {"spacing"},
		"two":      {"near hand"},
		"three":    {"far hand"},
		"colour-D": {"#FFEE00"},
		"colour-A": {"#a03a3a"},
	}
	if status, _ := v.Post("/settings", form); status != http.StatusSeeOther {
		t.Fatalf("the settings are refused: %d", status)
	}
	_, page := v.Get("/settings")
	testsite.Wants(t, page, `value="near hand"`, `value="#ffee00"`, `background:#ffee00;color:#1d2733`, `background:#a03a3a;color:#ffffff`)
	_, page = v.Get(fmt.Sprintf("/bench/%d?instrument=violin", b.Exercise))
	testsite.Wants(t, page, "close to", `"colour":"#ffee00","ink":"#1d2733"`)
	_, page = v.Get("/fingerings/flute")
	testsite.Wants(t, page, "<code>T L1 L2 L3 | R1 R2 R3</code>", `&#34;holes&#34;:[true,true,true,true,true,true],&#34;thumb&#34;:true`)
	_, page = v.Get("/fingerings/cello")
	testsite.Wants(t, page, "3 on D, the far hand", "2 on D, the near hand")

	form.Set("colour-D", "yellowish")
	status, page := v.Post("/settings", form)
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a word for a colour gives %d", status)
	}
	testsite.Wants(t, page, "the colour of the D string, &#34;yellowish&#34;", `value="near hand"`)
	form.Set("two", strings.Repeat("x", 30))
	if status, _ := v.Post("/settings", form); status != http.StatusUnprocessableEntity {
		t.Errorf("a long word gives %d", status)
	}
}

// Contrast by WCAG 2.2: black on white is 21 to 1, and any colour has an ink that
// gives at least 3.8 (the page's ink is not quite black).
func TestInkOnColours(t *testing.T) {
	t.Parallel()
	ratio := func(a, b string) float64 {
		x, y := teach.Luminance(a), teach.Luminance(b)
		return (math.Max(x, y) + 0.05) / (math.Min(x, y) + 0.05)
	}
	if got := ratio("#ffffff", "#000000"); math.Abs(got-21) > 0.01 {
		t.Errorf("black on white has a contrast of %.2f", got)
	}
	for _, colour := range teach.OwnColours {
		if got := ratio(colour, teach.InkOn(colour)); got < 4.5 {
			t.Errorf("%s with %s has a contrast of %.2f", colour, teach.InkOn(colour), got)
		}
	}
	for level := range 256 {
		grey := fmt.Sprintf("#%02x%02x%02x", level, level, level)
		if got := ratio(grey, teach.InkOn(grey)); got < 3.8 {
			t.Errorf("%s with %s has a contrast of %.2f", grey, teach.InkOn(grey), got)
		}
	}
}

func TestDrill(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	bench := fmt.Sprintf("/bench/%d?instrument=trombone", b.Exercise)
	_, page := v.Get(bench + "&stage=finger")
	testsite.Wants(t, page, "Hardest changes", "Drill them")
	_, page = v.Get(bench + "&stage=finger&line=drill")
	testsite.Wants(t, page, "Hard changes of 1 · First Lamp", "start at", "Keep this drill in The Ferry Book", "Back to the exercise")
	if strings.Contains(page, "Who is trying?") {
		t.Error("a drill that is no exercise asks who is trying")
	}
	status, to := v.Post(fmt.Sprintf("/bench/%d/line", b.Exercise), url.Values{"instrument": {"trombone"}, "line": {"drill"}})
	if status != http.StatusSeeOther || !strings.HasPrefix(to, "/bench/") {
		t.Fatalf("keeping the drill gives %d %s", status, to)
	}
	_, page = v.Get(to)
	testsite.Wants(
		t,
		page,
		"2 · Hard changes of 1, trombone",
		"The drill is exercise 2 of The Ferry Book",
		"Who is trying?",
		"As it was written for trombone.",
	)

	// One note alone has no change to drill.
	plain := s.Exercise(t, account.ID, 1, "One", "", "T:One\nM:4/4\nL:1/1\nK:C\nc|c|]\n")
	_, to = v.Post(fmt.Sprintf("/bench/%d/line", plain), url.Values{"instrument": {"trumpet"}, "line": {"drill"}})
	_, page = v.Get(to)
	testsite.Wants(t, page, "nothing here to make an exercise of")
	_, page = v.Get(fmt.Sprintf("/bench/%d?instrument=trumpet&line=drill", plain))
	testsite.Wants(t, page, "1 · One")
}

// A teacher's choice for one place, for a note everywhere, and the usual way put back:
// each is shown at once and holds, also when it is the usual one.
func TestFingeringsAreChosenOnTheBench(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	id := s.Exercise(t, account.ID, 1, "Forks", "oboe", "T:Forks\nM:4/4\nL:1/4\nK:C\nD F G F|G D F2|]\n")
	bench, choose := fmt.Sprintf("/bench/%d?instrument=oboe", id), fmt.Sprintf("/bench/%d/fingering", id)
	const forked, usual, left = "1 2 3 | 4 6", "1 2 3 | 4 5 F", "1 2 3 F | 4 5"
	fs := func() string { // the Fs of the page, in order
		_, page := v.Get(bench)
		var words []string
		for _, part := range strings.Split(page, `"name":"F","spoken":"F","fingering":"`)[1:] {
			words = append(words, part[:strings.Index(part, `"`)])
		}
		return strings.Join(words, ", ")
	}
	set := func(event int, text, scope string) int {
		status, _ := v.Post(
			choose,
			url.Values{"instrument": {"oboe"}, "measure": {"0"}, "event": {fmt.Sprint(event)}, "fingering": {text}, "scope": {scope}},
		)
		return status
	}
	if got, want := fs(), strings.Join([]string{forked, usual, forked}, ", "); got != want {
		t.Fatalf("F is %s, want %s", got, want)
	}
	_, page := v.Get(bench)
	testsite.Wants(
		t,
		page,
		`"alternate":true,"usual":"left hand 1 2 3; right hand 4 5, F key"`,
		"Not the usual way: left hand 1 2 3; right hand 4 6, forked, since D beside it has finger 6 down",
	)
	if status := set(1, left, "here"); status != http.StatusSeeOther {
		t.Fatalf("a choice for one place gives %d", status)
	}
	if got, want := fs(), strings.Join([]string{left, usual, forked}, ", "); got != want {
		t.Errorf("with left F at one place F is %s, want %s", got, want)
	}
	set(1, usual, "note") // the usual one back, wherever the note comes
	if got, want := fs(), strings.Join([]string{usual, usual, usual}, ", "); got != want {
		t.Errorf("with the usual F everywhere F is %s, want %s", got, want)
	}
	_, page = v.Get("/fingerings/oboe")
	testsite.Wants(t, page, "The first is your choice.", "Leave it to the rules again")
	v.Post("/fingerings/oboe", url.Values{"note": {"65"}, "fingering": {""}})
	if got, want := fs(), strings.Join([]string{forked, usual, forked}, ", "); got != want {
		t.Errorf("left to the rules again F is %s, want %s", got, want)
	}
	for _, bad := range []int{set(1, "1 |", "here"), set(99, usual, "here"), set(-1, usual, "note")} {
		if bad != http.StatusUnprocessableEntity {
			t.Errorf("a fingering of another note gives %d", bad)
		}
	}
}

// A measure of rest, or one that a tie fills, opens; no list is null between server
// and page, for any instrument. Neither is any key or note value too much.
func TestEveryPartOpens(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	number := 0
	add := func(source string) store.ExerciseID {
		number++
		return s.Exercise(t, account.ID, number, fmt.Sprint(number), "", source)
	}
	ids := []store.ExerciseID{
		add("M:4/4\nL:1/4\nK:Bb\nB c d2-|d4-|d2 z2|z4|B4|]\n"), add("M:4/4\nL:1/4\nK:C clef=perc\nc c c2-|c4|z4|c4|]\n"),
		add("M:4/2\nL:1/64\nK:C\nc128|c64d32e16f8g4a2bc'|c128|z128|]\n"),
	}
	for _, key := range []string{"C#", "Cb", "Abm", "A#m", "F#", "Gb"} {
		ids = append(ids, add("M:4/4\nL:1/4\nK:"+key+"\nc d e f|g4|]\n"))
	}
	for _, i := range instrument.All() {
		for _, id := range ids {
			status, page := v.Get(fmt.Sprintf("/bench/%d?instrument=%s", id, i.ID))
			_, data, _ := strings.Cut(page, `class="sheet-data">`)
			data, _, _ = strings.Cut(data, "</script>")
			if status != http.StatusOK || strings.Contains(data, "null") {
				t.Errorf("exercise %d for %s gives %d, or a null to its script", id, i.ID, status)
			}
		}
		for _, as := range []string{"abc", "musicxml", "midi"} {
			if status, _ := v.Get(fmt.Sprintf("/exercises/%d/export?instrument=%s&as=%s", ids[3], i.ID, as)); status != http.StatusOK {
				t.Errorf("seven sharps for %s as %s gives %d", i.ID, as, status)
			}
		}
	}
}
