package store

import (
	"context"
	"database/sql"
	"time"

	"github.com/jmoiron/sqlx"
)

// Attempt is one row of the log: a try at a piece, or the taking back of one.
type Attempt struct {
	ID           int64
	StudentID    int64 `db:"student_id"`
	ExerciseID   int64 `db:"exercise_id"`
	FirstMeasure int   `db:"first_measure"`
	LastMeasure  int   `db:"last_measure"`
	Stage        int
	Clean        bool
	Cause        string
	Tempo        int
	Undone       bool
	At           time.Time // the zero time is now
}

// AddAttempt appends a try to the log.
func (s *Store) AddAttempt(ctx context.Context, teacher int64, a Attempt) error {
	return s.AddAttempts(ctx, teacher, []Attempt{a})
}

// AddAttempts appends tries to the log, in order, all or none, and brings the
// standings they change up to date. The error is ErrNotFound where a student
// or exercise is not the teacher's.
func (s *Store) AddAttempts(ctx context.Context, teacher int64, list []Attempt) error {
	return s.inTransaction(ctx, "log the try", func(tx *sqlx.Tx) error {
		if err := lockStudents(ctx, tx, teacher, list); err != nil {
			return err
		}
		for _, a := range list {
			if _, err := tx.ExecContext(ctx, `
				INSERT INTO attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, at)
				VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, coalesce($10, now()))`,
				teacher, a.StudentID, a.ExerciseID, a.FirstMeasure, a.LastMeasure, a.Stage, a.Clean, a.Cause, a.Tempo,
				sql.NullTime{Time: a.At, Valid: !a.At.IsZero()}); err != nil {
				return err
			}
		}
		return updateStandings(ctx, tx, teacher, list)
	})
}

// UndoAttempt appends a row that takes a try back. The error is ErrNotFound
// when there is no such try, ErrTaken when it has been taken back already.
func (s *Store) UndoAttempt(ctx context.Context, teacher, id int64) error {
	a, err := s.AttemptByID(ctx, teacher, id)
	if err != nil {
		return err
	}
	return s.inTransaction(ctx, "take the try back", func(tx *sqlx.Tx) error {
		if err := lockStudents(ctx, tx, teacher, []Attempt{a}); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `
			INSERT INTO attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, undoes)
			SELECT teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, id
			FROM attempts WHERE teacher_id = $1 AND id = $2`, teacher, id); err != nil {
			return err
		}
		return updateStandings(ctx, tx, teacher, []Attempt{a})
	})
}

const attemptColumns = `a.id, a.student_id, a.exercise_id, a.first_measure, a.last_measure, a.stage, a.clean, a.cause, a.tempo, a.at,
	u.id IS NOT NULL AS undone`

const attemptTables = `attempts a LEFT JOIN attempts u ON u.undoes = a.id AND u.teacher_id = a.teacher_id`

// AttemptByID finds a try.
func (s *Store) AttemptByID(ctx context.Context, teacher, id int64) (Attempt, error) {
	var a Attempt
	err := s.one(ctx, &a, "find the try", `
		SELECT `+attemptColumns+` FROM `+attemptTables+`
		WHERE a.teacher_id = $1 AND a.id = $2 AND a.undoes IS NULL`, teacher, id)
	return a, err
}

// StudentAttempts lists a student's tries, oldest first, those taken back
// included.
func (s *Store) StudentAttempts(ctx context.Context, teacher, student int64) ([]Attempt, error) {
	var list []Attempt
	err := s.all(ctx, &list, "list the tries", `
		SELECT `+attemptColumns+` FROM `+attemptTables+`
		WHERE a.teacher_id = $1 AND a.student_id = $2 AND a.undoes IS NULL ORDER BY a.id`, teacher, student)
	return list, err
}

// ExerciseAttempts lists the tries at an exercise by the students of a section,
// oldest first, without those taken back.
func (s *Store) ExerciseAttempts(ctx context.Context, teacher, exercise, section int64) ([]Attempt, error) {
	var list []Attempt
	err := s.all(ctx, &list, "list the tries", `
		SELECT `+attemptColumns+` FROM `+attemptTables+`
		JOIN students t ON t.id = a.student_id AND t.teacher_id = a.teacher_id
		WHERE a.teacher_id = $1 AND a.exercise_id = $2 AND t.section_id = $3 AND a.undoes IS NULL AND u.id IS NULL
		ORDER BY a.id`, teacher, exercise, section)
	return list, err
}
