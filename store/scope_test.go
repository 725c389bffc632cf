package store_test

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"
	"unhurriedbench/core/instrument"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// reads asks a desk for everything it can list or find, by the ids of a fixture.
func reads(d *store.Desk, f fixture) map[string]func() (any, error) {
	ctx := context.Background()
	return map[string]func() (any, error){
		"AttemptByID":       func() (any, error) { return d.AttemptByID(ctx, f.attempt) },
		"Books":             func() (any, error) { return d.Books(ctx) },
		"ExerciseByID":      func() (any, error) { return d.ExerciseByID(ctx, f.exercise) },
		"ExerciseStandings": func() (any, error) { return spelled(d.ExerciseStandings(ctx, f.exercise, f.section)) },
		"Exercises":         func() (any, error) { return d.Exercises(ctx) },
		"Pencils":           func() (any, error) { return spelled(d.Pencils(ctx, f.exercise, "oboe")) },
		"Cuts":              func() (any, error) { return d.Cuts(ctx, f.exercise) },
		"Newest": func() (any, error) { // told by whose it is
			id, err := d.Newest(ctx)
			if err != nil {
				return nil, err
			}
			a, err := d.AttemptByID(ctx, id)
			if err != nil {
				return nil, err
			}
			return d.StudentByID(ctx, a.StudentID)
		},
		"Weeks":         func() (any, error) { return d.Weeks(ctx, f.section, time.Now().AddDate(0, 0, -20)) },
		"StandingsBy":   func() (any, error) { return spelled(d.StandingsBy(ctx, f.section, time.Now().Add(time.Hour))) },
		"Lesson":        func() (any, error) { return d.Lesson(ctx, f.lesson) },
		"Lessons":       func() (any, error) { return d.Lessons(ctx, f.section, 9) },
		"RunningLesson": func() (any, error) { return d.RunningLesson(ctx, f.section) },
		"LessonAttempts": func() (any, error) {
			return d.LessonAttempts(ctx, f.section, time.Now().Add(-time.Hour), time.Now().Add(time.Hour))
		},
		"Checkin":         func() (any, error) { return d.Checkin(ctx, f.checkin) },
		"SectionCheckins": func() (any, error) { return d.SectionCheckins(ctx, f.section) },
		"StudentCheckins": func() (any, error) { return d.StudentCheckins(ctx, f.student, 9) },
		"CheckinTries": func() (any, error) {
			own, err := f.Checkin(ctx, f.checkin)
			if err != nil {
				return nil, err
			}
			return d.CheckinTries(ctx, own)
		},
		"HomePlan":        func() (any, error) { return d.HomePlan(ctx, f.student) },
		"HomePlans":       func() (any, error) { return d.HomePlans(ctx, f.section) },
		"OwnPages":        func() (any, error) { return d.OwnPages(ctx, f.section) },
		"OwnPageOf":       func() (any, error) { return d.OwnPageOf(ctx, f.student) },
		"HomeTries":       func() (any, error) { return d.HomeTries(ctx, f.section, 0, time.Time{}) },
		"HomeTicks":       func() (any, error) { return d.HomeTicks(ctx, 0, f.student, time.Time{}) },
		"CardAnswers":     func() (any, error) { return d.CardAnswers(ctx, f.student, "flute") },
		"OtherInstrument": func() (any, error) { return d.OtherInstrument(ctx, store.Student{ID: f.student}) },
		"Routines":        func() (any, error) { return d.Routines(ctx) },
		"Rules":           func() (any, error) { return spelled(d.Rules(ctx)) },
		"StageCounts":     func() (any, error) { return d.StageCounts(ctx, f.section) },
		"HandMade": func() (any, error) {
			made, err := d.HandMade(ctx, f.exercise)
			return spelled(*made[f.exercise], err)
		},
		"Demanded":       func() (any, error) { return d.Demanded(ctx, []string{"oboe"}, f.exercise) },
		"Fingerings":     func() (any, error) { return spelled(d.Fingerings(ctx, f.exercise, "oboe")) },
		"Kinds":          func() (any, error) { return d.Kinds(ctx) },
		"LatestAttempts": func() (any, error) { return d.LatestAttempts(ctx, f.student, f.exercise, 9) },
		"NextNumber":     func() (any, error) { return d.NextNumber(ctx, f.book) },
		"Overrides":      func() (any, error) { return d.Overrides(ctx, f.exercise) },
		"OwnOutlines":    func() (any, error) { return d.OwnOutlines(ctx) },
		"Placement":      func() (any, error) { return spelled(d.Placement(ctx, f.exercise, "trombone")) },
		"Pressed": func() (any, error) {
			_, known, err := d.Pressed(ctx, store.Press("press of "+f.mark))
			return known, err
		},
		"Preferred": func() (any, error) { return d.Preferred(ctx, "oboe") },
		"Bin":       func() (any, error) { return d.Bin(ctx) },
		"Everything": func() (any, error) {
			e, err := d.Everything(ctx)
			return e, err
		},
		"Deeds": func() (any, error) {
			list, err := d.Deeds(ctx) // but for what the reads here write down
			return slices.DeleteFunc(list, func(l store.Logged) bool { return l.Deed == store.MaterialTaken }), err
		},
		"Shares":           func() (any, error) { return d.Shares(ctx) },
		"StudentsWhoLeft":  func() (any, error) { return d.StudentsWhoLeft(ctx) },
		"SectionStandings": func() (any, error) { return spelled(d.SectionStandings(ctx, f.section)) },
		"Sections":         func() (any, error) { return d.Sections(ctx) },
		"Settings":         func() (any, error) { return d.Settings(ctx) },
		"Source":           func() (any, error) { return d.Source(ctx, f.source.Hash()) },
		"SecondLine":       func() (any, error) { return d.SecondLine(ctx, f.exercise) },
		"SectionAttempts":  func() (any, error) { return spelled(d.SectionAttempts(ctx, f.section)) },
		"Ways":             func() (any, error) { return spelled(d.Ways(ctx)) },
		"StudentAttempts":  func() (any, error) { return d.StudentAttempts(ctx, f.student) },
		"StudentByID":      func() (any, error) { return d.StudentByID(ctx, f.student) },
		"StudentStandings": func() (any, error) { return spelled(d.StudentStandings(ctx, f.student)) },
		"Students":         func() (any, error) { return d.Students(ctx, f.section) },
		"Worked":           func() (any, error) { return d.Worked(ctx, f.section) },
	}
}

