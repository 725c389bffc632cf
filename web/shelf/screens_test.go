package shelf_test

import (
	"bytes"
	"context"
	"fmt"
	"html"
	"net/http"
	"net/url"
	"os"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/internal/testsite"
)

func TestEntryRefusesBadInputAndKeepsIt(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	testsite.Furnish(t, s.Store, account.ID)
	form := func(change map[string]string) map[string]string {
		f := map[string]string{"book": "The Ferry Book", "number": "7", "title": "Open Water", "abc": testsite.Lamp}
		for k, value := range change {
			f[k] = value
		}
		return f
	}
	tests := []struct {
		name   string
		form   map[string]string
		file   string
		data   []byte
		status int
		says   string
	}{
		{"a broken line", form(map[string]string{"abc": "M:4/4\nL:1/4\nK:C\nc d # f|]"}), "", nil, 422, "Line 4, column 5"},
		{
			"too many beats",
			form(map[string]string{"abc": "M:4/4\nL:1/4\nK:C\nc d e f g|]"}),
			"",
			nil,
			422,
			"Measure 1, line 4: it holds 5 quarter notes",
		},
		{
			"too few beats",
			form(map[string]string{"abc": "M:4/4\nL:1/4\nK:C\nc d e f|g|a4|]"}),
			"",
			nil,
			422,
			"Measure 2, line 4: it holds 1 quarter note",
		},
		{"nothing", form(map[string]string{"abc": " "}), "", nil, 422, "There is no exercise yet."},
		{
			"a note nobody plays",
			form(map[string]string{"abc": "M:4/4\nL:1/4\nK:C\nc d c'''' f|]"}),
			"",
			nil,
			422,
			"Measure 1, note 3, line 4: no instrument here plays the sounding C9",
		},
		{"other XML", form(nil), "menu.xml", []byte("<menu/>"), 422, "not MusicXML: it starts with &lt;menu&gt;"},
		{"an empty file", form(nil), "a.abc", nil, 422, "The file is empty."},
		{"a file too large", form(nil), "a.xml", bytes.Repeat([]byte(" "), 5<<20+1), 422, "larger than 5 MB"},
		{"a picture", form(nil), "scan.png", []byte("\x89PNG\r\n"), 422, "neither MusicXML nor ABC nor MIDI"},
		{"no number", form(map[string]string{"number": "x"}), "", nil, 422, "The number “x” is not one"},
		{"a number that is taken", form(map[string]string{"number": "1"}), "", nil, 409, "already has a number 1"},
		{"no book", form(map[string]string{"book": ""}), "", nil, 422, "The book&#39;s title is missing"},
		{"an unknown instrument", form(map[string]string{"written_for": "kazoo"}), "", nil, 422, "from the list"},
	}
	for _, tt := range tests {
		status, page := v.Send("/exercises", tt.form, tt.file, tt.data)
		if status != tt.status {
			t.Errorf("%s gives %d, want %d", tt.name, status, tt.status)
		}
		testsite.Wants(t, page, tt.says, `value="Open Water"`)
		if typed := strings.Split(strings.TrimSpace(tt.form["abc"]), "\n"); len(typed) > 1 {
			testsite.Wants(t, page, html.EscapeString(typed[len(typed)-1]))
		}
	}
	list, err := s.Store.For(account.ID).Exercises(context.Background())
	if err != nil || len(list) != 1 {
		t.Errorf("after all refusals the Shelf has %d exercises, %v", len(list), err)
	}
	books, err := s.Store.For(account.ID).Books(context.Background())
	if err != nil || len(books) != 1 {
		t.Errorf("after all refusals there are %d books, %v", len(books), err)
	}
}

