// Package progress says where a student stands on an exercise, from where they
// stand on its chunks.
package progress

import (
	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

// Standing is where a student stands on an exercise. A nil one is untried.
type Standing struct {
	Chunks map[breakdown.ChunkKey]routine.State
	Times  map[breakdown.ChunkKey]Times
	Latest breakdown.ChunkKey // the chunk tried last
	Tries  int
}

// Times is when a chunk was tried, in seconds since 1970, and how fast at last.
type Times struct {
	Trouble int64 // since when it has gone wrong; 0 where it has not
	Last    int64
	Tempo   int // in beats a minute; 0 where it is not known
}

// Stuck is the chunk of an exercise that needs help most: the one with the most stumbles
// since it went on, of two the one that has been so for longer; ok is false where none
// of its chunks is stuck.
func (s *Standing) Stuck(chunks []breakdown.ChunkKey) (chunk breakdown.ChunkKey, ok bool) {
	if s == nil {
		return chunk, false
	}
	for _, key := range chunks {
		state, most := s.Chunks[key], s.Chunks[chunk]
		switch {
		case !state.InTrouble():
		case !ok, state.Stumbles > most.Stumbles,
			state.Stumbles == most.Stumbles && s.Times[key].Trouble < s.Times[chunk].Trouble:
			chunk, ok = key, true
		}
	}
	return chunk, ok
}

// State is where the student stands on a chunk.
func (s *Standing) State(r routine.Routine, chunk breakdown.ChunkKey) routine.State {
	if s != nil {
		if state, tried := s.Chunks[chunk]; tried {
			return state
		}
	}
	return r.Start()
}

// parts are the chunks without the whole, which is the last of several.
func parts(chunks []breakdown.ChunkKey) []breakdown.ChunkKey {
	if len(chunks) > 1 {
		return chunks[:len(chunks)-1]
	}
	return chunks
}

// Cells are the bar of stages of a whole exercise: each as full as the share of its chunks
// that have earned it, and of them as much as is on its way.
func (s *Standing) Cells(r routine.Routine, chunks []breakdown.ChunkKey) []routine.Cell {
	cells := make([]routine.Cell, len(r))
	if s == nil {
		return cells
	}
	parts := parts(chunks)
	var credits [routine.MostSteps][routine.Earned + 1]int
	for _, p := range parts {
		for k, c := range r.Cells(s.State(r, p)) {
			cells[k].Filled += c.Filled / float64(len(parts))
			credits[k][c.Credit]++
		}
	}
	for k := range cells {
		cells[k].Credit = lineCredit(credits[k], len(parts))
		if cells[k].Credit == routine.Earned {
			cells[k].Filled = 1
		}
	}
	return cells
}

// lineCredit is what is known of a stage of a line from how many of its chunks have each
// credit: earned where all have earned it, by playing where the others are so, passed over
// where something of it is.
func lineCredit(credits [routine.Earned + 1]int, chunks int) routine.Credit {
	switch {
	case chunks == 0:
		return routine.Open
	case credits[routine.Earned] == chunks:
		return routine.Earned
	case credits[routine.Earned]+credits[routine.ByPlaying] == chunks:
		return routine.ByPlaying
	case credits[routine.PassedOver] > 0:
		return routine.PassedOver
	}
	return routine.Open
}

// Done says whether every chunk is done.
func (s *Standing) Done(r routine.Routine, chunks []breakdown.ChunkKey) bool {
	return s != nil && len(chunks) > 0 && s.least(r, chunks) == routine.Done
}

// Stage is the stage of the chunk tried last; when that one is done, of the least
// advanced chunk, so that it is Done when all are. It is "" for an exercise that is
// untried.
func (s *Standing) Stage(r routine.Routine, chunks []breakdown.ChunkKey) routine.Stage {
	if s == nil || s.Tries == 0 {
		return ""
	}
	least := s.least(r, chunks)
	if latest := s.State(r, s.Latest).Stage; latest != routine.Done && least != routine.Done || len(chunks) == 0 {
		return latest
	}
	return least
}

// least is the stage of the least advanced chunk.
func (s *Standing) least(r routine.Routine, chunks []breakdown.ChunkKey) routine.Stage {
	stage := routine.Done
	for _, p := range parts(chunks) {
		if at := s.State(r, p).Stage; r.Index(at) < r.Index(stage) {
			stage = at
		}
	}
	return stage
}
