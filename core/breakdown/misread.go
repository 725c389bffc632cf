package breakdown

import (
	"fmt"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// afterSteps is after how many steps running a third is easily read as one more; the
// figure is ours.
const afterSteps = 2

// markLookAlikes marks a third where it is easily read as a step, both notes standing on
// lines or both in spaces: the first of the exercise, and those that go on where steps have
// led, once a line of music. Source: common practice.
func markLookAlikes(part score.Part, marks [][]noted) {
	var before score.Pitch
	led := false            // there is a note before
	steps, first := 0, true // steps is how many have just been made, up or down
	marked := map[int]bool{}
	for i, m := range part.Measures {
		for j, e := range m.Events {
			if e.Kind == score.Rest || e.Unpitched {
				led, steps = false, 0
				continue
			}
			if e.Tied {
				continue
			}
			now := e.Pitch
			if !led {
				before, led = now, true
				continue
			}
			moved := now.Diatonic() - before.Diatonic()
			line := systemOf(m)
			if abs(moved) == 2 && (first || !marked[line] && sameWay(moved, steps) && abs(steps) >= afterSteps) {
				words := "A third, not a step: from %s to %s."
				if !first || abs(steps) >= afterSteps && sameWay(moved, steps) {
					words += " After steps it is easily read as one more."
				}
				marks[i][j].add(LookAlike, fmt.Sprintf(words, name.Place(before, m.Clef), name.Place(now, m.Clef)))
				marked[line], first = true, false
			}
			switch {
			case abs(moved) != 1:
				steps = 0
			case sameWay(moved, steps):
				steps += moved
			default:
				steps = moved
			}
			before = now
		}
	}
}

func abs(n int) int { return max(n, -n) }

// sameWay says whether two moves go up or down alike, or the second does not move.
func sameWay(moved, steps int) bool { return steps == 0 || (moved > 0) == (steps > 0) }

// markSkipped marks what a class passes over or cuts short: once a line of music a rest on
// the last beat before a note on the downbeat, an entry inside a measure, and the last rest of all; once in an
// exercise a sign to repeat from, a tie over the bar line that is struck again, and four
// counts that are left early, where no other mark asks to keep them. Source: common
// practice.
func markSkipped(part score.Part, marks [][]noted) {
	marked := map[string]bool{}
	for i, m := range part.Measures {
		add := func(kind string, event int, reason string) {
			if !marked[kind] {
				marked[kind] = true
				marks[i][event].add(Skip, reason)
			}
		}
		line := fmt.Sprint("rest in line ", systemOf(m))
		last := len(m.Events) - 1
		final := i == len(part.Measures)-1
		for j, e := range m.Events {
			beat := m.Meter.Beat()
			switch {
			case e.Kind == score.Rest && j == last && final && !e.WholeMeasure:
				add(line, j, "The last rest belongs to the exercise: count it out.")
			case e.Kind == score.Rest && j == last && j > 0 && !final && e.Length.Cmp(beat) <= 0 &&
				strikesFirst(part.Measures[i+1]):
				add(line, j, "This rest is easily skipped: count it before the next downbeat.")
			case e.Kind != score.Rest && entersLate(m, j):
				add(fmt.Sprint("entry in line ", systemOf(m)), j, "It enters after a rest inside the measure: count the rest, then play.")
			case e.Tied && j == 0:
				add("tie", j, "Tied over the bar line: it goes on and is not struck again.")
			case e.Kind != score.Rest && !e.TieOn && !e.Tied && j == last && !final &&
				e.Length.Cmp(beat.Mul(score.Frac(4, 1))) >= 0 && len(marks[i][j].alerts) == 0 && strikesFirst(part.Measures[i+1]):
				add("long", j, "All four counts: the next note is not before the downbeat.")
			}
		}
		if m.RepeatEnd && !m.Implied && last >= 0 {
			add("repeat", last, "Repeat from here: the sign is easily passed over.")
		}
	}
}

// entersLate says whether a note comes in after a rest inside its measure.
func entersLate(m score.Measure, j int) bool {
	return j > 0 && !m.Events[j].Tied && m.Events[j-1].Kind == score.Rest
}

// strikesFirst says whether a measure begins with a note that is struck.
func strikesFirst(m score.Measure) bool {
	return len(m.Events) > 0 && m.Events[0].Kind != score.Rest && !m.Events[0].Tied
}
