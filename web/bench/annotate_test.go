package bench_test

import (
	"context"
	"encoding/json"
	"fmt"
	"html"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/web/music"
)

// undoForm is what takes back what was just changed by hand on a page.
func undoForm(t *testing.T, page string) (path string, form url.Values) {
	t.Helper()
	found := regexp.MustCompile(`(?s)<form class="did-by-hand" method="post" action="([^"]*)".*?</form>`).FindStringSubmatch(page)
	if found == nil {
		t.Fatalf("nothing can be undone on\n%s", page[:min(len(page), 4000)])
	}
	form = url.Values{}
	for _, field := range regexp.MustCompile(`name="([^"]*)" value="([^"]*)"`).FindAllStringSubmatch(found[0], -1) {
		form.Set(field[1], html.UnescapeString(field[2]))
	}
	return found[1], form
}

// sheetOf reads what the page's script draws.
func sheetOf(t *testing.T, page string) music.SheetData {
	t.Helper()
	found := regexp.MustCompile(`(?s)class="sheet-data">(.*?)</script>`).FindStringSubmatch(page)
	var data music.SheetData
	if found == nil || json.Unmarshal([]byte(html.UnescapeString(found[1])), &data) != nil {
		t.Fatalf("there is no music on\n%s", page[:min(len(page), 2000)])
	}
	return data
}

// A teacher writes over notes, strikes alerts out and takes each back.
func TestAnnotation(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	bench := fmt.Sprintf("/bench/%d", b.Exercise)
	base := url.Values{"instrument": {"trombone"}, "class": {fmt.Sprint(b.Class)}, "measure": {"0"}, "event": {"1"}}
	with := func(pairs ...string) url.Values {
		form := url.Values{}
		for key, value := range base {
			form[key] = value
		}
		for k := 0; k < len(pairs); k += 2 {
			form.Set(pairs[k], pairs[k+1])
		}
		return form
	}
	marks := func(page string) string { return fmt.Sprint(sheetOf(t, page).Measures[0].Events[1].Annotations) }
	for _, step := range []struct{ kind, word, says, stands string }{
		{"circle", "", "Written: a circle in m. 1.", "[{circle }]"},
		{"breath", "", "Written: a breath in m. 1.", "[{breath } {circle }]"},
		{"no-breath", "", "Written: no breath in m. 1.", "[{circle } {no-breath }]"},
		{"word", "soft <b>", "Written: “soft &lt;b&gt;” in m. 1.", "[{circle } {no-breath } {word soft <b>}]"},
	} {
		status, page := v.Script(bench+"/pencil", with("kind", step.kind, "word", step.word))
		if status != http.StatusOK {
			t.Fatalf("%s gives %d: %s", step.kind, status, page)
		}
		testsite.Wants(t, page, step.says)
		if got := marks(page); got != step.stands {
			t.Errorf("then stands %s, want %s", got, step.stands)
		}
	}
	_, page := v.Script(bench+"/pencil", with("kind", "breath")) // in place of none, which undo brings back
	_, page = v.Script(undoForm(t, page))
	if got := marks(page); got != "[{circle } {no-breath } {word soft <b>}]" {
		t.Errorf("undone stands %s", got)
	}
	_, page = v.Script(bench+"/pencil", with("kind", "circle", "rub", "yes"))
	testsite.Wants(t, page, "Rubbed out: a circle in m. 1.")
	_, page = v.Script(undoForm(t, page))
	if got := marks(page); got != "[{circle } {no-breath } {word soft <b>}]" {
		t.Errorf("what was rubbed out comes back as %s", got)
	}
	for _, bad := range []url.Values{with("kind", "scribble"), with("kind", "word", "word", strings.Repeat("x", 25)), with("kind", "word"), with("kind", "circle", "measure", "99"), with("kind", "circle", "event", "x")} {
		if status, page := v.Script(bench+"/pencil", bad); status != http.StatusUnprocessableEntity || len(page) > 200 {
			t.Errorf("%v gives %d %s", bad, status, page[:min(len(page), 200)])
		}
	}
	// What the key changes is struck out, stands among what is struck out, and comes back.
	_, page = v.Get(bench + "?instrument=trombone&chunk=1-2")
	data := sheetOf(t, page)
	first := data.Measures[0].Events[0]
	if !strings.Contains(fmt.Sprint(first.Alerts), "key") {
		t.Fatalf("the first note has %v", first.Alerts)
	}
	_, page = v.Script(bench+"/pencil", with("strike", fmt.Sprintf("0.%d.key", first.Event)))
	testsite.Wants(t, page, "Struck out: ")
	if after := sheetOf(t, page).Measures[0].Events; strings.Contains(fmt.Sprint(after[0].Alerts), "key") {
		t.Errorf("struck out, it has %v", after[0].Alerts)
	}
	_, page = v.Script(undoForm(t, page))
	if after := sheetOf(t, page).Measures[0].Events; !strings.Contains(fmt.Sprint(after[0].Alerts), "key") {
		t.Errorf("put back, it has %v", after[0].Alerts)
	}
}

