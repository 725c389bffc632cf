package finger

import (
	"fmt"
	"strings"

	"unhurriedbench/core/score"
)

// stopLine chooses positions and fingers of a string part by the rules of its
// instrument. Source: common practice.
func (l *line) stopLine() {
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

// stringOf is the letter of the string that a fingering is on.
func stringOf(text string) string { return text[:1] }

// thirdPosition puts every unbroken stretch of the letters from the third
// position's first finger up that goes beyond first position into third.
func (l *line) thirdPosition() {
	top := l.instrument.OpenStrings[len(l.instrument.OpenStrings)-1]
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
				l.ruleWith(k, top.Step.String(), "(III)", fmt.Sprintf("the line goes on up to %s: third position from here on", l.called(high)))
			}
		}
		from = max(to, from+1)
	}
}

// ruleWith makes the first way stand that is on a string and ends in a position.
func (l *line) ruleWith(k int, str, position, why string) {
	for _, way := range l.notes[k].choice.Ways() {
		if stringOf(way.Text) == str && strings.HasSuffix(way.Text, position) {
			l.rule(k, way.Text, why)
			return
		}
	}
}

// fourthFingers puts the fourth finger for an open string: from the second year
// where both neighbours are in the same slur on the lower string, and where the
// teacher wants it when the line comes down to that string.
func (l *line) fourthFingers() {
	for k := range l.notes {
		n := &l.notes[k]
		four := l.fourthBelow(n.choice.Text)
		if four == "" || !n.choice.Has(four) {
			continue
		}
		lower := stringOf(four)
		on := func(j int) bool { return j >= 0 && stringOf(l.notes[j].choice.Text) == lower }
		a, b := l.before(k), l.after(k)
		switch {
		case l.options.Year >= 2 && on(a) && on(b) && l.slurredTo(a, k) && l.slurredTo(k, b):
			l.rule(k, four, fmt.Sprintf("in one bow between %s and %s, which are on the %s string", l.called(a), l.called(b), lower))
		case l.instrument.FourDown && on(b) && l.notes[b].midi < n.midi:
			l.rule(k, four, fmt.Sprintf("4 coming down: %s is next, on the %s string", l.called(b), lower))
		}
	}
}

// fourthBelow is the fourth finger on the string below an open one; "" for other
// fingerings and the lowest string.
func (l *line) fourthBelow(text string) string {
	strs := l.instrument.OpenStrings
	for k := 1; k < len(strs); k++ {
		if text == strs[k].Step.String()+"0" {
			return strs[k-1].Step.String() + "4"
		}
	}
	return ""
}

// extendHand keeps the cello's hand extended while a run on one string has an
// extended finger beyond the second: the note a whole step above 1 is then the
// second finger's, and a plain fourth the third's.
func (l *line) extendHand() {
	for from := 0; from < len(l.notes); {
		to, far := from, -1
		for to < len(l.notes) && stringOf(l.notes[to].choice.Text) == stringOf(l.notes[from].choice.Text) && !strings.Contains(l.notes[to].choice.Text, "(") {
			if text := l.notes[to].choice.Text; strings.HasSuffix(text, "x4") || strings.HasSuffix(text, "x3") {
				far = to
			}
			to++
		}
		for k := from; k < to && far >= 0; k++ {
			str := stringOf(l.notes[k].choice.Text)
			extended := map[string]string{str + "3": str + " x2", str + "4": str + " x3"}[l.notes[k].choice.Text]
			if extended != "" && l.notes[k].choice.Has(extended) {
				l.rule(k, extended, fmt.Sprintf("the hand is extended on this string for %s", l.called(far)))
			}
		}
		from = max(to, from+1)
	}
}

// halfNotes are the written notes of the double bass that only half position has.
var halfNotes = map[int]bool{
	score.MustPitch("F2").MIDI(): true, score.MustPitch("Bb2").MIDI(): true, score.MustPitch("Eb3").MIDI(): true, score.MustPitch("Ab3").MIDI(): true,
}

// halfPosition keeps the double bass in half position through every stretch,
// between open strings and rests, that has a note which only half position has.
func (l *line) halfPosition() {
	open := func(k int) bool { return strings.HasSuffix(l.notes[k].choice.Text, "0") }
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
				l.ruleWith(k, stringOf(l.notes[k].choice.Text), "(half)", fmt.Sprintf("the hand is in half position for %s", l.called(reason)))
			}
		}
		from = max(to, from+1)
	}
}
