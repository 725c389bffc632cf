package store_test

import (
	"context"
	"fmt"
	"testing"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// What is earned in the line counts for the chunks in it, and chunks that are alike share; a
// class is through with one clean time, a student alone with two. Where a reading says which
// chunks there are only later, the log is added up again.
func TestCreditOfALine(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	if err := f.SaveHandChunks(ctx, f.exercise, nil); err != nil {
		t.Fatal(err)
	}
	if _, err := f.UndoAttempt(ctx, f.attempt); err != nil {
		t.Fatal(err)
	}
	other, err := f.AddStudent(ctx, store.Student{ClassID: f.class, FirstName: "Marlo", Initial: "D", Instrument: "trombone"})
	if err != nil {
		t.Fatal(err)
	}
	key := func(first, last int) breakdown.ChunkKey { return breakdown.ChunkKey{First: first, Last: last} }
	try := func(student store.StudentID, unit breakdown.ChunkKey, stage routine.Stage) store.Attempt {
		return store.Attempt{StudentID: student, ExerciseID: f.exercise, Chunk: unit, Tempo: 60, Try: routine.Try{Stage: stage, Clean: true}}
	}
	stands := func(when string, student store.StudentID, want string) {
		t.Helper()
		standings, err := f.ExerciseStandings(ctx, f.exercise, f.class)
		if err != nil {
			t.Fatal(err)
		}
		then, err := f.StandingsBy(ctx, f.class, time.Now().Add(time.Minute))
		if err != nil {
			t.Fatal(err)
		}
		for _, list := range []store.Standings{standings, then} {
			got, at := "", list[store.Task{Student: student, Exercise: f.exercise}]
			for _, chunk := range []breakdown.ChunkKey{key(1, 2), key(3, 4), key(5, 6), key(1, 6)} {
				if state, known := at.Chunks[chunk]; known {
					got += fmt.Sprintf("%v %s %04b ", chunk, state.Stage, state.Earned)
				}
			}
			if got != want {
				t.Errorf("%s: %s, want %s", when, got, want)
			}
		}
	}
	// the class counts the whole line, before anything is known of its chunks
	if _, err := f.AddTogether(ctx, "", try(f.student, key(1, 6), routine.Count), try(other, key(1, 6), routine.Count)); err != nil {
		t.Fatal(err)
	}
	if err := f.AddAttempts(ctx, try(f.student, key(1, 2), routine.Name), try(f.student, key(5, 6), routine.Name)); err != nil {
		t.Fatal(err)
	}
	read, err := format.Read(ctx, "tune.abc", []byte("X:1\nT:Tune\nM:4/4\nL:1/4\nK:C\nC D E F|G2 G2|A G F E|D2 D2|C D E F|G2 G2|]\n"))
	if err != nil {
		t.Fatal(err)
	}
	x, err := f.ExerciseByID(ctx, f.exercise)
	if err != nil {
		t.Fatal(err)
	}
	r := f.reading()
	r.Outlines[""] = breakdown.OutlineOf(read.Score.Parts[0])
	if err := f.SaveReading(ctx, f.exercise, x.Revision, r); err != nil {
		t.Fatal(err)
	}
	stands("read", f.student, "1-2 finger 0011 3-4 name 0001 5-6 finger 0011 1-6 name 0001 ") // A named once at each of its two places
	stands("of another student", other, "1-2 name 0001 3-4 name 0001 5-6 name 0001 1-6 name 0001 ")
	if at := f.standing(t, f.student); at.Tries != 3 || at.Latest != key(5, 6) {
		t.Errorf("three tries are counted as %d, the last at %v", at.Tries, at.Latest)
	}
	// marked together, but of one student alone
	if _, err := f.AddTogether(ctx, "", try(other, key(1, 6), routine.Name)); err != nil {
		t.Fatal(err)
	}
	stands("named once alone", other, "1-2 name 0001 3-4 name 0001 5-6 name 0001 1-6 name 0001 ")
	// another cut of the line
	if err := f.SaveHandChunks(ctx, f.exercise, []breakdown.HandChunk{{Key: key(3, 4)}, {Key: key(1, 6)}}); err != nil {
		t.Fatal(err)
	}
	stands("cut by hand", other, "3-4 name 0001 1-6 name 0001 ")
}

// standing is where a student stands on the fixture's exercise.
func (f fixture) standing(t *testing.T, student store.StudentID) struct {
	Tries  int
	Latest breakdown.ChunkKey
} {
	t.Helper()
	standings, err := f.StudentStandings(context.Background(), student)
	if err != nil {
		t.Fatal(err)
	}
	at := standings[store.Task{Student: student, Exercise: f.exercise}]
	return struct {
		Tries  int
		Latest breakdown.ChunkKey
	}{at.Tries, at.Latest}
}
