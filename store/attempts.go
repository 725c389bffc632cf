package store

import (
	"context"
	"time"
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
	At           time.Time
}

// AddAttempt appends a try to the log.
func (s *Store) AddAttempt(ctx context.Context, teacher int64, a Attempt) (int64, error) {
	var id int64
	err := s.one(ctx, &id, "log the try", `
		INSERT INTO attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo)
		VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9) RETURNING id`,
		teacher, a.StudentID, a.ExerciseID, a.FirstMeasure, a.LastMeasure, a.Stage, a.Clean, a.Cause, a.Tempo)
	return id, err
}

// UndoAttempt appends a row that takes a try back. The error is ErrNotFound
// when there is no such try, ErrTaken when it has been taken back already.
func (s *Store) UndoAttempt(ctx context.Context, teacher, id int64) error {
	return s.change(ctx, "take the try back", `
		INSERT INTO attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, undoes)
		SELECT teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, id
		FROM attempts WHERE teacher_id = $1 AND id = $2 AND undoes IS NULL`, teacher, id)
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

// SectionAttempts lists every try that stands by the students of a section,
// oldest first, as the Board needs it: without tempo and time.
func (s *Store) SectionAttempts(ctx context.Context, teacher, section int64) ([]Attempt, error) {
	var list []Attempt
	err := s.all(ctx, &list, "list the section's tries", `
		SELECT a.id, a.student_id, a.exercise_id, a.first_measure, a.last_measure, a.stage, a.clean, a.cause
		FROM attempts a
		WHERE a.teacher_id = $1 AND a.undoes IS NULL
		AND a.student_id IN (SELECT id FROM students WHERE teacher_id = $1 AND section_id = $2)
		AND NOT EXISTS (SELECT 1 FROM attempts u WHERE u.undoes = a.id)
		ORDER BY a.id`, teacher, section)
	return list, err
}
