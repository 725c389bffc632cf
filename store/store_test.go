package store_test

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"
	"unhurriedbench/core/instrument"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/card"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/homeplan"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/reading"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// fixture is a teacher with one of everything, each bearing the teacher's mark.
type fixture struct {
	*store.Desk
	mark     string
	teacher  store.TeacherID
	book     store.BookID
	exercise store.ExerciseID
	source   store.Source
	class    store.ClassID
	group    store.ClassID
	student  store.StudentID
	attempt  store.AttemptID
	batch    store.BatchID

	colleague store.TeacherID // to whom the class is given
	routine   string          // of their own
	lesson    store.LessonID
	checkin   store.CheckinID
}

// firstChunk is the chunk that attempts are at.
var firstChunk = breakdown.ChunkKey{First: 1, Last: 2}

func add(t *testing.T, s *store.Store, mark string) fixture {
	t.Helper()
	ctx := context.Background()
	fail := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	teacher, err := s.AddTeacher(ctx, mark+"@school.example", mark, "B", "a long password")
	fail(err)
	f := fixture{
		Desk:    s.For(teacher.ID),
		mark:    mark,
		teacher: teacher.ID,
		source:  store.Source{Format: "abc", Content: "T:" + mark + "\nK:C\nC8|]"},
	}
	f.exercise, err = f.AddExercise(ctx, store.Exercise{Book: "Book of " + mark, Number: 1, Title: mark + "'s Lamp"}, f.source)
	fail(err)
	x, err := f.ExerciseByID(ctx, f.exercise)
	fail(err)
	f.book = x.BookID
	fail(
		f.SaveOverrides(
			ctx,
			f.exercise,
			store.OwnPart{Instrument: "horn-f", Source: store.Source{Format: "abc", Content: "T:own of " + mark + "\nK:F\nF8|]"}},
		),
	)
	fail(f.SaveReading(ctx, f.exercise, 2, f.reading()))
	f.class, err = f.AddClass(ctx, "Tuesday of "+mark)
	fail(err)
	f.student, err = f.AddStudent(ctx, store.Student{ClassID: f.class, FirstName: "Ines of " + mark, Initial: "P", Instrument: "trombone"})
	fail(err)
	f.group, err = f.AddGroup(ctx, f.class, "Low of "+mark, []store.StudentID{f.student})
	fail(err)
	f.attempt = f.log(t, f.try(true, routine.None))
	fail(f.SaveOctaveChoice(ctx, f.exercise, "trombone", instrument.OctaveChoice{Chosen: true, Octaves: 1}))
	fail(f.SaveFingering(ctx, f.exercise, "oboe", score.Place{Event: 1}, finger.Spot{Pitch: 65, Text: "place of " + mark}))
	fail(f.Prefer(ctx, "oboe", 65, "note of "+mark))
	fail(f.SaveAnnotation(ctx, f.exercise, "oboe", score.Place{Event: 1}, breakdown.Annotation{Kind: breakdown.AnnotationWord, Word: "word of " + mark, Pitch: 65}))
	fail(f.SaveDuetPart(ctx, store.DuetPart{A: f.exercise, Entry: 2}))
	fail(f.SaveClassDuetPart(ctx, f.class, "B"))
	fail(f.SaveHandChunks(ctx, f.exercise, []breakdown.HandChunk{{Key: firstChunk, Why: "cut of " + mark}, {Key: breakdown.ChunkKey{First: 3, Last: 4}}, {Key: breakdown.ChunkKey{First: 1, Last: 4}}}))
	fail(f.SaveSettings(ctx, store.Settings{"two": "two of " + mark}))
	fail(f.SaveSpokenWords(ctx, []store.SpokenWord{{Word: "one of " + mark, Vowel: 0.1, Sound: []byte("sound of " + mark)}}))
	fail(f.SaveModel(ctx, "oboe", "kind of "+mark))
	f.lesson, err = f.AddLesson(ctx, f.class, lesson.Plan{Minutes: 30, Steps: []lesson.Step{{Exercise: int64(f.exercise), Title: "lesson of " + mark, Times: 1}}})
	fail(err)
	fail(f.BeginLesson(ctx, f.lesson))
	f.routine, err = f.SaveRoutine(ctx, routine.Named{Title: "routine of " + mark, Steps: routine.Standard()})
	fail(err)
	fail(f.ChooseRoutine(ctx, store.Chooser{Instrument: "flute"}, f.routine))
	return f
}

// homePlan is a plan of the fixture's student with one line.
func homePlan(f fixture, title string) store.HomePlan {
	day := time.Date(2026, 12, 1, 0, 0, 0, 0, time.UTC)
	return store.HomePlan{Student: f.student, From: day, Until: day.AddDate(0, 0, 7), Weekdays: []int{1, 4}, Minutes: 15, Changed: map[string]int{"2026-12-03": 5},
		Plan: homeplan.Plan{Days: []homeplan.Planned{{Day: homeplan.Day{On: 20788, Minutes: 15}, Items: []homeplan.Item{{Kind: homeplan.Work, Step: lesson.Step{Exercise: int64(f.exercise), Title: title, Times: 1}, Halves: 1, Why: "due"}}}}}}
}

// addMore is add with a second instrument for the student, and a check-in at which a try is
// marked.
func addMore(t *testing.T, s *store.Store, mark string) fixture {
	t.Helper()
	ctx := context.Background()
	f := add(t, s, mark)
	_, err := f.AddSecondInstrument(ctx, f.student, f.class, "euphonium")
	if err == nil {
		err = f.SetCheckins(ctx, store.Checkin{Student: f.student, On: time.Now(), Due: []lesson.Step{{Exercise: int64(f.exercise), Title: "due of " + mark, Times: 1}}})
	}
	if err != nil {
		t.Fatal(err)
	}
	checkins, err := f.StudentCheckins(ctx, f.student, 1)
	if err != nil {
		t.Fatal(err)
	}
	f.checkin = checkins[0].ID
	if err := f.SaveHomePlans(ctx, homePlan(f, "plan of "+mark)); err != nil {
		t.Fatal(err)
	}
	if err := f.MarkAtCheckin(ctx, "", f.checkin, f.try(true, routine.None)); err != nil {
		t.Fatal(err)
	}
	f.openOwnPage(t, s)
	return f
}

