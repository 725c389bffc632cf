package store_test

import (
	"context"
	"errors"
	"fmt"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// who asks which routine a fixture's student follows, by its first word.
func (f fixture) follows(t *testing.T) string {
	t.Helper()
	rules, err := f.Rules(context.Background())
	if err != nil {
		t.Fatal(err)
	}
	return rules.For(f.student, f.exercise)[0].Word
}

// The exercise's routine goes before the instrument's, that before the class's, and that
// before the teacher's; one for another family is passed over; and where everybody stands
// is added up again with each choice.
func TestWhichRoutineIsFollowed(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	starting := func(word, family string) string {
		steps := routine.Standard()
		steps[0] = routine.Step{Stage: routine.OwnStage(word, nil), Word: word, Kind: routine.Count, Mends: []routine.Cause{routine.Rhythm}}
		id, err := f.SaveRoutine(ctx, routine.Named{Title: word, Family: family, Steps: steps})
		if err != nil {
			t.Fatal(err)
		}
		return id
	}
	usual, class, brass, strings, exercise := starting("Usual", ""), starting("Class", ""), starting("Brass", "brass"), starting("Strings", "strings"), starting("Exercise", "")
	for _, tt := range []struct {
		by   store.Chooser
		id   string
		want string
	}{
		{store.Chooser{}, "", "Count"},
		{store.Chooser{}, usual, "Usual"},
		{store.Chooser{Class: f.class}, class, "Class"},
		{store.Chooser{Instrument: "trombone"}, strings, "Class"},
		{store.Chooser{Instrument: "trombone"}, brass, "Brass"},
		{store.Chooser{Instrument: "tuba-bb"}, strings, "Brass"},
		{store.Chooser{Exercise: f.exercise}, strings, "Brass"},
		{store.Chooser{Exercise: f.exercise}, exercise, "Exercise"},
		{store.Chooser{Exercise: f.exercise}, "", "Brass"},
		{store.Chooser{Instrument: "trombone"}, "", "Class"},
		{store.Chooser{Class: f.class}, "", "Usual"},
		{store.Chooser{Class: f.class}, "name-first", "Name"},
	} {
		if err := f.ChooseRoutine(ctx, tt.by, tt.id); err != nil {
			t.Fatal(err)
		}
		if got := f.follows(t); got != tt.want {
			t.Errorf("after %+v chose %q the student follows %q, want %q", tt.by, tt.id, got, tt.want)
		}
		if got := f.at(t, firstChunk); (got.Clean == 1) != (tt.want == "Count") {
			t.Errorf("by %s the clean try at Count adds up to %+v", tt.want, got)
		}
	}
	for what, err := range map[string]error{
		"a routine that is not there": f.ChooseRoutine(ctx, store.Chooser{Class: f.class}, "own-999"),
		"a class that is not there":   f.ChooseRoutine(ctx, store.Chooser{Class: 999}, usual),
		"an exercise that is not":     f.ChooseRoutine(ctx, store.Chooser{Exercise: 999}, usual),
		"a routine to change, not own": func() error {
			_, err := f.SaveRoutine(ctx, routine.Named{ID: "count-first", Title: "x", Steps: routine.Standard()})
			return err
		}(),
		"one to take away, not own": f.DeleteRoutine(ctx, "name-first"),
	} {
		if !errors.Is(err, store.ErrNotFound) {
			t.Errorf("%s gives %v", what, err)
		}
	}
	if _, err := f.SaveRoutine(ctx, routine.Named{Title: "Usual", Steps: routine.Standard()}); !errors.Is(err, store.ErrTaken) {
		t.Errorf("a second of one title gives %v", err)
	}
}

// Changing a routine, or taking it away, adds up again what follows it.
func TestRoutineChangedAndDropped(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a") // with one clean try at Count
	steps := routine.Standard()
	steps[0].Clean = 1
	id, err := f.SaveRoutine(ctx, routine.Named{Title: "Once", Steps: steps})
	if err != nil {
		t.Fatal(err)
	}
	if err := f.ChooseRoutine(ctx, store.Chooser{Class: f.class}, id); err != nil {
		t.Fatal(err)
	}
	if got := f.at(t, firstChunk); got.Stage != routine.Name {
		t.Errorf("where one clean goes on it is at %s", got.Stage)
	}
	steps[0].Clean = 3
	if _, err := f.SaveRoutine(ctx, routine.Named{ID: id, Title: "Three", Steps: steps}); err != nil {
		t.Fatal(err)
	}
	if got := f.at(t, firstChunk); got.Stage != routine.Count || got.Advice != "1 of 3 clean in a row, then on to Name." {
		t.Errorf("where three go on it is %+v", got)
	}
	if err := f.DeleteRoutine(ctx, id); err != nil {
		t.Fatal(err)
	}
	rules, err := f.Rules(ctx)
	if err != nil || rules.Chosen(store.Chooser{Class: f.class}) != "" {
		t.Errorf("a routine that is gone is still chosen: %v", err)
	}
	if got := f.at(t, firstChunk); got.Advice != "1 of 2 clean in a row, then on to Name." {
		t.Errorf("without it it is %+v", got)
	}
}

// A rule for one student holds for them alone, and so does a move; a move can be taken back
// like a try, but is not one.
func TestRuleAndMoveOfAStudent(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a") // with one clean try at Count
	other, err := f.AddStudent(ctx, store.Student{ClassID: f.class, FirstName: "Bea", Instrument: "trombone"})
	if err != nil {
		t.Fatal(err)
	}
	theirs := f.try(true, routine.None)
	theirs.StudentID = other
	if err := f.AddAttempts(ctx, theirs); err != nil {
		t.Fatal(err)
	}
	if err := f.SaveRule(ctx, f.student, routine.Rule{Clean: 1}); err != nil {
		t.Fatal(err)
	}
	stands := func(id store.StudentID) routine.State {
		f := f
		f.student = id
		return f.at(t, firstChunk)
	}
	if got := fmt.Sprint(stands(f.student).Stage, " ", stands(other).Stage); got != "name count" {
		t.Errorf("with a rule for one they are at %s", got)
	}
	stumble := f.try(false, routine.Rhythm)
	stumble.Stage = routine.Name
	moved := f.try(false, routine.None)
	moved.Try = routine.Try{Stage: routine.Done, Moved: true}
	if err := f.AddAttempts(ctx, stumble, moved); err != nil {
		t.Fatal(err)
	}
	if got := stands(f.student); got.Stage != routine.Done || got.Tries != 2 {
		t.Errorf("moved to the end it is %+v", got)
	}
	log, err := f.StudentAttempts(ctx, f.student)
	if err != nil || !log[0].Moved {
		t.Fatalf("the log is %+v, %v", log, err)
	}
	if _, err := f.UndoAttempt(ctx, log[0].ID); err != nil {
		t.Fatal(err)
	}
	if got := stands(f.student); got.Stage != routine.Name || got.Stumbles != 1 {
		t.Errorf("taken back it is %+v", got)
	}
	moved.Moved = false
	if err := f.AddAttempts(ctx, moved); err == nil {
		t.Error("a try at what is done is taken")
	}
}

// What is added up at once for many chunks is what is added up one try after another.
func TestAddedUpTogether(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	var list []store.Attempt
	for n := range 60 {
		a := f.try(n%3 > 0, routine.None)
		if a.Chunk = (breakdown.ChunkKey{First: 1 + n%4, Last: 4}); !a.Clean {
			a.Cause = routine.AllCauses()[n%4]
		}
		a.Stage = routine.Standard()[n/5%4].Stage
		list = append(list, a)
	}
	for _, a := range list {
		if err := f.AddAttempts(ctx, a); err != nil {
			t.Fatal(err)
		}
	}
	one, err := f.StudentStandings(ctx, f.student)
	if err != nil {
		t.Fatal(err)
	}
	if err := s.FoldStandings(ctx); err != nil {
		t.Fatal(err)
	}
	all, err := f.StudentStandings(ctx, f.student)
	if err != nil {
		t.Fatal(err)
	}
	task := store.Task{Student: f.student, Exercise: f.exercise}
	if len(one) != 1 || fmt.Sprint(*one[task]) != fmt.Sprint(*all[task]) {
		t.Errorf("one by one %v, at once %v", *one[task], *all[task])
	}
}

// A whole class of thirty is marked at once.
func BenchmarkMarkClass(b *testing.B) {
	s, ctx := testdb.Open(b), context.Background()
	teacher, err := s.AddTeacher(ctx, "b@school.example", "B", "", "a long password")
	if err != nil {
		b.Fatal(err)
	}
	d := s.For(teacher.ID)
	x, err := d.AddExercise(ctx, store.Exercise{Book: "Book", Number: 1, Title: "One"}, store.Source{Format: "abc", Content: "K:C\nC8|]"})
	if err != nil {
		b.Fatal(err)
	}
	class, err := d.AddClass(ctx, "Thirty")
	if err != nil {
		b.Fatal(err)
	}
	var marks []store.Attempt
	for n := range 30 {
		id, err := d.AddStudent(ctx, store.Student{ClassID: class, FirstName: fmt.Sprint("S", n), Instrument: "violin"})
		if err != nil {
			b.Fatal(err)
		}
		marks = append(marks, store.Attempt{StudentID: id, ExerciseID: x, Chunk: firstChunk, Try: routine.Try{Stage: routine.Count, Clean: n%5 > 0, Cause: map[bool]routine.Cause{false: routine.Rhythm}[n%5 > 0]}, Tempo: 60})
	}
	for b.Loop() {
		if _, err := d.AddTogether(ctx, "", marks...); err != nil {
			b.Fatal(err)
		}
	}
}

// What another teacher has chosen is none of one's own choices.
func TestAnothersChoicesAreNotMine(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	mine, other := add(t, s, "a"), add(t, s, "b")
	for _, by := range []store.Chooser{{}, {Class: other.class}, {Instrument: "trombone"}, {Exercise: other.exercise}} {
		if err := other.ChooseRoutine(ctx, by, "name-first"); err != nil {
			t.Fatal(err)
		}
		theirs, err1 := other.Rules(ctx)
		rules, err2 := mine.Rules(ctx)
		if err := errors.Join(err1, err2); err != nil {
			t.Fatal(err)
		}
		if theirs.Chosen(by) != "name-first" || rules.Chosen(by) != "" {
			t.Errorf("for %+v they chose %q, and I have %q", by, theirs.Chosen(by), rules.Chosen(by))
		}
		if rules.Rule(other.student) != (routine.Rule{}) || len(rules.For(other.student, mine.exercise)) == 0 {
			t.Errorf("for another's student there is the rule %+v", rules.Rule(other.student))
		}
	}
}

// A teacher keeps as many routines of their own as there may be, and each is the one that its id
// names.
func TestTheMostRoutines(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	ids := map[string]string{}
	for n := 0; ; n++ {
		title := fmt.Sprintf("Routine %d", n)
		id, err := f.SaveRoutine(ctx, routine.Named{Title: title, Steps: routine.Standard()})
		if errors.Is(err, store.ErrTooMany) {
			break
		}
		if err != nil || n == store.MostRoutines {
			t.Fatalf("routine %d: %v", n, err)
		}
		ids[id] = title
	}
	rules, err := f.Rules(ctx)
	if err != nil || len(ids) < store.MostRoutines-2 {
		t.Fatalf("%d routines are kept, %v", len(ids), err)
	}
	for id, title := range ids {
		if got, ok := rules.Named(id); !ok || got.Title != title {
			t.Errorf("%s is %q, want %q", id, got.Title, title)
		}
		if err := f.ChooseRoutine(ctx, store.Chooser{Class: f.class}, id); err != nil {
			t.Errorf("%s cannot be chosen: %v", id, err)
		}
	}
}
