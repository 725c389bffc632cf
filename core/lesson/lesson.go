// Package lesson lays out what a class does in the minutes it has, and says what a lesson
// should begin with.
package lesson

import (
	"fmt"
	"math"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

// Step is something that the class does together: a stage of a chunk, done some number of times.
type Step struct {
	Exercise int64              `json:"exercise"` // names it where it is kept
	Number   int                `json:"number"`
	Title    string             `json:"title"`
	Chunk    breakdown.ChunkKey `json:"chunk"`
	Label    string             `json:"label"` // of the chunk: "A", "Whole"
	Stage    routine.Stage      `json:"stage"`
	Word     string             `json:"word"` // of the stage
	Form     routine.Stage      `json:"form"` // whose colour it has
	Why      string             `json:"why,omitempty"`
	Times    int                `json:"times"` // through the chunk
	Tempo    int                `json:"tempo"` // in beats a minute, 0 for out of time
	Rule     routine.TempoRule  `json:"rule,omitempty"`
	Talk     int                `json:"talk"`              // seconds of words before and between
	Warm     bool               `json:"warm,omitempty"`    // its first three notes alone, to warm up
	Closing  bool               `json:"closing,omitempty"` // time is kept for it at the end
	Group    []int64            `json:"group,omitempty"`   // of students who take it, none for everybody

	Beats    float64 `json:"beats"`           // of the chunk once, as it is played
	CountOff float64 `json:"countOff"`        // beats before it
	Notes    int     `json:"notes"`           // that are struck in it
	Rests    bool    `json:"rests,omitempty"` // lips rest after it as long as they played
}

// Bounds of what a teacher may set.
const (
	MostSteps   = 60
	MostTimes   = 12
	MostTalk    = 15 * 60 // seconds
	MostMinutes = 180
)

// between is how many seconds lie between two times through: a breath and a word. The
// figure is ours.
const between = 8

// freely is how many seconds a beat takes out of time. The figure is ours.
const freely = 1.5

// warmBeats is how long the first three notes last as long tones of four beats each.
// Source: common practice.
const warmBeats = 12

// Seconds is how long the step lasts: its words, and each time through with its count-off
// and what lies between; lips that rest take as long again.
func (s Step) Seconds() float64 {
	through := s.played()
	total := float64(s.Talk) + float64(s.Times)*through + float64(max(s.Times-1, 0))*between
	if s.Rests {
		total += float64(s.Times) * through
	}
	return total
}

// played is how long one time through lasts, with its count-off, in seconds. Longer values
// first go through three times, as whole notes, halves and as written.
func (s Step) played() float64 {
	beats := s.Beats
	if s.Warm {
		beats = warmBeats
	}
	switch {
	case s.Rule == routine.Free || s.Tempo <= 0:
		return beats * freely
	case s.Rule == routine.LongerFirst:
		total := 0.0
		for k, pass := range s.Rule.Passes(s.Tempo) {
			through := []float64{float64(4 * s.Notes), float64(2 * s.Notes), beats}[k]
			total += (s.CountOff + through) * 60 / float64(pass.Tempo)
		}
		return total
	}
	return (s.CountOff + beats) * 60 / float64(s.Tempo)
}

// Halves is how many half minutes the step takes in a plan: its seconds, rounded up.
func (s Step) Halves() int { return max(1, int(math.Ceil(s.Seconds()/30-1e-9))) }

// Name says the step in a line: "7 · Open Water, A: Count".
func (s Step) Name() string {
	if s.Warm {
		return fmt.Sprintf("Warm up: the first three notes of %d", s.Number)
	}
	chunk := s.Label
	if chunk == "Whole" {
		chunk = "whole"
	}
	return fmt.Sprintf("%d · %s, %s: %s", s.Number, s.Title, chunk, s.Word)
}

// same says whether two steps are at one chunk.
func (s Step) same(t Step) bool { return s.Exercise == t.Exercise && s.Chunk == t.Chunk }

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

// Fit goes through the steps in order and takes those for which there is time; a later
// stage of a chunk is not taken without the earlier one, and the time of what closes the
// lesson is kept free.
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

// waits says whether an earlier step at the same chunk was left.
func waits(left []Step, s Step) bool {
	for _, l := range left {
		if l.same(s) && !l.Closing {
			return true
		}
	}
	return false
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