func TestEntryFromAFileOfAnotherProgram(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	data, err := os.ReadFile("../../core/format/musicxml/testdata/harbor-steps.musicxml")
	if err != nil {
		t.Fatal(err)
	}
	status, to := v.Send("/exercises", map[string]string{"book": "New Book", "number": "3"}, "harbor.musicxml", data)
	if status != http.StatusSeeOther || !strings.HasPrefix(to, "/bench/") {
		t.Fatalf("the upload gives %d: %s", status, to)
	}
	_, page := v.Get(to + "?instrument=trombone")
	// The file is for clarinet in B flat in F; a trombone reads it in E flat.
	testsite.Wants(t, page, "3 · Harbor Steps", "E flat major: every B, E and A is flat", "grace notes are left out", "pickup, m. 1–2")
	_, page = v.Get(strings.Replace(to, "/bench/", "/exercises/", 1) + "/edit")
	testsite.Wants(t, page, "The MusicXML brought in earlier stays", `value="3"`)
	status, _ = v.Send(
		strings.Replace(to, "/bench/", "/exercises/", 1),
		map[string]string{"book": "New Book", "number": "4", "title": "Steps"},
		"",
		nil,
	)
	if status != http.StatusSeeOther {
		t.Errorf("renumbering gives %d", status)
	}
	_, page = v.Get("/")
	testsite.Wants(t, page, `<span class="num">4</span>`, "Steps", "F major · 4 measures")
}

func TestPreview(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	_, page := v.Post("/exercises/preview", url.Values{"abc": {testsite.Lamp}})
	testsite.Wants(t, page, `data-mei="&lt;?xml`, "4/4, B flat major")
	_, page = v.Post("/exercises/preview", url.Values{"abc": {"K:C\nc d"}})
	testsite.Wants(t, page, "Not readable yet", "Measure 1")
	_, page = v.Post("/exercises/preview", url.Values{"abc": {"L:1/4\nK:C\nc d a''' z|]"}})
	testsite.Wants(t, page, "Not playable as it stands", "note 3", "data-mei")
	data, err := os.ReadFile("../../core/format/musicxml/testdata/harbor-steps.musicxml")
	if err != nil {
		t.Fatal(err)
	}
	_, page = v.Send("/exercises/preview", nil, "harbor.musicxml", data)
	testsite.Wants(t, page, "4/4, F major", "data-mei", "grace notes are left out")
}

func TestRemoveAndRestore(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	v.Post(fmt.Sprintf("/exercises/%d/remove", b.Exercise), nil)
	_, page := v.Get("/")
	testsite.Wants(t, page, "1 · First Lamp is deleted", fmt.Sprintf("/removed/exercises/%d/back", b.Exercise))
	if status, _ := v.Get(fmt.Sprintf("/bench/%d", b.Exercise)); status != http.StatusNotFound {
		t.Errorf("a removed exercise's bench gives %d", status)
	}
	v.Post(fmt.Sprintf("/removed/exercises/%d/back", b.Exercise), nil)
	_, page = v.Get("/")
	testsite.Wants(t, page, "The exercise is restored.", "First Lamp")
}

func TestBench(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	path := fmt.Sprintf("/bench/%d", b.Exercise)
	_, page := v.Get(path + "?instrument=trombone")
	testsite.Wants(t, page, "1 · First Lamp", "B flat major: every B and E is flat", "A · m. 1–2", "B · m. 3–4", "Whole · m. 1–4",
		"<td>B flat</td>", "Who is trying?", "Ines P.", "ready", `"mechanism":"slide"`)

	testsite.Wants(t, page, "On one note: concert B flat, written <b>B flat</b> here", "trombone: <b>B flat</b>, line 2")
	_, page = v.Get(path + "?instrument=clarinet&one=Bb")
	testsite.Wants(t, page, "On one note: concert B flat, written <b>C</b> here", "trombone: <b>B flat</b>")

	r := v.Request("GET", path+"?instrument=clarinet", nil)
	r.Header.Set("HX-Request", "true")
	r.Header.Set("HX-Target", "bench")
	_, part := v.Do(r)
	if strings.Contains(part, "<html") {
		t.Error("switching the instrument sends the whole page")
	}
	testsite.Wants(t, part, `id="bench"`, "C major: no sharps or flats", "T 1 2 3 |")

	_, page = v.Get(path) // nobody here plays the clarinet
	testsite.Wants(t, page, "B flat major: every B and E is flat", `"mechanism":"slide"`)
	_, page = v.Get(path + "?instrument=snare")
	testsite.Wants(t, page, "The rhythm of the exercise, as strokes.", "Sticking")
}

