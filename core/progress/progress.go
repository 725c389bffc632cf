// Package progress says where a student stands on an exercise, from where they
// stand on its pieces.
package progress

import (
	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

// Standing is where a student stands on an exercise. A nil one is untried.
type Standing struct {
	Pieces map[breakdown.PieceKey]routine.State
	Times  map[breakdown.PieceKey]Times
	Latest breakdown.PieceKey // the piece tried last
	Tries  int
}

// Times is when a piece was tried, in seconds since 1970, and how fast at last.
type Times struct {
	Trouble int64 // since when it has gone wrong; 0 where it has not
	Last    int64
	Tempo   int // in beats a minute; 0 where it is not known
}

// Stuck is the piece of an exercise that needs help most: the one with the most stumbles
// since it went on, of two the one that has been so for longer; ok is false where none
// of its pieces is stuck.
func (s *Standing) Stuck(pieces []breakdown.PieceKey) (piece breakdown.PieceKey, ok bool) {
	if s == nil {
		return piece, false
	}
	for _, key := range pieces {
		state, most := s.Pieces[key], s.Pieces[piece]
		switch {
		case !state.Stuck():
		case !ok, state.Stumbles > most.Stumbles,
			state.Stumbles == most.Stumbles && s.Times[key].Trouble < s.Times[piece].Trouble:
			piece, ok = key, true
		}
	}
	return piece, ok
}

// State is where the student stands on a piece.
func (s *Standing) State(r routine.Routine, piece breakdown.PieceKey) routine.State {
	if s != nil {
		if state, tried := s.Pieces[piece]; tried {
			return state
		}
	}
	return r.Start()
}

// Cells fills the bar of stages of a whole exercise: the mean of its pieces.
func (s *Standing) Cells(r routine.Routine, pieces []breakdown.PieceKey) []float64 {
	cells := make([]float64, len(r))
	if s == nil {
		return cells
	}
	for _, p := range pieces {
		for i, filled := range r.Cells(s.State(r, p)) {
			cells[i] += filled / float64(len(pieces))
		}
	}
	return cells
}

// Done says whether every piece is done.
func (s *Standing) Done(r routine.Routine, pieces []breakdown.PieceKey) bool {
	return s != nil && len(pieces) > 0 && s.least(r, pieces) == routine.Done
}

// Stage is the stage of the piece tried last; when that one is done, of the least
// advanced piece, so that it is Done when all are. It is "" for an exercise that is
// untried.
func (s *Standing) Stage(r routine.Routine, pieces []breakdown.PieceKey) routine.Stage {
	if s == nil || s.Tries == 0 {
		return ""
	}
	if latest := s.State(r, s.Latest).Stage; latest != routine.Done || len(pieces) == 0 {
		return latest
	}
	return s.least(r, pieces)
}

// least is the stage of the least advanced piece.
func (s *Standing) least(r routine.Routine, pieces []breakdown.PieceKey) routine.Stage {
	stage := routine.Done
	for _, p := range pieces {
		if at := s.State(r, p).Stage; r.Index(at) < r.Index(stage) {
			stage = at
		}
	}
	return stage
}
