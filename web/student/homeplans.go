package student

import (
	"fmt"
	"net/http"
	"time"

	"unhurriedbench/core/checkin"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// plansView is the plans of a class.
type plansView struct {
	Classes  []store.Class
	Class    store.Class
	Guest    store.Guest
	Students []teach.PracticePlan
	Form     teach.PracticePlan // as it was typed
	Planned  int
	Without  int // students who have no page of their own
	Problem  string
}

func (s *handlers) plans(w http.ResponseWriter, r *http.Request) error {
	return s.showPlans(w, r, http.StatusOK, "")
}

func (s *handlers) showPlans(w http.ResponseWriter, r *http.Request, status int, problem string) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	v := plansView{Guest: desk.Guest(), Problem: problem, Form: teach.PracticePlan{Weekdays: teach.UsualDays,
		Minutes: teach.UsualHomeMinutes}}
	v.Form.Until = teach.DateOf(site.ClassOf(r).Now()).AddDate(0, 0, checkin.DaysOn).Format(time.DateOnly)
	var err error
	if v.Form.Page, err = teach.NewPageField(ctx, desk, nil); err != nil {
		return err
	}
	if problem != "" {
		saveTyped(&v.Form, r)
	}
	if v.Classes, v.Class, err = desk.ChooseClass(ctx, store.ClassID(site.Number(r, "class"))); err != nil {
		return err
	}
	students, err := desk.Students(ctx, v.Class.ID)
	if err != nil {
		return err
	}
	for _, student := range teach.InScoreOrder(students) {
		plan, err := teach.LoadPracticePlan(ctx, desk, student.ID)
		if err != nil {
			return err
		}
		if plan.Print = true; plan.Has {
			v.Planned++
		}
		v.Students = append(v.Students, plan)
	}
	if err := teach.AddClassDone(ctx, desk, v.Class.ID, v.Students); err != nil {
		return err
	}
	if err := s.addOwnLinks(r, v.Class.ID, v.Students); err != nil {
		return err
	}
	for _, student := range v.Students {
		if student.Own == nil {
			v.Without++
		}
	}
	s.Page(w, r, status, "plans", "Practice plans", v)
	return nil
}

// makePlans lays out the plans of a whole class, each until the check-in to come where there
// is one.
func (s *handlers) makePlans(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	_, class, err := desk.ChooseClass(ctx, store.ClassID(site.Number(r, "class")))
	if err != nil {
		return err
	}
	requested, problem, err := readHomePlan(r)
	if err != nil {
		return err
	}
	if problem != "" {
		return s.showPlans(w, r, http.StatusUnprocessableEntity, problem)
	}
	students, err := desk.Students(ctx, class.ID)
	if err != nil {
		return err
	}
	reads, plans := teach.PartsAtHome{}, []store.HomePlan{}
	for _, student := range students {
		p := requested
		p.Student, p.Changed = student.ID, map[string]int{}
		until, err := teach.NextCheckin(ctx, desk, student.ID)
		if err != nil {
			return err
		}
		if !until.IsZero() {
			p.Until = until
		}
		if err := teach.LayOutPlan(ctx, desk, &p, student, reads); err != nil {
			return err
		}
		plans = append(plans, p)
	}
	if err := desk.SaveHomePlans(ctx, plans...); err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("%s made.", teach.Plural(len(students), "plan is", "plans are")))
	http.Redirect(w, r, fmt.Sprintf("/plans?class=%d", class.ID), http.StatusSeeOther)
	return nil
}

// homeCalendar sends a student's plan as a calendar (RFC 5545): a day with its lines is an
// event of the whole day, so that families put it where it suits them. It names no student.
func (s *handlers) homeCalendar(w http.ResponseWriter, r *http.Request) error {
	v, err := teach.LoadPracticePlan(r.Context(), site.ClassOf(r), site.ID[store.StudentID](r))
	if err == nil && !v.Has {
		err = fmt.Errorf("find the plan: %w", store.ErrNotFound)
	}
	if err != nil {
		return err
	}
	s.SendCalendar(w, v)
	return nil
}