// chunkNames lists the chunks on a page.
func chunkNames(page string) string {
	var names []string
	for _, found := range regexp.MustCompile(`<span class="chunk-name">([^<]*)</span>`).FindAllStringSubmatch(page, -1) {
		names = append(names, found[1])
	}
	return strings.Join(names, ", ")
}

// Chunks are cut in other ways, moved, divided, joined and added, each undone, and the log
// keeps its measures.
func TestChunksByHand(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	id := s.Exercise(t, account.ID, 7, "Eight", "", "T:Eight\nM:4/4\nL:1/4\nK:C\nc d e f|g4|f e d c|c3z|\nc d e f|g2 a2|f e d c|c4|]\n")
	desk := s.Store.For(account.ID)
	try := store.Attempt{StudentID: b.Student, ExerciseID: id, Chunk: breakdown.ChunkKey{First: 3, Last: 4}, Try: routine.Try{Stage: routine.Count, Clean: true}, Tempo: 60}
	if err := desk.AddAttempts(context.Background(), try); err != nil {
		t.Fatal(err)
	}
	path := fmt.Sprintf("/bench/%d/chunks", id)
	at := func(chunk string, pairs ...string) url.Values {
		form := url.Values{"instrument": {"trombone"}, "student": {fmt.Sprint(b.Student)}, "chunk": {chunk}}
		for k := 0; k < len(pairs); k += 2 {
			form.Set(pairs[k], pairs[k+1])
		}
		return form
	}
	const plain = "A · m. 1–2, B · m. 3–4, C · m. 5–6, D · m. 7–8, Whole · m. 1–8"
	_, page := v.Get(fmt.Sprintf("/bench/%d?instrument=trombone", id))
	if got := chunkNames(page); got != plain {
		t.Fatalf("the program cuts %s", got)
	}
	for _, step := range []struct {
		form       url.Values
		says, want string
	}{
		{at("1-2", "do", "move", "first", "1", "last", "3"), "The chunk is m. 1–3 now.", "A · m. 1–3, B · m. 4, C · m. 5–6, D · m. 7–8, Whole · m. 1–8"},
		{at("5-6", "do", "split", "first", "6"), "Divided: m. 5 and m. 6.", "A · m. 1–2, B · m. 3–4, C · m. 5, D · m. 6, E · m. 7–8, Whole · m. 1–8"},
		{at("5-6", "do", "join"), "Joined: m. 5–8.", "A · m. 1–2, B · m. 3–4, C · m. 5–8, Whole · m. 1–8"},
		{at("5-6", "do", "add", "first", "4", "last", "5"), "Added: m. 4–5.", "A · m. 1–2, B · m. 3–4, C · m. 5–6, D · m. 7–8, E · m. 4–5, Whole · m. 1–8"},
		{at("5-6", "do", "way", "way", "measures-4"), "Cut by four measures.", "A · m. 1–4, B · m. 5–8, Whole · m. 1–8"},
		{at("5-6", "do", "way", "way", "joining"), "Cut each joined to those before.", "A · m. 1–2, B · m. 3–4, C · m. 1–4, D · m. 5–6, E · m. 1–6, F · m. 7–8, Whole · m. 1–8"},
	} {
		_, page := v.Script(path, step.form)
		testsite.Wants(t, page, step.says)
		if got := chunkNames(page); got != step.want {
			t.Errorf("%v: the chunks are %s, want %s", step.form, got, step.want)
		}
		_, page = v.Script(undoForm(t, page))
		testsite.Wants(t, page, "The chunks are as they were.")
		if got := chunkNames(page); got != plain {
			t.Errorf("%v: undone, the chunks are %s", step.form, got)
		}
	}
	for _, bad := range []url.Values{
		at("1-2", "do", "move", "first", "3", "last", "2"), at("1-2", "do", "move", "first", "1", "last", "9"), at("1-2", "do", "move", "first", "x", "last", "2"),
		at("7-8", "do", "join"), at("1-2", "do", "split", "first", "1"), at("1-2", "do", "add", "first", "1", "last", "8"), at("1-2", "do", "add", "first", "3", "last", "4"),
		at("1-2", "do", "sing"), at("1-2", "do", "restore", "kept", "[{"), at("1-2", "do", "restore", "kept", `[{"Key":{"First":1,"Last":2},"Why":""}]`), at("1-2", "do", "way", "way", "nonsense"),
	} {
		if status, page := v.Script(path, bad); status != http.StatusUnprocessableEntity || len(page) > 200 {
			t.Errorf("%v gives %d %s", bad, status, page[:min(len(page), 200)])
		}
	}
	if _, page = v.Get(fmt.Sprintf("/bench/%d?instrument=trombone", id)); chunkNames(page) != plain {
		t.Errorf("after what was refused the chunks are %s", chunkNames(page))
	}
	// A chunk with tries is cut away: the tries stay in the log, and count again when it is back.
	_, page = v.Script(path, at("3-4", "do", "way", "way", "measures-4"))
	undo, form := undoForm(t, page)
	_, history := v.Get(fmt.Sprintf("/students/%d", b.Student))
	testsite.Wants(t, history, "m. 3–4")
	_, _ = v.Script(undo, form)
	standing, err := desk.ExerciseStandings(context.Background(), id, b.Class)
	if state := standing[store.Task{Student: b.Student, Exercise: id}].State(desk.Routine(), try.Chunk); err != nil || state.Tries != 1 {
		t.Errorf("the chunk stands at %+v, %v", state, err)
	}
	// Without a script the change is shown on the next page.
	_, to := v.Post(path, at("1-2", "do", "way", "way", "hardest"))
	_, page = v.Get(to)
	testsite.Wants(t, page, "Cut around the hardest measure.", "by hand")
}