// openOwnPage gives the fixture's student a page of their own, with what they say and do
// there.
func (f fixture) openOwnPage(t *testing.T, s *store.Store) store.AtHome {
	t.Helper()
	ctx := context.Background()
	if err := f.MakeOwnPages(ctx, f.student); err != nil {
		t.Fatal(err)
	}
	page, err := f.OwnPageOf(ctx, f.student)
	if err != nil {
		t.Fatal(err)
	}
	home, err := s.AtHome(ctx, page.Key)
	if err != nil {
		t.Fatal(err)
	}
	for _, err := range []error{
		home.Say(ctx, f.homeTry("said by "+f.mark)),
		home.Tick(ctx, store.HomeTick{On: time.Date(2026, 12, 1, 0, 0, 0, 0, time.UTC), Line: "line of " + f.mark}),
		home.AnswerCards(ctx, f.cardAnswer("card of "+f.mark)),
	} {
		if err != nil {
			t.Fatal(err)
		}
	}
	return home
}

// homeTry is what the fixture's student says of a try at home.
func (f fixture) homeTry(key string) store.HomeTry {
	return store.HomeTry{Exercise: f.exercise, Chunk: firstChunk, Try: routine.Try{Stage: routine.Count, Clean: true}, Beside: store.Better, Changed: "of " + f.mark, At: time.Now(), RequestKey: store.RequestKey(key)}
}

// cardAnswer is a student's answer to a card.
func (f fixture) cardAnswer(key string) store.CardAnswer {
	return store.CardAnswer{Instrument: "flute", Answered: card.Answered{Card: "name:of " + f.mark, Grade: card.Right, Millis: 2000, At: time.Now()}, RequestKey: store.RequestKey(key)}
}

func (f fixture) reading() store.Reading {
	outline := func(of string) breakdown.Outline {
		return breakdown.Outline{Signatures: of + f.mark, Measures: 4, Chunks: []breakdown.ChunkKey{firstChunk, {First: 3, Last: 4}, {First: 1, Last: 4}}}
	}
	return store.Reading{
		FileParts: 1, Outlines: map[string]breakdown.Outline{"": outline("signatures of "), "horn-f": outline("own signatures of ")},
		Demands: map[string]breakdown.Demands{"oboe": {Elements: []breakdown.Element{"meter:4/4", "F4", breakdown.Element("way:65:" + f.mark), "Bb4"}, Parts: breakdown.DifficultyParts{Rhythm: 0.25, Breath: 0.5}}},
	}
}

func (f fixture) try(clean bool, cause routine.Cause) store.Attempt {
	return store.Attempt{
		StudentID:  f.student,
		ExerciseID: f.exercise,
		Chunk:      firstChunk,
		Try:        routine.Try{Stage: routine.Count, Clean: clean, Cause: cause},
		Tempo:      60,
	}
}

// log adds an attempt and returns its id.
func (f fixture) log(t *testing.T, a store.Attempt) store.AttemptID {
	t.Helper()
	if err := f.AddAttempts(context.Background(), a); err != nil {
		t.Fatal(err)
	}
	log, err := f.StudentAttempts(context.Background(), f.student)
	if err != nil {
		t.Fatal(err)
	}
	return log[0].ID
}

// at is where the fixture's student stands on a chunk.
func (f fixture) at(t *testing.T, chunk breakdown.ChunkKey) routine.State {
	t.Helper()
	standings, err := f.ClassStandings(context.Background(), f.class)
	if err != nil {
		t.Fatal(err)
	}
	standing := standings[store.Task{Student: f.student, Exercise: f.exercise}]
	return standing.State(f.Routine(), chunk)
}

func TestPasswords(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "Wren")
	got, err := s.CheckPassword(ctx, "wren@school.EXAMPLE", "a long password")
	if err != nil || got.ID != f.teacher {
		t.Errorf("the right password gives %v, %v", got.ID, err)
	}
	if strings.Contains(got.PasswordHash, "long") {
		t.Error("the password is kept in clear")
	}
	for _, try := range [][2]string{{"wren@school.example", "another password"}, {"nobody@school.example", "a long password"}, {"", ""}} {
		if _, err := s.CheckPassword(ctx, try[0], try[1]); !errors.Is(err, store.ErrWrongPassword) {
			t.Errorf("%s with %q gives %v", try[0], try[1], err)
		}
	}
	if _, err := s.AddTeacher(ctx, "WREN@school.example", "x", "x", "a long password"); !errors.Is(err, store.ErrTaken) {
		t.Errorf("a second account with the address gives %v", err)
	}
	if _, err := s.DemoTeacher(ctx); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("without a demo there is a demo teacher: %v", err)
	}
	demo, err := s.AddDemoTeacher(ctx, "demo@school.example", "Demo", "")
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.CheckPassword(ctx, demo.Email, ""); !errors.Is(err, store.ErrWrongPassword) {
		t.Errorf("the demo account takes an empty password: %v", err)
	}
	if all, err := s.Teachers(ctx); err != nil || len(all) != 2 || all[1] != demo.ID {
		t.Errorf("the teachers are %v, %v", all, err)
	}
}

