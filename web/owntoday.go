package web

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"unhurriedbench/core/homeplan"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// ownToday is a student's day: its steps, one at a time, with their music, and the week.
type ownTodayView struct {
	ownFrame
	Instrument string // its title
	Careful    string // a caution for it
	Days       []ownDay
	Week       []ownWeekday
	Today      string // its date
	Weekday    string // it is
	CheckIn    string // the day of the one to come, "" for none
	Note       string // in place of steps, or before them
	Changes    []ownChange
	Music      map[string]runMusic
	Voice      voice
	A4         int
	Scale      []int
	HasPlan    bool // that may be taken into a calendar
	reads      homeReads
}

// ownDay is the steps of a day.
type ownDay struct {
	On    string // "2026-12-01"
	Name  string // "Tuesday"
	Sum   string // "Four steps, 15 min"
	Shown bool   // at first
	Steps []ownStep
}

// ownStep is a step as a student reads it.
type ownStep struct {
	runStep
	Line  string // names it in what is ticked
	Kind  homeplan.Kind
	Name  string
	How   string
	Why   string
	Time  string
	Music string // the key of its music, "" for none
	Rest  bool   // the lips rest as long as they played
	Done  bool
}

// ownWeekday is a day of the week at hand.
type ownWeekday struct {
	On     string
	Short  string
	Name   string
	State  string // "done", "here", "togo" or "free"
	Words  string
	CanTap bool // its steps are in the page
}

// ownChange is what a student may have done otherwise than before.
type ownChange struct{ Key, Words string }

// mostAhead is for how many days a page carries the steps, so that it works without network.
const mostAhead = 8

// changesOf are what may have been changed from one try to the next, on an instrument.
func changesOf(i instrument.Instrument) []string {
	own := map[string]string{"brass": "air", "woodwind": "air", "strings": "bow", "percussion": "sticks"}[i.Family]
	return []string{"slower", "counted", "earlier", own, "nothing"}
}

func (s *Server) ownToday(w http.ResponseWriter, r *http.Request) {
	v, err := s.ownTodayView(r)
	if err != nil {
		s.failedOwn(w, r, err)
		return
	}
	s.render(w, http.StatusOK, "own", "own-layout", v)
}

func (s *Server) ownTodayView(r *http.Request) (ownTodayView, error) {
	ctx, desk, h := r.Context(), deskOf(r), athome(r)
	f, err := newOwnFrame(r, "today")
	v := ownTodayView{ownFrame: f, Music: map[string]runMusic{}, Scale: routine.Notches(), reads: homeReads{}}
	if err != nil {
		return v, err
	}
	target, _ := instrument.ByID(h.Student.Instrument)
	v.Instrument, v.Careful = target.Title(), f.Say("careful."+string(f.Care))
	for _, key := range changesOf(target) {
		v.Changes = append(v.Changes, ownChange{key, f.Say("changed." + key)})
	}
	today := dateOf(time.Now())
	v.Today, v.Weekday = today.Format(time.DateOnly), f.Weekday(today)
	until, err := nextCheckin(ctx, desk, h.Student.ID)
	if err != nil {
		return v, err
	}
	if !until.IsZero() {
		v.CheckIn = f.Say("day.checkin", f.Date(until, true))
	}
	p, err := planOrNext(ctx, desk, h.Student, &v)
	if err != nil {
		return v, err
	}
	for _, planned := range p.Plan.Days {
		for _, i := range planned.Items {
			desk.Expect(store.ExerciseID(i.Step.Exercise))
		}
	}
	monday := today.AddDate(0, 0, -(int(today.Weekday())+6)%7)
	ticks, err := desk.HomeTicks(ctx, 0, h.Student.ID, monday)
	if err != nil {
		return v, err
	}
	done := map[store.HomeTick]bool{}
	for _, t := range ticks[h.Student.ID] {
		done[store.HomeTick{On: dateOf(t.On), Line: t.Line}] = true
	}
	for _, planned := range p.Plan.Days {
		on := dayOf(planned.On)
		if on.Before(today) || len(planned.Items) == 0 || len(v.Days) == mostAhead {
			continue
		}
		d, err := s.ownDay(r, &v, h.Student, planned, done)
		if err != nil {
			return v, err
		}
		v.Days = append(v.Days, d)
	}
	v.showDay(today)
	v.Week = v.week(monday, p, done)
	return v, nil
}

