package lesson

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"time"

	"unhurriedbench/core/checkin"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// checkinsView is when a class's students play for the teacher, and what.
type checkinsView struct {
	site.BoardAround
	Guest   store.Guest
	Minutes string // as typed
	Day     string // as typed
	Problem string
	Waiting int // whose day has come
	In      int // of them, that fit the minutes
	Lines   []checkinLine
}

// checkinLine is a student with the check-in to come, and the last one.
type checkinLine struct {
	store.Student
	Title string // of the instrument
	Next  store.Checkin
	Last  store.Checkin
	When  string // "today", "Tue 1 Dec", "" for none set
	Heard string // when they were heard last, "" for never
	Late  bool   // the day is past
	Now   bool   // the day is there or past
}

// Asks says what is due in a line.
func (l checkinLine) Asks() string { return teach.DueWords(l.Next.Due) }

func (s *handlers) checkins(w http.ResponseWriter, r *http.Request) error {
	return s.showCheckins(w, r, http.StatusOK, "")
}

func (s *handlers) showCheckins(w http.ResponseWriter, r *http.Request, status int, problem string) error {
	v := checkinsView{Guest: site.ClassOf(r).Guest(), Problem: problem, Minutes: site.Text(r, "minutes"),
		Day: site.Text(r, "on")}
	var err error
	if v.BoardAround, err = s.BoardAround(r, "check-ins"); err == nil {
		err = v.fill(r.Context(), site.ClassOf(r))
	}
	if err != nil {
		return err
	}
	s.Page(w, r, status, "checkins", "Check-ins", v)
	return nil
}

// Link is the address of the check-ins of a class.
func (v checkinsView) Link(_ string, class store.ClassID) string {
	return fmt.Sprintf("/check-ins?class=%d", class)
}

func (v *checkinsView) fill(ctx context.Context, desk *teach.Class) error {
	minutes, _ := strconv.Atoi(v.Minutes)
	if v.Minutes == "" {
		minutes, v.Minutes = teach.UsualHearing, strconv.Itoa(teach.UsualHearing)
	}
	today := teach.DateOf(desk.Now())
	if v.Day == "" {
		v.Day = today.AddDate(0, 0, checkin.DaysOn).Format(time.DateOnly)
	}
	students, err := desk.Students(ctx, v.Class.ID)
	if err != nil {
		return err
	}
	list, err := desk.ClassCheckins(ctx, v.Class.ID)
	if err != nil {
		return err
	}
	for _, student := range teach.InScoreOrder(students) {
		line := checkinLine{Student: student, Title: teach.InstrumentTitle(student.Instrument)}
		for _, c := range list {
			switch {
			case c.Student != student.ID:
			case c.Heard == nil:
				line.Next, line.When = c, teach.DayWords(c.On, desk.Now())
				line.Late, line.Now = c.On.Before(today), !c.On.After(today)
			default:
				line.Last, line.Heard = c, teach.Day(*c.Heard, desk.Now())
			}
		}
		v.Lines = append(v.Lines, line)
	}
	queue, in := checkin.Queue(teach.Waiting(list, students, today), minutes)
	v.Waiting, v.In = len(queue), in
	return nil
}

// setCheckins sets a day for a whole class, or for the student who is named, with what is
// due for each.
func (s *handlers) setCheckins(w http.ResponseWriter, r *http.Request) error {
	_, class, err := site.ClassOf(r).ChooseClass(r.Context(), store.ClassID(site.Number(r, "class")))
	if err != nil {
		return err
	}
	on, problem := site.ReadDay(site.Text(r, "on"))
	minutes, wrong := site.ReadMinutes(site.Text(r, "minutes"), 1, teach.MostHearing)
	problem = cmp.Or(wrong, problem)
	if problem != "" {
		return s.showCheckins(w, r, http.StatusUnprocessableEntity, problem)
	}
	students, err := site.ClassOf(r).Students(r.Context(), class.ID)
	if err != nil {
		return err
	}
	list, err := site.ClassOf(r).ClassCheckins(r.Context(), class.ID)
	if err != nil {
		return err
	}
	one, all := store.StudentID(site.Number(r, "student")), site.Text(r, "all") != ""
	share := checkin.Share(minutes, len(teach.Playing(students)))
	var whose []store.Student
	for _, student := range students {
		has := slices.ContainsFunc(list, func(c store.Checkin) bool { return c.Student == student.ID && c.Heard == nil })
		if one == student.ID || one == 0 && (all || !has) && (!student.Aside || has) {
			whose = append(whose, student)
		}
	}
	if len(whose) == 0 {
		return s.showCheckins(w, r, http.StatusUnprocessableEntity,
			"Everybody has a day already. Tick “and students who have a day already” to schedule them again.")
	}
	due, err := teach.ProposeDue(r.Context(), site.ClassOf(r), class.ID, whose, list, share)
	if err != nil {
		return err
	}
	set := make([]store.Checkin, len(whose))
	for k, student := range whose {
		set[k] = store.Checkin{Student: student.ID, On: on, Due: due[student.ID]}
	}
	if err := site.ClassOf(r).SetCheckins(r.Context(), set...); err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("%s for %s.", teach.Capital(teach.DayWords(on, s.Now())), teach.Plural(len(set), "student", "students")))
	http.Redirect(w, r, fmt.Sprintf("/check-ins?class=%d", class.ID), http.StatusSeeOther)
	return nil
}

// deleteCheckin takes a check-in away that is still to come.
func (s *handlers) deleteCheckin(w http.ResponseWriter, r *http.Request) error {
	if err := site.ClassOf(r).DeleteCheckin(r.Context(), site.ID[store.CheckinID](r)); err != nil {
		return err
	}
	s.Flash(r, "The check-in is deleted.")
	http.Redirect(w, r, fmt.Sprintf("/check-ins?class=%d", site.Number(r, "class")), http.StatusSeeOther)
	return nil
}