// spelled writes what is no plain JSON.
func spelled(v any, err error) (any, error) {
	if s, ok := v.(store.Standings); ok {
		text := map[string]string{}
		for task, standing := range s {
			text[fmt.Sprint(task)] = fmt.Sprint(*standing)
		}
		return text, err
	}
	return fmt.Sprint(v), err
}

// nothing is what a stranger may get of a read: a missing row, or what there is where
// nothing was kept.
var nothing = map[string]string{
	"NextNumber":      "1",
	"RunningLesson":   "0",
	"Pressed":         "false",
	"Placement":       `"{false 0 \u003cnil\u003e false}"`,
	"HandMade":        `"{[] map[] map[] map[] [] {0 0 0}}"`,
	"SectionAttempts": `"map[]"`,
	"Ways":            `"{map[] map[] map[]}"`,
	"Fingerings":      `"map[]"`,
	"Pencils":         `"map[]"`,
	"SecondLine":      `{"A":0,"B":0,"Entry":0}`,
}

// writes does to a fixture's rows whatever a desk can do.
func writes(d *store.Desk, f fixture) map[string]func() error {
	ctx := context.Background()
	return map[string]func() error{
		"AddAttempts":  func() error { return d.AddAttempts(ctx, f.try(true, routine.None)) },
		"AddPressed":   func() error { return d.AddPressed(ctx, "a press", f.try(true, routine.None)) },
		"AddTogether":  func() error { _, err := d.AddTogether(ctx, "", f.try(true, routine.None)); return err },
		"UndoTogether": func() error { return d.UndoTogether(ctx, f.batch) },
		"AddExercise": func() error {
			_, err := d.AddExercise(ctx, store.Exercise{Book: "Book of " + f.mark, Number: 7, Title: "added"}, f.source)
			return err
		},
		"AddExercises": func() error {
			_, err := d.AddExercises(ctx, "Book of "+f.mark, []store.Sourced{{Exercise: store.Exercise{Number: 8, Title: "added"}, Source: f.source}})
			return err
		},
		"AddSection": func() error { _, err := d.AddSection(ctx, "Added"); return err },
		"AddStudents": func() error {
			return d.AddStudents(ctx, f.section, store.Student{FirstName: "x", Instrument: "violin"})
		},
		"AddStudent": func() error {
			_, err := d.AddStudent(ctx, store.Student{SectionID: f.section, FirstName: "x", Instrument: "violin"})
			return err
		},
		"ChangeExercise": func() error {
			return d.ChangeExercise(
				ctx,
				store.Exercise{ID: f.exercise, Book: "Stolen", Number: 3, Title: "stolen"},
				store.Source{Format: "abc", Content: "stolen"},
			)
		},
		"ChangeStudent": func() error {
			return d.ChangeStudent(ctx, store.Student{ID: f.student, SectionID: f.section, FirstName: "x", Instrument: "violin"})
		},
		"KeepPencil": func() error {
			return d.KeepPencil(ctx, f.exercise, "oboe", score.Place{Event: 1}, breakdown.Pencil{Kind: breakdown.PencilArrow, Pitch: 65})
		},
		"DropPencil": func() error {
			return d.DropPencil(ctx, f.exercise, "oboe", score.Place{Event: 1}, breakdown.Pencil{Kind: breakdown.PencilWord, Word: "word of " + f.mark})
		},
		"MoveExercise":   func() error { return d.MoveExercise(ctx, f.exercise, 0) },
		"OrderByNumber":  func() error { return d.OrderByNumber(ctx, f.book) },
		"CutByHand":      func() error { return d.CutByHand(ctx, f.exercise, []breakdown.HandPiece{{Key: firstPiece}}) },
		"KeepSecondLine": func() error { return d.KeepSecondLine(ctx, store.SecondLine{A: f.exercise, Entry: 4}) },
		"DropSecondLine": func() error { return d.DropSecondLine(ctx, f.exercise) },
		"AddLesson":      func() error { _, err := d.AddLesson(ctx, f.section, lesson.Plan{Minutes: 9}); return err },
		"KeepPlan":       func() error { return d.KeepPlan(ctx, f.lesson, lesson.Plan{Minutes: 9}) },
		"BeginLesson":    func() error { return d.BeginLesson(ctx, f.lesson) },
		"AtStep":         func() error { return d.AtStep(ctx, f.lesson, 5, nil) },
		"EndLesson":      func() error { return d.EndLesson(ctx, f.lesson) },
		"DropLesson":     func() error { return d.DropLesson(ctx, f.lesson) },
		"SetCheckins":    func() error { return d.SetCheckins(ctx, store.Checkin{Student: f.student, On: time.Now()}) },
		"KeepDue":        func() error { return d.KeepDue(ctx, f.checkin, nil) },
		"DropCheckin":    func() error { return d.DropCheckin(ctx, f.checkin) },
		"MarkAtCheckin":  func() error { return d.MarkAtCheckin(ctx, "", f.checkin, f.try(true, routine.None)) },
		"EndCheckin":     func() error { return d.EndCheckin(ctx, f.checkin, "stolen", store.Checkin{}) },
		"KeepHomePlans":  func() error { return d.KeepHomePlans(ctx, homePlan(f, "stolen")) },
		"DropHomePlan":   func() error { return d.DropHomePlan(ctx, f.student) },
		"MakeOwnPages":   func() error { return d.MakeOwnPages(ctx, f.student) },
		"EndOwnPage":     func() error { return d.EndOwnPage(ctx, f.student) },
		"SetPIN":         func() error { return d.SetPIN(ctx, f.student, "1234") },
		"AddSecond":      func() error { _, err := d.AddSecond(ctx, f.student, f.section, "violin"); return err },
		"KeepSeats":      func() error { return d.KeepSeats(ctx, f.section, [][]store.StudentID{{f.student}}) },
		"KeepRoutine": func() error {
			_, err := d.KeepRoutine(ctx, routine.Named{ID: f.routine, Title: "stolen", Steps: routine.Standard()})
			return err
		},
		"DropRoutine":   func() error { return d.DropRoutine(ctx, f.routine) },
		"ChooseRoutine": func() error { return d.ChooseRoutine(ctx, store.Chooser{Section: f.section}, "name-first") },
		"KeepRule":      func() error { return d.KeepRule(ctx, f.student, routine.Rule{Clean: 5}) },
		"KeepNote":      func() error { return d.KeepNote(ctx, f.student, "stolen") },
		"BringRoster": func() error {
			return d.BringRoster(ctx, []store.RosterChange{{Student: store.Student{ID: f.student, SectionID: f.section, FirstName: "stolen", Instrument: "violin"}}})
		},
		"KeepSectionLine": func() error { return d.KeepSectionLine(ctx, f.section, "A") },
		"KeepStudentLine": func() error { return d.KeepStudentLine(ctx, f.student, "A") },
		"DropFingerings":  func() error { return d.DropFingerings(ctx, f.exercise, "oboe", 65) },
		"DropOverride":    func() error { return d.DropOverride(ctx, f.exercise, "horn-f") },
		"BringIn":         func() error { _, err := d.BringIn(ctx, store.Everything{}); return err },
		"EraseOverdue":    func() error { _, err := d.EraseOverdue(ctx); return err },
		"GiveSection":     func() error { return d.GiveSection(ctx, f.section, f.colleague, true) },
		"HasLeft":         func() error { return d.HasLeft(ctx, f.student) },
		"IsBack":          func() error { return d.IsBack(ctx, f.student) },
		"TakeSectionBack": func() error { return d.TakeSectionBack(ctx, f.section, f.colleague) },
		"KeepFingering": func() error {
			return d.KeepFingering(ctx, f.exercise, "oboe", score.Place{Event: 1}, finger.Spot{Pitch: 65, Text: "stolen"})
		},
		"KeepKind": func() error { return d.KeepKind(ctx, "oboe", "") },
		"KeepOverrides": func() error {
			return d.KeepOverrides(ctx, f.exercise, store.OwnPart{Instrument: "horn-f", Source: store.Source{Format: "abc", Content: "stolen"}})
		},
		"KeepPlacement": func() error {
			return d.KeepPlacement(ctx, f.exercise, "trombone", instrument.Placement{Chosen: true, Octaves: -2})
		},
		"KeepReading": func() error {
			return d.KeepReading(ctx, f.exercise, 2, store.Reading{Unread: "stolen"})
		},
		"KeepSchool":   func() error { return d.KeepSchool(ctx, f.section, "stolen") },
		"KeepSettings": func() error { return d.KeepSettings(ctx, store.Settings{"two": ""}) },
		"KeepYear":     func() error { return d.KeepYear(ctx, f.section, 3) },
		"Prefer":       func() error { return d.Prefer(ctx, "oboe", 65, "") },
		"TakeAway": func() error {
			return each(func(what store.Thing, id int64) error { return d.TakeAway(ctx, what, id) }, f)
		},
		"PutBack": func() error {
			return each(func(what store.Thing, id int64) error { return d.PutBack(ctx, what, id) }, f)
		},
		"Erase":       func() error { return each(func(what store.Thing, id int64) error { return d.Erase(ctx, what, id) }, f) },
		"UndoAttempt": func() error { _, err := d.UndoAttempt(ctx, f.attempt); return err },
	}
}