func TestExercises(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	x, err := f.ExerciseByID(ctx, f.exercise)
	if err != nil || x.Book != "Book of a" || x.Number != 1 || x.Format != "abc" || x.Hash != f.source.Hash() {
		t.Fatalf("the exercise is %+v, %v", x, err)
	}
	if _, err := f.AddExercise(ctx, x, f.source); !errors.Is(err, store.ErrTaken) {
		t.Errorf("a second number 1 gives %v", err)
	}
	if n, err := f.NextNumber(ctx, f.book); err != nil || n != 2 {
		t.Errorf("the next number is %d, %v", n, err)
	}
	broken := x
	broken.Book, broken.Number = "A Book That Must Not Stay", 0 // not a number the table takes
	if _, err := f.AddExercise(ctx, broken, f.source); err == nil {
		t.Error("an exercise with number 0 was taken")
	}
	if books, err := f.Books(ctx); err != nil || len(books) != 1 {
		t.Errorf("a refused exercise leaves %d books, %v", len(books), err)
	}
	x.Title = "Second Lamp"
	if err := f.ChangeExercise(ctx, x, f.source); err != nil {
		t.Fatal(err)
	}
	if err := f.MoveToTrash(ctx, store.TrashExercise, int64(x.ID)); err != nil {
		t.Fatal(err)
	}
	if list, err := f.Exercises(ctx); err != nil || len(list) != 0 {
		t.Errorf("after removal the Shelf has %d, %v", len(list), err)
	}
	if err := f.ChangeExercise(ctx, x, f.source); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a removed exercise is changed: %v", err)
	}
	if err := f.Restore(ctx, store.TrashExercise, int64(x.ID)); err != nil {
		t.Fatal(err)
	}
	if list, err := f.Exercises(ctx); err != nil || len(list) != 1 || list[0].Title != "Second Lamp" {
		t.Errorf("after undoing it the Shelf has %+v, %v", list, err)
	}
}

// A source is there once for all that is made from it, and goes with the last of it;
// another teacher's, of the same content, is another row.
func TestSources(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f, other := add(t, s, "a"), add(t, s, "b")
	if _, err := other.AddExercise(ctx, store.Exercise{Book: "B", Number: 2, Title: "x"}, f.source); err != nil {
		t.Fatal(err)
	}
	if err := other.SaveOverrides(ctx, other.exercise, store.OwnPart{Instrument: "flute", Source: f.source}); err != nil {
		t.Fatal(err)
	}
	rows := func() (n int) {
		if err := s.DB().QueryRowContext(ctx, "SELECT count(*) FROM sources WHERE teacher_id = $1", int64(f.teacher)).Scan(&n); err != nil {
			t.Fatal(err)
		}
		return n
	}
	if err := f.SaveOverrides(ctx, f.exercise, store.OwnPart{Instrument: "oboe", Source: f.source, Part: 1}, store.OwnPart{Instrument: "flute", Source: f.source}); err != nil {
		t.Fatal(err)
	}
	if got := rows(); got != 2 { // the exercise's, and the horn's own
		t.Errorf("%d sources are kept, want 2", got)
	}
	x, err := f.ExerciseByID(ctx, f.exercise)
	if err != nil {
		t.Fatal(err)
	}
	if err := f.ChangeExercise(ctx, x, store.Source{Format: "abc", Content: "K:G\nG8|]"}); err != nil {
		t.Fatal(err)
	}
	if got := rows(); got != 3 {
		t.Errorf("with an edit %d sources are kept, want 3: two instruments still have the old one", got)
	}
	for _, id := range []string{"oboe", "flute"} {
		if err := f.DeleteOverride(ctx, f.exercise, id); err != nil {
			t.Fatal(err)
		}
	}
	if got := rows(); got != 2 {
		t.Errorf("with nothing made from it the old source stays: %d rows", got)
	}
	if _, err := f.Source(ctx, f.source.Hash()); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("the old source is found, in another teacher's rows: %v", err)
	}
}

// Edits at the same time, of exercises that share a source, lose none.
func TestSourcesOfEditsAtOnce(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	ids := []store.ExerciseID{f.exercise}
	for n := 2; n < 6; n++ {
		id, err := f.AddExercise(ctx, store.Exercise{Book: "Book of a", Number: n, Title: "x"}, f.source)
		if err != nil {
			t.Fatal(err)
		}
		ids = append(ids, id)
	}
	failed := make(chan error)
	for k, id := range ids {
		go func() {
			for round := range 100 {
				source := store.Source{Format: "abc", Content: fmt.Sprintf("K:C\nC%d|]", 1+(k+round)%2)}
				if err := f.ChangeExercise(ctx, store.Exercise{ID: id, Book: fmt.Sprint("Book ", k), Number: 1, Title: "x"}, source); err != nil {
					failed <- fmt.Errorf("edit %d of exercise %d: %w", round, k, err)
					return
				}
			}
			failed <- nil
		}()
	}
	for range ids {
		if err := <-failed; err != nil {
			t.Error(err)
		}
	}
	for _, id := range ids {
		x, err := f.ExerciseByID(ctx, id)
		if err == nil {
			_, err = f.Source(ctx, x.Hash)
		}
		if err != nil {
			t.Error(err)
		}
	}
}

