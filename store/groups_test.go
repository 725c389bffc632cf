package store_test

import (
	"context"
	"errors"
	"testing"

	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// A group has lessons of its own over its students' one log, follows its class in year, counting
// and routine, and loses who moves to another class.
func TestGroups(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	high, err := f.AddStudent(ctx, store.Student{ClassID: f.class, FirstName: "Pim", Initial: "K", Instrument: "flute"})
	must(err)
	other, err := f.AddClass(ctx, "Friday")
	must(err)
	outside, err := f.AddStudent(ctx, store.Student{ClassID: other, FirstName: "Lio", Initial: "B", Instrument: "flute"})
	must(err)
	must(f.SaveYear(ctx, f.group, 2))
	must(f.SaveSchool(ctx, f.class, "takadimi"))
	must(f.ChooseRoutine(ctx, store.Chooser{Class: f.class}, routine.Shipped()[1].ID))

	classes, err := f.Classes(ctx)
	must(err)
	if len(classes) != 3 || classes[2].ID != f.group || classes[2].Name != "Tuesday of a: Low of a" || classes[2].Own != "Low of a" ||
		classes[2].OfClass != f.class || classes[2].Students != 1 || classes[2].Year != 2 || classes[1].Year != 2 ||
		classes[2].School != "takadimi" || classes[1].Students != 2 {
		t.Errorf("the classes are %+v", classes)
	}
	rules, err := f.Rules(ctx)
	must(err)
	if got := rules.Chosen(store.Chooser{Class: f.group}); got != routine.Shipped()[1].ID {
		t.Errorf("the group follows %q", got)
	}

	standings, err := f.ClassStandings(ctx, f.group)
	must(err)
	whole, err := f.ClassStandings(ctx, f.class)
	must(err)
	if len(standings) != 1 || len(standings) != len(whole) {
		t.Errorf("of the one log the group has %d, the class %d", len(standings), len(whole))
	}
	id, err := f.AddLesson(ctx, f.group, lesson.Plan{Minutes: 15})
	must(err)
	must(f.BeginLesson(ctx, id))
	if running, err := f.RunningLesson(ctx, f.class); err != nil || running != f.lesson {
		t.Errorf("with its group in a lesson the class is in %d, %v; want %d", running, err, f.lesson)
	}

	for what, err := range map[string]error{
		"somebody of another class": f.ChangeGroup(ctx, f.group, "Low", []store.StudentID{outside}),
		"a class as a group":        f.ChangeGroup(ctx, f.class, "Low", nil),
		"a group in a group":        second(f.AddGroup(ctx, f.group, "Lower", nil)),
		"a student in a group":      f.AddStudents(ctx, f.group, store.Student{FirstName: "Ada", Instrument: "oboe"}),
		"a group given away":        f.ShareClass(ctx, f.group, f.teacher, true),
	} {
		if !errors.Is(err, store.ErrNotFound) {
			t.Errorf("%s gives %v", what, err)
		}
	}
	if _, err := f.AddGroup(ctx, f.class, "Low of a", nil); !errors.Is(err, store.ErrTaken) {
		t.Errorf("a second group of a name gives %v", err)
	}
	if _, err := f.AddGroup(ctx, other, "Low of a", nil); err != nil {
		t.Errorf("another class's group of the name gives %v", err)
	}

	must(f.ChangeGroup(ctx, f.group, "All", []store.StudentID{f.student, high}))
	must(f.ChangeStudent(ctx, store.Student{ID: high, ClassID: other, FirstName: "Pim", Initial: "K", Instrument: "flute"}))
	students, err := f.Students(ctx, f.group)
	must(err)
	if len(students) != 1 || students[0].ID != f.student {
		t.Errorf("in the group are %+v", students)
	}
	must(f.MoveToTrash(ctx, store.TrashClass, int64(f.class)))
	if classes, err := f.Classes(ctx); err != nil || len(classes) != 2 {
		t.Errorf("without its class the group is there: %+v, %v", classes, err)
	}
}

func second[T any](_ T, err error) error { return err }
