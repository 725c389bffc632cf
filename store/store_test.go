package store_test

import (
	"context"
	"errors"
	"strings"
	"testing"

	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// fixture is a teacher with a book, an exercise, a section and a student.
type fixture struct {
	teacher, book, exercise, section, student int64
}

func add(t *testing.T, s *store.Store, email string) fixture {
	t.Helper()
	ctx := context.Background()
	must := func(id int64, err error) int64 {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
		return id
	}
	teacher, err := s.AddTeacher(ctx, email, "A", "B", "a long password")
	f := fixture{teacher: must(teacher.ID, err)}
	f.exercise = must(s.AddExercise(ctx, f.teacher, store.Exercise{Book: "The Ferry Book", Number: 1, Title: "First Lamp", Format: "abc", Source: "K:C\nC8|]"}))
	x, err := s.ExerciseByID(ctx, f.teacher, f.exercise)
	f.book = must(x.BookID, err)
	f.section = must(s.AddSection(ctx, f.teacher, "Tuesday"))
	f.student = must(s.AddStudent(ctx, f.teacher, store.Student{SectionID: f.section, FirstName: "Ines", Initial: "P", Instrument: "trombone"}))
	return f
}

func (f fixture) attempt() store.Attempt {
	return store.Attempt{StudentID: f.student, ExerciseID: f.exercise, FirstMeasure: 1, LastMeasure: 2, Clean: true, Tempo: 60}
}

func TestPasswords(t *testing.T) {
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "Wren@School.example")
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
}

func TestExercises(t *testing.T) {
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a@school.example")
	x, err := s.ExerciseByID(ctx, f.teacher, f.exercise)
	if err != nil || x.Book != "The Ferry Book" || x.Number != 1 {
		t.Fatalf("the exercise is %+v, %v", x, err)
	}
	if _, err := s.AddExercise(ctx, f.teacher, x); !errors.Is(err, store.ErrTaken) {
		t.Errorf("a second number 1 gives %v", err)
	}
	if n, err := s.NextNumber(ctx, f.teacher, f.book); err != nil || n != 2 {
		t.Errorf("the next number is %d, %v", n, err)
	}
	broken := x
	broken.Book, broken.Number = "A Book That Must Not Stay", 0 // not a number the table takes
	if _, err := s.AddExercise(ctx, f.teacher, broken); err == nil {
		t.Error("an exercise with number 0 was taken")
	}
	if books, err := s.Books(ctx, f.teacher); err != nil || len(books) != 1 {
		t.Errorf("a refused exercise leaves %d books, %v", len(books), err)
	}
	x.Title = "Second Lamp"
	if err := s.ChangeExercise(ctx, f.teacher, x); err != nil {
		t.Fatal(err)
	}
	if err := s.RemoveExercise(ctx, f.teacher, x.ID); err != nil {
		t.Fatal(err)
	}
	if list, err := s.Exercises(ctx, f.teacher); err != nil || len(list) != 0 {
		t.Errorf("after removal the Shelf has %d, %v", len(list), err)
	}
	if err := s.RestoreExercise(ctx, f.teacher, x.ID); err != nil {
		t.Fatal(err)
	}
	if list, err := s.Exercises(ctx, f.teacher); err != nil || len(list) != 1 || list[0].Title != "Second Lamp" {
		t.Errorf("after undoing it the Shelf has %+v, %v", list, err)
	}
}

// logged adds an attempt and returns its id.
func logged(t *testing.T, s *store.Store, f fixture, a store.Attempt) int64 {
	t.Helper()
	if err := s.AddAttempt(context.Background(), f.teacher, a); err != nil {
		t.Fatal(err)
	}
	log, err := s.StudentAttempts(context.Background(), f.teacher, f.student)
	if err != nil {
		t.Fatal(err)
	}
	return log[len(log)-1].ID
}

func TestStandingsFollowTheLog(t *testing.T) {
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a@school.example")
	other := f.attempt()
	other.FirstMeasure, other.LastMeasure = 3, 4
	if err := s.AddAttempts(ctx, f.teacher, []store.Attempt{f.attempt(), f.attempt(), f.attempt(), other}); err != nil {
		t.Fatal(err)
	}
	rows, err := s.Standings(ctx, f.teacher, f.section)
	if err != nil || len(rows) != 2 {
		t.Fatalf("standings %+v, %v", rows, err)
	}
	for _, row := range rows {
		if want := map[int]int{1: 3, 3: 1}[row.FirstMeasure]; row.Tries != want {
			t.Errorf("measure %d has %d tries, want %d", row.FirstMeasure, row.Tries, want)
		}
	}
	last := logged(t, s, f, other)
	for range 2 {
		if err := s.UndoAttempt(ctx, f.teacher, last); err != nil {
			t.Fatal(err)
		}
		last-- // the one before, of the same piece
	}
	if rows, err = s.Standings(ctx, f.teacher, f.section); err != nil || len(rows) != 1 || rows[0].FirstMeasure != 1 {
		t.Errorf("with every try of a piece taken back the standings are %+v, %v", rows, err)
	}
}

