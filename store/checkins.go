package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"unhurriedbench/core/lesson"
)

// CheckinID is a check-in's; 0 is none.
type CheckinID int64

// Checkin is a day on which a student plays for the teacher, and what.
type Checkin struct {
	ID      CheckinID
	Student StudentID
	On      time.Time // midnight of the day, in UTC
	Due     []lesson.Step
	Batch   BatchID // of the tries that are marked at it
	Comment string
	Heard   *time.Time // nil for one that is still to come
}

// LongestComment is the most letters of a comment.
const LongestComment = 1000

// MostDue is how many chunks a check-in may ask for.
const MostDue = 8

// checkinRow is a check-in as it is scanned.
type checkinRow struct {
	ID      CheckinID
	Student StudentID
	On      time.Time
	Due     []byte
	Batch   BatchID
	Comment string
	Heard   *time.Time
}

func (r checkinRow) checkin() (Checkin, error) {
	c := Checkin{ID: r.ID, Student: r.Student, On: r.On, Batch: r.Batch, Comment: r.Comment, Heard: r.Heard}
	if err := json.Unmarshal(r.Due, &c.Due); err != nil {
		return c, fmt.Errorf("read the check-in %d: %w", r.ID, err)
	}
	return c, nil
}

const checkinColumns = `c.id, c.student_id AS student, c.on_day AS on, c.due, c.batch, c.comment, c.heard_at AS heard`

// checkinsSeen selects the check-ins of the students that the desk sees.
func (d *Desk) checkinsSeen() string {
	return `SELECT ` + checkinColumns + ` FROM checkins c JOIN ` + d.students() +
		` p ON p.id = c.student_id WHERE c.teacher_id = $1`
}

func (d *Desk) checkins(ctx context.Context, doing, query string, args ...any) ([]Checkin, error) {
	var rows []checkinRow
	if err := d.all(ctx, &rows, doing, query, args...); err != nil {
		return nil, err
	}
	list := make([]Checkin, len(rows))
	for k, row := range rows {
		var err error
		if list[k], err = row.checkin(); err != nil {
			return nil, err
		}
	}
	return list, nil
}

// Checkin finds a check-in.
func (d *Desk) Checkin(ctx context.Context, id CheckinID) (Checkin, error) {
	var row checkinRow
	if err := d.one(ctx, &row, "find the check-in", d.checkinsSeen()+` AND c.id = $2`, id); err != nil {
		return Checkin{}, err
	}
	return row.checkin()
}

// ClassCheckins lists of every student of a class the check-in to come and the last one
// that was heard, the latest day first.
func (d *Desk) ClassCheckins(ctx context.Context, class ClassID) ([]Checkin, error) {
	return d.checkins(ctx, "list the check-ins", `
		SELECT DISTINCT ON (c.student_id, c.heard_at IS NULL) `+checkinColumns+`
		FROM checkins c JOIN `+d.students()+` p ON p.id = c.student_id WHERE c.teacher_id = $1 AND `+memberOf("p", "$2")+`
		ORDER BY c.student_id, c.heard_at IS NULL DESC, c.heard_at DESC, c.id DESC`, class)
}

// StudentCheckins lists a student's check-ins, at most n, the one to come first, then
// the latest heard.
func (d *Desk) StudentCheckins(ctx context.Context, student StudentID, most int) ([]Checkin, error) {
	return d.checkins(ctx, "list the check-ins", d.checkinsSeen()+
		` AND c.student_id = $2 ORDER BY c.heard_at IS NULL DESC, c.heard_at DESC, c.id DESC LIMIT $3`, student, most)
}

// CheckinTries lists what was marked at a check-in, oldest first, without what was taken back.
func (d *Desk) CheckinTries(ctx context.Context, c Checkin) ([]Attempt, error) {
	var rows []attemptRow
	err := d.all(ctx, &rows, "list what was marked at the check-in", `
		SELECT `+attemptColumns+` FROM `+attemptTables+`
		WHERE a.teacher_id = $1 AND a.student_id = $2 AND a.student_id IN (SELECT id FROM `+d.students()+
		` p) AND a.batch = $3 AND a.undoes IS NULL AND u.id IS NULL ORDER BY a.id`,
		c.Student, c.Batch)
	return attempts(rows), err
}

