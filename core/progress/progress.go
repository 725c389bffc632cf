// Package progress computes where students stand from the log of their tries.
package progress

import (
	"fmt"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

// Span names a piece by its first and last measure numbers, so that a log keeps
// its meaning when pieces are lettered anew.
type Span struct{ First, Last int }

// SpanOf is a piece's span.
func SpanOf(p breakdown.Piece) Span {
	return Span{First: p.Measures[0], Last: p.Measures[len(p.Measures)-1]}
}

// String writes the span as "3-4".
func (s Span) String() string { return fmt.Sprintf("%d-%d", s.First, s.Last) }

// Try is one entry of the log that stands.
type Try struct {
	Student  int64
	Exercise int64
	Piece    Span
	routine.Try
}

// Task is one student's work on one exercise.
type Task struct{ Student, Exercise int64 }

// Standing is where a student stands on an exercise.
type Standing struct {
	Pieces map[Span]routine.State
	Latest Span // the piece tried last
	Tries  int
}

// Read goes through the log, oldest try first.
func Read(log []Try) map[Task]*Standing {
	standings := map[Task]*Standing{}
	for _, t := range log {
		task := Task{t.Student, t.Exercise}
		s := standings[task]
		if s == nil {
			s = &Standing{Pieces: map[Span]routine.State{}}
			standings[task] = s
		}
		s.Pieces[t.Piece] = s.Pieces[t.Piece].After(t.Try)
		s.Latest = t.Piece
		s.Tries++
	}
	return standings
}

// State is where the student stands on a piece; nil standing is a fresh start.
func (s *Standing) State(piece Span) routine.State {
	if s == nil {
		return routine.State{}
	}
	return s.Pieces[piece]
}

// Cells fills the four-stage bar of a whole exercise: the mean of its pieces.
func (s *Standing) Cells(pieces []Span) [4]float64 {
	var cells [4]float64
	if s == nil || len(pieces) == 0 {
		return cells
	}
	for _, p := range pieces {
		for i, filled := range s.Pieces[p].Cells() {
			cells[i] += filled / float64(len(pieces))
		}
	}
	return cells
}

// Done says whether every piece is done.
func (s *Standing) Done(pieces []Span) bool {
	if s == nil || len(pieces) == 0 {
		return false
	}
	for _, p := range pieces {
		if s.Pieces[p].Stage != routine.Done {
			return false
		}
	}
	return true
}
