package finger

import (
	"fmt"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

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

// violinHand is the violin's and viola's first position by semitones above the open string; at six
// semitones the spelling tells a high third finger from a low fourth.
var violinHand = [8]place{{"", 0}, {"L", 1}, {"", 1}, {"L", 2}, {"", 2}, {"", 3}, {"H", 3}, {"", 4}}

// stopped computes string and finger in first position: the highest string the
// note lies on, open where it can be.
func stopped(i instrument.Instrument, p score.Pitch) (Choice, bool) {
	cello := i.ID == "cello"
	for k := len(i.OpenStrings) - 1; k >= 0; k-- {
		open := i.OpenStrings[k]
		up := p.MIDI() - open.MIDI()
		if up < 0 {
			continue
		}
		at, ok := hand(cello, open, p, up)
		if !ok {
			return Choice{}, false
		}
		choice := Choice{Fingering: Fingering{Text: at.on(open)}}
		if !cello && up == 0 && k > 0 {
			choice.Alternates = []Fingering{{
				Text: place{"", 4}.on(i.OpenStrings[k-1]),
				Why:  "fourth finger: no string crossing, and it does not ring on",
			}}
		}
		return choice, true
	}
	return Choice{}, false
}

func hand(cello bool, open, p score.Pitch, up int) (place, bool) {
	if cello {
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

// bassHand is finger and position on one string of the double bass by semitones
// above it: fingers 1, 2 and 4 a semitone apart, first position a whole step up.
// From the fourth semitone on the next string takes over, but for the highest,
// where third position follows. Source: common practice.
var bassHand = [8]string{"0", "1(half)", "1", "2", "4", "1(III)", "2(III)", "4(III)"}

func doubleBass(i instrument.Instrument, p score.Pitch) (Choice, bool) {
	for k := len(i.OpenStrings) - 1; k >= 0; k-- {
		open := i.OpenStrings[k]
		if up := p.MIDI() - open.MIDI(); up >= 0 && up < len(bassHand) {
			return Choice{Fingering: Fingering{Text: open.Step.String() + bassHand[up]}}, true
		}
	}
	return Choice{}, false
}