func TestMarksMoveOnAndBackAndAreUndone(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID) // with one clean try already
	_, page := testsite.Mark(v, b, url.Values{"result": {"clean"}})
	testsite.Wants(t, page, "Count is clean twice running: on to Name.", "Name it in time", `hx-swap-oob="true"`, `value="66"`)
	_, page = testsite.Mark(v, b, url.Values{"stage": {"name"}, "cause": {"rhythm"}})
	testsite.Wants(t, page, "One stumble: again", "stumble, rhythm")
	_, page = testsite.Mark(v, b, url.Values{"stage": {"name"}, "cause": {"rhythm"}})
	testsite.Wants(t, page, "Two stumbles over the rhythm: back to Count.", "Count it aloud")

	_, board := v.Get("/board")
	if strings.Contains(board, `aria-label="Count earned"`) {
		t.Error("what goes wrong again is shown as earned")
	}
	log, err := s.Store.For(account.ID).StudentAttempts(context.Background(), b.Student)
	if err != nil || len(log) != 4 {
		t.Fatalf("the log has %d tries, %v", len(log), err)
	}
	r := v.Request("POST", fmt.Sprintf("/attempts/%d/undo", log[0].ID), nil)
	r.Header.Set("HX-Request", "true")
	_, page = v.Do(r)
	testsite.Wants(t, page, "Name it in time", "One stumble: again")
	_, board = v.Get("/board")
	testsite.Wants(t, board, `aria-label="Count earned"`)
	_, history := v.Get(fmt.Sprintf("/students/%d?exercise=%d", b.Student, b.Exercise))
	testsite.Wants(t, history, "taken back", "stumble, rhythm", "clean")
	_, history = v.Get(fmt.Sprintf("/students/%d", b.Student))
	testsite.Wants(t, history, fmt.Sprintf(`<a href="/students/%d?exercise=%d">Every try: 4</a>`, b.Student, b.Exercise))
}

func TestMarksAreRefusedWithoutACauseOrAStudent(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	status, page := testsite.Mark(v, b, url.Values{"cause": {"weather"}})
	if status != http.StatusUnprocessableEntity || !strings.Contains(page, "Say what stumbled") {
		t.Errorf("a stumble without a cause gives %d: %s", status, page)
	}
	b.Student = 0
	if status, _ := testsite.Mark(v, b, url.Values{"result": {"clean"}}); status != http.StatusUnprocessableEntity {
		t.Errorf("a try of nobody's gives %d", status)
	}
}

func TestSlowerByANotchWhereThereIsNoWayBack(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	testsite.Mark(v, b, url.Values{"cause": {"rhythm"}})
	_, page := testsite.Mark(v, b, url.Values{"cause": {"rhythm"}})
	testsite.Wants(t, page, "one step slower", `name="tempo" value="63"`)
}

func TestPeople(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	_, page := v.Get("/people")
	testsite.Wants(t, page, "No classes yet")
	v.Post("/classes", url.Values{"name": {"Period 3 strings"}})
	classes, err := s.Store.For(account.ID).Classes(context.Background())
	if err != nil || len(classes) != 1 {
		t.Fatalf("%d classes, %v", len(classes), err)
	}
	id := fmt.Sprint(classes[0].ID)
	for _, tt := range []struct {
		form url.Values
		says string
	}{
		{url.Values{"class": {id}, "first_name": {""}, "instrument": {"violin"}}, "first name is missing"},
		{url.Values{"class": {id}, "first_name": {"Amara"}, "initial": {"Nwosu"}, "instrument": {"violin"}}, "The initial is one letter"},
		{url.Values{"class": {id}, "first_name": {"Amara"}, "initial": {"N"}, "instrument": {"kazoo"}}, "instrument from the list"},
	} {
		status, page := v.Post("/students", tt.form)
		if status != http.StatusUnprocessableEntity {
			t.Errorf("%v gives %d", tt.form, status)
		}
		testsite.Wants(t, page, tt.says, fmt.Sprintf(`value="%s"`, tt.form.Get("first_name")))
	}
	v.Post("/students", url.Values{"class": {id}, "first_name": {"Amara"}, "initial": {"n."}, "instrument": {"violin"}})
	_, page = v.Get("/people")
	testsite.Wants(t, page, "Amara N.")
	status, page := v.Post("/classes", url.Values{"name": {"Period 3 strings"}})
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a second class of the name gives %d", status)
	}
	testsite.Wants(t, page, "There is a class called Period 3 strings already", `value="Period 3 strings"`)

	students, err := s.Store.For(account.ID).Students(context.Background(), classes[0].ID)
	if err != nil || len(students) != 1 {
		t.Fatalf("%d students, %v", len(students), err)
	}
	one := fmt.Sprintf("/students/%d", students[0].ID)
	v.Post(one, url.Values{"class": {id}, "first_name": {"Amara"}, "initial": {"O"}, "instrument": {"cello"}})
	_, page = v.Get("/people")
	testsite.Wants(t, page, "Amara O.", "cello")
	v.Post(one+"/remove", nil)
	_, page = v.Get("/people")
	testsite.Wants(t, page, "Nobody yet.")
}

