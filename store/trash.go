package store

import (
	"context"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"
)

// TrashTime is how long what was taken away can be put back.
const TrashTime = 30 * 24 * time.Hour

// TrashKind is a kind of what can be taken away: a table.
type TrashKind string

// What a teacher can take away.
const (
	TrashExercise TrashKind = "exercises"
	TrashBook     TrashKind = "books"
	TrashClass    TrashKind = "classes"
	TrashStudent  TrashKind = "students"
)

// trashWords says how a kind of thing is written down, and as what of a deed.
type trashWords struct {
	removed, restored, erased Action
	detail                    string // what is said of it: never a student's name
}

var trashKinds = map[TrashKind]trashWords{
	TrashExercise: {detail: "''"}, // no record of people
	TrashBook:     {BookRemoved, BookRestored, BookErased, "title"},
	TrashClass:    {ClassRemoved, ClassRestored, ClassErased, "name"},
	TrashStudent:  {StudentRemoved, StudentRestored, StudentErased, "''"},
}

// MoveToTrash puts what is of a kind into the bin, all or none of them, from where Restore brings
// each back.
func (d *Desk) MoveToTrash(ctx context.Context, what TrashKind, ids ...int64) error {
	return d.changeTrash(ctx, "take away", what, ids, trashKinds[what].removed, `UPDATE %s SET removed_at = now()
		WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL`)
}

// Restore takes something out of the bin. The error is ErrTaken when its name or number
// has been given to another since.
func (d *Desk) Restore(ctx context.Context, what TrashKind, id int64) error {
	return d.changeTrash(ctx, "put back", what, []int64{id}, trashKinds[what].restored,
		`UPDATE %s SET removed_at = NULL WHERE teacher_id = $1 AND id = $2 AND removed_at IS NOT NULL`)
}

// Erase deletes for good what is in the bin, with all that hangs on it: a book's
// exercises, a class's students, and every try of or at them.
func (d *Desk) Erase(ctx context.Context, what TrashKind, id int64) error {
	return d.changeTrash(ctx, "erase", what, []int64{id}, trashKinds[what].erased, `DELETE FROM %s
		WHERE teacher_id = $1 AND id = $2 AND removed_at IS NOT NULL`)
}

func (d *Desk) changeTrash(ctx context.Context, doing string, what TrashKind, ids []int64, action Action,
	query string) error {
	thing, known := trashKinds[what]
	if !known {
		return fmt.Errorf("%s %q: %w", doing, what, ErrNotFound)
	}
	return d.inTransaction(ctx, doing, func(tx deskTx) error {
		for _, id := range ids {
			if what == TrashStudent {
				if err := tx.trashSecond(ctx, action, StudentID(id)); err != nil {
					return err
				}
			}
			var detail string
			if err := tx.one(ctx, &detail, fmt.Sprintf(query, what)+` RETURNING `+thing.detail, id); err != nil {
				return err
			}
			if action == "" {
				continue
			}
			logEntry := logEntry{action: action, detail: detail}
			switch what {
			case TrashClass:
				logEntry.class = ClassID(id)
			case TrashStudent:
				logEntry.student = StudentID(id)
			}
			if err := tx.logAction(ctx, logEntry); err != nil {
				return err
			}
		}
		return tx.deleteUnusedSources(ctx)
	})
}

// trashSecond does to a student's second instrument what is about to be done to the first: it
// goes with it, and comes back with it where it went with it. Erasing is the table's to do.
func (tx deskTx) trashSecond(ctx context.Context, action Action, first StudentID) error {
	switch action {
	case StudentRemoved:
		return tx.clear(ctx, `UPDATE students SET removed_at = now() WHERE teacher_id = $1 AND also_of = $2
			AND removed_at IS NULL`, first)
	case StudentRestored:
		return tx.clear(ctx, `
			UPDATE students SET removed_at = NULL WHERE teacher_id = $1 AND also_of = $2
			AND removed_at = (SELECT f.removed_at FROM students f WHERE f.teacher_id = $1 AND f.id = $2)`, first)
	}
	return nil
}

// Trashed is something in the bin.
type Trashed struct {
	What   TrashKind
	ID     int64
	Name   string
	Within string // the book or class it was in
	At     time.Time
	Tries  int // that would be erased with it
}

