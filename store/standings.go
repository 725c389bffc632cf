package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strconv"
	"strings"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/jmoiron/sqlx/reflectx"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
)

// Task is one student's work on one exercise.
type Task struct {
	Student  StudentID
	Exercise ExerciseID
}

// Standings are where students stand on exercises; a task without one is untried.
type Standings map[Task]*progress.Standing

const standingColumns = `SELECT p.student_id, p.exercise_id, p.first_measure, p.last_measure, p.stage, p.clean, p.stumble, p.cause, p.tries,
	p.slower, p.advice, p.stumbles, p.over, p.since, p.tempo, p.at FROM standings p `

// SectionStandings lists where the students of a section stand.
func (d *Desk) SectionStandings(ctx context.Context, section SectionID) (Standings, error) {
	return d.standings(ctx, `JOIN `+d.students()+` t ON t.id = p.student_id
		WHERE t.teacher_id = $1 AND t.section_id = $2 ORDER BY p.last_attempt`, section)
}

// ExerciseStandings lists where the students of a section stand on one exercise.
func (d *Desk) ExerciseStandings(ctx context.Context, exercise ExerciseID, section SectionID) (Standings, error) {
	return d.standings(ctx, `JOIN `+d.students()+` t ON t.id = p.student_id
		WHERE t.teacher_id = $1 AND p.exercise_id = $2 AND t.section_id = $3 ORDER BY p.last_attempt`, exercise, section)
}

// StudentStandings lists where a student stands.
func (d *Desk) StudentStandings(ctx context.Context, student StudentID) (Standings, error) {
	return d.standings(ctx, `JOIN `+d.students()+` t ON t.id = p.student_id WHERE t.id = $2 ORDER BY p.last_attempt`, student)
}

// standings reads rows in the order of their last tries. There are thousands, so it
// does without reflection.
func (d *Desk) standings(ctx context.Context, where string, args ...any) (Standings, error) {
	const doing = "list the standings"
	rows, err := d.db.QueryContext(ctx, standingColumns+where, d.args(args)...)
	if err != nil {
		return nil, wrap(doing, err)
	}
	defer rows.Close()
	list := Standings{}
	for rows.Next() {
		var task Task
		var piece breakdown.PieceKey
		var s routine.State
		var over string
		var since sql.NullTime
		var last time.Time
		var times progress.Times
		if err := rows.Scan(&task.Student, &task.Exercise, &piece.First, &piece.Last, &s.Stage, &s.Clean, &s.Stumble, &s.Cause, &s.Tries,
			&s.Slower, &s.Advice, &s.Stumbles, &over, &since, &times.Tempo, &last); err != nil {
			return nil, wrap(doing, err)
		}
		for k, n := range strings.Fields(over) {
			if k < len(s.Over) {
				s.Over[k], _ = strconv.Atoi(n) // what fmt.Sprint wrote
			}
		}
		if times.Last = last.Unix(); since.Valid {
			times.Trouble = since.Time.Unix()
		}
		at := list[task]
		if at == nil {
			at = &progress.Standing{Pieces: map[breakdown.PieceKey]routine.State{}, Times: map[breakdown.PieceKey]progress.Times{}}
			list[task] = at
		}
		at.Pieces[piece], at.Times[piece], at.Latest = s, times, piece
		at.Tries += s.Tries
	}
	return list, wrap(doing, rows.Err())
}

// StageCounts says how many of the section's students' pieces stand at each stage of every
// exercise; those that are untried are not counted.
func (d *Desk) StageCounts(ctx context.Context, section SectionID) (map[ExerciseID]map[routine.Stage]int, error) {
	var rows []struct {
		ExerciseID ExerciseID `db:"exercise_id"`
		Stage      routine.Stage
		N          int
	}
	err := d.all(ctx, &rows, "count the stages", `
		SELECT p.exercise_id, p.stage, count(*) AS n FROM standings p JOIN `+d.students()+` t ON t.id = p.student_id
		WHERE t.teacher_id = $1 AND t.section_id = $2 GROUP BY p.exercise_id, p.stage`, section)
	counts := map[ExerciseID]map[routine.Stage]int{}
	for _, r := range rows {
		if counts[r.ExerciseID] == nil {
			counts[r.ExerciseID] = map[routine.Stage]int{}
		}
		counts[r.ExerciseID][r.Stage] = r.N
	}
	return counts, err
}

// CleanAt lists the exercises but one at which a student was clean to the end, with the
// tempo of the last try; with no student, those of a section, with the tempo that half of
// them reach. The demands are the instrument's.
func (d *Desk) CleanAt(ctx context.Context, section SectionID, student StudentID, instrument string, but ExerciseID) ([]breakdown.Clean, error) {
	who, id := "t.section_id = $2", int64(section)
	if student != 0 {
		who, id = "t.id = $2", int64(student)
	}
	var rows []struct {
		Number, Tempo int
		Title, Parts  string
	}
	err := d.all(ctx, &rows, "list what was clean", `
		SELECT e.number, e.title, d.parts, s.tempo FROM (
			SELECT p.exercise_id, percentile_disc(0.5) WITHIN GROUP (ORDER BY p.tempo) AS tempo FROM standings p JOIN `+d.students()+` t ON t.id = p.student_id
			WHERE t.teacher_id = $1 AND `+who+` AND p.stage = 'done' AND p.tempo > 0 GROUP BY p.exercise_id) s
		JOIN exercises e ON e.id = s.exercise_id JOIN demands d ON d.exercise_id = e.id AND d.instrument = $3
		WHERE e.teacher_id = $1 AND e.removed_at IS NULL AND e.id <> $4 ORDER BY e.id`, id, instrument, but)
	list := make([]breakdown.Clean, len(rows))
	for k, r := range rows {
		list[k] = breakdown.Clean{Name: fmt.Sprintf("%d · %s", r.Number, r.Title), Parts: partsFrom(r.Parts), Tempo: r.Tempo}
	}
	return list, err
}

