package testsite

import (
	"context"
	"testing"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// BoardOf is a class with Ines, who has done the first chunk, and two violins who are
// stuck on the names of the second one; a third has tried nothing.
func BoardOf(t *testing.T) (*Site, *Visitor, Belongings) {
	t.Helper()
	s, ctx := Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	b, desk := Furnish(t, s.Store, account.ID), s.Store.For(account.ID)
	first, second := breakdown.ChunkKey{First: 1, Last: 2}, breakdown.ChunkKey{First: 3, Last: 4}
	yesterday := time.Now().AddDate(0, 0, -1)
	var log []store.Attempt
	add := func(who store.StudentID, chunk breakdown.ChunkKey, tries ...routine.Try) {
		for _, try := range tries {
			log = append(log, store.Attempt{StudentID: who, ExerciseID: b.Exercise, Chunk: chunk, Try: try, Tempo: 60, At: yesterday})
		}
	}
	for _, step := range routine.Standard() {
		add(b.Student, first, routine.Try{Stage: step.Stage, Clean: true}, routine.Try{Stage: step.Stage, Clean: true})
	}
	wrong := routine.Try{Stage: routine.Name, Cause: routine.WrongName}
	for _, name := range []string{"Alma", "Bo", "Cleo"} {
		id, err := desk.AddStudent(ctx, store.Student{ClassID: b.Class, FirstName: name, Instrument: "violin"})
		if err != nil {
			t.Fatal(err)
		}
		if name != "Cleo" {
			add(id, second, wrong, wrong, wrong)
		}
	}
	if err := desk.AddAttempts(ctx, log...); err != nil {
		t.Fatal(err)
	}
	return s, v, b
}