const twoParts = "X:1\nT:Two Rivers\nM:4/4\nL:1/4\nV:1 name=\"Flute\"\nV:2 name=\"Horn in F\" transpose=-7\nK:C\n" +
	"V:1\nc d e f|g4|]\nV:2\nG A B c|d4|]\n"

func TestPartsOfAFile(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	status, to := v.Send("/exercises", map[string]string{"book": "B", "number": "1"}, "two.abc", []byte(twoParts))
	if status != http.StatusSeeOther || !strings.HasSuffix(to, "/parts") {
		t.Fatalf("a file of two parts leads to %d %s", status, to)
	}
	_, page := v.Get(to)
	testsite.Wants(t, page, "Which part is which?", "Flute", "Horn in F", `<option value="horn-f" selected>`, "None yet")
	status, page = v.Post(to, url.Values{"instrument-0": {"horn-f"}, "instrument-1": {"horn-f"}})
	if status != http.StatusUnprocessableEntity {
		t.Errorf("two parts for one instrument give %d", status)
	}
	testsite.Wants(t, page, "Two parts are given to the same instrument")
	v.Post(to, url.Values{"instrument-1": {"horn-f"}, "source": {"0"}})
	bench := strings.Replace(strings.TrimSuffix(to, "/parts"), "/exercises/", "/bench/", 1)
	_, page = v.Get(bench + "?instrument=horn-f")
	testsite.Wants(t, page, "The horn in F’s own part.", "<td>G</td>")
	_, page = v.Get(bench + "?instrument=flute")
	testsite.Wants(t, page, "<td>C</td>", "In concert pitch, as entered.")

	own := strings.TrimSuffix(to, "/parts") + "/parts/own"
	status, page = v.Send(own, map[string]string{"instrument": "trombone", "abc": "M:4/4\nL:1/4\nK:C\nc'' d e f|g4|]"}, "", nil)
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a part out of range gives %d", status)
	}
	testsite.Wants(t, page, "5 of 5 notes lie beyond the trombone, the first in measure 1.", "c&#39;&#39; d e f|g4|]")
	status, _ = v.Send(own, map[string]string{"instrument": "trombone", "abc": "M:4/4\nL:1/4\nK:Bb clef=bass\nB, C D E|F4|]"}, "", nil)
	if status != http.StatusSeeOther {
		t.Errorf("a typed part gives %d", status)
	}
	_, page = v.Get(bench + "?instrument=trombone")
	testsite.Wants(t, page, "own part", "B flat major")
	v.Post(strings.TrimSuffix(to, "/parts")+"/parts/drop", url.Values{"instrument": {"trombone"}})
	_, page = v.Get(bench + "?instrument=trombone")
	testsite.Wants(t, page, "Moved 2 octaves down")
}

// A file without a meter is read by its bar lines, or takes the meter that is chosen; one
// that does not fit comes back with what is wrong.
func TestTakingAMeter(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	data, err := os.ReadFile("../../core/format/musicxml/testdata/no-meter.musicxml")
	if err != nil {
		t.Fatal(err)
	}
	_, page := v.Send("/exercises/preview", nil, "free.musicxml", data)
	testsite.Wants(t, page, "The file gives no meter. Take", "what its bar lines make", "read by its bar lines, as 3/4")
	_, page = v.Send("/exercises/preview", map[string]string{"meter": "6/8"}, "free.musicxml", data)
	testsite.Wants(t, page, "<option selected>6/8</option>", "6/8, ")
	_, page = v.Send("/exercises/preview", map[string]string{"meter": "2/4"}, "free.musicxml", data)
	testsite.Wants(t, page, "it holds 3 quarter notes, and 2/4 asks for 2", "<option selected>2/4</option>")
	_, to := v.Send("/exercises", map[string]string{"book": "B", "number": "1", "meter": "6/8"}, "free.musicxml", data)
	_, page = v.Get(to + "?instrument=flute")
	testsite.Wants(t, page, "6/8, the dotted quarter gets the beat")
	_, page = v.Send("/exercises/preview", map[string]string{"abc": "M:4/4\nK:C\nC8|]"}, "", nil)
	if strings.Contains(page, "gives no meter") {
		t.Error("typed music is asked for its meter")
	}
}