// worked is one student's work on one piece.
type worked struct {
	Task
	piece breakdown.PieceKey
}

// addUp goes through the log again for each piece that the tries are at.
func (tx deskTx) addUp(ctx context.Context, changed []Attempt) error {
	done := map[worked]bool{}
	for _, a := range changed {
		w := worked{Task{a.StudentID, a.ExerciseID}, a.Piece}
		if done[w] {
			continue
		}
		done[w] = true
		if err := addUpPiece(ctx, tx.Tx, tx.teacher, tx.routine, w); err != nil {
			return err
		}
	}
	return nil
}

// addUpPiece writes where a student stands on a piece: the fold of its log, without
// tries that were taken back.
func addUpPiece(ctx context.Context, tx sqlx.ExtContext, teacher TeacherID, r routine.Routine, w worked) error {
	var rows []attemptRow
	if err := sqlx.SelectContext(ctx, tx, &rows, `
		SELECT a.id, a.student_id, a.exercise_id, a.first_measure, a.last_measure, a.stage, a.clean, a.cause, a.tempo, a.at
		FROM attempts a LEFT JOIN attempts u ON u.undoes = a.id AND u.teacher_id = a.teacher_id AND u.student_id = a.student_id
		WHERE a.teacher_id = $1 AND a.student_id = $2 AND a.exercise_id = $3 AND a.first_measure = $4 AND a.last_measure = $5
		AND a.undoes IS NULL AND u.id IS NULL ORDER BY a.id`, teacher, w.Student, w.Exercise, w.piece.First, w.piece.Last); err != nil {
		return err
	}
	if len(rows) == 0 {
		_, err := tx.ExecContext(ctx, `DELETE FROM standings
			WHERE teacher_id = $1 AND student_id = $2 AND exercise_id = $3 AND first_measure = $4 AND last_measure = $5`,
			teacher, w.Student, w.Exercise, w.piece.First, w.piece.Last)
		return err
	}
	log := make([]routine.Try, len(rows))
	for i, a := range rows {
		log[i] = a.attempt().Try
	}
	s, last := r.Fold(log), rows[len(rows)-1]
	since := sql.NullTime{Valid: s.Stumbles > 0}
	if since.Valid {
		since.Time = rows[s.Since-1].At
	}
	_, err := tx.ExecContext(ctx, `
		INSERT INTO standings (teacher_id, student_id, exercise_id, first_measure, last_measure,
			stage, clean, stumble, cause, tries, slower, advice, stumbles, over, since, last_attempt, tempo, at)
		VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18)
		ON CONFLICT (student_id, exercise_id, first_measure, last_measure)
		DO UPDATE SET stage = $6, clean = $7, stumble = $8, cause = $9, tries = $10, slower = $11, advice = $12,
			stumbles = $13, over = $14, since = $15, last_attempt = $16, tempo = $17, at = $18`,
		teacher, w.Student, w.Exercise, w.piece.First, w.piece.Last,
		s.Stage, s.Clean, s.Stumble, s.Cause, s.Tries, s.Slower, s.Advice,
		s.Stumbles, strings.Trim(fmt.Sprint(s.Over), "[]"), since, last.ID, last.Tempo, last.At)
	return err
}

// AddUpStandings goes through the whole log of every teacher again, as after a change
// to the rules of the routine.
func (s *Store) AddUpStandings(ctx context.Context) error {
	const doing = "add up the standings again"
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return wrap(doing, err)
	}
	if err := addUpAll(ctx, tx, s.routine); err != nil {
		return errors.Join(wrap(doing, err), tx.Rollback())
	}
	return wrap(doing, tx.Commit())
}

// addUpVersion is the migration that adds up logs kept before standings held all that
// they add up to. It uses the tables as they are now, so it comes after every other
// that changes them.
const addUpVersion = 12

func addUpAgain(ctx context.Context, tx *sql.Tx) error { return addUpAll(ctx, tx, routine.Standard()) }

func forgetStandings(ctx context.Context, tx *sql.Tx) error {
	_, err := tx.ExecContext(ctx, `TRUNCATE standings`)
	return err
}

// addUpAll replaces all standings, piece by piece.
func addUpAll(ctx context.Context, plain *sql.Tx, r routine.Routine) error {
	tx := &sqlx.Tx{Tx: plain, Mapper: reflectx.NewMapperFunc("db", strings.ToLower)}
	if _, err := tx.ExecContext(ctx, `LOCK TABLE attempts IN SHARE MODE`); err != nil {
		return err
	}
	if err := forgetStandings(ctx, plain); err != nil {
		return err
	}
	var all []struct {
		Teacher  TeacherID  `db:"teacher_id"`
		Student  StudentID  `db:"student_id"`
		Exercise ExerciseID `db:"exercise_id"`
		First    int        `db:"first_measure"`
		Last     int        `db:"last_measure"`
	}
	if err := tx.SelectContext(ctx, &all, `
		SELECT DISTINCT teacher_id, student_id, exercise_id, first_measure, last_measure FROM attempts`); err != nil {
		return fmt.Errorf("list the pieces tried: %w", err)
	}
	for _, p := range all {
		w := worked{Task{p.Student, p.Exercise}, breakdown.PieceKey{First: p.First, Last: p.Last}}
		if err := addUpPiece(ctx, tx, p.Teacher, r, w); err != nil {
			return err
		}
	}
	return nil
}
