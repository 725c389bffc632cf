package routine

import (
	"slices"
	"strconv"
	"strings"
)

// Cause is what made a try stumble.
type Cause string

// The causes; None is a clean try's.
const (
	None      Cause = ""
	Rhythm    Cause = "rhythm"
	WrongName Cause = "name"
	Fingering Cause = "fingering"
	Sound     Cause = "sound"
)

// AllCauses lists them, the most basic first.
func AllCauses() []Cause { return []Cause{Rhythm, WrongName, Fingering, Sound} }

// Words names a cause in a sentence: "the rhythm".
func (c Cause) Words() string {
	return map[Cause]string{Rhythm: "the rhythm", WrongName: "the note names", Fingering: "the fingering",
		Sound: "the sound"}[c]
}

// ParseCause reads a cause's text; ok is false for anything else.
func ParseCause(text string) (Cause, bool) {
	if c := Cause(text); slices.Contains(AllCauses(), c) {
		return c, true
	}
	return None, false
}

// inMeasure stands before the measure of a stumble, where it was said.
const inMeasure = ", m. "

// mostMeasure is the highest number of a measure that is read.
const mostMeasure = 9999

// Stumble is what a try stumbled over, and in which measure; 0 where that was not said.
type Stumble struct {
	Cause   Cause
	Measure int
}

// String is the cause with the measure behind it: "rhythm, m. 5".
func (s Stumble) String() string {
	if s.Measure == 0 {
		return string(s.Cause)
	}
	return string(s.Cause) + inMeasure + strconv.Itoa(s.Measure)
}

// ParseStumble reads what String writes; ok is false for anything else.
func ParseStumble(text string) (s Stumble, ok bool) {
	cause, measure, said := strings.Cut(text, inMeasure)
	if s.Cause, ok = ParseCause(cause); !ok || !said {
		return s, ok
	}
	n, err := strconv.Atoi(measure)
	s.Measure = n
	return s, err == nil && n >= 1 && n <= mostMeasure
}

// Causes counts stumbles by their cause, in the order of AllCauses.
type Causes [4]int

// Add counts a stumble over a cause; None counts nothing.
func (c *Causes) Add(cause Cause) {
	if k := slices.Index(AllCauses(), cause); k >= 0 {
		c[k]++
	}
}

// Main is the cause of the most stumbles, the more basic of two as many; None where
// there are none.
func (c Causes) Main() Cause {
	main, most := None, 0
	for k, cause := range AllCauses() {
		if c[k] > most {
			main, most = cause, c[k]
		}
	}
	return main
}
