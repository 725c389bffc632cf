package web

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/checkin"
	"unhurriedbench/core/homeplan"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// What a plan is made of where nothing is chosen: four days a week, a quarter of an hour.
// Source: common practice.
var usualDays = []int{int(time.Monday), int(time.Tuesday), int(time.Thursday), int(time.Saturday)}

const usualHomeMinutes = 15

// homePlanView is a student's plan, with the form that makes it.
type homePlanView struct {
	Student  store.Student
	Title    string // of the instrument
	Guest    store.Guest
	Has      bool // there is a plan
	Until    string
	Weekdays []int
	Minutes  int
	Days     []homeDay
	Left     []homeplan.Left
	CheckIn  string // when it is, "" for none to come
	Problem  string
	Print    bool // it stands among those of a section, to be printed
	Own      *ownLink

	MinutesTyped string // in a form that was refused
	plan         *store.HomePlan
	Done         homeDone // what was done of it
}

// homeDay is a day of the page.
type homeDay struct {
	On      string // "2026-12-01"
	Name    string // "Tue 1 Dec"
	Minutes int    // there are
	Time    string // the lines take
	Items   []homeItem
	Past    bool
}

// homeItem is a line of a day.
type homeItem struct {
	homeplan.Item
	Form routine.Stage
	Name string
	How  string // "three times, at 72"
	Time string
}

// Week lists the weekdays, Monday first.
func (homePlanView) Week() []time.Weekday {
	return []time.Weekday{time.Monday, time.Tuesday, time.Wednesday, time.Thursday, time.Friday, time.Saturday, time.Sunday}
}

// dayNumber counts a day from 1 January 1970.
func dayNumber(t time.Time) int { return int(dateOf(t).Unix() / (24 * 60 * 60)) }

func (s *Server) homePlan(w http.ResponseWriter, r *http.Request) {
	s.showHomePlan(w, r, http.StatusOK, "")
}

