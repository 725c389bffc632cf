package bench_test

import (
	"archive/zip"
	"context"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/core/format"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/web/bench"
)

func TestSheets(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	path := fmt.Sprintf("/bench/%d/sheets?class=%d", b.Exercise, b.Class)
	_, page := v.Get(path)
	testsite.Wants(t, page, "Sheets: 1 · First Lamp", "<small>Trombone", `data-count="filled" data-name="filled" data-finger="filled"`, `"mechanism":"slide"`, "<th scope=\"row\">A · m. 1–2</th>", "Whole · m. 1–4", `<p class="rungs">Tempo <span>`)
	if n := strings.Count(page, "<section class=\"print-sheet\""); n != 1 {
		t.Errorf("%d sheets for a class of one trombone", n)
	}
	_, page = v.Get(path + "&for=all")
	if n := strings.Count(page, "<section class=\"print-sheet\""); n != 31 {
		t.Errorf("%d sheets for every instrument", n)
	}
	_, page = v.Get(path + "&for=one&instrument=clarinet&recipe=all")
	testsite.Wants(t, page, "<small>Clarinet", `data-count="empty" data-name="empty" data-finger="none"`, "<small>Clarinet: answers</small>", `data-count="filled" data-name="filled" data-finger="none"`, `"answer-clarinet-m0"`, `"sheet-clarinet-m0"`)
	if strings.Contains(page, "rungs\">Tempo") {
		t.Error("a sheet to be written on has a tempo ladder")
	}
	_, page = v.Get(path + "&line=even-walk")
	testsite.Wants(t, page, `<option value="even-walk" selected>`, "1 · First Lamp: Notes only <small>Trombone")
	_, page = v.Get(path + "&recipe=nonsense&line=none")
	testsite.Wants(t, page, `<option value="practice" selected>`)
}

// A recipe that is set is shown, kept under a name, chosen by it, and forgotten.
func TestRecipes(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	path := fmt.Sprintf("/bench/%d/sheets?class=%d", b.Exercise, b.Class)
	_, page := v.Get(path + "&recipe=set&count=empty&names=filled&fingers=empty&beside=one-note&answers=yes&boxes=no")
	testsite.Wants(t, page, `data-count="empty" data-name="filled" data-finger="none"`, "<small>Trombone: answers</small>", "<h3>Rhythm only</h3>", `data-lanes="count"`, `<option value="set" selected>`)
	if n := strings.Count(page, "<h3>Rhythm only"); n != 1 {
		t.Errorf("the line stands %d times: the answers need none", n)
	}
	desired := url.Values{"back": {path + "&recipe=set"}, "name": {" Friday  sheet "}, "count": {"filled"}, "names": {"none"}, "fingers": {"filled"}, "beside": {"even-walk"}, "boxes": {"yes"}}
	_, to := v.Post("/sheets/recipes", desired)
	if !strings.Contains(to, "recipe=own%3AFriday+sheet") {
		t.Fatalf("keeping leads to %s", to)
	}
	_, page = v.Get(to)
	testsite.Wants(t, page, "The preset Friday sheet is saved", `<option value="own:Friday sheet" selected>`, `data-count="filled" data-name="none" data-finger="filled"`, "<h3>Notes only</h3>", "Forget Friday sheet", `<p class="rungs">`)

	// Without a name nothing is kept, and what was set stays.
	desired.Set("name", " ")
	desired.Set("names", "empty")
	_, to = v.Post("/sheets/recipes", desired)
	_, page = v.Get(to)
	testsite.Wants(t, page, "Not saved: give the preset a name", `data-count="filled" data-name="empty" data-finger="filled"`)
	for n := range bench.MostRecipes {
		desired.Set("name", fmt.Sprint("Sheet ", n))
		v.Post("/sheets/recipes", desired)
	}
	_, to = v.Post("/sheets/recipes", url.Values{"name": {"One more"}, "back": {path}})
	_, page = v.Get(to)
	testsite.Wants(t, page, "there are 20 presets already", `value="One more"`)
	v.Post("/sheets/recipes", url.Values{"name": {"Friday sheet"}, "forget": {"yes"}, "back": {path}})
	if _, page = v.Get(path); strings.Contains(page, "Friday sheet</option>") {
		t.Error("a forgotten recipe is offered")
	}
	if _, to = v.Post("/sheets/recipes", url.Values{"name": {"Sheet 1"}, "back": {"//elsewhere.example/bench/1"}}); to != "/" {
		t.Errorf("it leads away, to %s", to)
	}
}

// One chunk has sheets of its own, with the numbers of its measures; an exercise has cards of
// its notes; and the parts go out as files.
func TestOtherSheets(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	path := fmt.Sprintf("/bench/%d/sheets?class=%d", b.Exercise, b.Class)
	_, page := v.Get(path + "&line=alone&of=3-4")
	testsite.Wants(t, page, "1 · First Lamp: chunk B <small>Trombone", "B · m. 3–4", `"number":3`)
	if strings.Contains(page, "A · m. 1–2</th>") {
		t.Error("the sheet of a chunk has the other chunks")
	}
	_, page = v.Get(path + "&line=drill")
	testsite.Wants(t, page, `<option value="drill" selected>Hardest changes`, "1 · First Lamp: Hardest changes <small>Trombone")
	_, page = v.Get(path + "&recipe=cards&for=all")
	testsite.Wants(t, page, "<small>Clarinet: cards</small>", `"place":"`, "No cards for the snare drum, the bass drum")
	_, page = v.Get(path + "&recipe=cards")
	if cards := strings.Count(page, `"mei":`); cards < 2 || cards > 8 {
		t.Errorf("%d cards of an exercise for beginners", cards)
	}

	status, packed := v.Get(path + "&for=all&as=zip")
	z, err := zip.NewReader(strings.NewReader(packed), int64(len(packed)))
	if status != http.StatusOK || err != nil || len(z.File) != 31 {
		t.Fatalf("%d, %v", status, err)
	}
	for _, f := range z.File {
		open, err := f.Open()
		if err != nil {
			t.Fatal(err)
		}
		data, err := io.ReadAll(open)
		if err != nil {
			t.Fatal(err)
		}
		if sc, err := format.ReadKind(context.Background(), format.MusicXML, data); err != nil || sc.Parts[0].Events() == 0 {
			t.Errorf("%s: %v", f.Name, err)
		}
	}
}
