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
				l.ruleWith(k, highest, thirdBase, fmt.Sprintf("the line goes on up to %s: third position from here on",
					l.called(high)))
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
		four, has := fourthBelow(*n.choice)
		if !has {
			continue
		}
		lower := l.instrument.OpenStrings[four.String].Step
		on := func(j int) bool { return j >= 0 && l.notes[j].choice.String == four.String }
		a, b := l.before(k), l.after(k)
		switch {
		case l.options.Year >= 2 && on(a) && on(b) && l.slurredTo(a, k) && l.slurredTo(k, b):
			l.rule(k, four.Text, fmt.Sprintf("in one bow between %s and %s, which are on the %s string", l.called(a),
				l.called(b), lower))
		case l.instrument.FourDown && on(b) && l.notes[b].midi < n.midi:
			l.rule(k, four.Text, fmt.Sprintf("4 coming down: %s is next, on the %s string", l.called(b), lower))
		}
	}
}

// fourthBelow is the fourth finger on the string below, among the ways of a note that
// is open.
func fourthBelow(c Choice) (Fingering, bool) {
	for _, way := range c.Alternates {
		if c.Finger == 0 && way.String == c.String-1 && way.Finger == 4 && way.Moved == InPlace &&
			way.Position == c.Position {
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
		for to < len(l.notes) && l.notes[to].choice.String == l.notes[from].choice.String &&
			l.notes[to].choice.Position == first {
			if c := l.notes[to].choice; c.Moved == Extended && c.Finger >= 3 {
				far = to
			}
			to++
		}
		for k := from; k < to && far >= 0; k++ {
			if way, has := extendedBelow(*l.notes[k].choice); has && l.opened(k, from, to) {
				l.rule(k, way.Text, fmt.Sprintf("the hand is extended on this string for %s", l.called(far)))
			}
		}
		from = max(to, from+1)
	}
}

// opened says whether the cello's hand is extended at the k-th note of a run on one string.
// It is wherever the run has no second finger in its plain place; where it has, the hand
// opens for the note beside the extended one alone: 2 3 4, then x3 x4.
func (l *melody) opened(k, from, to int) bool {
	plain := func(j int) bool { c := l.notes[j].choice; return c.Finger == 2 && c.Moved == InPlace }
	far := func(j int) bool { c := l.notes[j].choice; return c.Moved == Extended && c.Finger >= 3 && c.By == Usual }
	closed := false
	for j := from; j < to; j++ {
		closed = closed || plain(j)
	}
	if !closed {
		return true
	}
	for j := k + 1; j < to; j++ { // repeated notes are one
		if l.notes[j].midi != l.notes[k].midi {
			if far(j) {
				return true
			}
			break
		}
	}
	for j := k - 1; j >= from; j-- {
		if l.notes[j].midi != l.notes[k].midi {
			return far(j)
		}
	}
	return false
}

// extendedBelow is what an extended hand takes for a plain third or fourth finger: the
// finger before it.
func extendedBelow(c Choice) (Fingering, bool) {
	for _, way := range c.Alternates {
		if c.Finger >= 3 && c.Moved == InPlace && way.String == c.String && way.Position == c.Position &&
			way.Finger == c.Finger-1 &&
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

// halfPosition sets the hand on each string of the double bass for the whole line: in half
// position where the line has the string's note that only half position has, else in first.
// So one pitch has one fingering in a line. A note that the string's position lacks is taken
// in the other, and the string goes back after it.
func (l *melody) halfPosition() {
	reasons := map[int]int{} // by string: the note that only half position has
	for k, n := range l.notes {
		if _, known := reasons[n.choice.String]; halfNotes[n.midi] && !known && n.choice.Position == halfBase {
			reasons[n.choice.String] = k
		}
	}
	for k, n := range l.notes {
		if reason, half := reasons[n.choice.String]; half && n.choice.Finger > 0 && !halfNotes[n.midi] {
			l.ruleWith(k, n.choice.String, halfBase, fmt.Sprintf("the hand lies in half position on this string, for %s",
				l.called(reason)))
		}
	}
}