// A reading holds for one revision: any change to the exercise or to its own parts
// makes it stale, and a reading of an earlier revision is not kept.
func TestReadings(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	read := func() store.Exercise {
		t.Helper()
		x, err := f.ExerciseByID(ctx, f.exercise)
		if err != nil {
			t.Fatal(err)
		}
		return x
	}
	x := read()
	if !x.Read || x.Outline.Signatures != "signatures of a" || fmt.Sprint(x.Outline.Chunks) != "[1-2 3-4 1-4]" || x.FileParts != 1 {
		t.Fatalf("what was read is %+v", x)
	}
	own, err := f.OwnOutlines(ctx)
	if err != nil || own.Of(x, "horn-f").Signatures != "own signatures of a" || own.Of(x, "trombone").Signatures != "signatures of a" {
		t.Errorf("the outlines are %+v, %v", own, err)
	}
	for what, change := range map[string]func() error{
		"an edit":          func() error { return f.ChangeExercise(ctx, x, f.source) },
		"an own part":      func() error { return f.SaveOverrides(ctx, x.ID, store.OwnPart{Instrument: "oboe", Source: f.source}) },
		"one part dropped": func() error { return f.DeleteOverride(ctx, x.ID, "horn-f") },
	} {
		if err := change(); err != nil {
			t.Fatal(what, err)
		}
		stale := read()
		if stale.Read {
			t.Errorf("%s leaves the reading in force", what)
		}
		if err := f.SaveReading(ctx, x.ID, stale.Revision-1, f.reading()); err != nil || read().Read {
			t.Errorf("%s: a reading of an earlier revision is kept, %v", what, err)
		}
		if err := f.SaveReading(ctx, x.ID, stale.Revision, f.reading()); err != nil || !read().Read {
			t.Errorf("%s: a reading is not kept, %v", what, err)
		}
	}
	if _, err := s.DB().ExecContext(ctx, "UPDATE exercises SET read_version = read_version - 1"); err != nil {
		t.Fatal(err)
	}
	if read().Read {
		t.Error("a reading by older rules is in force")
	}
}

// What was met comes from the exercises of the book before a number, in order.
func TestMetBefore(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	met := func(number int, instrument string, worked ...store.ExerciseID) string {
		m, err := f.facts().MetBefore(ctx, store.Exercise{BookID: f.book, Number: number}, instrument, worked)
		if err != nil {
			t.Fatal(err)
		}
		return fmt.Sprint(m.Places())
	}
	if got := met(2, "oboe"); got != "[F4 Bb4]" {
		t.Errorf("before the second exercise is met %s", got)
	}
	if met(1, "oboe") != "[]" || met(2, "flute") != "[]" {
		t.Errorf("before the first is met %s, by the flute %s", met(1, "oboe"), met(2, "flute"))
	}
	later := f.another(t, 5, "G4")
	for _, test := range []struct {
		number int
		worked []store.ExerciseID
		want   string
	}{
		{3, []store.ExerciseID{later}, "[F4 Bb4 G4]"},             // what was worked on, and what comes before
		{9, []store.ExerciseID{f.exercise}, "[F4 Bb4]"},           // not what was passed over
		{5, []store.ExerciseID{later}, "[F4 Bb4]"},                // nor the exercise itself
		{9, []store.ExerciseID{later, f.exercise}, "[F4 Bb4 G4]"}, // all of it
	} {
		if got := met(test.number, "oboe", test.worked...); got != test.want {
			t.Errorf("before %d, with %v worked on, is met %s, want %s", test.number, test.worked, got, test.want)
		}
	}
	if err := f.MoveToTrash(ctx, store.TrashExercise, int64(f.exercise)); err != nil {
		t.Fatal(err)
	}
	if got := met(2, "oboe"); got != "[]" {
		t.Errorf("in a removed exercise is met %s", got)
	}
}

// class is the fixture's desk as pages read it, with nothing read yet.
func (f fixture) facts() *teach.Class { return teach.New(f.Desk, reading.New(reading.Memory)) }

// another is one more exercise of the fixture's book, in which the oboe meets some things.
func (f fixture) another(t *testing.T, number int, elements ...breakdown.Element) store.ExerciseID {
	t.Helper()
	ctx := context.Background()
	id, err := f.AddExercise(ctx, store.Exercise{Book: "Book of " + f.mark, Number: number, Title: "x"}, f.source)
	if err != nil {
		t.Fatal(err)
	}
	x, err := f.ExerciseByID(ctx, id)
	if err != nil {
		t.Fatal(err)
	}
	if x.BookID != f.book {
		t.Fatalf("it went to book %d", x.BookID)
	}
	r := f.reading()
	r.Demands = map[string]breakdown.Demands{"oboe": {Elements: elements}}
	if err := f.SaveReading(ctx, id, x.Revision, r); err != nil {
		t.Fatal(err)
	}
	return id
}

// A class has worked on what half of those who work at all have tried.
func TestWorked(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a") // whose student has tried the first exercise
	alone := f.another(t, 5, "G4")
	for n := range 3 {
		id, err := f.AddStudent(ctx, store.Student{ClassID: f.class, FirstName: fmt.Sprint("Student ", n), Initial: "P", Instrument: "oboe"})
		if err != nil {
			t.Fatal(err)
		}
		try := f.try(true, routine.None)
		if try.StudentID = id; n == 2 {
			try.ExerciseID = alone
		}
		if n > 0 { // the first does nothing
			if err := f.AddAttempts(ctx, try, try); err != nil {
				t.Fatal(err)
			}
		}
	}
	for student, want := range map[store.StudentID]string{0: fmt.Sprint([]store.ExerciseID{f.exercise}), f.student: fmt.Sprint([]store.ExerciseID{f.exercise})} {
		if list, err := f.facts().Worked(ctx, f.class, student); err != nil || fmt.Sprint(list) != want {
			t.Errorf("student %d has worked on %v, %v, want %s", student, list, err, want)
		}
	}
}

