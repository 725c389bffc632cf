package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"github.com/jmoiron/sqlx"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
)

// MostRoutines is how many routines of their own a teacher keeps.
const MostRoutines = 40

// ErrTooMany is what a limit on how much is kept gives.
var ErrTooMany = errors.New("there are too many")

// RoutineSetting is the setting that chooses the routine where nothing else does.
const RoutineSetting = "routine"

// ownRoutine is how choices name a routine of the teacher's own: "own-3".
const ownRoutine = "own-"

// ownRoutineID reads "own-3"; 0, which no row has, for anything else.
func ownRoutineID(id string) int64 {
	text, own := strings.CutPrefix(id, ownRoutine)
	n, err := strconv.ParseInt(text, 10, 64)
	if !own || err != nil {
		return 0
	}
	return n
}

// Chooser is who or what a routine is chosen for; the zero value is the teacher's own
// choice for all that has none.
type Chooser struct {
	Exercise   ExerciseID
	Instrument string
	Class      ClassID
}

// Rules are which routine is followed by whom: the exercise's, else the instrument's, else
// the class's, else the teacher's, else the standard one. One that does not suit the
// family of an instrument is passed over. What is settled for a student holds in all.
type Rules struct {
	all      []routine.Named
	standard routine.Named
	named    map[string]routine.Named // the teacher's own, and those that ship
	chosen   map[Chooser]string
	students map[StudentID]ruled
	family   map[string]string // of an instrument
}

// ruled is what of a student bears on their routine.
type ruled struct {
	class      ClassID
	instrument string
	rule       routine.Rule
}

// Rules finds which routine is followed by whom.
func (d *Desk) Rules(ctx context.Context) (Rules, error) {
	rules, err := rulesOf(ctx, d.db, d.teacher, d.routine)
	return rules, wrap("find the routines", err)
}

func (tx deskTx) rules(ctx context.Context) (Rules, error) {
	return rulesOf(ctx, tx.Tx, tx.teacher, tx.routine)
}

func rulesOf(ctx context.Context, db sqlx.QueryerContext, teacher TeacherID, standard routine.Routine) (Rules, error) {
	r := Rules{named: map[string]routine.Named{}, chosen: map[Chooser]string{}, students: map[StudentID]ruled{},
		family: map[string]string{}}
	for _, n := range routine.Shipped() {
		r.named[n.ID] = n
	}
	r.standard = r.named[routine.StandardID]
	r.standard.Steps = standard
	r.named[routine.StandardID] = r.standard
	own, err := ownRoutines(ctx, db, teacher)
	if err != nil {
		return r, err
	}
	for _, n := range own {
		r.named[n.ID] = n
	}
	r.all = append(routine.Shipped(), own...)
	r.all[0].Steps = standard
	rows, err := db.QueryContext(ctx, `
		SELECT 0 AS student, 0 AS exercise, '' AS instrument, 0 AS class, value AS routine, 0 AS clean, false AS stays
		FROM settings WHERE teacher_id = $1 AND key = $2
		UNION ALL SELECT 0, id, '', 0, routine, 0, false FROM exercises WHERE teacher_id = $1 AND routine <> ''
		UNION ALL SELECT 0, 0, instrument, 0, routine, 0, false FROM instrument_routines WHERE teacher_id = $1
		UNION ALL SELECT 0, 0, '', id, routine, 0, false FROM classes WHERE teacher_id = $1 AND routine <> ''
		UNION ALL SELECT 0, 0, '', g.id, o.routine, 0, false FROM classes g JOIN classes o ON o.id = g.of_class
			WHERE g.teacher_id = $1 AND o.routine <> ''
		UNION ALL SELECT id, 0, instrument, class_id, '', clean_to_go_on, stays FROM students WHERE teacher_id = $1`,
		teacher, RoutineSetting)
	if err != nil {
		return r, fmt.Errorf("list the choices of routines: %w", err)
	}
	defer rows.Close()
	for rows.Next() {
		var student StudentID
		var by Chooser
		var chosen string
		var rule routine.Rule
		if err := rows.Scan(&student, &by.Exercise, &by.Instrument, &by.Class, &chosen, &rule.Clean, &rule.Stay); err != nil {
			return r, fmt.Errorf("list the choices of routines: %w", err)
		}
		if student != 0 {
			r.students[student] = ruled{class: by.Class, instrument: by.Instrument, rule: rule}
		} else {
			r.chosen[by] = chosen
		}
	}
	for _, i := range instrument.All() {
		r.family[i.ID] = i.Family
	}
	return r, rows.Err()
}

