package finger

import (
	"fmt"

	"unhurriedbench/core/score"
)

// stopLine chooses positions and fingers of a string part by the rules of its
// instrument. Source: common practice.
func (l *melody) stopLine() {
	switch hand := playerOf(l.instrument); {
	case hand.extends:
		l.extendHand()
	case hand.near:
		l.halfPosition()
	default:
		l.thirdPosition()
		l.fourthFingers()
	}
}

// thirdPosition puts every unbroken stretch of the letters from the third
// position's first finger up that goes beyond first position into third.
func (l *melody) thirdPosition() {
	highest := len(l.instrument.OpenStrings) - 1
	top := l.instrument.OpenStrings[highest]
	first, reach := top.Diatonic()+3, top.MIDI()+7
	for from := 0; from < len(l.notes); {
		to, high := from, from
		for to < len(l.notes) && l.notes[to].pitch.Diatonic() >= first {
			if l.notes[to].midi > reach && l.notes[high].midi <= reach {
				high = to
			}
			to++
		}
		if to > from && l.notes[high].midi > reach {
			for k := from; k < to; k++ {
				l.ruleWith(k, highest, thirdBase, fmt.Sprintf("the line goes on up to %s: third position from here on", l.called(high)))
			}
		}
		from = max(to, from+1)
	}
}

// thirdBase is where the violin's and viola's hand lies in third position, and
// halfBase the double bass's in half position, in half steps from the open string.
const (
	thirdBase = 5
	halfBase  = 1
)

// ruleWith makes the first way stand that is on a string and in a position.
func (l *melody) ruleWith(k, str, base int, why string) {
	for _, way := range l.notes[k].choice.Ways() {
		if way.String == str && way.Position == base && way.Finger > 0 {
			l.rule(k, way.Text, why)
			return
		}
	}
}

// fourthFingers puts the fourth finger for an open string: from the second year
// where both neighbours are in the same slur on the lower string, and where the
// teacher wants it when the line comes down to that string.
func (l *melody) fourthFingers() {
	for k := range l.notes {
		n := &l.notes[k]
		four, has := fourthBelow(n.choice)
		if !has {
			continue
		}
		lower := l.instrument.OpenStrings[four.String].Step
		on := func(j int) bool { return j >= 0 && l.notes[j].choice.String == four.String }
		a, b := l.before(k), l.after(k)
		switch {
		case l.options.Year >= 2 && on(a) && on(b) && l.slurredTo(a, k) && l.slurredTo(k, b):
			l.rule(k, four.Text, fmt.Sprintf("in one bow between %s and %s, which are on the %s string", l.called(a), l.called(b), lower))
		case l.instrument.FourDown && on(b) && l.notes[b].midi < n.midi:
			l.rule(k, four.Text, fmt.Sprintf("4 coming down: %s is next, on the %s string", l.called(b), lower))
		}
	}
}

// fourthBelow is the fourth finger on the string below, among the ways of a note that
// is open.
func fourthBelow(c Choice) (Fingering, bool) {
	for _, way := range c.Alternates {
		if c.Finger == 0 && way.String == c.String-1 && way.Finger == 4 && way.Moved == InPlace && way.Position == c.Position {
			return way, true
		}
	}
	return Fingering{}, false
}

// extendHand keeps the cello's hand extended while a run on one string has an
// extended finger beyond the second: the note a whole step above 1 is then the
// second finger's, and a plain fourth the third's.
func (l *melody) extendHand() {
	first := playerOf(l.instrument).first()
	for from := 0; from < len(l.notes); {
		to, far := from, -1
		for to < len(l.notes) && l.notes[to].choice.String == l.notes[from].choice.String && l.notes[to].choice.Position == first {
			if c := l.notes[to].choice; c.Moved == Extended && c.Finger >= 3 {
				far = to
			}
			to++
		}
		for k := from; k < to && far >= 0; k++ {
			if way, has := extendedBelow(l.notes[k].choice); has {
				l.rule(k, way.Text, fmt.Sprintf("the hand is extended on this string for %s", l.called(far)))
			}
		}
		from = max(to, from+1)
	}
}

// extendedBelow is what an extended hand takes for a plain third or fourth finger: the
// finger before it.
func extendedBelow(c Choice) (Fingering, bool) {
	for _, way := range c.Alternates {
		if c.Finger >= 3 && c.Moved == InPlace && way.String == c.String && way.Position == c.Position && way.Finger == c.Finger-1 &&
			way.Moved == Extended {
			return way, true
		}
	}
	return Fingering{}, false
}

// halfNotes are the written notes of the double bass that only half position has.
var halfNotes = map[int]bool{
	score.MustPitch("F2").MIDI(): true, score.MustPitch("Bb2").MIDI(): true,
	score.MustPitch("Eb3").MIDI(): true, score.MustPitch("Ab3").MIDI(): true,
}

// halfPosition keeps the double bass in half position through every stretch,
// between open strings and rests, that has a note which only half position has.
func (l *melody) halfPosition() {
	open := func(k int) bool { return l.notes[k].choice.Finger == 0 }
	for from := 0; from < len(l.notes); {
		to, reason := from, -1
		for to < len(l.notes) && !open(to) && (to == from || !l.notes[to].rested) {
			if halfNotes[l.notes[to].midi] {
				reason = to
			}
			to++
		}
		for k := from; k < to && reason >= 0; k++ {
			if !halfNotes[l.notes[k].midi] {
				l.ruleWith(k, l.notes[k].choice.String, halfBase, fmt.Sprintf("the hand is in half position for %s", l.called(reason)))
			}
		}
		from = max(to, from+1)
	}
}
