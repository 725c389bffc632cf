package shelf_test

import (
	"context"
	"fmt"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// Everybody is marked clean with one press and taken back with one: but those who are
// left out, those past the stage, and those whose own part has no such chunk.
func TestEverybodyClean(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	b, desk := testsite.Furnish(t, s.Store, account.ID), s.Store.For(account.ID) // Ines has one clean try at Count
	chunk := breakdown.ChunkKey{First: 1, Last: 2}
	ids := map[string]store.StudentID{"Ines": b.Student}
	for _, name := range []string{"Away", "Ahead", "Own", "Fresh"} {
		instrument := map[string]string{"Own": "oboe"}[name]
		if instrument == "" {
			instrument = "trumpet"
		}
		id, err := desk.AddStudent(ctx, store.Student{ClassID: b.Class, FirstName: name, Instrument: instrument})
		if err != nil {
			t.Fatal(err)
		}
		ids[name] = id
	}
	own := store.OwnPart{Instrument: "oboe", Source: store.Source{Format: "abc", Content: "M:4/4\nL:1/4\nK:C\nc d e f|g a b c|d4|]\n"}}
	if err := desk.SaveOverrides(ctx, b.Exercise, own); err != nil {
		t.Fatal(err)
	}
	for range routine.CleanToGoOn {
		if err := desk.AddAttempts(ctx, store.Attempt{StudentID: ids["Ahead"], ExerciseID: b.Exercise, Chunk: chunk,
			Try: routine.Try{Stage: routine.Count, Clean: true}}); err != nil {
			t.Fatal(err)
		}
	}
	at := func(name string) routine.State {
		t.Helper()
		standings, err := desk.ClassStandings(ctx, b.Class)
		if err != nil {
			t.Fatal(err)
		}
		return standings[store.Task{Student: ids[name], Exercise: b.Exercise}].State(desk.Routine(), chunk)
	}
	form := url.Values{"instrument": {"trumpet"}, "class": {fmt.Sprint(b.Class)}, "chunk": {"1-2"}, "stage": {"count"}, "tempo": {"66"},
		"except": {fmt.Sprint(ids["Away"])}}
	path := fmt.Sprintf("/bench/%d/everybody", b.Exercise)
	status, page := v.Script(path, form)
	if status != 200 {
		t.Fatalf("everybody clean gives %d: %s", status, page)
	}
	testsite.Wants(t, page, "Count, m. 1–2: 2 clean.", "one past this stage, left where they are.", "one without this chunk in their own part.", "Undo for everybody")
	for name, want := range map[string]routine.State{
		"Ines": {Stage: routine.Name, Tries: 2}, "Fresh": {Stage: routine.Name, Tries: 1}, // once is enough with a class
		"Away": {Stage: routine.Count}, "Own": {Stage: routine.Count}, "Ahead": {Stage: routine.Name, Tries: 2},
	} {
		if got := at(name); got.Stage != want.Stage || got.Clean != want.Clean || got.Tries != want.Tries {
			t.Errorf("%s is at %+v, want %+v", name, got, want)
		}
	}
	_, rest, _ := strings.Cut(page, "/batches/")
	batch, _, _ := strings.Cut(rest, "/undo")
	form.Set("exercise", fmt.Sprint(b.Exercise))
	if status, page = v.Script("/batches/"+batch+"/undo", form); status != 200 {
		t.Fatalf("undoing gives %d", status)
	}
	testsite.Wants(t, page, "taken back")
	if got := at("Ines"); got.Stage != routine.Count || got.Clean != 1 || got.Tries != 1 {
		t.Errorf("taken back, Ines is at %+v", got)
	}
	if got := at("Fresh"); got.Tries != 0 {
		t.Errorf("taken back, Fresh is at %+v", got)
	}
	form["except"] = nil
	for _, id := range ids {
		form.Add("except", fmt.Sprint(id))
	}
	if status, page = v.Script(path, form); status != 422 || !strings.Contains(page, "nobody to mark") {
		t.Errorf("with everybody left out it gives %d: %s", status, page)
	}
	// Without a script it goes back to the Bench, with its undo.
	form.Del("except")
	status, to := v.Post(path, form)
	if status != 303 || !strings.HasPrefix(to, fmt.Sprintf("/bench/%d?", b.Exercise)) {
		t.Errorf("without a script it gives %d to %s", status, to)
	}
	_, page = v.Get(to)
	testsite.Wants(t, page, "Count, m. 1–2: 3 clean.", `action="/batches/`)
}

// Without a script the page says what stands in for the music, and a stumble can be
// marked with its cause.
func TestMarkingWithoutAScript(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	_, page := v.Get(fmt.Sprintf("/bench/%d?student=%d&stage=count&chunk=1-2", b.Exercise, b.Student))
	head, body, _ := strings.Cut(page, "</head>")
	testsite.Wants(t, head, "<noscript><style>.no-script { display: revert !important; }")
	if strings.Contains(body, "<noscript") {
		t.Error("a part of the page that scripts put in place holds noscript, whose style would hold there")
	}
	testsite.Wants(t, body, `<p class="hint no-script">The music is drawn with JavaScript`, "The table below says the same")
	_, causes, _ := strings.Cut(body, `<fieldset class="no-script"`)
	testsite.Wants(t, causes, `name="cause" value="rhythm"`)
	form := url.Values{"student": {fmt.Sprint(b.Student)}, "instrument": {"trombone"}, "chunk": {"1-2"}, "stage": {"count"}, "tempo": {"66"}, "cause": {"rhythm"}}
	status, to := v.Post(fmt.Sprintf("/bench/%d/attempts", b.Exercise), form)
	if status != 303 || !strings.Contains(to, "tempo=66") {
		t.Fatalf("marking gives %d to %s", status, to)
	}
	_, page = v.Get(to)
	testsite.Wants(t, page, "Count, m. 1–2: a stumble, rhythm.", "One stumble: again, the same way.")
}

// A mark from a page that has been overtaken asks first, and says what has happened;
// pressed again, it counts. Work at another stage by choice asks nothing.
func TestAMarkFromAStalePageAsks(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID) // one clean try at Count: a page made now has seen one
	if _, page := testsite.Mark(v, b, url.Values{"result": {"clean"}, "seen": {"1"}}); !strings.Contains(page, "on to Name") {
		t.Fatal("the second clean try does not go on")
	}
	_, page := testsite.Mark(v, b, url.Values{"result": {"clean"}, "seen": {"1"}}) // from another tab, still at Count
	testsite.Wants(t, page, "Since this page was opened Ines P. has gone on to Name at m. 1–2. Mark clean at Count here all the same?", "Mark it at Count", "Go to Name")
	tries := func() int {
		t.Helper()
		log, err := s.Store.For(account.ID).StudentAttempts(context.Background(), b.Student)
		if err != nil {
			t.Fatal(err)
		}
		return len(log)
	}
	if got := tries(); got != 2 {
		t.Errorf("asking logs a try: there are %d", got)
	}
	_, page = testsite.Mark(v, b, url.Values{"result": {"clean"}, "seen": {"1"}, "sure": {"yes"}})
	testsite.Wants(t, page, "Count, m. 1–2: clean.", "Count is clean twice running: on to Name.")
	if _, page = testsite.Mark(v, b, url.Values{"result": {"clean"}, "stage": {"play"}, "seen": {"3"}}); !strings.Contains(page, "Play, m. 1–2: clean.") {
		t.Error("a try at a later stage by choice is asked about")
	}
	if got := tries(); got != 4 {
		t.Errorf("there are %d tries, want 4", got)
	}
	b.Student = 0
	if status, page := testsite.Mark(v, b, url.Values{"result": {"clean"}}); status != 422 || !strings.Contains(page, "Nobody is chosen. Tap a name") {
		t.Errorf("with nobody chosen a mark gives %d: %s", status, page)
	}
}