func (s *Server) showHomePlan(w http.ResponseWriter, r *http.Request, status int, problem string) {
	v, err := loadHomePlan(r.Context(), deskOf(r), idOf[store.StudentID](r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if v.Own, err = s.ownLinkOf(r, v.Student.ID); err != nil {
		s.failed(w, r, err)
		return
	}
	if err := addDone(r.Context(), deskOf(r), &v); err != nil {
		s.failed(w, r, err)
		return
	}
	if v.Problem = problem; problem != "" {
		keepTyped(&v, r)
	}
	s.page(w, r, status, "homeplan", "Plan of "+v.Student.Name(), v)
}

// addDone adds what the student has done at home.
func addDone(ctx context.Context, desk *teach.Class, v *homePlanView) error {
	log, err := desk.StudentAttempts(ctx, v.Student.ID)
	if err != nil {
		return err
	}
	v.Done, err = loadHomeDone(ctx, desk, v.Student, v.plan, log)
	return err
}

// keepTyped keeps what was typed into the form that makes a plan, where it was that form.
func keepTyped(v *homePlanView, r *http.Request) {
	if !r.Form.Has("until") {
		return
	}
	v.Until, v.Minutes, v.MinutesTyped = text(r, "until"), 0, text(r, "minutes")
	v.Weekdays = typedWeekdays(r)
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

// MinutesField is what stands in the field of minutes.
func (v homePlanView) MinutesField() string { return cmp.Or(v.MinutesTyped, strconv.Itoa(v.Minutes)) }

func loadHomePlan(ctx context.Context, desk *teach.Class, student store.StudentID) (homePlanView, error) {
	v := homePlanView{Guest: desk.Guest(), Weekdays: usualDays, Minutes: usualHomeMinutes}
	var err error
	if v.Student, err = desk.StudentByID(ctx, student); err != nil {
		return v, err
	}
	v.Title = instrumentTitle(v.Student.Instrument)
	until, err := nextCheckin(ctx, desk, student)
	if err != nil {
		return v, err
	}
	if !until.IsZero() {
		v.CheckIn = dayWords(until)
	} else {
		until = dateOf(time.Now()).AddDate(0, 0, checkin.DaysOn)
	}
	v.Until = until.Format(time.DateOnly)
	p, err := desk.HomePlan(ctx, student)
	if errors.Is(err, store.ErrNotFound) {
		return v, nil
	}
	if err != nil {
		return v, err
	}
	v.show(p)
	return v, nil
}

// nextCheckin is the day of a student's check-in to come, the zero time where there is none
// after today.
func nextCheckin(ctx context.Context, desk *teach.Class, student store.StudentID) (time.Time, error) {
	next, err := desk.NextCheckin(ctx, student)
	if err != nil || next == nil || !next.On.After(dateOf(time.Now())) {
		return time.Time{}, err
	}
	return next.On, nil
}

// show lays a plan out for the page, every day between its first and its last.
func (v *homePlanView) show(p store.HomePlan) {
	v.plan = &p
	v.Has, v.Until, v.Weekdays, v.Minutes, v.Left = true, p.Until.Format(time.DateOnly), p.Weekdays, p.Minutes, p.Plan.Left
	today := dateOf(time.Now())
	for on := p.From; on.Before(p.Until); on = on.AddDate(0, 0, 1) {
		d := homeDay{On: on.Format(time.DateOnly), Name: on.Format("Mon 2 Jan"), Minutes: minutesOn(p, on), Past: on.Before(today)}
		for _, planned := range p.Plan.Days {
			if planned.On != dayNumber(on) {
				continue
			}
			d.Time = lesson.Time(planned.Halves())
			for _, i := range planned.Items {
				d.Items = append(d.Items, newHomeItem(i, v.Student))
			}
		}
		v.Days = append(v.Days, d)
	}
}

// minutesOn is how many minutes a plan has on a day.
func minutesOn(p store.HomePlan, on time.Time) int {
	if minutes, changed := p.Changed[on.Format(time.DateOnly)]; changed {
		return minutes
	}
	if slices.Contains(p.Weekdays, int(on.Weekday())) {
		return p.Minutes
	}
	return 0
}

// warmWords are what an instrument of a family begins with. Source: common practice.
var warmWords = map[string]string{
	"brass": "Long notes: first three notes, eight slow counts each", "woodwind": "Long notes: first three notes, as long as a slow breath each",
	"strings": "Long bows on the open strings, four slow counts each", "percussion": "Even strokes, right and left, soft",
}

func newHomeItem(i homeplan.Item, student store.Student) homeItem {
	item := homeItem{Item: i, Form: i.Step.Form, Name: i.Step.Name(), Time: lesson.Time(i.Halves)}
	switch i.Kind {
	case homeplan.Warm:
		item.Form, item.Name = routine.Play, warmWords[familyOf(student.Instrument)]
		return item
	case homeplan.Cards:
		item.Form, item.Name = routine.Name, "Cards: "+cardsWord(student.Instrument)
		return item
	}
	item.How = inWords(i.Step.Times) + " times"
	if few := [...]string{1: "once", 2: "twice"}; i.Step.Times < len(few) {
		item.How = few[i.Step.Times]
	}
	if i.Kind == homeplan.Twice {
		item.How = "twice in a row"
	}
	if i.Step.Tempo > 0 {
		item.How += fmt.Sprintf(", at %d", i.Step.Tempo)
	}
	if i.Step.Rests {
		item.How += "; lips rest as long as they played"
	}
	return item
}

// cardsWord says what the cards of an instrument are about.
func cardsWord(id string) string {
	if i, _ := instrument.ByID(id); i.Unpitched() {
		return "rhythms, counted aloud"
	}
	return "notes, named and fingered"
}

// familyOf is the family of an instrument.
func familyOf(id string) string {
	i, _ := instrument.ByID(id)
	return i.Family
}

// makeHomePlan makes a student's plan from today until the day given.
func (s *Server) makeHomePlan(w http.ResponseWriter, r *http.Request) {
	student, err := deskOf(r).StudentByID(r.Context(), idOf[store.StudentID](r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	p, problem := readHomePlan(r)
	if problem != "" {
		s.showHomePlan(w, r, http.StatusUnprocessableEntity, problem)
		return
	}
	p.Student = student.ID
	if err := layOutHome(r.Context(), deskOf(r), &p, student, homeReads{}); err != nil {
		s.failedToRead(w, r, err)
		return
	}
	s.afterHomePlan(w, r, p)
}

// readHomePlan reads the days and minutes of a form, or says what is wrong with them.
func readHomePlan(r *http.Request) (store.HomePlan, string) {
	p := store.HomePlan{From: dateOf(time.Now()), Changed: map[string]int{}, Weekdays: typedWeekdays(r)}
	var problem string
	if p.Until, problem = readDay(text(r, "until")); problem != "" {
		return p, problem
	}
	days := dayNumber(p.Until) - dayNumber(p.From)
	p.Minutes, problem = readMinutes(text(r, "minutes"), 1, homeplan.MostMinutes)
	switch {
	case len(p.Weekdays) == 0:
		return p, "Choose at least one day of the week. Four is usual."
	case problem != "":
		return p, problem
	case days < 1:
		return p, "The plan ends before it begins. Choose a day after today."
	case days > homeplan.MostDays:
		return p, fmt.Sprintf("A plan is for at most %d days.", homeplan.MostDays)
	}
	return p, ""
}

// changeHomeDay gives a single day other minutes, and what follows is laid out anew.
func (s *Server) changeHomeDay(w http.ResponseWriter, r *http.Request) {
	ctx, desk := r.Context(), deskOf(r)
	student, err := desk.StudentByID(ctx, idOf[store.StudentID](r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	p, err := desk.HomePlan(ctx, student.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	on, problem := readDay(text(r, "on"))
	minutes, wrong := readMinutes(text(r, "minutes"), 0, homeplan.MostMinutes)
	problem = cmp.Or(problem, wrong)
	if problem == "" && (on.Before(dateOf(time.Now())) || !on.Before(p.Until)) {
		problem = "That day is past, or not in the plan. What follows from today on can be changed."
	}
	if problem != "" {
		s.showHomePlan(w, r, http.StatusUnprocessableEntity, problem)
		return
	}
	if p.Changed == nil {
		p.Changed = map[string]int{}
	}
	p.Changed[on.Format(time.DateOnly)] = minutes
	if err := layOutHome(ctx, desk, &p, student, homeReads{}); err != nil {
		s.failedToRead(w, r, err)
		return
	}
	s.afterHomePlan(w, r, p)
}

func (s *Server) afterHomePlan(w http.ResponseWriter, r *http.Request, p store.HomePlan) {
	if err := deskOf(r).KeepHomePlans(r.Context(), p); err != nil {
		s.failed(w, r, err)
		return
	}
	http.Redirect(w, r, fmt.Sprintf("/students/%d/plan", p.Student), http.StatusSeeOther)
}

// dropHomePlan takes a plan away.
func (s *Server) dropHomePlan(w http.ResponseWriter, r *http.Request) {
	id := idOf[store.StudentID](r)
	if err := deskOf(r).DropHomePlan(r.Context(), id); err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, "The plan is taken away.")
	http.Redirect(w, r, fmt.Sprintf("/students/%d/plan", id), http.StatusSeeOther)
}

// layOutHome lays out a plan from today on; the days before stay as they were.
func layOutHome(ctx context.Context, desk *teach.Class, p *store.HomePlan, student store.Student, reads homeReads) error {
	pieces, err := homePieces(ctx, desk, student, reads)
	if err != nil {
		return err
	}
	today := dateOf(time.Now())
	var days []homeplan.Day
	for on := p.From; on.Before(p.Until); on = on.AddDate(0, 0, 1) {
		if !on.Before(today) {
			days = append(days, homeplan.Day{On: dayNumber(on), Minutes: minutesOn(*p, on)})
		}
	}
	plan := homeplan.Make(days, pieces, homeplan.Daily{Warm: true, Cards: true})
	past := slices.DeleteFunc(p.Plan.Days, func(d homeplan.Planned) bool { return d.On >= dayNumber(today) })
	plan.Days = append(slices.Clone(past), plan.Days...)
	p.Plan = plan
	return nil
}

// homePieces are the pieces that a student may be given to do at home: what is due at the
// check-in to come, and what they have tried last.
func homePieces(ctx context.Context, desk *teach.Class, student store.Student, reads homeReads) ([]homeplan.Piece, error) {
	next, err := desk.NextCheckin(ctx, student.ID)
	if err != nil {
		return nil, err
	}
	due := map[dueKey]bool{}
	wanted := map[store.ExerciseID]bool{}
	if next != nil {
		for _, step := range next.Due {
			due[dueKey{student.ID, step.Exercise, step.Piece.String()}] = true
			wanted[store.ExerciseID(step.Exercise)] = true
		}
	}
	standings, err := desk.StudentStandings(ctx, student.ID)
	if err != nil {
		return nil, err
	}
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return nil, err
	}
	recent := recentFirst(exercises, standings)
	for _, x := range recent[:min(len(recent), mostAsked)] {
		wanted[x.ID] = true
	}
	log, err := desk.StudentAttempts(ctx, student.ID)
	if err != nil {
		return nil, err
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		return nil, err
	}
	var pieces []homeplan.Piece
	for _, x := range exercises {
		if !wanted[x.ID] || x.Unread != "" {
			continue
		}
		standing, steps := standings[store.Task{Student: student.ID, Exercise: x.ID}], rules.For(student.ID, x.ID)
		read, err := readHome(ctx, desk, reads, student, x.ID)
		if err != nil {
			return nil, err
		}
		for _, p := range read.Report.Pieces {
			key := p.Key()
			h := homeplan.Piece{
				Piece: newLessonPiece(read.at, read.explained, p, steps), Steps: steps, State: standing.State(steps, key), Hard: p.Difficulty,
				Due: due[dueKey{student.ID, int64(x.ID), key.String()}],
			}
			h.Lips = read.at.Instrument.LipsTire()
			if standing != nil {
				if tempo := h.State.NextTempo(standing.Times[key].Tempo); tempo > 0 {
					h.Tempo = tempo
				}
			}
			if h.State.Tries == 0 && !h.Due && !nextOf(standing, read.Report.Pieces, key, steps) {
				continue
			}
			h.Last, h.Reviews, _ = homeplan.Learned(steps, datedAt(log, x.ID, key))
			pieces = append(pieces, h)
		}
	}
	return pieces, nil
}

// homeReads are the parts that the plans of a section have been read for, so that each is read
// once.
type homeReads map[homeRead]*readAtHome

// homeRead names an instrument's part of an exercise.
type homeRead struct {
	instrument string
	exercise   store.ExerciseID
}

type readAtHome struct {
	at choice
	explained
	kept taughtBy
}

// readHome reads a student's part of an exercise; it has no pieces where it cannot be read.
func readHome(ctx context.Context, desk *teach.Class, reads homeReads, student store.Student, exercise store.ExerciseID) (*readAtHome, error) {
	name := homeRead{student.Instrument, exercise}
	if known := reads[name]; known != nil {
		return known, nil
	}
	read := &readAtHome{}
	mine := func(_ choice, tab instrumentTab) bool { return tab.ID == student.Instrument }
	_, err := explainEach(ctx, desk, benchAsk{exercise: exercise, section: student.SectionID}, mine, func(at choice, _ instrumentTab, x explained, kept taughtBy) {
		*read = readAtHome{at, x, kept}
	})
	var unread score.Problems
	if err != nil && !errors.As(err, &unread) {
		return nil, err
	}
	reads[name] = read
	return read, nil
}

// alone is a step's piece by itself; ok is false where it is cut otherwise since, or cannot be
// read.
func (read *readAtHome) alone(step lesson.Step) (part stand, ok bool) {
	at, x, ask := read.at, read.explained, askAlone(read.at.Section.ID, step)
	at.ask.line, at.ask.of, at.ask.piece = ask.line, ask.of, ask.piece
	at.choosePiece(ask.piece)
	if len(x.Report.Pieces) == 0 || ask.line != "" && x.openLine(&at) != nil || at.Key != step.Piece {
		return part, false
	}
	return present(work{choice: at, Routine: at.routine(), Stage: step.Stage, Tempo: step.Tempo}, x, read.kept.Preferences), true
}

// nextOf says whether an untried piece is the first in learning order that is not done, of an
// exercise that is begun.
func nextOf(standing *progress.Standing, pieces []breakdown.Piece, key breakdown.PieceKey, steps routine.Routine) bool {
	for _, p := range pieces {
		if standing.State(steps, p.Key()).Stage != routine.Done {
			return p.Key() == key
		}
	}
	return false
}

// datedAt are the tries at a piece, oldest first, of a log that is newest first.
func datedAt(log []store.Attempt, exercise store.ExerciseID, key breakdown.PieceKey) []homeplan.DatedTry {
	var list []homeplan.DatedTry
	for _, a := range slices.Backward(log) {
		if a.ExerciseID == exercise && a.Piece == key && !a.Undone {
			list = append(list, homeplan.DatedTry{Try: a.Try, On: dayNumber(a.At)})
		}
	}
	return list
}
