package store

import (
	"context"
	"fmt"
)

// Guest is a colleague's part in a section they were given; the zero value is a teacher
// at their own desk.
type Guest struct {
	Section SectionID
	Name    string // of the section
	Teacher string // the name of whose it is
	Teach   bool   // may mark, and take marks back
}

// Own says whether it is a teacher at their own desk.
func (g Guest) Own() bool { return g.Section == 0 }

// MayMark says whether they may mark, and take marks back.
func (g Guest) MayMark() bool { return g.Own() || g.Teach }

// Share is a section given to a colleague.
type Share struct {
	Section   SectionID `db:"section_id"`
	Colleague TeacherID `db:"colleague_id"`
	Name      string    // of the colleague
	Teach     bool
}

// Shares lists what the teacher has given, by section and name.
func (d *Desk) Shares(ctx context.Context) ([]Share, error) {
	var list []Share
	err := d.own(ctx, &list, "list the sections given", `
		SELECT h.section_id, h.colleague_id, c.name, h.teach FROM shares h JOIN teachers c ON c.id = h.colleague_id
		WHERE h.teacher_id = $1 AND c.removed_at IS NULL ORDER BY h.section_id, lower(c.name)`)
	return list, err
}

// GiveSection gives a colleague a section, to teach or to look at, in place of what they
// had of it. The error is ErrNotFound where either is not there.
func (d *Desk) GiveSection(ctx context.Context, section SectionID, colleague TeacherID, teach bool) error {
	return d.inTransaction(ctx, "give the section", func(tx deskTx) error {
		if err := tx.change(ctx, `
			INSERT INTO shares (teacher_id, section_id, colleague_id, teach)
			SELECT $1, s.id, c.id, $4 FROM sections s, teachers c
			WHERE s.teacher_id = $1 AND s.id = $2 AND s.removed_at IS NULL AND c.id = $3 AND c.id <> $1 AND NOT c.demo AND c.removed_at IS NULL
			ON CONFLICT (section_id, colleague_id) DO UPDATE SET teach = excluded.teach`, section, colleague, teach); err != nil {
			return err
		}
		how := "to look at"
		if teach {
			how = "to teach"
		}
		return tx.did(ctx, done{deed: SectionGiven, section: section, other: colleague, detail: how})
	})
}

// TakeSectionBack ends what a colleague had of a section.
func (d *Desk) TakeSectionBack(ctx context.Context, section SectionID, colleague TeacherID) error {
	return d.inTransaction(ctx, "take the section back", func(tx deskTx) error {
		if err := tx.change(ctx, `DELETE FROM shares WHERE teacher_id = $1 AND section_id = $2 AND colleague_id = $3`, section, colleague); err != nil {
			return err
		}
		return tx.did(ctx, done{deed: SectionTaken, section: section, other: colleague})
	})
}

// given selects what sections a colleague, $1, has been given.
const given = `h.section_id AS section, s.name, t.name AS teacher, h.teach, h.teacher_id AS of
	FROM shares h JOIN sections s ON s.id = h.section_id JOIN teachers t ON t.id = h.teacher_id
	WHERE h.colleague_id = $1 AND s.removed_at IS NULL AND t.removed_at IS NULL`

type givenRow struct {
	Guest
	Of TeacherID
}

// Given lists the sections that colleagues have given to a teacher, by name.
func (s *Store) Given(ctx context.Context, teacher TeacherID) ([]Guest, error) {
	var rows []givenRow
	err := s.db.SelectContext(ctx, &rows, `SELECT `+given+` ORDER BY lower(s.name), s.id`, teacher)
	list := make([]Guest, len(rows))
	for i, r := range rows {
		list[i] = r.Guest
	}
	return list, wrap("list the sections you were given", err)
}

// Named is whom or what a request is about; 0 for what it does not name.
type Named struct {
	Section SectionID
	Student StudentID
	Attempt AttemptID
}

// InGiven is the desk of a section that a teacher has been given, by what is named of it.
// It is its teacher's desk, with that section's students alone, and nothing can be
// changed at it but marks. The error is ErrNotFound where they were given no such section.
func (s *Store) InGiven(ctx context.Context, teacher TeacherID, n Named) (*Desk, error) {
	var row givenRow
	if err := s.one(ctx, &row, "find the section you were given", `
		SELECT `+given+` AND (h.section_id = $2
			OR h.section_id = (SELECT section_id FROM students WHERE id = $3)
			OR h.section_id = (SELECT p.section_id FROM attempts a JOIN students p ON p.id = a.student_id WHERE a.id = $4))
		LIMIT 1`, teacher, n.Section, n.Student, n.Attempt); err != nil {
		return nil, err
	}
	d := s.For(row.Of)
	d.guest, d.marker = row.Guest, teacher
	return d, nil
}

// Guest says what part a colleague has at this desk; the zero value is its teacher.
func (d *Desk) Guest() Guest { return d.guest }

// students selects those whom the desk sees: who are there, and, for a guest, are in the
// section that was given; for a student, they alone.
func (d *Desk) students() string {
	within := ""
	if !d.guest.Own() {
		within = fmt.Sprintf(" AND p.section_id = %d", d.guest.Section)
	}
	if d.only != 0 {
		within += fmt.Sprintf(" AND p.id = %d", d.only)
	}
	return `(SELECT p.id, p.teacher_id, p.section_id, p.first_name, p.initial, p.instrument, p.line, p.note, p.seat_row, p.seat_place, coalesce(p.also_of, 0) AS also_of,
		EXISTS (SELECT 1 FROM students f WHERE f.id = p.also_of AND f.section_id = p.section_id AND f.left_at IS NULL AND f.removed_at IS NULL) AS aside
		FROM students p JOIN sections s ON s.id = p.section_id
		WHERE p.teacher_id = $1 AND p.removed_at IS NULL AND p.left_at IS NULL AND s.removed_at IS NULL` + within + `)`
}
