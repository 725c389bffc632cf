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
		"ExerciseStandings": func() (any, error) { return spelled(d.ExerciseStandings(ctx, f.exercise, f.class)) },
		"Exercises":         func() (any, error) { return d.Exercises(ctx) },
		"Annotations":       func() (any, error) { return spelled(d.Annotations(ctx, f.exercise, "oboe")) },
		"HandChunks":        func() (any, error) { return d.HandChunks(ctx, f.exercise) },
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
		"Weeks":         func() (any, error) { return d.Weeks(ctx, f.class, time.Now().AddDate(0, 0, -20)) },
		"StandingsBy":   func() (any, error) { return spelled(d.StandingsBy(ctx, f.class, time.Now().Add(time.Hour))) },
		"Lesson":        func() (any, error) { return d.Lesson(ctx, f.lesson) },
		"Lessons":       func() (any, error) { return d.Lessons(ctx, f.class, 9) },
		"RunningLesson": func() (any, error) { return d.RunningLesson(ctx, f.class) },
		"LessonAttempts": func() (any, error) {
			return d.LessonAttempts(ctx, f.class, time.Now().Add(-time.Hour), time.Now().Add(time.Hour))
		},
		"Checkin":         func() (any, error) { return d.Checkin(ctx, f.checkin) },
		"ClassCheckins":   func() (any, error) { return d.ClassCheckins(ctx, f.class) },
		"StudentCheckins": func() (any, error) { return d.StudentCheckins(ctx, f.student, 9) },
		"CheckinTries": func() (any, error) {
			own, err := f.Checkin(ctx, f.checkin)
			if err != nil {
				return nil, err
			}
			return d.CheckinTries(ctx, own)
		},
		"HomePlan":        func() (any, error) { return d.HomePlan(ctx, f.student) },
		"HomePlans":       func() (any, error) { return d.HomePlans(ctx, f.class) },
		"OwnPages":        func() (any, error) { return d.OwnPages(ctx, f.class) },
		"OwnPageOf":       func() (any, error) { return d.OwnPageOf(ctx, f.student) },
		"HomeTries":       func() (any, error) { return d.HomeTries(ctx, f.class, 0, time.Time{}) },
		"HomeTicks":       func() (any, error) { return d.HomeTicks(ctx, 0, f.student, time.Time{}) },
		"CardAnswers":     func() (any, error) { return d.CardAnswers(ctx, f.student, "flute") },
		"OtherInstrument": func() (any, error) { return d.OtherInstrument(ctx, store.Student{ID: f.student}) },
		"Routines":        func() (any, error) { return d.Routines(ctx) },
		"Rules":           func() (any, error) { return spelled(d.Rules(ctx)) },
		"EarnedCounts":    func() (any, error) { return d.EarnedCounts(ctx, f.class) },
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
		"OctaveChoice":   func() (any, error) { return spelled(d.OctaveChoice(ctx, f.exercise, "trombone")) },
		"Pressed": func() (any, error) {
			_, known, err := d.Pressed(ctx, store.RequestKey("press of "+f.mark))
			return known, err
		},
		"Preferred": func() (any, error) { return d.Preferred(ctx, "oboe") },
		"Trash":     func() (any, error) { return d.Trash(ctx) },
		"Everything": func() (any, error) {
			e, err := d.Everything(ctx)
			return e, err
		},
		"Activity": func() (any, error) {
			list, err := d.Activity(ctx) // but for what the reads here write down
			return slices.DeleteFunc(list, func(l store.LogEntry) bool { return l.Action == store.MaterialExported }), err
		},
		"Shares":           func() (any, error) { return d.Shares(ctx) },
		"GroupMembers":     func() (any, error) { list, err := d.GroupMembers(ctx); return list[f.group], err },
		"StudentsWhoLeft":  func() (any, error) { return d.StudentsWhoLeft(ctx) },
		"ClassStandings":   func() (any, error) { return spelled(d.ClassStandings(ctx, f.class)) },
		"Classes":          func() (any, error) { return d.Classes(ctx) },
		"Settings":         func() (any, error) { return d.Settings(ctx) },
		"SpokenWords":      func() (any, error) { return d.SpokenWords(ctx) },
		"RecordedWords":    func() (any, error) { return d.RecordedWords(ctx) },
		"Source":           func() (any, error) { return d.Source(ctx, f.source.Hash()) },
		"DuetPart":         func() (any, error) { return d.DuetPart(ctx, f.exercise) },
		"RecentAttempts":   func() (any, error) { return spelled(d.RecentAttempts(ctx, f.class, time.Time{})) },
		"ClassAttempts":    func() (any, error) { return spelled(d.ClassAttempts(ctx, f.class)) },
		"Ways":             func() (any, error) { return spelled(d.Ways(ctx)) },
		"StudentAttempts":  func() (any, error) { return d.StudentAttempts(ctx, f.student) },
		"StudentByID":      func() (any, error) { return d.StudentByID(ctx, f.student) },
		"StudentStandings": func() (any, error) { return spelled(d.StudentStandings(ctx, f.student)) },
		"Students":         func() (any, error) { return d.Students(ctx, f.class) },
		"Worked":           func() (any, error) { return d.Worked(ctx, f.class) },
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
	"NextNumber":    "1",
	"RunningLesson": "0",
	"Pressed":       "false",
	"OctaveChoice":  `"{false 0 \u003cnil\u003e false}"`,
	"HandMade":      `"{[] map[] map[] map[] [] {0 0 0}}"`,
	"ClassAttempts": `"map[]"`, "RecentAttempts": `"[]"`,
	"Ways":        `"{map[] map[] map[]}"`,
	"Fingerings":  `"map[]"`,
	"Annotations": `"map[]"`,
	"DuetPart":    `{"A":0,"B":0,"Entry":0}`,
}

