package lesson

import (
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"time"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// lessonsView is the page that plans lessons.
type lessonsView struct {
	Classes []store.Class
	Class   store.Class
	Guest   store.Guest
	Minutes string
	Problem string
	Lessons []lessonLine

	Exercises []store.Exercise // to choose from
}

// lessonLine is a lesson in the list.
type lessonLine struct {
	store.Lesson
	When  string
	Words string
	Link  string
}

func (s *handlers) lessons(w http.ResponseWriter, r *http.Request) error {
	return s.showLessons(w, r, http.StatusOK, "", "")
}

func (s *handlers) showLessons(w http.ResponseWriter, r *http.Request, status int, minutes, problem string) error {
	v := lessonsView{Guest: site.ClassOf(r).Guest(), Minutes: minutes, Problem: problem}
	var err error
	if v.Classes, v.Class, err = site.ClassOf(r).ChooseClass(r.Context(),
		store.ClassID(site.Number(r, "class"))); err != nil {
		return err
	}
	list, err := site.ClassOf(r).Lessons(r.Context(), v.Class.ID, teach.MostLessons)
	if err != nil {
		return err
	}
	if v.Exercises, err = site.ClassOf(r).Exercises(r.Context()); err != nil {
		return err
	}
	for _, l := range list {
		v.Lessons = append(v.Lessons, newLessonLine(l, site.ClassOf(r).Now()))
	}
	if v.Minutes == "" {
		v.Minutes = strconv.Itoa(teach.UsualMinutes)
		if len(list) > 0 {
			v.Minutes = strconv.Itoa(list[0].Plan.Minutes)
		}
	}
	s.Page(w, r, status, "lessons", "Lesson", v)
	return nil
}

func newLessonLine(l store.Lesson, now time.Time) lessonLine {
	fitted := l.Plan.Fit()
	line := lessonLine{Lesson: l, Link: teach.LessonLink(l, ""), Words: fmt.Sprintf("%d steps, %s of %d min",
		len(fitted.In), lesson.Time(fitted.Halves), l.Plan.Minutes)}
	switch {
	case l.Ended != nil:
		line.When = teach.Day(*l.Begun, now)
	case l.Running():
		line.When, line.Link = "now", teach.LessonLink(l, "/run")
	default:
		line.When = "planned " + teach.Day(l.Made, now)
	}
	return line
}

// planLesson suggests a lesson for the minutes that were typed.
func (s *handlers) planLesson(w http.ResponseWriter, r *http.Request) error {
	_, class, err := site.ClassOf(r).ChooseClass(r.Context(), store.ClassID(site.Number(r, "class")))
	if err != nil {
		return err
	}
	minutes, problem := site.ReadMinutes(site.Text(r, "minutes"), 1, lesson.MostMinutes)
	if problem != "" {
		return s.showLessons(w, r, http.StatusUnprocessableEntity, site.Text(r, "minutes"), problem)
	}
	if class.ID == 0 {
		return s.showLessons(w, r, http.StatusUnprocessableEntity, site.Text(r, "minutes"),
			"There is no class to teach yet. Add one in Students.")
	}
	return s.suggest(w, r, class, minutes)
}

// suggest lays out a lesson for a class and opens it.
func (s *handlers) suggest(w http.ResponseWriter, r *http.Request, class store.Class, minutes int) error {
	wants := teach.LessonWants{Minutes: minutes}
	if x := store.ExerciseID(site.Number(r, "exercise")); x != 0 {
		if _, err := site.ClassOf(r).Exercise(r.Context(), x); err != nil {
			return err
		}
		wants.Chosen = []store.ExerciseID{x}
	}
	plan, err := teach.SuggestLesson(r.Context(), site.ClassOf(r), class, wants)
	if err != nil {
		return err
	}
	id, err := site.ClassOf(r).AddLesson(r.Context(), class.ID, plan)
	if err != nil {
		return err
	}
	http.Redirect(w, r, teach.LessonLink(store.Lesson{ID: id, Class: class.ID}, ""), http.StatusSeeOther)
	return nil
}

// changePlan does to a plan what was pressed, and shows what it adds up to.
func (s *handlers) changePlan(w http.ResponseWriter, r *http.Request) error {
	l, err := site.ClassOf(r).Lesson(r.Context(), site.ID[store.LessonID](r))
	if err != nil {
		return err
	}
	problem := changedPlan(&l.Plan, r)
	if site.Text(r, "do") == "add" {
		problem, err = s.addToPlan(r, &l)
	}
	if err == nil && problem == "" {
		err = site.ClassOf(r).SavePlan(r.Context(), l.ID, l.Plan)
	}
	switch {
	case err != nil:
		return err
	case problem != "":
		return s.showPlan(w, r, http.StatusUnprocessableEntity, l, problem)
	case site.IsHTMX(r):
		return s.showPlan(w, r, http.StatusOK, l, "")
	default:
		http.Redirect(w, r, teach.LessonLink(l, ""), http.StatusSeeOther)
	}
	return nil
}

// changedPlan changes a plan by what a form asks for: "do" with the step, from 0, in "at".
func changedPlan(p *lesson.Plan, r *http.Request) (problem string) {
	k, figure := int(site.Number(r, "at")), int(site.Number(r, "to"))
	if site.Text(r, "do") == "minutes" {
		minutes, problem := site.ReadMinutes(site.Text(r, "to"), 1, lesson.MostMinutes)
		if problem == "" {
			p.Minutes = minutes
		}
		return problem
	}
	if k < 0 || k >= len(p.Steps) {
		return ""
	}
	step := &p.Steps[k]
	do := site.Text(r, "do")
	for _, pressed := range []string{"up", "down", "drop"} {
		if site.Text(r, pressed) != "" {
			do = pressed
		}
	}
	switch do {
	case "up", "down":
		to := k + map[string]int{"up": -1, "down": 1}[do]
		if to >= 0 && to < len(p.Steps) {
			p.Steps[k], p.Steps[to] = p.Steps[to], p.Steps[k]
		}
	case "move":
		moved := *step
		p.Steps = slices.Insert(slices.Delete(p.Steps, k, k+1), max(0, min(figure, len(p.Steps)-1)), moved)
	case "drop":
		p.Steps = slices.Delete(p.Steps, k, k+1)
	case "times":
		step.Times = max(1, min(figure, lesson.MostTimes))
	case "tempo":
		if slices.Contains(routine.Ladder(step.Tempo), figure) {
			step.Tempo = figure
		}
	case "talk":
		step.Talk = max(0, min(figure, lesson.MostTalk))
	}
	return ""
}

// addToPlan adds the stages of a chunk to a plan, before what closes the lesson.
func (s *handlers) addToPlan(r *http.Request, l *store.Lesson) (problem string, err error) {
	standings, err := site.ClassOf(r).ClassStandings(r.Context(), l.Class)
	if err != nil {
		return "", err
	}
	chunks, err := teach.LessonChunks(r.Context(), site.ClassOf(r), l.Class,
		store.ExerciseID(site.Number(r, "exercise")), standings)
	if errors.Is(err, store.ErrNotFound) {
		return "Choose an exercise from the list.", nil
	}
	if err != nil {
		return "", err
	}
	label := site.Text(r, "chunk")
	k := slices.IndexFunc(chunks, func(p lesson.Chunk) bool { return p.Label == label })
	if k < 0 {
		var there []string
		for _, p := range chunks {
			there = append(there, p.Label)
		}
		return fmt.Sprintf("%d · %s has no chunk %s. It has %s.", chunks[0].Number, chunks[0].Title, label,
			strings.Join(there, ", ")), nil
	}
	var steps []lesson.Step
	switch stage := routine.Stage(site.Text(r, "stage")); {
	case stage == "":
		steps = chunks[k].From(teach.GoesOnAt(chunks[k]), "added by you")
	case chunks[k].Steps.Has(stage):
		steps = []lesson.Step{chunks[k].Do(stage, lesson.TalkStage, "added by you")}
	default:
		return "Choose a stage from the list.", nil
	}
	for n := range steps {
		steps[n].Phase = lesson.New
	}
	at := slices.IndexFunc(l.Plan.Steps, func(s lesson.Step) bool { return s.Closing })
	if at < 0 {
		at = len(l.Plan.Steps)
	}
	if !l.Plan.Insert(at, steps...) {
		return teach.FullPlan, nil
	}
	return "", nil
}

// deleteLesson takes a planned lesson away.
func (s *handlers) deleteLesson(w http.ResponseWriter, r *http.Request) error {
	if err := site.ClassOf(r).DeleteLesson(r.Context(), site.ID[store.LessonID](r)); err != nil {
		return err
	}
	s.Flash(r, "The plan is deleted. Suggest another one when you like.")
	http.Redirect(w, r, fmt.Sprintf("/lessons?class=%d", site.Number(r, "class")), http.StatusSeeOther)
	return nil
}

// beginLesson begins a lesson.
func (s *handlers) beginLesson(w http.ResponseWriter, r *http.Request) error {
	id := site.ID[store.LessonID](r)
	if err := site.ClassOf(r).BeginLesson(r.Context(), id); err != nil {
		return err
	}
	http.Redirect(w, r, teach.LessonLink(store.Lesson{ID: id, Class: store.ClassID(site.Number(r, "class"))},
		"/run"), http.StatusSeeOther)
	return nil
}

// endLesson ends a lesson and shows what was done.
func (s *handlers) endLesson(w http.ResponseWriter, r *http.Request) error {
	id := site.ID[store.LessonID](r)
	if err := site.ClassOf(r).EndLesson(r.Context(), id); err != nil {
		return err
	}
	http.Redirect(w, r, teach.LessonLink(store.Lesson{ID: id, Class: store.ClassID(site.Number(r, "class"))}, ""),
		http.StatusSeeOther)
	return nil
}