// dayOf is midnight of a day that is counted from 1 January 1970.
func dayOf(number int) time.Time { return time.Unix(int64(number)*24*60*60, 0).UTC() }

// planOrNext is a student's plan; where there is none for today or later, a day with what
// comes next for them.
func planOrNext(ctx context.Context, desk *teach.Class, student store.Student, v *ownTodayView) (store.HomePlan, error) {
	today := dateOf(time.Now())
	p, err := desk.HomePlan(ctx, student.ID)
	if err == nil && p.Until.After(today) {
		v.HasPlan = true
		return p, nil
	}
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return p, err
	}
	v.Note = v.Say("day.noplan")
	p = store.HomePlan{Student: student.ID, From: today, Until: today.AddDate(0, 0, 1), Weekdays: []int{int(today.Weekday())}, Minutes: usualHomeMinutes}
	if err := layOutHome(ctx, desk, &p, student, v.reads); err != nil {
		return p, err
	}
	if !slices.ContainsFunc(p.Plan.Days, func(d homeplan.Planned) bool {
		return slices.ContainsFunc(d.Items, func(i homeplan.Item) bool { return i.Kind.OfAPiece() })
	}) {
		v.Note, p.Plan.Days = v.Say("day.empty"), nil
	}
	return p, nil
}

// showDay shows today's steps, and says so where there are none.
func (v *ownTodayView) showDay(today time.Time) {
	if len(v.Days) > 0 && v.Days[0].On == today.Format(time.DateOnly) {
		v.Days[0].Shown = true
		return
	}
	switch {
	case v.Note != "":
	case len(v.Days) == 0:
		v.Note = v.Say("day.over")
	default:
		v.Note = v.Say("day.none") + " " + v.Say("day.next", v.Days[0].Name)
	}
}

// week is the days from Monday to Sunday.
func (v *ownTodayView) week(monday time.Time, p store.HomePlan, done map[store.HomeTick]bool) []ownWeekday {
	var list []ownWeekday
	for k := range 7 {
		on := monday.AddDate(0, 0, k)
		d := ownWeekday{On: on.Format(time.DateOnly), Short: v.Short(on), Name: v.ownWords.Weekday(on), State: "free"}
		if at := slices.IndexFunc(p.Plan.Days, func(planned homeplan.Planned) bool { return planned.On == dayNumber(on) && len(planned.Items) > 0 }); at >= 0 {
			d.State = "togo"
			if !slices.ContainsFunc(p.Plan.Days[at].Items, func(i homeplan.Item) bool { return !done[store.HomeTick{On: on, Line: homeLine(i)}] }) {
				d.State = "done"
			}
		}
		d.CanTap = slices.ContainsFunc(v.Days, func(day ownDay) bool { return day.On == d.On })
		past := on.Before(dateOf(time.Now()))
		switch {
		case d.State == "done":
			d.Words = v.Say("day.doneOn")
		case d.On == v.Today:
			d.Words, d.State = v.Say("day.here"), cmp.Or(map[string]string{"togo": "here"}[d.State], "free here")
		case d.State == "togo" && !past:
			d.Words = v.Say("day.togo")
		default:
			d.State, d.Words = "free", v.Say("day.free")
		}
		list = append(list, d)
	}
	return list
}

// homeLine names a line of a plan in what is ticked.
func homeLine(i homeplan.Item) string {
	if !i.Kind.OfAPiece() {
		return string(i.Kind)
	}
	line := fmt.Sprintf("%s:%d/%s/%s", i.Kind, i.Step.Exercise, i.Step.Piece, i.Step.Stage)
	return line[:min(len(line), store.LongestLine)]
}

func (s *Server) ownDay(r *http.Request, v *ownTodayView, student store.Student, planned homeplan.Planned, done map[store.HomeTick]bool) (ownDay, error) {
	on := dayOf(planned.On)
	d := ownDay{On: on.Format(time.DateOnly), Name: v.ownWords.Weekday(on)}
	for k, i := range planned.Items {
		step, err := s.ownStep(r, v, student, i)
		if err != nil {
			return d, err
		}
		step.K, step.Done = k, done[store.HomeTick{On: on, Line: step.Line}]
		d.Steps = append(d.Steps, step)
	}
	s.addWarmMusic(v, student, planned, d.Steps)
	steps := v.Say("day.step")
	if n := len(d.Steps); n > 1 {
		steps = v.Say("day.steps", capital(v.Number(n)))
	}
	d.Sum = v.Say("day.sum", steps, v.Say("day.left", (planned.Halves()+1)/2))
	return d, nil
}

