package store

import (
	"context"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"
)

// KeptInBin is how long what was taken away can be put back.
const KeptInBin = 30 * 24 * time.Hour

// Thing is a kind of what can be taken away: a table.
type Thing string

// What a teacher can take away.
const (
	AnExercise Thing = "exercises"
	ABook      Thing = "books"
	ASection   Thing = "sections"
	AStudent   Thing = "students"
)

// binned says how a kind of thing is written down, and as what of a deed.
type binned struct {
	removed, putBack, erased Deed
	detail                   string // what is said of it: never a student's name
}

var things = map[Thing]binned{
	AnExercise: {detail: "''"}, // no record of people
	ABook:      {BookRemoved, BookPutBack, BookErased, "title"},
	ASection:   {SectionRemoved, SectionPutBack, SectionErased, "name"},
	AStudent:   {StudentRemoved, StudentPutBack, StudentErased, "''"},
}

// TakeAway puts things of a kind into the bin, all or none of them, from where PutBack brings
// each back.
func (d *Desk) TakeAway(ctx context.Context, what Thing, ids ...int64) error {
	return d.binning(ctx, "take away", what, ids, things[what].removed, `UPDATE %s SET removed_at = now() WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL`)
}

// PutBack takes something out of the bin. The error is ErrTaken when its name or number
// has been given to another since.
func (d *Desk) PutBack(ctx context.Context, what Thing, id int64) error {
	return d.binning(ctx, "put back", what, []int64{id}, things[what].putBack, `UPDATE %s SET removed_at = NULL WHERE teacher_id = $1 AND id = $2 AND removed_at IS NOT NULL`)
}

// Erase deletes for good what is in the bin, with all that hangs on it: a book's
// exercises, a section's students, and every try of or at them.
func (d *Desk) Erase(ctx context.Context, what Thing, id int64) error {
	return d.binning(ctx, "erase", what, []int64{id}, things[what].erased, `DELETE FROM %s WHERE teacher_id = $1 AND id = $2 AND removed_at IS NOT NULL`)
}

func (d *Desk) binning(ctx context.Context, doing string, what Thing, ids []int64, deed Deed, query string) error {
	thing, known := things[what]
	if !known {
		return fmt.Errorf("%s %q: %w", doing, what, ErrNotFound)
	}
	return d.inTransaction(ctx, doing, func(tx deskTx) error {
		for _, id := range ids {
			if what == AStudent {
				if err := tx.binSecond(ctx, deed, StudentID(id)); err != nil {
					return err
				}
			}
			var detail string
			if err := tx.one(ctx, &detail, fmt.Sprintf(query, what)+` RETURNING `+thing.detail, id); err != nil {
				return err
			}
			if deed == "" {
				continue
			}
			done := done{deed: deed, detail: detail}
			switch what {
			case ASection:
				done.section = SectionID(id)
			case AStudent:
				done.student = StudentID(id)
			}
			if err := tx.did(ctx, done); err != nil {
				return err
			}
		}
		return tx.dropUnusedSources(ctx)
	})
}

// binSecond does to a student's second instrument what is about to be done to the first: it
// goes with it, and comes back with it where it went with it. Erasing is the table's to do.
func (tx deskTx) binSecond(ctx context.Context, deed Deed, first StudentID) error {
	switch deed {
	case StudentRemoved:
		return tx.clear(ctx, `UPDATE students SET removed_at = now() WHERE teacher_id = $1 AND also_of = $2 AND removed_at IS NULL`, first)
	case StudentPutBack:
		return tx.clear(ctx, `
			UPDATE students SET removed_at = NULL WHERE teacher_id = $1 AND also_of = $2
			AND removed_at = (SELECT f.removed_at FROM students f WHERE f.teacher_id = $1 AND f.id = $2)`, first)
	}
	return nil
}

// Binned is something in the bin.
type Binned struct {
	What   Thing
	ID     int64
	Name   string
	Within string // the book or section it was in
	At     time.Time
	Tries  int // that would be erased with it
}

