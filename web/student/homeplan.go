package student

import (
	"cmp"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"time"

	"unhurriedbench/core/checkin"
	"unhurriedbench/core/homeplan"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

func (s *handlers) homePlan(w http.ResponseWriter, r *http.Request) error {
	return s.showHomePlan(w, r, http.StatusOK, "")
}

func (s *handlers) showHomePlan(w http.ResponseWriter, r *http.Request, status int, problem string) error {
	v, err := teach.LoadPracticePlan(r.Context(), site.ClassOf(r), site.ID[store.StudentID](r))
	if err != nil {
		return err
	}
	if v.Own, err = s.ownLinkOf(r, v.Student.ID); err != nil {
		return err
	}
	if err := teach.AddDone(r.Context(), site.ClassOf(r), &v); err != nil {
		return err
	}
	if v.Problem = problem; problem != "" {
		saveTyped(&v, r)
	}
	s.Page(w, r, status, "homeplan", v.Student.FirstName+"’s practice plan", v)
	return nil
}

// saveTyped keeps what was typed into the form that makes a plan, where it was that form.
func saveTyped(v *teach.PracticePlan, r *http.Request) {
	if !r.Form.Has("until") {
		return
	}
	v.Until, v.Minutes, v.MinutesTyped = site.Text(r, "until"), 0, site.Text(r, "minutes")
	v.Weekdays, v.Picks = typedWeekdays(r), site.Text(r, "picks") == "yes"
	v.Page.From, v.Page.To = store.ExerciseID(site.Number(r, "page_from")), store.ExerciseID(site.Number(r, "page_to"))
}

// typedWeekdays are the days of the week that are chosen in a form.
func typedWeekdays(r *http.Request) []int {
	var list []int
	for _, typed := range r.Form["day"] {
		if n, err := strconv.Atoi(typed); err == nil && n >= 0 && n <= 6 && !slices.Contains(list, n) {
			list = append(list, n)
		}
	}
	return list
}

// makeHomePlan makes a student's plan from today until the day given.
func (s *handlers) makeHomePlan(w http.ResponseWriter, r *http.Request) error {
	student, err := site.ClassOf(r).StudentByID(r.Context(), site.ID[store.StudentID](r))
	if err != nil {
		return err
	}
	p, problem, err := readHomePlan(r)
	if err != nil {
		return err
	}
	if problem != "" {
		return s.showHomePlan(w, r, http.StatusUnprocessableEntity, problem)
	}
	p.Student = student.ID
	if err := teach.LayOutPlan(r.Context(), site.ClassOf(r), &p, student, teach.PartsAtHome{}); err != nil {
		return err
	}
	return s.afterHomePlan(w, r, p)
}

// readHomePlan reads the days and minutes of a form, or says what is wrong with them.
func readHomePlan(r *http.Request) (store.HomePlan, string, error) {
	p := store.HomePlan{From: teach.DateOf(site.ClassOf(r).Now()), Changed: map[string]int{}, Weekdays: typedWeekdays(r)}
	page, err := teach.NewPageField(r.Context(), site.ClassOf(r), nil)
	if err != nil {
		return p, "", err
	}
	var problem string
	if p.Until, problem = site.ReadDay(site.Text(r, "until")); problem != "" {
		return p, problem, nil
	}
	page.From, page.To = store.ExerciseID(site.Number(r, "page_from")), store.ExerciseID(site.Number(r, "page_to"))
	p.Plan.Picks = site.Text(r, "picks") == "yes"
	var wrong string
	p.Plan.Page, wrong = page.Lines()
	days := teach.DayNumber(p.Until) - teach.DayNumber(p.From)
	p.Minutes, problem = site.ReadMinutes(site.Text(r, "minutes"), 1, homeplan.MostMinutes)
	switch {
	case len(p.Weekdays) == 0:
		return p, "Choose at least one day of the week. Four is usual.", nil
	case cmp.Or(problem, wrong) != "":
		return p, cmp.Or(problem, wrong), nil
	case days < 1:
		return p, "The plan ends before it begins. Choose a day after today.", nil
	case days > homeplan.MostDays:
		return p, fmt.Sprintf("A plan is for at most %d days.", homeplan.MostDays), nil
	}
	return p, "", nil
}

// changeHomeDay gives a single day other minutes, and what follows is laid out again.
func (s *handlers) changeHomeDay(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	student, err := desk.StudentByID(ctx, site.ID[store.StudentID](r))
	if err != nil {
		return err
	}
	p, err := desk.HomePlan(ctx, student.ID)
	if err != nil {
		return err
	}
	on, problem := site.ReadDay(site.Text(r, "on"))
	minutes, wrong := site.ReadMinutes(site.Text(r, "minutes"), 0, homeplan.MostMinutes)
	problem = cmp.Or(problem, wrong)
	if problem == "" && (on.Before(teach.DateOf(site.ClassOf(r).Now())) || !on.Before(p.Until)) {
		problem = "That day is past, or not in the plan. What follows from today on can be changed."
	}
	if problem != "" {
		return s.showHomePlan(w, r, http.StatusUnprocessableEntity, problem)
	}
	if p.Changed == nil {
		p.Changed = map[string]int{}
	}
	p.Changed[on.Format(time.DateOnly)] = minutes
	if err := teach.LayOutPlan(ctx, desk, &p, student, teach.PartsAtHome{}); err != nil {
		return err
	}
	return s.afterHomePlan(w, r, p)
}

func (s *handlers) afterHomePlan(w http.ResponseWriter, r *http.Request, p store.HomePlan) error {
	if err := site.ClassOf(r).SaveHomePlans(r.Context(), p); err != nil {
		return err
	}
	http.Redirect(w, r, fmt.Sprintf("/students/%d/plan", p.Student), http.StatusSeeOther)
	return nil
}

// mostCatchUp is how many lines a catch-up plan has at most.
const mostCatchUp = 5

// catchUp makes a plan of the lines that a student missed, with the usual days and minutes, until
// their next check-in.
func (s *handlers) catchUp(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	v, err := teach.LoadPracticePlan(ctx, desk, site.ID[store.StudentID](r))
	if err != nil {
		return err
	}
	p := store.HomePlan{Student: v.Student.ID, From: teach.DateOf(desk.Now()), Changed: map[string]int{}, Weekdays: v.Weekdays,
		Minutes: v.Minutes}
	if p.Until, err = time.Parse(time.DateOnly, v.Until); err != nil || !p.Until.After(p.From) {
		p.Until = p.From.AddDate(0, 0, checkin.DaysOn)
	}
	for _, typed := range r.Form["exercise"] {
		id, _ := strconv.ParseInt(typed, 10, 64) // 0, which no row has, for none
		if _, err := desk.Exercise(ctx, store.ExerciseID(id)); err != nil {
			return err
		}
		if len(p.Plan.Asked) < mostCatchUp && !slices.Contains(p.Plan.Asked, id) {
			p.Plan.Asked = append(p.Plan.Asked, id)
		}
	}
	if err := teach.LayOutPlan(ctx, desk, &p, v.Student, teach.PartsAtHome{}); err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("A catch-up plan for %s. Change its days and minutes below.", v.Student.Name()))
	return s.afterHomePlan(w, r, p)
}

// deleteHomePlan takes a plan away.
func (s *handlers) deleteHomePlan(w http.ResponseWriter, r *http.Request) error {
	id := site.ID[store.StudentID](r)
	if err := site.ClassOf(r).DeleteHomePlan(r.Context(), id); err != nil {
		return err
	}
	s.Flash(r, "The plan is deleted.")
	http.Redirect(w, r, fmt.Sprintf("/students/%d/plan", id), http.StatusSeeOther)
	return nil
}