// each does something to one of every kind of thing, and gives an error that is not
// ErrNotFound, or that.
func each(do func(store.Thing, int64) error, f fixture) error {
	var err error
	for what, id := range map[store.Thing]int64{
		store.AnExercise: int64(f.exercise), store.ABook: int64(f.book), store.ASection: int64(f.section), store.AStudent: int64(f.student),
	} {
		if err = do(what, id); !errors.Is(err, store.ErrNotFound) {
			return fmt.Errorf("%s: %v", what, err)
		}
	}
	return err
}

// mayPass are the writes that name no row of another's: they change the stranger's own.
var mayPass = map[string]bool{
	"AddExercise": true, "AddExercises": true, "AddSection": true, "BringIn": true, "EraseOverdue": true, "KeepKind": true, "KeepSettings": true, "Prefer": true,
	"DropFingerings": true, "DropSecondLine": true, "KeepReading": true, // which find nothing to do
}

// picture is all that a teacher has, as JSON by method.
func picture(t *testing.T, f fixture) map[string]string {
	t.Helper()
	seen := map[string]string{}
	for name, read := range reads(f.Desk, f) {
		got, err := read()
		if err != nil {
			t.Fatalf("%s of one's own: %v", name, err)
		}
		text, err := json.Marshal(got)
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		seen[name] = string(text)
	}
	return seen
}

