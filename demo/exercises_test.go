package demo

import (
	"context"
	"regexp"
	"strings"
	"testing"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/counted"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/midicheck"
)

// smallStrokes are played by abc2midi as notes of their own; we count the stroke
// they lead to.
var smallStrokes = regexp.MustCompile(`\{[^}]*\}`)

// writtenOut are texts for abc2midi with the repeat written out: it strikes the first note of
// a second ending though a tie leads into both.
var writtenOut = map[string]string{
	"|: d =e e f | e d c B | c c/d/ e d- |1 d2 c2 :|2 d c B2 |]": "d =e e f | e d c B | c c/d/ e d- | d2 c2 | d =e e f | e d c B | c c/d/ e d- | d c B2 |]",
}

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
			text := smallStrokes.ReplaceAllString(x.ABC, "")
			for line, out := range writtenOut {
				text = strings.Replace(text, line, out, 1)
			}
			midicheck.Compare(t, text, x.Score.Parts...)
		})
	}
}

// The book can be said: counted and named, it is read back as it is.
func TestTheBookCountedAndNamed(t *testing.T) {
	exercises, err := Exercises()
	if err != nil {
		t.Fatal(err)
	}
	said := 0
	for _, x := range exercises {
		text, err := counted.Write(x.Score)
		if err != nil {
			continue
		}
		said++
		again, err := counted.Read(context.Background(), text)
		if err != nil {
			t.Errorf("%s: %v\n%s", x.Score.Title, err, text)
			continue
		}
		want, got := x.Score.Parts[0].Sounding(x.Score.Parts[0].Order()), again.Parts[0].Sounding(again.Parts[0].Order())
		if len(want) != len(got) {
			t.Errorf("%s: %d notes, want %d\n%s", x.Score.Title, len(got), len(want), text)
			continue
		}
		for k := range want {
			if want[k].Onset != got[k].Onset || !x.Score.Parts[0].Unpitched() && want[k].Pitch != got[k].Pitch || want[k].Length != got[k].Length {
				t.Errorf("%s: note %d is %v, want %v\n%s", x.Score.Title, k+1, got[k], want[k], text)
				break
			}
		}
	}
	if said < 30 {
		t.Errorf("%d exercises can be said", said)
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
			made := instrument.Make(x.Score.Parts[0], "", i, instrument.OctaveChoice{})
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
