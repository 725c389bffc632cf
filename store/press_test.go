package store_test

import (
	"context"
	"sync"
	"testing"

	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// A press that is sent again, also by many at once, is logged once: alone, and for a
// section. Another teacher's press of the same key is their own.
func TestAPressIsLoggedOnce(t *testing.T) {
	s, ctx := testdb.Open(t), context.Background()
	f, other := add(t, s, "a"), add(t, s, "b")
	before := f.at(t, firstPiece).Tries

	var wait sync.WaitGroup
	for range 8 {
		wait.Go(func() {
			if err := f.AddPressed(ctx, "one", f.try(true, routine.None)); err != nil {
				t.Error(err)
			}
		})
	}
	wait.Wait()
	if got := f.at(t, firstPiece).Tries; got != before+1 {
		t.Errorf("one press, sent eight times at once, is logged %d times", got-before)
	}
	if err := other.AddPressed(ctx, "one", other.try(true, routine.None)); err != nil {
		t.Error(err)
	}
	if got := other.at(t, firstPiece).Tries; got != before+1 {
		t.Errorf("another teacher's press of the same key is logged %d times", got-before)
	}

	mate, err := f.AddStudent(ctx, store.Student{SectionID: f.section, FirstName: "Tomo", Instrument: "violin"})
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
	if got := f.at(t, firstPiece).Tries; got != before+2 {
		t.Errorf("a section marked once and sent twice is logged %d times", got-before-1)
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
