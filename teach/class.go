// Package teach is what a teacher judges: what comes next, what a lesson and a check-in ask,
// who needs help. It knows nothing of pages.
package teach

import (
	"context"
	"slices"
	"time"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/routine"
	"unhurriedbench/reading"
	"unhurriedbench/store"
)

// Class is a teacher's desk that remembers what it has read, until something is written at
// it: each fact is asked of the database once a request. It is for one request, which asks
// one thing at a time; what it returns is not to be changed.
type Class struct {
	*store.Desk
	Reader *reading.Reader
	Clock  func() time.Time // nil for time.Now
	Last   Last             // nil where nothing is remembered: at a student's own page

	expected    []store.ExerciseID // of which what was made by hand is read together
	instruments []string           // whose demands are
	hard        []store.ExerciseID // what these demand of every instrument is read with them
	facts
}

// Last is what was chosen last, remembered from one request to the next.
type Last interface {
	Class() store.ClassID
	Instrument() string // an id, "" before any was
	ChooseClass(id store.ClassID)
	ChooseInstrument(id string)
}

// facts are what was read, all of them when the desk had been written at as often.
type facts struct {
	written int

	ways       fact[store.Ways]
	rules      fact[store.Rules]
	classes    fact[[]store.Class]
	exercises  fact[[]store.Exercise]
	outlines   fact[store.OwnOutlines]
	demanded   fact[store.DemandedList]
	students   map[store.ClassID]*fact[[]store.Student]
	standings  map[store.ClassID]*fact[store.Standings]
	worked     map[store.ClassID]*fact[store.WorkedList]
	checkins   map[store.ClassID]*fact[[]store.Checkin]
	homePlans  map[store.ClassID]*fact[[]store.HomePlan]
	attempts   map[store.ClassID]*fact[map[store.StudentID][]store.Attempt]
	byID       map[store.StudentID]*fact[store.Student]
	exercise   map[store.ExerciseID]*fact[store.Exercise]
	handMade   map[store.ExerciseID]*store.HandMade
	tasks      map[store.StudentID]*fact[store.Standings]
	log        map[store.StudentID]*fact[[]store.Attempt]
	plan       map[store.StudentID]*fact[store.HomePlan]
	demandedOf []string       // the instruments whose demands were read
	alone      map[string]int // how often something was read of one where there are many
}

// fact is something that was read, or the error of reading it.
type fact[T any] struct {
	read  bool
	value T
	err   error
}

// once reads a fact the first time.
func (f *fact[T]) once(read func() (T, error)) (T, error) {
	if !f.read {
		f.value, f.err = read()
		f.read = true
	}
	return f.value, f.err
}

// at is the fact of a key.
func at[K comparable, T any](facts *map[K]*fact[T], key K) *fact[T] {
	if *facts == nil {
		*facts = map[K]*fact[T]{}
	}
	if (*facts)[key] == nil {
		(*facts)[key] = &fact[T]{}
	}
	return (*facts)[key]
}

// Now is what time it is where the school is.
func (c *Class) Now() time.Time {
	now := time.Now
	if c.Clock != nil {
		now = c.Clock
	}
	return now().In(c.Zone(context.Background()))
}

// New is a desk whose facts have not been read.
func New(desk *store.Desk, reader *reading.Reader) *Class { return &Class{Desk: desk, Reader: reader} }

// OfStudent is a desk at which only one student is.
func OfStudent(desk *store.Desk, reader *reading.Reader, student store.Student) *Class {
	c := New(desk, reader)
	c.facts.byID = map[store.StudentID]*fact[store.Student]{student.ID: {read: true, value: student}}
	c.facts.students = map[store.ClassID]*fact[[]store.Student]{student.ClassID: {read: true,
		value: []store.Student{student}}}
	return c
}

// many says that something is asked for one after the other, so that it had better be read
// of all at once: the second time.
func (c *Class) many(what string) bool {
	known := c.known()
	if known.alone == nil {
		known.alone = map[string]int{}
	}
	known.alone[what]++
	return known.alone[what] > 1
}

// known are the facts that still hold.
func (c *Class) known() *facts {
	if c.facts.written != c.Desk.Written() {
		c.facts = facts{written: c.Desk.Written()}
	}
	return &c.facts
}

// Expect has what was made by hand of exercises read together, at the first of them that is
// asked for.
func (c *Class) Expect(exercises ...store.ExerciseID) {
	for _, id := range exercises {
		if !slices.Contains(c.expected, id) {
			c.expected = append(c.expected, id)
		}
	}
}

// ExpectInstruments is Expect for what exercises demand of instruments.
func (c *Class) ExpectInstruments(ids ...string) {
	for _, id := range ids {
		if !slices.Contains(c.instruments, id) {
			c.instruments = append(c.instruments, id)
		}
	}
}

// ExpectHard has what an exercise demands of every instrument read with the demands that are
// asked for next.
func (c *Class) ExpectHard(exercise store.ExerciseID) {
	if !slices.Contains(c.hard, exercise) {
		c.hard = append(c.hard, exercise)
		c.known().demanded.read = false
	}
}

func (c *Class) ways(ctx context.Context) (store.Ways, error) {
	return c.known().ways.once(func() (store.Ways, error) { return c.Desk.Ways(ctx) })
}

// Settings lists the teacher's settings.
func (c *Class) Settings(ctx context.Context) (store.Settings, error) {
	w, err := c.ways(ctx)
	return w.Settings, err
}

// Models are what the teacher's instruments are, by instrument id.
func (c *Class) Models(ctx context.Context) (map[string]string, error) {
	w, err := c.ways(ctx)
	return w.Kinds, err
}

// Rules finds which routine is followed by whom.
func (c *Class) Rules(ctx context.Context) (store.Rules, error) {
	return c.known().rules.once(func() (store.Rules, error) { return c.Desk.Rules(ctx) })
}

// Routines lists the routines there are: those that ship, then the teacher's own.
func (c *Class) Routines(ctx context.Context) ([]routine.Named, error) {
	rules, err := c.Rules(ctx)
	return rules.All(), err
}

// Preferred are the fingerings wanted for an instrument's notes.
func (c *Class) Preferred(ctx context.Context, instrument string) (finger.Preferred, error) {
	w, err := c.ways(ctx)
	return w.Preferred[instrument], err
}