// writes does to a fixture's rows whatever a desk can do.
func writes(d *store.Desk, f fixture) map[string]func() error {
	ctx := context.Background()
	return map[string]func() error{
		"AddAttempts":  func() error { return d.AddAttempts(ctx, f.try(true, routine.None)) },
		"AddOnce":      func() error { return d.AddOnce(ctx, "a press", f.try(true, routine.None)) },
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
		"AddClass": func() error { _, err := d.AddClass(ctx, "Added"); return err },
		"AddStudents": func() error {
			return d.AddStudents(ctx, f.class, store.Student{FirstName: "x", Instrument: "violin"})
		},
		"AddStudent": func() error {
			_, err := d.AddStudent(ctx, store.Student{ClassID: f.class, FirstName: "x", Instrument: "violin"})
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
			return d.ChangeStudent(ctx, store.Student{ID: f.student, ClassID: f.class, FirstName: "x", Instrument: "violin"})
		},
		"SaveAnnotation": func() error {
			return d.SaveAnnotation(ctx, f.exercise, "oboe", score.Place{Event: 1}, breakdown.Annotation{Kind: breakdown.AnnotationArrow, Pitch: 65})
		},
		"SaveAnnotations": func() error {
			return d.SaveAnnotations(ctx, f.exercise, "oboe", map[score.Place]breakdown.Annotation{{Event: 1}: {Kind: breakdown.AnnotationSign, Word: "♮", Pitch: 65}})
		},
		"DeleteAnnotations": func() error {
			return d.DeleteAnnotations(ctx, f.exercise, "oboe", map[score.Place]breakdown.Annotation{{Event: 1}: {Kind: breakdown.AnnotationWord, Word: "word of " + f.mark}})
		},
		"DeleteAnnotation": func() error {
			return d.DeleteAnnotation(ctx, f.exercise, "oboe", score.Place{Event: 1}, breakdown.Annotation{Kind: breakdown.AnnotationWord, Word: "word of " + f.mark})
		},
		"MoveExercise":        func() error { return d.MoveExercise(ctx, f.exercise, 0) },
		"OrderByNumber":       func() error { return d.OrderByNumber(ctx, f.book) },
		"SaveHandChunks":      func() error { return d.SaveHandChunks(ctx, f.exercise, []breakdown.HandChunk{{Key: firstChunk}}) },
		"SaveDuetPart":        func() error { return d.SaveDuetPart(ctx, store.DuetPart{A: f.exercise, Entry: 4}) },
		"DeleteDuetPart":      func() error { return d.DeleteDuetPart(ctx, f.exercise) },
		"AddLesson":           func() error { _, err := d.AddLesson(ctx, f.class, lesson.Plan{Minutes: 9}); return err },
		"SavePlan":            func() error { return d.SavePlan(ctx, f.lesson, lesson.Plan{Minutes: 9}) },
		"BeginLesson":         func() error { return d.BeginLesson(ctx, f.lesson) },
		"AtStep":              func() error { return d.AtStep(ctx, f.lesson, 5, nil) },
		"EndLesson":           func() error { return d.EndLesson(ctx, f.lesson) },
		"AddHeldLesson":       func() error { _, err := d.AddHeldLesson(ctx, store.Lesson{Class: f.class}); return err },
		"SaveAudience":        func() error { return d.SaveAudience(ctx, f.exercise, nil) },
		"AddGroup":            func() error { _, err := d.AddGroup(ctx, f.class, "Low", nil); return err },
		"ChangeGroup":         func() error { return d.ChangeGroup(ctx, f.group, "High", nil) },
		"SaveShape":           func() error { return d.SaveShape(ctx, f.class, lesson.Shape{Scale: true}) },
		"DeleteLesson":        func() error { return d.DeleteLesson(ctx, f.lesson) },
		"SetCheckins":         func() error { return d.SetCheckins(ctx, store.Checkin{Student: f.student, On: time.Now()}) },
		"SaveDue":             func() error { return d.SaveDue(ctx, f.checkin, nil) },
		"DeleteCheckin":       func() error { return d.DeleteCheckin(ctx, f.checkin) },
		"MarkAtCheckin":       func() error { return d.MarkAtCheckin(ctx, "", f.checkin, f.try(true, routine.None)) },
		"EndCheckin":          func() error { return d.EndCheckin(ctx, f.checkin, "stolen", store.Checkin{}) },
		"SaveHomePlans":       func() error { return d.SaveHomePlans(ctx, homePlan(f, "stolen")) },
		"DeleteHomePlan":      func() error { return d.DeleteHomePlan(ctx, f.student) },
		"MakeOwnPages":        func() error { return d.MakeOwnPages(ctx, f.student) },
		"EndOwnPage":          func() error { return d.EndOwnPage(ctx, f.student) },
		"SetPIN":              func() error { return d.SetPIN(ctx, f.student, "1234") },
		"AddSecondInstrument": func() error { _, err := d.AddSecondInstrument(ctx, f.student, f.class, "violin"); return err },
		"SaveSeats":           func() error { return d.SaveSeats(ctx, f.class, [][]store.StudentID{{f.student}}) },
		"SaveRoutine": func() error {
			_, err := d.SaveRoutine(ctx, routine.Named{ID: f.routine, Title: "stolen", Steps: routine.Standard()})
			return err
		},
		"DeleteRoutine": func() error { return d.DeleteRoutine(ctx, f.routine) },
		"ChooseRoutine": func() error { return d.ChooseRoutine(ctx, store.Chooser{Class: f.class}, "name-first") },
		"SaveRule":      func() error { return d.SaveRule(ctx, f.student, routine.Rule{Clean: 5}) },
		"SaveNote":      func() error { return d.SaveNote(ctx, f.student, "stolen") },
		"BringRoster": func() error {
			return d.BringRoster(ctx, []store.RosterChange{{Student: store.Student{ID: f.student, ClassID: f.class, FirstName: "stolen", Instrument: "violin"}}})
		},
		"SaveClassDuetPart":   func() error { return d.SaveClassDuetPart(ctx, f.class, "A") },
		"SaveStudentDuetPart": func() error { return d.SaveStudentDuetPart(ctx, f.student, "A") },
		"DeleteFingerings":    func() error { return d.DeleteFingerings(ctx, f.exercise, "oboe", 65) },
		"DeleteOverride":      func() error { return d.DeleteOverride(ctx, f.exercise, "horn-f") },
		"Import":              func() error { _, err := d.Import(ctx, store.Everything{}); return err },
		"EraseOverdue":        func() error { _, err := d.EraseOverdue(ctx); return err },
		"ShareClass":          func() error { return d.ShareClass(ctx, f.class, f.colleague, true) },
		"HasLeft":             func() error { return d.HasLeft(ctx, f.student) },
		"IsBack":              func() error { return d.IsBack(ctx, f.student) },
		"StopSharing":         func() error { return d.StopSharing(ctx, f.class, f.colleague) },
		"SaveFingering": func() error {
			return d.SaveFingering(ctx, f.exercise, "oboe", score.Place{Event: 1}, finger.Spot{Pitch: 65, Text: "stolen"})
		},
		"SaveModel": func() error { return d.SaveModel(ctx, "oboe", "") },
		"SaveOverrides": func() error {
			return d.SaveOverrides(ctx, f.exercise, store.OwnPart{Instrument: "horn-f", Source: store.Source{Format: "abc", Content: "stolen"}})
		},
		"SaveOctaveChoice": func() error {
			return d.SaveOctaveChoice(ctx, f.exercise, "trombone", instrument.OctaveChoice{Chosen: true, Octaves: -2})
		},
		"SaveReading": func() error {
			return d.SaveReading(ctx, f.exercise, 2, store.Reading{Unread: "stolen"})
		},
		"SaveSchool":   func() error { return d.SaveSchool(ctx, f.class, "stolen") },
		"SaveSettings": func() error { return d.SaveSettings(ctx, store.Settings{"two": ""}) },
		"SaveSpokenWords": func() error {
			return d.SaveSpokenWords(ctx, []store.SpokenWord{{Word: "one of " + f.mark, Sound: []byte("stolen")}})
		},
		"DeleteSpokenWords": func() error { return d.DeleteSpokenWords(ctx) },
		"SaveYear":          func() error { return d.SaveYear(ctx, f.class, 3) },
		"Prefer":            func() error { return d.Prefer(ctx, "oboe", 65, "") },
		"MoveToTrash": func() error {
			return each(func(what store.TrashKind, id int64) error { return d.MoveToTrash(ctx, what, id) }, f)
		},
		"Restore": func() error {
			return each(func(what store.TrashKind, id int64) error { return d.Restore(ctx, what, id) }, f)
		},
		"Erase": func() error {
			return each(func(what store.TrashKind, id int64) error { return d.Erase(ctx, what, id) }, f)
		},
		"UndoAttempt": func() error { _, err := d.UndoAttempt(ctx, f.attempt); return err },
	}
}

