package finger

import "unhurriedbench/core/score"

// alternateHands gives the notes of keyed bars to the hands by turns. After each
// rest they begin with the hand that makes them cross less often, the right one
// where it does not matter. Written sticking is kept. Source: common practice.
func alternateHands(part score.Part, choices [][]Choice) {
	var run []score.Place
	flush := func() {
		start := 0
		if crossings(part, run, 1) < crossings(part, run, 0) {
			start = 1
		}
		for n, at := range run {
			hand := "RL"[(n+start)%2 : (n+start)%2+1]
			if written := part.At(at).Sticking; written != "" {
				hand = written
			}
			choices[at.Measure][at.Event].Hand = hand
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

// crossings is how often a hand is to strike on the far side of the other, the
// hands taking turns from the given one: 0 the right, 1 the left.
func crossings(part score.Part, run []score.Place, start int) int {
	crossed := 0
	for n := 1; n < len(run); n++ {
		rise := part.At(run[n]).Pitch.MIDI() - part.At(run[n-1]).Pitch.MIDI()
		right := (n+start)%2 == 0
		if rise > 0 && !right || rise < 0 && right {
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
		why.add("%s", count(away, "half step along the bars", "half steps along the bars"))
	}
	if upperRow(from.midi) != upperRow(to.midi) {
		cost++
		if why != nil {
			why.add("to the other row")
		}
	}
	return cost
}

// upperRow is whether a bar lies in the row of the sharps and flats.
func upperRow(midi int) bool {
	_, black := blackKeys[midi%12]
	return black
}
