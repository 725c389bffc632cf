package shelf_test

import (
	"context"
	"fmt"
	"html"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/web/shelf"
)

func TestCountItAndNameIt(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	_, page := v.Get("/exercises/new")
	testsite.Wants(t, page, "Type it in", `name="count"`, `name="names"`, `name="number" inputmode="numeric" value="2"`,
		`value="4/4"`, `<option value="Bb" selected>B flat major: B flat, E flat`, "What you count stands here as music.")

	form := url.Values{"way": {"count"}, "book": {"The Ferry Book"}, "number": {"2"}, "title": {"Second Ferry"}, "written_for": {"clarinet"},
		"counted_meter": {"4/4"}, "counted_key": {"F"}, "counted_tempo": {"quarter = 72"}, "count": {"1 2 3 4 | 1 2 & 3 5"}, "names": {"gabc"}}
	_, part := v.Script("/exercises/preview", form)
	if strings.Contains(part, "<html") {
		t.Error("the sheet comes with a whole page")
	}
	testsite.Wants(t, part, "Measure 2: 4/4 has no beat 5. Write 4, or begin the next measure with 1.", "2 measures, 8 notes counted and 4 named: next to name is note 1 of measure 2.",
		`"mechanism":"woodwind"`, `[{"field":"count","from":10,"to":19,"at":1}]`, `"open":true`, `id="starts"`, `name="starts_for" value="clarinet"`, "(home)")
	form.Set("starts_for", "clarinet")
	if _, part = v.Script("/exercises/preview", form); strings.Contains(part, `id="starts"`) {
		t.Error("the notes to start near come again though the instrument is the same")
	}

	// What is wrong is not kept, and what was typed stays.
	status, page := v.Post("/exercises", form)
	if status != http.StatusUnprocessableEntity {
		t.Errorf("an entry with a fault gives %d", status)
	}
	testsite.Wants(t, page, "Measure 2: 4/4 has no beat 5.", "8 notes are counted and 4 named; the first without a name is in measure 2.", "1 2 3 4 | 1 2 &amp; 3 5", ">gabc</textarea>", `value="quarter = 72"`)

	form.Set("count", "1 2 3 4 | 1 2 & 3")
	form.Set("names", "gabc | cb=ag")
	status, to := v.Post("/exercises", form)
	if status != http.StatusSeeOther || !strings.HasSuffix(to, "?instrument=clarinet") {
		t.Fatalf("saving gives %d to %s", status, to)
	}
	_, page = v.Get(to)
	testsite.Wants(t, page, "2 · Second Ferry", "<td>B flat</td>", "<td>B natural</td>")

	// The next begins like it, and it is edited as it was typed.
	_, page = v.Get(fmt.Sprintf("/exercises/new?book=%d", b.Book))
	testsite.Wants(t, page, `value="quarter = 72"`, `<option value="F" selected>F major: B flat`, `<option value="clarinet" selected>`)
	_, page = v.Get(strings.TrimSuffix(strings.Replace(to, "/bench/", "/exercises/", 1), "?instrument=clarinet") + "/edit")
	testsite.Wants(t, page, ">1 2 3 4 | 1 2 &amp; 3 |</textarea>", ">g a b c | c b= a g |</textarea>")

	// What is carried over is for typing: a file's own word leads, and what is chosen against it
	// is said.
	for _, address := range []string{fmt.Sprintf("/exercises/new?way=file&book=%d", b.Book), fmt.Sprintf("/exercises/new?way=abc&book=%d", b.Book)} {
		if _, page = v.Get(address); strings.Contains(page, `<option value="clarinet" selected>`) {
			t.Errorf("%s is for clarinet, as the exercise before", address)
		}
	}
	turned := url.Values{"way": {"count"}, "to": {"file"}, "written_for": {"clarinet"}, "counted_meter": {"4/4"}}
	if _, page = v.Post("/exercises/turn", turned); strings.Contains(page, `<option value="clarinet" selected>`) {
		t.Error("turned to a file it is for clarinet, as was carried over for typing")
	}
	_, part = v.Script("/exercises/preview", url.Values{"way": {"abc"}, "written_for": {"clarinet"}, "abc": {"M:4/4\nL:1/4\nK:Bb\nB c d B|]"}})
	testsite.Wants(t, part, "Written for clarinet: sounds a whole step lower. The file says: as written.")

	// What somebody else changed meanwhile is not overwritten silently.
	address := strings.TrimSuffix(strings.Replace(to, "/bench/", "/exercises/", 1), "?instrument=clarinet")
	change := url.Values{"way": {"count"}, "seen": {"another version"}, "book": {"The Ferry Book"}, "number": {"2"}, "title": {"Second Ferry"}, "written_for": {"clarinet"},
		"counted_meter": {"4/4"}, "counted_key": {"F"}, "count": {"1 2 3 4"}, "names": {"gabc"}}
	status, page = v.Post(address, change)
	if status != http.StatusConflict {
		t.Errorf("a change of what was changed meanwhile gives %d", status)
	}
	testsite.Wants(t, page, "was changed meanwhile", ">1 2 3 4</textarea>", ">gabc</textarea>", `data-back="yes"`)
	seen := regexp.MustCompile(`name="seen" value="([^"]*)"`).FindStringSubmatch(page)
	change.Set("seen", html.UnescapeString(seen[1]))
	if status, _ = v.Post(address, change); status != http.StatusSeeOther {
		t.Errorf("saving again gives %d", status)
	}

	// Nothing typed is nothing kept.
	form.Set("count", " ")
	if status, page = v.Post("/exercises", form); status != http.StatusUnprocessableEntity {
		t.Errorf("nothing at all gives %d", status)
	}
	testsite.Wants(t, page, "There is no exercise yet. Count it: 1 2 3 4")
}

