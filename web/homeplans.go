package web

import (
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"

	"unhurriedbench/core/checkin"
	"unhurriedbench/store"
)

// plansView is the plans of a section.
type plansView struct {
	Sections []store.Section
	Section  store.Section
	Guest    store.Guest
	Students []homePlanView
	Form     homePlanView // as it was typed
	Planned  int
	Without  int // students who have no page of their own
	Problem  string
}

func (s *Server) plans(w http.ResponseWriter, r *http.Request) {
	s.showPlans(w, r, http.StatusOK, "")
}

func (s *Server) showPlans(w http.ResponseWriter, r *http.Request, status int, problem string) {
	ctx, desk := r.Context(), deskOf(r)
	v := plansView{Guest: desk.Guest(), Problem: problem, Form: homePlanView{Weekdays: usualDays, Minutes: usualHomeMinutes}}
	v.Form.Until = dateOf(time.Now()).AddDate(0, 0, checkin.DaysOn).Format(time.DateOnly)
	if problem != "" {
		keepTyped(&v.Form, r)
	}
	var err error
	if v.Sections, v.Section, err = desk.ChooseSection(ctx, store.SectionID(number(r, "section"))); err != nil {
		s.failed(w, r, err)
		return
	}
	students, err := desk.Students(ctx, v.Section.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	for _, student := range inScoreOrder(students) {
		plan, err := loadHomePlan(ctx, desk, student.ID)
		if err != nil {
			s.failed(w, r, err)
			return
		}
		if plan.Print = true; plan.Has {
			v.Planned++
		}
		v.Students = append(v.Students, plan)
	}
	if err := addSectionDone(ctx, desk, v.Section.ID, v.Students); err != nil {
		s.failed(w, r, err)
		return
	}
	if err := s.addOwnLinks(r, v.Section.ID, v.Students); err != nil {
		s.failed(w, r, err)
		return
	}
	for _, student := range v.Students {
		if student.Own == nil {
			v.Without++
		}
	}
	s.page(w, r, status, "plans", "Plans for home", v)
}

// makePlans lays out the plans of a whole section, each until the check-in to come where there
// is one.
func (s *Server) makePlans(w http.ResponseWriter, r *http.Request) {
	ctx, desk := r.Context(), deskOf(r)
	_, section, err := desk.ChooseSection(ctx, store.SectionID(number(r, "section")))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	asked, problem := readHomePlan(r)
	if problem != "" {
		s.showPlans(w, r, http.StatusUnprocessableEntity, problem)
		return
	}
	students, err := desk.Students(ctx, section.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	reads, plans := homeReads{}, []store.HomePlan{}
	for _, student := range students {
		p := asked
		p.Student, p.Changed = student.ID, map[string]int{}
		until, err := nextCheckin(ctx, desk, student.ID)
		if err != nil {
			s.failed(w, r, err)
			return
		}
		if !until.IsZero() {
			p.Until = until
		}
		if err := layOutHome(ctx, desk, &p, student, reads); err != nil {
			s.failedToRead(w, r, err)
			return
		}
		plans = append(plans, p)
	}
	if err := desk.KeepHomePlans(ctx, plans...); err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, fmt.Sprintf("%s laid out.", numbered(len(students), "plan is", "plans are")))
	http.Redirect(w, r, fmt.Sprintf("/plans?section=%d", section.ID), http.StatusSeeOther)
}

// homeCalendar sends a student's plan as a calendar (RFC 5545): a day with its lines is an
// event of the whole day, so that families put it where it suits them. It names no student.
func (s *Server) homeCalendar(w http.ResponseWriter, r *http.Request) {
	v, err := loadHomePlan(r.Context(), deskOf(r), idOf[store.StudentID](r))
	if err == nil && !v.Has {
		err = fmt.Errorf("find the plan: %w", store.ErrNotFound)
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.sendCalendar(w, v)
}

func (s *Server) sendCalendar(w http.ResponseWriter, v homePlanView) {
	w.Header().Set("Content-Type", "text/calendar; charset=utf-8")
	w.Header().Set("Content-Disposition", `attachment; filename="practice.ics"`)
	_ = calendarOf(v, time.Now()).SerializeTo(w, ics.WithNewLineWindows) // RFC 5545, 3.1; the reader has gone when this fails
}

func calendarOf(v homePlanView, now time.Time) *ics.Calendar {
	c := ics.NewCalendarFor("Unhurried Bench")
	c.SetMethod(ics.MethodPublish)
	for _, d := range v.Days {
		on, err := time.Parse(time.DateOnly, d.On)
		if len(d.Items) == 0 || err != nil {
			continue
		}
		e := c.AddEvent(fmt.Sprintf("plan-%d-%s@unhurried-bench", v.Student.ID, d.On))
		e.SetDtStampTime(now)
		e.SetAllDayStartAt(on)
		e.SetAllDayEndAt(on.AddDate(0, 0, 1))
		e.SetSummary(fmt.Sprintf("Practise: %s, %s", strings.ToLower(v.Title), d.Time))
		var lines []string
		for _, i := range d.Items {
			line := i.Name
			if i.How != "" {
				line += ", " + i.How
			}
			lines = append(lines, fmt.Sprintf("%s (%s): %s", line, i.Time, i.Why))
		}
		e.SetDescription(strings.Join(lines, "\n"))
		e.SetProperty(ics.ComponentPropertyTransp, string(ics.TransparencyTransparent))
	}
	return c
}

// UntilWords is the day the plan ends on, in words.
func (v homePlanView) UntilWords() string {
	on, _ := time.Parse(time.DateOnly, v.Until)
	return dayWords(on)
}

// ChosenDay says whether a weekday is one of the plan's.
func (v homePlanView) ChosenDay(day time.Weekday) bool { return slices.Contains(v.Weekdays, int(day)) }

// ChoicesWith are the minutes a day may have, what it has among them.
func (homePlanView) ChoicesWith(minutes int) []int {
	list := []int{0, 5, 10, 15, 20, 25, 30, 40, 50, 60}
	if !slices.Contains(list, minutes) {
		list = append(list, minutes)
		slices.Sort(list)
	}
	return list
}
