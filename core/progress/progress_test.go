package progress

import (
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

func TestStanding(t *testing.T) {
	r := routine.Standard()
	a, b, whole := breakdown.ChunkKey{First: 1, Last: 2}, breakdown.ChunkKey{First: 3, Last: 4}, breakdown.ChunkKey{First: 1, Last: 4}
	chunks := []breakdown.ChunkKey{a, b, whole}
	type states = map[breakdown.ChunkKey]routine.State
	// at is at a stage with so many earned before it
	at := func(stage routine.Stage, clean int) routine.State {
		return routine.State{Stage: stage, Clean: clean, Tries: 1, Earned: routine.StageSet(1<<r.Index(stage) - 1)}
	}
	skipped := routine.State{Stage: routine.Done, Tries: 2, Earned: routine.StageSet(0).With(3)}
	of := func(latest breakdown.ChunkKey, tries int, s states) *Standing {
		return &Standing{Chunks: s, Latest: latest, Tries: tries}
	}
	earned := routine.Earned
	tests := []struct {
		name    string
		s       *Standing
		stage   routine.Stage
		done    bool
		filled  [4]float64
		credits [4]routine.Credit
	}{
		{name: "nobody has tried", stage: ""},
		{"one chunk tried", of(a, 3, states{a: at(routine.Name, 1)}), routine.Name, false, [4]float64{.5, .25}, [4]routine.Credit{}},
		{
			"the latest chunk counts", of(b, 4, states{a: at(routine.Name, 1), b: at(routine.Count, 1)}),
			routine.Count, false, [4]float64{.75, .25}, [4]routine.Credit{},
		},
		{
			"the latest is done, the other untried", of(b, 8, states{b: at(routine.Done, 0)}),
			routine.Count, false, [4]float64{.5, .5, .5, .5}, [4]routine.Credit{},
		},
		{
			"the latest is done, the other at Finger", of(b, 8, states{a: at(routine.Finger, 0), b: at(routine.Done, 0)}),
			routine.Finger, false, [4]float64{1, 1, .5, .5}, [4]routine.Credit{earned, earned},
		},
		{
			"both chunks are done, the whole at Play", of(whole, 16, states{a: at(routine.Done, 0), b: at(routine.Done, 0), whole: at(routine.Play, 0)}),
			routine.Done, true, [4]float64{1, 1, 1, 1}, [4]routine.Credit{earned, earned, earned, earned},
		},
		{
			"both chunks are played and nothing else", of(b, 4, states{a: skipped, b: skipped}),
			routine.Done, true, [4]float64{0, 0, 0, 1},
			[4]routine.Credit{routine.ByPlaying, routine.ByPlaying, routine.ByPlaying, earned},
		},
		{
			"one is earned, one by playing", of(b, 4, states{a: at(routine.Done, 0), b: skipped}),
			routine.Done, true, [4]float64{.5, .5, .5, 1},
			[4]routine.Credit{routine.ByPlaying, routine.ByPlaying, routine.ByPlaying, earned},
		},
	}
	for _, tt := range tests {
		if got := tt.s.Stage(r, chunks); got != tt.stage {
			t.Errorf("%s: at %q, want %q", tt.name, got, tt.stage)
		}
		if got := tt.s.Done(r, chunks); got != tt.done {
			t.Errorf("%s: done is %v", tt.name, got)
		}
		for k, c := range tt.s.Cells(r, chunks) {
			if c.Filled != tt.filled[k] || c.Credit != tt.credits[k] {
				t.Errorf("%s: %s is %v %s, want %v %s", tt.name, r[k].Word, c.Filled, c.Credit.Words(), tt.filled[k], tt.credits[k].Words())
			}
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
