package store

import "context"

// RosterChange is what a line of a table of students does: it adds a student, whose ID is 0,
// or makes one what it says.
type RosterChange struct {
	Student         // as they are to be
	NewClass string // to be made for them, where ClassID is 0
	Back     bool   // they had left, and come back
	Second   bool   // a second instrument of the student of that name
}

// BringRoster does what a table of students says, all of it or nothing. The error is
// ErrNotFound where a student or a class is not the teacher's, ErrTaken where a class of
// the name of a new one is there.
func (d *Desk) BringRoster(ctx context.Context, changes []RosterChange) error {
	return d.inTransaction(ctx, "bring in the students", func(tx deskTx) error {
		made := map[string]ClassID{}
		for _, c := range changes {
			if c.ClassID == 0 {
				id, known := made[c.NewClass]
				if !known {
					if err := tx.one(ctx, &id, `INSERT INTO classes (teacher_id, name) VALUES ($1, $2)
						RETURNING id`, c.NewClass); err != nil {
						return err
					}
					if err := tx.logAction(ctx, logEntry{action: ClassMade, class: id, detail: c.NewClass}); err != nil {
						return err
					}
					made[c.NewClass] = id
				}
				c.ClassID = id
			}
			if err := tx.importStudent(ctx, c); err != nil {
				return err
			}
		}
		return nil
	})
}

// importStudent adds or changes one student.
func (tx deskTx) importStudent(ctx context.Context, c RosterChange) error {
	switch {
	case c.Second:
		first, err := tx.firstCalled(ctx, c.Student)
		if err != nil {
			return err
		}
		if err := tx.addSecond(ctx, &c.ID, first, c.ClassID, c.Instrument); err != nil {
			return err
		}
	case c.ID == 0:
		if err := tx.one(ctx, &c.ID, insertStudent, c.ClassID, c.FirstName, c.Initial, c.Instrument); err != nil {
			return err
		}
		if err := tx.logAction(ctx, logEntry{action: StudentsAdded, class: c.ClassID, student: c.ID,
			detail: "1"}); err != nil {
			return err
		}
	default:
		if c.Back {
			if err := tx.isBack(ctx, c.ID); err != nil {
				return err
			}
		}
		if err := tx.changeStudent(ctx, c.Student); err != nil {
			return err
		}
	}
	return tx.change(ctx, `UPDATE students SET duet_part = $3, note = $4 WHERE teacher_id = $1 AND id = $2`, c.ID,
		c.DuetPart, c.Note)
}
