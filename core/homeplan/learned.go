package homeplan

import (
	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
)

// DatedTry is a try at an exercise with the day it was made, counted from 1 January 1970.
type DatedTry struct {
	progress.Logged
	On int
}

// Learned says when a done chunk was clean last, and on how many days it was clean again since
// it was done; done is false for a chunk that is not. The tries are all of the exercise, oldest
// first.
func Learned(r routine.Routine, o breakdown.Outline, tries []DatedTry,
	chunk breakdown.ChunkKey) (last, reviews int, done bool) {
	log := make([]progress.Logged, len(tries))
	for k, t := range tries {
		log[k] = t.Logged
	}
	before, on := r.First(), 0 // the last day that counts
	for _, s := range progress.History(r, o, log, chunk) {
		t := tries[s.At]
		switch {
		case s.Stage != routine.Done:
			last, reviews, on = 0, 0, 0
		case before != routine.Done:
			last, reviews, on = t.On, 0, t.On
		case t.Clean && t.On > on:
			last, reviews, on = t.On, reviews+1, t.On
		}
		before = s.Stage
	}
	return last, reviews, before == routine.Done
}
