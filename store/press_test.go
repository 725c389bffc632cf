package store_test

import (
	"context"
	"sync"
	"testing"
	"time"

	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// A press that is sent again, also by many at once, is logged once: alone, and for a
// class. Another teacher's press of the same key is their own.
func TestAPressIsLoggedOnce(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f, other := add(t, s, "a"), add(t, s, "b")
	before := f.at(t, firstChunk).Tries

	var wait sync.WaitGroup
	for range 8 {
		wait.Go(func() {
			if err := f.AddOnce(ctx, "one", f.try(true, routine.None)); err != nil {
				t.Error(err)
			}
		})
	}
	wait.Wait()
	if got := f.at(t, firstChunk).Tries; got != before+1 {
		t.Errorf("one press, sent eight times at once, is logged %d times", got-before)
	}
	if err := other.AddOnce(ctx, "one", other.try(true, routine.None)); err != nil {
		t.Error(err)
	}
	if got := other.at(t, firstChunk).Tries; got != before+1 {
		t.Errorf("another teacher's press of the same key is logged %d times", got-before)
	}

	mate, err := f.AddStudent(ctx, store.Student{ClassID: f.class, FirstName: "Tomo", Instrument: "violin"})
	if err != nil {
		t.Fatal(err)
	}
	theirs := f.try(true, routine.None)
	theirs.StudentID = mate
	batch, err := f.AddTogether(ctx, "all", f.try(true, routine.None), theirs)
	if err != nil {
		t.Fatal(err)
	}
	again, err := f.AddTogether(ctx, "all", f.try(true, routine.None), theirs)
	if err != nil || again != batch {
		t.Errorf("sent again the batch is %d, want %d, %v", again, batch, err)
	}
	if got := f.at(t, firstChunk).Tries; got != before+2 {
		t.Errorf("a class marked once and sent twice is logged %d times", got-before-1)
	}
	if got, known, err := f.Pressed(ctx, "all"); err != nil || !known || got != batch {
		t.Errorf("the press is %d, %v, %v", got, known, err)
	}
	if _, known, err := f.Pressed(ctx, "none"); err != nil || known {
		t.Errorf("a press that never was is known: %v", err)
	}
}

// The first account is made once, however many ask at once.
func TestTheFirstTeacherIsOne(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	var wait sync.WaitGroup
	made := make(chan store.Teacher, 8)
	for n := range 8 {
		wait.Go(func() {
			if teacher, err := s.AddFirstTeacher(ctx, string(rune('a'+n))+"@school.example", "T", "", "a long password"); err == nil {
				made <- teacher
			}
		})
	}
	wait.Wait()
	close(made)
	if n := len(made); n != 1 {
		t.Errorf("%d first teachers were made", n)
	}
	if all, err := s.Teachers(ctx); err != nil || len(all) != 1 {
		t.Errorf("there are %d teachers, %v", len(all), err)
	}
}

// Guesses are counted by key and minute, by every server together, and old ones go.
func TestGuessesAreCounted(t *testing.T) {
	t.Parallel()
	url := testdb.Make(t)
	one, err := store.Open(t.Context(), url)
	if err != nil {
		t.Fatal(err)
	}
	defer one.Close()
	two, err := store.Open(t.Context(), url)
	if err != nil {
		t.Fatal(err)
	}
	defer two.Close()
	minute := time.Date(2026, 9, 1, 8, 0, 0, 0, time.UTC)
	for n, s := range []*store.Store{one, two, one} {
		if err := s.CountGuesses(t.Context(), "192.0.2.1", minute.Add(time.Duration(n/2)*time.Minute), 2); err != nil {
			t.Fatal(err)
		}
	}
	for key, want := range map[string][2]int{"192.0.2.1": {2, 4}, "192.0.2.2": {0, 0}} {
		now, then, err := two.Guesses(t.Context(), key, minute.Add(time.Minute), minute)
		if err != nil || now != want[0] || then != want[1] {
			t.Errorf("%s has guessed %d times, before %d, %v; want %v", key, now, then, err, want)
		}
	}
	if err := one.CountGuesses(t.Context(), "192.0.2.2", minute.Add(time.Hour), 1); err != nil {
		t.Fatal(err)
	}
	var rows int
	var plain bool
	if err := one.DB().QueryRow(`SELECT count(*), bool_or(encode(hash, 'escape') LIKE '%192%') FROM guesses`).Scan(&rows, &plain); err != nil || rows != 1 || plain {
		t.Errorf("an hour later %d rows are kept, with the address: %v, %v", rows, plain, err)
	}
}
