package finger

import (
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// ChartNote is one semitone of an instrument's chart.
type ChartNote struct {
	Spellings  []score.Pitch // the natural, or the sharp and the flat
	Sounding   []score.Pitch // the same of the pitch that sounds
	Choice     Choice
	Neighbours []score.Pitch // other notes with the same default fingering
}

// Neighbours lists, by MIDI number of the written note, the other notes that an
// instrument's default fingerings sound alike.
func Neighbours(i instrument.Instrument) map[int][]score.Pitch {
	found := map[int][]score.Pitch{}
	for _, n := range Chart(i) {
		found[n.Spellings[0].MIDI()] = n.Neighbours
	}
	return found
}

// Chart lists every semitone of an instrument's range with its fingerings, lowest
// first. It is empty for drums without pitch.
func Chart(i instrument.Instrument) []ChartNote {
	if i.Unpitched() {
		return nil
	}
	var notes []ChartNote
	same := map[string][]score.Pitch{}
	for midi := i.Lowest.MIDI(); midi <= i.Highest.MIDI(); midi++ {
		n := ChartNote{Spellings: spellingsOf(midi), Sounding: spellingsOf(midi + i.Transposition.Semitones)}
		n.Choice, _ = For(i, n.Spellings[len(n.Spellings)-1])
		if other, _ := For(i, n.Spellings[0]); other.Text != n.Choice.Text && i.Bowed() {
			other.Why = "where it is written " + name.Spoken(n.Spellings[0], false)
			n.Choice.Alternates = append([]Fingering{other.Fingering}, n.Choice.Alternates...)
		}
		notes = append(notes, n)
		same[n.Choice.Text] = append(same[n.Choice.Text], n.Spellings[0])
	}
	if i.Mechanism == instrument.Drums { // a drum is tuned to one note at a time
		return notes
	}
	for k := range notes {
		for _, other := range same[notes[k].Choice.Text] {
			if other != notes[k].Spellings[0] {
				notes[k].Neighbours = append(notes[k].Neighbours, other)
			}
		}
	}
	return notes
}

// blackKeys are the letters a sharp and a flat away from each semitone above C
// that has no letter of its own.
var blackKeys = map[int][2]score.Step{
	1: {score.C, score.D}, 3: {score.D, score.E}, 6: {score.F, score.G}, 8: {score.G, score.A}, 10: {score.A, score.B},
}

// spellingsOf is the natural at a MIDI number, or its sharp and flat.
func spellingsOf(midi int) []score.Pitch {
	octave, inside := midi/12-1, midi%12
	if letters, black := blackKeys[inside]; black {
		return []score.Pitch{{Step: letters[0], Alter: 1, Octave: octave}, {Step: letters[1], Alter: -1, Octave: octave}}
	}
	p := score.Pitch{Octave: octave}
	for p.MIDI() < midi {
		p.Step++
	}
	return []score.Pitch{p}
}
