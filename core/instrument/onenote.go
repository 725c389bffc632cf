package instrument

import "unhurriedbench/core/score"

// Class is a letter with its alteration, in any octave.
type Class struct {
	Step  score.Step
	Alter int
}

// DefaultOneNote is concert D: an open string, and easy for winds (common
// practice).
var DefaultOneNote = Class{Step: score.D}

// WrittenFor is the written pitch of a concert note in the octave nearest the
// instrument's home.
func WrittenFor(concert Class, target Instrument) score.Pitch {
	best, nearest := score.Pitch{}, -1
	for octave := range 9 {
		p := score.Pitch{Step: concert.Step, Alter: concert.Alter, Octave: octave}.Transpose(target.Sounds.Negated())
		away := p.MIDI() - target.Home.MIDI()
		if away = max(away, -away); nearest < 0 || away < nearest {
			best, nearest = p, away
		}
	}
	return best
}

// classes are the spellings offered for one note, flats as bands read them.
var classes = []Class{
	{score.D, 0}, {score.B, -1}, {score.F, 0}, {score.E, -1}, {score.C, 0}, {score.A, 0},
	{score.G, 0}, {score.A, -1}, {score.E, 0}, {score.B, 0}, {score.F, 1}, {score.C, 1},
}

// SuggestOneNote is the concert note that sits most comfortably for everybody
// present: the sum of each one's distance from home in semitones is least, with
// five more for a note outside the first-year range and two more for a string
// player's note that is not an open string. With nobody present it is
// DefaultOneNote.
func SuggestOneNote(present []Instrument) Class {
	best, least := DefaultOneNote, -1
	for _, class := range classes {
		cost := 0
		for _, i := range present {
			if !i.Unpitched() {
				cost += discomfortOf(WrittenFor(class, i), i)
			}
		}
		if least < 0 || cost < least {
			best, least = class, cost
		}
	}
	return best
}

func discomfortOf(p score.Pitch, i Instrument) int {
	away := p.MIDI() - i.Home.MIDI()
	cost := max(away, -away)
	if p.MIDI() < i.Low.MIDI() || p.MIDI() > i.High.MIDI() {
		cost += 5
	}
	if i.Mechanism != Strings {
		return cost
	}
	for _, open := range i.OpenStrings {
		if open == p {
			return cost
		}
	}
	return cost + 2
}