// SetCheckins gives students check-ins: the day, and what is due, in place of what is to come
// for them. The error is ErrNotFound where a student is not the desk's.
func (d *Desk) SetCheckins(ctx context.Context, list ...Checkin) error {
	return d.marking(ctx, "set the check-ins", func(tx deskTx) error {
		for _, c := range list {
			if err := tx.setCheckin(ctx, c); err != nil {
				return err
			}
		}
		return nil
	})
}

func (tx deskTx) setCheckin(ctx context.Context, c Checkin) error {
	due, err := json.Marshal(append([]lesson.Step{}, c.Due...))
	if err != nil {
		return err
	}
	return tx.change(ctx, `
		INSERT INTO checkins (teacher_id, student_id, on_day, due) SELECT $1, p.id, $3, $4 FROM `+tx.students()+` p
			WHERE p.id = $2
		ON CONFLICT (teacher_id, student_id) WHERE heard_at IS NULL
			DO UPDATE SET on_day = excluded.on_day, due = excluded.due`, c.Student, c.On, string(due))
}

// ofCheckin narrows a statement to check-ins that the desk sees.
func (d *Desk) ofCheckin() string {
	return ` WHERE teacher_id = $1 AND id = $2 AND student_id IN (SELECT p.id FROM ` + d.students() + ` p)`
}

// SaveDue changes what is due at a check-in.
func (d *Desk) SaveDue(ctx context.Context, id CheckinID, due []lesson.Step) error {
	text, err := json.Marshal(append([]lesson.Step{}, due...))
	if err != nil {
		return fmt.Errorf("keep what is due: %w", err)
	}
	return d.marking(ctx, "keep what is due", func(tx deskTx) error {
		return tx.change(ctx, `UPDATE checkins SET due = $3`+tx.ofCheckin(), id, string(text))
	})
}

// DeleteCheckin takes away a check-in that is still to come.
func (d *Desk) DeleteCheckin(ctx context.Context, id CheckinID) error {
	return d.marking(ctx, "take the check-in away", func(tx deskTx) error {
		return tx.change(ctx, `DELETE FROM checkins`+tx.ofCheckin()+` AND heard_at IS NULL`, id)
	})
}

// MarkAtCheckin logs a try at a check-in for a press, which changes nothing when it is sent
// again.
func (d *Desk) MarkAtCheckin(ctx context.Context, key RequestKey, id CheckinID, a Attempt) error {
	return d.marking(ctx, "log the try", func(tx deskTx) error {
		var of struct {
			Student StudentID
			Batch   BatchID
		}
		if err := tx.one(ctx, &of, `SELECT student_id AS student, batch FROM checkins`+tx.ofCheckin(), id); err != nil {
			return err
		}
		a.StudentID = of.Student
		_, err := tx.addAttempts(ctx, key, []Attempt{a}, of.Batch)
		return err
	})
}

// EndCheckin ends a check-in that was heard, with what the teacher says of it, and sets the
// next one; a day of the zero time sets none. What has ended already gets the comment alone.
func (d *Desk) EndCheckin(ctx context.Context, id CheckinID, comment string, next Checkin) error {
	return d.marking(ctx, "end the check-in", func(tx deskTx) error {
		var student StudentID
		err := tx.one(ctx, &student, `UPDATE checkins SET comment = $3, heard_at = now()`+tx.ofCheckin()+
			` AND heard_at IS NULL RETURNING student_id`, id, comment)
		if errors.Is(err, sql.ErrNoRows) {
			return tx.change(ctx, `UPDATE checkins SET comment = $3`+tx.ofCheckin(), id, comment)
		}
		if err != nil || next.On.IsZero() {
			return err
		}
		next.Student = student
		return tx.setCheckin(ctx, next)
	})
}
