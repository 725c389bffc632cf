package score

import (
	"slices"
	"strings"
)

// Key is a key signature: the number of sharps (positive) or flats (negative)
// on the line of fifths, and the mode when it is known.
type Key struct {
	Fifths int
	Mode   string // "major", "minor", a church mode, or "" for major
}

// fifthsOrder lists the letters in the order sharps are added.
var fifthsOrder = [7]Step{F, C, G, D, A, E, B}

// Fifths is how many fifths a natural letter lies above C: -1 for F, 5 for B.
func (s Step) Fifths() int { return slices.Index(fifthsOrder[:], s) - 1 }

// Alter is what the signature does to a letter: -1, 0 or 1 (beyond seven
// sharps or flats, 2 or -2).
func (k Key) Alter(s Step) int {
	for i, letter := range fifthsOrder {
		if letter == s {
			return floorDiv(k.Fifths+6-i, 7)
		}
	}
	return 0
}

// Changed lists the letters the signature changes, in the order they are
// written on the staff.
func (k Key) Changed() []Step {
	var letters []Step
	for i := range 7 {
		if i < k.Fifths {
			letters = append(letters, fifthsOrder[i])
		}
		if i < -k.Fifths {
			letters = append(letters, fifthsOrder[6-i])
		}
	}
	return letters
}

// modeFifths is how far each mode's tonic lies from the major tonic with the
// same signature, on the line of fifths.
var modeFifths = map[string]int{
	"": 0, "major": 0, "ionian": 0, "lydian": -1, "mixolydian": 1,
	"dorian": 2, "minor": 3, "aeolian": 3, "phrygian": 4, "locrian": 5,
}

// ModeFifths gives the fifths between a mode's tonic and the major tonic of
// its signature, and whether the mode is known.
func ModeFifths(mode string) (int, bool) {
	n, ok := modeFifths[mode]
	return n, ok
}

// Tonic is the key note's letter and alteration.
func (k Key) Tonic() (Step, int) {
	fifths := k.Fifths + modeFifths[k.Mode]
	letter := fifthsOrder[((fifths+1)%7+7)%7]
	return letter, floorDiv(fifths+1, 7)
}

// Degree is the degree of the key's scale that a letter stands on, from 1; its sign is not
// looked at.
func (k Key) Degree(p Pitch) int {
	tonic, _ := k.Tonic()
	return (int(p.Step)-int(tonic)+7)%7 + 1
}

// Name is the key in words: "B flat major".
func (k Key) Name() string {
	step, alter := k.Tonic()
	mode := k.Mode
	if mode == "" {
		mode = "major"
	}
	return step.String() + AlterWord(alter) + " " + mode
}

// AlterWord is " flat", " sharp", " double flat", " double sharp" or "".
func AlterWord(alter int) string {
	switch alter {
	case -2:
		return " double flat"
	case -1:
		return " flat"
	case 1:
		return " sharp"
	case 2:
		return " double sharp"
	}
	return ""
}

// SignatureWords says what a player must remember: "every B and E is flat",
// or "no sharps or flats".
func (k Key) SignatureWords() string {
	letters := k.Changed()
	if len(letters) == 0 {
		return "no sharps or flats"
	}
	words := make([]string, len(letters))
	for i, s := range letters {
		words[i] = s.String()
	}
	kind := "sharp"
	if k.Fifths < 0 {
		kind = "flat"
	}
	if len(words) == 1 {
		return "every " + words[0] + " is " + kind
	}
	last := len(words) - 1
	return "every " + strings.Join(words[:last], ", ") + " and " + words[last] + " is " + kind
}

// Transpose moves the key by an interval and returns it with the interval that
// was really used: where the new signature would have more than six sharps or
// flats it is respelled enharmonically, one letter up or down. A key that does
// not move is left as it is printed, with up to seven.
func (k Key) Transpose(i Interval) (Key, Interval) {
	fifths := intervalFifths(i)
	if fifths == 0 {
		return k, i
	}
	moved := Key{Fifths: k.Fifths + fifths, Mode: k.Mode}
	if moved.Fifths > 6 {
		moved.Fifths -= 12
		i.Steps++
	}
	if moved.Fifths < -6 {
		moved.Fifths += 12
		i.Steps--
	}
	return moved, i
}

// intervalFifths is how far an interval moves a key on the line of fifths.
func intervalFifths(i Interval) int {
	from := Pitch{Step: C, Octave: 4}
	to := pitchAt(from.Diatonic()+i.Steps, from.MIDI()+i.Semitones)
	for n, letter := range fifthsOrder {
		if letter == to.Step {
			return n - 1 + 7*to.Alter
		}
	}
	return 0
}

func floorDiv(a, b int) int {
	q := a / b
	if a%b != 0 && (a < 0) != (b < 0) {
		q--
	}
	return q
}
