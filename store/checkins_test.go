package store_test

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"

	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// A student has one check-in to come; what is marked at it stands in the log and goes back by
// undo; its end sets the next one.
func TestCheckins(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := addMore(t, s, "a") // with a check-in and a try at it
	day := time.Date(2026, 12, 3, 0, 0, 0, 0, time.UTC)
	if err := f.SetCheckins(ctx, store.Checkin{Student: f.student, On: day, Due: []lesson.Step{{Exercise: int64(f.exercise), Title: "again"}}}); err != nil {
		t.Fatal(err)
	}
	c, err := f.Checkin(ctx, f.checkin)
	if err != nil || !c.On.Equal(day) || len(c.Due) != 1 || c.Due[0].Title != "again" || c.Heard != nil {
		t.Fatalf("set anew, the check-in is %+v, %v", c, err)
	}
	for range 2 { // the press is sent again
		if err := f.MarkAtCheckin(ctx, "a press", f.checkin, f.try(false, routine.Sound)); err != nil {
			t.Fatal(err)
		}
	}
	tries := func() string {
		list, err := f.CheckinTries(ctx, c)
		if err != nil {
			t.Fatal(err)
		}
		var words []string
		for _, a := range list {
			words = append(words, fmt.Sprint(a.Clean, a.Cause))
		}
		return strings.Join(words, " ")
	}
	if got := tries(); got != "true falsesound" {
		t.Errorf("marked at it are %s", got)
	}
	if _, err := f.UndoAttempt(ctx, lastOf(t, f)); err != nil {
		t.Fatal(err)
	}
	if got := tries(); got != "true" {
		t.Errorf("after undo, marked at it are %s", got)
	}
	next := store.Checkin{On: day.AddDate(0, 0, 7), Due: []lesson.Step{{Exercise: int64(f.exercise), Title: "next"}}}
	if err := f.EndCheckin(ctx, f.checkin, "Steadier.", next); err != nil {
		t.Fatal(err)
	}
	if err := f.EndCheckin(ctx, f.checkin, "Steadier, much.", store.Checkin{On: day.AddDate(0, 0, 20)}); err != nil { // sent again: the next one stays
		t.Fatal(err)
	}
	list, err := f.StudentCheckins(ctx, f.student, 9)
	if err != nil || len(list) != 2 || list[0].Heard != nil || !list[0].On.Equal(next.On) || list[1].Comment != "Steadier, much." || list[1].Heard == nil {
		t.Errorf("the check-ins are %+v, %v", list, err)
	}
	of, err := f.ClassCheckins(ctx, f.class)
	if err != nil || len(of) != 2 {
		t.Errorf("the class's are %+v, %v", of, err)
	}
	if err := f.DeleteCheckin(ctx, f.checkin); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("one that was heard is dropped: %v", err)
	}
	if err := errors.Join(f.SaveDue(ctx, list[0].ID, nil), f.DeleteCheckin(ctx, list[0].ID)); err != nil {
		t.Fatal(err)
	}
	if err := f.SetCheckins(ctx, store.Checkin{Student: 999, On: day}); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a check-in of nobody gives %v", err)
	}
}

// lastOf is the newest try of the fixture's student.
func lastOf(t *testing.T, f fixture) store.AttemptID {
	t.Helper()
	log, err := f.StudentAttempts(context.Background(), f.student)
	if err != nil {
		t.Fatal(err)
	}
	return log[0].ID
}