// Each way in is turned into another, and says what it leaves out.
func TestTurningWaysIn(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	turn := func(to, from string, form url.Values) string {
		t.Helper()
		form.Set("way", from)
		form.Set("to", to)
		status, page := v.Post("/exercises/turn", form)
		if status != http.StatusOK {
			t.Fatalf("turning %s into %s gives %d", from, to, status)
		}
		return page
	}
	page := turn("abc", "count", url.Values{"title": {"Mine"}, "counted_meter": {"3/4"}, "counted_key": {"G"}, "count": {"1 2 & 3 | 1"}, "names": {"gabc d"}})
	testsite.Wants(t, page, `name="way" value="abc"`, `value="Mine"`, "M:3/4", "K:G", "G2 AB c2", "3/4, G major")
	page = turn("count", "abc", url.Values{"abc": {"M:6/8\nL:1/8\nK:F\nf3 g2 a|b6|]"}})
	testsite.Wants(t, page, `name="way" value="count"`, ">1 2 li | 1 |</textarea>", ">f g a | b |</textarea>", `value="6/8"`)
	if strings.Contains(page, "are left out here") {
		t.Error("it is said to leave something out")
	}
	page = turn("count", "abc", url.Values{"abc": {"M:4/4\nL:1/4\nK:C\n.C \"^words\"D E F|]"}})
	testsite.Wants(t, page, ">1 2 3 4 |</textarea>", ">1.1 staccato, 1.2 &#34;words&#34;</textarea>")
	page = turn("count", "abc", url.Values{"abc": {"M:4/4\nL:1/4\nQ:\"Slowly\" 1/4=60\nK:C\nC D E F|]"}})
	testsite.Wants(t, page, ">1 2 3 4 |</textarea>", "the rest is left out here")
	page = turn("count", "abc", url.Values{"abc": {"M:4/4\nL:1/4\nK:C\nC D Q"}})
	testsite.Wants(t, page, `name="way" value="abc"`, "It is not turned, because the ABC cannot be read", "C D Q")
	page = turn("count", "abc", url.Values{"abc": {"M:4/4\nL:1/16\nK:C\nC/D/E3 E4 E8|]"}})
	testsite.Wants(t, page, `name="way" value="abc"`, "It is not turned, because it cannot be counted in one line. Measure 1")
	page = turn("file", "count", url.Values{"count": {"1 3"}, "names": {"ga"}, "written_for": {"concert"}})
	if strings.Contains(page, `value="concert" selected`) {
		t.Error("a file is taken to be in concert pitch, whatever it says")
	}
	testsite.Wants(t, page, `type="file"`, `<textarea name="count">1 3</textarea>`)
	page = turn("count", "file", url.Values{"count": {"1 3"}, "names": {"ga"}})
	testsite.Wants(t, page, ">1 3</textarea>", ">ga</textarea>")
	page = turn("count", "abc", url.Values{"abc": {shelf.StartingABC}}) // untouched
	testsite.Wants(t, page, "What you count stands here as music.")

	other, account := s.Teacher(t, "b@school.example")
	testsite.Furnish(t, s.Store, account.ID)
	if status, _ := other.Post("/exercises/turn", url.Values{"id": {fmt.Sprint(b.Exercise)}, "to": {"abc"}}); status != http.StatusNotFound {
		t.Errorf("another teacher's exercise gives %d", status)
	}
}

