package teach

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"unhurriedbench/store"
)

// Classes lists the classes that the desk sees.
func (c *Class) Classes(ctx context.Context) ([]store.Class, error) {
	list, err := c.known().classes.once(func() ([]store.Class, error) { return c.Desk.Classes(ctx) })
	return slices.Clone(list), err
}

// Class is one of Classes. The error is store.ErrNotFound where the desk sees no such one.
func (c *Class) Class(ctx context.Context, id store.ClassID) (store.Class, error) {
	classes, err := c.Classes(ctx)
	if err != nil {
		return store.Class{}, err
	}
	k := slices.IndexFunc(classes, func(s store.Class) bool { return s.ID == id })
	if k < 0 {
		return store.Class{}, store.ErrNotFound
	}
	return classes[k], nil
}

// ChooseClass lists the classes and finds the one that is wanted, and remembers it; where
// none is, the one chosen last, or the first. The error is store.ErrNotFound for one that the
// desk does not see.
func (c *Class) ChooseClass(ctx context.Context, desired store.ClassID) ([]store.Class, store.Class, error) {
	classes, err := c.Classes(ctx)
	if err != nil || desired == 0 && len(classes) == 0 {
		return classes, store.Class{}, err
	}
	find := func(id store.ClassID) int {
		return slices.IndexFunc(classes, func(class store.Class) bool { return class.ID == id })
	}
	last := store.ClassID(0)
	if c.Last != nil {
		last = c.Last.Class()
	}
	if desired == 0 {
		return classes, classes[max(find(last), 0)], nil
	}
	at := find(desired)
	if at < 0 {
		return classes, store.Class{}, fmt.Errorf("choose the class: %w", store.ErrNotFound)
	}
	if desired != last && c.Guest().Own() && c.Last != nil {
		c.Last.ChooseClass(desired)
	}
	return classes, classes[at], nil
}

// Students lists the students of a class by name.
func (c *Class) Students(ctx context.Context, class store.ClassID) ([]store.Student, error) {
	list, err := at(&c.known().students, class).once(func() ([]store.Student,
		error) {
		return c.Desk.Students(ctx, class)
	})
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

// ClassStandings lists where the students of a class stand.
func (c *Class) ClassStandings(ctx context.Context, class store.ClassID) (store.Standings, error) {
	return at(&c.known().standings, class).once(func() (store.Standings,
		error) {
		return c.Desk.ClassStandings(ctx, class)
	})
}

// StudentStandings lists where a student stands.
func (c *Class) StudentStandings(ctx context.Context, student store.StudentID) (store.Standings, error) {
	return ofStudent(ctx, c, &c.known().tasks, "standings", student,
		func() (store.Standings, error) { return c.Desk.StudentStandings(ctx, student) },
		func(class store.ClassID) (store.Standings, error) {
			all, err := c.ClassStandings(ctx, class)
			return all.Of(func(t store.Task) bool { return t.Student == student }), err
		})
}

// StudentAttempts lists a student's tries, newest first, those taken back included.
func (c *Class) StudentAttempts(ctx context.Context, student store.StudentID) ([]store.Attempt, error) {
	return ofStudent(ctx, c, &c.known().log, "attempts", student,
		func() ([]store.Attempt, error) { return c.Desk.StudentAttempts(ctx, student) },
		func(class store.ClassID) ([]store.Attempt, error) {
			all, err := at(&c.known().attempts, class).once(func() (map[store.StudentID][]store.Attempt,
				error) {
				return c.Desk.ClassAttempts(ctx, class)
			})
			return all[student], err
		})
}

// ofStudent reads something of a student: alone, and of all in their class where it is
// asked for one student after the other.
func ofStudent[T any](ctx context.Context, c *Class, facts *map[store.StudentID]*fact[T], what string,
	student store.StudentID, one func() (T, error), all func(store.ClassID) (T, error)) (T, error) {
	return at(facts, student).once(func() (T, error) {
		if !c.many(what) {
			return one()
		}
		who, err := c.StudentByID(ctx, student)
		if err != nil { // nobody, of whom there is nothing
			return one()
		}
		return all(who.ClassID)
	})
}

// ExerciseStandings lists where the students of a class stand on one exercise.
func (c *Class) ExerciseStandings(ctx context.Context, exercise store.ExerciseID,
	class store.ClassID) (store.Standings, error) {
	if all := c.known().standings[class]; all != nil && all.read && all.err == nil {
		return all.value.Of(func(t store.Task) bool { return t.Exercise == exercise }), nil
	}
	return c.Desk.ExerciseStandings(ctx, exercise, class)
}

// workedIn lists what the students of a class have worked on.
func (c *Class) workedIn(ctx context.Context, class store.ClassID) (store.WorkedList, error) {
	return at(&c.known().worked, class).once(func() (store.WorkedList, error) {
		if all := c.known().standings[class]; all != nil && all.read && all.err == nil {
			return all.value.Worked(), nil
		}
		return c.Desk.Worked(ctx, class)
	})
}

// Worked lists the exercises that a student of a class has worked on; with no student,
// those that at least half of the class have, of those who have tries at all.
func (c *Class) Worked(ctx context.Context, class store.ClassID, student store.StudentID) ([]store.ExerciseID, error) {
	list, err := c.workedIn(ctx, class)
	return list.On(student), err
}

// ClassCheckins lists of every student of a class the check-in to come and the last one
// that was heard, the latest day first.
func (c *Class) ClassCheckins(ctx context.Context, class store.ClassID) ([]store.Checkin, error) {
	list, err := at(&c.known().checkins, class).once(func() ([]store.Checkin,
		error) {
		return c.Desk.ClassCheckins(ctx, class)
	})
	return slices.Clone(list), err
}

// HomePlans lists the plans of a class's students.
func (c *Class) HomePlans(ctx context.Context, class store.ClassID) ([]store.HomePlan, error) {
	list, err := at(&c.known().homePlans, class).once(func() ([]store.HomePlan,
		error) {
		return c.Desk.HomePlans(ctx, class)
	})
	return slices.Clone(list), err
}

// HomePlan finds a student's plan. The error is store.ErrNotFound where there is none.
func (c *Class) HomePlan(ctx context.Context, student store.StudentID) (store.HomePlan, error) {
	return ofStudent(ctx, c, &c.known().plan, "home plan", student,
		func() (store.HomePlan, error) { return c.Desk.HomePlan(ctx, student) },
		func(class store.ClassID) (store.HomePlan, error) {
			all, err := c.HomePlans(ctx, class)
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
	list, err := c.ClassCheckins(ctx, who.ClassID)
	for _, checkin := range list {
		if checkin.Student == student && checkin.Heard == nil {
			return &checkin, err
		}
	}
	return nil, err
}
