// Package lesson lays out what a class does in the minutes it has, and says what a lesson
// should begin with.
package lesson

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

// Phase is which part of a lesson a step belongs to.
type Phase string

// The phases, in their order. Source: common practice.
const (
	WarmUp Phase = "warm-up"
	Review Phase = "review"
	Repair Phase = "repair"
	New    Phase = "new"
	Close  Phase = "close"
)

// Phases lists them.
func Phases() []Phase { return []Phase{WarmUp, Review, Repair, New, Close} }

// Word names a phase.
func (p Phase) Word() string {
	return map[Phase]string{WarmUp: "Warm-up", Review: "Review", Repair: "Repair", New: "New", Close: "Close"}[p]
}

// Step is something that the class does together: a stage of a chunk, done some number of
// times, or several stages of several chunks one after the other.
type Step struct {
	Exercise int64              `json:"exercise"` // names it where it is kept
	Number   int                `json:"number"`
	Title    string             `json:"title"`
	Chunk    breakdown.ChunkKey `json:"chunk"`
	Label    string             `json:"label"`           // of the chunk: "A", "Whole"
	Where    string             `json:"where,omitempty"` // its measures, "m. 1–2"; "" for the whole
	Stage    routine.Stage      `json:"stage"`
	Word     string             `json:"word"` // of the stage
	Form     routine.Stage      `json:"form"` // whose colour it has
	Why      string             `json:"why,omitempty"`
	Phase    Phase              `json:"phase,omitempty"`
	Times    int                `json:"times"` // through the chunk
	Tempo    int                `json:"tempo"` // in beats a minute, 0 for out of time
	Rule     routine.TempoRule  `json:"rule,omitempty"`
	Talk     int                `json:"talk"`              // seconds of words before and between
	Names    int                `json:"names,omitempty"`   // exceptions that will be named in marking it
	Warm     bool               `json:"warm,omitempty"`    // long notes, to warm up
	Closing  bool               `json:"closing,omitempty"` // time is kept for it at the end
	Group    []int64            `json:"group,omitempty"`   // of students who take it, none for everybody

	Beats    float64 `json:"beats"`           // of the chunk once, as it is played
	CountOff float64 `json:"countOff"`        // beats before it
	Notes    int     `json:"notes"`           // that are struck in it
	Rests    bool    `json:"rests,omitempty"` // lips rest after it as long as they played

	Parts []Part `json:"parts,omitempty"` // of which it is made, where it is several
}

// Part is a stage of a chunk in a step that is several of them.
type Part struct {
	Chunk    breakdown.ChunkKey `json:"chunk"`
	Label    string             `json:"label"`
	Where    string             `json:"where,omitempty"` // as of a step
	Stage    routine.Stage      `json:"stage"`
	Word     string             `json:"word"`
	Form     routine.Stage      `json:"form"`
	Times    int                `json:"times"`
	Beats    float64            `json:"beats"`
	CountOff float64            `json:"countOff"`
	Notes    int                `json:"notes"`
	Rule     routine.TempoRule  `json:"rule,omitempty"`
	Joined   bool               `json:"joined,omitempty"` // the two chunks before it together
}

// All are the parts of a step; of one that is a single stage of a chunk, that alone.
func (s Step) All() []Part {
	if len(s.Parts) > 0 {
		return s.Parts
	}
	return []Part{{s.Chunk, s.Label, s.Where, s.Stage, s.Word, s.Form, s.Times, s.Beats, s.CountOff, s.Notes, s.Rule, false}}
}

// Bounds of what a teacher may set.
const (
	MostSteps   = 60
	MostParts   = 60 // of a step
	MostTimes   = 12
	MostTalk    = 15 * 60 // seconds
	MostMinutes = 180
)

// What a step takes beside its music, in seconds. The figures are ours; a teacher changes the
// talk of each step.
const (
	between    = 3 // from one time through to the next: a breath and a word
	changeOver = 10
	aName      = 3 // an exception that is named in marking

	TalkLine   = 40 // what is new in a line
	TalkStage  = 20 // how a stage goes, said the first time
	TalkRemedy = 30
	TalkKnown  = 5 // what the class knows
)

// freely is how many seconds a beat takes out of time. The figure is ours.
const freely = 1.5

// Seconds is how long the step lasts: its words, each time through with its count-off and what
// lies between, in a lesson changing over and marking; lips that rest take as long again as
// they played.
func (s Step) Seconds() float64 {
	total := float64(s.Talk) + aName*float64(s.Names)
	if s.Phase != "" {
		total += changeOver
	}
	for k, p := range s.All() {
		through := p.seconds(s.Tempo, p.CountOff)
		total += float64(p.Times)*through + float64(max(p.Times-1, 0))*between
		if k > 0 {
			total += between
		}
		if s.Rests && p.Form == routine.Play {
			total += float64(p.Times) * p.seconds(s.Tempo, 0)
		}
	}
	return total
}

