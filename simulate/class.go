package simulate

import (
	"context"
	"fmt"
	"math/rand/v2"
	"slices"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/demo"
	"unhurriedbench/reading"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// Class is an invented class at work in the demo's book.
type Class struct {
	Name     string
	Year     int
	Minutes  int // of a lesson
	Students []Student

	ID      store.ClassID
	ids     []store.StudentID
	desk    *store.Desk
	reader  *reading.Reader
	book    map[int]demo.Exercise // by number
	reports reports
	chance  *rand.Rand
	learned map[learning]int
	tripped map[store.StudentID]bool // by their habit, in the lesson that was held last
	held    int                      // lessons
	now     time.Time
}

// learning is how often somebody has met a chunk at a stage.
type learning struct {
	student  store.StudentID
	exercise int
	chunk    breakdown.ChunkKey
	stage    routine.Stage
}

// Open puts the class at a teacher's desk, where the demo's book is, before its first lesson.
func (c *Class) Open(ctx context.Context, desk *store.Desk, reader *reading.Reader, seed uint64, first time.Time) error {
	c.desk, c.reader, c.chance = desk, reader, rand.New(rand.NewPCG(seed, uint64(len(c.Name))))
	c.book, c.reports, c.learned, c.now = map[int]demo.Exercise{}, reports{}, map[learning]int{}, first
	c.tripped = map[store.StudentID]bool{}
	book, err := demo.Exercises()
	if err != nil {
		return err
	}
	for _, x := range book {
		c.book[x.Number] = x
	}
	if c.ID, err = desk.AddClass(ctx, c.Name); err != nil {
		return err
	}
	if err := desk.SaveYear(ctx, c.ID, c.Year); err != nil {
		return err
	}
	for _, s := range c.Students {
		id, err := desk.AddStudent(ctx, store.Student{ClassID: c.ID, FirstName: s.First, Initial: s.Initial, Instrument: s.Instrument})
		if err != nil {
			return err
		}
		c.ids = append(c.ids, id)
	}
	return nil
}

// Desk is the teacher's desk at the time of the next lesson.
func (c *Class) Desk() *teach.Class {
	desk := teach.New(c.desk, c.reader)
	now := c.now
	desk.Clock = func() time.Time { return now }
	return desk
}

// Now is when the next lesson is.
func (c *Class) Now() time.Time { return c.now }

// Suggest is the lesson that the program suggests.
func (c *Class) Suggest(ctx context.Context, asked teach.LessonWants) (lesson.Plan, error) {
	desk := c.Desk()
	classes, err := desk.Classes(ctx)
	if err != nil {
		return lesson.Plan{}, err
	}
	at := slices.IndexFunc(classes, func(other store.Class) bool { return other.ID == c.ID })
	if asked.Minutes = c.Minutes; at < 0 {
		return lesson.Plan{}, fmt.Errorf("find the class: %w", store.ErrNotFound)
	}
	return teach.SuggestLesson(ctx, desk, classes[at], asked)
}

// Hold holds a lesson: who is there goes through the steps that fit, each marked once, and who
// stumbles is named. The next lesson is some days later.
func (c *Class) Hold(ctx context.Context, plan lesson.Plan, days int) error {
	c.held++
	var absent []store.StudentID
	for k, s := range c.Students {
		if slices.Contains(s.Misses, c.held) {
			absent = append(absent, c.ids[k])
		}
	}
	begun := c.now
	at := begun
	for _, k := range plan.Fit().In {
		step := plan.Steps[k]
		at = at.Add(time.Duration(step.Halves()) * 30 * time.Second)
		desk := c.Desk()
		marks, err := teach.MarkStep(ctx, desk, c.ID, step, teach.StepMark{Absent: absent, Exceptions: c.exceptions(step)})
		if err != nil {
			return err
		}
		for n := range marks.List {
			marks.List[n].At = at
		}
		if len(marks.List) > 0 {
			if _, err := desk.AddTogether(ctx, "", marks.List...); err != nil {
				return err
			}
		}
	}
	ended := at
	_, err := c.desk.AddHeldLesson(ctx, store.Lesson{Class: c.ID, Plan: plan, Step: max(0, len(plan.Fit().In)-1), Absent: absent,
		Made: begun.Add(-time.Hour), Begun: &begun, Ended: &ended})
	c.now = c.now.AddDate(0, 0, days)
	return err
}

// exceptions are who stumbles at a step, and over what.
func (c *Class) exceptions(step lesson.Step) map[store.StudentID]routine.Stumble {
	list := map[store.StudentID]routine.Stumble{}
	if step.Warm {
		return list
	}
	x := c.book[step.Number]
	for k, s := range c.Students {
		r := c.reports.of(x.Score, x.Score.Title, s.Instrument, c.Year)
		for _, p := range step.All() {
			key := learning{c.ids[k], step.Number, p.Chunk, p.Stage}
			tripped := s.trips(c.chance, p.Form, r, p.Chunk, c.learned[key])
			if c.learned[key]++; tripped {
				list[c.ids[k]], c.tripped[c.ids[k]] = routine.Stumble{Cause: s.Habit.Cause()}, true
				break
			}
		}
		if cause, slipped := s.slips(c.chance, step.Form); slipped && list[c.ids[k]].Cause == routine.None {
			list[c.ids[k]] = routine.Stumble{Cause: cause}
		}
	}
	return list
}
