package store

import (
	"context"
	"database/sql"
	"fmt"
	"strconv"
	"strings"
	"time"

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
	p.rung, p.slowed, p.slower, p.faster, p.fewer, p.advice, p.stumbles, p.over, p.since, p.tempo, p.at FROM standings p `

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
			&s.Rung, &s.Slowed, &s.Slower, &s.Faster, &s.Fewer, &s.Advice, &s.Stumbles, &over, &since, &times.Tempo, &last); err != nil {
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

// StageCount is how many pieces of an exercise stand at a stage with those who play an
// instrument.
type StageCount struct {
	Exercise   ExerciseID `db:"exercise_id"`
	Instrument string
	Stage      routine.Stage
	Pieces     int
}

// StageCounts says how many of the section's students' pieces stand at each stage of every
// exercise; those that are untried are not counted.
func (d *Desk) StageCounts(ctx context.Context, section SectionID) ([]StageCount, error) {
	var list []StageCount
	err := d.all(ctx, &list, "count the stages", `
		SELECT p.exercise_id, t.instrument, p.stage, count(*) AS pieces FROM standings p JOIN `+d.students()+` t ON t.id = p.student_id
		WHERE t.teacher_id = $1 AND t.section_id = $2 GROUP BY p.exercise_id, t.instrument, p.stage`, section)
	return list, err
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