// Sounding is how many of the seconds sound: what is played, and where a class is young what
// is counted and named aloud.
func (s Step) Sounding(aloud bool) float64 {
	total := 0.0
	for _, p := range s.All() {
		if p.Form == routine.Play || aloud && (p.Form == routine.Count || p.Form == routine.Name) {
			total += float64(p.Times) * p.seconds(s.Tempo, 0)
		}
	}
	return total
}

// seconds is how long one time through lasts at a tempo, with so many beats before it. Longer
// values first go through three times, as whole notes, halves and as written.
func (p Part) seconds(tempo int, before float64) float64 {
	switch {
	case p.Rule == routine.Free || tempo <= 0:
		return p.Beats * freely
	case p.Rule == routine.LongerFirst:
		total := 0.0
		for k, pass := range p.Rule.Passes(tempo) {
			through := []float64{float64(4 * p.Notes), float64(2 * p.Notes), p.Beats}[k]
			total += (before + through) * 60 / float64(pass.Tempo)
		}
		return total
	}
	return (before + p.Beats) * 60 / float64(tempo)
}

// Halves is how many half minutes the step takes in a plan: its seconds, to the nearest.
func (s Step) Halves() int { return max(1, int(math.Round(s.Seconds()/30))) }

// Does says what is done in the step: "Count", "Finger, then play".
func (s Step) Does() string {
	var words []string
	for _, p := range s.All() {
		word := p.Word
		if len(words) > 0 {
			word = strings.ToLower(word[:1]) + word[1:]
		}
		if !slices.ContainsFunc(words, func(w string) bool { return strings.EqualFold(w, word) }) {
			words = append(words, word)
		}
	}
	if last := len(words) - 1; last > 0 {
		return strings.Join(words[:last], ", ") + ", then " + words[last]
	}
	return words[0]
}

// At says where: "the line", "m. 1–2, 3–4".
func (s Step) At() string {
	parts := s.All()
	if s.Where == "" && len(s.Parts) == 0 && s.Label != "" && s.Label != "Whole" { // planned by an earlier version
		return s.Chunk.Words()
	}
	return measuresOf(parts)
}

// Name says the step in a line: "7 · Open Water, m. 1–2: Count".
func (s Step) Name() string {
	if s.Warm {
		return s.Word
	}
	return fmt.Sprintf("%d · %s, %s: %s", s.Number, s.Title, s.At(), s.Does())
}

// Plan is a lesson: steps in the order in which they are to be done, and the minutes there
// are. What does not fit stays in it, for the next time.
type Plan struct {
	Minutes int    `json:"minutes"`
	Steps   []Step `json:"steps"`
}

// Insert puts steps into the plan before a place, from 0; it says whether there is room for
// them, and changes nothing where there is none.
func (p *Plan) Insert(at int, steps ...Step) bool {
	if len(p.Steps)+len(steps) > MostSteps {
		return false
	}
	p.Steps = slices.Insert(p.Steps, min(at, len(p.Steps)), steps...)
	return true
}

// Fitted is what of a plan fits its minutes, by index of its steps.
type Fitted struct {
	In     []int
	Left   []int // for the next time
	Halves int   // half minutes that what is in takes
}

// Fit goes through the steps in order and takes those for which there is time; a later step
// of a line is not taken where an earlier one of the same part of the lesson was left, and the
// time of what closes the lesson is kept free.
func (p Plan) Fit() Fitted {
	free := 2 * p.Minutes
	for _, s := range p.Steps {
		if s.Closing && s.Halves() <= free {
			free -= s.Halves()
		}
	}
	var f Fitted
	saved := 2*p.Minutes - free // for what closes
	left := []Step{}
	for k, s := range p.Steps {
		halves, fits := s.Halves(), false
		switch {
		case s.Closing:
			if fits = halves <= saved; fits {
				saved -= halves
			}
		case !waits(left, s):
			if fits = halves <= free; fits {
				free -= halves
			}
		}
		if fits {
			f.In, f.Halves = append(f.In, k), f.Halves+halves
			continue
		}
		left, f.Left = append(left, s), append(f.Left, k)
	}
	return f
}

// waits says whether an earlier step of the same line was left.
func waits(left []Step, s Step) bool {
	return slices.ContainsFunc(left, func(l Step) bool {
		return l.Exercise == s.Exercise && l.Phase == s.Phase && !l.Closing && !l.Warm && !s.Warm
	})
}

// Time says half minutes as a teacher reads them: "½ min", "3 min", "4½ min".
func Time(halves int) string {
	whole, half := halves/2, ""
	if halves%2 == 1 {
		half = "½"
	}
	if whole == 0 && half != "" {
		return "½ min"
	}
	return fmt.Sprintf("%d%s min", whole, half)
}
