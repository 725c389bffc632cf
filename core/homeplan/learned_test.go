package homeplan

import (
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
)

func TestLearned(t *testing.T) {
	clean := func(stage routine.Stage, on int) DatedTry {
		return DatedTry{progress.Logged{Try: routine.Try{Stage: stage, Clean: true}}, on}
	}
	over := func(on int) DatedTry {
		return DatedTry{progress.Logged{Try: routine.Try{Stage: routine.Play, Cause: routine.Sound}}, on}
	}
	r := routine.Routine{{Stage: routine.Play, Word: "Play", Mends: []routine.Cause{routine.Sound}}}
	for _, tt := range []struct {
		what          string
		tries         []DatedTry
		last, reviews int
		done          bool
	}{
		{"nothing", nil, 0, 0, false},
		{"once", []DatedTry{clean(routine.Play, 5)}, 0, 0, false},
		{"done", []DatedTry{clean(routine.Play, 5), clean(routine.Play, 5)}, 5, 0, true},
		{"again the same day", []DatedTry{clean(routine.Play, 5), clean(routine.Play, 5), clean(routine.Play, 5)}, 5, 0, true},
		{"on two later days", []DatedTry{clean(routine.Play, 5), clean(routine.Play, 5), clean(routine.Play, 6), clean(routine.Play, 6), clean(routine.Play, 9)}, 9, 2, true},
		{"a stumble begins anew", []DatedTry{clean(routine.Play, 5), clean(routine.Play, 5), clean(routine.Play, 6), over(7)}, 0, 0, false},
		{"and is learned again", []DatedTry{clean(routine.Play, 5), clean(routine.Play, 5), over(7), clean(routine.Play, 8), clean(routine.Play, 8)}, 8, 0, true},
		{"put there by hand", []DatedTry{{progress.Logged{Try: routine.Try{Stage: routine.Done, Moved: true}}, 4}}, 4, 0, true},
	} {
		if last, reviews, done := Learned(r, breakdown.Outline{}, tt.tries, breakdown.ChunkKey{}); last != tt.last || reviews != tt.reviews || done != tt.done {
			t.Errorf("%s: %d, %d, %v, want %d, %d, %v", tt.what, last, reviews, done, tt.last, tt.reviews, tt.done)
		}
	}
}
