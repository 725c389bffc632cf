// Package technique writes what is practised beside the lines of a book: scales, arpeggios, long
// tones, slurs and rhythms, for a key or an instrument. Each is a score like any other.
package technique

import (
	"fmt"
	"slices"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Kind is what is practised.
type Kind string

// The kinds. Source: common practice.
const (
	LongTones   Kind = "long-tones"
	FiveNotes   Kind = "five-notes"
	Scale       Kind = "scale"
	ThreeValues Kind = "three-values"
	Arpeggio    Kind = "arpeggio"
	RhythmLine  Kind = "rhythm"
	LipSlurs    Kind = "lip-slurs"
	OverBreak   Kind = "over-break"
)

// Kinds lists them.
func Kinds() []Kind {
	return []Kind{LongTones, FiveNotes, Scale, ThreeValues, Arpeggio, RhythmLine, LipSlurs, OverBreak}
}

// ParseKind reads a kind's text; ok is false for anything else.
func ParseKind(text string) (Kind, bool) {
	k := Kind(text)
	return k, slices.Contains(Kinds(), k)
}

// Title is what a teacher calls it.
func (k Kind) Title() string {
	return map[Kind]string{
		LongTones: "Long tones", FiveNotes: "Five notes up and back", Scale: "The scale", Arpeggio: "The arpeggio",
		ThreeValues: "Five notes, whole, half, quarter", RhythmLine: "A line's rhythms on one note", LipSlurs: "Lip slurs", OverBreak: "Over the break",
	}[k]
}

// Why says what it is for.
func (k Kind) Why() string {
	return map[Kind]string{
		LongTones: "Eight slow counts on each of five notes: the sound comes before the fingers.", FiveNotes: "The first five notes of the key, up and back.",
		Scale: "An octave up and back.", ThreeValues: "The same five notes as whole notes, as halves and as quarters: the hands have time before they hurry.",
		Arpeggio: "The chord of the key, up and back.", RhythmLine: "What a line counts, without its notes, on the key note.",
		LipSlurs:  "Two partials of one length of tube, slurred, from the open tube down: the lips move, the hand does not.",
		OverBreak: "From the throat notes to the register above and back, slurred: the right hand is down before.",
	}[k]
}

// Own says whether it is written for one instrument: what it trains lies in that one's tubes or
// keys.
func (k Kind) Own() bool { return k == LipSlurs || k == OverBreak }

// Suits says whether an instrument has it.
func (k Kind) Suits(i instrument.Instrument) bool {
	switch k {
	case LipSlurs:
		return len(slurPairs(i)) > 0
	case OverBreak:
		return i.HasBreak
	}
	return true
}

// Keys are the concert keys offered, by their fifths, the flat ones of beginning bands first.
func Keys() []score.Key {
	var list []score.Key
	for _, fifths := range []int{-2, -1, -3, -4, 0, 1, 2, 3} {
		list = append(list, score.Key{Fifths: fifths, Mode: "major"})
	}
	return list
}

// MostMeasures is of how many measures a line's rhythms are taken at most.
const MostMeasures = 64

// Make writes a kind in a concert key for everybody. The rhythm line takes its rhythms from a
// part. An error says what it cannot be made of.
func Make(k Kind, key score.Key, rhythms score.Part) (score.Score, error) {
	w := writer{key: key, clef: score.Treble}
	notes := w.degrees(8)
	five := append(slices.Clone(notes[:5]), notes[3], notes[2], notes[1], notes[0])
	switch k {
	case LongTones:
		for _, p := range notes[:5] {
			w.held(p, 2)
		}
	case FiveNotes:
		w.walk(five[:8], 4)
		w.held(five[8], 1)
	case Scale:
		w.walk(notes, 4)
		down := slices.Clone(notes)
		slices.Reverse(down)
		w.walk(down[1:7], 4)
		w.walk(down[7:], 2)
	case ThreeValues:
		w.walk(five, 1)
		w.walk(five, 2)
		w.fillUp()
		w.walk(five[:8], 4)
		w.held(five[8], 1)
	case Arpeggio:
		w.walk([]score.Pitch{notes[0], notes[2], notes[4], notes[7], notes[4], notes[2]}, 4)
		w.walk([]score.Pitch{notes[0]}, 2)
	case RhythmLine:
		return w.rhythm(rhythms)
	default:
		return score.Score{}, fmt.Errorf("%s are written for one instrument", k.Title())
	}
	return w.score(k.Title() + ", concert " + key.Name())
}

// MakeFor writes what is one instrument's own, as it reads it.
func MakeFor(k Kind, i instrument.Instrument) (score.Score, error) {
	w := writer{clef: i.Clef}
	switch {
	case !k.Suits(i):
		return score.Score{}, fmt.Errorf("the %s has no %s", i.Name, k.Title())
	case k == LipSlurs:
		for _, p := range slurPairs(i) {
			w.slurred([]score.Pitch{p.low, p.high, p.low}, []int{4, 4, 2})
		}
	case k == OverBreak:
		for _, p := range breakPairs {
			w.slurred([]score.Pitch{p.low, p.high, p.low}, []int{4, 4, 2})
		}
	default:
		return score.Score{}, fmt.Errorf("%s is for everybody", k.Title())
	}
	return w.score(k.Title() + ", " + i.Name)
}

// pair is two notes that are slurred.
type pair struct{ low, high score.Pitch }

// breakPairs cross the clarinet's break, the nearest first. Source: common practice.
var breakPairs = []pair{
	{pitch(score.A, 0, 4), pitch(score.B, 0, 4)}, {pitch(score.A, 0, 4), pitch(score.C, 0, 5)}, {pitch(score.G, 0, 4), pitch(score.B, 0, 4)},
	{pitch(score.G, 0, 4), pitch(score.C, 0, 5)}, {pitch(score.F, 0, 4), pitch(score.C, 0, 5)}, {pitch(score.E, 0, 4), pitch(score.B, 0, 4)},
}

func pitch(s score.Step, alter, octave int) score.Pitch {
	return score.Pitch{Step: s, Alter: alter, Octave: octave}
}

// mostTubes is of how many lengths of tube lip slurs are made.
const mostTubes = 7

// slurPairs are two neighbouring partials, the third and the fourth, of each length of tube that
// the first year's fingerings use, from the open one down; none for what is no brass. Source:
// the harmonic series.
func slurPairs(i instrument.Instrument) []pair {
	if i.Family != "brass" {
		return nil
	}
	type tube struct {
		keys     uint64
		position int
	}
	low := map[tube]score.Pitch{}
	var list []pair
	for midi := i.Highest.MIDI(); midi >= i.Lowest.MIDI(); midi-- {
		p := spelled(midi)
		c, ok := finger.For(i, p)
		if !ok || c.Attached || c.Raised {
			continue
		}
		at := tube{c.Keys, c.Position}
		switch c.Partial {
		case 4:
			low[at] = p // the upper one is met first
		case 3:
			if high, met := low[at]; met {
				list = append(list, pair{p, high})
			}
		}
	}
	return list[:min(len(list), mostTubes)]
}

// spelled is a pitch by its MIDI number, with flats, but F sharp.
func spelled(midi int) score.Pitch {
	names := []struct {
		step  score.Step
		alter int
	}{{score.C, 0}, {score.D, -1}, {score.D, 0}, {score.E, -1}, {score.E, 0}, {score.F, 0}, {score.F, 1}, {score.G, 0}, {score.A, -1}, {score.A, 0}, {score.B, -1}, {score.B, 0}}
	n := names[midi%12]
	return pitch(n.step, n.alter, midi/12-1)
}
