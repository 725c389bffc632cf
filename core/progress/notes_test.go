package progress

import (
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

func pitches(t *testing.T, text string) []score.Pitch {
	t.Helper()
	var list []score.Pitch
	for word := range strings.FieldsSeq(text) {
		step, ok := score.ParseStep(word[0])
		if !ok {
			t.Fatal(word)
		}
		p := score.Pitch{Step: step, Octave: int(word[len(word)-1] - '0')}
		switch {
		case strings.Contains(word, "b"):
			p.Alter = -1
		case strings.Contains(word, "#"):
			p.Alter = 1
		}
		list = append(list, p)
	}
	return list
}

// A note is held as far as in the chunk where it is furthest, and owned once it is played in
// two; what goes wrong is laid to the notes of the chunk that are held least.
func TestNotes(t *testing.T) {
	at := func(stage routine.Stage) routine.State { return routine.State{Stage: stage} }
	wrong := func(stage routine.Stage, cause routine.Cause) routine.State {
		return routine.State{Stage: stage, Stumble: 1, Cause: cause}
	}
	type chunk struct {
		notes string
		state routine.State
	}
	for _, tt := range []struct {
		what   string
		chunks []chunk
		want   string
	}{
		{"nothing", nil, ""},
		{"tried", []chunk{{"C4 D4", at(routine.Count)}}, "C4 introduced, D4 introduced"},
		{"counted says nothing of notes", []chunk{{"C4", at(routine.Name)}}, "C4 introduced"},
		{"named", []chunk{{"C4", at(routine.Finger)}}, "C4 named"},
		{"fingered", []chunk{{"C4", at(routine.Play)}}, "C4 fingered"},
		{"played", []chunk{{"C4", at(routine.Done)}}, "C4 played"},
		{"owned", []chunk{{"C4 D4", at(routine.Done)}, {"C4 E4", at(routine.Done)}}, "C4 secure, D4 played, E4 played"},
		{"the furthest counts", []chunk{{"C4", at(routine.Count)}, {"C4", at(routine.Play)}, {"C4", at(routine.Finger)}}, "C4 fingered"},
		{"the lowest first, by their place", []chunk{{"B4 Cb5 C5 F#4 F4", at(routine.Count)}}, "F4 introduced, F#4 introduced, B4 introduced, Cb5 introduced, C5 introduced"},
		{"what goes wrong is laid to what is held least", []chunk{{"C4 D4", at(routine.Done)}, {"C4 E4", wrong(routine.Name, routine.WrongName)}}, "C4 played, D4 played, E4 introduced?"},
		{"rhythm is laid to no note", []chunk{{"C4", wrong(routine.Play, routine.Rhythm)}}, "C4 fingered"},
		{"sound is", []chunk{{"C4 G4", wrong(routine.Play, routine.Sound)}}, "C4 fingered?, G4 fingered?"},
		{"who is stuck", []chunk{{"C4", routine.State{Stage: routine.Count, Stumbles: 3, Over: routine.Causes{0, 3}}}}, "C4 introduced?"},
		{"what is owned is never in question", []chunk{{"C4", at(routine.Done)}, {"C4", at(routine.Done)}, {"C4", wrong(routine.Name, routine.WrongName)}}, "C4 secure"},
	} {
		var list []Worked
		for k, p := range tt.chunks {
			list = append(list, Worked{Name: fmt.Sprint("chunk ", k), Pitches: pitches(t, p.notes), Steps: routine.Standard(), State: p.state})
		}
		var words []string
		for _, n := range Notes(list) {
			word := n.Pitch.String() + " " + string(n.Hold)
			if n.Doubt != "" {
				word += "?"
			}
			words = append(words, word)
		}
		if got := strings.Join(words, ", "); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.what, got, tt.want)
		}
	}
}

// A try more that goes on never takes a note back.
func TestNotesGrow(t *testing.T) {
	r := routine.Standard()
	before := -1
	for _, stage := range append([]routine.Stage{routine.Count, routine.Name, routine.Finger, routine.Play}, routine.Done) {
		got := Notes([]Worked{{Pitches: pitches(t, "C4"), Steps: r, State: routine.State{Stage: stage}}})[0].Hold.rank()
		if got < before {
			t.Errorf("at %s the note is held less", stage)
		}
		before = got
	}
}

func TestChanges(t *testing.T) {
	p := pitches(t, "A4 B4 C5")
	failed := func(from, to score.Pitch, where string, stumbles int, holds bool) Failed {
		return Failed{From: from, To: to, Where: where, Stumbles: stumbles, Holds: holds}
	}
	got := Changes([]Failed{
		failed(p[0], p[1], "1A", 2, true), failed(p[1], p[0], "2B", 3, true), failed(p[1], p[2], "3A", 1, false), failed(p[0], p[2], "4A", 0, false), failed(p[0], p[2], "5A", 1, true),
		failed(p[2], p[2], "6A", 4, true), failed(p[2], p[2], "7A", 1, false), // which holds in one chunk and not in the other
	})
	var words []string
	for _, c := range got {
		words = append(words, fmt.Sprintf("%s–%s %d %s+%d %v", c.From, c.To, c.Stumbles, c.Where, len(c.Others), c.Holds))
	}
	if want := "C5–C5 5 6A+1 false; B4–C5 1 3A+0 false; B4–A4 5 2B+1 true; A4–C5 1 5A+0 true"; strings.Join(words, "; ") != want {
		t.Errorf("the changes are %s, want %s", strings.Join(words, "; "), want)
	}
}

func TestFailedAt(t *testing.T) {
	clean := func(stage routine.Stage) routine.Try { return routine.Try{Stage: stage, Clean: true} }
	over := func(stage routine.Stage, cause routine.Cause) routine.Try {
		return routine.Try{Stage: stage, Cause: cause}
	}
	for _, tt := range []struct {
		log      []routine.Try
		done     bool
		stumbles int
		holds    bool
	}{
		{nil, false, 0, true},
		{[]routine.Try{over(routine.Play, routine.Fingering)}, false, 1, false},
		{[]routine.Try{over(routine.Play, routine.Fingering)}, true, 1, true},
		{[]routine.Try{over(routine.Play, routine.Fingering), clean(routine.Finger)}, false, 1, false},
		{[]routine.Try{over(routine.Play, routine.Fingering), clean(routine.Finger), clean(routine.Play)}, false, 1, true},
		{[]routine.Try{over(routine.Play, routine.Fingering), clean(routine.Play), over(routine.Play, routine.Fingering)}, false, 2, false},
		{[]routine.Try{over(routine.Play, routine.Rhythm), over(routine.Play, routine.Sound)}, false, 0, true},
		{[]routine.Try{{Stage: routine.Done, Moved: true}}, false, 0, true},
	} {
		state := routine.State{Stage: routine.Play}
		if tt.done {
			state.Stage = routine.Done
		}
		if stumbles, holds := FailedAt(tt.log, state); stumbles != tt.stumbles || holds != tt.holds {
			t.Errorf("%v: %d, %v, want %d, %v", tt.log, stumbles, holds, tt.stumbles, tt.holds)
		}
	}
}
