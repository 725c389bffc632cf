package score

import (
	"fmt"
	"strconv"
)

// Step is a letter of the scale, C = 0 to B = 6.
type Step int

// The letters.
const (
	C Step = iota
	D
	E
	F
	G
	A
	B
)

// semitonesAboveC is the distance of each natural letter above C.
var semitonesAboveC = [7]int{0, 2, 4, 5, 7, 9, 11}

// String is the capital letter.
func (s Step) String() string { return "CDEFGAB"[s : s+1] }

// ParseStep reads a letter A to G, capital or small.
func ParseStep(letter byte) (Step, bool) {
	if letter >= 'a' && letter <= 'g' {
		letter -= 'a' - 'A'
	}
	for i := range 7 {
		if "CDEFGAB"[i] == letter {
			return Step(i), true
		}
	}
	return 0, false
}

// Pitch is a letter, its alteration in semitones (flat -1, sharp 1, from -2 to
// 2) and its octave in scientific pitch notation, in which C4 is middle C.
type Pitch struct {
	Step   Step
	Alter  int
	Octave int
}

// MIDI is the Standard MIDI File note number; middle C is 60.
func (p Pitch) MIDI() int { return 12*(p.Octave+1) + semitonesAboveC[p.Step] + p.Alter }

// Diatonic counts letters upwards from C0, so that neighbouring lines and
// spaces of a staff differ by 1.
func (p Pitch) Diatonic() int { return 7*p.Octave + int(p.Step) }

// String writes the pitch as "Eb4", "F#3" or "C4".
func (p Pitch) String() string {
	return p.Step.String() + AccidentalText(p.Alter) + strconv.Itoa(p.Octave)
}

// AccidentalText is "bb", "b", "", "#" or "##".
func AccidentalText(alter int) string {
	switch {
	case alter <= -2:
		return "bb"
	case alter == -1:
		return "b"
	case alter == 1:
		return "#"
	case alter >= 2:
		return "##"
	}
	return ""
}

// ParsePitch reads what String writes.
func ParsePitch(text string) (Pitch, error) {
	bad := fmt.Errorf("%q is not a pitch such as Eb4", text)
	if text == "" {
		return Pitch{}, bad
	}
	step, ok := ParseStep(text[0])
	if !ok {
		return Pitch{}, bad
	}
	p, rest := Pitch{Step: step}, text[1:]
	for rest != "" && (rest[0] == 'b' || rest[0] == '#') {
		if rest[0] == 'b' {
			p.Alter--
		} else {
			p.Alter++
		}
		rest = rest[1:]
	}
	octave, err := strconv.Atoi(rest)
	if err != nil || p.Alter < -2 || p.Alter > 2 {
		return Pitch{}, bad
	}
	p.Octave = octave
	return p, nil
}

// MustPitch is ParsePitch for tables in the source; it panics on a bad one.
func MustPitch(text string) Pitch {
	p, err := ParsePitch(text)
	if err != nil {
		panic(err)
	}
	return p
}

// Interval is a distance upwards in letters and in semitones: a major second
// is {1, 2}. Downwards both are negative.
type Interval struct {
	Steps     int
	Semitones int
}

// Octaves is an interval of n octaves.
func Octaves(n int) Interval { return Interval{7 * n, 12 * n} }

// Plus adds two intervals.
func (i Interval) Plus(j Interval) Interval {
	return Interval{i.Steps + j.Steps, i.Semitones + j.Semitones}
}

// Negated is the same distance the other way.
func (i Interval) Negated() Interval { return Interval{-i.Steps, -i.Semitones} }

// Transpose moves the pitch. Where the exact spelling would need more than a
// double accidental the neighbouring letter is taken, so that the result
// always sounds right. An interval of more than furthestMove is as far as that.
func (p Pitch) Transpose(i Interval) Pitch {
	i = i.bounded()
	sounding := p.MIDI() + i.Semitones
	moved := pitchAt(p.Diatonic()+i.Steps, sounding)
	for moved.Alter > 2 {
		moved = pitchAt(moved.Diatonic()+1, sounding)
	}
	for moved.Alter < -2 {
		moved = pitchAt(moved.Diatonic()-1, sounding)
	}
	return moved
}

// furthestMove is more than lies between any two notes.
var furthestMove = Octaves(20)

// bounded is the interval, or furthestMove where it is larger.
func (i Interval) bounded() Interval {
	far := furthestMove
	return Interval{min(max(i.Steps, -far.Steps), far.Steps), min(max(i.Semitones, -far.Semitones), far.Semitones)}
}

// NaturalAt is the natural note so many letters above C0, as Diatonic counts them; d is not negative.
func NaturalAt(d int) Pitch { return Pitch{Step: Step(d % 7), Octave: d / 7} }

// pitchAt spells the sounding MIDI number on the given letter.
func pitchAt(diatonic, midi int) Pitch {
	octave := diatonic / 7
	if diatonic < 0 && diatonic%7 != 0 {
		octave--
	}
	p := Pitch{Step: Step(diatonic - 7*octave), Octave: octave}
	p.Alter = midi - p.MIDI()
	return p
}

// simpleSteps is the letter distance of the usual spelling of 0 to 11
// semitones: unison, minor and major second, minor and major third, fourth,
// tritone as an augmented fourth, fifth, and so on.
var simpleSteps = [12]int{0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6}

// ChromaticInterval spells a number of semitones in the usual way.
func ChromaticInterval(semitones int) Interval {
	semitones = Interval{0, semitones}.bounded().Semitones
	if semitones < 0 {
		return ChromaticInterval(-semitones).Negated()
	}
	return Interval{7*(semitones/12) + simpleSteps[semitones%12], semitones}
}