// ownRoutines lists the teacher's own routines by title.
func ownRoutines(ctx context.Context, db sqlx.QueryerContext, teacher TeacherID) ([]routine.Named, error) {
	var rows []struct {
		ID                 int64
		Title, Why, Family string
		Steps              []byte
	}
	if err := sqlx.SelectContext(ctx, db, &rows, `SELECT id, title, why, family, steps FROM routines
		WHERE teacher_id = $1 ORDER BY lower(title), id`, teacher); err != nil {
		return nil, fmt.Errorf("list the routines: %w", err)
	}
	list := make([]routine.Named, len(rows))
	for k, row := range rows {
		list[k] = routine.Named{ID: ownRoutine + strconv.FormatInt(row.ID, 10), Title: row.Title, Why: row.Why,
			Family: row.Family}
		if err := json.Unmarshal(row.Steps, &list[k].Steps); err != nil {
			return nil, fmt.Errorf("read the routine %s: %w", list[k].ID, err)
		}
	}
	return list, nil
}

// All lists the routines there are: those that ship, then the teacher's own by title.
func (r Rules) All() []routine.Named { return slices.Clone(r.all) }

// Named finds a routine by its id; ok is false where there is none.
func (r Rules) Named(id string) (routine.Named, bool) {
	n, ok := r.named[id]
	return n, ok
}

// Chosen is the id of the routine that was chosen for somebody, "" for none.
func (r Rules) Chosen(by Chooser) string { return r.chosen[by] }

// In is the routine that a class follows at an exercise on an instrument; each may be left
// out.
func (r Rules) In(at Chooser) routine.Named {
	chosen := func(by Chooser) routine.Named { return r.named[r.chosen[by]] }
	if n, ok := routine.First(r.family[at.Instrument], chosen(Chooser{Exercise: at.Exercise}),
		chosen(Chooser{Instrument: at.Instrument}), chosen(Chooser{Class: at.Class}), chosen(Chooser{})); ok {
		return n
	}
	return r.standard
}

// For is the routine that a student follows at an exercise.
func (r Rules) For(student StudentID, exercise ExerciseID) routine.Routine {
	who := r.students[student]
	return r.In(Chooser{exercise, who.instrument, who.class}).Steps.Under(who.rule)
}

// Rule is what is settled for a student.
func (r Rules) Rule(student StudentID) routine.Rule { return r.students[student].rule }

// Routines lists the routines there are: those that ship, then the teacher's own.
func (d *Desk) Routines(ctx context.Context) ([]routine.Named, error) {
	own, err := ownRoutines(ctx, d.db, d.teacher)
	list := append(routine.Shipped(), own...)
	list[0].Steps = d.routine
	return list, wrap("list the routines", err)
}

// SaveRoutine keeps a routine of the teacher's own, a new one where it has no id, and adds
// up again what follows it. The error is ErrTaken where another has its title, ErrTooMany
// beyond MostRoutines.
func (d *Desk) SaveRoutine(ctx context.Context, n routine.Named) (id string, err error) {
	err = d.inTransaction(ctx, "keep the routine", func(tx deskTx) error {
		steps, err := json.Marshal(n.Steps)
		if err != nil {
			return err
		}
		if n.ID != "" {
			id = n.ID
			if err := tx.change(ctx, `UPDATE routines SET title = $3, why = $4, family = $5, steps = $6
				WHERE teacher_id = $1 AND id = $2`,
				ownRoutineID(n.ID), n.Title, n.Why, n.Family, string(steps)); err != nil {
				return err
			}
			return tx.refoldFollowing(ctx, id)
		}
		var archived int
		if err := tx.one(ctx, &archived, `SELECT count(*) FROM routines WHERE teacher_id = $1`); err != nil {
			return err
		}
		if archived >= MostRoutines {
			return ErrTooMany
		}
		var made int64
		err = tx.one(ctx, &made, `INSERT INTO routines (teacher_id, title, why, family, steps)
			VALUES ($1, $2, $3, $4, $5) RETURNING id`, n.Title, n.Why, n.Family, string(steps))
		id = ownRoutine + strconv.FormatInt(made, 10)
		return err
	})
	return id, err
}

