package instrument

import (
	"slices"

	"unhurriedbench/core/score"
)

// PitchClass is a letter with its alteration, in any octave.
type PitchClass struct {
	Step  score.Step
	Alter int
}

// DefaultOneNote is concert D: an open string, and easy for winds (common
// practice).
var DefaultOneNote = PitchClass{Step: score.D}

// WrittenFor is the written pitch of a concert note in the octave nearest to what a
// drill on one note sits well on.
func WrittenFor(concert PitchClass, target Instrument) score.Pitch {
	best, nearest := score.Pitch{}, -1
	for octave := range 9 {
		p := score.Pitch{Step: concert.Step, Alter: concert.Alter, Octave: octave}.Transpose(target.Transposition.Negated())
		away := p.MIDI() - target.OneNote.MIDI()
		if away = max(away, -away); nearest < 0 || away < nearest {
			best, nearest = p, away
		}
	}
	return best
}

// classes are the notes offered for one note, those that are easy for most first
// (common practice).
var classes = []PitchClass{
	{score.D, 0}, {score.B, -1}, {score.F, 0}, {score.E, -1}, {score.C, 0}, {score.A, 0},
	{score.G, 0}, {score.A, -1}, {score.E, 0}, {score.B, 0}, {score.F, 1}, {score.C, 1},
}

// OneNotes lists the concert notes to choose from, the easy ones first.
func OneNotes() []PitchClass { return slices.Clone(classes) }

// Pitch is the note in the octave of middle C.
func (c PitchClass) Pitch() score.Pitch { return score.Pitch{Step: c.Step, Alter: c.Alter, Octave: 4} }

// firstFive are the concert notes among which a beginner's first five lie: of winds those from
// B flat up, of strings those on the D string and the open strings beside it (common practice).
func firstFive(i Instrument) []PitchClass {
	if i.Bowed() {
		return []PitchClass{{score.D, 0}, {score.E, 0}, {score.F, 1}, {score.G, 0}, {score.A, 0}}
	}
	return []PitchClass{{score.B, -1}, {score.C, 0}, {score.D, 0}, {score.E, -1}, {score.F, 0}}
}

// tunes are the notes that a room gathers on, the most usual first (common practice).
var tunes = []PitchClass{{score.B, -1}, {score.D, 0}, {score.F, 0}, {score.G, 0}, {score.A, 0}}

// SuggestOneNote is the note for everyone that all have among their first five: B flat for a
// band, D for strings and where both meet. Where there is none, it is the first of the easy
// notes that lies in everybody's first-year range, or the one least beyond it.
func SuggestOneNote(present []Instrument) PitchClass {
	pitched := slices.DeleteFunc(slices.Clone(present), Instrument.Unpitched)
	for _, class := range tunes {
		if len(pitched) > 0 && !slices.ContainsFunc(pitched, func(i Instrument) bool {
			return !slices.Contains(firstFive(i), class) || beyondComfort(WrittenFor(class, i), i) > 0
		}) {
			return class
		}
	}
	best, least := DefaultOneNote, -1
	for _, class := range classes {
		beyond := 0
		for _, i := range pitched {
			beyond += beyondComfort(WrittenFor(class, i), i)
		}
		if least < 0 || beyond < least {
			best, least = class, beyond
		}
	}
	return best
}

// beyondComfort is how many semitones a note lies outside the first-year range.
func beyondComfort(p score.Pitch, i Instrument) int {
	comfort := i.Comfort(1)
	return max(comfort.Low.MIDI()-p.MIDI(), p.MIDI()-comfort.High.MIDI(), 0)
}

// TunedOn is the written pitch on which an instrument tunes to a concert note: an open
// string of that note, the nearest to where lines sit, else the octave that lies nearest to
// there and in what a year's players have (common practice: a string is tuned open, a wind
// in its middle).
func TunedOn(concert PitchClass, target Instrument, year int) score.Pitch {
	at := target.Transposition.Negated()
	best, nearest := score.Pitch{}, -1
	for octave := range 9 {
		p := score.Pitch{Step: concert.Step, Alter: concert.Alter, Octave: octave}.Transpose(at)
		away := p.MIDI() - target.Tessitura.MIDI()
		away = max(away, -away)
		if !slices.Contains(target.OpenStrings, p) {
			away += 100 // after every open string
			if !target.Comfort(year).Holds(p) {
				away += 100
			}
		}
		if nearest < 0 || away < nearest {
			best, nearest = p, away
		}
	}
	return best
}
