package store

import (
	"context"
	"fmt"
)

// Guest is a colleague's part in a class they were given; the zero value is a teacher
// at their own desk.
type Guest struct {
	Class   ClassID
	Name    string // of the class
	Teacher string // the name of whose it is
	Teach   bool   // may mark, and take marks back
}

// Own says whether it is a teacher at their own desk.
func (g Guest) Own() bool { return g.Class == 0 }

// MayMark says whether they may mark, and take marks back.
func (g Guest) MayMark() bool { return g.Own() || g.Teach }

// Share is a class given to a colleague.
type Share struct {
	Class     ClassID   `db:"class_id"`
	Colleague TeacherID `db:"colleague_id"`
	Name      string    // of the colleague
	Teach     bool
}

// Shares lists what the teacher has given, by class and name.
func (d *Desk) Shares(ctx context.Context) ([]Share, error) {
	var list []Share
	err := d.own(ctx, &list, "list the classes given", `
		SELECT h.class_id, h.colleague_id, c.name, h.teach FROM shares h JOIN teachers c ON c.id = h.colleague_id
		WHERE h.teacher_id = $1 AND c.removed_at IS NULL ORDER BY h.class_id, lower(c.name)`)
	return list, err
}

// ShareClass gives a colleague a class, to teach or to look at, in place of what they
// had of it. The error is ErrNotFound where either is not there.
func (d *Desk) ShareClass(ctx context.Context, class ClassID, colleague TeacherID, teach bool) error {
	return d.inTransaction(ctx, "give the class", func(tx deskTx) error {
		if err := tx.change(ctx, `
			INSERT INTO shares (teacher_id, class_id, colleague_id, teach)
			SELECT $1, s.id, c.id, $4 FROM classes s, teachers c
			WHERE s.teacher_id = $1 AND s.id = $2 AND s.of_class IS NULL AND s.removed_at IS NULL AND c.id = $3 AND c.id <> $1 AND NOT c.demo
				AND c.removed_at IS NULL
			ON CONFLICT (class_id, colleague_id) DO UPDATE SET teach = excluded.teach`, class, colleague, teach); err != nil {
			return err
		}
		how := "to look at"
		if teach {
			how = "to teach"
		}
		return tx.logAction(ctx, logEntry{action: ClassShared, class: class, other: colleague, detail: how})
	})
}

// StopSharing ends what a colleague had of a class.
func (d *Desk) StopSharing(ctx context.Context, class ClassID, colleague TeacherID) error {
	return d.inTransaction(ctx, "take the class back", func(tx deskTx) error {
		if err := tx.change(ctx, `DELETE FROM shares WHERE teacher_id = $1 AND class_id = $2
			AND colleague_id = $3`, class, colleague); err != nil {
			return err
		}
		return tx.logAction(ctx, logEntry{action: SharingStopped, class: class, other: colleague})
	})
}

// given selects what classes a colleague, $1, has been given.
const given = `h.class_id AS class, s.name, t.name AS teacher, h.teach, h.teacher_id AS of
	FROM shares h JOIN classes s ON s.id = h.class_id JOIN teachers t ON t.id = h.teacher_id
	WHERE h.colleague_id = $1 AND s.removed_at IS NULL AND t.removed_at IS NULL`

type givenRow struct {
	Guest
	Of TeacherID
}

// Given lists the classes that colleagues have given to a teacher, by name.
func (s *Store) Given(ctx context.Context, teacher TeacherID) ([]Guest, error) {
	var rows []givenRow
	err := s.db.SelectContext(ctx, &rows, `SELECT `+given+` ORDER BY lower(s.name), s.id`, teacher)
	list := make([]Guest, len(rows))
	for i, r := range rows {
		list[i] = r.Guest
	}
	return list, wrap("list the classes you were given", err)
}

// Named is whom or what a request is about; 0 for what it does not name.
type Named struct {
	Class   ClassID
	Student StudentID
	Attempt AttemptID
}

// InGiven is the desk of a class that a teacher has been given, by what is named of it.
// It is its teacher's desk, with that class's students alone, and nothing can be
// changed at it but marks. The error is ErrNotFound where they were given no such class.
func (s *Store) InGiven(ctx context.Context, teacher TeacherID, n Named) (*Desk, error) {
	var row givenRow
	if err := s.one(ctx, &row, "find the class you were given", `
		SELECT `+given+` AND (h.class_id = $2
			OR h.class_id = (SELECT class_id FROM students WHERE id = $3)
			OR h.class_id = (SELECT p.class_id FROM attempts a JOIN students p ON p.id = a.student_id WHERE a.id = $4))
		LIMIT 1`, teacher, n.Class, n.Student, n.Attempt); err != nil {
		return nil, err
	}
	d := s.For(row.Of)
	d.guest, d.marker = row.Guest, teacher
	return d, nil
}

// Guest says what part a colleague has at this desk; the zero value is its teacher.
func (d *Desk) Guest() Guest { return d.guest }

// students selects those whom the desk sees: who are there, and, for a guest, are in the
// class that was given; for a student, they alone.
func (d *Desk) students() string {
	within := ""
	if !d.guest.Own() {
		within = fmt.Sprintf(" AND p.class_id = %d", d.guest.Class)
	}
	if d.only != 0 {
		within += fmt.Sprintf(" AND p.id = %d", d.only)
	}
	return `(SELECT p.id, p.teacher_id, p.class_id, p.first_name, p.initial, p.instrument, p.duet_part, p.note, p.seat_row, p.seat_place, coalesce(p.also_of, 0) AS also_of,
		EXISTS (SELECT 1 FROM students f WHERE f.id = p.also_of AND f.class_id = p.class_id AND f.left_at IS NULL
			AND f.removed_at IS NULL) AS aside
		FROM students p JOIN classes s ON s.id = p.class_id
		WHERE p.teacher_id = $1 AND p.removed_at IS NULL AND p.left_at IS NULL AND s.removed_at IS NULL` + within + `)`
}
