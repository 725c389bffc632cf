package name

import (
	"fmt"
	"strings"

	"unhurriedbench/core/score"
)

// Hint is a way to find a note's letter by steps: from the clef's own line, or
// from the nearest note already known where that is nearer. Known pitches may
// be nil.
func Hint(p score.Pitch, c score.Clef, known []score.Pitch) string {
	home, from := clefHome(c)
	if from == "" {
		return ""
	}
	clefsHome, clefsFrom := home, from
	for _, k := range known {
		switch {
		case k.Diatonic() == p.Diatonic(): // it is known itself: the clef tells it
			return hintFrom(clefsHome, clefsFrom, p)
		case distance(p, k) < distance(p, home):
			home, from = k, fmt.Sprintf("the %s you know on %s", k.Step, Place(k, c))
		}
	}
	return hintFrom(home, from, p)
}

func hintFrom(home score.Pitch, from string, p score.Pitch) string {
	steps := p.Diatonic() - home.Diatonic()
	if steps == 0 {
		return fmt.Sprintf("It is %s: %s.", from, p.Step)
	}
	direction := "up"
	if steps < 0 {
		direction = "down"
	}
	return fmt.Sprintf("From %s, %s %s: %s.", from, direction, stepWords(steps), walk(home, steps))
}

func distance(a, b score.Pitch) int {
	d := a.Diatonic() - b.Diatonic()
	return max(d, -d)
}

// clefHome is the pitch a clef's sign sits on, and how to say it.
func clefHome(c score.Clef) (score.Pitch, string) {
	home := map[string]score.Pitch{
		"G": {Step: score.G, Octave: 4}, "F": {Step: score.F, Octave: 3}, "C": {Step: score.C, Octave: 4},
	}
	p, ok := home[c.Sign]
	if !ok {
		return score.Pitch{}, ""
	}
	p.Octave += c.Octave
	return p, fmt.Sprintf("the clef's own %s on line %d", p.Step, c.Line)
}

func stepWords(steps int) string {
	n := max(steps, -steps)
	if n == 1 {
		return "one step"
	}
	return fmt.Sprintf("%d steps", n)
}

// walk lists the letters passed, the last one being the note.
func walk(from score.Pitch, steps int) string {
	var letters []string
	by := 1
	if steps < 0 {
		by = -1
	}
	for d := from.Diatonic() + by; ; d += by {
		letters = append(letters, score.Step(((d%7)+7)%7).String())
		if d == from.Diatonic()+steps {
			break
		}
	}
	return strings.Join(letters, " ")
}
