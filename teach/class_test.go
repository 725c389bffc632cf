package teach_test

import (
	"context"
	"errors"
	"fmt"
	"testing"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/demo"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/reading"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// inDemo is the demo's class, and the desk of its teacher.
func inDemo(t *testing.T) (*teach.Class, *store.Desk, store.ClassID) {
	t.Helper()
	s, ctx := testdb.Open(t), context.Background()
	if err := demo.Load(ctx, s); err != nil {
		t.Fatal(err)
	}
	teacher, err := s.DemoTeacher(ctx)
	if err != nil {
		t.Fatal(err)
	}
	facts := teach.New(s.For(teacher.ID), reading.New(reading.Memory))
	classes, err := facts.Classes(ctx)
	if err != nil || len(classes) == 0 {
		t.Fatalf("the demo has %d classes, %v", len(classes), err)
	}
	return facts, s.For(teacher.ID), classes[0].ID
}

// must is a value that was read without an error.
func must[T any](t *testing.T) func(value T, err error) T {
	return func(value T, err error) T {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
		return value
	}
}

// What is remembered is what the desk says, of one and of the second who is asked for, which
// has all of them read together.
func TestWhatIsRememberedIsWhatIsThere(t *testing.T) {
	t.Parallel()
	ctx := context.Background()
	facts, desk, class := inDemo(t)
	students := must[[]store.Student](t)(facts.Students(ctx, class))
	list := must[[]store.Exercise](t)(facts.Exercises(ctx))
	for k, x := range list[:4] {
		if err := desk.SaveFingering(ctx, x.ID, "clarinet", score.Place{Measure: k}, finger.Spot{Pitch: 60 + k, Text: "1"}); err != nil {
			t.Fatal(err)
		}
		if err := desk.SaveOctaveChoice(ctx, x.ID, "flute", instrument.OctaveChoice{Chosen: true, Octaves: k}); err != nil {
			t.Fatal(err)
		}
	}
	if err := desk.SaveHomePlans(ctx, store.HomePlan{Student: students[2].ID, From: time.Now(), Until: time.Now().AddDate(0, 0, 9), Weekdays: []int{1, 4}, Minutes: 12}); err != nil {
		t.Fatal(err)
	}
	same := func(what string, got, want any, err1, err2 error) {
		t.Helper()
		if fmt.Sprint(got) != fmt.Sprint(want) || !errors.Is(err1, store.ErrNotFound) && err1 != nil || (err1 == nil) != (err2 == nil) {
			t.Errorf("%s is remembered as %.200v, %v, and is %.200v, %v", what, got, err1, want, err2)
		}
	}
	spell := func(s store.Standings) string {
		text := ""
		for _, x := range list {
			for _, student := range students {
				if at := s[store.Task{Student: student.ID, Exercise: x.ID}]; at != nil {
					text += fmt.Sprint(x.ID, student.ID, at.Chunks, at.Tries, ";")
				}
			}
		}
		return text
	}
	for _, student := range students[:4] {
		got, err1 := facts.StudentStandings(ctx, student.ID)
		want, err2 := desk.StudentStandings(ctx, student.ID)
		same("where a student stands", spell(got), spell(want), err1, err2)
		log, err1 := facts.StudentAttempts(ctx, student.ID)
		tries, err2 := desk.StudentAttempts(ctx, student.ID)
		same("a student's log", log, tries, err1, err2)
		plan, err1 := facts.HomePlan(ctx, student.ID)
		saved, err2 := desk.HomePlan(ctx, student.ID)
		same("a student's plan", plan, saved, err1, err2)
		one, err1 := facts.StudentByID(ctx, student.ID)
		found, err2 := desk.StudentByID(ctx, student.ID)
		same("a student", one, found, err1, err2)
	}
	for _, x := range list[:6] {
		fingered, err1 := facts.Fingerings(ctx, x.ID, "clarinet")
		placed, err2 := desk.Fingerings(ctx, x.ID, "clarinet")
		same("the fingerings of an exercise", fingered, placed, err1, err2)
		octave, err1 := facts.OctaveChoice(ctx, x.ID, "flute")
		chosen, err2 := desk.OctaveChoice(ctx, x.ID, "flute")
		same("the octave of an exercise", octave, chosen, err1, err2)
	}
	for _, id := range []string{"flute", "clarinet", "tuba-bb"} {
		got, err1 := facts.Demands(ctx, id)
		want, err2 := desk.Demanded(ctx, []string{id})
		same("what is demanded of the "+id, len(got), len(want), err1, err2)
	}
	// How hard an exercise is for everybody is known whatever was asked of it before.
	bench := teach.New(desk, facts.Reader)
	must[map[store.ExerciseID]breakdown.Demands](t)(bench.Demands(ctx, "flute"))
	must[[]store.Override](t)(bench.Overrides(ctx, list[0].ID))
	if hard := must[map[string]breakdown.DifficultyParts](t)(bench.HardFor(ctx, list[0].ID, "flute")); len(hard) != len(instrument.All()) {
		t.Errorf("how hard it is is known for %d instruments", len(hard))
	}
	// The class by its standings, and by what is read for it alone, has worked on the same.
	alone := teach.New(desk, facts.Reader)
	together := must[[]store.ExerciseID](t)(alone.Worked(ctx, class, 0))
	must[store.Standings](t)(facts.ClassStandings(ctx, class))
	if got := must[[]store.ExerciseID](t)(facts.Worked(ctx, class, 0)); fmt.Sprint(got) != fmt.Sprint(together) || len(got) == 0 {
		t.Errorf("the class has worked on %v, and on %v", got, together)
	}
	clean := must[[]breakdown.Clean](t)(alone.CleanAt(ctx, class, 0, "clarinet", 0))
	if got := must[[]breakdown.Clean](t)(facts.CleanAt(ctx, class, 0, "clarinet", 0)); fmt.Sprint(got) != fmt.Sprint(clean) {
		t.Errorf("clean are %v, and %v", got, clean)
	}
}

// What was written at the desk is not remembered as it was before.
func TestWhatWasWrittenIsReadAgain(t *testing.T) {
	t.Parallel()
	ctx := context.Background()
	facts, _, class := inDemo(t)
	students := must[[]store.Student](t)(facts.Students(ctx, class))
	list := must[[]store.Exercise](t)(facts.Exercises(ctx))
	one, x := students[0], list[0]
	for what, tt := range map[string]struct {
		read  func() string
		write func() error
	}{
		"settings": {
			func() string { return must[store.Settings](t)(facts.Settings(ctx))["naming"] },
			func() error { return facts.SaveSettings(ctx, store.Settings{"naming": "solfege"}) },
		},
		"a kind": {
			func() string { return must[map[string]string](t)(facts.Models(ctx))["oboe"] },
			func() error { return facts.SaveModel(ctx, "oboe", "left-f") },
		},
		"who is there": {
			func() string { return fmt.Sprint(len(must[[]store.Student](t)(facts.Students(ctx, class)))) },
			func() error {
				_, err := facts.AddStudent(ctx, store.Student{ClassID: class, FirstName: "Nour", Instrument: "oboe"})
				return err
			},
		},
		"a fingering": {
			func() string {
				return fmt.Sprint(must[map[score.Place]finger.Spot](t)(facts.Fingerings(ctx, x.ID, "clarinet")))
			},
			func() error {
				return facts.SaveFingering(ctx, x.ID, "clarinet", score.Place{Measure: 1}, finger.Spot{Pitch: 60, Text: "1"})
			},
		},
		"a mark": {
			func() string {
				return fmt.Sprint(len(must[[]store.Attempt](t)(facts.StudentAttempts(ctx, one.ID))), must[store.Standings](t)(facts.ClassStandings(ctx, class))[store.Task{Student: one.ID, Exercise: x.ID}].Tries)
			},
			func() error {
				return facts.AddAttempts(ctx, store.Attempt{StudentID: one.ID, ExerciseID: x.ID, Chunk: x.Outline.Chunks[0], Try: routine.Try{Stage: routine.Count, Clean: true}})
			},
		},
		"an exercise": {
			func() string { return fmt.Sprint(len(must[[]store.Exercise](t)(facts.Exercises(ctx)))) },
			func() error {
				_, err := facts.AddExercise(ctx, store.Exercise{Book: "Another", Number: 1, Title: "x"}, store.Source{Format: "abc", Content: "K:C\nC4 D4|]"})
				return err
			},
		},
	} {
		before := tt.read()
		if again := tt.read(); again != before {
			t.Errorf("%s: %s, and then %s", what, before, again)
		}
		if err := tt.write(); err != nil {
			t.Fatalf("%s: %v", what, err)
		}
		if after := tt.read(); after == before {
			t.Errorf("%s is remembered as it was before: %s", what, before)
		}
	}
}

// What is known is reviewed and closes a lesson: whole lines that half of the class have done. A
// line that was chosen is what is new.
func TestWhatALessonIsMadeOf(t *testing.T) {
	t.Parallel()
	facts, desk, class := inDemo(t)
	ctx := context.Background()
	students := must[[]store.Student](t)(facts.Students(ctx, class))
	list := must[[]store.Exercise](t)(facts.Exercises(ctx))
	for _, done := range list[:2] {
		for _, student := range students {
			if err := desk.AddAttempts(ctx, store.Attempt{StudentID: student.ID, ExerciseID: done.ID, Chunk: done.Outline.Chunks[len(done.Outline.Chunks)-1], Try: routine.Try{Stage: routine.Done, Moved: true}}); err != nil {
				t.Fatal(err)
			}
		}
	}
	classes := must[[]store.Class](t)(facts.Classes(ctx))
	chosen := list[20]
	for _, wants := range []teach.LessonWants{{Minutes: 45}, {Minutes: 45, Chosen: []store.ExerciseID{chosen.ID}}} {
		plan := must[lesson.Plan](t)(teach.SuggestLesson(ctx, facts, classes[0], wants))
		phases := map[lesson.Phase][]int{}
		for _, step := range plan.Steps {
			if phases[step.Phase] = append(phases[step.Phase], step.Number); step.Phase != lesson.Close && step.Phase != lesson.Review {
				continue
			}
			line := must[lesson.Line](t)(teach.LessonLine(ctx, facts, class, store.ExerciseID(step.Exercise), must[store.Standings](t)(facts.ClassStandings(ctx, class))))
			if first := line.Chunks[0]; first.Stage() != routine.Done {
				t.Errorf("%d is in %s, and is at %s", step.Number, step.Phase, first.Stage())
			}
		}
		if len(phases[lesson.Close]) != 1 || len(phases[lesson.Review]) == 0 || len(phases[lesson.New]) == 0 {
			t.Errorf("a lesson of %+v has %v", wants, phases)
		}
		for _, number := range phases[lesson.New] {
			if len(wants.Chosen) > 0 && number != chosen.Number {
				t.Errorf("%d is new where %d was chosen", number, chosen.Number)
			}
		}
	}
}
