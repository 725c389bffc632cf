package store

import (
	"context"
	"database/sql"
)

// AddSecondInstrument gives a student a second instrument, in a class, with a log of its own. The
// error is ErrTaken where the student has one already, plays that instrument, or is a second
// instrument.
func (d *Desk) AddSecondInstrument(ctx context.Context, first StudentID, class ClassID,
	instrument string) (StudentID, error) {
	var id StudentID
	err := d.inTransaction(ctx, "add the second instrument", func(tx deskTx) error {
		var student Student
		if err := tx.one(ctx, &student, `SELECT `+studentColumns+` FROM `+tx.students()+` p WHERE p.id = $2`,
			first); err != nil {
			return err
		}
		if student.AlsoOf != 0 || student.Instrument == instrument {
			return ErrTaken
		}
		return tx.addSecond(ctx, &id, student, class, instrument)
	})
	return id, err
}

// addSecond adds the row of a second instrument; that a student has one only is the table's
// to hold.
func (tx deskTx) addSecond(ctx context.Context, id *StudentID, first Student, class ClassID, instrument string) error {
	err := tx.one(ctx, id, `
		INSERT INTO students (teacher_id, class_id, first_name, initial, instrument, also_of)
		SELECT s.teacher_id, s.id, $3, $4, $5, $6 FROM classes s WHERE s.teacher_id = $1 AND s.of_class IS NULL AND s.id = $2
		AND s.removed_at IS NULL RETURNING id`,
		class, first.FirstName, first.Initial, instrument, first.ID)
	if err != nil {
		return err
	}
	return tx.logAction(ctx, logEntry{action: StudentsAdded, class: class, student: *id, detail: "1"})
}

// OtherInstrument is the row of a student's other instrument. The error is ErrNotFound where
// there is none that the desk sees.
func (d *Desk) OtherInstrument(ctx context.Context, student Student) (Student, error) {
	var other Student
	err := d.one(ctx, &other, "find the other instrument", `
		SELECT `+studentColumns+` FROM `+d.students()+` p WHERE p.also_of = $2 OR p.id = $3`, student.ID, student.AlsoOf)
	return other, err
}

// firstCalled finds the student of a name, their first instrument's row, for a table that
// gives them a second one. The error is ErrNotFound where there is none, or more than one.
func (tx deskTx) firstCalled(ctx context.Context, student Student) (Student, error) {
	var firsts []Student
	err := tx.SelectContext(ctx, &firsts, `
		SELECT `+studentColumns+` FROM `+tx.students()+` p WHERE p.also_of = 0 AND lower(first_name) = lower($2) AND lower(initial) = lower($3)`,
		tx.args([]any{student.FirstName, student.Initial})...)
	if err != nil {
		return Student{}, err
	}
	if len(firsts) != 1 {
		return Student{}, sql.ErrNoRows
	}
	return firsts[0], nil
}
