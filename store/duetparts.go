package store

import (
	"context"
)

// DuetPart is an exercise of two lines: A, and B, which is another exercise, or A itself as
// a round. The zero value is an exercise of one line.
type DuetPart struct {
	A, B  ExerciseID // B is 0 of a round
	Entry int        // of a round: after how many full measures the next voice enters, else 0
}

// Letter is which line an exercise is, "" for neither.
func (l DuetPart) Letter(id ExerciseID) string {
	switch {
	case id == 0 || l.B == 0:
		return ""
	case id == l.A:
		return "A"
	case id == l.B:
		return "B"
	}
	return ""
}

// MostEntry is the most full measures after which a voice enters.
const MostEntry = 64

// SaveDuetPart makes two exercises the lines of one, or one a round, in place of what they
// were before. The error is ErrNotFound for exercises that are not the teacher's.
func (d *Desk) SaveDuetPart(ctx context.Context, l DuetPart) error {
	return d.inTransaction(ctx, "keep the lines", func(tx deskTx) error {
		if err := tx.clear(ctx, `DELETE FROM duet_parts WHERE teacher_id = $1
			AND (exercise_id IN ($2, $3) OR other_id IN ($2, $3))`, l.A, l.B); err != nil {
			return err
		}
		if l.B == 0 {
			return tx.change(ctx, `
				INSERT INTO duet_parts (teacher_id, exercise_id, entry)
				SELECT $1, id, $3 FROM exercises WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL`, l.A, l.Entry)
		}
		return tx.change(ctx, `
			INSERT INTO duet_parts (teacher_id, exercise_id, other_id)
			SELECT $1, a.id, b.id FROM exercises a JOIN exercises b ON b.teacher_id = $1 AND b.id = $3 AND b.removed_at IS NULL
			WHERE a.teacher_id = $1 AND a.id = $2 AND a.removed_at IS NULL`, l.A, l.B)
	})
}

// DeleteDuetPart makes an exercise one of one line again; its other line stays an exercise.
func (d *Desk) DeleteDuetPart(ctx context.Context, id ExerciseID) error {
	return d.clear(ctx, "part the lines", `DELETE FROM duet_parts
		WHERE teacher_id = $1 AND (exercise_id = $2 OR other_id = $2)`, id)
}

// SaveClassDuetPart gives a class a line, "A" or "B"; "" is none.
func (d *Desk) SaveClassDuetPart(ctx context.Context, class ClassID, line string) error {
	return d.change(ctx, "give the class a line", `UPDATE classes SET duet_part = $3
		WHERE teacher_id = $1 AND id = (`+classOf+`)`, class, line)
}

// SaveStudentDuetPart gives a student a line, "A" or "B"; "" is the class's.
func (d *Desk) SaveStudentDuetPart(ctx context.Context, student StudentID, line string) error {
	return d.change(ctx, "give the student a line", `UPDATE students SET duet_part = $3
		WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL`, student, line)
}
