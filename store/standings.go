package store

import (
	"context"
	"fmt"
	"time"

	"github.com/jackc/pgx/v5"

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

// standings reads rows in the order of their last tries. There are thousands on a Board, so
// it reads them as they come from the driver.
func (d *Desk) standings(ctx context.Context, where string, args ...any) (Standings, error) {
	const doing = "list the standings"
	list := Standings{}
	err := onConnection(ctx, d.db, func(conn *pgx.Conn) error {
		rows, err := conn.Query(ctx, standingColumns+where, d.args(args)...)
		if err != nil {
			return err
		}
		return list.read(rows)
	})
	return list, wrap(doing, err)
}

// read adds rows of standingColumns, and closes them.
func (list Standings) read(rows pgx.Rows) error {
	defer rows.Close()
	var task Task
	var piece breakdown.PieceKey
	var s routine.State
	var stage, cause, over string
	var since *time.Time
	var last time.Time
	var times progress.Times
	student, exercise := (*int64)(&task.Student), (*int64)(&task.Exercise)
	for rows.Next() {
		since, s = nil, routine.State{}
		if err := rows.Scan(student, exercise, &piece.First, &piece.Last, &stage, &s.Clean, &s.Stumble, &cause, &s.Tries,
			&s.Rung, &s.Slowed, &s.Slower, &s.Faster, &s.Fewer, &s.Advice, &s.Stumbles, &over, &since, &times.Tempo, &last); err != nil {
			return err
		}
		s.Stage, s.Cause = routine.Stage(stage), routine.Cause(cause)
		s.Over = overFrom(over)
		times.Last, times.Trouble = last.Unix(), 0
		if since != nil {
			times.Trouble = since.Unix()
		}
		at := list[task]
		if at == nil {
			at = &progress.Standing{Pieces: map[breakdown.PieceKey]routine.State{}, Times: map[breakdown.PieceKey]progress.Times{}}
			list[task] = at
		}
		at.Pieces[piece], at.Times[piece], at.Latest = s, times, piece
		at.Tries += s.Tries
	}
	return rows.Err()
}

// overFrom reads counts of causes, "2 0 1 0".
func overFrom(text string) (over routine.Causes) {
	at := 0
	for _, c := range []byte(text) {
		switch {
		case c == ' ':
			at++
		case at < len(over) && c >= '0' && c <= '9':
			over[at] = 10*over[at] + int(c-'0')
		}
	}
	return over
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
