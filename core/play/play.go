// Package play says what is heard when a part, or a chunk of it, is played: which notes
// sound when, how high, how long and how loud.
package play

import (
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/score"
)

// Note is one sound, ties joined. Times are in whole notes from the first note of a round.
type Note struct {
	Place   score.Place // of the written note that is struck
	At      score.Fraction
	Written score.Fraction // how long the note lasts
	Sounds  score.Fraction // how much of it is heard: half of a staccato note
	MIDI    []int          // in concert pitch, the written voice first; none for a stroke without pitch
	Loud    float64        // from 0 to 1
	Joined  bool           // slurred to the note before, with no new attack
	Roll    bool
	Graces  int // strokes just before it: 1 a flam, 2 a drag
}

// Round is a chunk played once.
type Round struct {
	Notes  []Note
	Length score.Fraction // to the end of the last passage
	Rest   score.Fraction // after it, until the chunk can begin again in its place in the measure
}

// loudness is how loud the dynamics are, 0.7 where none is written. Source: common
// practice has each a step apart; the steps here are even.
var loudness = map[string]float64{
	"ppp": 0.3, "pp": 0.4, "p": 0.5, "mp": 0.6, "mf": 0.7, "f": 0.8, "ff": 0.9, "fff": 1,
	"fp": 0.5, "sfz": 0.9, "sf": 0.9, "fz": 0.9,
}

// longestBreath is how much of a note its breath takes at most, in whole notes. The figure is ours.
var longestBreath = score.Frac(1, 16)

// unmarked is how loud a part begins.
const unmarked = 0.7

// RoundOf lays out what is heard of passages of a part, in the order in which they
// are played. A note that began before its passage is heard from there; one that is tied
// beyond ends with it.
func RoundOf(part score.Part, passages []breakdown.Passage) Round {
	r := Round{Notes: make([]Note, 0, part.Events())}
	levels, slurred := levelsOf(part), slursOf(part)
	for _, s := range passages {
		m := &part.Measures[s.At]
		for j := range m.Events {
			e := &m.Events[j]
			from, to := later(e.Start, s.From), earlier(e.Start.Add(e.Length), s.To)
			if e.Kind != score.Note || !from.Less(to) {
				continue
			}
			n := Note{
				Place: score.Place{Measure: s.At, Event: j}, At: r.Length.Add(from.Sub(s.From)), Written: to.Sub(from),
				Graces: e.Graces, Roll: e.Roll,
			}
			if !e.Unpitched {
				n.MIDI = []int{sounding(part, e.Pitch)}
				for _, p := range e.Others {
					n.MIDI = append(n.MIDI, sounding(part, p))
				}
			}
			if last := len(r.Notes) - 1; e.Tied && last >= 0 && r.Notes[last].goesOn(n) {
				r.Notes[last].Written = r.Notes[last].Written.Add(n.Written)
				r.Notes[last].Sounds = r.Notes[last].Sounds.Add(n.Written)
				continue
			}
			n.Sounds = n.Written
			if slices.Contains(e.Marks, score.Staccato) && !e.TieOn {
				n.Sounds = n.Written.Mul(score.Frac(1, 2))
			}
			if slices.Contains(e.Marks, score.Breath) && !e.TieOn {
				n.Sounds = n.Sounds.Sub(n.Written.Mul(score.Frac(1, 4)).Min(longestBreath))
			}
			n.Loud = levels[n.Place]
			if slices.Contains(e.Marks, score.Accent) {
				n.Loud = min(1, n.Loud+0.2)
			}
			last := len(r.Notes) - 1
			n.Joined = slurred[n.Place] && last >= 0 && r.Notes[last].At.Add(r.Notes[last].Written) == n.At
			r.Notes = append(r.Notes, n)
		}
		r.Length = r.Length.Add(s.To.Sub(s.From))
	}
	if len(passages) > 0 {
		r.Rest = between(part, passages[len(passages)-1], passages[0])
	}
	return r
}

// goesOn says whether what is tied to a note follows it at the same pitch. What is tied to
// an inner note of a chord is no note of its own either; the tap that ends a roll is one.
func (n Note) goesOn(tied Note) bool {
	if n.At.Add(n.Written) != tied.At || len(n.MIDI) == 0 != (len(tied.MIDI) == 0) {
		return false
	}
	if len(tied.MIDI) == 0 {
		return !n.Roll || tied.Roll
	}
	return slices.Contains(n.MIDI, tied.MIDI[0])
}

// between is how long to wait after the last passage until the measure has come round to
// where the first begins.
func between(part score.Part, last, first breakdown.Passage) score.Fraction {
	return first.From.Sub(last.To).Within(part.Measures[last.At].Meter.Length())
}

// sounding is a written pitch as it sounds.
func sounding(part score.Part, written score.Pitch) int {
	return written.Transpose(part.Transposition).MIDI()
}

// sudden are the dynamics of one note alone.
var sudden = []string{"sfz", "sf", "fz"}

// levelsOf is how loud each note is by the dynamics before it.
func levelsOf(part score.Part) map[score.Place]float64 {
	levels := map[score.Place]float64{}
	now := unmarked
	for _, at := range part.Notes() {
		level, known := loudness[part.At(at).Dynamic]
		if known && !slices.Contains(sudden, part.At(at).Dynamic) {
			now = level
		}
		levels[at] = now
		if known {
			levels[at] = level
		}
	}
	return levels
}

// slursOf are the notes under a slur that began before them.
func slursOf(part score.Part) map[score.Place]bool {
	inside := map[score.Place]bool{}
	open := 0
	for _, at := range part.Notes() {
		e := part.At(at)
		inside[at] = open > 0
		open = max(0, open+e.SlurStarts-e.SlurEnds)
	}
	return inside
}

func later(a, b score.Fraction) score.Fraction {
	if a.Less(b) {
		return b
	}
	return a
}

func earlier(a, b score.Fraction) score.Fraction {
	if b.Less(a) {
		return b
	}
	return a
}