// each does something to one of every kind of thing, and gives an error that is not
// ErrNotFound, or that.
func each(do func(store.TrashKind, int64) error, f fixture) error {
	var err error
	for what, id := range map[store.TrashKind]int64{
		store.TrashExercise: int64(f.exercise), store.TrashBook: int64(f.book), store.TrashClass: int64(f.class), store.TrashStudent: int64(f.student),
	} {
		if err = do(what, id); !errors.Is(err, store.ErrNotFound) {
			return fmt.Errorf("%s: %v", what, err)
		}
	}
	return err
}

// mayPass are the writes that name no row of another's: they change the stranger's own.
var mayPass = map[string]bool{
	"AddExercise": true, "AddExercises": true, "AddClass": true, "Import": true, "EraseOverdue": true, "SaveModel": true, "SaveSettings": true, "Prefer": true,
	"SaveSpokenWords": true, "DeleteSpokenWords": true,
	"DeleteFingerings": true, "DeleteDuetPart": true, "SaveReading": true, // which find nothing to do
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
// other's ids: it finds nothing, and changes nothing that is the other teacher's. A new method without
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
			err = f.MoveToTrash(context.Background(), store.TrashExercise, int64(gone))
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	together, err := mine.AddTogether(context.Background(), store.RequestKey("press of "+mine.mark), mine.try(true, routine.None))
	if err != nil {
		t.Fatal(err)
	}
	mine.batch = together
	colleague, err := s.AddTeacher(context.Background(), "colleague@school.example", "Colleague", "", "a long password")
	if err != nil {
		t.Fatal(err)
	}
	mine.colleague = colleague.ID
	if err := mine.ShareClass(context.Background(), mine.class, colleague.ID, false); err != nil {
		t.Fatal(err)
	}
	gone, err := mine.AddStudent(context.Background(), store.Student{ClassID: mine.class, FirstName: "Wim, who left " + mine.mark, Instrument: "flute"})
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
	known := map[string]bool{"Routine": true, "Guest": true, "Written": true, "Marker": true, "Zone": true}
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
		"a move into another's class": stranger.ChangeStudent(ctx,
			store.Student{ID: stranger.student, ClassID: mine.class, FirstName: "x", Instrument: "violin"}),
	} {
		if !errors.Is(err, store.ErrNotFound) {
			t.Errorf("%s gives %v", what, err)
		}
	}
}