// Until is when it is erased by itself; the zero time for an exercise or a book with tries,
// which waits until somebody erases it.
func (b Binned) Until() time.Time {
	if (b.What == AnExercise || b.What == ABook) && b.Tries > 0 {
		return time.Time{}
	}
	return b.At.Add(KeptInBin)
}

// Bin lists what was taken away, the latest first. What went with its book or section is
// not listed beside it.
func (d *Desk) Bin(ctx context.Context) ([]Binned, error) {
	var list []Binned
	err := d.own(ctx, &list, "list what was taken away", `
		SELECT 'exercises' AS what, e.id, e.number || ' · ' || e.title AS name, b.title AS within, e.removed_at AS at,
			(SELECT count(*) FROM attempts a WHERE a.teacher_id = $1 AND a.exercise_id = e.id AND a.undoes IS NULL) AS tries
		FROM exercises e JOIN books b ON b.id = e.book_id WHERE e.teacher_id = $1 AND e.removed_at IS NOT NULL AND b.removed_at IS NULL
		UNION ALL
		SELECT 'books', b.id, b.title, '', b.removed_at,
			(SELECT count(*) FROM attempts a JOIN exercises e ON e.id = a.exercise_id WHERE e.book_id = b.id AND a.undoes IS NULL)
		FROM books b WHERE b.teacher_id = $1 AND b.removed_at IS NOT NULL
		UNION ALL
		SELECT 'sections', s.id, s.name, '', s.removed_at,
			(SELECT count(*) FROM attempts a JOIN students p ON p.id = a.student_id WHERE p.section_id = s.id AND a.undoes IS NULL)
		FROM sections s WHERE s.teacher_id = $1 AND s.removed_at IS NOT NULL
		UNION ALL
		SELECT 'students', p.id, p.first_name || CASE WHEN p.initial = '' THEN '' ELSE ' ' || p.initial || '.' END, s.name, p.removed_at,
			(SELECT count(*) FROM attempts a WHERE a.student_id = p.id AND a.undoes IS NULL)
		FROM students p JOIN sections s ON s.id = p.section_id WHERE p.teacher_id = $1 AND p.removed_at IS NOT NULL AND s.removed_at IS NULL
			AND NOT EXISTS (SELECT 1 FROM students f WHERE f.id = p.also_of AND f.removed_at = p.removed_at)
		ORDER BY at DESC, id DESC`)
	return list, err
}

// withOther picks the row of the other instrument of the student $2.
const withOther = `(also_of = $2 OR id = (SELECT f.also_of FROM students f WHERE f.teacher_id = $1 AND f.id = $2))`

// HasLeft takes a student off every list, whatever they play, and keeps the log.
func (d *Desk) HasLeft(ctx context.Context, id StudentID) error {
	return d.inTransaction(ctx, "note that a student has left", func(tx deskTx) error {
		var section SectionID
		if err := tx.clear(ctx, `UPDATE students SET left_at = now() WHERE teacher_id = $1 AND left_at IS NULL AND `+withOther, id); err != nil {
			return err
		}
		if err := tx.one(ctx, &section, `
			UPDATE students SET left_at = now() WHERE teacher_id = $1 AND id IN (SELECT id FROM `+tx.students()+` p WHERE id = $2) RETURNING section_id`, id); err != nil {
			return err
		}
		return tx.did(ctx, done{deed: StudentLeft, student: id, section: section})
	})
}

// IsBack puts a student who had left on the lists again, with whatever they play.
func (d *Desk) IsBack(ctx context.Context, id StudentID) error {
	return d.inTransaction(ctx, "bring a student back", func(tx deskTx) error { return tx.isBack(ctx, id) })
}