func TestStandingsFollowTheLog(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a") // with one clean try
	second := breakdown.ChunkKey{First: 3, Last: 4}
	other := f.try(false, routine.Rhythm)
	other.Chunk = second
	if err := f.AddAttempts(ctx, f.try(true, routine.None), f.try(true, routine.None), other, other); err != nil {
		t.Fatal(err)
	}
	if got := f.at(t, firstChunk); got.Tries != 3 || got.Stage != routine.Name || got.Clean != 0 || got.Advice == "" {
		t.Errorf("at the first chunk stands %+v", got) // the third try was at Count again, which is earned
	}
	if got := f.at(t, second); got.Tries != 2 || got.Cause != routine.Rhythm || !got.Slower || !strings.Contains(got.Advice, "slower") {
		t.Errorf("at the second stands %+v", got)
	}
	log, err := f.LatestAttempts(ctx, f.student, f.exercise, 2)
	if err != nil || len(log) != 2 || log[0].Chunk != second || log[0].Cause != routine.Rhythm {
		t.Fatalf("the latest are %+v, %v", log, err)
	}
	for _, a := range log {
		if _, err := f.UndoAttempt(ctx, a.ID); err != nil {
			t.Fatal(err)
		}
	}
	if got := f.at(t, second); got != f.Routine().Start() {
		t.Errorf("with every try of a chunk taken back it stands at %+v", got)
	}
	here, err := f.ExerciseStandings(ctx, f.exercise, f.class)
	if err != nil || len(here) != 1 {
		t.Fatalf("the exercise has %d standings, %v", len(here), err)
	}
	if one := here[store.Task{Student: f.student, Exercise: f.exercise}]; one.Latest != firstChunk || one.Tries != 3 {
		t.Errorf("the latest chunk is %v after %d tries", one.Latest, one.Tries)
	}
}

// The log added up again says what it said, and with another routine what that says.
func TestAddingUpAgain(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	undone := f.log(t, f.try(true, routine.None))
	f.log(t, f.try(false, routine.Rhythm))
	if _, err := f.UndoAttempt(ctx, undone); err != nil {
		t.Fatal(err)
	}
	before := f.at(t, firstChunk)
	if before.Tries != 2 || before.Stumble != 1 {
		t.Fatalf("the log adds up to %+v", before)
	}
	if _, err := s.DB().ExecContext(ctx, "UPDATE standings SET stage = 'play', tries = 99, advice = 'wrong'"); err != nil {
		t.Fatal(err)
	}
	if err := s.FoldStandings(ctx); err != nil {
		t.Fatal(err)
	}
	if got := f.at(t, firstChunk); got != before {
		t.Errorf("added up again it is %+v, was %+v", got, before)
	}
	clapping := s.Using(routine.Routine{{Stage: "clap", Word: "Clap", Mends: []routine.Cause{routine.Rhythm}}, routine.Standard()[3]})
	if err := clapping.FoldStandings(ctx); err != nil {
		t.Fatal(err)
	}
	f.Desk = clapping.For(f.teacher)
	if got := f.at(t, firstChunk); got.Stage != "clap" || got.Tries != 2 || got.Stumble != 0 {
		t.Errorf("by a routine without Count it is %+v", got)
	}
}

func TestUndoKeepsTheLog(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	f.log(t, f.try(false, routine.Rhythm))
	if _, err := f.UndoAttempt(ctx, f.attempt); err != nil {
		t.Fatal(err)
	}
	if _, err := f.UndoAttempt(ctx, f.attempt); !errors.Is(err, store.ErrTaken) {
		t.Errorf("undoing twice gives %v", err)
	}
	log, err := f.StudentAttempts(ctx, f.student)
	if err != nil || len(log) != 2 || log[0].Undone || !log[1].Undone {
		t.Errorf("the whole log is %+v, %v", log, err)
	}
	if got := f.at(t, firstChunk); got.Tries != 1 || got.Clean != 0 || got.Cause != routine.Rhythm {
		t.Errorf("what stands is %+v", got)
	}
	latest, err := f.LatestAttempts(ctx, f.student, f.exercise, 4)
	if err != nil || len(latest) != 1 || latest[0].Cause != routine.Rhythm {
		t.Errorf("the latest tries are %+v, %v", latest, err)
	}
}

// What was logged together is taken back together, but for what was taken back before.
func TestTogether(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a") // with one clean try
	other, err := f.AddStudent(ctx, store.Student{ClassID: f.class, FirstName: "Tomo", Instrument: "violin"})
	if err != nil {
		t.Fatal(err)
	}
	mine, theirs := f.try(true, routine.None), f.try(true, routine.None)
	theirs.StudentID = other
	batch, err := f.AddTogether(ctx, "", mine, theirs)
	if err != nil {
		t.Fatal(err)
	}
	if again, err := f.AddTogether(ctx, "", theirs); err != nil || again == batch {
		t.Errorf("a second batch is %d after %d, %v", again, batch, err)
	}
	if got := f.at(t, firstChunk); got.Stage != routine.Name || got.Tries != 2 {
		t.Errorf("after both the student is at %+v", got)
	}
	log, err := f.StudentAttempts(ctx, f.student)
	if err == nil {
		_, err = f.UndoAttempt(ctx, log[0].ID) // alone
	}
	if err == nil {
		err = f.UndoTogether(ctx, batch)
	}
	if err != nil {
		t.Fatal(err)
	}
	if got := f.at(t, firstChunk); got.Tries != 1 || got.Clean != 1 {
		t.Errorf("taken back the student is at %+v", got)
	}
	f.student = other
	if got := f.at(t, firstChunk); got.Tries != 1 {
		t.Errorf("the other student is at %+v, with the second batch", got)
	}
	if err := f.UndoTogether(ctx, batch); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("taking a batch back twice gives %v", err)
	}
}

func TestTheLogIsOnlyAddedTo(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	if _, err := s.DB().ExecContext(ctx, "UPDATE attempts SET clean = false, cause = 'sound'"); err == nil {
		t.Error("an attempt could be changed")
	}
	for what, bad := range map[string]store.Attempt{
		"a clean try with a cause": f.try(true, routine.Sound), "a stumble without one": f.try(false, routine.None),
		"a try at no stage":     {StudentID: f.student, ExerciseID: f.exercise, Chunk: firstChunk, Try: routine.Try{Clean: true}},
		"a try at what is done": {StudentID: f.student, ExerciseID: f.exercise, Chunk: firstChunk, Try: routine.Try{Stage: routine.Done, Clean: true}},
	} {
		if err := f.AddAttempts(ctx, bad); err == nil {
			t.Errorf("%s was taken", what)
		}
	}
}