// Two teachers have one of everything. Every method of a desk is called with the
// other's ids: it finds nothing, and changes nothing of theirs. A new method without
// a case fails.
func TestADeskSeesNothingElse(t *testing.T) {
	t.Parallel()
	s := testdb.Open(t)
	mine, stranger := addMore(t, s, "owner"), addMore(t, s, "stranger")
	for _, f := range []fixture{mine, stranger} { // an exercise that nobody has read yet
		if _, err := f.AddExercise(context.Background(), store.Exercise{Book: "Book of " + f.mark, Number: 5, Title: f.mark}, f.source); err != nil {
			t.Fatal(err)
		}
		gone, err := f.AddExercise(context.Background(), store.Exercise{Book: "Book of " + f.mark, Number: 9, Title: "off the shelf of " + f.mark}, f.source)
		if err == nil {
			err = f.TakeAway(context.Background(), store.AnExercise, int64(gone))
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	together, err := mine.AddTogether(context.Background(), store.Press("press of "+mine.mark), mine.try(true, routine.None))
	if err != nil {
		t.Fatal(err)
	}
	mine.batch = together
	colleague, err := s.AddTeacher(context.Background(), "colleague@school.example", "Colleague", "", "a long password")
	if err != nil {
		t.Fatal(err)
	}
	mine.colleague = colleague.ID
	if err := mine.GiveSection(context.Background(), mine.section, colleague.ID, false); err != nil {
		t.Fatal(err)
	}
	gone, err := mine.AddStudent(context.Background(), store.Student{SectionID: mine.section, FirstName: "Wim, who left " + mine.mark, Instrument: "flute"})
	if err == nil {
		err = mine.HasLeft(context.Background(), gone)
	}
	if err != nil {
		t.Fatal(err)
	}
	before := picture(t, mine)
	for name, text := range before {
		if name != "CleanAt" && text == "null" || text == "[]" && name != "CleanAt" || text == "{}" || text == nothing[name] {
			t.Errorf("%s finds nothing of one's own: %s", name, text)
		}
		if strings.Contains(text, "stranger") {
			t.Errorf("%s has another teacher's rows: %s", name, text)
		}
	}
	known := map[string]bool{"Routine": true, "Guest": true, "Written": true}
	for name, read := range reads(stranger.Desk, mine) {
		known[name] = true
		got, err := read()
		text, _ := json.Marshal(got)
		switch {
		case errors.Is(err, store.ErrNotFound):
		case err != nil:
			t.Errorf("%s of another's gives %v", name, err)
		case strings.Contains(string(text), "owner"):
			t.Errorf("%s finds another's: %s", name, text)
		case strings.Contains(string(text), "stranger"): // a list of the stranger's own
		case string(text) == "null" || string(text) == "[]" || string(text) == "{}" || string(text) == nothing[name]:
		default:
			t.Errorf("%s finds something of another's: %s", name, text)
		}
	}
	for name, write := range writes(stranger.Desk, mine) {
		known[name] = true
		if err := write(); !errors.Is(err, store.ErrNotFound) && !(mayPass[name] && err == nil) {
			t.Errorf("%s on another's gives %v", name, err)
		}
		for read, text := range picture(t, mine) {
			if text != before[read] {
				t.Errorf("%s by a stranger changes what %s finds:\nfrom %s\nto   %s", name, read, before[read], text)
				before[read] = text
			}
		}
	}
	desk := reflect.TypeFor[*store.Desk]()
	for i := range desk.NumMethod() {
		if name := desk.Method(i).Name; !known[name] {
			t.Errorf("%s has no case here", name)
		}
	}
	// What mixes one's own rows with another's is refused too.
	ctx := context.Background()
	mixed := stranger.try(true, routine.None)
	mixed.ExerciseID = mine.exercise
	for what, err := range map[string]error{
		"a try at another's exercise": stranger.AddAttempts(ctx, mixed),
		"a move into another's section": stranger.ChangeStudent(ctx,
			store.Student{ID: stranger.student, SectionID: mine.section, FirstName: "x", Instrument: "violin"}),
	} {
		if !errors.Is(err, store.ErrNotFound) {
			t.Errorf("%s gives %v", what, err)
		}
	}
}