func (tx deskTx) isBack(ctx context.Context, id StudentID) error {
	if err := tx.clear(ctx, `UPDATE students SET left_at = NULL WHERE teacher_id = $1 AND removed_at IS NULL AND `+withOther, id); err != nil {
		return err
	}
	var section SectionID
	if err := tx.one(ctx, &section, `
		UPDATE students SET left_at = NULL WHERE teacher_id = $1 AND id = $2 AND left_at IS NOT NULL AND removed_at IS NULL RETURNING section_id`, id); err != nil {
		return err
	}
	return tx.did(ctx, done{deed: StudentBack, student: id, section: section})
}

// Left is a student who has left.
type Left struct {
	Student
	Section string
	At      time.Time
	Overdue bool // longer ago than the owner wants records kept
}

// StudentsWhoLeft lists them, the longest ago first.
func (d *Desk) StudentsWhoLeft(ctx context.Context) ([]Left, error) {
	var list []Left
	err := d.own(ctx, &list, "list who has left", `
		SELECT p.id, p.section_id, p.first_name, p.initial, p.instrument, s.name AS section, p.left_at AS at, `+overdue+` AS overdue
		FROM students p JOIN sections s ON s.id = p.section_id
		WHERE p.teacher_id = $1 AND p.left_at IS NOT NULL AND p.removed_at IS NULL AND s.removed_at IS NULL
			AND NOT EXISTS (SELECT 1 FROM students f WHERE f.id = p.also_of AND f.left_at = p.left_at) ORDER BY p.left_at, p.id`)
	return list, err
}

// overdue says of a student p who has left whether the owner's months are over.
const overdue = `coalesce(p.left_at < now() - make_interval(months => (SELECT nullif(retain_months, 0) FROM house)), false)`

// EraseOverdue deletes for good those who left longer ago than the owner wants records
// kept, and gives how many.
func (d *Desk) EraseOverdue(ctx context.Context) (int, error) {
	n := 0
	err := d.inTransaction(ctx, "erase who left long ago", func(tx deskTx) error {
		var gone []StudentID
		if err := tx.SelectContext(ctx, &gone, `DELETE FROM students p WHERE p.teacher_id = $1 AND p.removed_at IS NULL AND `+overdue+` RETURNING p.id`, tx.teacher); err != nil {
			return err
		}
		for _, id := range gone {
			if err := tx.did(ctx, done{deed: StudentErased, student: id}); err != nil {
				return err
			}
		}
		n = len(gone)
		return nil
	})
	return n, err
}

// deedsKept is how long the log of who did what is kept.
const deedsKept = 2 * 365 * 24 * time.Hour

// Tidy erases for good what has been in the bin for its days, links that nobody used,
// and what was done long ago. It is for once a day.
func (s *Store) Tidy(ctx context.Context) error {
	return inTransaction(ctx, s.db, "tidy up", func(tx *sqlx.Tx) error {
		since := time.Now().Add(-KeptInBin)
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
			`DELETE FROM books b WHERE removed_at < $1 AND NOT EXISTS (SELECT 1 FROM attempts a JOIN exercises e ON e.id = a.exercise_id WHERE e.book_id = b.id)`,
			`DELETE FROM sections WHERE removed_at < $1`,
			`DELETE FROM students WHERE removed_at < $1`,
			`DELETE FROM exercises e WHERE removed_at < $1 AND NOT EXISTS (SELECT 1 FROM attempts a WHERE a.teacher_id = e.teacher_id AND a.exercise_id = e.id)`,
			`DELETE FROM sources s WHERE $1::timestamptz IS NOT NULL
				AND NOT EXISTS (SELECT 1 FROM exercises e WHERE e.teacher_id = s.teacher_id AND e.hash = s.hash)
				AND NOT EXISTS (SELECT 1 FROM overrides o WHERE o.teacher_id = s.teacher_id AND o.hash = s.hash)`,
		} {
			if _, err := tx.ExecContext(ctx, query, since); err != nil {
				return err
			}
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM deeds WHERE at < $1`, time.Now().Add(-deedsKept)); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `DELETE FROM invitations WHERE until < now()`)
		return err
	})
}
