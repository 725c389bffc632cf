package store_test

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// rowsWith counts the rows of every table in which a text stands, but for the log of who
// did what, which names classes.
func rowsWith(t *testing.T, s *store.Store, text string) map[string]int {
	t.Helper()
	rows, err := s.DB().Query(`SELECT tablename FROM pg_tables WHERE schemaname = 'public' AND tablename <> 'deeds'`)
	if err != nil {
		t.Fatal(err)
	}
	defer rows.Close()
	found := map[string]int{}
	var tables []string
	for rows.Next() {
		var name string
		if err := rows.Scan(&name); err != nil {
			t.Fatal(err)
		}
		tables = append(tables, name)
	}
	for _, name := range tables {
		var n int
		if err := s.DB().QueryRow(`SELECT count(*) FROM `+name+` r WHERE r::text LIKE '%' || $1 || '%'`, text).Scan(&n); err != nil {
			t.Fatal(err)
		}
		if n > 0 {
			found[name] = n
		}
	}
	return found
}

// What is taken away stands in no list, comes back as it was, and is erased for good: by
// hand, and by itself after its days.
func TestTheBin(t *testing.T) {
	t.Parallel()
	ctx := context.Background()
	for _, what := range []store.TrashKind{store.TrashExercise, store.TrashBook, store.TrashClass, store.TrashStudent} {
		for _, byHand := range []bool{true, false} {
			s := testdb.Open(t)
			f := add(t, s, "a")
			id := map[store.TrashKind]int64{
				store.TrashExercise: int64(f.exercise), store.TrashBook: int64(f.book), store.TrashClass: int64(f.class), store.TrashStudent: int64(f.student),
			}[what]
			shown := func() string {
				exercises, err1 := f.Exercises(ctx)
				books, err2 := f.Books(ctx)
				classes, err3 := f.Classes(ctx)
				students, err4 := f.Students(ctx, f.class)
				standings, err5 := f.ClassStandings(ctx, f.class)
				if err := errors.Join(err1, err2, err3, err4, err5); err != nil {
					t.Fatal(err)
				}
				return fmt.Sprint(exercises, books, classes, students, len(standings))
			}
			whole := shown()
			if err := f.MoveToTrash(ctx, what, id); err != nil {
				t.Fatal(err)
			}
			if shown() == whole {
				t.Errorf("%s: what was taken away is shown", what)
			}
			if bin, err := f.Trash(ctx); err != nil || len(bin) != 1 || bin[0].What != what || bin[0].Tries != 1 {
				t.Errorf("%s: the bin holds %+v, %v", what, bin, err)
			}
			if err := f.MoveToTrash(ctx, what, id); !errors.Is(err, store.ErrNotFound) {
				t.Errorf("%s: taken away twice: %v", what, err)
			}
			if err := f.Restore(ctx, what, id); err != nil || shown() != whole {
				t.Errorf("%s: put back it is %s, %v, not %s", what, shown(), err, whole)
			}
			if err := f.MoveToTrash(ctx, what, id); err != nil {
				t.Fatal(err)
			}
			if err := s.DeleteExpired(ctx); err != nil {
				t.Fatal(err)
			}
			if bin, err := f.Trash(ctx); err != nil || len(bin) != 1 {
				t.Errorf("%s: on the first day the bin holds %v, %v", what, bin, err)
			}
			gone := true
			if byHand {
				if err := f.Erase(ctx, what, id); err != nil {
					t.Fatal(err)
				}
			} else {
				if _, err := s.DB().Exec(`UPDATE ` + string(what) + ` SET removed_at = now() - interval '31 days' WHERE removed_at IS NOT NULL`); err != nil {
					t.Fatal(err)
				}
				if err := s.DeleteExpired(ctx); err != nil {
					t.Fatal(err)
				}
				gone = what == store.TrashClass || what == store.TrashStudent // exercises with tries wait
			}
			bin, err := f.Trash(ctx)
			if err != nil || gone != (len(bin) == 0) {
				t.Errorf("%s: after it is erased (by hand: %v) the bin holds %v, %v", what, byHand, bin, err)
			}
			for _, b := range bin {
				if !b.Until().IsZero() {
					t.Errorf("%s with a try goes by itself at %v", b.What, b.Until())
				}
			}
			if marks := rowsWith(t, s, map[store.TrashKind]string{
				store.TrashExercise: "a's Lamp", store.TrashBook: "T:own of a", store.TrashClass: "Ines of a", store.TrashStudent: "Ines of a",
			}[what]); gone && len(marks) > 0 {
				t.Errorf("%s: of what was erased stands in %v", what, marks)
			}
		}
	}
}

