package finger

import "unhurriedbench/core/score"

// shareHands gives the notes of keyed bars and of timpani to the hands: they
// alternate, and a hand doubles where that saves it from crossing the other by a
// fourth or more. The right begins, unless the left then doubles less. Written
// sticking is kept, and the turns go on from it. Rolls are not measured. Source:
// common practice.
func shareHands(part score.Part, choices [][]Choice) {
	var run []score.Place
	for k, m := range part.Measures {
		for j, e := range m.Events {
			if c := &choices[k][j]; e.Kind == score.Note && !e.Tied && c.Text != "" {
				run = append(run, score.Place{Measure: k, Event: j})
				if e.Roll {
					c.Roll = Roll{Unmeasured: true}
					if c.Care != "" {
						c.Care += "; "
					}
					c.Care += "a roll: single strokes by turns, even and close, to its full length"
				}
			}
		}
	}
	hands, doubled := turns(part, run, "R")
	if left, fewer := turns(part, run, "L"); fewer < doubled {
		hands = left
	}
	for n, at := range run {
		choices[at.Measure][at.Event].Hand = hands[n]
	}
}

// leap is from how many half steps on a hand is said to cross the other: nearer
// bars are struck past it.
const leap = 5

// turns gives notes to the hands by turns, beginning with one, and counts how often
// a hand doubles or crosses.
func turns(part score.Part, run []score.Place, hand string) (hands []string, against int) {
	for n, at := range run {
		e := part.At(at)
		if n > 0 {
			rise := e.Pitch.MIDI() - part.At(run[n-1]).Pitch.MIDI()
			hand = other(hands[n-1])
			if rise >= leap && hand == "L" || rise <= -leap && hand == "R" {
				hand = hands[n-1]
				against++
			}
		}
		if e.Sticking == "R" || e.Sticking == "L" {
			hand = e.Sticking
		}
		hands = append(hands, hand)
	}
	return hands, against
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