func TestErasingAStudentErasesTheTries(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	if _, err := f.UndoAttempt(ctx, f.attempt); err != nil {
		t.Fatal(err)
	}
	if err := f.Erase(ctx, store.TrashStudent, int64(f.student)); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a student who is not in the bin is erased: %v", err)
	}
	if err := errors.Join(f.MoveToTrash(ctx, store.TrashStudent, int64(f.student)), f.Erase(ctx, store.TrashStudent, int64(f.student))); err != nil {
		t.Fatal(err)
	}
	var left int
	if err := s.DB().QueryRowContext(ctx, "SELECT (SELECT count(*) FROM attempts) + (SELECT count(*) FROM standings)").Scan(&left); err != nil ||
		left != 0 {
		t.Errorf("%d rows of the log are left, %v", left, err)
	}
}

// Settings are changed one by one: two who change different ones keep both.
func TestSettingsOneByOne(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	for _, change := range []store.Settings{{"school": "takadimi", "british": "yes"}, {"british": ""}, {"two": "pair"}} {
		if err := f.SaveSettings(ctx, change); err != nil {
			t.Fatal(err)
		}
	}
	got, err := f.Settings(ctx)
	delete(got, store.VoiceSetting)
	if err != nil || fmt.Sprint(got) != "map[school:takadimi two:pair]" {
		t.Errorf("the settings are %v, %v", got, err)
	}
	if err := errors.Join(f.Prefer(ctx, "oboe", 66, "1 2 3 |"), f.Prefer(ctx, "oboe", 65, ""), f.SaveModel(ctx, "tuba-bb", "4"), f.SaveModel(ctx, "oboe", "")); err != nil {
		t.Fatal(err)
	}
	if got, err := f.Preferred(ctx, "oboe"); err != nil || fmt.Sprint(got) != "map[66:1 2 3 |]" {
		t.Errorf("the oboe's notes are %v, %v", got, err)
	}
	if got, err := f.Kinds(ctx); err != nil || fmt.Sprint(got) != "map[tuba-bb:4]" {
		t.Errorf("the kinds are %v, %v", got, err)
	}
}

func TestYearOfAClass(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	for _, want := range []int{1, 3} { // the first, until another is kept
		if classes, err := f.Classes(ctx); err != nil || len(classes) != 2 || classes[0].Year != want {
			t.Errorf("the classes are %+v, %v, want year %d", classes, err, want)
		}
		if err := f.SaveYear(ctx, f.class, 3); err != nil {
			t.Fatal(err)
		}
	}
	if err := f.SaveYear(ctx, f.class, 4); err == nil {
		t.Error("a fourth year was kept")
	}
}

// What is chosen for a place is kept and replaced, and dropped by its pitch.
func TestFingeringsOfPlaces(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	at := score.Place{Measure: 0, Event: 1}
	later := finger.Spot{Pitch: 65, Text: "1 2 3 | 4 5 F"}
	if err := f.SaveFingering(ctx, f.exercise, "oboe", at, later); err != nil {
		t.Fatal(err)
	}
	for _, step := range []struct{ pitch, left int }{{66, 1}, {65, 0}, {65, 0}} {
		if err := f.DeleteFingerings(ctx, f.exercise, "oboe", step.pitch); err != nil {
			t.Fatal(err)
		}
		placed, err := f.Fingerings(ctx, f.exercise, "oboe")
		if err != nil || len(placed) != step.left || step.left == 1 && placed[at] != later {
			t.Errorf("with those of %d dropped they are %v, %v", step.pitch, placed, err)
		}
	}
}

// The machine's clock was set back between two tries: their order is that of the log, and
// where the student stands is what it would have been.
func TestTheClockSetBack(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a") // with one clean try, now
	ahead, behind := f.try(true, routine.None), f.try(false, routine.Rhythm)
	ahead.At, behind.At = time.Now().Add(48*time.Hour), time.Now().Add(-48*time.Hour)
	behind.Stage = routine.Name
	if err := f.AddAttempts(ctx, ahead, behind); err != nil {
		t.Fatal(err)
	}
	if state := f.at(t, firstChunk); state.Stage != routine.Name || state.Stumble != 1 {
		t.Errorf("the student stands at %+v", state)
	}
	log, err := f.StudentAttempts(ctx, f.student)
	if err != nil || len(log) != 3 || log[0].Stage != routine.Name || !log[0].At.Before(log[1].At) {
		t.Errorf("the log is %+v, %v", log, err)
	}
	if _, err := f.UndoAttempt(ctx, log[0].ID); err != nil {
		t.Fatal(err)
	}
	if err := s.FoldStandings(ctx); err != nil {
		t.Fatal(err)
	}
	if state := f.at(t, firstChunk); state.Stage != routine.Name || state.Stumble != 0 {
		t.Errorf("taken back, the student stands at %+v", state)
	}
}