// DeleteRoutine takes a routine of the teacher's own away; who followed it follows what they
// would without it.
func (d *Desk) DeleteRoutine(ctx context.Context, id string) error {
	return d.inTransaction(ctx, "take the routine away", func(tx deskTx) error {
		if err := tx.change(ctx, `DELETE FROM routines WHERE teacher_id = $1 AND id = $2`, ownRoutineID(id)); err != nil {
			return err
		}
		if err := tx.refoldFollowing(ctx, id); err != nil {
			return err
		}
		for _, clear := range []string{
			`UPDATE exercises SET routine = '' WHERE teacher_id = $1 AND routine = $2`, `UPDATE classes SET routine = ''
				WHERE teacher_id = $1 AND routine = $2`,
			`DELETE FROM instrument_routines WHERE teacher_id = $1 AND routine = $2`, `DELETE FROM settings
				WHERE teacher_id = $1 AND key = '` + RoutineSetting + `' AND value = $2`,
		} {
			if err := tx.clear(ctx, clear, id); err != nil {
				return err
			}
		}
		return nil
	})
}

// refoldFollowing adds up again for anyone who has chosen a routine.
func (tx deskTx) refoldFollowing(ctx context.Context, id string) error {
	rules, err := tx.rules(ctx)
	if err != nil {
		return err
	}
	for by, chosen := range rules.chosen {
		if chosen != id {
			continue
		}
		if err := tx.refoldFor(ctx, by); err != nil {
			return err
		}
	}
	return nil
}

// ChooseRoutine has a class, an instrument or an exercise follow a routine; "" is what
// they would follow without it. The error is ErrNotFound where either is not there.
func (d *Desk) ChooseRoutine(ctx context.Context, by Chooser, id string) error {
	return d.inTransaction(ctx, "choose the routine", func(tx deskTx) error {
		rules, err := tx.rules(ctx)
		if err != nil {
			return err
		}
		if _, known := rules.named[id]; !known && id != "" {
			return fmt.Errorf("find the routine %s: %w", id, ErrNotFound)
		}
		switch {
		case by.Exercise != 0:
			err = tx.change(ctx, `UPDATE exercises SET routine = $3 WHERE teacher_id = $1 AND id = $2
				AND removed_at IS NULL`, by.Exercise, id)
		case by.Class != 0:
			err = tx.change(ctx, `UPDATE classes SET routine = $3 WHERE teacher_id = $1 AND id = $2
				AND removed_at IS NULL`, by.Class, id)
		case by.Instrument != "" && id == "":
			err = tx.clear(ctx, `DELETE FROM instrument_routines WHERE teacher_id = $1 AND instrument = $2`, by.Instrument)
		case by.Instrument != "":
			err = tx.change(ctx, `
				INSERT INTO instrument_routines (teacher_id, instrument, routine) VALUES ($1, $2, $3)
				ON CONFLICT (teacher_id, instrument) DO UPDATE SET routine = $3`, by.Instrument, id)
		default:
			err = tx.saveSetting(ctx, RoutineSetting, id)
		}
		if err != nil {
			return err
		}
		return tx.refoldFor(ctx, by)
	})
}

// refoldFor adds up again what a choice of a routine bears on.
func (tx deskTx) refoldFor(ctx context.Context, by Chooser) error {
	switch {
	case by.Exercise != 0:
		return tx.refold(ctx, `a.exercise_id = $2`, by.Exercise)
	case by.Class != 0:
		return tx.refold(ctx, `a.student_id IN (SELECT id FROM students WHERE class_id = $2)`, by.Class)
	case by.Instrument != "":
		return tx.refold(ctx, `a.student_id IN (SELECT id FROM students
			WHERE teacher_id = $1 AND instrument = $2)`, by.Instrument)
	}
	return tx.refold(ctx, `true`)
}

// SaveRule settles a rule for a student, whatever their routine says.
func (d *Desk) SaveRule(ctx context.Context, student StudentID, rule routine.Rule) error {
	return d.inTransaction(ctx, "keep the student's rule", func(tx deskTx) error {
		if err := tx.change(ctx, `UPDATE students SET clean_to_go_on = $3, stays = $4
			WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL`, student, rule.Clean, rule.Stay); err != nil {
			return err
		}
		return tx.refold(ctx, `a.student_id = $2`, student)
	})
}
