package store

import (
	"context"
	"database/sql"
	"slices"

	"github.com/jmoiron/sqlx"

	"unhurriedbench/core/routine"
)

// Standing is where a student stands on a piece.
type Standing struct {
	StudentID, ExerciseID     int64
	FirstMeasure, LastMeasure int
	Stage, Clean, Tries       int
	LastAttempt               int64
}

// Standings lists where the students of a section stand on every piece they
// have tried. There are thousands, so the rows are read without reflection.
func (s *Store) Standings(ctx context.Context, teacher, section int64) ([]Standing, error) {
	rows, err := s.db.QueryContext(ctx, `
		SELECT p.student_id, p.exercise_id, p.first_measure, p.last_measure, p.stage, p.clean, p.tries, p.last_attempt
		FROM standings p JOIN students t ON t.id = p.student_id AND t.teacher_id = p.teacher_id
		WHERE t.teacher_id = $1 AND t.section_id = $2`, teacher, section)
	if err != nil {
		return nil, wrap("list the standings", err)
	}
	defer rows.Close()
	var list []Standing
	for rows.Next() {
		var p Standing
		if err := rows.Scan(&p.StudentID, &p.ExerciseID, &p.FirstMeasure, &p.LastMeasure, &p.Stage, &p.Clean, &p.Tries, &p.LastAttempt); err != nil {
			return nil, wrap("list the standings", err)
		}
		list = append(list, p)
	}
	return list, wrap("list the standings", rows.Err())
}

// lockStudents makes changes to a student's log wait for each other.
func lockStudents(ctx context.Context, tx *sqlx.Tx, teacher int64, list []Attempt) error {
	var ids []int64
	for _, a := range list {
		ids = append(ids, a.StudentID)
	}
	slices.Sort(ids)
	for _, id := range slices.Compact(ids) {
		var locked int64
		if err := tx.GetContext(ctx, &locked, `SELECT id FROM students WHERE teacher_id = $1 AND id = $2 FOR UPDATE`, teacher, id); err != nil {
			return err
		}
	}
	return nil
}

// task is one student's work on one piece.
type task struct {
	student, exercise int64
	first, last       int
}

// updateStandings adds up the log again for each piece that the tries are at.
func updateStandings(ctx context.Context, tx *sqlx.Tx, teacher int64, changed []Attempt) error {
	done := map[task]bool{}
	for _, a := range changed {
		t := task{a.StudentID, a.ExerciseID, a.FirstMeasure, a.LastMeasure}
		if done[t] {
			continue
		}
		done[t] = true
		if err := updateStanding(ctx, tx, teacher, t); err != nil {
			return err
		}
	}
	return nil
}

func updateStanding(ctx context.Context, tx *sqlx.Tx, teacher int64, t task) error {
	var log []Attempt
	if err := tx.SelectContext(ctx, &log, `
		SELECT `+attemptColumns+` FROM `+attemptTables+`
		WHERE a.teacher_id = $1 AND a.student_id = $2 AND a.exercise_id = $3 AND a.first_measure = $4 AND a.last_measure = $5
		AND a.undoes IS NULL AND u.id IS NULL ORDER BY a.id`, teacher, t.student, t.exercise, t.first, t.last); err != nil {
		return err
	}
	if len(log) == 0 {
		_, err := tx.ExecContext(ctx, `DELETE FROM standings
			WHERE teacher_id = $1 AND student_id = $2 AND exercise_id = $3 AND first_measure = $4 AND last_measure = $5`,
			teacher, t.student, t.exercise, t.first, t.last)
		return err
	}
	state := routine.State{}
	for _, a := range log {
		state = state.After(a.Try())
	}
	result, err := tx.ExecContext(ctx, `
		INSERT INTO standings (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, tries, last_attempt)
		VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9)
		ON CONFLICT (student_id, exercise_id, first_measure, last_measure)
		DO UPDATE SET stage = $6, clean = $7, tries = $8, last_attempt = $9 WHERE standings.teacher_id = $1`,
		teacher, t.student, t.exercise, t.first, t.last, int(state.Stage), state.Clean, state.Tries, log[len(log)-1].ID)
	if err != nil {
		return err
	}
	if n, err := result.RowsAffected(); err == nil && n == 0 {
		return sql.ErrNoRows
	}
	return nil
}

// Try is the attempt as the go-on rule sees it.
func (a Attempt) Try() routine.Try {
	return routine.Try{Stage: routine.Stage(a.Stage), Clean: a.Clean, Cause: routine.Cause(a.Cause)}
}
