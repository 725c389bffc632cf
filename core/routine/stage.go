package routine

import "fmt"

// Stage is a way of working at a piece, in order.
type Stage int

// The four stages, and Done after the last.
const (
	Count Stage = iota
	Name
	Finger
	Play
	Done
)

// Stages lists the four.
func Stages() []Stage { return []Stage{Count, Name, Finger, Play} }

// String is the stage's word.
func (s Stage) String() string {
	return [...]string{"Count", "Name", "Finger", "Play", "Done"}[s]
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

// Causes lists them in order of the stage each goes back to.
func Causes() []Cause { return []Cause{Rhythm, WrongName, Fingering, Sound} }

// Stage is where a cause is mended.
func (c Cause) Stage() Stage {
	switch c {
	case Rhythm:
		return Count
	case WrongName:
		return Name
	case Fingering:
		return Finger
	}
	return Play
}

// ParseCause reads a cause's text; ok is false for anything else.
func ParseCause(text string) (Cause, bool) {
	for _, c := range Causes() {
		if string(c) == text {
			return c, true
		}
	}
	return None, false
}

// CleanToGoOn is how many clean tries in a row move a piece on, and
// StumblesToGoBack how many stumbles running send it back. Source: common
// practice.
const (
	CleanToGoOn      = 2
	StumblesToGoBack = 2
)

// Try is one attempt at a piece.
type Try struct {
	Stage Stage // the stage that was tried
	Clean bool
	Cause Cause // of a stumble
}

// State is where a student stands on a piece.
type State struct {
	Stage   Stage
	Clean   int // clean tries in a row at this stage
	Stumble int // stumbles in a row at this stage
	cause   Cause
	Tries   int
	Slower  bool   // the last step was to take it a notch slower
	Advice  string // what to do next and why, "" before the first try
}

// After gives the state after one more try. Two clean in a row go on. Two
// stumbles running go back to the stage where their cause is mended, the more
// basic of the two causes when they differ; a cause that is mended at this
// stage, or later, takes the tempo a notch down instead.
func (s State) After(t Try) State {
	s.Tries++
	s.Slower = false
	if s.Stage == Done && t.Clean {
		s.Advice = "Still clean: this piece stays done."
		return s
	}
	if s.Stage == Done || t.Stage != s.Stage { // work at another stage by choice counts from there
		s = State{Stage: t.Stage, Tries: s.Tries}
	}
	if t.Clean {
		return s.clean()
	}
	return s.stumbled(t.Cause)
}

func (s State) clean() State {
	s.Clean++
	s.Stumble, s.cause = 0, None
	if s.Clean < CleanToGoOn {
		s.Advice = fmt.Sprintf("%d of %d clean in a row, then on to %s.", s.Clean, CleanToGoOn, s.Stage.next())
		return s
	}
	from := s.Stage
	s = State{Stage: from + 1, Tries: s.Tries}
	s.Advice = fmt.Sprintf("%s is clean twice running: on to %s.", from, from.next())
	if s.Stage == Done {
		s.Advice = "Played clean twice running: this piece is done."
	}
	return s
}

// next is what comes after a stage, in words.
func (s Stage) next() string {
	if s >= Play {
		return "the next piece"
	}
	return (s + 1).String()
}

func (s State) stumbled(cause Cause) State {
	s.Clean = 0
	s.Stumble++
	if s.Stumble == 1 || cause.Stage() < s.cause.Stage() {
		s.cause = cause
	}
	if s.Stumble < StumblesToGoBack {
		s.Advice = "One stumble: again, the same way."
		return s
	}
	back := s.cause.Stage()
	if back < s.Stage {
		why := map[Cause]string{Rhythm: "the rhythm", WrongName: "the note names", Fingering: "the fingering"}[s.cause]
		return State{Stage: back, Tries: s.Tries, Advice: fmt.Sprintf("Two stumbles over %s: back to %s.", why, back)}
	}
	stage := s.Stage
	s = State{Stage: stage, Tries: s.Tries, Slower: true, Advice: "Two stumbles: the same again, a notch slower."}
	if cause == Sound && stage == Play {
		s.Advice = "Two stumbles in the sound: stay in Play, a notch slower, and mend the sound first."
	}
	return s
}

// Cells fills the four-stage bar: 1 for a stage passed, a part for the one at
// hand, 0 for those to come.
func (s State) Cells() [4]float64 {
	var cells [4]float64
	for i := range cells {
		switch {
		case Stage(i) < s.Stage:
			cells[i] = 1
		case Stage(i) == s.Stage:
			cells[i] = float64(s.Clean) / CleanToGoOn
		}
	}
	return cells
}