// A name or number that was given to another in the meantime is not given twice.
func TestPuttingBackWhatIsReplaced(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	if err := errors.Join(f.MoveToTrash(ctx, store.TrashBook, int64(f.book)), f.MoveToTrash(ctx, store.TrashClass, int64(f.class))); err != nil {
		t.Fatal(err)
	}
	if _, err := f.AddExercise(ctx, store.Exercise{Book: "Book of a", Number: 1, Title: "New"}, f.source); err != nil {
		t.Fatal(err)
	}
	if _, err := f.AddClass(ctx, "Tuesday of a"); err != nil {
		t.Fatal(err)
	}
	for what, id := range map[store.TrashKind]int64{store.TrashBook: int64(f.book), store.TrashClass: int64(f.class)} {
		if err := f.Restore(ctx, what, id); !errors.Is(err, store.ErrTaken) {
			t.Errorf("%s put back gives %v", what, err)
		}
	}
	if _, err := f.AddStudent(ctx, store.Student{ClassID: f.class, FirstName: "x", Instrument: "oboe"}); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a student added to a class that was taken away gives %v", err)
	}
}

// Who has left stands in no list, keeps the log, and is erased only when the owner's
// months are over and somebody says so.
func TestStudentsWhoLeft(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	if _, err := s.DB().Exec(`UPDATE teachers SET owner = true`); err != nil {
		t.Fatal(err)
	}
	left := func() []store.Left {
		list, err := f.StudentsWhoLeft(ctx)
		if err != nil {
			t.Fatal(err)
		}
		return list
	}
	if err := f.HasLeft(ctx, f.student); err != nil {
		t.Fatal(err)
	}
	if list, err := f.Students(ctx, f.class); err != nil || len(list) != 0 {
		t.Errorf("the class lists %v, %v", list, err)
	}
	if err := f.AddAttempts(ctx, f.try(true, routine.None)); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a mark for who has left gives %v", err)
	}
	if err := f.IsBack(ctx, f.student); err != nil || len(left()) != 0 {
		t.Errorf("bringing back gives %v", err)
	}
	if log, err := f.StudentAttempts(ctx, f.student); err != nil || len(log) != 1 {
		t.Errorf("back again, the log is %v, %v", log, err)
	}
	if err := f.HasLeft(ctx, f.student); err != nil {
		t.Fatal(err)
	}
	if _, err := s.DB().Exec(`UPDATE students SET left_at = now() - interval '7 months' WHERE left_at IS NOT NULL`); err != nil {
		t.Fatal(err)
	}
	for _, step := range []struct {
		months  int
		overdue bool
	}{{0, false}, {12, false}, {6, true}} {
		h := store.StandardPolicy
		h.RetainMonths = step.months
		if err := s.SavePolicy(ctx, f.teacher, h); err != nil {
			t.Fatal(err)
		}
		if list := left(); len(list) != 1 || list[0].Overdue != step.overdue {
			t.Errorf("with %d months they are %+v", step.months, list)
		}
		n, err := f.EraseOverdue(ctx)
		if err != nil || (n == 1) != step.overdue {
			t.Errorf("with %d months %d are erased, %v", step.months, n, err)
		}
	}
	if found := rowsWith(t, s, "Ines of a"); len(found) > 0 {
		t.Errorf("of who was erased stands in %v", found)
	}
}

// The log of who did what has a row for each deed, and no student's name.
func TestTheLogOfDeeds(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	other := add(t, s, "b")
	student := store.Student{ID: f.student, ClassID: f.class, FirstName: "Inez of a", Instrument: "oboe"}
	for _, do := range []error{
		f.ShareClass(ctx, f.class, other.teacher, true), f.StopSharing(ctx, f.class, other.teacher), f.ChangeStudent(ctx, student),
		f.HasLeft(ctx, f.student), f.IsBack(ctx, f.student), f.MoveToTrash(ctx, store.TrashStudent, int64(f.student)), f.Restore(ctx, store.TrashStudent, int64(f.student)),
		f.MoveToTrash(ctx, store.TrashStudent, int64(f.student)), f.Erase(ctx, store.TrashStudent, int64(f.student)),
	} {
		if do != nil {
			t.Fatal(do)
		}
	}
	list, err := f.Activity(ctx)
	if err != nil {
		t.Fatal(err)
	}
	var deeds []string
	for _, l := range slices.Backward(list) {
		deeds = append(deeds, string(l.Action))
		if l.By != f.teacher || l.ByName != "a" {
			t.Errorf("%s is by %d, %q", l.Action, l.By, l.ByName)
		}
	}
	if got, want := strings.Join(deeds, ", "), "class made, students added, class made, class given, class taken back, student changed, student left, student back, student removed, student put back, student removed, student erased"; got != want {
		t.Errorf("the deeds are %s\nwant %s", got, want)
	}
	var named int
	if err := s.DB().QueryRow(`SELECT count(*) FROM activity d WHERE d::text LIKE '%Ine%'`).Scan(&named); err != nil || named > 0 {
		t.Errorf("%d rows name a student, %v", named, err)
	}
}
