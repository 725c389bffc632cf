package web

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"unhurriedbench/core/checkin"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/progress"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// usualHearing is how many minutes hearing a section takes where nothing is said.
const usualHearing = 10

// mostHearing is the most minutes of it.
const mostHearing = 180

// checkinsView is when a section's students play for the teacher, and what.
type checkinsView struct {
	boardAround
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
func (l checkinLine) Asks() string { return dueWords(l.Next.Due) }

// dueWords says what is due in a line: "6 · Ferry Landing, B: Play; …".
func dueWords(due []lesson.Step) string {
	words := make([]string, len(due))
	for k, s := range due {
		words[k] = s.Name()
	}
	return strings.Join(words, "; ")
}

func (s *Server) checkins(w http.ResponseWriter, r *http.Request) {
	s.showCheckins(w, r, http.StatusOK, "")
}

func (s *Server) showCheckins(w http.ResponseWriter, r *http.Request, status int, problem string) {
	v := checkinsView{Guest: deskOf(r).Guest(), Problem: problem, Minutes: text(r, "minutes"), Day: text(r, "on")}
	var err error
	if v.boardAround, err = s.boardAround(r, "check-ins"); err == nil {
		err = v.fill(r.Context(), deskOf(r))
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.page(w, r, status, "checkins", "Check-ins", v)
}

// Link is the address of the check-ins of a section.
func (v checkinsView) Link(_ string, section store.SectionID) string {
	return fmt.Sprintf("/check-ins?section=%d", section)
}

func (v *checkinsView) fill(ctx context.Context, desk *teach.Class) error {
	minutes, _ := strconv.Atoi(v.Minutes)
	if v.Minutes == "" {
		minutes, v.Minutes = usualHearing, strconv.Itoa(usualHearing)
	}
	today := dateOf(time.Now())
	if v.Day == "" {
		v.Day = today.AddDate(0, 0, checkin.DaysOn).Format(time.DateOnly)
	}
	students, err := desk.Students(ctx, v.Section.ID)
	if err != nil {
		return err
	}
	list, err := desk.SectionCheckins(ctx, v.Section.ID)
	if err != nil {
		return err
	}
	for _, student := range inScoreOrder(students) {
		line := checkinLine{Student: student, Title: instrumentTitle(student.Instrument)}
		for _, c := range list {
			switch {
			case c.Student != student.ID:
			case c.Heard == nil:
				line.Next, line.When = c, dayWords(c.On)
				line.Late, line.Now = c.On.Before(today), !c.On.After(today)
			default:
				line.Last, line.Heard = c, day(*c.Heard)
			}
		}
		v.Lines = append(v.Lines, line)
	}
	queue, in := checkin.Queue(waiting(list, students, today), minutes)
	v.Waiting, v.In = len(queue), in
	return nil
}

// dayWords says a day that may be to come: "today", "tomorrow", "Tue 1 Dec".
func dayWords(on time.Time) string {
	switch int(on.Sub(dateOf(time.Now())).Hours() / 24) {
	case 0:
		return "today"
	case 1:
		return "tomorrow"
	case -1:
		return "yesterday"
	}
	return on.Format("Mon 2 Jan")
}

// waiting are those of a section's check-ins whose day has come, in score order.
func waiting(list []store.Checkin, students []store.Student, today time.Time) []checkin.Waiting {
	heard := map[store.StudentID]int64{}
	for _, c := range list {
		if c.Heard != nil {
			heard[c.Student] = c.Heard.Unix()
		}
	}
	var some []checkin.Waiting
	for _, student := range inScoreOrder(students) {
		for _, c := range list {
			if c.Student == student.ID && c.Heard == nil && !c.On.After(today) {
				some = append(some, checkin.Waiting{ID: int64(c.ID), On: c.On.Unix(), Heard: heard[c.Student], Seconds: checkin.Seconds(c.Due)})
			}
		}
	}
	return some
}

// queue is who of a section waits to be heard today, in order.
func checkinQueue(ctx context.Context, desk *teach.Class, section store.SectionID) ([]checkin.Waiting, error) {
	students, err := desk.Students(ctx, section)
	if err != nil {
		return nil, err
	}
	list, err := desk.SectionCheckins(ctx, section)
	if err != nil {
		return nil, err
	}
	queue, _ := checkin.Queue(waiting(list, students, dateOf(time.Now())), 0) // who fits is not asked
	return queue, nil
}

// setCheckins sets a day for a whole section, or for the student who is named, with what is
// due for each.
func (s *Server) setCheckins(w http.ResponseWriter, r *http.Request) {
	_, section, err := deskOf(r).ChooseSection(r.Context(), store.SectionID(number(r, "section")))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	on, problem := readDay(text(r, "on"))
	minutes, wrong := readMinutes(text(r, "minutes"), 1, mostHearing)
	problem = cmp.Or(wrong, problem)
	if problem != "" {
		s.showCheckins(w, r, http.StatusUnprocessableEntity, problem)
		return
	}
	students, err := deskOf(r).Students(r.Context(), section.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	list, err := deskOf(r).SectionCheckins(r.Context(), section.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	one, all := store.StudentID(number(r, "student")), text(r, "all") != ""
	share := checkin.Share(minutes, len(playing(students)))
	var whose []store.Student
	for _, student := range students {
		has := slices.ContainsFunc(list, func(c store.Checkin) bool { return c.Student == student.ID && c.Heard == nil })
		if one == student.ID || one == 0 && (all || !has) && (!student.Aside || has) {
			whose = append(whose, student)
		}
	}
	if len(whose) == 0 {
		s.showCheckins(w, r, http.StatusUnprocessableEntity, "Everybody has a day already. Tick “and whoever has a day already” to set it anew.")
		return
	}
	due, err := dueFor(r.Context(), deskOf(r), section.ID, whose, list, share)
	if err != nil {
		s.failedToRead(w, r, err)
		return
	}
	set := make([]store.Checkin, len(whose))
	for k, student := range whose {
		set[k] = store.Checkin{Student: student.ID, On: on, Due: due[student.ID]}
	}
	if err := deskOf(r).SetCheckins(r.Context(), set...); err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, fmt.Sprintf("%s for %s.", capitalWords(dayWords(on)), numbered(len(set), "student", "students")))
	http.Redirect(w, r, fmt.Sprintf("/check-ins?section=%d", section.ID), http.StatusSeeOther)
}

// readMinutes reads a number of minutes, or says what is wrong with it.
func readMinutes(typed string, least, most int) (int, string) {
	minutes, err := strconv.Atoi(typed)
	if err != nil || minutes < least || minutes > most {
		return minutes, fmt.Sprintf("The minutes, “%s”, are no number from %d to %d.", typed, least, most)
	}
	return minutes, ""
}

// readDay reads a day as browsers send it, or says what is wrong with it.
func readDay(typed string) (time.Time, string) {
	on, err := time.Parse(time.DateOnly, typed)
	if err != nil || on.Year() < 2000 || on.Year() > 2200 {
		return on, fmt.Sprintf("The day, “%s”, is none. Write it as year, month and day: 2026-11-20.", typed)
	}
	return on, ""
}

// mostAsked bounds how many exercises are looked into for what is due.
const mostAsked = 6

// dueFor says what is due for some students of a section in so many seconds each.
func dueFor(ctx context.Context, desk *teach.Class, section store.SectionID, students []store.Student, list []store.Checkin, seconds float64) (map[store.StudentID][]lesson.Step, error) {
	w, err := loadSectionWork(ctx, desk, section)
	if err != nil {
		return nil, err
	}
	standings, err := desk.SectionStandings(ctx, section)
	if err != nil {
		return nil, err
	}
	missed, err := notClean(ctx, desk, students, list)
	if err != nil {
		return nil, err
	}
	laidOut := map[store.ExerciseID][]lesson.Piece{}
	due := map[store.StudentID][]lesson.Step{}
	for _, student := range students {
		var pieces []checkin.Piece
		mine := store.Standings{}
		for task, standing := range standings {
			if task.Student == student.ID {
				mine[task] = standing
			}
		}
		recent := recentFirst(w.exercises, mine)
		for _, x := range recent[:min(len(recent), mostAsked)] {
			if _, known := laidOut[x.ID]; !known {
				if laidOut[x.ID], err = lessonPieces(ctx, desk, section, x.ID, standings); err != nil {
					return nil, fmt.Errorf("lay out exercise %d: %w", x.Number, err)
				}
			}
			standing := mine[store.Task{Student: student.ID, Exercise: x.ID}]
			pieces = append(pieces, duePieces(laidOut[x.ID], w, student, x, standing, missed)...)
		}
		due[student.ID] = checkin.Due(pieces, seconds, store.MostDue)
	}
	return due, nil
}

// dueKey is a piece of an exercise that a student may be asked for.
type dueKey struct {
	student  store.StudentID
	exercise int64
	piece    string
}

// notClean are the pieces that students were asked for at their last check-in, and that were
// not heard there, or not clean.
func notClean(ctx context.Context, desk *teach.Class, students []store.Student, list []store.Checkin) (map[dueKey]bool, error) {
	missed := map[dueKey]bool{}
	for _, c := range list {
		if c.Heard == nil || !slices.ContainsFunc(students, func(s store.Student) bool { return s.ID == c.Student }) {
			continue
		}
		tries, err := desk.CheckinTries(ctx, c)
		if err != nil {
			return nil, err
		}
		for _, step := range c.Due {
			if try, heard := heardAt(tries, step); !heard || !try.Clean {
				missed[dueKey{c.Student, step.Exercise, step.Piece.String()}] = true
			}
		}
	}
	return missed, nil
}

// heardAt is the last try at a piece among those of a check-in.
func heardAt(tries []store.Attempt, step lesson.Step) (try store.Attempt, heard bool) {
	for _, a := range slices.Backward(tries) {
		if int64(a.ExerciseID) == step.Exercise && a.Piece == step.Piece {
			return a, true
		}
	}
	return try, false
}

// duePieces are the pieces of an exercise as they are to a student.
func duePieces(laidOut []lesson.Piece, w sectionWork, student store.Student, x store.Exercise, standing *progress.Standing, missed map[dueKey]bool) []checkin.Piece {
	steps, outline := w.rules.For(student.ID, x.ID), w.own.Of(x, student.Instrument)
	var pieces []checkin.Piece
	for _, key := range outline.Pieces {
		k := slices.IndexFunc(laidOut, func(p lesson.Piece) bool { return p.Key == key })
		if k < 0 {
			continue
		}
		p := checkin.Piece{Piece: laidOut[k], Steps: steps, State: standing.State(steps, key), Asked: missed[dueKey{student.ID, int64(x.ID), key.String()}]}
		p.Label = outline.Label(key)
		if standing != nil {
			p.Last = standing.Times[key].Last
			if tempo := p.State.NextTempo(standing.Times[key].Tempo); tempo > 0 {
				p.Tempo = tempo
			}
		}
		pieces = append(pieces, p)
	}
	return pieces
}

// dropCheckin takes a check-in away that is still to come.
func (s *Server) dropCheckin(w http.ResponseWriter, r *http.Request) {
	if err := deskOf(r).DropCheckin(r.Context(), idOf[store.CheckinID](r)); err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, "The check-in is taken away.")
	http.Redirect(w, r, fmt.Sprintf("/check-ins?section=%d", number(r, "section")), http.StatusSeeOther)
}
