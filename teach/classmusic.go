package teach

import (
	"context"
	"errors"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// Exercises lists all exercises by book, read where they had changed.
func (c *Class) Exercises(ctx context.Context) ([]store.Exercise, error) {
	if !c.known().exercises.read {
		list, err := c.Reader.Exercises(ctx, c.Desk)
		// what went before it is forgotten where a reading was written
		c.known().exercises = fact[[]store.Exercise]{read: true, value: list, err: err}
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

// demands are what exercises demand of an instrument and of those that are expected, and what
// those of ExpectHard demand of all.
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
	return known.demanded.once(func() (store.DemandedList, error) {
		return c.Desk.Demanded(ctx,
			known.demandedOf, c.hard...)
	})
}

// Demands are what the exercises demand of an instrument, by exercise.
func (c *Class) Demands(ctx context.Context, instrument string) (map[store.ExerciseID]breakdown.Demands, error) {
	list, err := c.demands(ctx, instrument)
	return list.Of(instrument), err
}

// HardFor says how hard an exercise is for every instrument; instrument is the one at hand.
func (c *Class) HardFor(ctx context.Context, exercise store.ExerciseID,
	instrument string) (map[string]breakdown.DifficultyParts, error) {
	c.ExpectHard(exercise)
	list, err := c.demands(ctx, instrument)
	return list.HardFor(exercise), err
}

// MetBefore is what an instrument has met before an exercise, by those who have worked on some.
func (c *Class) MetBefore(ctx context.Context, x store.Exercise, instrument string,
	worked []store.ExerciseID) (*breakdown.Met, error) {
	if _, err := c.Exercises(ctx); err != nil { // which reads those that have changed
		return nil, err
	}
	list, err := c.demands(ctx, instrument)
	return list.MetBefore(x, instrument, worked), err
}

// CleanAt lists the exercises but one at which a student of a class was clean to the end,
// with the tempo that half of the chunks reach; with no student, those of the class. The
// demands are the instrument's.
func (c *Class) CleanAt(ctx context.Context, class store.ClassID, student store.StudentID, instrument string,
	but store.ExerciseID) ([]breakdown.Clean, error) {
	worked, err := c.workedIn(ctx, class)
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

// OctaveChoice is the octave chosen for an instrument's part, if any.
func (c *Class) OctaveChoice(ctx context.Context, exercise store.ExerciseID,
	id string) (instrument.OctaveChoice, error) {
	h, err := c.handMadeOf(ctx, exercise)
	return h.OctaveChoices[id], err
}

// Fingerings are what was chosen in an instrument's part of an exercise, by place.
func (c *Class) Fingerings(ctx context.Context, exercise store.ExerciseID,
	instrument string) (map[score.Place]finger.Spot, error) {
	h, err := c.handMadeOf(ctx, exercise)
	return h.Fingerings[instrument], err
}

// Annotations lists what is written in an instrument's part of an exercise, by place.
func (c *Class) Annotations(ctx context.Context, exercise store.ExerciseID,
	instrument string) (map[score.Place][]breakdown.Annotation, error) {
	h, err := c.handMadeOf(ctx, exercise)
	return h.Annotations[instrument], err
}

// HandChunks are the chunks an exercise has been cut into by hand, none where the program cuts.
func (c *Class) HandChunks(ctx context.Context, exercise store.ExerciseID) ([]breakdown.HandChunk, error) {
	h, err := c.handMadeOf(ctx, exercise)
	return h.Chunks, err
}

// DuetPart finds the lines that an exercise is one of.
func (c *Class) DuetPart(ctx context.Context, exercise store.ExerciseID) (store.DuetPart, error) {
	h, err := c.handMadeOf(ctx, exercise)
	return h.Lines, err
}

// Placed is where an exercise stands for an instrument: the octave that was chosen, or what
// its neighbours in the book settle.
func (c *Class) Placed(ctx context.Context, x store.Exercise,
	target instrument.Instrument) (instrument.OctaveChoice, error) {
	all, err := c.Exercises(ctx)
	if err != nil {
		return instrument.OctaveChoice{}, err
	}
	return c.Reader.OctaveChoice(ctx, c, x, target, all)
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
