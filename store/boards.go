package store

import (
	"context"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
)

// Newest is the newest row of the teacher's log, so that who looks knows whether there is
// something new; 0 for none.
func (d *Desk) Newest(ctx context.Context) (AttemptID, error) {
	var id AttemptID
	err := d.one(ctx, &id, "look for the newest try", `SELECT coalesce(max(id), 0) FROM attempts WHERE teacher_id = $1`)
	return id, err
}

// Week is what was tried in a week.
type Week struct {
	Student StudentID
	Monday  time.Time
	Tries   int
	Clean   int
}

// Weeks says how much each student of a class tried, week by week, since a day, and how
// much of it was clean. Moves and what was taken back do not count.
func (d *Desk) Weeks(ctx context.Context, class ClassID, since time.Time) ([]Week, error) {
	var list []Week
	err := d.all(ctx, &list, "add up the weeks", `
		SELECT a.student_id AS student, date_trunc('week', a.at AT TIME ZONE coalesce(nullif($4, ''), current_setting('TimeZone'))) AS monday, count(*) AS tries, count(*) FILTER (WHERE a.clean) AS clean
		FROM attempts a JOIN `+d.students()+` t ON t.id = a.student_id
		WHERE a.teacher_id = $1 AND `+memberOf("t", "$2")+` AND a.at >= $3 AND a.undoes IS NULL AND NOT a.moved
		AND NOT EXISTS (SELECT 1 FROM attempts u WHERE u.undoes = a.id AND u.teacher_id = a.teacher_id
			AND u.student_id = a.student_id)
		GROUP BY a.student_id, monday ORDER BY a.student_id, monday`, class, since, d.zoneName(ctx))
	return list, err
}

// StandingsBy lists where the students of a class stood at a moment, by the routines they
// follow now: the fold of their log until then, without what was taken back since.
func (d *Desk) StandingsBy(ctx context.Context, class ClassID, by time.Time) (Standings, error) {
	const doing = "add up where the class stood"
	rules, err := d.Rules(ctx)
	if err != nil {
		return nil, err
	}
	where := `a.student_id IN (SELECT id FROM students p WHERE ` + memberOf("p", "$2") + `) AND a.at < $3`
	outlines, err := outlinesWhere(ctx, d.db, where, d.teacher, class, by)
	if err != nil {
		return nil, wrap(doing, err)
	}
	rows, err := d.db.QueryContext(ctx, `
		SELECT a.student_id, a.exercise_id, a.first_measure, a.last_measure, a.stage, a.clean, a.cause, a.moved, a.measure, `+inClass+`
		FROM attempts a JOIN `+d.students()+` t ON t.id = a.student_id
		WHERE a.teacher_id = $1 AND `+memberOf("t", "$2")+` AND a.at < $3 AND a.undoes IS NULL
		AND NOT EXISTS (SELECT 1 FROM attempts u WHERE u.undoes = a.id AND u.teacher_id = a.teacher_id
			AND u.student_id = a.student_id)
		ORDER BY a.id`, d.args([]any{class, by})...)
	if err != nil {
		return nil, wrap(doing, err)
	}
	defer rows.Close()
	logs := map[Task][]progress.Logged{}
	for rows.Next() {
		var task Task
		var l progress.Logged
		if err := rows.Scan(&task.Student, &task.Exercise, &l.Unit.First, &l.Unit.Last, &l.Stage, &l.Clean, &l.Cause,
			&l.Moved, &l.Measure, &l.Class); err != nil {
			return nil, wrap(doing, err)
		}
		logs[task] = append(logs[task], l)
	}
	list := Standings{}
	for task, log := range logs {
		at := &progress.Standing{Chunks: map[breakdown.ChunkKey]routine.State{},
			Times: map[breakdown.ChunkKey]progress.Times{}, Latest: log[len(log)-1].Unit}
		for _, f := range progress.Fold(rules.For(task.Student, task.Exercise), outlines.of(task), log) {
			at.Chunks[f.Unit] = f.State
			at.Tries += f.Own
		}
		list[task] = at
	}
	return list, wrap(doing, rows.Err())
}