// Marks stand by place until they are rubbed out; what cannot stand beside a mark gives way.
func TestAnnotations(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a") // with a word at the second note
	at := score.Place{Event: 1}
	stands := func() string {
		t.Helper()
		list, err := f.Annotations(ctx, f.exercise, "oboe")
		if err != nil {
			t.Fatal(err)
		}
		return fmt.Sprint(list[at])
	}
	for _, step := range []struct {
		save breakdown.Annotation
		want string
	}{
		{breakdown.Annotation{Kind: breakdown.AnnotationBreath, Pitch: 65}, "[{breath  65} {word word of a 65}]"},
		{breakdown.Annotation{Kind: breakdown.NoBreath, Pitch: 65}, "[{no-breath  65} {word word of a 65}]"},
		{breakdown.Annotation{Kind: breakdown.AnnotationWord, Word: "soft", Pitch: 65}, "[{no-breath  65} {word soft 65}]"},
		{breakdown.Annotation{Kind: breakdown.AnnotationWord, Word: "soft", Pitch: 65}, "[{no-breath  65} {word soft 65}]"},
	} {
		if err := f.SaveAnnotation(ctx, f.exercise, "oboe", at, step.save); err != nil {
			t.Fatal(err)
		}
		if got := stands(); got != step.want {
			t.Errorf("with %v stands %s, want %s", step.save, got, step.want)
		}
	}
	if err := f.DeleteAnnotation(ctx, f.exercise, "oboe", at, breakdown.Annotation{Kind: breakdown.NoBreath}); err != nil {
		t.Fatal(err)
	}
	if err := f.DeleteAnnotation(ctx, f.exercise, "oboe", at, breakdown.Annotation{Kind: breakdown.NoBreath}); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("rubbing out what is not there gives %v", err)
	}
	if got := stands(); got != "[{word soft 65}]" {
		t.Errorf("then stands %s", got)
	}
	for n := range store.MostAnnotations {
		if err := f.SaveAnnotation(ctx, f.exercise, "oboe", score.Place{Measure: n + 1}, breakdown.Annotation{Kind: breakdown.AnnotationCircle, Pitch: 65}); (err != nil) != (n == store.MostAnnotations-1) {
			t.Fatalf("mark %d gives %v", n+2, err)
		}
	}
}

// Chunks cut by hand take the place of the program's in every outline, and the log keeps
// its measures.
func TestCuts(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	chunks := func() string {
		t.Helper()
		x, err := f.ExerciseByID(ctx, f.exercise)
		if err != nil {
			t.Fatal(err)
		}
		own, err := f.facts().OutlineFor(ctx, x, "horn-f")
		if err != nil {
			t.Fatal(err)
		}
		all, err := f.OwnOutlines(ctx)
		if err != nil || fmt.Sprint(all.Of(x, "horn-f").Chunks) != fmt.Sprint(own.Chunks) {
			t.Errorf("the horn's chunks are %v and %v, %v", own.Chunks, all.Of(x, "horn-f").Chunks, err)
		}
		return fmt.Sprint(x.Outline.Chunks, own.Chunks)
	}
	hand := []breakdown.HandChunk{{Key: breakdown.ChunkKey{First: 3, Last: 4}, Why: "the bridge\nfirst"}, {Key: breakdown.ChunkKey{First: 1, Last: 4}}}
	if err := f.SaveHandChunks(ctx, f.exercise, hand); err != nil {
		t.Fatal(err)
	}
	archived, err := f.HandChunks(ctx, f.exercise)
	if err != nil || fmt.Sprint(archived) != "[{3-4 the bridge first} {1-4 }]" {
		t.Errorf("kept is %v, %v", archived, err)
	}
	if got := chunks(); got != "[3-4 1-4] [3-4 1-4]" {
		t.Errorf("the chunks are %s", got)
	}
	if log, err := f.LatestAttempts(ctx, f.student, f.exercise, 1); err != nil || log[0].Chunk != firstChunk {
		t.Errorf("the log has %v, %v", log, err)
	}
	if err := f.SaveHandChunks(ctx, f.exercise, nil); err != nil {
		t.Fatal(err)
	}
	if archived, err := f.HandChunks(ctx, f.exercise); err != nil || archived != nil {
		t.Errorf("put back, kept is %v, %v", archived, err)
	}
	if got := chunks(); got != "[1-2 3-4 1-4] [1-2 3-4 1-4]" {
		t.Errorf("put back, the chunks are %s", got)
	}
}

// An exercise is put before another or last; the order goes back to the numbers.
func TestOrderOnTheShelf(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	three, five := f.another(t, 3), f.another(t, 5)
	order := func() string {
		t.Helper()
		list, err := f.Exercises(ctx)
		if err != nil {
			t.Fatal(err)
		}
		var numbers []int
		for _, x := range list {
			numbers = append(numbers, x.Number)
		}
		return fmt.Sprint(numbers)
	}
	for _, step := range []struct {
		move, before store.ExerciseID
		want         string
	}{{five, f.exercise, "[5 1 3]"}, {three, f.exercise, "[5 3 1]"}, {five, 0, "[3 1 5]"}, {three, 0, "[1 5 3]"}} {
		if err := f.MoveExercise(ctx, step.move, step.before); err != nil {
			t.Fatal(err)
		}
		if got := order(); got != step.want {
			t.Errorf("the order is %s, want %s", got, step.want)
		}
	}
	before, after, err := f.facts().Neighbours(ctx, five) // of 1 5 3
	if err != nil || before.Number != 1 || after != (store.Neighbour{ID: three, Number: 3}) {
		t.Errorf("beside 5 stand %v and %v, %v", before, after, err)
	}
	if before, _, err := f.facts().Neighbours(ctx, f.exercise); err != nil || before.ID != 0 {
		t.Errorf("before the first stands %v, %v", before, err)
	}
	f.another(t, 2)
	if got := order(); got != "[1 5 3 2]" {
		t.Errorf("a new one stands %s", got)
	}
	if err := f.MoveExercise(ctx, three, 999); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("before what is not there: %v", err)
	}
	if err := f.OrderByNumber(ctx, f.book); err != nil {
		t.Fatal(err)
	}
	if got := order(); got != "[1 2 3 5]" {
		t.Errorf("by number: %s", got)
	}
	counts, err := f.EarnedCounts(ctx, f.class)
	if err != nil || fmt.Sprint(counts) != fmt.Sprintf("[{%d trombone 0 1}]", f.exercise) {
		t.Errorf("the stages are %v, %v", counts, err)
	}
}

