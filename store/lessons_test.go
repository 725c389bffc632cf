package store_test

import (
	"context"
	"errors"
	"testing"
	"time"

	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// A class has one plan at a time, and is in one lesson at a time; one that is over
// changes no more.
func TestLessons(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a") // in a lesson
	must := func(id store.LessonID, err error) store.LessonID {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
		return id
	}
	first := must(f.AddLesson(ctx, f.class, lesson.Plan{Minutes: 20}))
	second := must(f.AddLesson(ctx, f.class, lesson.Plan{Minutes: 25}))
	if _, err := f.Lesson(ctx, first); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a plan that another took the place of gives %v", err)
	}
	if got := must(f.RunningLesson(ctx, f.class)); got != f.lesson {
		t.Errorf("the class is in lesson %d, want %d", got, f.lesson)
	}
	if err := f.BeginLesson(ctx, second); err != nil {
		t.Fatal(err)
	}
	if got := must(f.RunningLesson(ctx, f.class)); got != second {
		t.Errorf("the class is in lesson %d, want %d", got, second)
	}
	if l, err := f.Lesson(ctx, f.lesson); err != nil || l.Ended == nil {
		t.Errorf("the lesson before has not ended: %+v, %v", l, err)
	}
	if err := f.AtStep(ctx, second, 3, []store.StudentID{f.student, f.student}); err != nil {
		t.Fatal(err)
	}
	l, err := f.Lesson(ctx, second)
	if err != nil || l.Step != 3 || len(l.Absent) != 1 || l.Plan.Minutes != 25 || !l.Running() {
		t.Errorf("the lesson is %+v, %v", l, err)
	}
	if err := f.DeleteLesson(ctx, second); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("taking a lesson away that has begun gives %v", err)
	}
	if err := f.EndLesson(ctx, second); err != nil {
		t.Fatal(err)
	}
	for what, err := range map[string]error{
		"another plan": f.SavePlan(ctx, second, lesson.Plan{Minutes: 5}), "another step": f.AtStep(ctx, second, 1, nil), "beginning again": f.BeginLesson(ctx, second),
		"ending what is only planned": f.EndLesson(ctx, must(f.AddLesson(ctx, f.class, lesson.Plan{Minutes: 5}))),
		"a class that is not there":   func() error { _, err := f.AddLesson(ctx, 999, lesson.Plan{}); return err }(),
	} {
		if !errors.Is(err, store.ErrNotFound) {
			t.Errorf("%s gives %v", what, err)
		}
	}
	if got := must(f.RunningLesson(ctx, f.class)); got != 0 {
		t.Errorf("after the end the class is in lesson %d", got)
	}
}

// What was tried in a lesson is what was tried between its beginning and its end, and not
// taken back.
func TestLessonAttempts(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a") // with a try just now
	early, late := f.try(false, routine.Rhythm), f.try(false, routine.Sound)
	early.At, late.At = time.Now().Add(-2*time.Hour), time.Now().Add(2*time.Hour)
	if err := f.AddAttempts(ctx, early, late); err != nil {
		t.Fatal(err)
	}
	in := func() int {
		list, err := f.LessonAttempts(ctx, f.class, time.Now().Add(-time.Hour), time.Now().Add(time.Hour))
		if err != nil {
			t.Fatal(err)
		}
		return len(list)
	}
	if got := in(); got != 1 {
		t.Errorf("%d tries belong to the lesson", got)
	}
	if _, err := f.UndoAttempt(ctx, f.attempt); err != nil {
		t.Fatal(err)
	}
	if got := in(); got != 0 {
		t.Errorf("taken back, %d tries belong to the lesson", got)
	}
}
