package progress

import (
	"slices"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

func TestStanding(t *testing.T) {
	r := routine.Standard()
	a, b := breakdown.ChunkKey{First: 1, Last: 2}, breakdown.ChunkKey{First: 3, Last: 4}
	both := []breakdown.ChunkKey{a, b}
	at := func(stage routine.Stage, clean int) routine.State {
		return routine.State{Stage: stage, Clean: clean, Tries: 1}
	}
	tests := []struct {
		name   string
		s      *Standing
		stage  routine.Stage
		done   bool
		filled []float64
	}{
		{"nobody has tried", nil, "", false, []float64{0, 0, 0, 0}},
		{
			"one chunk tried",
			&Standing{Chunks: map[breakdown.ChunkKey]routine.State{a: at(routine.Name, 1)}, Latest: a, Tries: 3},
			routine.Name,
			false,
			[]float64{.5, .25, 0, 0},
		},
		{
			"the latest chunk counts",
			&Standing{Chunks: map[breakdown.ChunkKey]routine.State{a: at(routine.Name, 1), b: at(routine.Count, 1)}, Latest: b, Tries: 4},
			routine.Count,
			false,
			[]float64{.75, .25, 0, 0},
		},
		{
			"the latest is done, the other untried",
			&Standing{Chunks: map[breakdown.ChunkKey]routine.State{b: at(routine.Done, 0)}, Latest: b, Tries: 8},
			routine.Count,
			false,
			[]float64{.5, .5, .5, .5},
		},
		{
			"the latest is done, the other at Finger",
			&Standing{Chunks: map[breakdown.ChunkKey]routine.State{a: at(routine.Finger, 0), b: at(routine.Done, 0)}, Latest: b, Tries: 8},
			routine.Finger,
			false,
			[]float64{1, 1, .5, .5},
		},
		{
			"all are done",
			&Standing{Chunks: map[breakdown.ChunkKey]routine.State{a: at(routine.Done, 0), b: at(routine.Done, 0)}, Latest: b, Tries: 16},
			routine.Done,
			true,
			[]float64{1, 1, 1, 1},
		},
	}
	for _, tt := range tests {
		if got := tt.s.Stage(r, both); got != tt.stage {
			t.Errorf("%s: at %q, want %q", tt.name, got, tt.stage)
		}
		if got := tt.s.Done(r, both); got != tt.done {
			t.Errorf("%s: done is %v", tt.name, got)
		}
		if got := tt.s.Cells(r, both); !slices.Equal(got, tt.filled) {
			t.Errorf("%s: the bar is filled %v, want %v", tt.name, got, tt.filled)
		}
	}
	if (&Standing{Tries: 1}).Done(r, nil) {
		t.Error("an exercise without chunks is done")
	}
}

// The chunk that needs help most is the one with the most stumbles since it went on,
// of two the one that has been so for longer; a done one needs none.
func TestStuck(t *testing.T) {
	a, b, c := breakdown.ChunkKey{First: 1, Last: 2}, breakdown.ChunkKey{First: 3, Last: 4}, breakdown.ChunkKey{First: 5, Last: 6}
	with := func(stage routine.Stage, stumbles int) routine.State {
		return routine.State{Stage: stage, Stumbles: stumbles}
	}
	tests := []struct {
		name   string
		chunks map[breakdown.ChunkKey]routine.State
		times  map[breakdown.ChunkKey]Times
		want   breakdown.ChunkKey
		ok     bool
	}{
		{"nothing", nil, nil, breakdown.ChunkKey{}, false},
		{"two stumbles are none", map[breakdown.ChunkKey]routine.State{a: with(routine.Count, 2)}, nil, breakdown.ChunkKey{}, false},
		{"three are", map[breakdown.ChunkKey]routine.State{a: with(routine.Count, 3), b: with(routine.Play, 2)}, nil, a, true},
		{"the most", map[breakdown.ChunkKey]routine.State{a: with(routine.Count, 3), b: with(routine.Play, 5), c: with(routine.Name, 4)}, nil, b, true},
		{"the longest", map[breakdown.ChunkKey]routine.State{a: with(routine.Count, 4), b: with(routine.Play, 4), c: with(routine.Name, 4)},
			map[breakdown.ChunkKey]Times{a: {Trouble: 30}, b: {Trouble: 20}, c: {Trouble: 40}}, b, true},
		{"not a done one", map[breakdown.ChunkKey]routine.State{a: with(routine.Done, 9)}, nil, breakdown.ChunkKey{}, false},
	}
	for _, tt := range tests {
		s := &Standing{Chunks: tt.chunks, Times: tt.times}
		if got, ok := s.Stuck([]breakdown.ChunkKey{a, b, c}); got != tt.want || ok != tt.ok {
			t.Errorf("%s: %v, %v, want %v, %v", tt.name, got, ok, tt.want, tt.ok)
		}
		if got, ok := s.Stuck(nil); ok {
			t.Errorf("%s: a chunk that is not there any more, %v, is stuck", tt.name, got)
		}
	}
	if _, ok := (*Standing)(nil).Stuck([]breakdown.ChunkKey{a}); ok {
		t.Error("an untried exercise is stuck")
	}
}
