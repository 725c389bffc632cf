package testsite

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testscore"
	"unhurriedbench/store"
)

// School is a site with a signed-in teacher who has a large book and a class.
type School struct {
	*Site
	Visitor  *Visitor
	Desk     *store.Desk
	Class    store.ClassID
	Students []store.StudentID
	List     []store.Exercise
}

// FurnishSchool makes a given number of short exercises and full scores of 3 MB, and students
// who have tried some of them.
func FurnishSchool(b testing.TB, exercises, scores, students, triesEach int) *School {
	b.Helper()
	s := &School{Site: Open(b)}
	v, account := s.Teacher(b, "a@school.example")
	s.Visitor, s.Desk = v, s.Store.For(account.ID)
	ctx := context.Background()
	fail := func(err error) {
		b.Helper()
		if err != nil {
			b.Fatal(err)
		}
	}
	var err error
	s.Class, err = s.Desk.AddClass(ctx, "Class")
	fail(err)
	large := string(musicxml.Write(testscore.Long(b)))
	for n := range exercises {
		source := store.Source{Format: "abc", Content: strings.Replace(Lamp, "First Lamp", fmt.Sprint("Lamp ", n), 1)}
		if n < scores {
			source = store.Source{Format: "musicxml", Content: large + fmt.Sprintf("<!-- %d -->", n)}
		}
		_, err := s.Desk.AddExercise(ctx, store.Exercise{Book: "Book", Number: n + 1, Title: fmt.Sprint("Lamp ", n)}, source)
		fail(err)
	}
	s.Visitor.Get("/") // which reads them
	s.List, err = s.Desk.Exercises(ctx)
	fail(err)
	steps := routine.Standard()
	for k := range students {
		id, err := s.Desk.AddStudent(
			ctx,
			store.Student{ClassID: s.Class, FirstName: "A", Initial: "B", Instrument: []string{"violin", "trombone", "clarinet"}[k%3]},
		)
		fail(err)
		s.Students = append(s.Students, id)
		var log []store.Attempt
		for n := range triesEach {
			x := s.List[n/20%len(s.List)]
			a := store.Attempt{StudentID: id, ExerciseID: x.ID, Chunk: x.Outline.Chunks[n%2],
				Try: routine.Try{Stage: steps[n/6%len(steps)].Stage, Clean: n%3 > 0}, Tempo: 60}
			if !a.Clean {
				a.Cause = routine.Rhythm
			}
			log = append(log, a)
		}
		fail(s.Desk.AddAttempts(ctx, log...))
	}
	_, err = s.Store.DB().ExecContext(ctx, "ANALYZE")
	fail(err)
	return s
}
