package lesson

import (
	"errors"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strconv"

	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// planView is a lesson before it begins, to be read and changed.
type planView struct {
	store.Lesson
	Class     store.Class
	Day       string // "Tuesday, 1 December"
	Rows      []planRow
	Phases    []planPhase
	Halves    int
	Spare     int // half minutes that are left
	Playing   string
	Exercises []store.Exercise
	Steps     routine.Routine // that the class follows
	Shape     *shapeView      // nil while the lesson runs
	Edit      bool            // the steps are open to be changed
	Problem   string
}

// planRow is a step of a plan.
type planRow struct {
	lesson.Step
	K           int
	Fits        bool
	First, Last bool
}

// planPhase is a part of the lesson with its lines.
type planPhase struct {
	Word  string
	Time  string
	Lines []planLine
}

// planLine is an exercise in a part of a lesson, with its steps.
type planLine struct {
	Title string // "7 · Open Water"
	Why   string
	Steps []planRow
}

// Time is how long the step takes, in words.
func (p planRow) Time() string { return lesson.Time(p.Halves()) }

// Ladder is the tempos the step may have.
func (p planRow) Ladder() []int { return routine.Ladder(p.Tempo) }

// Counts is how often it may be done.
func (planRow) Counts() []int { return teach.UpTo(lesson.MostTimes) }

// Sounds says whether the step is played.
func (p planRow) Sounds() bool { return p.Sounding(false) > 0 }

// Time is how long all that fits takes, in words.
func (v planView) Time() string { return lesson.Time(v.Halves) }

// Count is how many steps fit.
func (v planView) Count() int { return len(v.In()) }

// Link is the address of a page of the lesson.
func (v planView) Link(page string) string { return teach.LessonLink(v.Lesson, page) }

// In lists what fits.
func (v planView) In() []planRow {
	return slices.DeleteFunc(slices.Clone(v.Rows), func(p planRow) bool { return !p.Fits })
}

// Out lists what does not fit.
func (v planView) Out() []planRow {
	return slices.DeleteFunc(slices.Clone(v.Rows), func(p planRow) bool { return p.Fits })
}

// shapeView is how the class's lessons are laid out, to be changed.
type shapeView struct {
	lesson.Shape
	Rows  []shapeRow
	Units []shapeUnit
	Notes []shapeNote
	Line  string // "7 · Open Water", that the units are shown with; "" where nothing is new
	Words string // "3, 3, 6, 16, 2 min"

	Exercises []store.Exercise // of which one may be in the warm-up
}

// shapeRow is the minutes of a part of a lesson.
type shapeRow struct {
	Phase   lesson.Phase
	Minutes int
}

// shapeUnit is a unit with what it does to the line.
type shapeUnit struct {
	lesson.Unit
	Chosen bool
	Does   string
}

// shapeNote is a note to gather on.
type shapeNote struct {
	Key, Name string
	Chosen    bool
}

// WithoutNames says whether naming is left out.
func (v shapeView) WithoutNames() bool { return slices.Contains(v.Without, routine.Name) }

// lesson shows a lesson: planned, running or over.
func (s *handlers) lesson(w http.ResponseWriter, r *http.Request) error {
	l, err := site.ClassOf(r).Lesson(r.Context(), site.ID[store.LessonID](r))
	if err != nil {
		return err
	}
	if l.Ended != nil {
		return s.showAfter(w, r, l)
	}
	return s.showPlan(w, r, http.StatusOK, l, "")
}

func (s *handlers) showPlan(w http.ResponseWriter, r *http.Request, status int, l store.Lesson, problem string) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	_, class, err := desk.ChooseClass(ctx, l.Class)
	if err != nil {
		return err
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		return err
	}
	v := newPlanView(l, class, problem)
	v.Edit = site.IsHTMX(r) || problem != "" || site.Text(r, "edit") != "" || len(v.Rows) == 0
	if v.Day = l.Made.Format("Monday, 2 January"); l.Running() {
		v.Day = l.Begun.Format("Monday, 2 January")
	}
	v.Steps = rules.In(store.Chooser{Class: l.Class}).Steps
	if v.Exercises, err = desk.Exercises(ctx); err != nil {
		return err
	}
	if site.IsHTMX(r) {
		s.Render(w, status, "lesson", "plan", v)
		return nil
	}
	if !l.Running() && desk.Guest().Own() {
		if v.Shape, err = newShapeView(r, l, class); err != nil {
			return err
		}
	}
	s.Page(w, r, status, "lesson", "Lesson of "+class.Name, v)
	return nil
}

func newPlanView(l store.Lesson, class store.Class, problem string) planView {
	fitted := l.Plan.Fit()
	v := planView{Lesson: l, Class: class, Halves: fitted.Halves, Spare: max(0, 2*l.Plan.Minutes-fitted.Halves), Problem: problem}
	for k, step := range l.Plan.Steps {
		v.Rows = append(v.Rows, planRow{Step: step, K: k, Fits: slices.Contains(fitted.In, k), First: k == 0,
			Last: k == len(l.Plan.Steps)-1})
	}
	halves := 0
	for _, row := range v.In() {
		halves = v.place(row, halves)
	}
	if sounding, all := l.Plan.Sounding(class.Year <= 1); all > 0 {
		v.Playing = fmt.Sprintf("Sounding %.0f min, %.0f %%", math.Round(sounding/60), 100*sounding/all)
	}
	return v
}

