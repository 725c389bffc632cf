package demo

import (
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"time"

	"unhurriedbench/core/format"
	"unhurriedbench/core/routine"
	"unhurriedbench/reading"
	"unhurriedbench/store"
)

// The invented teacher and section.
const (
	TeacherEmail = "wren@lantern-hall.example"
	TeacherName  = "Wren Okafor"
	School       = "Lantern Hall"
	SectionName  = "Tuesday mixed ensemble"
)

// students are invented; the number is how quick each is to play clean, of ten.
var students = []struct {
	first, initial, instrument string
	quick                      int
}{
	{"Ines", "P", "trombone", 6}, {"Tomo", "K", "trombone", 5}, {"Bea", "L", "trombone", 8},
	{"Marlo", "D", "clarinet", 7}, {"Suri", "A", "clarinet", 8}, {"Odette", "V", "clarinet", 5}, {"Jonah", "R", "clarinet", 6},
	{"Kofi", "B", "trumpet", 8}, {"Lena", "S", "trumpet", 6}, {"Piet", "H", "trumpet", 7},
	{"Amara", "N", "violin", 9}, {"Theo", "G", "violin", 6}, {"Yuki", "M", "violin", 7}, {"Rosa", "T", "violin", 8},
	{"Emil", "F", "cello", 7}, {"Nadia", "C", "cello", 8},
	{"Oscar", "W", "snare", 7}, {"Juno", "E", "snare", 6},
}

// Load puts the demo into the database, unless it is there already.
func Load(ctx context.Context, s *store.Store) error {
	return s.Alone(ctx, func() error { return load(ctx, s) })
}

func load(ctx context.Context, s *store.Store) error {
	_, err := s.DemoTeacher(ctx)
	if err == nil {
		return nil
	}
	if !errors.Is(err, store.ErrNotFound) {
		return fmt.Errorf("look for the demo: %w", err)
	}
	if err := s.DropUnfinishedDemo(ctx, TeacherEmail); err != nil {
		return err
	}
	t, err := s.AddDemoTeacher(ctx, TeacherEmail, TeacherName, School)
	if err != nil {
		return err
	}
	desk := s.For(t.ID)
	exercises, err := addBook(ctx, desk)
	if err != nil {
		return err
	}
	section, err := desk.AddSection(ctx, SectionName)
	if err != nil {
		return err
	}
	chance := rand.New(rand.NewPCG(9, 14)) // always the same demo
	for _, student := range students {
		id, err := desk.AddStudent(ctx, store.Student{
			SectionID: section, FirstName: student.first, Initial: student.initial, Instrument: student.instrument,
		})
		if err != nil {
			return err
		}
		if err := practise(ctx, desk, id, exercises, student.quick, chance); err != nil {
			return err
		}
	}
	return s.OpenDemo(ctx, t.ID)
}

// addBook puts the book on the shelf, read.
func addBook(ctx context.Context, desk *store.Desk) ([]store.Exercise, error) {
	exercises, err := Exercises()
	if err != nil {
		return nil, err
	}
	for _, x := range exercises {
		if _, err := desk.AddExercise(ctx, store.Exercise{Book: BookTitle, Number: x.Number, Title: x.Score.Title},
			store.Source{Format: format.ABC, Content: x.ABC}); err != nil {
			return nil, err
		}
	}
	return reading.New(reading.Memory).Exercises(ctx, desk)
}

// practise logs some weeks of tries: a number of them that grows with the
// student's quickness, piece by piece.
func practise(
	ctx context.Context,
	desk *store.Desk,
	student store.StudentID,
	exercises []store.Exercise,
	quick int,
	chance *rand.Rand,
) error {
	steps := desk.Routine()
	var log []store.Attempt
	keep := func() error {
		spreadOverWeeks(log)
		return desk.AddAttempts(ctx, log...)
	}
	left := 35*quick + chance.IntN(60)
	for _, x := range exercises {
		for _, piece := range x.Outline.Pieces {
			state := steps.Start()
			for tries := 0; state.Stage != routine.Done && tries < 16; tries++ {
				if left == 0 {
					return keep()
				}
				left--
				try := routine.Try{Stage: state.Stage, Clean: chance.IntN(10) < quick}
				if !try.Clean {
					try.Cause = routine.AllCauses()[chance.IntN(steps.Index(state.Stage)+1)]
				}
				log = append(log, store.Attempt{StudentID: student, ExerciseID: x.ID, Piece: piece, Try: try, Tempo: 60})
				state = steps.After(state, try)
			}
		}
	}
	return keep()
}

// spreadOverWeeks dates the tries over the Tuesdays of the last weeks, some
// twenty a lesson and two minutes apart.
func spreadOverWeeks(log []store.Attempt) {
	const perLesson = 24
	lessons := (len(log) + perLesson - 1) / perLesson
	last := time.Now().Truncate(24 * time.Hour).Add(-14 * time.Hour) // ten in the morning of the day before
	for last.Weekday() != time.Tuesday {
		last = last.AddDate(0, 0, -1)
	}
	for i := range log {
		log[i].At = last.AddDate(0, 0, -7*(lessons-1-i/perLesson)).Add(time.Duration(2*(i%perLesson)) * time.Minute)
	}
}
