package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"unhurriedbench/core/homeplan"
)

// HomePlan is what a student does at home until a day.
type HomePlan struct {
	Student  StudentID
	From     time.Time      // midnight of the first day, in UTC
	Until    time.Time      // of the check-in, the day after the last one
	Weekdays []int          // on which there is time, 0 for Sunday
	Minutes  int            // on each of them
	Changed  map[string]int // minutes of single days, by their date
	Plan     homeplan.Plan
	Made     time.Time
}

// MostAsked is how many lines a plan may ask for, or a page that is given as a whole may have.
const MostAsked = 12

// homePlanRow is a plan as it is scanned.
type homePlanRow struct {
	Student     StudentID
	From, Until time.Time
	Weekdays    []byte
	Minutes     int
	Changed     []byte
	Plan        []byte
	Made        time.Time
}

func (r homePlanRow) homePlan() (HomePlan, error) {
	p := HomePlan{Student: r.Student, From: r.From, Until: r.Until, Minutes: r.Minutes, Made: r.Made}
	if err := errors.Join(json.Unmarshal(r.Weekdays, &p.Weekdays), json.Unmarshal(r.Changed, &p.Changed),
		json.Unmarshal(r.Plan, &p.Plan)); err != nil {
		return p, fmt.Errorf("read the plan of student %d: %w", r.Student, err)
	}
	return p, nil
}

const homePlanColumns = `h.student_id AS student, h.from_day AS "from", h.until_day AS until, to_jsonb(h.weekdays) AS weekdays, h.minutes, h.changed, h.plan, h.made_at AS made`

// HomePlan finds a student's plan. The error is ErrNotFound where there is none.
func (d *Desk) HomePlan(ctx context.Context, student StudentID) (HomePlan, error) {
	var row homePlanRow
	err := d.one(ctx, &row, "find the plan", `
		SELECT `+homePlanColumns+` FROM practice_plans h JOIN `+d.students()+
		` p ON p.id = h.student_id WHERE h.teacher_id = $1 AND h.student_id = $2`, student)
	if err != nil {
		return HomePlan{}, err
	}
	return row.homePlan()
}

// HomePlans lists the plans of a class's students.
func (d *Desk) HomePlans(ctx context.Context, class ClassID) ([]HomePlan, error) {
	var rows []homePlanRow
	if err := d.all(ctx, &rows, "list the plans", `
		SELECT `+homePlanColumns+` FROM practice_plans h JOIN `+d.students()+
		` p ON p.id = h.student_id WHERE h.teacher_id = $1 AND `+memberOf("p", "$2")+` ORDER BY p.id`, class); err != nil {
		return nil, err
	}
	list := make([]HomePlan, len(rows))
	for k, row := range rows {
		var err error
		if list[k], err = row.homePlan(); err != nil {
			return nil, err
		}
	}
	return list, nil
}

// SaveHomePlans keeps students' plans, in place of earlier ones, all or none. The error is
// ErrNotFound where a student is not the desk's.
func (d *Desk) SaveHomePlans(ctx context.Context, list ...HomePlan) error {
	if len(list) == 0 {
		return nil
	}
	return d.marking(ctx, "keep the plans", func(tx deskTx) error { return tx.saveHomePlans(ctx, list, tx.students()) })
}

// saveHomePlans keeps plans of some students.
func (tx deskTx) saveHomePlans(ctx context.Context, list []HomePlan, students string) error {
	var who, minutes []int64
	var from, until []time.Time
	var weekdays, changed, plans []string
	for _, p := range list {
		if p.Changed == nil {
			p.Changed = map[string]int{}
		}
		days, err1 := json.Marshal(p.Weekdays)
		other, err2 := json.Marshal(p.Changed)
		plan, err3 := json.Marshal(p.Plan)
		if err := errors.Join(err1, err2, err3); err != nil {
			return err
		}
		who, minutes, from, until = append(who, int64(p.Student)), append(minutes, int64(p.Minutes)),
			append(from, p.From), append(until, p.Until)
		weekdays, changed, plans = append(weekdays, string(days)), append(changed, string(other)), append(plans, string(plan))
	}
	result, err := tx.ExecContext(ctx, `
		INSERT INTO practice_plans (teacher_id, student_id, from_day, until_day, weekdays, minutes, changed, plan)
		SELECT $1, p.id, n.from_day, n.until_day, ARRAY(SELECT day::smallint
		FROM jsonb_array_elements_text(n.weekdays) WITH ORDINALITY AS d (day, place) ORDER BY place),
			n.minutes, n.changed, n.plan
		FROM unnest($2::bigint[], $3::date[], $4::date[], $5::jsonb[], $6::smallint[], $7::jsonb[], $8::jsonb[])
			AS n (student, from_day, until_day, weekdays, minutes, changed, plan)
		JOIN `+students+` p ON p.id = n.student WHERE p.teacher_id = $1
		ON CONFLICT (teacher_id, student_id) DO UPDATE SET from_day = excluded.from_day, until_day = excluded.until_day, weekdays = excluded.weekdays,
			minutes = excluded.minutes, changed = excluded.changed, plan = excluded.plan, made_at = now()`,
		tx.args([]any{who, from, until, weekdays, minutes, changed, plans})...)
	if err != nil {
		return err
	}
	if n, err := result.RowsAffected(); err != nil || int(n) != len(list) {
		return errors.Join(err, sql.ErrNoRows)
	}
	return nil
}

// DeleteHomePlan takes a student's plan away.
func (d *Desk) DeleteHomePlan(ctx context.Context, student StudentID) error {
	return d.marking(ctx, "take the plan away", func(tx deskTx) error {
		return tx.change(ctx, `DELETE FROM practice_plans WHERE teacher_id = $1 AND student_id = $2
			AND student_id IN (SELECT p.id FROM `+tx.students()+` p)`, student)
	})
}

// renumber gives the exercises of a plan other numbers; lines at those for which there is none,
// 0, are left out. A line that is at no exercise stays.
func (p *HomePlan) renumber(of func(int64) int64) {
	for k := range p.Plan.Days {
		d := &p.Plan.Days[k]
		d.Items = slices.DeleteFunc(d.Items, func(i homeplan.Item) bool {
			return i.Step.Exercise != 0 &&
				of(i.Step.Exercise) == 0
		})
		for n := range d.Items {
			d.Items[n].Step.Exercise = of(d.Items[n].Step.Exercise)
		}
	}
	for _, list := range []*[]int64{&p.Plan.Asked, &p.Plan.Page} {
		var kept []int64
		for _, id := range *list {
			if other := of(id); other != 0 {
				kept = append(kept, other)
			}
		}
		*list = kept
	}
	p.Plan.Left = slices.DeleteFunc(p.Plan.Left, func(l homeplan.Left) bool { return of(l.Step.Exercise) == 0 })
	for n := range p.Plan.Left {
		p.Plan.Left[n].Step.Exercise = of(p.Plan.Left[n].Step.Exercise)
	}
}
