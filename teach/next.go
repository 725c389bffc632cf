package teach

import (
	"context"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/store"
)

// Room is who an order of ease is for.
type Room struct {
	Class    store.Class
	Student  store.Student // alone; ID 0 for the class
	Students int
	Players  []breakdown.Player
}

// AddPlayers adds a given number of players of each instrument; of one alone where somebody plays it.
func (room *Room) AddPlayers(playing map[string]int, only string) {
	for _, i := range instrument.All() {
		if n := playing[i.ID]; n > 0 && (playing[only] == 0 || only == i.ID) {
			room.Players = append(room.Players, breakdown.Player{Instrument: i.ID, Count: n})
		}
	}
}

// NextExercise is an exercise in the order of ease.
type NextExercise struct {
	breakdown.Next
	store.Exercise
}

// MeantFor says whether an exercise is for the room: for more than half of those in it.
func (room Room) MeantFor(x store.Exercise) bool {
	meant, all := 0, 0
	for _, p := range room.Players {
		i, _ := instrument.ByID(p.Instrument)
		if all += p.Count; x.Audience().Includes(i) {
			meant += p.Count
		}
	}
	return 2*meant > all
}

// NextFor is the next number in the book that a student works in, nil where there is none.
func NextFor(ctx context.Context, desk *Class, student store.Student) (*NextExercise, error) {
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return nil, err
	}
	room := Room{Class: store.Class{ID: student.ClassID}, Student: student}
	room.AddPlayers(map[string]int{student.Instrument: 1}, "")
	books, err := WhatNext(ctx, desk, room, exercises)
	if err != nil {
		return nil, err
	}
	return firstInBook(exercises, books), nil
}

// firstInBook is the next number of the book that most was worked on in.
func firstInBook(exercises []store.Exercise, books map[store.BookID]bookNext) *NextExercise {
	var next *NextExercise
	worked := -1
	for _, x := range exercises { // by book, as the Shelf has them
		if b := books[x.BookID]; len(b.InOrder) > 0 && b.Worked > worked {
			next, worked = &b.InOrder[0], b.Worked
		}
	}
	return next
}

// bookNext is what comes next in a book.
type bookNext struct {
	InOrder []NextExercise // the next numbers that are meant for the room
	Easier  []NextExercise // the easiest first
	Worked  int            // exercises that were worked on
}

// mostNext is how many exercises of a book are next.
const mostNext = 6

// WhatNext finds what comes next in each book for who is in the room, of what they have not
// worked on and is meant for them: the next numbers, and as another choice the easiest.
func WhatNext(ctx context.Context, desk *Class, room Room,
	exercises []store.Exercise) (map[store.BookID]bookNext, error) {
	books := map[store.BookID]bookNext{}
	if len(room.Players) == 0 {
		return books, nil
	}
	worked, err := desk.Worked(ctx, room.Class.ID, room.Student.ID)
	if err != nil {
		return nil, err
	}
	demands := map[string]map[store.ExerciseID]breakdown.Demands{}
	for _, p := range room.Players {
		desk.ExpectInstruments(p.Instrument)
	}
	for _, p := range room.Players {
		if demands[p.Instrument], err = desk.Demands(ctx, p.Instrument); err != nil {
			return nil, err
		}
	}
	played := playedOf(exercises, worked)
	for p := range room.Players { // what is met is what was played brought
		player := &room.Players[p]
		player.Met = breakdown.MetIn()
		for _, x := range exercises {
			if !played[x.ID] {
				continue
			}
			for _, t := range demands[player.Instrument][x.ID].Elements {
				player.Met.Add(t)
			}
		}
	}
	left := map[store.BookID][]store.Exercise{}
	for _, x := range exercises {
		if slices.Contains(worked, x.ID) {
			book := books[x.BookID]
			book.Worked++
			books[x.BookID] = book
		}
		if !played[x.ID] && x.Unread == "" && room.MeantFor(x) {
			left[x.BookID] = append(left[x.BookID], x)
		}
	}
	behind := leftBehind(exercises, worked)
	for id, list := range left {
		book := books[id]
		book.Easier = ordered(list, demands, room.Players, breakdown.Easiest)
		slices.SortStableFunc(list, func(a, b store.Exercise) int { return boolOrder(behind[a.ID]) - boolOrder(behind[b.ID]) })
		book.InOrder = ordered(list, demands, room.Players, breakdown.InOrder)
		books[id] = book
	}
	return books, nil
}

// ordered puts exercises of a book in an order.
func ordered(left []store.Exercise, demands map[string]map[store.ExerciseID]breakdown.Demands,
	players []breakdown.Player, order func([]breakdown.Candidate, []breakdown.Player, int) []breakdown.Next) []NextExercise {
	list := make([]breakdown.Candidate, len(left))
	for k, x := range left {
		list[k] = breakdown.Candidate{Number: x.Number, Demands: map[string]breakdown.Demands{}}
		for id := range demands {
			list[k].Demands[id] = demands[id][x.ID]
		}
	}
	var next []NextExercise
	for _, n := range order(list, players, mostNext) {
		next = append(next, NextExercise{n, left[n.At]})
	}
	return next
}

// A number that was not worked on is left behind where goneOn of the ahead numbers after it
// were: the teacher has gone on without it. The figures are ours.
const (
	ahead  = 4
	goneOn = 2
)

// leftBehind are the exercises that the room has gone on without.
func leftBehind(exercises []store.Exercise, worked []store.ExerciseID) map[store.ExerciseID]bool {
	behind := map[store.ExerciseID]bool{}
	for k, x := range exercises {
		after := 0
		for _, later := range exercises[k+1 : min(k+1+ahead, len(exercises))] {
			if later.BookID == x.BookID && slices.Contains(worked, later.ID) {
				after++
			}
		}
		behind[x.ID] = after >= goneOn && !slices.Contains(worked, x.ID)
	}
	return behind
}

// playedOf are the exercises that were worked on, and those of their books numbered before the
// first of them.
func playedOf(exercises []store.Exercise, worked []store.ExerciseID) map[store.ExerciseID]bool {
	first, played := map[store.BookID]int{}, map[store.ExerciseID]bool{}
	for _, x := range exercises {
		if slices.Contains(worked, x.ID) && (first[x.BookID] == 0 || x.Number < first[x.BookID]) {
			first[x.BookID] = x.Number
		}
	}
	for _, x := range exercises {
		played[x.ID] = x.Number < first[x.BookID] || slices.Contains(worked, x.ID)
	}
	return played
}