// Until is when it is erased by itself; the zero time for an exercise or a book with tries,
// which waits until somebody erases it.
func (b Trashed) Until() time.Time {
	if (b.What == TrashExercise || b.What == TrashBook) && b.Tries > 0 {
		return time.Time{}
	}
	return b.At.Add(TrashTime)
}

// Trash lists what was taken away, the latest first. What went with its book or class is
// not listed beside it.
func (d *Desk) Trash(ctx context.Context) ([]Trashed, error) {
	var list []Trashed
	err := d.own(ctx, &list, "list what was taken away", `
		SELECT 'exercises' AS what, e.id, e.number || ' · ' || e.title AS name, b.title AS within, e.removed_at AS at,
			(SELECT count(*) FROM attempts a WHERE a.teacher_id = $1 AND a.exercise_id = e.id AND a.undoes IS NULL) AS tries
		FROM exercises e JOIN books b ON b.id = e.book_id WHERE e.teacher_id = $1 AND e.removed_at IS NOT NULL
			AND b.removed_at IS NULL
		UNION ALL
		SELECT 'books', b.id, b.title, '', b.removed_at,
			(SELECT count(*) FROM attempts a JOIN exercises e ON e.id = a.exercise_id
				WHERE e.book_id = b.id AND a.undoes IS NULL)
		FROM books b WHERE b.teacher_id = $1 AND b.removed_at IS NOT NULL
		UNION ALL
		SELECT 'classes', s.id, s.name, '', s.removed_at,
			(SELECT count(*) FROM attempts a JOIN students p ON p.id = a.student_id WHERE p.class_id = s.id AND a.undoes IS NULL)
		FROM classes s WHERE s.teacher_id = $1 AND s.removed_at IS NOT NULL
		UNION ALL
		SELECT 'students', p.id, p.first_name || CASE WHEN p.initial = '' THEN '' ELSE ' ' || p.initial || '.' END, s.name, p.removed_at,
			(SELECT count(*) FROM attempts a WHERE a.student_id = p.id AND a.undoes IS NULL)
		FROM students p JOIN classes s ON s.id = p.class_id WHERE p.teacher_id = $1 AND p.removed_at IS NOT NULL
			AND s.removed_at IS NULL
			AND NOT EXISTS (SELECT 1 FROM students f WHERE f.id = p.also_of AND f.removed_at = p.removed_at)
		ORDER BY at DESC, id DESC`)
	return list, err
}

// withOther picks the row of the other instrument of the student $2.
const withOther = `(also_of = $2 OR id = (SELECT f.also_of FROM students f WHERE f.teacher_id = $1 AND f.id = $2))`

// HasLeft takes a student off every list, whatever they play, and keeps the log.
func (d *Desk) HasLeft(ctx context.Context, id StudentID) error {
	return d.inTransaction(ctx, "note that a student has left", func(tx deskTx) error {
		var class ClassID
		if err := tx.clear(ctx, `UPDATE students SET left_at = now() WHERE teacher_id = $1 AND left_at IS NULL
			AND `+withOther, id); err != nil {
			return err
		}
		if err := tx.one(ctx, &class, `
			UPDATE students SET left_at = now() WHERE teacher_id = $1 AND id IN (SELECT id
				FROM `+tx.students()+` p WHERE id = $2) RETURNING class_id`, id); err != nil {
			return err
		}
		return tx.logAction(ctx, logEntry{action: StudentLeft, student: id, class: class})
	})
}

// IsBack puts a student who had left on the lists again, with whatever they play.
func (d *Desk) IsBack(ctx context.Context, id StudentID) error {
	return d.inTransaction(ctx, "bring a student back", func(tx deskTx) error { return tx.isBack(ctx, id) })
}

func (tx deskTx) isBack(ctx context.Context, id StudentID) error {
	if err := tx.clear(ctx, `UPDATE students SET left_at = NULL WHERE teacher_id = $1 AND removed_at IS NULL AND `+
		withOther, id); err != nil {
		return err
	}
	var class ClassID
	if err := tx.one(ctx, &class, `
		UPDATE students SET left_at = NULL WHERE teacher_id = $1 AND id = $2 AND left_at IS NOT NULL
			AND removed_at IS NULL RETURNING class_id`, id); err != nil {
		return err
	}
	return tx.logAction(ctx, logEntry{action: StudentBack, student: id, class: class})
}

