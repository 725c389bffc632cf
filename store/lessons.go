package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"unhurriedbench/core/lesson"
)

// LessonID is a lesson's; 0 is none.
type LessonID int64

// Lesson is what a class does, or did, in one meeting.
type Lesson struct {
	ID     LessonID
	Class  ClassID
	Plan   lesson.Plan
	Step   int         // of the plan, that the class is at, from 0
	Absent []StudentID // who is not there
	Made   time.Time
	Begun  *time.Time // nil for one that is planned
	Ended  *time.Time
}

// Running says whether the lesson has begun and not ended.
func (l Lesson) Running() bool { return l.Begun != nil && l.Ended == nil }

// lessonRow is a lesson as it is scanned.
type lessonRow struct {
	ID     LessonID
	Class  ClassID
	Plan   []byte
	Step   int
	Absent []byte
	Made   time.Time
	Begun  *time.Time
	Ended  *time.Time
}

func (r lessonRow) lesson() (Lesson, error) {
	l := Lesson{ID: r.ID, Class: r.Class, Step: r.Step, Made: r.Made, Begun: r.Begun, Ended: r.Ended}
	if err := errors.Join(json.Unmarshal(r.Plan, &l.Plan), json.Unmarshal(r.Absent, &l.Absent)); err != nil {
		return l, fmt.Errorf("read the lesson %d: %w", r.ID, err)
	}
	return l, nil
}

// lessonsSeen selects the lessons that the desk sees: a guest those of the class that was
// given.
func (d *Desk) lessonsSeen() string {
	within := ""
	if !d.guest.Own() {
		within = fmt.Sprintf(" AND l.class_id = %d", d.guest.Class)
	}
	return d.lessonsOfAll() + ` AND s.removed_at IS NULL` + within
}

// lessonsOfAll selects lessons of classes that were taken away too.
func (d *Desk) lessonsOfAll() string {
	return `SELECT l.id, l.class_id AS class, l.plan, l.step, to_jsonb(l.absent) AS absent, l.made_at AS made, l.begun_at AS begun, l.ended_at AS ended
		FROM lessons l JOIN classes s ON s.id = l.class_id WHERE l.teacher_id = $1`
}

// Lesson finds a lesson.
func (d *Desk) Lesson(ctx context.Context, id LessonID) (Lesson, error) {
	var row lessonRow
	if err := d.one(ctx, &row, "find the lesson", d.lessonsSeen()+` AND l.id = $2`, id); err != nil {
		return Lesson{}, err
	}
	return row.lesson()
}

// Lessons lists a class's lessons, at most n, newest first.
func (d *Desk) Lessons(ctx context.Context, class ClassID, most int) ([]Lesson, error) {
	var rows []lessonRow
	if err := d.all(ctx, &rows, "list the lessons", d.lessonsSeen()+
		` AND l.class_id = $2 ORDER BY l.id DESC LIMIT $3`, class, most); err != nil {
		return nil, err
	}
	list := make([]Lesson, len(rows))
	for k, row := range rows {
		var err error
		if list[k], err = row.lesson(); err != nil {
			return nil, err
		}
	}
	return list, nil
}

// RunningLesson is the id of the lesson that a class is in, 0 for none.
func (d *Desk) RunningLesson(ctx context.Context, class ClassID) (LessonID, error) {
	var ids []LessonID
	err := d.all(ctx, &ids, "look for a lesson", `
		SELECT id FROM lessons WHERE teacher_id = $1 AND class_id = $2 AND begun_at > now() - interval '6 hours'
		AND ended_at IS NULL ORDER BY id DESC LIMIT 1`, class)
	return append(ids, 0)[0], err
}

// AddLesson plans a lesson for a class, in place of one that was planned and has not
// begun.
func (d *Desk) AddLesson(ctx context.Context, class ClassID, plan lesson.Plan) (LessonID, error) {
	var id LessonID
	err := d.marking(ctx, "plan the lesson", func(tx deskTx) error {
		text, err := json.Marshal(plan)
		if err != nil {
			return err
		}
		if err := tx.clear(ctx, `DELETE FROM lessons WHERE teacher_id = $1 AND class_id = $2
			AND begun_at IS NULL`+tx.ofGuest("class_id"), class); err != nil {
			return err
		}
		return tx.one(ctx, &id, `
			INSERT INTO lessons (teacher_id, class_id, plan) SELECT $1, s.id, $3 FROM classes s
			WHERE s.teacher_id = $1 AND s.id = $2 AND s.removed_at IS NULL`+tx.ofGuest("s.id")+` RETURNING id`,
			class, string(text))
	})
	return id, err
}

