package finger

import "unhurriedbench/core/score"

// alternateHands gives the notes of keyed bars to the hands by turns. After each
// rest they begin with the hand that makes them cross less often, the right one
// where it does not matter. Written sticking is kept, and the turns go on from it.
// Source: common practice.
func alternateHands(part score.Part, choices [][]Choice) {
	var run []score.Place
	flush := func() {
		hands := turns(part, run, "R")
		if other := turns(part, run, "L"); crossings(part, run, other) < crossings(part, run, hands) {
			hands = other
		}
		for n, at := range run {
			choices[at.Measure][at.Event].Hand = hands[n]
		}
		run = run[:0]
	}
	for k, m := range part.Measures {
		for j, e := range m.Events {
			switch {
			case e.Kind == score.Rest:
				flush()
			case !e.Tied && choices[k][j].Text != "":
				run = append(run, score.Place{Measure: k, Event: j})
			}
		}
	}
	flush()
}

// turns gives a run of notes to the hands by turns, beginning with one.
func turns(part score.Part, run []score.Place, hand string) []string {
	other := map[string]string{"R": "L", "L": "R"}
	hands := make([]string, len(run))
	for n, at := range run {
		if written := part.At(at).Sticking; other[written] != "" {
			hand = written
		}
		hands[n] = hand
		hand = other[hand]
	}
	return hands
}

// leap is from how many half steps on a hand is said to cross the other: nearer
// bars are struck past it.
const leap = 5

// crossings is how often a hand strikes on the far side of the other.
func crossings(part score.Part, run []score.Place, hands []string) int {
	crossed := 0
	for n := 1; n < len(run); n++ {
		rise := part.At(run[n]).Pitch.MIDI() - part.At(run[n-1]).Pitch.MIDI()
		if rise >= leap && hands[n] == "L" && hands[n-1] == "R" || rise <= -leap && hands[n] == "R" && hands[n-1] == "L" {
			crossed++
		}
	}
	return crossed
}

// barChange is 1 for each third or part of one the hands travel, and 1 for the
// other row.
func barChange(from, to hand, why *reasons) int {
	away := max(from.midi-to.midi, to.midi-from.midi)
	cost := (away + 3) / 4
	if why != nil && away > 0 {
		why.say(count(away, "half step along the bars", "half steps along the bars"))
	}
	if upperRow(from.midi) != upperRow(to.midi) {
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
