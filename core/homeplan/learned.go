package homeplan

import "unhurriedbench/core/routine"

// DatedTry is a try with the day it was made, counted from 1 January 1970.
type DatedTry struct {
	routine.Try
	On int
}

// Learned says when a done chunk was clean last, and on how many days it was clean again since
// it was done; done is false for a chunk that is not. The tries are the chunk's, oldest first.
func Learned(r routine.Routine, tries []DatedTry) (last, reviews int, done bool) {
	state, on := r.Start(), 0 // the last day that counts
	for _, t := range tries {
		before := state.Stage
		state = r.After(state, t.Try)
		switch {
		case state.Stage != routine.Done:
			last, reviews, on = 0, 0, 0
		case before != routine.Done:
			last, reviews, on = t.On, 0, t.On
		case t.Clean && t.On > on:
			last, reviews, on = t.On, reviews+1, t.On
		}
	}
	return last, reviews, state.Stage == routine.Done
}
