// Package teach is what a teacher judges: what comes next, what a lesson and a check-in ask,
// who needs help. It knows nothing of pages.
package teach

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/reading"
	"unhurriedbench/store"
)

// Class is a teacher's desk that remembers what it has read, until something is written at
// it: each fact is asked of the database once a request. It is for one request, which asks
// one thing at a time; what it returns is not to be changed.
type Class struct {
	*store.Desk
	Reader *reading.Reader
	Last   Last // nil where nothing is remembered: at a student's own page

	expected    []store.ExerciseID // whose facts are read together
	instruments []string           // whose demands are
	facts
}

// Last is what was chosen last, remembered from one request to the next.
type Last interface {
	Section() store.SectionID
	Instrument() string // an id, "" before any was
	ChooseSection(id store.SectionID)
	ChooseInstrument(id string)
}

// facts are what was read, all of them when the desk had been written at as often.
type facts struct {
	written int

	ways       fact[store.Ways]
	rules      fact[store.Rules]
	sections   fact[[]store.Section]
	exercises  fact[[]store.Exercise]
	outlines   fact[store.OwnOutlines]
	demanded   fact[store.DemandedList]
	students   map[store.SectionID]*fact[[]store.Student]
	standings  map[store.SectionID]*fact[store.Standings]
	worked     map[store.SectionID]*fact[store.WorkedList]
	checkins   map[store.SectionID]*fact[[]store.Checkin]
	homePlans  map[store.SectionID]*fact[[]store.HomePlan]
	attempts   map[store.SectionID]*fact[map[store.StudentID][]store.Attempt]
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

// New is a desk whose facts have not been read.
func New(desk *store.Desk, reader *reading.Reader) *Class { return &Class{Desk: desk, Reader: reader} }

// OfStudent is a desk at which only one student is.
func OfStudent(desk *store.Desk, reader *reading.Reader, student store.Student) *Class {
	c := New(desk, reader)
	c.facts.byID = map[store.StudentID]*fact[store.Student]{student.ID: {read: true, value: student}}
	c.facts.students = map[store.SectionID]*fact[[]store.Student]{student.SectionID: {read: true, value: []store.Student{student}}}
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

// Expect has facts about exercises read together, at the first of them that is asked for.
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

func (c *Class) ways(ctx context.Context) (store.Ways, error) {
	return c.known().ways.once(func() (store.Ways, error) { return c.Desk.Ways(ctx) })
}

// Settings lists the teacher's settings.
func (c *Class) Settings(ctx context.Context) (store.Settings, error) {
	w, err := c.ways(ctx)
	return w.Settings, err
}

// Kinds are what the teacher's instruments are, by instrument id.
func (c *Class) Kinds(ctx context.Context) (map[string]string, error) {
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

// Sections lists the sections that the desk sees.
func (c *Class) Sections(ctx context.Context) ([]store.Section, error) {
	list, err := c.known().sections.once(func() ([]store.Section, error) { return c.Desk.Sections(ctx) })
	return slices.Clone(list), err
}

// Section is one of Sections. The error is store.ErrNotFound where the desk sees no such one.
func (c *Class) Section(ctx context.Context, id store.SectionID) (store.Section, error) {
	sections, err := c.Sections(ctx)
	if err != nil {
		return store.Section{}, err
	}
	k := slices.IndexFunc(sections, func(s store.Section) bool { return s.ID == id })
	if k < 0 {
		return store.Section{}, store.ErrNotFound
	}
	return sections[k], nil
}

// ChooseSection lists the sections and finds the one that is wanted, and remembers it; where
// none is, the one chosen last, or the first. The error is store.ErrNotFound for one that the
// desk does not see.
func (c *Class) ChooseSection(ctx context.Context, wanted store.SectionID) ([]store.Section, store.Section, error) {
	sections, err := c.Sections(ctx)
	if err != nil || wanted == 0 && len(sections) == 0 {
		return sections, store.Section{}, err
	}
	find := func(id store.SectionID) int {
		return slices.IndexFunc(sections, func(section store.Section) bool { return section.ID == id })
	}
	last := store.SectionID(0)
	if c.Last != nil {
		last = c.Last.Section()
	}
	if wanted == 0 {
		return sections, sections[max(find(last), 0)], nil
	}
	at := find(wanted)
	if at < 0 {
		return sections, store.Section{}, fmt.Errorf("choose the section: %w", store.ErrNotFound)
	}
	if wanted != last && c.Guest().Own() && c.Last != nil {
		c.Last.ChooseSection(wanted)
	}
	return sections, sections[at], nil
}

// Students lists the students of a section by name.
func (c *Class) Students(ctx context.Context, section store.SectionID) ([]store.Student, error) {
	list, err := at(&c.known().students, section).once(func() ([]store.Student, error) { return c.Desk.Students(ctx, section) })
	return slices.Clone(list), err
}

// StudentByID finds a student.
func (c *Class) StudentByID(ctx context.Context, id store.StudentID) (store.Student, error) {
	for _, list := range c.known().students {
		if k := slices.IndexFunc(list.value, func(s store.Student) bool { return s.ID == id }); k >= 0 {
			return list.value[k], nil
		}
	}
	return at(&c.known().byID, id).once(func() (store.Student, error) { return c.Desk.StudentByID(ctx, id) })
}

// Exercises lists all exercises by book, read where they had changed.
func (c *Class) Exercises(ctx context.Context) ([]store.Exercise, error) {
	if !c.known().exercises.read {
		list, err := c.Reader.Exercises(ctx, c.Desk)
		c.known().exercises = fact[[]store.Exercise]{read: true, value: list, err: err} // what went before it is forgotten where a reading was written
	}
	all := c.facts.exercises
	return slices.Clone(all.value), all.err
}

// Exercise finds an exercise, read where it had changed.
func (c *Class) Exercise(ctx context.Context, id store.ExerciseID) (store.Exercise, error) {
	if all := c.known().exercises; all.read && all.err == nil {
		if k := slices.IndexFunc(all.value, func(x store.Exercise) bool { return x.ID == id }); k >= 0 {
			return all.value[k], nil
		}
		return store.Exercise{}, store.ErrNotFound
	}
	if one := at(&c.known().exercise, id); one.read {
		return one.value, one.err
	}
	x, err := c.Reader.Exercise(ctx, c.Desk, id)
	*at(&c.known().exercise, id) = fact[store.Exercise]{read: true, value: x, err: err}
	return x, err
}

// ExerciseByID is Exercise.
func (c *Class) ExerciseByID(ctx context.Context, id store.ExerciseID) (store.Exercise, error) {
	return c.Exercise(ctx, id)
}

// OwnOutlines lists the outlines of instruments' own parts.
func (c *Class) OwnOutlines(ctx context.Context) (store.OwnOutlines, error) {
	return c.known().outlines.once(func() (store.OwnOutlines, error) { return c.Desk.OwnOutlines(ctx) })
}

// OutlineFor is the outline of an instrument's part of an exercise.
func (c *Class) OutlineFor(ctx context.Context, x store.Exercise, instrument string) (breakdown.Outline, error) {
	own, err := c.OwnOutlines(ctx)
	return own.Of(x, instrument), err
}

// Preferred are the fingerings wanted for an instrument's notes.
func (c *Class) Preferred(ctx context.Context, instrument string) (finger.Preferred, error) {
	w, err := c.ways(ctx)
	return w.Preferred[instrument], err
}

// demands are what exercises demand, of an instrument and of those that are expected, and of
// all instruments by the exercises that are expected.
func (c *Class) demands(ctx context.Context, instrument string) (store.DemandedList, error) {
	known := c.known()
	if !known.demanded.read || !slices.Contains(known.demandedOf, instrument) {
		if c.many("demands") {
			for _, list := range known.students {
				for _, student := range list.value {
					c.ExpectInstruments(student.Instrument)
				}
			}
		}
		c.ExpectInstruments(instrument)
		known.demanded, known.demandedOf = fact[store.DemandedList]{}, slices.Clone(c.instruments)
	}
	return known.demanded.once(func() (store.DemandedList, error) { return c.Desk.Demanded(ctx, known.demandedOf, c.expected...) })
}

// Demands are what the exercises demand of an instrument, by exercise.
func (c *Class) Demands(ctx context.Context, instrument string) (map[store.ExerciseID]breakdown.Demands, error) {
	list, err := c.demands(ctx, instrument)
	return list.Of(instrument), err
}

// HardFor says how hard an exercise is for every instrument; instrument is the one at hand.
func (c *Class) HardFor(ctx context.Context, exercise store.ExerciseID, instrument string) (map[string]breakdown.DifficultyParts, error) {
	if !slices.Contains(c.expected, exercise) {
		c.Expect(exercise)
		c.known().demanded.read = false
	}
	list, err := c.demands(ctx, instrument)
	return list.HardFor(exercise), err
}

// MetBefore is what an instrument has met before an exercise by whoever has worked on some.
func (c *Class) MetBefore(ctx context.Context, x store.Exercise, instrument string, worked []store.ExerciseID) (*breakdown.Met, error) {
	if _, err := c.Exercises(ctx); err != nil { // which reads those that have changed
		return nil, err
	}
	list, err := c.demands(ctx, instrument)
	return list.MetBefore(x, instrument, worked), err
}

// SectionStandings lists where the students of a section stand.
func (c *Class) SectionStandings(ctx context.Context, section store.SectionID) (store.Standings, error) {
	return at(&c.known().standings, section).once(func() (store.Standings, error) { return c.Desk.SectionStandings(ctx, section) })
}

// StudentStandings lists where a student stands.
func (c *Class) StudentStandings(ctx context.Context, student store.StudentID) (store.Standings, error) {
	return ofStudent(ctx, c, &c.known().tasks, "standings", student,
		func() (store.Standings, error) { return c.Desk.StudentStandings(ctx, student) },
		func(section store.SectionID) (store.Standings, error) {
			all, err := c.SectionStandings(ctx, section)
			return all.Of(func(t store.Task) bool { return t.Student == student }), err
		})
}

// StudentAttempts lists a student's tries, newest first, those taken back included.
func (c *Class) StudentAttempts(ctx context.Context, student store.StudentID) ([]store.Attempt, error) {
	return ofStudent(ctx, c, &c.known().log, "attempts", student,
		func() ([]store.Attempt, error) { return c.Desk.StudentAttempts(ctx, student) },
		func(section store.SectionID) ([]store.Attempt, error) {
			all, err := at(&c.known().attempts, section).once(func() (map[store.StudentID][]store.Attempt, error) { return c.Desk.SectionAttempts(ctx, section) })
			return all[student], err
		})
}

// ofStudent reads something of a student: alone, and of all in their section where it is
// asked for one student after the other.
func ofStudent[T any](ctx context.Context, c *Class, facts *map[store.StudentID]*fact[T], what string, student store.StudentID, one func() (T, error), all func(store.SectionID) (T, error)) (T, error) {
	return at(facts, student).once(func() (T, error) {
		if !c.many(what) {
			return one()
		}
		who, err := c.StudentByID(ctx, student)
		if err != nil { // nobody, of whom there is nothing
			return one()
		}
		return all(who.SectionID)
	})
}

// ExerciseStandings lists where the students of a section stand on one exercise.
func (c *Class) ExerciseStandings(ctx context.Context, exercise store.ExerciseID, section store.SectionID) (store.Standings, error) {
	if all := c.known().standings[section]; all != nil && all.read && all.err == nil {
		return all.value.Of(func(t store.Task) bool { return t.Exercise == exercise }), nil
	}
	return c.Desk.ExerciseStandings(ctx, exercise, section)
}

// workedIn lists what the students of a section have worked on.
func (c *Class) workedIn(ctx context.Context, section store.SectionID) (store.WorkedList, error) {
	return at(&c.known().worked, section).once(func() (store.WorkedList, error) {
		if all := c.known().standings[section]; all != nil && all.read && all.err == nil {
			return all.value.Worked(), nil
		}
		return c.Desk.Worked(ctx, section)
	})
}

// Worked lists the exercises that a student of a section has worked on; with no student,
// those that at least half of the section have, of those who have tries at all.
func (c *Class) Worked(ctx context.Context, section store.SectionID, student store.StudentID) ([]store.ExerciseID, error) {
	list, err := c.workedIn(ctx, section)
	return list.On(student), err
}

// CleanAt lists the exercises but one at which a student of a section was clean to the end,
// with the tempo that half of the pieces reach; with no student, those of the section. The
// demands are the instrument's.
func (c *Class) CleanAt(ctx context.Context, section store.SectionID, student store.StudentID, instrument string, but store.ExerciseID) ([]breakdown.Clean, error) {
	worked, err := c.workedIn(ctx, section)
	if err != nil {
		return nil, err
	}
	tempos := worked.CleanAt(student)
	delete(tempos, but)
	if len(tempos) == 0 {
		return nil, nil
	}
	demands, err1 := c.Demands(ctx, instrument)
	all, err2 := c.Exercises(ctx)
	var list []breakdown.Clean
	slices.SortFunc(all, func(a, b store.Exercise) int { return int(a.ID - b.ID) })
	for _, x := range all {
		parts, demanded := demands[x.ID]
		if tempo := tempos[x.ID]; tempo > 0 && demanded {
			list = append(list, breakdown.Clean{Name: x.Name(), Parts: parts.Parts, Tempo: tempo})
		}
	}
	return list, errors.Join(err1, err2)
}

// handMadeOf is what was made by hand of an exercise, read with that of those expected.
func (c *Class) handMadeOf(ctx context.Context, exercise store.ExerciseID) (*store.HandMade, error) {
	known := c.known()
	if h := known.handMade[exercise]; h != nil {
		return h, nil
	}
	c.Expect(exercise)
	if c.many("hand-made") {
		all, err := c.Exercises(ctx)
		if err != nil {
			return &store.HandMade{}, err
		}
		for _, x := range all {
			c.Expect(x.ID)
		}
	}
	list, err := c.Desk.HandMade(ctx, c.expected...)
	if err != nil {
		return &store.HandMade{}, err
	}
	known.handMade = list
	return list[exercise], nil
}

// Overrides lists an exercise's own parts by instrument.
func (c *Class) Overrides(ctx context.Context, exercise store.ExerciseID) ([]store.Override, error) {
	h, err := c.handMadeOf(ctx, exercise)
	return h.Overrides, err
}

// Placement is the octave chosen for an instrument's part, if any.
func (c *Class) Placement(ctx context.Context, exercise store.ExerciseID, id string) (instrument.Placement, error) {
	h, err := c.handMadeOf(ctx, exercise)
	return h.Placements[id], err
}

// Fingerings are what was chosen in an instrument's part of an exercise, by place.
func (c *Class) Fingerings(ctx context.Context, exercise store.ExerciseID, instrument string) (map[score.Place]finger.Spot, error) {
	h, err := c.handMadeOf(ctx, exercise)
	return h.Fingerings[instrument], err
}

// Pencils lists what is written in an instrument's part of an exercise, by place.
func (c *Class) Pencils(ctx context.Context, exercise store.ExerciseID, instrument string) (map[score.Place][]breakdown.Pencil, error) {
	h, err := c.handMadeOf(ctx, exercise)
	return h.Pencils[instrument], err
}

// Cuts are the pieces an exercise has been cut into by hand, none where the program cuts.
func (c *Class) Cuts(ctx context.Context, exercise store.ExerciseID) ([]breakdown.HandPiece, error) {
	h, err := c.handMadeOf(ctx, exercise)
	return h.Pieces, err
}

// SecondLine finds the lines that an exercise is one of.
func (c *Class) SecondLine(ctx context.Context, exercise store.ExerciseID) (store.SecondLine, error) {
	h, err := c.handMadeOf(ctx, exercise)
	return h.Lines, err
}

// SectionCheckins lists of every student of a section the check-in to come and the last one
// that was heard, the latest day first.
func (c *Class) SectionCheckins(ctx context.Context, section store.SectionID) ([]store.Checkin, error) {
	list, err := at(&c.known().checkins, section).once(func() ([]store.Checkin, error) { return c.Desk.SectionCheckins(ctx, section) })
	return slices.Clone(list), err
}

// HomePlans lists the plans of a section's students.
func (c *Class) HomePlans(ctx context.Context, section store.SectionID) ([]store.HomePlan, error) {
	list, err := at(&c.known().homePlans, section).once(func() ([]store.HomePlan, error) { return c.Desk.HomePlans(ctx, section) })
	return slices.Clone(list), err
}

// HomePlan finds a student's plan. The error is store.ErrNotFound where there is none.
func (c *Class) HomePlan(ctx context.Context, student store.StudentID) (store.HomePlan, error) {
	return ofStudent(ctx, c, &c.known().plan, "home plan", student,
		func() (store.HomePlan, error) { return c.Desk.HomePlan(ctx, student) },
		func(section store.SectionID) (store.HomePlan, error) {
			all, err := c.HomePlans(ctx, section)
			if k := slices.IndexFunc(all, func(p store.HomePlan) bool { return p.Student == student }); k >= 0 {
				return all[k], err
			}
			return store.HomePlan{}, errors.Join(err, store.ErrNotFound)
		})
}

// NextCheckin is a student's check-in to come, nil where there is none.
func (c *Class) NextCheckin(ctx context.Context, student store.StudentID) (*store.Checkin, error) {
	who, err := c.StudentByID(ctx, student)
	if err != nil {
		return nil, err
	}
	list, err := c.SectionCheckins(ctx, who.SectionID)
	for _, checkin := range list {
		if checkin.Student == student && checkin.Heard == nil {
			return &checkin, err
		}
	}
	return nil, err
}

// Placed is where an exercise stands for an instrument: the octave that was chosen, or what
// its neighbours in the book settle.
func (c *Class) Placed(ctx context.Context, x store.Exercise, target instrument.Instrument) (instrument.Placement, error) {
	all, err := c.Exercises(ctx)
	if err != nil {
		return instrument.Placement{}, err
	}
	return c.Reader.Placement(ctx, c, x, target, all)
}

// Neighbours are the exercises before and after one, in the order they stand in the book.
func (c *Class) Neighbours(ctx context.Context, id store.ExerciseID) (before, after store.Neighbour, err error) {
	all, err := c.Exercises(ctx)
	k := slices.IndexFunc(all, func(x store.Exercise) bool { return x.ID == id })
	if err != nil || k < 0 {
		return before, after, err
	}
	beside := func(k int) store.Neighbour { return store.Neighbour{ID: all[k].ID, Number: all[k].Number} }
	if k > 0 && all[k-1].BookID == all[k].BookID {
		before = beside(k - 1)
	}
	if k+1 < len(all) && all[k+1].BookID == all[k].BookID {
		after = beside(k + 1)
	}
	return before, after, nil
}
