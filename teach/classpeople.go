package teach

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"unhurriedbench/store"
)

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
