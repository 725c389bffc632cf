package store

import (
	"context"
	"errors"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/card"
	"unhurriedbench/core/routine"
)

// HomeTry is a try at home as the student says it went. It stands beside the log of what the
// teacher heard, and changes nothing there.
type HomeTry struct {
	Exercise ExerciseID
	Chunk    breakdown.ChunkKey
	routine.Try
	Tempo      int
	Beside     Beside
	Changed    string // what they did otherwise than before, of their own page's list
	At         time.Time
	RequestKey RequestKey
}

// Beside is how a try was beside the one before.
type Beside string

// How it may have been; Unsaid is of a first one.
const (
	Unsaid Beside = ""
	Better Beside = "better"
	Same   Beside = "same"
	Worse  Beside = "worse"
)

// KnownBeside says whether a text is one of them.
func KnownBeside(text string) bool {
	b := Beside(text)
	return b == Unsaid || b == Better || b == Same || b == Worse
}

// HomeTick is a line of a plan that a student has done.
type HomeTick struct {
	On   time.Time // midnight of the day, in UTC
	Line string
}

// CardAnswer is an answer to a card, on the instrument that was played then.
type CardAnswer struct {
	Instrument string
	card.Answered
	RequestKey RequestKey `db:"request_key"`
}

// ErrTooMuch is for more in a day than anybody does at home.
var ErrTooMuch = errors.New("too much for a day")

// mostADay bounds what a page may write in a day, of each kind.
const mostADay = 600

// LongestLine is the most letters of what names a line of a plan.
const LongestLine = 80

// LongestAnswer is the most milliseconds an answer to a card is measured.
const LongestAnswer = 600000

// within refuses what would be too much for a day.
func (h AtHome) within(ctx context.Context, tx deskTx, table string, more int) error {
	var n int
	if err := tx.one(ctx, &n, `SELECT count(*) FROM `+table+
		` WHERE teacher_id = $1 AND student_id = $2 AND at > now() - interval '1 day'`, h.Student.ID); err != nil {
		return err
	}
	if n+more > mostADay {
		return ErrTooMuch
	}
	return nil
}

// Say logs how a try at home went; one that was sent before changes nothing. The error is
// ErrTooMuch where a day has more than anybody does, ErrNotFound where there is no such
// exercise.
func (h AtHome) Say(ctx context.Context, t HomeTry) error {
	return h.together(ctx, "log what was tried at home", func(tx deskTx) error {
		if err := h.within(ctx, tx, "home_tries", 1); err != nil {
			return err
		}
		var known bool
		if err := tx.one(ctx, &known, `SELECT EXISTS (SELECT 1 FROM home_tries
			WHERE teacher_id = $1 AND student_id = $2 AND request_key = $3)`, h.Student.ID, t.RequestKey); err != nil || known {
			return err
		}
		return tx.change(ctx, `
			INSERT INTO home_tries (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, beside, changed, at, request_key)
			SELECT $1, $2, e.id, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13 FROM exercises e
			WHERE e.teacher_id = $1 AND e.id = $3 AND e.removed_at IS NULL
			ON CONFLICT (teacher_id, student_id, request_key) DO UPDATE SET request_key = excluded.request_key`,
			h.Student.ID, t.Exercise, t.Chunk.First, t.Chunk.Last, t.Stage, t.Clean, t.Cause, t.Tempo, t.Beside,
			t.Changed, t.At, t.RequestKey)
	})
}

// Tick notes that a line of the plan is done.
func (h AtHome) Tick(ctx context.Context, t HomeTick) error {
	return h.together(ctx, "tick a line", func(tx deskTx) error {
		if err := h.within(ctx, tx, "home_ticks", 1); err != nil {
			return err
		}
		return tx.clear(ctx, `INSERT INTO home_ticks (teacher_id, student_id, on_day, line) VALUES ($1, $2, $3, $4)
			ON CONFLICT DO NOTHING`, h.Student.ID, t.On, t.Line)
	})
}

// KeepPlan keeps the student's plan with the days that they picked. The error is ErrNotFound where
// they have none.
func (h AtHome) KeepPlan(ctx context.Context, p HomePlan) error {
	return h.together(ctx, "keep the days", func(tx deskTx) error {
		var there bool
		if err := tx.one(ctx, &there, `SELECT true FROM practice_plans WHERE teacher_id = $1 AND student_id = $2`, h.Student.ID); err != nil {
			return err
		}
		p.Student = h.Student.ID
		return tx.saveHomePlans(ctx, []HomePlan{p}, tx.students())
	})
}

