package lesson

import (
	"fmt"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

// Mark is a try that was marked in a lesson.
type Mark struct {
	Student  int64
	Exercise int64
	Chunk    breakdown.ChunkKey
	Form     routine.Stage // of the stage, in the student's own routine
	Clean    bool
	Cause    routine.Cause
}

// Outcome is what became of a step.
type Outcome struct {
	Step
	Reached  bool    // the class was at it
	Marked   bool    // somebody was marked
	Clean    int     // students whose last try was clean
	Stumbled []Mark  // the last try of each who stumbled
	Without  []int64 // who were there and not marked
	Absent   []int64
}

// After says what became of the steps that fitted, for the students of a class of whom
// some were absent, when the class was at a step, from 0, at last; and with what the next
// lesson should begin: what half of those who were marked stumbled on, what was not
// reached, and what did not fit.
func After(p Plan, at int, students, absent []int64, marks []Mark) (list []Outcome, next []Step) {
	fitted := p.Fit()
	again := []Step{}
	for place, k := range fitted.In {
		o := outcome(p.Steps[k], students, absent, marks)
		o.Reached = place <= at || o.Marked
		list = append(list, o)
		switch {
		case !o.Reached:
			o.Why = "not reached"
			next = append(next, o.Step)
		case len(o.Stumbled) > 0 && len(o.Stumbled) >= o.Clean:
			o.Why = fmt.Sprintf("%d of %d stumbled", len(o.Stumbled), len(o.Stumbled)+o.Clean)
			again = append(again, o.Step)
		}
	}
	for _, k := range fitted.Left {
		s := p.Steps[k]
		s.Why = "did not fit"
		next = append(next, s)
	}
	next = slices.DeleteFunc(append(again, next...), func(s Step) bool { return s.Warm || s.Closing })
	return list, next
}

// marks says whether a mark is of the step: of one of its stages and chunks.
func (s Step) marks(m Mark) bool {
	return slices.ContainsFunc(s.All(), func(p Part) bool { return p.Chunk == m.Chunk && p.Form == m.Form })
}

func outcome(s Step, students, absent []int64, marks []Mark) Outcome {
	o := Outcome{Step: s}
	last := map[int64]Mark{}
	for _, m := range marks {
		if m.Exercise != s.Exercise || s.Warm || !s.marks(m) {
			continue
		}
		if before, marked := last[m.Student]; !marked || m.Clean || before.Clean || m.Form == before.Form {
			last[m.Student] = m
		}
	}
	for _, id := range students {
		m, marked := last[id]
		switch {
		case len(s.Group) > 0 && !slices.Contains(s.Group, id):
		case marked && m.Clean:
			o.Clean++
		case marked:
			o.Stumbled = append(o.Stumbled, m)
		case slices.Contains(absent, id):
			o.Absent = append(o.Absent, id)
		default:
			o.Without = append(o.Without, id)
		}
	}
	o.Marked = len(last) > 0
	return o
}