// The sign is pencilled in front of all notes that may lose it by one press, and rubbed out by
// another.
func TestSignsArePencilled(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	id := s.Exercise(t, account.ID, 7, "Two Signs", "", "T:Two Signs\nM:4/4\nL:1/4\nK:C\nF ^F F G|F F G2|F4|]\n")
	bench := fmt.Sprintf("/bench/%d?instrument=trombone&class=%d", id, b.Class)
	_, page := v.Get(bench)
	testsite.Wants(t, page, "Pencil ♯ before F sharp, m. 1", "Pencil ♮ before F natural, m. 2")
	press := func(name, key string) string {
		t.Helper()
		_, page := v.Script(fmt.Sprintf("/bench/%d/pencil", id), url.Values{"instrument": {"trombone"}, "class": {fmt.Sprint(b.Class)}, name: {key}})
		return page
	}
	testsite.Wants(t, press("signs", "F.0"), "Written: ♮ before F natural in m. 2", "Rub out ♮ before F natural", `"kind":"sign","word":"♮"`)
	testsite.Wants(t, press("unsign", "F.0"), "Rubbed out: the signs of F natural", "Pencil ♮ before F natural, m. 2")
	if page := press("signs", "G.0"); strings.Contains(page, "Written:") {
		t.Error("a sign is written where none may be lost")
	}
}
