package store_test

import (
	"context"
	"errors"
	"fmt"
	"testing"

	"unhurriedbench/core/lesson"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// A second instrument has a log of its own, one name with the first, and leaves, comes back
// and is taken away with it; taken away alone it goes alone.
func TestASecondInstrument(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := addMore(t, s, "a")
	first, err := f.StudentByID(ctx, f.student)
	if err != nil {
		t.Fatal(err)
	}
	second, err := f.OtherInstrument(ctx, first)
	if err != nil || second.AlsoOf != f.student || !second.Aside || second.Name() != first.Name() {
		t.Fatalf("the second instrument is %+v, %v", second, err)
	}
	if back, err := f.OtherInstrument(ctx, second); err != nil || back.ID != f.student {
		t.Errorf("the other instrument of the second is %+v, %v", back, err)
	}
	if log, err := f.StudentAttempts(ctx, second.ID); err != nil || len(log) != 0 {
		t.Errorf("its log has %v, %v", log, err)
	}
	other, err := f.AddClass(ctx, "Strings")
	if err != nil {
		t.Fatal(err)
	}
	for what, try := range map[string]func() (store.StudentID, error){
		"a third":                  func() (store.StudentID, error) { return f.AddSecondInstrument(ctx, f.student, f.class, "viola") },
		"a second of the second":   func() (store.StudentID, error) { return f.AddSecondInstrument(ctx, second.ID, f.class, "viola") },
		"the instrument they have": func() (store.StudentID, error) { return f.AddSecondInstrument(ctx, f.student, other, first.Instrument) },
	} {
		if _, err := try(); !errors.Is(err, store.ErrTaken) {
			t.Errorf("%s gives %v", what, err)
		}
	}
	second.ClassID, second.FirstName = other, "Inez"
	if err := f.ChangeStudent(ctx, second); err != nil {
		t.Fatal(err)
	}
	there := func() string {
		var words string
		for _, class := range []store.ClassID{f.class, other} {
			list, err := f.Students(ctx, class)
			if err != nil {
				t.Fatal(err)
			}
			for _, student := range list {
				words += fmt.Sprint(student.FirstName, " ", student.Instrument, " ", student.Aside, "; ")
			}
		}
		return words
	}
	both := "Inez trombone false; Inez euphonium false; " // which is aside in no class now
	firstID, secondID := int64(f.student), int64(second.ID)
	for _, step := range []struct {
		what string
		do   func() error
		want string
	}{
		{"has left", func() error { return f.HasLeft(ctx, f.student) }, ""},
		{"is back", func() error { return f.IsBack(ctx, f.student) }, both},
		{"has left, said of the second", func() error { return f.HasLeft(ctx, second.ID) }, ""},
		{"is back, said of the second", func() error { return f.IsBack(ctx, second.ID) }, both},
		{"taken away", func() error { return f.MoveToTrash(ctx, store.TrashStudent, firstID) }, ""},
		{"put back", func() error { return f.Restore(ctx, store.TrashStudent, firstID) }, both},
		{"the second alone taken away", func() error { return f.MoveToTrash(ctx, store.TrashStudent, secondID) }, "Inez trombone false; "},
		{"and the first", func() error { return f.MoveToTrash(ctx, store.TrashStudent, firstID) }, ""},
		{"the first put back", func() error { return f.Restore(ctx, store.TrashStudent, firstID) }, "Inez trombone false; "},
		{"and the second", func() error { return f.Restore(ctx, store.TrashStudent, secondID) }, both},
	} {
		if err := step.do(); err != nil {
			t.Fatalf("%s: %v", step.what, err)
		}
		if got := there(); got != step.want {
			t.Errorf("%s: there are %q, want %q", step.what, got, step.want)
		}
	}
}

// What is done to one instrument's row is seen after each step.
func TestBothInstrumentsGoTogether(t *testing.T) {
	t.Parallel()
	ctx := context.Background()
	for _, tt := range []struct {
		what    string
		do      func(f fixture, second store.StudentID) error
		there   int // rows of the class after it
		waiting int // in the bin or among those who left
	}{
		{"the first has left", func(f fixture, _ store.StudentID) error { return f.HasLeft(ctx, f.student) }, 0, 1},
		{"the second has left", func(f fixture, second store.StudentID) error { return f.HasLeft(ctx, second) }, 0, 1},
		{"the first is taken away", func(f fixture, _ store.StudentID) error {
			return f.MoveToTrash(ctx, store.TrashStudent, int64(f.student))
		}, 0, 1},
		{"the second is taken away", func(f fixture, second store.StudentID) error {
			return f.MoveToTrash(ctx, store.TrashStudent, int64(second))
		}, 1, 1},
		{"both are erased", func(f fixture, _ store.StudentID) error {
			return errors.Join(f.MoveToTrash(ctx, store.TrashStudent, int64(f.student)), f.Erase(ctx, store.TrashStudent, int64(f.student)))
		}, 0, 0},
	} {
		s := testdb.Open(t)
		f := addMore(t, s, "a")
		second, err := f.OtherInstrument(ctx, store.Student{ID: f.student})
		if err != nil {
			t.Fatal(err)
		}
		if err := tt.do(f, second.ID); err != nil {
			t.Fatalf("%s: %v", tt.what, err)
		}
		list, err1 := f.Students(ctx, f.class)
		bin, err2 := f.Trash(ctx)
		left, err3 := f.StudentsWhoLeft(ctx)
		if err := errors.Join(err1, err2, err3); err != nil {
			t.Fatal(err)
		}
		if len(list) != tt.there || len(bin)+len(left) != tt.waiting {
			t.Errorf("%s: %d are there and %d wait, want %d and %d", tt.what, len(list), len(bin)+len(left), tt.there, tt.waiting)
		}
		if rows := rowsWith(t, s, "Ines of a")["students"]; tt.there+tt.waiting == 0 && rows != 0 {
			t.Errorf("%s: %d rows of theirs are left", tt.what, rows)
		}
	}
}

// A lesson begins with the second instruments set aside.
func TestASecondInstrumentIsSetAside(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := addMore(t, s, "a")
	id, err := f.AddLesson(ctx, f.class, lesson.Plan{Minutes: 20})
	if err != nil {
		t.Fatal(err)
	}
	second, err := f.OtherInstrument(ctx, store.Student{ID: f.student})
	if err != nil {
		t.Fatal(err)
	}
	if err := f.BeginLesson(ctx, id); err != nil {
		t.Fatal(err)
	}
	l, err := f.Lesson(ctx, id)
	if err != nil || fmt.Sprint(l.Absent) != fmt.Sprint([]store.StudentID{second.ID}) {
		t.Errorf("set aside are %v, %v, want %d", l.Absent, err, second.ID)
	}
	if err := errors.Join(f.AtStep(ctx, id, 0, nil), f.BeginLesson(ctx, id)); err != nil {
		t.Fatal(err)
	}
	if l, err := f.Lesson(ctx, id); err != nil || len(l.Absent) != 0 {
		t.Errorf("begun again, %v are set aside, %v", l.Absent, err)
	}
	if classes, err := f.Classes(ctx); err != nil || classes[0].Students != 1 {
		t.Errorf("the class counts %d students, %v", classes[0].Students, err)
	}
}

// Seats are kept as given, and all of a class at once.
func TestSeats(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := addMore(t, s, "a")
	second, err := f.OtherInstrument(ctx, store.Student{ID: f.student})
	if err != nil {
		t.Fatal(err)
	}
	seats := func() string {
		list, err := f.Students(ctx, f.class)
		if err != nil {
			t.Fatal(err)
		}
		words := ""
		for _, student := range list {
			words += fmt.Sprint(student.Instrument, " ", student.Row, "/", student.Place, "; ")
		}
		return words
	}
	for _, step := range []struct {
		rows [][]store.StudentID
		want string
	}{
		{[][]store.StudentID{{second.ID, f.student}}, "trombone 1/2; euphonium 1/1; "},
		{[][]store.StudentID{{f.student}, {second.ID}}, "trombone 1/1; euphonium 2/1; "},
		{[][]store.StudentID{{second.ID}}, "trombone 0/0; euphonium 1/1; "},
	} {
		if err := f.SaveSeats(ctx, f.class, step.rows); err != nil {
			t.Fatal(err)
		}
		if got := seats(); got != step.want {
			t.Errorf("%v: they sit at %s, want %s", step.rows, got, step.want)
		}
	}
	if err := f.SaveSeats(ctx, f.class, [][]store.StudentID{{f.student}, {999}}); !errors.Is(err, store.ErrNotFound) || seats() != "trombone 0/0; euphonium 1/1; " {
		t.Errorf("with somebody from elsewhere: %v, %s", err, seats())
	}
}

// A table gives the student of a name a second instrument, also one who is new in it.
func TestATableBringsSecondInstruments(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := addMore(t, s, "a")
	nour := func(instrument string, second bool) store.RosterChange {
		return store.RosterChange{Student: store.Student{ClassID: f.class, FirstName: "Nour", Initial: "A", Instrument: instrument}, Second: second}
	}
	if err := f.BringRoster(ctx, []store.RosterChange{nour("trumpet", false), nour("cello", true)}); err != nil {
		t.Fatal(err)
	}
	list, err := f.Students(ctx, f.class)
	if err != nil || len(list) != 4 || list[3].Instrument != "cello" || list[3].AlsoOf != list[2].ID {
		t.Errorf("the class has %+v, %v", list, err)
	}
	for what, changes := range map[string][]store.RosterChange{
		"a second of a third": {nour("viola", true)},
		"of nobody":           {{Student: store.Student{ClassID: f.class, FirstName: "Nobody", Instrument: "viola"}, Second: true}},
	} {
		if err := f.BringRoster(ctx, changes); !errors.Is(err, store.ErrNotFound) && !errors.Is(err, store.ErrTaken) {
			t.Errorf("%s gives %v", what, err)
		}
	}
}
