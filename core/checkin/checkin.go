// Package checkin says what a student plays for the teacher at a check-in, and who of a
// class is heard in the minutes there are.
package checkin

import (
	"cmp"
	"fmt"
	"slices"

	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
)

// Chunk is a chunk that a student may be asked for.
type Chunk struct {
	lesson.Chunk                 // with the tempo of the student's next try
	Steps        routine.Routine // that the student follows
	State        routine.State
	Last         int64 // when it was tried last, in seconds since 1970; 0 for never
	Asked        bool  // at the last check-in, where it was not heard, or not clean
	Need         bool  // the student needs help with it most
}

const (
	// heardTalk is how many seconds of words one chunk takes, and changeOver how many it takes
	// until the next student plays. The figures are ours.
	heardTalk  = 10
	changeOver = 8
)

// Due says what a student plays at a check-in: what was asked for last time and not clean;
// what they need help with most, wherever it stands; what they are stuck on, most stuck first; of everything else that they have begun the first
// chunk in learning order that is not done, what was tried last first; and where there is
// nothing of these, something they have done, so that it is kept. As much as there are
// seconds for is asked for, but one chunk in any case. Chunks of one exercise stand together
// in learning order.
func Due(chunks []Chunk, seconds float64, most int) []lesson.Step {
	var due []lesson.Step
	asked := map[int64]bool{} // exercises
	ask := func(p Chunk, why string) {
		s := p.Ask(why)
		if len(due) > 0 && (s.Seconds() > seconds || len(due) == most) || asked[p.Exercise] {
			return
		}
		asked[p.Exercise] = true
		due, seconds = append(due, s), seconds-s.Seconds()
	}
	open := slices.DeleteFunc(slices.Clone(chunks), func(p Chunk) bool { return p.State.Stage == routine.Done })
	for _, p := range open {
		if p.Asked {
			ask(p, "left from the last check-in")
		}
	}
	for _, p := range open {
		if p.Need {
			ask(p, "needs help: "+string(p.State.Over.Main()))
		}
	}
	for _, p := range mostStuckFirst(open) {
		ask(p, fmt.Sprintf("%d stumbles, %s", p.State.Stumbles, p.State.Over.Main()))
	}
	tried := lastTriedFirst(chunks)
	for _, exercise := range exercisesOf(tried) {
		for _, p := range open {
			if p.Exercise == exercise {
				ask(p, p.begun())
				break
			}
		}
	}
	if len(due) == 0 {
		for _, p := range tried {
			ask(p, "done: so that it is kept")
		}
	}
	return due
}

// begun says how far an open chunk is.
func (p Chunk) begun() string {
	step := p.Steps.Step(p.stage())
	word := step.Word
	if p.State.Clean > 0 {
		return fmt.Sprintf("at %s, %d of %d clean", word, p.State.Clean, step.ToGoOn())
	}
	return "at " + word
}

// stage is the one the student is at, of a done chunk the last.
func (p Chunk) stage() routine.Stage {
	switch p.State.Stage {
	case "":
		return p.Steps.First()
	case routine.Done:
		return p.Steps.Last()
	}
	return p.State.Stage
}

// Ask is the chunk once, at the stage the student is at.
func (p Chunk) Ask(why string) lesson.Step {
	of := p.Chunk
	of.Steps, of.Lips = p.Steps, false
	s := of.Do(p.stage(), heardTalk, why)
	s.Times = 1
	return s
}

func mostStuckFirst(chunks []Chunk) []Chunk {
	stuck := slices.DeleteFunc(slices.Clone(chunks), func(p Chunk) bool { return !p.State.InTrouble() })
	slices.SortStableFunc(stuck, func(a, b Chunk) int { return b.State.Stumbles - a.State.Stumbles })
	return stuck
}

func lastTriedFirst(chunks []Chunk) []Chunk {
	tried := slices.DeleteFunc(slices.Clone(chunks), func(p Chunk) bool { return p.Last == 0 })
	slices.SortStableFunc(tried, func(a, b Chunk) int { return cmp.Compare(b.Last, a.Last) })
	return tried
}

func exercisesOf(chunks []Chunk) []int64 {
	var list []int64
	for _, p := range chunks {
		if !slices.Contains(list, p.Exercise) {
			list = append(list, p.Exercise)
		}
	}
	return list
}

// Share is how many seconds of what a class has are left to each of n students, once
// the time in which the next one takes their place is taken out.
func Share(minutes, students int) float64 {
	return max(0, float64(60*minutes)/float64(max(students, 1))-changeOver)
}

// Seconds is how long a check-in takes with what is due at it.
func Seconds(due []lesson.Step) float64 {
	total := float64(changeOver)
	for _, s := range due {
		total += s.Seconds()
	}
	return total
}

// Waiting is a student who waits to be heard.
type Waiting struct {
	ID      int64
	On      int64   // the day, in seconds since 1970
	Heard   int64   // the last time; 0 for never
	Seconds float64 // it takes
}

// Queue puts who waits in the order in which they are heard: whose day is longest past, and
// of one day who was heard longest ago. In says how many of them there is time for.
func Queue(list []Waiting, minutes int) (queue []Waiting, in int) {
	queue = slices.Clone(list)
	slices.SortStableFunc(queue, func(a, b Waiting) int {
		return cmp.Or(cmp.Compare(a.On, b.On),
			cmp.Compare(a.Heard, b.Heard))
	})
	left := float64(60 * minutes)
	for _, w := range queue {
		if left -= w.Seconds; left < 0 {
			break
		}
		in++
	}
	return queue, in
}

// DaysOn is how many days after a check-in the next one is, where the teacher says no other
// day. The figure is ours.
const DaysOn = 7