func TestUndoKeepsTheLog(t *testing.T) {
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a@school.example")
	first := logged(t, s, f, f.attempt())
	stumble := f.attempt()
	stumble.Clean, stumble.Cause = false, "rhythm"
	second := logged(t, s, f, stumble)
	if err := s.UndoAttempt(ctx, f.teacher, first); err != nil {
		t.Fatal(err)
	}
	if err := s.UndoAttempt(ctx, f.teacher, first); !errors.Is(err, store.ErrTaken) {
		t.Errorf("undoing twice gives %v", err)
	}
	log, err := s.StudentAttempts(ctx, f.teacher, f.student)
	if err != nil || len(log) != 2 || !log[0].Undone || log[1].Undone {
		t.Errorf("the whole log is %+v, %v", log, err)
	}
	standing, err := s.Standings(ctx, f.teacher, f.section)
	if err != nil || len(standing) != 1 || standing[0].LastAttempt != second || standing[0].Tries != 1 || standing[0].Clean != 0 {
		t.Errorf("what stands is %+v, %v", standing, err)
	}
	here, err := s.ExerciseAttempts(ctx, f.teacher, f.exercise, f.section)
	if err != nil || len(here) != 1 || here[0].Cause != "rhythm" {
		t.Errorf("what stands here is %+v, %v", here, err)
	}
}

func TestTheLogIsOnlyAddedTo(t *testing.T) {
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a@school.example")
	logged(t, s, f, f.attempt())
	if _, err := s.DB().ExecContext(ctx, "UPDATE attempts SET clean = false, cause = 'sound'"); err == nil {
		t.Error("an attempt could be changed")
	}
	bad := f.attempt()
	bad.Cause = "sound"
	if err := s.AddAttempt(ctx, f.teacher, bad); err == nil {
		t.Error("a clean try with a cause was taken")
	}
}

func TestErasingAStudentErasesTheTries(t *testing.T) {
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a@school.example")
	id := logged(t, s, f, f.attempt())
	if err := s.UndoAttempt(ctx, f.teacher, id); err != nil {
		t.Fatal(err)
	}
	if err := s.EraseStudent(ctx, f.teacher, f.student); err != nil {
		t.Fatal(err)
	}
	var left int
	if err := s.DB().QueryRowContext(ctx, "SELECT count(*) FROM attempts").Scan(&left); err != nil || left != 0 {
		t.Errorf("%d rows of the log are left, %v", left, err)
	}
}

func TestYearOfASection(t *testing.T) {
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a@school.example")
	for _, want := range []int{1, 3} { // the first, until another is kept
		if year, err := s.SectionYear(ctx, f.teacher, f.section); err != nil || year != want {
			t.Errorf("the section is in year %d, %v, want %d", year, err, want)
		}
		if err := s.KeepYear(ctx, f.teacher, f.section, 3); err != nil {
			t.Fatal(err)
		}
	}
	if err := s.KeepYear(ctx, f.teacher, f.section, 4); err == nil {
		t.Error("a fourth year was kept")
	}
}

func TestRowsOfAnotherTeacherAreOutOfReach(t *testing.T) {
	s, ctx := testdb.Open(t), context.Background()
	mine, other := add(t, s, "a@school.example"), add(t, s, "b@school.example")
	attempt := logged(t, s, mine, mine.attempt())
	me := other.teacher
	_, exercise := s.ExerciseByID(ctx, me, mine.exercise)
	_, student := s.StudentByID(ctx, me, mine.student)
	_, try := s.AttemptByID(ctx, me, attempt)
	mixed := other.attempt()
	mixed.ExerciseID = mine.exercise
	_, year := s.SectionYear(ctx, me, mine.section)
	_, into := s.AddStudent(ctx, me, store.Student{SectionID: mine.section, FirstName: "x", Instrument: "violin"})
	for what, err := range map[string]error{
		"reading the exercise": exercise, "reading the student": student, "reading the try": try, "reading the section's year": year,
		"keeping the section's year": s.KeepYear(ctx, me, mine.section, 2), "keeping how the section counts": s.KeepSchool(ctx, me, mine.section, "ta"),
		"logging a try": s.AddAttempt(ctx, me, mine.attempt()), "logging a try at the exercise": s.AddAttempt(ctx, me, mixed), "adding to the section": into,
		"changing the exercise": s.ChangeExercise(ctx, me, store.Exercise{ID: mine.exercise, Book: "Stolen", Number: 3, Format: "abc"}),
		"removing the exercise": s.RemoveExercise(ctx, me, mine.exercise),
		"restoring it":          s.RestoreExercise(ctx, me, mine.exercise),
		"moving the student":    s.ChangeStudent(ctx, me, store.Student{ID: mine.student, SectionID: other.section, FirstName: "x", Instrument: "violin"}),
		"erasing the student":   s.EraseStudent(ctx, me, mine.student),
		"undoing the try":       s.UndoAttempt(ctx, me, attempt),
	} {
		if !errors.Is(err, store.ErrNotFound) {
			t.Errorf("%s gives %v, want not found", what, err)
		}
	}
	for what, n := range map[string]func() (int, error){
		"students": func() (int, error) { l, err := s.Students(ctx, me, mine.section); return len(l), err },
		"tries":    func() (int, error) { l, err := s.StudentAttempts(ctx, me, mine.student); return len(l), err },
		"standings": func() (int, error) {
			l, err := s.Standings(ctx, me, mine.section)
			return len(l), err
		},
		"exercise's tries": func() (int, error) {
			l, err := s.ExerciseAttempts(ctx, me, mine.exercise, mine.section)
			return len(l), err
		},
	} {
		if got, err := n(); err != nil || got != 0 {
			t.Errorf("another teacher's %s: %d are listed, %v", what, got, err)
		}
	}
}