// Names are typed as the teacher names notes.
func TestNamingInTheTeachersSystem(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	testsite.Furnish(t, s.Store, account.ID)
	for _, test := range []struct{ naming, names, key, shown string }{
		{"german", "a b h c", `data-type="h"`, `"name":"H"`},
		{"fixed-do", "la si- si do", `data-type="sol"`, `"name":"si♭"`},
		{"degrees", "a b- b c", `data-type="g"`, `"name":"6`},
	} {
		if err := s.Store.For(account.ID).SaveSettings(context.Background(), store.Settings{"naming": test.naming}); err != nil {
			t.Fatal(err)
		}
		_, page := v.Get("/exercises/new")
		testsite.Wants(t, page, test.key)
		_, part := v.Script("/exercises/preview", url.Values{"way": {"count"}, "counted_key": {"C"}, "count": {"1234"}, "names": {test.names}})
		testsite.Wants(t, part, "1 measure, 4 notes.", `class="typed-marks">[]`, test.shown)
	}
}

// The lines are drawn for every instrument, and for nobody's.
func TestTypedForEveryInstrument(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	testsite.Furnish(t, s.Store, account.ID)
	list := []string{"", "concert"}
	for _, i := range instrument.All() {
		list = append(list, i.ID)
	}
	for _, id := range list {
		form := url.Values{"way": {"count"}, "written_for": {id}, "counted_meter": {"3/4"}, "counted_key": {"F"}, "count": {"1 la li 2 3 | 1 2 [3] | 1 4"}, "names": {"bcdcb bc"}}
		status, part := v.Script("/exercises/preview", form)
		if status != http.StatusOK {
			t.Errorf("%s: %d", id, status)
		}
		i, known := instrument.ByID(id)
		want := `"named":true`
		if known && i.Unpitched() {
			want = `"named":false`
		}
		testsite.Wants(t, part, "Measure 3: ", want, `"measures":[{"id":"typed-m0"`)
		if !known {
			testsite.Wants(t, part, `"fingered":false`, `"name":"B♭"`)
			if strings.Contains(part, `"beyond"`) {
				t.Errorf("%q: nobody's instrument has a range", id)
			}
		}
	}
}

// Marks are put on notes that are chosen, taken off again, kept, and there to be edited.
func TestMarksOfTypedMusic(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	testsite.Furnish(t, s.Store, account.ID)
	form := url.Values{"way": {"count"}, "book": {"The Ferry Book"}, "number": {"3"}, "title": {"Marked"}, "written_for": {"clarinet"}, "starts_for": {"clarinet"},
		"counted_meter": {"4/4"}, "counted_key": {"F"}, "count": {"1 2 3 4 | 1 2 3"}, "names": {"gabc | bag"},
		"mark": {"staccato"}, "mark_from": {"1.1"}, "mark_to": {"1.4"}}
	_, part := v.Script("/exercises/preview", form)
	testsite.Wants(t, part, `id="marks-line" hx-swap-oob="true"`, ">1.1-1.4 staccato</textarea>", `artic=\"stacc\"`)
	form.Set("marks", "1.1-1.4 staccato")
	form.Set("mark_to", "1.2")
	_, part = v.Script("/exercises/preview", form)
	testsite.Wants(t, part, ">1.3-1.4 staccato</textarea>")
	form.Set("mark_to", "nowhere")
	if _, part = v.Script("/exercises/preview", form); strings.Contains(part, "marks-line") {
		t.Error("a note that is none changes the marks")
	}
	form.Del("mark")
	form.Set("marks", `1.1 mf, 9.1 accent`)
	status, page := v.Post("/exercises", form)
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a mark on no note gives %d", status)
	}
	testsite.Wants(t, page, "There is no note 1 in measure 9 to mark.", ">1.1 mf, 9.1 accent</textarea>")
	form.Set("marks", `1.1 mf "boldly", 2.3 fermata breath`)
	status, to := v.Post("/exercises", form)
	if status != http.StatusSeeOther {
		t.Fatalf("saving gives %d", status)
	}
	_, page = v.Get(to)
	testsite.Wants(t, page, `boldly`, `\u003cfermata`)
	_, page = v.Get(strings.TrimSuffix(strings.Replace(to, "/bench/", "/exercises/", 1), "?instrument=clarinet") + "/edit")
	testsite.Wants(t, page, ">1.1 mf &#34;boldly&#34;, 2.3 breath fermata</textarea>")
}
