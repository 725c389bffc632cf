// Package name says notes and where they stand on the staff.
package name

import "unhurriedbench/core/score"

// Spoken is the letter with the accidental that sounds: "E flat". A natural is
// said only when natural is true, which is where it is news.
func Spoken(p score.Pitch, natural bool) string {
	if p.Alter == 0 && natural {
		return p.Step.String() + " natural"
	}
	return p.Step.String() + score.AlterWord(p.Alter)
}

// Short is the name in the width of a notehead: "E♭", "F♯", "E♮".
func Short(p score.Pitch, natural bool) string {
	return p.Step.String() + sign(p.Alter, natural)
}

var ordinals = [...]string{"", "first ", "second ", "third ", "fourth ", "fifth ", "sixth ", "seventh "}

// Place says where a note stands: "line 1" to "line 5" and "space 1" to "space
// 4" from the bottom, "space below the staff", "first ledger line above the
// staff", "space above the first ledger line" and so on.
func Place(p score.Pitch, c score.Clef) string {
	steps := p.Diatonic() - c.BottomLine().Diatonic()
	switch {
	case steps >= 0 && steps <= 8:
		n := string(rune('1' + steps/2))
		if steps%2 == 0 {
			return "line " + n
		}
		return "space " + n
	case steps > 8:
		return beyond(steps-8, "above")
	default:
		return beyond(-steps, "below")
	}
}

// beyond names the n-th place outside the staff; odd ones are spaces.
func beyond(n int, side string) string {
	ledger := n / 2
	if n%2 == 0 {
		return ordinal(ledger) + "ledger line " + side + " the staff"
	}
	if ledger == 0 {
		return "space " + side + " the staff"
	}
	return "space " + side + " the " + ordinal(ledger) + "ledger line"
}

func ordinal(n int) string {
	if n < len(ordinals) {
		return ordinals[n]
	}
	return "far "
}
