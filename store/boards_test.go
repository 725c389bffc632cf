package store_test

import (
	"context"
	"fmt"
	"testing"
	"time"

	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// The weeks count what was tried and what was clean, without what was taken back and
// without moves; where a class stood on a day is what its log added up to then.
func TestWeeksAndStandingsBy(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a") // with one clean try at Count just now
	monday := time.Date(2026, 3, 2, 9, 0, 0, 0, time.UTC)
	try := func(at time.Time, clean bool) store.Attempt {
		a := f.try(clean, routine.None)
		if a.At = at; !clean {
			a.Cause = routine.Rhythm
		}
		return a
	}
	moved := try(monday, false)
	moved.Try = routine.Try{Stage: routine.Count, Moved: true}
	back := f.log(t, try(monday.Add(time.Hour), false))
	if err := f.AddAttempts(ctx, try(monday, true), try(monday.AddDate(0, 0, 6), true), moved, try(monday.AddDate(0, 0, 7), false)); err != nil {
		t.Fatal(err)
	}
	if _, err := f.UndoAttempt(ctx, back); err != nil {
		t.Fatal(err)
	}
	weeks, err := f.Weeks(ctx, f.class, monday.AddDate(0, 0, -1))
	var said []string
	for _, w := range weeks[:2] {
		said = append(said, fmt.Sprint(w.Monday.Format(time.DateOnly), " ", w.Tries, " ", w.Clean))
	}
	if err != nil || fmt.Sprint(said) != "[2026-03-02 2 2 2026-03-09 1 0]" {
		t.Errorf("the weeks are %v, %v", said, err)
	}
	for _, tt := range []struct {
		by   time.Time
		want string
	}{
		{monday, "nothing"}, {monday.AddDate(0, 0, 1), "count 0 after 1"}, {monday.AddDate(0, 0, 7), "count 0 after 2"}, {monday.AddDate(0, 0, 8), "count 0 after 3"},
	} {
		got := "nothing"
		list, err := f.StandingsBy(ctx, f.class, tt.by)
		if at := list[store.Task{Student: f.student, Exercise: f.exercise}]; at != nil {
			state := at.State(routine.Standard(), firstChunk)
			got = fmt.Sprintf("%s %d after %d", state.Stage, state.Clean, at.Tries)
		}
		if err != nil || got != tt.want {
			t.Errorf("by %s the class stood at %s, want %s, %v", tt.by.Format(time.DateOnly), got, tt.want, err)
		}
	}
}

// What a class stood at by now is what is kept beside its log.
func TestStandingsByNow(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	for n := range 20 {
		a := f.try(n%3 > 0, routine.None)
		if a.Stage = routine.Standard()[n/6%4].Stage; !a.Clean {
			a.Cause = routine.AllCauses()[n%4]
		}
		f.log(t, a)
	}
	archived, err := f.ClassStandings(ctx, f.class)
	if err != nil {
		t.Fatal(err)
	}
	now, err := f.StandingsBy(ctx, f.class, time.Now().Add(time.Minute))
	if err != nil {
		t.Fatal(err)
	}
	for task, standing := range archived {
		got, want := now[task].State(routine.Standard(), firstChunk), standing.State(routine.Standard(), firstChunk)
		if got.Since = 0; got != want { // which is kept as a time
			t.Errorf("it stands at %+v, kept is %+v", got, want)
		}
	}
}