// AnswerCards logs answers to cards; those that were sent before change nothing. The error is
// ErrTooMuch where a day has more than anybody answers.
func (h AtHome) AnswerCards(ctx context.Context, list ...CardAnswer) error {
	return h.together(ctx, "log the answers", func(tx deskTx) error {
		if err := h.within(ctx, tx, "card_answers", len(list)); err != nil {
			return err
		}
		for _, a := range list {
			if err := tx.clear(ctx, `
				INSERT INTO card_answers (teacher_id, student_id, instrument, card, grade, millis, at, request_key)
					VALUES ($1, $2, $3, $4, $5, $6, $7, $8)
				ON CONFLICT (teacher_id, student_id, request_key) DO NOTHING`,
				h.Student.ID, a.Instrument, a.Card, a.Grade, a.Millis, a.At, a.RequestKey); err != nil {
				return err
			}
		}
		return nil
	})
}

type homeTryRow struct {
	Student    StudentID `db:"student_id"`
	Exercise   ExerciseID
	First      int
	Last       int
	Stage      routine.Stage
	Clean      bool
	Cause      routine.Cause
	Tempo      int
	Beside     Beside
	Changed    string
	At         time.Time
	RequestKey RequestKey `db:"request_key"`
}

func (r homeTryRow) homeTry() HomeTry {
	return HomeTry{r.Exercise, breakdown.ChunkKey{First: r.First, Last: r.Last}, routine.Try{Stage: r.Stage,
		Clean: r.Clean, Cause: r.Cause}, r.Tempo, r.Beside, r.Changed, r.At, r.RequestKey}
}

const homeTryColumns = `h.student_id, h.exercise_id AS exercise, h.first_measure AS first, h.last_measure AS last, h.stage, h.clean, h.cause, h.tempo, h.beside, h.changed, h.at, h.request_key`

// HomeTries lists what the students of a class, or the one that is named, have said of tries
// at home since a time, the oldest first. A class or student of 0 is any.
func (d *Desk) HomeTries(ctx context.Context, class ClassID, student StudentID,
	since time.Time) (map[StudentID][]HomeTry, error) {
	var rows []homeTryRow
	if err := d.all(ctx, &rows, "list what was tried at home", `
		SELECT `+homeTryColumns+` FROM home_tries h JOIN `+d.students()+
		` p ON p.id = h.student_id JOIN exercises e ON e.id = h.exercise_id
		WHERE h.teacher_id = $1 AND ($2 = 0 OR `+memberOf("p", "$2")+`) AND ($3 = 0 OR p.id = $3) AND h.at >= $4 AND e.removed_at IS NULL ORDER BY h.at, h.id`, class, student, since); err != nil {
		return nil, err
	}
	list := map[StudentID][]HomeTry{}
	for _, r := range rows {
		list[r.Student] = append(list[r.Student], r.homeTry())
	}
	return list, nil
}

// HomeTicks lists the lines that the students of a class, or the one that is named, have
// done from a day on.
func (d *Desk) HomeTicks(ctx context.Context, class ClassID, student StudentID,
	from time.Time) (map[StudentID][]HomeTick, error) {
	var rows []struct {
		Student StudentID `db:"student_id"`
		HomeTick
	}
	if err := d.all(ctx, &rows, "list what was done at home", `
		SELECT h.student_id, h.on_day AS on, h.line FROM home_ticks h JOIN `+d.students()+` p ON p.id = h.student_id
		WHERE h.teacher_id = $1 AND ($2 = 0 OR `+memberOf("p", "$2")+`) AND ($3 = 0 OR p.id = $3) AND h.on_day >= $4 ORDER BY h.on_day, h.at, h.line`, class, student, from); err != nil {
		return nil, err
	}
	list := map[StudentID][]HomeTick{}
	for _, r := range rows {
		list[r.Student] = append(list[r.Student], r.HomeTick)
	}
	return list, nil
}

// CardAnswers lists a student's answers to cards on an instrument, the oldest first.
func (d *Desk) CardAnswers(ctx context.Context, student StudentID, instrument string) ([]card.Answered, error) {
	var list []card.Answered
	err := d.all(ctx, &list, "list the answers to cards", `
		SELECT c.card, c.grade, c.millis, c.at FROM card_answers c JOIN `+d.students()+` p ON p.id = c.student_id
		WHERE c.teacher_id = $1 AND c.student_id = $2 AND c.instrument = $3 ORDER BY c.at, c.id`, student, instrument)
	return list, err
}
