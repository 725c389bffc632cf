package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/jmoiron/sqlx/reflectx"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
)

// foldAttempts goes through the log again for each exercise of a student that the tries are
// at.
func (tx deskTx) foldAttempts(ctx context.Context, changed []Attempt) error {
	rules, err := tx.rules(ctx)
	if err != nil {
		return err
	}
	var students, exercises []int64
	seen := map[Task]bool{}
	for _, a := range changed {
		if task := (Task{a.StudentID, a.ExerciseID}); !seen[task] {
			seen[task] = true
			students, exercises = append(students, int64(a.StudentID)), append(exercises, int64(a.ExerciseID))
		}
	}
	return foldWhere(ctx, tx.Tx, tx.teacher, rules, `
		(a.student_id, a.exercise_id) IN (SELECT * FROM unnest($2::bigint[], $3::bigint[]))`, students, exercises)
}

// refold goes through what is kept of some students and exercises again, as after a
// change of the routine that they follow. Who have left keep theirs up to date too.
func (tx deskTx) refold(ctx context.Context, where string, args ...any) error {
	var locked []StudentID // so that a mark meanwhile waits
	if err := sqlx.SelectContext(ctx, tx.Tx, &locked, `
		SELECT id FROM students WHERE teacher_id = $1
		AND id IN (SELECT a.student_id FROM attempts a WHERE a.teacher_id = $1 AND `+where+`)
		ORDER BY id FOR UPDATE`, append([]any{tx.teacher}, args...)...); err != nil {
		return fmt.Errorf("lock the students: %w", err)
	}
	if len(locked) == 0 {
		return nil
	}
	rules, err := tx.rules(ctx)
	if err != nil {
		return err
	}
	return foldWhere(ctx, tx.Tx, tx.teacher, rules, where, args...)
}

// logged is a try as it is added up.
type logged struct {
	progress.Logged
	id    AttemptID
	tempo int
	at    time.Time
}

// inClass says of an attempt, a, that it was marked for several students at once.
const inClass = `a.batch IS NOT NULL AND EXISTS (SELECT FROM attempts c WHERE c.teacher_id = a.teacher_id
	AND c.batch = a.batch AND c.student_id <> a.student_id)`

// foldWhere replaces where students stand on the exercises that a condition on attempts, a,
// picks: the fold of their log, without tries that were taken back. Of attempts it may name
// the student and the exercise, which standings have too.
func foldWhere(ctx context.Context, tx sqlx.ExtContext, teacher TeacherID, rules Rules, where string,
	args ...any) error {
	args = append([]any{teacher}, args...)
	if _, err := tx.ExecContext(ctx, `DELETE FROM standings a WHERE a.teacher_id = $1 AND `+where, args...); err != nil {
		return fmt.Errorf("forget the standings: %w", err)
	}
	outlines, err := outlinesWhere(ctx, tx, where, args...)
	if err != nil {
		return err
	}
	rows, err := tx.QueryContext(ctx, `
		SELECT a.id, a.student_id, a.exercise_id, a.first_measure, a.last_measure, a.stage, a.clean, a.cause, a.moved, a.measure, a.tempo, a.at, coalesce(a.undoes, 0), `+inClass+`
		FROM attempts a WHERE a.teacher_id = $1 AND `+where+`
		ORDER BY a.student_id, a.exercise_id, a.id`, args...)
	if err != nil {
		return fmt.Errorf("read the log: %w", err)
	}
	defer rows.Close()
	var sums sums
	var log []logged
	var at Task
	for rows.Next() {
		var l logged
		var task Task
		var undoes AttemptID
		if err := rows.Scan(&l.id, &task.Student, &task.Exercise, &l.Unit.First, &l.Unit.Last, &l.Stage, &l.Clean,
			&l.Cause, &l.Moved, &l.Measure, &l.tempo, &l.at, &undoes, &l.Class); err != nil {
			return fmt.Errorf("read the log: %w", err)
		}
		if task != at {
			sums.add(rules, outlines.of(at), at, log)
			log, at = log[:0], task
		}
		if undoes != 0 { // after its try, which is of the same student and exercise
			log = slices.DeleteFunc(log, func(earlier logged) bool { return earlier.id == undoes })
			continue
		}
		log = append(log, l)
	}
	sums.add(rules, outlines.of(at), at, log)
	if err := errors.Join(rows.Err(), rows.Close()); err != nil {
		return fmt.Errorf("read the log: %w", err)
	}
	return sums.write(ctx, tx, teacher)
}

// sums are standings on their way into their table, a list for each column.
type sums struct {
	student, exercise, lastTry                                                  []int64
	first, last, clean, stumble, tries, tempoStep, slowed, stumbles, tempo, own []int64
	earned, tried                                                               []int64
	stage, cause, advice, over                                                  []string
	slower, faster, fewer, ownLast, ofChunk                                     []bool
	since                                                                       []sql.NullTime
	at                                                                          []time.Time
}