// A part is guessed for one instrument once, and not for one in another key.
func TestGuessesOfParts(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	voice := func(n int, name, more string) string { return fmt.Sprintf("V:%d name=\"%s\" %s\n", n, name, more) }
	music := "M:4/4\nL:1/4\n" + voice(
		1,
		"Clarinet 1",
		"transpose=-2",
	) + voice(
		2,
		"Clarinet 2",
		"transpose=-2",
	) + voice(
		3,
		"Clarinet in A",
		"transpose=-3",
	) + voice(
		4,
		"Trumpet",
		"transpose=0",
	) + voice(
		5,
		"Horn",
		"transpose=-2",
	) +
		"K:C\nV:1\nc4|]\nV:2\nc4|]\nV:3\nc4|]\nV:4\nc4|]\nV:5\nc4|]\n"
	_, to := v.Send("/exercises", map[string]string{"book": "B", "number": "1"}, "five.abc", []byte("X:1\nT:Five\n"+music))
	_, page := v.Get(to)
	testsite.Wants(
		t,
		page,
		"Another part is the clarinet’s already",
		"It is in A by its name; the clarinet here sounds a whole step lower",
		"Written for an instrument that sounds a whole step lower; the horn in F here sounds a fifth lower",
	)
	if n := strings.Count(page, `<option value="clarinet" selected>`); n != 1 {
		t.Errorf("the clarinet is guessed for %d parts", n)
	}
	status, page := v.Post(to, url.Values{"instrument-4": {"horn-f"}})
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a part that sounds otherwise is dealt out: %d", status)
	}
	testsite.Wants(t, page, "Horn: Written for an instrument that sounds a whole step lower")
}

func TestExport(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	path := fmt.Sprintf("/exercises/%d/export?instrument=clarinet&as=", b.Exercise)
	for as, want := range map[string]string{
		"musicxml": "<diatonic>-1</diatonic>", "abc": "transpose=-2", "midi": "MThd", "metronome": "Metronome",
	} {
		status, body := v.Get(path + as)
		if status != http.StatusOK || !strings.Contains(body, want) {
			t.Errorf("%s gives %d without %q", as, status, want)
		}
	}
	for _, bad := range []string{path + "pdf", fmt.Sprintf("/exercises/%d/export?instrument=kazoo&as=abc", b.Exercise)} {
		if status, _ := v.Get(bad); status != http.StatusNotFound {
			t.Errorf("%s gives %d", bad, status)
		}
	}
	// What is exported comes back as the same exercise.
	_, text := v.Get(path + "musicxml")
	status, to := v.Send("/exercises", map[string]string{"book": "Again", "number": "1"}, "again.musicxml", []byte(text))
	if status != http.StatusSeeOther {
		t.Fatalf("the export does not come back: %d", status)
	}
	_, page := v.Get(to + "?instrument=violin")
	testsite.Wants(t, page, "B flat major: every B and E is flat")
}

func TestPreferringAFingering(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	bench := fmt.Sprintf("/bench/%d?instrument=trombone", b.Exercise)
	_, page := v.Get(bench)
	testsite.Wants(t, page, `"fingering":"1"`)
	// B flat 3, MIDI 58, in fifth position rather than first.
	if status, to := v.Post("/fingerings/trombone", url.Values{"note": {"58"}, "fingering": {"5"}}); status != http.StatusSeeOther ||
		to != "/fingerings/trombone#n58" {
		t.Fatalf("preferring gives %d %s", status, to)
	}
	_, page = v.Get("/fingerings/trombone")
	testsite.Wants(t, page, "your choice", "the usual way")
	if err := s.Store.For(account.ID).SaveOctaveChoice(context.Background(), b.Exercise, "trombone", instrument.OctaveChoice{Chosen: true, Octaves: -1}); err != nil {
		t.Fatal(err)
	}
	_, page = v.Get(bench)
	testsite.Wants(t, page, `"fingering":"5"`)
	v.Post("/settings", url.Values{"school": {"numbers"}}) // does not forget it
	_, page = v.Get("/fingerings/trombone")
	testsite.Wants(t, page, "your choice")
	v.Post("/fingerings/trombone", url.Values{"note": {"58"}, "fingering": {"3"}}) // not a way to play it
	_, page = v.Get(bench)
	testsite.Wants(t, page, `"fingering":"5"`)
	v.Post("/fingerings/trombone", url.Values{"note": {"58"}, "fingering": {""}}) // left to the rules again
	_, page = v.Get("/fingerings/trombone")
	if strings.Contains(page, "your choice") {
		t.Error("a choice that was taken back is kept")
	}
}

