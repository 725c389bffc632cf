package demo

import (
	"regexp"
	"testing"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/midicheck"
)

// smallStrokes are played by abc2midi as notes of their own; we count the stroke
// they lead to.
var smallStrokes = regexp.MustCompile(`\{[^}]*\}`)

// Outside check: abc2midi, from Debian's abcmidi, reads the same text.
func TestExercisesAgreeWithABC2MIDI(t *testing.T) {
	exercises, err := Exercises()
	if err != nil {
		t.Fatal(err)
	}
	if len(exercises) != 40 {
		t.Fatalf("%d exercises; the book has 40", len(exercises))
	}
	for _, x := range exercises {
		t.Run(x.Score.Title, func(t *testing.T) {
			midicheck.Compare(t, smallStrokes.ReplaceAllString(x.ABC, ""), x.Score.Parts...)
		})
	}
}

func TestEveryInstrumentCanPlayEveryExercise(t *testing.T) {
	exercises, err := Exercises()
	if err != nil {
		t.Fatal(err)
	}
	here := map[string]bool{} // instruments of the demo's students
	for _, student := range students {
		here[student.instrument] = true
	}
	for _, x := range exercises {
		for _, i := range instrument.All() {
			made := instrument.Make(x.Score.Parts[0], "", i, instrument.Placement{})
			for _, at := range made.Outside {
				t.Errorf("%s, %s: %s is out of range", x.Score.Title, i.Name, made.Part.At(at).Pitch)
			}
			choices := finger.Part(i, made.Part, finger.Options{})
			for _, at := range made.Part.Notes() {
				e := made.Part.At(at)
				if !e.Tied && choices[at.Measure][at.Event].Text == "" && (!i.Unpitched() || i.TwoHands) {
					t.Errorf("%s, %s, measure %d: no fingering for %s", x.Score.Title, i.Name, made.Part.Measures[at.Measure].Number, e.Pitch)
				}
				if p := e.Pitch; here[i.ID] && !e.Unpitched && !x.Score.Parts[0].Unpitched() &&
					!i.Comfort(1).Holds(p) {
					t.Errorf("%s, %s: %s is beyond the first year", x.Score.Title, i.Name, p)
				}
			}
		}
	}
}

func TestTiesAreJoined(t *testing.T) {
	exercises, err := Exercises()
	if err != nil {
		t.Fatal(err)
	}
	found := false
	for _, x := range exercises {
		if x.Score.Title != "Slow Tide" {
			continue
		}
		found = true
		sounding := x.Score.Parts[0].Sounding(x.Score.Parts[0].Order())
		if got, want := sounding[2].Length, score.Frac(3, 2); got != want {
			t.Errorf("the tied note lasts %s of a whole note, want %s", got, want)
		}
	}
	if !found {
		t.Error("Slow Tide is not in the book any more: try the ties of another exercise")
	}
}
