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

// bookNext is what comes next in a book.
type bookNext struct {
	Exercises []NextExercise // the easiest first
	Worked    int            // exercises that were worked on
}

// mostNext is how many exercises of a book are next.
const mostNext = 6

// WhatNext finds what comes next in each book for who is in the room: of what they have not
// worked on, the easiest.
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
		if !played[x.ID] && x.Unread == "" {
			left[x.BookID] = append(left[x.BookID], x)
		}
	}
	for id, list := range left {
		book := books[id]
		book.Exercises = easiest(list, demands, room.Players)
		books[id] = book
	}
	return books, nil
}

// easiest orders exercises of a book, which begin with the easiest.
func easiest(left []store.Exercise, demands map[string]map[store.ExerciseID]breakdown.Demands,
	players []breakdown.Player) []NextExercise {
	list := make([]breakdown.Candidate, len(left))
	for k, x := range left {
		list[k] = breakdown.Candidate{Number: x.Number, Demands: map[string]breakdown.Demands{}}
		for id := range demands {
			list[k].Demands[id] = demands[id][x.ID]
		}
	}
	var next []NextExercise
	for _, n := range breakdown.Easiest(list, players, mostNext) {
		next = append(next, NextExercise{n, left[n.At]})
	}
	return next
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
