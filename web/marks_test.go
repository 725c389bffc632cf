package web

import (
	"context"
	"fmt"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// post sends a form as the page's script does.
func (v *visitor) script(path string, form url.Values) (int, string) {
	v.t.Helper()
	r := v.request("POST", path, strings.NewReader(form.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r.Header.Set("HX-Request", "true")
	return v.do(r)
}

// Everybody is marked clean with one press and taken back with one: but those who are
// left out, those past the stage, and those whose own part has no such piece.
func TestEverybodyClean(t *testing.T) {
	t.Parallel()
	s, ctx := open(t), context.Background()
	v, account := s.teacher(t, "a@school.example")
	b, desk := furnish(t, s.store, account.ID), s.store.For(account.ID) // Ines has one clean try at Count
	piece := breakdown.PieceKey{First: 1, Last: 2}
	ids := map[string]store.StudentID{"Ines": b.student}
	for _, name := range []string{"Away", "Ahead", "Own", "Fresh"} {
		instrument := map[string]string{"Own": "oboe"}[name]
		if instrument == "" {
			instrument = "trumpet"
		}
		id, err := desk.AddStudent(ctx, store.Student{SectionID: b.section, FirstName: name, Instrument: instrument})
		if err != nil {
			t.Fatal(err)
		}
		ids[name] = id
	}
	own := store.OwnPart{Instrument: "oboe", Source: store.Source{Format: "abc", Content: "M:4/4\nL:1/4\nK:C\nc d e f|g a b c|d4|]\n"}}
	if err := desk.KeepOverrides(ctx, b.exercise, own); err != nil {
		t.Fatal(err)
	}
	for range routine.CleanToGoOn {
		if err := desk.AddAttempts(ctx, store.Attempt{StudentID: ids["Ahead"], ExerciseID: b.exercise, Piece: piece,
			Try: routine.Try{Stage: routine.Count, Clean: true}}); err != nil {
			t.Fatal(err)
		}
	}
	at := func(name string) routine.State {
		t.Helper()
		standings, err := desk.SectionStandings(ctx, b.section)
		if err != nil {
			t.Fatal(err)
		}
		return standings[store.Task{Student: ids[name], Exercise: b.exercise}].State(desk.Routine(), piece)
	}
	form := url.Values{"instrument": {"trumpet"}, "section": {fmt.Sprint(b.section)}, "piece": {"1-2"}, "stage": {"count"}, "tempo": {"66"},
		"except": {fmt.Sprint(ids["Away"])}}
	path := fmt.Sprintf("/bench/%d/everybody", b.exercise)
	status, page := v.script(path, form)
	if status != 200 {
		t.Fatalf("everybody clean gives %d: %s", status, page)
	}
	wants(t, page, "Count, m. 1–2: 2 clean.", "one past this stage, left where they are.", "one without this piece in their own part.", "Undo for everybody")
	for name, want := range map[string]routine.State{
		"Ines": {Stage: routine.Name, Tries: 2}, "Fresh": {Stage: routine.Count, Clean: 1, Tries: 1},
		"Away": {Stage: routine.Count}, "Own": {Stage: routine.Count}, "Ahead": {Stage: routine.Name, Tries: 2},
	} {
		if got := at(name); got.Stage != want.Stage || got.Clean != want.Clean || got.Tries != want.Tries {
			t.Errorf("%s is at %+v, want %+v", name, got, want)
		}
	}
	_, rest, _ := strings.Cut(page, "/batches/")
	batch, _, _ := strings.Cut(rest, "/undo")
	form.Set("exercise", fmt.Sprint(b.exercise))
	if status, page = v.script("/batches/"+batch+"/undo", form); status != 200 {
		t.Fatalf("undoing gives %d", status)
	}
	wants(t, page, "taken back")
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
	if status, page = v.script(path, form); status != 422 || !strings.Contains(page, "nobody to mark") {
		t.Errorf("with everybody left out it gives %d: %s", status, page)
	}
	// Without a script it goes back to the Bench, with its undo.
	form.Del("except")
	status, to := v.post(path, form)
	if status != 303 || !strings.HasPrefix(to, fmt.Sprintf("/bench/%d?", b.exercise)) {
		t.Errorf("without a script it gives %d to %s", status, to)
	}
	_, page = v.get(to)
	wants(t, page, "Count, m. 1–2: 3 clean.", `action="/batches/`)
}

// Without a script the page says what stands in for the music, and a stumble can be
// marked with its cause.
func TestMarkingWithoutAScript(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	_, page := v.get(fmt.Sprintf("/bench/%d?student=%d&stage=count&piece=1-2", b.exercise, b.student))
	head, body, _ := strings.Cut(page, "</head>")
	wants(t, head, "<noscript><style>.no-script { display: revert !important; }")
	if strings.Contains(body, "<noscript") {
		t.Error("a part of the page that scripts put in place holds noscript, whose style would hold there")
	}
	wants(t, body, `<p class="hint no-script">The music is drawn with JavaScript`, "The table below says the same")
	_, causes, _ := strings.Cut(body, `<fieldset class="no-script"`)
	wants(t, causes, `name="cause" value="rhythm"`)
	form := url.Values{"student": {fmt.Sprint(b.student)}, "instrument": {"trombone"}, "piece": {"1-2"}, "stage": {"count"}, "tempo": {"66"}, "cause": {"rhythm"}}
	status, to := v.post(fmt.Sprintf("/bench/%d/attempts", b.exercise), form)
	if status != 303 || !strings.Contains(to, "tempo=66") {
		t.Fatalf("marking gives %d to %s", status, to)
	}
	_, page = v.get(to)
	wants(t, page, "Count, m. 1–2: a stumble, rhythm.", "One stumble: again, the same way.")
}

// A mark from a page that has been overtaken asks first, and says what has happened;
// pressed again, it counts. Work at another stage by choice asks nothing.
func TestAMarkFromAStalePageAsks(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID) // one clean try at Count: a page made now has seen one
	if _, page := mark(v, b, url.Values{"result": {"clean"}, "seen": {"1"}}); !strings.Contains(page, "on to Name") {
		t.Fatal("the second clean try does not go on")
	}
	_, page := mark(v, b, url.Values{"result": {"clean"}, "seen": {"1"}}) // from another tab, still at Count
	wants(t, page, "Since this page was opened Ines P. has gone on to Name at m. 1–2. Mark clean at Count here all the same?", "Mark it at Count", "Go to Name")
	tries := func() int {
		t.Helper()
		log, err := s.store.For(account.ID).StudentAttempts(context.Background(), b.student)
		if err != nil {
			t.Fatal(err)
		}
		return len(log)
	}
	if got := tries(); got != 2 {
		t.Errorf("asking logs a try: there are %d", got)
	}
	_, page = mark(v, b, url.Values{"result": {"clean"}, "seen": {"1"}, "sure": {"yes"}})
	wants(t, page, "Count, m. 1–2: clean.", "1 of 2 clean in a row, then on to Name.")
	if _, page = mark(v, b, url.Values{"result": {"clean"}, "stage": {"play"}, "seen": {"3"}}); !strings.Contains(page, "Play, m. 1–2: clean.") {
		t.Error("a try at a later stage by choice is asked about")
	}
	if got := tries(); got != 4 {
		t.Errorf("there are %d tries, want 4", got)
	}
	b.student = 0
	if status, page := mark(v, b, url.Values{"result": {"clean"}}); status != 422 || !strings.Contains(page, "Nobody is chosen. Tap a name") {
		t.Errorf("with nobody chosen a mark gives %d: %s", status, page)
	}
}
