package demo

import (
	"context"
	"errors"
	"fmt"
	"math/rand/v2"
	"time"

	"unhurriedbench/core/format"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/reading"
	"unhurriedbench/store"
)

// The invented teacher and class.
const (
	TeacherEmail = "wren@lantern-hall.example"
	TeacherName  = "Wren Okafor"
	School       = "Lantern Hall"
	ClassName    = "Tuesday mixed ensemble"
)

// StringsName is the second class's.
const StringsName = "Wednesday strings"

// habit is what a student stumbles over most.
type habit string

const (
	steady  habit = ""
	rushes  habit = "rushes"  // counts on before the long notes are over
	thirds  habit = "thirds"  // takes thirds for steps
	noBreak habit = "break"   // cannot cross to the other register
	late    habit = "fingers" // has the fingers late at hard changes
)

// student is invented; quick is how often of ten a try is clean.
type student struct {
	first, initial, instrument string
	quick                      int
	habit                      habit
}

// The students of both classes, who differ.
var (
	students = []student{
		{"Ines", "P", "trombone", 6, steady}, {"Tomo", "K", "trombone", 5, rushes}, {"Bea", "L", "trombone", 8, steady},
		{"Marlo", "D", "clarinet", 7, noBreak}, {"Suri", "A", "clarinet", 8, steady}, {"Odette", "V", "clarinet", 5,
			thirds}, {"Jonah", "R", "clarinet", 6, steady},
		{"Kofi", "B", "trumpet", 8, steady}, {"Lena", "S", "trumpet", 6, thirds}, {"Piet", "H", "trumpet", 7, steady},
		{"Amara", "N", "violin", 9, steady}, {"Theo", "G", "violin", 6, late}, {"Yuki", "M", "violin", 7, steady},
		{"Rosa", "T", "violin", 8, steady},
		{"Emil", "F", "cello", 7, steady}, {"Nadia", "C", "cello", 8, steady},
		{"Oscar", "W", "snare", 7, rushes}, {"Juno", "E", "snare", 6, steady},
	}
	stringPlayers = []student{
		{"Alma", "R", "violin", 8, steady}, {"Bruno", "K", "violin", 6, rushes}, {"Cleo", "M", "violin", 7, thirds},
		{"Dario", "S", "violin", 9, steady},
		{"Elif", "T", "viola", 7, late}, {"Finn", "O", "viola", 8, steady}, {"Greta", "H", "cello", 6, steady},
		{"Hugo", "L", "cello", 8, steady}, {"Ida", "N", "bass", 7, late},
	}
)

// secondYear is with which exercise the second class began.
const secondYear = 16

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
	if err := s.DeleteUnfinishedDemo(ctx, TeacherEmail); err != nil {
		return err
	}
	t, err := s.AddDemoTeacher(ctx, TeacherEmail, TeacherName, School)
	if err != nil {
		return err
	}
	desk := s.For(t.ID)
	book, err := Exercises()
	if err != nil {
		return err
	}
	exercises, err := addBook(ctx, desk, book)
	if err != nil {
		return err
	}
	chance := rand.New(rand.NewPCG(9, 14)) // always the same demo
	if err := addClass(ctx, desk, ClassName, 1, students, exercises, book, chance); err != nil {
		return err
	}
	if err := addClass(ctx, desk, StringsName, 2, stringPlayers, exercises[secondYear-1:], book, chance); err != nil {
		return err
	}
	return s.OpenDemo(ctx, t.ID)
}

// addClass adds a class with its students and what they have tried of some exercises.
func addClass(ctx context.Context, desk *store.Desk, name string, year int, list []student,
	exercises []store.Exercise, book []Exercise, chance *rand.Rand) error {
	class, err := desk.AddClass(ctx, name)
	if err != nil {
		return err
	}
	if err := desk.SaveYear(ctx, class, year); err != nil {
		return err
	}
	ids, plays := make([]store.StudentID, len(list)), make([]string, len(list))
	for k, who := range list {
		id, err := desk.AddStudent(ctx, store.Student{ClassID: class, FirstName: who.first, Initial: who.initial,
			Instrument: who.instrument})
		if err != nil {
			return err
		}
		ids[k], plays[k] = id, who.instrument
		target, _ := instrument.ByID(who.instrument)
		p := practice{who: who, target: target, year: year, scores: book, chance: chance}
		if err := desk.AddAttempts(ctx, p.term(desk.Routine(), id, exercises)...); err != nil {
			return err
		}
	}
	rows := lesson.Seats(plays, seatsAcross)
	seats := make([][]store.StudentID, len(rows))
	for k, row := range rows {
		for _, player := range row {
			seats[k] = append(seats[k], ids[player])
		}
	}
	return desk.SaveSeats(ctx, class, seats)
}

// seatsAcross is how many sit in a row.
const seatsAcross = 6

// AddBook puts the book on a shelf, read.
func AddBook(ctx context.Context, desk *store.Desk) error {
	book, err := Exercises()
	if err == nil {
		_, err = addBook(ctx, desk, book)
	}
	return err
}

// addBook puts the book on the shelf, read.
func addBook(ctx context.Context, desk *store.Desk, book []Exercise) ([]store.Exercise, error) {
	for _, x := range book {
		if _, err := desk.AddExercise(ctx, store.Exercise{Book: BookTitle, Number: x.Number, Title: x.Score.Title},
			store.Source{Format: format.ABC, Content: x.ABC}); err != nil {
			return nil, err
		}
	}
	return reading.New(reading.Memory).Exercises(ctx, desk)
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
