package store

import (
	"context"
	"database/sql"
	"errors"
	"slices"
	"time"

	"github.com/jmoiron/sqlx"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

// Attempt is one row of the log: a try at a chunk, or the taking back of one.
type Attempt struct {
	ID         AttemptID
	StudentID  StudentID
	ExerciseID ExerciseID
	Chunk      breakdown.ChunkKey
	routine.Try
	Tempo  int
	Undone bool
	At     time.Time // the zero time is now
	By     string    // the colleague who marked it, "" for the class's own teacher
	Marker TeacherID // the colleague, 0 for the class's own teacher
}

// attemptRow is an attempt as it is scanned.
type attemptRow struct {
	ID           AttemptID
	StudentID    StudentID  `db:"student_id"`
	ExerciseID   ExerciseID `db:"exercise_id"`
	FirstMeasure int        `db:"first_measure"`
	LastMeasure  int        `db:"last_measure"`
	Stage        routine.Stage
	Clean        bool
	Cause        routine.Cause
	Moved        bool
	Measure      int
	Tempo        int
	Undone       bool
	At           time.Time
	By           string
	Marker       TeacherID
}

func (r attemptRow) attempt() Attempt {
	return Attempt{
		ID: r.ID, StudentID: r.StudentID, ExerciseID: r.ExerciseID, Chunk: breakdown.ChunkKey{First: r.FirstMeasure,
			Last: r.LastMeasure},
		Try: routine.Try{Stage: r.Stage, Clean: r.Clean, Cause: r.Cause, Measure: r.Measure, Moved: r.Moved}, Tempo: r.Tempo,
		Undone: r.Undone, At: r.At, By: r.By, Marker: r.Marker,
	}
}

// RequestKey is the key that one press of a mark carries, however often it is sent; "" for
// what is not pressed.
type RequestKey string

// LongestKey is the most letters of a key.
const LongestKey = 64

// AddAttempts appends tries to the log, in order, all or none, and brings the
// standings they change up to date. The error is ErrNotFound where a student
// or exercise is not the teacher's.
func (d *Desk) AddAttempts(ctx context.Context, list ...Attempt) error {
	return d.AddOnce(ctx, "", list...)
}

// AddOnce is AddAttempts for a press, which changes nothing when it is sent again.
func (d *Desk) AddOnce(ctx context.Context, key RequestKey, list ...Attempt) error {
	return d.marking(ctx, "log the try", func(tx deskTx) error {
		_, err := tx.addAttempts(ctx, key, list, 0)
		return err
	})
}

// AddTogether is AddOnce for tries that are taken back together, by the batch it
// gives.
func (d *Desk) AddTogether(ctx context.Context, key RequestKey, list ...Attempt) (BatchID, error) {
	var batch BatchID
	err := d.marking(ctx, "log the tries", func(tx deskTx) (err error) {
		batch, err = tx.addAttempts(ctx, key, list, newBatch)
		return err
	})
	return batch, err
}

// Pressed says whether a press has been logged, and the batch of what was marked
// together.
func (d *Desk) Pressed(ctx context.Context, key RequestKey) (batch BatchID, known bool, err error) {
	err = d.one(ctx, &batch, "look for a mark", `
		SELECT coalesce(batch, 0) FROM attempts WHERE teacher_id = $1 AND request_key = $2
		AND student_id IN (SELECT id FROM `+d.students()+` p) LIMIT 1`, key)
	if errors.Is(err, ErrNotFound) {
		return 0, false, nil
	}
	return batch, err == nil, err
}

// newBatch asks for a batch of its own.
const newBatch BatchID = -1

// addAttempts logs tries, in a batch where they are marked together, 0 for none. Those of a press
// that is in the log already are not logged again; the batch is then theirs.
func (tx deskTx) addAttempts(ctx context.Context, key RequestKey, list []Attempt, batch BatchID) (BatchID, error) {
	if err := tx.lockStudents(ctx, list); err != nil {
		return 0, err
	}
	if key != "" {
		var known BatchID
		err := tx.one(ctx, &known, `SELECT coalesce(batch, 0) FROM attempts
			WHERE teacher_id = $1 AND request_key = $2 LIMIT 1`, key)
		if !errors.Is(err, sql.ErrNoRows) {
			return known, err
		}
	}
	if batch == newBatch {
		if err := tx.GetContext(ctx, &batch, `SELECT nextval('batches')`); err != nil {
			return 0, err
		}
	}
	if err := tx.log(ctx, list, batch, key, false); err != nil {
		return 0, err
	}
	return batch, tx.foldAttempts(ctx, list)
}

// log appends rows to the log, in order; undo is for rows that take tries back, by their
// ids.
func (tx deskTx) log(ctx context.Context, list []Attempt, batch BatchID, key RequestKey, undo bool) error {
	if len(list) == 0 {
		return nil
	}
	var student, exercise, first, last, measure, tempo, undoes []int64
	var stage, cause []string
	var clean, moved []bool
	var at []sql.NullTime
	var keys []string // of a press that marks a student several times, at the first alone
	keyed := map[StudentID]bool{}
	for _, a := range list {
		if keyed[a.StudentID] {
			keys = append(keys, "")
		} else {
			keys = append(keys, string(key))
		}
		keyed[a.StudentID] = true
		student, exercise = append(student, int64(a.StudentID)), append(exercise, int64(a.ExerciseID))
		first, last, tempo = append(first, int64(a.Chunk.First)), append(last, int64(a.Chunk.Last)),
			append(tempo, int64(a.Tempo))
		stage, cause = append(stage, string(a.Stage)), append(cause, string(a.Cause))
		clean, moved, measure = append(clean, a.Clean), append(moved, a.Moved), append(measure, int64(a.Measure))
		when, of := sql.NullTime{Time: a.At, Valid: !a.At.IsZero()}, int64(0)
		if undo {
			when, of = sql.NullTime{}, int64(a.ID)
		}
		at, undoes = append(at, when), append(undoes, of)
	}
	return tx.change(ctx, `
		INSERT INTO attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, moved, at, undoes, batch, request_key, marked_by, measure)
		SELECT $1, student, exercise, first, last, stage, clean, cause, tempo, moved, coalesce(at, now()), nullif(undoes, 0), nullif($13, 0), nullif(key, ''), nullif($15, 0), measure
		FROM unnest($2::bigint[], $3::bigint[], $4::integer[], $5::integer[], $6::text[], $7::boolean[], $8::text[], $9::integer[], $10::boolean[], $11::timestamptz[], $12::bigint[], $14::text[], $16::integer[])
			WITH ORDINALITY AS rows (student, exercise, first, last, stage, clean, cause, tempo, moved, at, undoes, key, measure, place) ORDER BY place`,
		student, exercise, first, last, stage, clean, cause, tempo, moved, at, undoes, batch, keys, tx.marker, measure)
}

// UndoAttempt appends a row that takes a try back, and gives the try. The error is
// ErrNotFound when there is no such try, ErrTaken when it has been taken back already.
func (d *Desk) UndoAttempt(ctx context.Context, id AttemptID) (Attempt, error) {
	a, err := d.AttemptByID(ctx, id)
	if err != nil {
		return a, err
	}
	return a, d.marking(ctx, "take the try back", func(tx deskTx) error { return tx.undo(ctx, []Attempt{a}) })
}

// UndoTogether takes back what is left of the tries of a batch. The error is
// ErrNotFound where nothing is.
func (d *Desk) UndoTogether(ctx context.Context, batch BatchID) error {
	var rows []attemptRow
	err := d.all(ctx, &rows, "find the tries", `
		SELECT `+attemptColumns+` FROM `+attemptTables+` WHERE a.teacher_id = $1 AND a.student_id IN (SELECT id
		FROM `+d.students()+` p) AND a.batch = $2 AND a.undoes IS NULL AND u.id IS NULL`, batch)
	if err == nil && len(rows) == 0 {
		err = wrap("find the tries", sql.ErrNoRows)
	}
	if err != nil {
		return err
	}
	return d.marking(ctx, "take the tries back", func(tx deskTx) error { return tx.undo(ctx, attempts(rows)) })
}

// undo appends a row for each try that is taken back.
func (tx deskTx) undo(ctx context.Context, list []Attempt) error {
	if err := tx.lockStudents(ctx, list); err != nil {
		return err
	}
	if err := tx.log(ctx, list, 0, "", true); err != nil {
		return err
	}
	return tx.foldAttempts(ctx, list)
}

// lockStudents makes changes to a student's log wait for each other.
func (tx deskTx) lockStudents(ctx context.Context, list []Attempt) error {
	var ids []int64
	for _, a := range list {
		ids = append(ids, int64(a.StudentID))
	}
	slices.Sort(ids)
	ids = slices.Compact(ids)
	var locked []StudentID
	if err := sqlx.SelectContext(ctx, tx.Tx, &locked, `
		SELECT id FROM students WHERE teacher_id = $1 AND id IN (SELECT id FROM `+tx.students()+` p
		WHERE id = ANY($2::bigint[])) ORDER BY id FOR UPDATE`, tx.teacher, ids); err != nil {
		return err
	}
	if len(locked) < len(ids) {
		return sql.ErrNoRows
	}
	return nil
}

const attemptColumns = `a.id, a.student_id, a.exercise_id, a.first_measure, a.last_measure, a.stage, a.clean, a.cause, a.moved, a.measure, a.tempo, a.at,
	u.id IS NOT NULL AS undone, coalesce(m.name, '') AS by, coalesce(a.marked_by, 0) AS marker`

const attemptTables = `attempts a LEFT JOIN attempts u ON u.undoes = a.id AND u.teacher_id = a.teacher_id AND u.student_id = a.student_id LEFT JOIN teachers m ON m.id = a.marked_by`

// AttemptByID finds a try.
func (d *Desk) AttemptByID(ctx context.Context, id AttemptID) (Attempt, error) {
	var a attemptRow
	err := d.one(ctx, &a, "find the try", `
		SELECT `+attemptColumns+` FROM `+attemptTables+` WHERE a.teacher_id = $1 AND a.student_id IN (SELECT id
		FROM `+d.students()+` p) AND a.id = $2 AND a.undoes IS NULL`, id)
	return a.attempt(), err
}

// StudentAttempts lists a student's tries, newest first, those taken back included.
func (d *Desk) StudentAttempts(ctx context.Context, student StudentID) ([]Attempt, error) {
	var rows []attemptRow
	err := d.all(ctx, &rows, "list the tries", `
		SELECT `+attemptColumns+` FROM `+attemptTables+`
		WHERE a.teacher_id = $1 AND a.student_id = $2 AND a.student_id IN (SELECT id FROM `+d.students()+
		` p) AND a.undoes IS NULL ORDER BY a.id DESC`, student)
	return attempts(rows), err
}

// ClassAttempts lists the tries of a class's students, newest first, those taken back
// included.
func (d *Desk) ClassAttempts(ctx context.Context, class ClassID) (map[StudentID][]Attempt, error) {
	var rows []attemptRow
	err := d.all(ctx, &rows, "list the tries", `
		SELECT `+attemptColumns+` FROM `+attemptTables+`
		WHERE a.teacher_id = $1 AND a.student_id IN (SELECT id FROM `+d.students()+
		` p WHERE `+memberOf("p", "$2")+`) AND a.undoes IS NULL ORDER BY a.id DESC`, class)
	list := map[StudentID][]Attempt{}
	for _, r := range rows {
		a := r.attempt()
		list[a.StudentID] = append(list[a.StudentID], a)
	}
	return list, err
}

// RecentAttempts lists what the students of a class have tried since a moment, oldest first,
// without what was taken back.
func (d *Desk) RecentAttempts(ctx context.Context, class ClassID, since time.Time) ([]Attempt, error) {
	var rows []attemptRow
	err := d.all(ctx, &rows, "list the recent tries", `
		SELECT `+attemptColumns+` FROM `+attemptTables+`
		WHERE a.teacher_id = $1 AND a.student_id IN (SELECT id FROM `+d.students()+
		` p WHERE `+memberOf("p", "$2")+`) AND a.at >= $3 AND a.undoes IS NULL AND u.id IS NULL ORDER BY a.id`, class, since)
	return attempts(rows), err
}

// LatestAttempts lists a student's last tries at an exercise, at most n, newest
// first, without those taken back.
func (d *Desk) LatestAttempts(ctx context.Context, student StudentID, exercise ExerciseID,
	most int) ([]Attempt, error) {
	var rows []attemptRow
	err := d.all(ctx, &rows, "list the latest tries", `
		SELECT `+attemptColumns+` FROM `+attemptTables+`
		WHERE a.teacher_id = $1 AND a.student_id = $2 AND a.student_id IN (SELECT id FROM `+d.students()+
		` p) AND a.exercise_id = $3 AND a.undoes IS NULL AND u.id IS NULL
		ORDER BY a.id DESC LIMIT $4`, student, exercise, most)
	return attempts(rows), err
}

func attempts(rows []attemptRow) []Attempt {
	list := make([]Attempt, len(rows))
	for i, r := range rows {
		list[i] = r.attempt()
	}
	return list
}