// Left is a student who has left.
type Left struct {
	Student
	Class   string
	At      time.Time
	Overdue bool // longer ago than the owner wants records kept
}

// StudentsWhoLeft lists them, the longest ago first.
func (d *Desk) StudentsWhoLeft(ctx context.Context) ([]Left, error) {
	var list []Left
	err := d.own(ctx, &list, "list who has left", `
		SELECT p.id, p.class_id, p.first_name, p.initial, p.instrument, s.name AS class, p.left_at AS at, `+
		overdue+` AS overdue
		FROM students p JOIN classes s ON s.id = p.class_id
		WHERE p.teacher_id = $1 AND p.left_at IS NOT NULL AND p.removed_at IS NULL AND s.removed_at IS NULL
			AND NOT EXISTS (SELECT 1 FROM students f WHERE f.id = p.also_of AND f.left_at = p.left_at) ORDER BY p.left_at, p.id`)
	return list, err
}

// overdue says of a student p who has left whether the owner's months are over.
const overdue = `coalesce(p.left_at < now() - make_interval(months => (SELECT nullif(retain_months, 0)
	FROM policy)), false)`

// EraseOverdue deletes for good those who left longer ago than the owner wants records
// kept, and gives how many.
func (d *Desk) EraseOverdue(ctx context.Context) (int, error) {
	n := 0
	err := d.inTransaction(ctx, "erase who left long ago", func(tx deskTx) error {
		var gone []StudentID
		if err := tx.SelectContext(ctx, &gone, `DELETE FROM students p
			WHERE p.teacher_id = $1 AND p.removed_at IS NULL AND `+overdue+` RETURNING p.id`, tx.teacher); err != nil {
			return err
		}
		for _, id := range gone {
			if err := tx.logAction(ctx, logEntry{action: StudentErased, student: id}); err != nil {
				return err
			}
		}
		n = len(gone)
		return nil
	})
	return n, err
}

// activityTime is how long the log of who did what is kept.
const activityTime = 2 * 365 * 24 * time.Hour

// DeleteExpired erases for good what has been in the bin for its days, links that nobody used,
// sessions that are over, and what was done long ago. It is for once a day.
func (s *Store) DeleteExpired(ctx context.Context) error {
	return inTransaction(ctx, s.db, "tidy up", func(tx *sqlx.Tx) error {
		since := time.Now().Add(-TrashTime)
		var gone []TeacherID
		if err := tx.SelectContext(ctx, &gone, `SELECT id FROM teachers WHERE removed_at < $1`, since); err != nil {
			return err
		}
		for _, id := range gone {
			if err := eraseTeacher(ctx, tx, 0, id); err != nil {
				return err
			}
		}
		for _, query := range []string{
			`DELETE FROM books b WHERE removed_at < $1 AND NOT EXISTS (SELECT 1 FROM attempts a
				JOIN exercises e ON e.id = a.exercise_id WHERE e.book_id = b.id)`,
			`DELETE FROM classes WHERE removed_at < $1`,
			`DELETE FROM students WHERE removed_at < $1`,
			`DELETE FROM exercises e WHERE removed_at < $1 AND NOT EXISTS (SELECT 1 FROM attempts a
				WHERE a.teacher_id = e.teacher_id AND a.exercise_id = e.id)`,
			`DELETE FROM sources s WHERE $1::timestamptz IS NOT NULL
				AND NOT EXISTS (SELECT 1 FROM exercises e WHERE e.teacher_id = s.teacher_id AND e.hash = s.hash)
				AND NOT EXISTS (SELECT 1 FROM overrides o WHERE o.teacher_id = s.teacher_id AND o.hash = s.hash)`,
		} {
			if _, err := tx.ExecContext(ctx, query, since); err != nil {
				return err
			}
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM sessions WHERE expiry < now()`); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM activity
			WHERE at < $1`, time.Now().Add(-activityTime)); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `DELETE FROM invitations WHERE until < now()`)
		return err
	})
}