// addWarmMusic gives the long notes that a day begins with their music, from its first piece.
func (s *Server) addWarmMusic(v *ownTodayView, student store.Student, planned homeplan.Planned, steps []ownStep) {
	first := slices.IndexFunc(planned.Items, func(i homeplan.Item) bool { return i.Kind.OfAPiece() })
	if first < 0 || steps[0].Kind != homeplan.Warm || steps[first].Music == "" {
		return
	}
	step := planned.Items[first].Step
	read := v.reads[homeRead{student.Instrument, store.ExerciseID(step.Exercise)}]
	piece, ok := read.alone(step)
	if !ok {
		return
	}
	long, ok := read.warm(piece)
	if !ok {
		return
	}
	key := "warm " + step.Piece.String() + " of " + steps[first].Music
	if _, there := v.Music[key]; !there {
		v.Music[key] = newRunMusic(long, fmt.Sprintf("m%d-", len(v.Music)))
	}
	warm := &steps[0]
	warm.Music, warm.Tempo, warm.CountOff, warm.Click = key, warmTempo, long.CountOff, true
	warm.Piece, warm.Exercise = step.Piece, 0
}

func capital(word string) string { return strings.ToUpper(word[:1]) + word[1:] }

// ownStep makes a step of a line of a plan. One whose exercise cannot be read any more has no
// music.
func (s *Server) ownStep(r *http.Request, v *ownTodayView, student store.Student, i homeplan.Item) (ownStep, error) {
	step := ownStep{runStep: runStep{Step: i.Step}, Line: homeLine(i), Kind: i.Kind, Time: v.Say("day.left", (i.Halves+1)/2), Why: v.Say("kind." + string(i.Kind)), Rest: i.Step.Rests}
	switch i.Kind {
	case homeplan.Warm:
		step.Form, step.Name = routine.Play, v.Say("warm."+familyOf(student.Instrument))
		return step, nil
	case homeplan.Cards:
		step.Form, step.Name, step.How = routine.Name, v.Say("cards.step"), v.Say("cards.about")
		return step, nil
	}
	where := v.Say("whole")
	if i.Step.Label != wholeLabel {
		where = v.Say("piece", i.Step.Label)
	}
	step.Name = fmt.Sprintf("%d · %s, %s", i.Step.Number, i.Step.Title, where)
	step.How = v.often(i)
	if strings.HasPrefix(i.Why, "for the check-in") {
		step.Why = v.Say("kind.due")
	}
	key := fmt.Sprintf("%d/%s", i.Step.Exercise, i.Step.Piece)
	part, known, err := loadOwnPart(r.Context(), deskOf(r), v.reads, student, i.Step)
	if err != nil || !known {
		return step, err
	}
	step.runStep = newRunStep(0, i.Step, key, []stand{part})
	if _, there := v.Music[key]; !there {
		v.Music[key], v.Voice, v.A4 = newRunMusic(part, fmt.Sprintf("m%d-", len(v.Music))), s.recordings.voiceOf(part.Instrument), part.A4
	}
	step.Music = key
	return step, nil
}

// often says how often a line is done, and how fast.
func (v *ownTodayView) often(i homeplan.Item) string {
	words := v.Say("times.many", v.Number(i.Step.Times))
	switch {
	case i.Kind == homeplan.Twice:
		words = v.Say("times.twice")
	case i.Step.Times <= 2:
		words = v.Say(fmt.Sprintf("times.%d", max(i.Step.Times, 1)))
	}
	if i.Step.Tempo > 0 {
		words = v.Say("how.at", words, i.Step.Tempo)
	}
	return words
}

// ownPart reads a step's piece, alone, for a student; known is false where it is not there any
// more, or cannot be read.
func loadOwnPart(ctx context.Context, desk *teach.Class, reads homeReads, student store.Student, step lesson.Step) (part stand, known bool, err error) {
	read, err := readHome(ctx, desk, reads, student, store.ExerciseID(step.Exercise))
	if errors.Is(err, store.ErrNotFound) {
		return part, false, nil
	}
	if err != nil {
		return part, false, err
	}
	part, known = read.alone(step)
	return part, known, nil
}

// homeAttempts are a student's tries at home since a day, the oldest first.
func homeAttempts(ctx context.Context, desk *teach.Class, student store.StudentID, since time.Time) ([]store.HomeTry, error) {
	tries, err := desk.HomeTries(ctx, 0, student, since)
	return tries[student], err
}