// What was clean to the end counts with its last tempo; of a class, what half reach.
func TestCleanAt(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	if list, err := f.facts().CleanAt(ctx, f.class, f.student, "oboe", 0); err != nil || len(list) != 0 {
		t.Fatalf("before anything is done: %v, %v", list, err)
	}
	finish := func(student store.StudentID, tempo int) {
		t.Helper()
		for _, step := range f.Routine() {
			for range 2 {
				try := f.try(true, routine.None)
				try.StudentID, try.Stage, try.Tempo, try.Chunk = student, step.Stage, tempo, breakdown.ChunkKey{First: 3, Last: 4}
				if err := f.AddAttempts(ctx, try); err != nil {
					t.Fatal(err)
				}
			}
		}
	}
	finish(f.student, 66)
	for _, tempo := range []int{72, 80} {
		id, err := f.AddStudent(ctx, store.Student{ClassID: f.class, FirstName: fmt.Sprint("At ", tempo), Instrument: "oboe"})
		if err != nil {
			t.Fatal(err)
		}
		finish(id, tempo)
	}
	for student, want := range map[store.StudentID]string{f.student: "66", 0: "72"} {
		list, err := f.facts().CleanAt(ctx, f.class, student, "oboe", 0)
		if err != nil || len(list) != 1 || fmt.Sprint(list[0].Tempo) != want || list[0].Parts.Rhythm != 0.25 || list[0].Name != "1 · a's Lamp" {
			t.Errorf("for student %d: %v, %v, want %s", student, list, err, want)
		}
	}
	if list, err := f.facts().CleanAt(ctx, f.class, 0, "oboe", f.exercise); err != nil || len(list) != 0 {
		t.Errorf("but for itself: %v, %v", list, err)
	}
}

// Two exercises are the lines of one; one of them is in no other pair, and one that is taken
// away leaves the other alone.
func TestSecondLines(t *testing.T) {
	t.Parallel()
	ctx := context.Background()
	s := testdb.Open(t)
	f := add(t, s, "a")
	var ids []store.ExerciseID
	for n := range 3 {
		id, err := f.AddExercise(ctx, store.Exercise{Book: "Duets", Number: n + 1, Title: "Line"}, f.source)
		if err != nil {
			t.Fatal(err)
		}
		ids = append(ids, id)
	}
	lines := func(id store.ExerciseID) store.DuetPart {
		t.Helper()
		l, err := f.DuetPart(ctx, id)
		if err != nil {
			t.Fatal(err)
		}
		return l
	}
	save := func(l store.DuetPart) {
		t.Helper()
		if err := f.SaveDuetPart(ctx, l); err != nil {
			t.Fatal(err)
		}
	}
	save(store.DuetPart{A: ids[0], B: ids[1]})
	if l := lines(ids[1]); l.A != ids[0] || l.B != ids[1] || l.Letter(ids[1]) != "B" || l.Letter(ids[0]) != "A" || l.Letter(ids[2]) != "" {
		t.Errorf("the second is %+v", l)
	}
	save(store.DuetPart{A: ids[1], B: ids[2]})
	if l := lines(ids[0]); l != (store.DuetPart{}) {
		t.Errorf("the first is still one of %+v", l)
	}
	if err := f.MoveToTrash(ctx, store.TrashExercise, int64(ids[2])); err != nil {
		t.Fatal(err)
	}
	if l := lines(ids[1]); l != (store.DuetPart{}) {
		t.Errorf("the line of one that was taken away: %+v", l)
	}
	save(store.DuetPart{A: ids[1], Entry: 2})
	if l := lines(ids[1]); l.Entry != 2 || l.B != 0 || l.Letter(ids[1]) != "" {
		t.Errorf("a round is %+v", l)
	}
	if err := f.SaveDuetPart(ctx, store.DuetPart{A: ids[1], B: ids[1]}); err == nil {
		t.Error("an exercise is its own second line")
	}
	if err := f.DeleteDuetPart(ctx, ids[1]); err != nil || lines(ids[1]) != (store.DuetPart{}) {
		t.Errorf("parted with %v: %+v", err, lines(ids[1]))
	}
}

// A word is recorded again in place of the first; without any the setting that says so goes.
func TestSpokenWords(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	if err := f.DeleteSpokenWords(ctx); err != nil {
		t.Fatal(err)
	}
	version := func() string {
		saved, err := f.Settings(ctx)
		if err != nil {
			t.Fatal(err)
		}
		return saved[store.VoiceSetting]
	}
	if v := version(); v != "" {
		t.Errorf("without words the version is %s", v)
	}
	for _, sound := range []string{"first", "second"} {
		if err := f.SaveSpokenWords(ctx, []store.SpokenWord{{Word: "two", Sound: []byte("2")}, {Word: "one", Vowel: 0.2, Sound: []byte(sound)}}); err != nil {
			t.Fatal(err)
		}
	}
	list, err := f.SpokenWords(ctx)
	if err != nil || fmt.Sprintf("%v", list) != fmt.Sprintf("%v", []store.SpokenWord{{"one", 0.2, []byte("second")}, {"two", 0, []byte("2")}}) || version() == "" {
		t.Errorf("the words are %v, %v, of version %q", list, err, version())
	}
	if err := f.DeleteSpokenWords(ctx, "one"); err != nil {
		t.Fatal(err)
	}
	if left, err := f.RecordedWords(ctx); err != nil || fmt.Sprint(left) != "[two]" || version() == "" {
		t.Errorf("left are %v, %v", left, err)
	}
}