// add folds the log of one student at one exercise.
func (c *sums) add(rules Rules, outline breakdown.Outline, of Task, log []logged) {
	if len(log) == 0 {
		return
	}
	tries := make([]progress.Logged, len(log))
	for k, l := range log {
		tries[k] = l.Logged
	}
	for _, s := range progress.Fold(rules.For(of.Student, of.Exercise), outline, tries) {
		since := sql.NullTime{Valid: s.Stumbles > 0}
		if since.Valid {
			since.Time = log[s.Counted[s.Since-1]].at
		}
		last := log[s.Last]
		c.student, c.exercise, c.lastTry = append(c.student, int64(of.Student)),
			append(c.exercise, int64(of.Exercise)), append(c.lastTry, int64(last.id))
		for _, column := range []struct {
			into  *[]int64
			value int
		}{
			{&c.first, s.Unit.First}, {&c.last, s.Unit.Last}, {&c.clean, s.Clean}, {&c.stumble, s.Stumble},
			{&c.tries, s.Tries},
			{&c.tempoStep, s.TempoStep}, {&c.slowed, s.Slowed}, {&c.stumbles, s.Stumbles}, {&c.tempo, log[s.Played].tempo},
			{&c.own, s.Own}, {&c.earned, int(s.Earned)}, {&c.tried, int(s.Tried)},
		} {
			*column.into = append(*column.into, int64(column.value))
		}
		c.stage, c.cause, c.advice = append(c.stage, string(s.Stage)), append(c.cause, string(s.Cause)),
			append(c.advice, s.Advice)
		c.over = append(c.over, strings.Trim(fmt.Sprint(s.Over), "[]"))
		c.slower, c.faster, c.fewer = append(c.slower, s.Slower), append(c.faster, s.Faster), append(c.fewer, s.Fewer)
		c.since, c.at, c.ownLast = append(c.since, since), append(c.at, last.at), append(c.ownLast, s.LastOwn)
		c.ofChunk = append(c.ofChunk, len(outline.Chunks) == 0 || slices.Contains(outline.Parts(), s.Unit))
	}
}

// mostAtOnce is how many standings are written in one statement.
const mostAtOnce = 5000

func (c *sums) write(ctx context.Context, tx sqlx.ExtContext, teacher TeacherID) error {
	for from := 0; from < len(c.student); from += mostAtOnce {
		to := min(from+mostAtOnce, len(c.student))
		if _, err := tx.ExecContext(ctx, `
			INSERT INTO standings (teacher_id, student_id, exercise_id, first_measure, last_measure,
				stage, clean, stumble, cause, tries, tempo_step, slowed, slower, faster, fewer, advice, stumbles, over, since, last_attempt, tempo, at,
				own_tries, own_last, earned, tried, of_chunk, rules)
			SELECT $1, rows.*, $28 FROM unnest($2::bigint[], $3::bigint[], $4::integer[], $5::integer[], $6::text[], $7::smallint[], $8::smallint[], $9::text[], $10::integer[],
				$11::smallint[], $12::smallint[], $13::boolean[], $14::boolean[], $15::boolean[], $16::text[], $17::smallint[], $18::text[], $19::timestamptz[], $20::bigint[], $21::integer[], $22::timestamptz[],
				$23::integer[], $24::boolean[], $25::integer[], $26::integer[], $27::boolean[]) AS rows`,
			teacher, c.student[from:to], c.exercise[from:to], c.first[from:to], c.last[from:to], c.stage[from:to],
			c.clean[from:to], c.stumble[from:to], c.cause[from:to], c.tries[from:to],
			c.tempoStep[from:to], c.slowed[from:to], c.slower[from:to], c.faster[from:to], c.fewer[from:to],
			c.advice[from:to], c.stumbles[from:to], c.over[from:to], c.since[from:to],
			c.lastTry[from:to], c.tempo[from:to], c.at[from:to], c.own[from:to], c.ownLast[from:to], c.earned[from:to],
			c.tried[from:to], c.ofChunk[from:to], routine.RulesVersion); err != nil {
			return fmt.Errorf("keep the standings: %w", err)
		}
	}
	return nil
}

// FoldStandings goes through the whole log of every teacher again, as after a change
// to the rules of the routine.
func (s *Store) FoldStandings(ctx context.Context) error {
	const doing = "add up the standings again"
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return wrap(doing, err)
	}
	if err := foldAll(ctx, tx, s.routine); err != nil {
		return errors.Join(wrap(doing, err), tx.Rollback())
	}
	return wrap(doing, tx.Commit())
}

// foldStale adds up every log again where a standing was added up by other rules, or none
// was at all.
func foldStale(ctx context.Context, db *sql.DB) error {
	var stale bool
	if err := db.QueryRowContext(ctx, `
		SELECT EXISTS (SELECT FROM standings WHERE rules <> $1) OR EXISTS (SELECT FROM attempts)
		AND NOT EXISTS (SELECT FROM standings)`,
		routine.RulesVersion).Scan(&stale); err != nil || !stale {
		return wrap("look by which rules the standings were added up", err)
	}
	return (&Store{sqlx.NewDb(db, "pgx"), routine.Standard(), &zones{}}).FoldStandings(ctx)
}

// foldAll replaces all standings; standard is the routine where nothing is chosen.
func foldAll(ctx context.Context, plain *sql.Tx, standard routine.Routine) error {
	tx := &sqlx.Tx{Tx: plain, Mapper: reflectx.NewMapperFunc("db", strings.ToLower)}
	if _, err := tx.ExecContext(ctx, `LOCK TABLE attempts IN SHARE MODE`); err != nil {
		return err
	}
	if _, err := tx.ExecContext(ctx, `TRUNCATE standings`); err != nil {
		return err
	}
	var teachers []TeacherID
	if err := tx.SelectContext(ctx, &teachers, `SELECT id FROM teachers ORDER BY id`); err != nil {
		return fmt.Errorf("list the teachers: %w", err)
	}
	for _, teacher := range teachers {
		rules, err := rulesOf(ctx, tx, teacher, standard)
		if err != nil {
			return err
		}
		if err := foldWhere(ctx, tx, teacher, rules, `true`); err != nil {
			return err
		}
	}
	return nil
}