func TestChoosingAnOctave(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	bench := fmt.Sprintf("/bench/%d?instrument=clarinet", b.Exercise)
	_, page := v.Get(bench)
	testsite.Wants(t, page, "C4 to G4, suggested", "it stays below the break", "<td>first ledger line below the staff")
	octave := fmt.Sprintf("/exercises/%d/octave", b.Exercise)
	if status, to := v.Post(octave, url.Values{"instrument": {"clarinet"}, "octaves": {"0"}}); status != http.StatusSeeOther || to != bench {
		t.Fatalf("choosing an octave gives %d %s", status, to)
	}
	_, page = v.Get(bench)
	testsite.Wants(t, page, `<option value="0" selected`, "it stays above the break", "<td>space 3")
	v.Post(octave, url.Values{"instrument": {"clarinet"}, "octaves": {""}})
	_, page = v.Get(bench)
	testsite.Wants(t, page, "<td>first ledger line below the staff")
}

func TestCompare(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	id := fmt.Sprint(b.Exercise)
	_, page := v.Get("/compare?a=" + id)
	testsite.Wants(t, page, "Same or different?", "selected")
	_, page = v.Get("/compare?a=" + id + "&a-from=1&a-to=1&b=" + id + "&b-from=3&b-to=3")
	testsite.Wants(t, page, "Same: every note starts at the same moment")
	_, page = v.Get("/compare?a=" + id + "&a-from=1&a-to=1&b=" + id + "&b-from=2&b-to=2")
	testsite.Wants(t, page, "Different: they part in measure 1 at 1", "differs")
	_, page = v.Get("/compare?a=" + id + "&a-from=40&b=" + id)
	testsite.Wants(t, page, "has no such measures")
}

func TestSettingsChangeEveryExercise(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	form := url.Values{"school": {"takadimi"}, "naming": {"german"}, "values": {"british"}, "rests": {""}}
	if status, to := v.Post("/settings", form); status != http.StatusSeeOther || to != "/settings" {
		t.Fatalf("saving the settings gives %d: %s", status, to)
	}
	path := fmt.Sprintf("/bench/%d?instrument=violin", b.Exercise)
	_, page := v.Get(path)
	testsite.Wants(t, page, "<td>ta<br>", "<td>Es</td>", "A crotchet: 1 beat, on 1.", "the crotchet gets the beat")
	_, page = v.Get("/settings")
	testsite.Wants(t, page, `<option value="takadimi" selected>`, `<option value="german" selected>`)

	// The class may count its own way, from the Bench.
	status, to := v.Post(fmt.Sprintf("/classes/%d/school", b.Class), url.Values{"school": {"gordon"}, "back": {path}})
	if status != http.StatusSeeOther || to != path {
		t.Errorf("the switch leads to %d %s", status, to)
	}
	_, page = v.Get(path)
	testsite.Wants(t, page, "<td>du<br>")
	if _, to = v.Post(fmt.Sprintf("/classes/%d/school", b.Class), url.Values{"school": {""}, "back": {"//evil.example"}}); to != "/" {
		t.Errorf("the switch leads away to %s", to)
	}
}

func TestPictureWordsAreChecked(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	form := url.Values{"school": {"words"}, "pattern": {"x---", "x-x-"}, "word": {"oak", "wil"}}
	status, page := v.Post("/settings", form)
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a word with too few syllables gives %d", status)
	}
	testsite.Wants(t, page, "has 1 syllables, but 2 notes start", `value="wil"`)
	form["word"] = []string{"oak", "wil-low"}
	v.Post("/settings", form)
	_, page = v.Get(fmt.Sprintf("/bench/%d?instrument=violin", b.Exercise))
	testsite.Wants(t, page, "<td>oak<br>")
}
