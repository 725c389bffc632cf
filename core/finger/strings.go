package finger

import (
	"fmt"

	"unhurriedbench/core/score"
)

// openStrings lists an instrument's strings from the lowest.
var openStrings = map[string][]score.Pitch{
	"violin": {{Step: score.G, Octave: 3}, {Step: score.D, Octave: 4}, {Step: score.A, Octave: 4}, {Step: score.E, Octave: 5}},
	"cello":  {{Step: score.C, Octave: 2}, {Step: score.G, Octave: 2}, {Step: score.D, Octave: 3}, {Step: score.A, Octave: 3}},
}

// place is a finger in first position: its number, and a letter when it is
// moved from the plain hand: L low, H high, x stretched.
type place struct {
	moved  string
	finger int
}

func (p place) on(open score.Pitch) string {
	if p.moved == "" {
		return fmt.Sprintf("%s%d", open.Step, p.finger)
	}
	return fmt.Sprintf("%s %s%d", open.Step, p.moved, p.finger)
}

// celloHand is the first position by semitones above the open string: fingers
// a semitone apart from a whole step up, and the stretches either way.
var celloHand = [7]place{{"", 0}, {"x", 1}, {"", 1}, {"", 2}, {"", 3}, {"", 4}, {"x", 4}}

// violinHand is the first position by semitones above the open string; at six
// semitones the spelling tells a high third finger from a low fourth.
var violinHand = [8]place{{"", 0}, {"L", 1}, {"", 1}, {"L", 2}, {"", 2}, {"", 3}, {"H", 3}, {"", 4}}

// stopped computes string and finger in first position: the highest string the
// note lies on, open where it can be.
func stopped(id string, p score.Pitch) (Choice, bool) {
	strings := openStrings[id]
	for i := len(strings) - 1; i >= 0; i-- {
		open := strings[i]
		up := p.MIDI() - open.MIDI()
		if up < 0 {
			continue
		}
		at, ok := hand(id, open, p, up)
		if !ok {
			return Choice{}, false
		}
		choice := Choice{Fingering: Fingering{Text: at.on(open)}}
		if id == "violin" && up == 0 && i > 0 {
			choice.Alternates = []Fingering{{
				Text: place{"", 4}.on(strings[i-1]),
				Why:  "fourth finger: no string crossing, and it does not ring on",
			}}
		}
		return choice, true
	}
	return Choice{}, false
}

func hand(id string, open, p score.Pitch, up int) (place, bool) {
	if id == "cello" {
		if up >= len(celloHand) {
			return place{}, false
		}
		return celloHand[up], true
	}
	if up >= len(violinHand) {
		return place{}, false
	}
	if up == 6 && p.Diatonic()-open.Diatonic() == 4 {
		return place{"L", 4}, true
	}
	return violinHand[up], true
}