// place puts a step under its part of the lesson and its exercise; halves are those of the part
// so far.
func (v *planView) place(row planRow, halves int) int {
	word := row.Phase.Word()
	if last := len(v.Phases) - 1; last < 0 || v.Phases[last].Word != word {
		v.Phases, halves = append(v.Phases, planPhase{Word: word}), 0
	}
	p := &v.Phases[len(v.Phases)-1]
	halves += row.Halves()
	p.Time = lesson.Time(halves)
	title := fmt.Sprintf("%d · %s", row.Number, row.Title)
	if row.Warm {
		title = ""
	}
	if last := len(p.Lines) - 1; last < 0 || p.Lines[last].Title != title {
		p.Lines = append(p.Lines, planLine{Title: title, Why: row.Why})
	}
	line := &p.Lines[len(p.Lines)-1]
	line.Steps = append(line.Steps, row)
	return halves
}

func newShapeView(r *http.Request, l store.Lesson, class store.Class) (*shapeView, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	v := &shapeView{Shape: class.Shape.Shape}
	for k, p := range lesson.Phases() {
		if v.Rows = append(v.Rows, shapeRow{p, v.MinutesOf(p)}); k > 0 {
			v.Words += ", "
		}
		v.Words += strconv.Itoa(v.MinutesOf(p))
	}
	v.Words += " min"
	var line lesson.Line
	if k := slices.IndexFunc(l.Plan.Steps, func(s lesson.Step) bool { return s.Phase == lesson.New }); k >= 0 {
		standings, err := desk.ClassStandings(ctx, class.ID)
		if err != nil {
			return nil, err
		}
		line, err = teach.LessonLine(ctx, desk, class.ID, store.ExerciseID(l.Plan.Steps[k].Exercise), standings)
		var unread score.Problems
		if err != nil && !errors.Is(err, store.ErrNotFound) && !errors.As(err, &unread) {
			return nil, err
		}
	}
	for _, u := range lesson.Units() {
		unit := shapeUnit{Unit: u, Chosen: u == v.UnitOf()}
		if len(line.Chunks) > 0 {
			unit.Does = u.Said(line, v.Without)
			v.Line = fmt.Sprintf("%d · %s", line.Number, line.Title)
		}
		v.Units = append(v.Units, unit)
	}
	students, err := desk.Students(ctx, class.ID)
	if err != nil {
		return nil, err
	}
	saved, err := teach.LoadSettings(ctx, desk)
	if err != nil {
		return nil, err
	}
	chosen := teach.ClassNote(class, students)
	for _, c := range teach.ClassNotes(class, students, saved) {
		v.Notes = append(v.Notes, shapeNote{c.Key, c.Name, c.Key == teach.KeyOf(chosen)})
	}
	v.Exercises, err = desk.Exercises(ctx)
	return v, err
}

// mostOfPhase is the most minutes that a part of a lesson of half an hour may have.
const mostOfPhase = 20

// saveShape keeps how the class's lessons are laid out, and suggests the lesson by it.
func (s *handlers) saveShape(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	l, err := desk.Lesson(ctx, site.ID[store.LessonID](r))
	if err != nil {
		return err
	}
	_, class, err := desk.ChooseClass(ctx, l.Class)
	if err != nil {
		return err
	}
	shape := lesson.Shape{Minutes: map[lesson.Phase]int{}, Scale: site.Text(r, "scale") == "yes"}
	sum := 0
	for _, p := range lesson.Phases() {
		if p == lesson.New {
			continue
		}
		minutes, problem := site.ReadMinutes(site.Text(r, string(p)), 0, mostOfPhase)
		if problem != "" {
			return s.showPlan(w, r, http.StatusUnprocessableEntity, l, p.Word()+": "+problem)
		}
		shape.Minutes[p] = minutes
		sum += minutes
	}
	if sum > lesson.UsualMinutes {
		return s.showPlan(w, r, http.StatusUnprocessableEntity, l,
			fmt.Sprintf("The parts add up to %d min. A lesson of %d min has no more.", sum, lesson.UsualMinutes))
	}
	if unit, known := lesson.ParseUnit(site.Text(r, "unit")); known && unit != lesson.Usual {
		shape.Unit = unit
	}
	if site.Text(r, "without-names") == "yes" {
		shape.Without = []routine.Stage{routine.Name}
	}
	if note := site.Text(r, "note"); teach.IsClassNote(note) {
		shape.Note = note
	}
	if id := store.ExerciseID(site.Number(r, "technique")); id != 0 {
		if _, err := desk.Exercise(ctx, id); err != nil {
			return s.showPlan(w, r, http.StatusUnprocessableEntity, l, "The exercise for the warm-up is not there any more. Choose another.")
		}
		shape.Technique = int64(id)
	}
	if err := desk.SaveShape(ctx, class.ID, shape); err != nil {
		return err
	}
	if l.Begun != nil {
		http.Redirect(w, r, teach.LessonLink(l, ""), http.StatusSeeOther)
		return nil
	}
	class.Shape.Shape = shape
	return s.suggest(w, r, class, l.Plan.Minutes)
}
