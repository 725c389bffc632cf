package progress

import (
	"slices"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

func TestStanding(t *testing.T) {
	r := routine.Standard()
	a, b := breakdown.PieceKey{First: 1, Last: 2}, breakdown.PieceKey{First: 3, Last: 4}
	both := []breakdown.PieceKey{a, b}
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
			"one piece tried",
			&Standing{map[breakdown.PieceKey]routine.State{a: at(routine.Name, 1)}, a, 3},
			routine.Name,
			false,
			[]float64{.5, .25, 0, 0},
		},
		{
			"the latest piece counts",
			&Standing{map[breakdown.PieceKey]routine.State{a: at(routine.Name, 1), b: at(routine.Count, 1)}, b, 4},
			routine.Count,
			false,
			[]float64{.75, .25, 0, 0},
		},
		{
			"the latest is done, the other untried",
			&Standing{map[breakdown.PieceKey]routine.State{b: at(routine.Done, 0)}, b, 8},
			routine.Count,
			false,
			[]float64{.5, .5, .5, .5},
		},
		{
			"the latest is done, the other at Finger",
			&Standing{map[breakdown.PieceKey]routine.State{a: at(routine.Finger, 0), b: at(routine.Done, 0)}, b, 8},
			routine.Finger,
			false,
			[]float64{1, 1, .5, .5},
		},
		{
			"all are done",
			&Standing{map[breakdown.PieceKey]routine.State{a: at(routine.Done, 0), b: at(routine.Done, 0)}, b, 16},
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
		t.Error("an exercise without pieces is done")
	}
}