// AddHeldLesson keeps a lesson that was held, as it was.
func (d *Desk) AddHeldLesson(ctx context.Context, l Lesson) (LessonID, error) {
	text, err := json.Marshal(l.Plan)
	if err != nil {
		return 0, fmt.Errorf("keep the lesson: %w", err)
	}
	absent := []int64{}
	for _, a := range l.Absent {
		absent = append(absent, int64(a))
	}
	var id LessonID
	err = d.marking(ctx, "keep the lesson", func(tx deskTx) error {
		return tx.one(ctx, &id, `
			INSERT INTO lessons (teacher_id, class_id, plan, step, absent, made_at, begun_at, ended_at)
			SELECT $1, s.id, $3, $4, $5::bigint[], $6, $7, $8 FROM classes s
			WHERE s.teacher_id = $1 AND s.id = $2 AND s.removed_at IS NULL`+tx.ofGuest("s.id")+` RETURNING id`,
			l.Class, string(text), l.Step, absent, l.Made, l.Begun, l.Ended)
	})
	return id, err
}

// ofGuest narrows a statement to the class that a guest was given.
func (d *Desk) ofGuest(column string) string {
	if d.guest.Own() {
		return ""
	}
	return fmt.Sprintf(" AND %s = %d", column, d.guest.Class)
}

// changeLesson runs a statement on a lesson, $2, that the desk sees.
func (d *Desk) changeLesson(ctx context.Context, doing, set, when string, id LessonID, args ...any) error {
	return d.marking(ctx, doing, func(tx deskTx) error {
		return tx.change(ctx, `UPDATE lessons SET `+set+` WHERE teacher_id = $1 AND id = $2`+tx.ofGuest("class_id")+
			when, append([]any{id}, args...)...)
	})
}

// SavePlan changes what is to be done in a lesson that has not ended.
func (d *Desk) SavePlan(ctx context.Context, id LessonID, plan lesson.Plan) error {
	text, err := json.Marshal(plan)
	if err != nil {
		return fmt.Errorf("keep the plan: %w", err)
	}
	return d.changeLesson(ctx, "keep the plan", `plan = $3`, ` AND ended_at IS NULL`, id, string(text))
}

// BeginLesson begins a lesson, with second instruments set aside whose students are there with
// their first; one that has begun goes on. Another one that the class is still in ends.
func (d *Desk) BeginLesson(ctx context.Context, id LessonID) error {
	if err := d.changeLesson(ctx, "begin the lesson", `
		begun_at = coalesce(begun_at, now()),
		absent = CASE WHEN begun_at IS NOT NULL THEN absent ELSE ARRAY(SELECT p.id FROM `+d.students()+
		` p WHERE p.aside AND (p.class_id = lessons.class_id OR
			2 = (SELECT count(*) FROM group_members m WHERE m.group_id = lessons.class_id AND m.student_id IN (p.id, p.also_of))) ORDER BY p.id) END`, ` AND ended_at IS NULL`, id); err != nil {
		return err
	}
	return d.marking(ctx, "end the lesson before", func(tx deskTx) error {
		return tx.clear(ctx, `
			UPDATE lessons SET ended_at = now() WHERE teacher_id = $1 AND id <> $2 AND begun_at IS NOT NULL AND ended_at IS NULL
			AND class_id = (SELECT class_id FROM lessons WHERE teacher_id = $1 AND id = $2)`, id)
	})
}

// AtStep notes which step the class is at, and who is not there.
func (d *Desk) AtStep(ctx context.Context, id LessonID, step int, absent []StudentID) error {
	ids := []int64{}
	for _, a := range absent {
		ids = append(ids, int64(a))
	}
	slices.Sort(ids)
	return d.changeLesson(ctx, "note the step", `step = $3, absent = $4::bigint[]`, ` AND ended_at IS NULL`, id,
		step, slices.Compact(ids))
}

// EndLesson ends a lesson that has begun; one that has ended stays so.
func (d *Desk) EndLesson(ctx context.Context, id LessonID) error {
	return d.changeLesson(ctx, "end the lesson", `ended_at = coalesce(ended_at, now())`, ` AND begun_at IS NOT NULL`, id)
}

// DeleteLesson takes a lesson away that has not begun.
func (d *Desk) DeleteLesson(ctx context.Context, id LessonID) error {
	return d.marking(ctx, "take the lesson away", func(tx deskTx) error {
		return tx.change(ctx, `DELETE FROM lessons WHERE teacher_id = $1 AND id = $2
			AND begun_at IS NULL`+tx.ofGuest("class_id"), id)
	})
}

// LessonAttempts lists what the students of a class tried between two moments, oldest
// first, without what was taken back.
func (d *Desk) LessonAttempts(ctx context.Context, class ClassID, from, to time.Time) ([]Attempt, error) {
	var rows []attemptRow
	err := d.all(ctx, &rows, "list the tries of the lesson", `
		SELECT `+attemptColumns+` FROM `+attemptTables+`
		WHERE a.teacher_id = $1 AND a.student_id IN (SELECT id FROM `+d.students()+` p WHERE `+memberOf("p", "$2")+`)
		AND a.at BETWEEN $3 AND $4 AND a.undoes IS NULL AND u.id IS NULL ORDER BY a.id`, class, from, to)
	return attempts(rows), err
}
