package finger

import (
	"fmt"

	"unhurriedbench/core/score"
)

// shareHands gives the notes of keyed bars and of timpani to the hands. They take turns,
// which start again after a rest of a beat or a note of two: with the right, or with the left
// where the right would cross. Where a turn would cross the other hand by a fourth or more,
// a hand doubles on the longest note before it. A measure that comes again has the hands it
// had, so one with an odd number of strokes doubles over its bar line. Written sticking is
// kept. Rolls are not measured. Source: common practice.
func shareHands(part score.Part, choices [][]Choice) {
	known := map[string][]string{} // hands of measures, by what they hold
	var phrase []barStroke
	last := ""
	finish := func() {
		last = dealHands(phrase, last, known, choices)
		phrase = nil
	}
	turns := freshTurns{}
	for k, m := range part.Measures {
		held := measureHolds(m)
		for j, e := range m.Events {
			fresh := turns.startAgain(m.Meter.Beat(), e)
			if e.Tied && len(phrase) > 0 && e.Kind == score.Note {
				n := &phrase[len(phrase)-1]
				n.length = n.length.Add(e.Length)
			}
			c := &choices[k][j]
			if e.Kind != score.Note || e.Tied || c.Text == "" {
				continue
			}
			if fresh {
				finish()
				last = ""
			}
			phrase = append(phrase, barStroke{at: score.Place{Measure: k, Event: j}, midi: e.Pitch.MIDI(),
				length: e.Length, beat: m.Meter.Beat(), written: e.Sticking, holds: held})
			if e.Roll {
				c.Roll = Roll{Unmeasured: true}
				if c.Care != "" {
					c.Care += "; "
				}
				c.Care += "a roll: single strokes by turns, even and close, to its full length"
			}
		}
	}
	finish()
}

// barStroke is a note that a hand strikes.
type barStroke struct {
	at      score.Place
	midi    int
	length  score.Fraction // through its ties
	beat    score.Fraction
	written string // its sticking
	holds   string // what its measure holds
}

// measureHolds spells what a measure holds, so that equal ones are recognised.
func measureHolds(m score.Measure) string {
	text := ""
	for _, e := range m.Events {
		text += fmt.Sprint(e.Kind, e.Start, e.Length, e.Pitch, e.Tied, e.Sticking, ";")
	}
	return text
}

// leap is from how many half steps on a hand is said to cross the other: nearer
// bars are struck past it.
const leap = 5

// What speaks against a hand, the weightiest first: against what is written, a crossing where a
// double could stand on a note of a beat or more, and so on down. A double on a note shorter
// than half a beat is worse than a crossing.
const (
	againstWritten = 1_000_000
	quickDouble    = 1000 // on a note shorter than half a beat
	crossingHands  = 300
	halfDouble     = 60 // on a note shorter than a beat
	slowDouble     = 20
	leftBegins     = 1
)

// cost is what speaks against striking a note with a hand after another with another.
func (s barStroke) cost(hand string, before barStroke, was string) int {
	cost := 0
	if (s.written == "R" || s.written == "L") && s.written != hand {
		cost += againstWritten
	}
	rise := s.midi - before.midi
	switch {
	case was == "":
		if hand == "L" {
			cost += leftBegins
		}
	case was == hand && before.length.Mul(score.Frac(2, 1)).Less(before.beat):
		cost += quickDouble
	case was == hand && before.length.Less(before.beat):
		cost += halfDouble
	case was == hand:
		cost += slowDouble - min(int(before.length.Div(before.beat).Floor()), slowDouble/2)
	case rise >= leap && hand == "L" || rise <= -leap && hand == "R":
		cost += crossingHands
	}
	return cost
}

// dealHands gives a phrase its hands, measure after measure, and returns the hand it ends with.
func dealHands(phrase []barStroke, last string, known map[string][]string, choices [][]Choice) string {
	var before barStroke
	for from := 0; from < len(phrase); {
		to := from
		for to < len(phrase) && phrase[to].at.Measure == phrase[from].at.Measure {
			to++
		}
		measure := phrase[from:to]
		hands, again := known[measure[0].holds]
		if !again || len(hands) != len(measure) {
			hands = bestHands(measure, before, last, phrase[to:])
			known[measure[0].holds] = hands
		}
		for n, s := range measure {
			choices[s.at.Measure][s.at.Event].Hand = hands[n]
		}
		before, last, from = measure[len(measure)-1], hands[len(hands)-1], to
	}
	return last
}

// bestHands is the hands of a measure with the least against them, what follows in the phrase
// looked at too.
func bestHands(measure []barStroke, before barStroke, last string, rest []barStroke) []string {
	all := append(append([]barStroke{}, measure...), rest...)
	type way struct {
		cost int
		from int // which hand the stroke before had
	}
	both := [2]string{"R", "L"}
	ways := make([][2]way, len(all))
	for n, s := range all {
		for h, hand := range both {
			if n == 0 {
				ways[n][h] = way{cost: s.cost(hand, before, last)}
				continue
			}
			best := way{cost: -1}
			for g, was := range both {
				if c := ways[n-1][g].cost + s.cost(hand, all[n-1], was); best.cost < 0 || c < best.cost {
					best = way{c, g}
				}
			}
			ways[n][h] = best
		}
	}
	h := 0
	if end := ways[len(all)-1]; end[1].cost < end[0].cost {
		h = 1
	}
	hands := make([]string, len(measure))
	for n := len(all) - 1; n >= 0; n-- {
		if n < len(hands) {
			hands[n] = both[h]
		}
		h = ways[n][h].from
	}
	return hands
}

// barChange is 1 for each third or part of one the hands travel, and 1 for the
// other row.
func barChange(from, to Played, why *reasons) int {
	a, b := from.Pitch.MIDI(), to.Pitch.MIDI()
	away := max(a-b, b-a)
	cost := (away + 3) / 4
	if why != nil && away > 0 {
		why.say(count(away, "half step along the bars", "half steps along the bars"))
	}
	if upperRow(a) != upperRow(b) {
		cost++
		why.say("to the other row")
	}
	return cost
}

// upperRow is whether a bar lies in the row of the sharps and flats.
func upperRow(midi int) bool {
	_, black := blackKeys[midi%12]
	return black
}
