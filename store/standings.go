package store

import (
	"cmp"
	"context"
	"slices"
	"strconv"
	"strings"
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

// Of are the standings of some tasks.
func (list Standings) Of(desired func(Task) bool) Standings {
	some := Standings{}
	for task, at := range list {
		if desired(task) {
			some[task] = at
		}
	}
	return some
}

const standingColumns = `SELECT p.student_id, p.exercise_id, p.first_measure, p.last_measure, p.stage, p.clean, p.stumble, p.cause, p.tries,
	p.tempo_step, p.slowed, p.slower, p.faster, p.fewer, p.advice, p.stumbles, p.over, p.since, p.tempo, p.at,
	p.own_tries, p.own_last, p.earned, p.tried
		FROM standings p `

// ClassStandings lists where the students of a class stand.
func (d *Desk) ClassStandings(ctx context.Context, class ClassID) (Standings, error) {
	return d.standings(ctx, `JOIN `+d.students()+` t ON t.id = p.student_id
		WHERE t.teacher_id = $1 AND `+memberOf("t", "$2")+` ORDER BY p.last_attempt`, class)
}

// ExerciseStandings lists where the students of a class stand on one exercise.
func (d *Desk) ExerciseStandings(ctx context.Context, exercise ExerciseID, class ClassID) (Standings, error) {
	return d.standings(ctx, `JOIN `+d.students()+` t ON t.id = p.student_id
		WHERE t.teacher_id = $1 AND p.exercise_id = $2 AND `+memberOf("t", "$3")+` ORDER BY p.last_attempt`, exercise, class)
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
	var chunk breakdown.ChunkKey
	var s routine.State
	var stage, cause, over string
	var since *time.Time
	var last time.Time
	var times progress.Times
	var own int
	var ownLast bool
	student, exercise := (*int64)(&task.Student), (*int64)(&task.Exercise)
	for rows.Next() {
		since, s = nil, routine.State{}
		if err := rows.Scan(student, exercise, &chunk.First, &chunk.Last, &stage, &s.Clean, &s.Stumble, &cause, &s.Tries,
			&s.TempoStep, &s.Slowed, &s.Slower, &s.Faster, &s.Fewer, &s.Advice, &s.Stumbles, &over, &since, &times.Tempo,
			&last, &own, &ownLast, &s.Earned, &s.Tried); err != nil {
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
			at = &progress.Standing{Chunks: map[breakdown.ChunkKey]routine.State{},
				Times: map[breakdown.ChunkKey]progress.Times{}}
			list[task] = at
		}
		at.Chunks[chunk], at.Times[chunk] = s, times
		if ownLast || at.Tries == 0 {
			at.Latest = chunk
		}
		at.Tries += own
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

// EarnedCount is how many chunks of an exercise have earned some stages with those who play
// an instrument.
type EarnedCount struct {
	Exercise   ExerciseID `db:"exercise_id"`
	Instrument string
	Earned     routine.StageSet
	Chunks     int
}

// EarnedCounts says how many of the class's students' chunks have earned which stages of
// every exercise; those that are untried are not counted.
func (d *Desk) EarnedCounts(ctx context.Context, class ClassID) ([]EarnedCount, error) {
	var list []EarnedCount
	err := d.all(ctx, &list, "count the stages", `
		SELECT p.exercise_id, t.instrument, p.earned, count(*) AS chunks FROM standings p JOIN `+d.students()+
		` t ON t.id = p.student_id
		WHERE t.teacher_id = $1 AND `+memberOf("t", "$2")+` AND p.of_chunk GROUP BY p.exercise_id, t.instrument, p.earned`, class)
	return list, err
}

// Worked is one student's work on one exercise, in a few words.
type Worked struct {
	Student  StudentID
	Exercise ExerciseID
	Tempos   []int // of the last tries at the chunks that are done
}

// WorkedList is in the order of the exercises' ids.
type WorkedList []Worked

// Worked lists which students of a class have worked on which exercises.
func (d *Desk) Worked(ctx context.Context, class ClassID) (WorkedList, error) {
	var rows []struct {
		Student  StudentID
		Exercise ExerciseID
		Tempos   string
	}
	err := d.all(ctx, &rows, "list what was worked on", `
		SELECT p.student_id AS student, p.exercise_id AS exercise,
			coalesce(string_agg(p.tempo::text, ' ') FILTER (WHERE p.stage = 'done' AND p.tempo > 0), '') AS tempos
		FROM standings p JOIN `+d.students()+` t ON t.id = p.student_id
		WHERE t.teacher_id = $1 AND `+memberOf("t", "$2")+` GROUP BY p.student_id, p.exercise_id ORDER BY p.exercise_id`, class)
	list := make(WorkedList, len(rows))
	for k, r := range rows {
		list[k] = Worked{Student: r.Student, Exercise: r.Exercise}
		for word := range strings.FieldsSeq(r.Tempos) {
			tempo, _ := strconv.Atoi(word) // as the database wrote it
			list[k].Tempos = append(list[k].Tempos, tempo)
		}
	}
	return list, err
}

// Worked is Worked of the students whose standings these are.
func (list Standings) Worked() WorkedList {
	var all WorkedList
	for task, at := range list {
		w := Worked{Student: task.Student, Exercise: task.Exercise}
		for key, state := range at.Chunks {
			if tempo := at.Times[key].Tempo; state.Stage == routine.Done && tempo > 0 {
				w.Tempos = append(w.Tempos, tempo)
			}
		}
		all = append(all, w)
	}
	slices.SortFunc(all, func(a, b Worked) int { return cmp.Compare(a.Exercise, b.Exercise) })
	return all
}

// On lists the exercises that a student has worked on; with no student, those that at least
// half of the class have, of those who have tries at all.
func (l WorkedList) On(student StudentID) []ExerciseID {
	students, times := map[StudentID]bool{}, map[ExerciseID]int{}
	for _, w := range l {
		if student == 0 || w.Student == student {
			students[w.Student] = true
			times[w.Exercise]++
		}
	}
	var list []ExerciseID
	for id, n := range times {
		if 2*n >= len(students) {
			list = append(list, id)
		}
	}
	slices.Sort(list)
	return list
}

// CleanAt are the exercises at which a student was clean to the end, with the tempo that
// half of their chunks reach; with no student, those of the class.
func (l WorkedList) CleanAt(student StudentID) map[ExerciseID]int {
	tempos := map[ExerciseID][]int{}
	for _, w := range l {
		if (student == 0 || w.Student == student) && len(w.Tempos) > 0 {
			tempos[w.Exercise] = append(tempos[w.Exercise], w.Tempos...)
		}
	}
	half := make(map[ExerciseID]int, len(tempos))
	for id, list := range tempos {
		slices.Sort(list)
		half[id] = list[(len(list)-1)/2]
	}
	return half
}
