package routine

import "slices"

// Stage is a way of working at a chunk, by the text that names it in the log, in
// tables, addresses and styles. Its place in an order is the routine's affair.
type Stage string

// The stages of the standard routine. Every other stage is a form of one of them, its
// kind, whose colour and shape it has.
const (
	Count  Stage = "count"
	Name   Stage = "name"
	Finger Stage = "finger"
	Play   Stage = "play"
)

// Done is where a chunk is after the last stage of any routine.
const Done Stage = "done"

// Forms lists the four stages that every other is a form of, in the standard order.
func Forms() []Stage { return []Stage{Count, Name, Finger, Play} }

// TempoRule is how a stage takes its tempo.
type TempoRule string

// The rules. Source: common practice.
const (
	OneTempo    TempoRule = ""       // one for the whole, that its hardest place allows
	Free        TempoRule = "free"   // out of time
	LongerFirst TempoRule = "longer" // as whole notes, as halves, then as written, each slower
	Climb       TempoRule = "ladder" // one step faster each time it is earned
)

// TempoRules lists them.
func TempoRules() []TempoRule { return []TempoRule{OneTempo, Free, LongerFirst, Climb} }

// Words says a rule as a teacher does.
func (t TempoRule) Words() string {
	return map[TempoRule]string{
		OneTempo: "one tempo for the whole", Free: "out of time", LongerFirst: "longer values first",
		Climb: "up a ladder, a notch at a time",
	}[t]
}

// Saying is what a teacher says at a stage, in place of our words.
type Saying struct {
	Family string `json:"family,omitempty"` // "" for all
	Words  string `json:"words"`
}

// Step is a stage as it stands in a routine. The zero values of what may be left out are
// the usual: its own kind, clean twice in a row, twice in a lesson, with the metronome.
type Step struct {
	Stage      Stage     `json:"stage"`
	Word       string    `json:"word"`            // "Count"
	Mends      []Cause   `json:"mends,omitempty"` // the stumbles that are mended here
	Kind       Stage     `json:"kind,omitempty"`  // of Kinds; "" is the stage itself
	Ways       []Way     `json:"ways,omitempty"`  // in which it is done, one after another
	Times      int       `json:"times,omitempty"` // how often in a lesson, 0 for UsualTimes
	NoClick    bool      `json:"noClick,omitempty"`
	Tempo      TempoRule `json:"tempo,omitempty"`
	TempoSteps int       `json:"tempoSteps,omitempty"` // of Climb: notches to be earned before it goes on
	Clean      int       `json:"clean,omitempty"`      // in a row to go on, 0 for CleanToGoOn
	ClassClean int       `json:"classClean,omitempty"` // of a class in a row, 0 for CleanTogether
	Stay       bool      `json:"stay,omitempty"`       // two stumbles do not go back, but take it slower
	Say        []Saying  `json:"say,omitempty"`
}

// UsualTimes is how often a stage is done in a lesson. Source: common practice.
const UsualTimes = 2

// Form is which of Kinds the stage is a form of; one that is not among them is its own.
func (s Step) Form() Stage {
	if s.Kind != "" {
		return s.Kind
	}
	return s.Stage
}

// ToGoOn is how many clean tries in a row go on.
func (s Step) ToGoOn() int {
	if s.Clean > 0 {
		return s.Clean
	}
	return CleanToGoOn
}

// ToGoOnTogether is how many clean tries in a row of a class go on.
func (s Step) ToGoOnTogether() int {
	if s.ClassClean > 0 {
		return s.ClassClean
	}
	return CleanTogether
}

// Often is how often the stage is done in a lesson.
func (s Step) Often() int {
	if s.Times > 0 {
		return s.Times
	}
	return UsualTimes
}

// faster is how many notches faster the stage is to hold before it goes on.
func (s Step) faster() int {
	if s.Tempo == Climb {
		return s.TempoSteps
	}
	return 0
}

// Routine is the stages a chunk goes through, in order. It has one at least, and
// none twice.
type Routine []Step

// Standard is to count a chunk, name its notes, finger it and play it. Source:
// common practice.
func Standard() Routine {
	return Routine{
		{Stage: Count, Word: "Count", Mends: []Cause{Rhythm}, Ways: []Way{Clap, Air, OneNote}},
		{Stage: Name, Word: "Name", Mends: []Cause{WrongName}, Ways: []Way{Point}},
		{Stage: Finger, Word: "Finger", Mends: []Cause{Fingering}, Ways: []Way{Silent}},
		{Stage: Play, Word: "Play", Mends: []Cause{Sound}, Ways: []Way{Mouthpiece, Pluck, Pad}},
	}
}

// Rule is what a teacher has settled for one student, whatever the routine says. The zero
// value leaves it as it is.
type Rule struct {
	Clean int  // in a row to go on, 0 for the routine's
	Stay  bool // two stumbles do not go back, but take it slower
}

// Under is the routine for a student with a rule of their own.
func (r Routine) Under(rule Rule) Routine {
	if rule == (Rule{}) {
		return r
	}
	own := slices.Clone(r)
	for k := range own {
		if rule.Clean > 0 {
			own[k].Clean, own[k].ClassClean = rule.Clean, rule.Clean
		}
		own[k].Stay = own[k].Stay || rule.Stay
	}
	return own
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

// Step is a stage as it stands in the routine; for one that it does not have, the stage
// with its text alone.
func (r Routine) Step(s Stage) Step {
	if r.Has(s) {
		return r[r.Index(s)]
	}
	return Step{Stage: s, Word: string(s)}
}

// Like finds the stage that does in this routine what a step does in another: the same
// stage, else the first of the same kind; ok is false where there is none.
func (r Routine) Like(step Step) (s Stage, ok bool) {
	if r.Has(step.Stage) {
		return step.Stage, true
	}
	for _, own := range r {
		if own.Form() == step.Form() {
			return own.Stage, true
		}
	}
	return "", false
}

// First is the stage a chunk begins with, and Last the one before it is done.
func (r Routine) First() Stage { return r[0].Stage }

// Last is the stage after which a chunk is done.
func (r Routine) Last() Stage { return r[len(r)-1].Stage }

// Word is a stage's word: "Count", or "Done". One the routine does not have keeps
// its text, as in a log from an earlier routine.
func (r Routine) Word(s Stage) string {
	if s == Done {
		return "Done"
	}
	return r.Step(s).Word
}

// after is the next stage that is not earned yet, Done after the last.
func (r Routine) after(s State, stage Stage) Stage {
	for k := r.Index(stage) + 1; k < len(r); k++ {
		if !s.Earned.Has(k) {
			return r[k].Stage
		}
	}
	return Done
}

// Next is the first stage from where somebody stands that is not earned, Done after the last.
func (r Routine) Next(s State) Stage {
	if k := r.Index(s.Stage); k >= 0 && k < len(r) && !s.Earned.Has(k) {
		return s.Stage
	}
	return r.after(s, s.Stage)
}

// Mends is the stage where a cause is mended.
func (r Routine) Mends(c Cause) Stage { return r[r.mends(c)].Stage }

// mends is the place of the stage where a cause is mended; a routine without one
// mends it at its end.
func (r Routine) mends(c Cause) int {
	at := slices.IndexFunc(r, func(step Step) bool { return slices.Contains(step.Mends, c) })
	if at < 0 {
		return len(r) - 1
	}
	return at
}
