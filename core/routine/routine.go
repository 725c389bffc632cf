package routine

import "slices"

// Stage is a way of working at a piece, by the text that names it in the log, in
// tables, addresses and styles. Its place in an order is the routine's affair.
type Stage string

// The stages of the standard routine.
const (
	Count  Stage = "count"
	Name   Stage = "name"
	Finger Stage = "finger"
	Play   Stage = "play"
)

// Done is where a piece is after the last stage of any routine.
const Done Stage = "done"

// Step is a stage as it stands in a routine.
type Step struct {
	Stage Stage
	Word  string  // "Count"
	Mends []Cause // the stumbles that are mended here
}

// Routine is the stages a piece goes through, in order. It has one at least, and
// none twice.
type Routine []Step

// Standard is to count a piece, name its notes, finger it and play it. Source:
// common practice.
func Standard() Routine {
	return Routine{
		{Count, "Count", []Cause{Rhythm}},
		{Name, "Name", []Cause{WrongName}},
		{Finger, "Finger", []Cause{Fingering}},
		{Play, "Play", []Cause{Sound}},
	}
}

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
	return map[Cause]string{Rhythm: "the rhythm", WrongName: "the note names", Fingering: "the fingering", Sound: "the sound"}[c]
}

// ParseCause reads a cause's text; ok is false for anything else.
func ParseCause(text string) (Cause, bool) {
	if c := Cause(text); slices.Contains(AllCauses(), c) {
		return c, true
	}
	return None, false
}

// Index is a stage's place in the order, from 0; Done comes after the last, and a
// stage the routine does not have is -1.
func (r Routine) Index(s Stage) int {
	if s == Done {
		return len(r)
	}
	return slices.IndexFunc(r, func(step Step) bool { return step.Stage == s })
}

// Has says whether a stage is one of the routine's.
func (r Routine) Has(s Stage) bool { return s != Done && r.Index(s) >= 0 }

// First is the stage a piece begins with, and Last the one before it is done.
func (r Routine) First() Stage { return r[0].Stage }

// Last is the stage after which a piece is done.
func (r Routine) Last() Stage { return r[len(r)-1].Stage }

// Word is a stage's word: "Count", or "Done". One the routine does not have keeps
// its text, as in a log from an earlier routine.
func (r Routine) Word(s Stage) string {
	switch at := r.Index(s); {
	case s == Done:
		return "Done"
	case at < 0:
		return string(s)
	default:
		return r[at].Word
	}
}

// after is the stage that follows, Done after the last.
func (r Routine) after(s Stage) Stage {
	if at := r.Index(s); at+1 < len(r) {
		return r[at+1].Stage
	}
	return Done
}

// mends is the place of the stage where a cause is mended; a routine without one
// mends it at its end.
func (r Routine) mends(c Cause) int {
	at := slices.IndexFunc(r, func(step Step) bool { return slices.Contains(step.Mends, c) })
	if at < 0 {
		return len(r) - 1
	}
	return at
}
