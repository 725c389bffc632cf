package my

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"
	"time"

	"unhurriedbench/core/homeplan"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/walk"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// ownTodayView is a student's day: its steps, one at a time, with their music, and the week.
type ownTodayView struct {
	ownFrame
	Zone       string // where the school is, "" for the server's
	Instrument string // its title
	Careful    string // a caution for it
	Days       []ownDay
	Week       []ownWeekday
	Today      string // its date
	Weekday    string // it is
	CheckIn    string // the day of the one to come, "" for none
	Note       string // in place of steps, or before them
	Changes    []ownChange
	Sayings    []ownStep  // steps that say something else each: a week has the same ones again and again
	parts      []stepPart // that its steps play, each once
	Voice      music.Voice
	Spoken     music.SpokenVoice
	A4         int
	Scale      []int
	HasPlan    bool // that may be taken into a calendar
	Picks      []ownPick
	PickHelp   string
	Refused    string // what is wrong with the days that were picked
	reads      teach.PartsAtHome
}

// stepPart is what a step plays, by the key of its music.
type stepPart struct {
	key  string
	part teach.Stand
}

// play adds a part to those that the steps play, unless it is there.
func (v *ownTodayView) play(key string, part teach.Stand) {
	if !slices.ContainsFunc(v.parts, func(p stepPart) bool { return p.key == key }) {
		v.parts = append(v.parts, stepPart{key, part})
	}
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
	teach.LedStep
	Line  string // names it in what is ticked
	Kind  homeplan.Kind
	Name  string
	How   string
	Why   string
	Time  string
	Music string // the key of its music, "" for none
	Says  int    // which of the page's sayings it has
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

// ownPick is a day of the week that a student may pick.
type ownPick struct {
	Day    int
	Name   string
	Chosen bool
}

// pick fills the days that the student may pick, where the plan says so; Monday comes first.
func (v *ownTodayView) pick(p store.HomePlan, monday time.Time) {
	if !v.HasPlan || !p.Plan.Picks {
		return
	}
	for k := range 7 {
		on := monday.AddDate(0, 0, k)
		v.Picks = append(v.Picks, ownPick{int(on.Weekday()), v.Catalog.Weekday(on), slices.Contains(p.Weekdays, int(on.Weekday()))})
	}
	v.PickHelp = v.Say("days.help", v.Number(len(p.Weekdays)))
}

// pickDays gives the student's plan other days of the week, as many as it has.
func (s *handlers) pickDays(w http.ResponseWriter, r *http.Request) error {
	ctx, desk, h := r.Context(), site.ClassOf(r), athome(r)
	p, err := desk.HomePlan(ctx, h.Student.ID)
	if err == nil && !p.Plan.Picks {
		err = store.ErrNotFound
	}
	if err != nil {
		return err
	}
	site.Text(r, "day") // reads the form
	var days []int
	for _, typed := range r.Form["day"] {
		if n, err := strconv.Atoi(typed); err == nil && n >= 0 && n <= 6 && !slices.Contains(days, n) {
			days = append(days, n)
		}
	}
	if len(days) != len(p.Weekdays) {
		v, err := s.ownTodayView(r)
		if err != nil {
			return err
		}
		v.Refused = v.Say("days.wrong", v.Number(len(p.Weekdays)))
		for k := range v.Picks {
			v.Picks[k].Chosen = slices.Contains(days, v.Picks[k].Day)
		}
		s.Render(w, http.StatusUnprocessableEntity, "own", "own-layout", v)
		return nil
	}
	p.Weekdays = days
	if err := teach.LayOutPlan(ctx, desk, &p, h.Student, teach.PartsAtHome{}); err != nil {
		return err
	}
	if err := h.KeepPlan(ctx, p); err != nil {
		return err
	}
	http.Redirect(w, r, "/my/"+h.Key+"/", http.StatusSeeOther)
	return nil
}

// ownChange is what a student may have done otherwise than before.
type ownChange struct{ Key, Words string }

// mostAhead is for how many days a page carries the steps, so that it works without network.
const mostAhead = 8

func (s *handlers) ownToday(w http.ResponseWriter, r *http.Request) error {
	v, err := s.ownTodayView(r)
	if err != nil {
		return err
	}
	s.Render(w, http.StatusOK, "own", "own-layout", v)
	return nil
}

// musicOfSteps answers with the music of the steps, by key: several times as much as the page.
func (s *handlers) musicOfSteps(w http.ResponseWriter, r *http.Request) error {
	v, err := s.ownTodayView(r)
	if err != nil {
		return err
	}
	steps := map[string]ownMusic{}
	for k, p := range v.parts {
		steps[p.key] = newOwnMusic(p.part, fmt.Sprintf("m%d-", k))
	}
	s.JSON(w, r, steps)
	return nil
}

// ownMusic is the music of a step, with the run that leads through it.
type ownMusic struct {
	music.StepMusic
	Run    walk.Run                       `json:"run"`
	With   []walk.Playing                 `json:"with"`
	Rounds map[string]music.PlaybackRound `json:"rounds"`
	Said   map[string][]string            `json:"said"`
}

func newOwnMusic(p teach.Stand, ids string) ownMusic {
	part, run := teach.Walk(p, teach.WalkWants{Tempo: p.Tempo, Fresh: true})
	return ownMusic{
		StepMusic: music.NewStepMusic(p, ids), Run: run, With: part.With, Rounds: music.WalkRounds(p.Report, run), Said: music.SaidInClips(run),
	}
}

func (s *handlers) ownTodayView(r *http.Request) (ownTodayView, error) {
	ctx, desk, h := r.Context(), site.ClassOf(r), athome(r)
	f, err := newOwnFrame(r, "today")
	v := ownTodayView{ownFrame: f, Scale: routine.MetronomeMarks(), reads: teach.PartsAtHome{}}
	if err != nil {
		return v, err
	}
	if v.Spoken, err = music.VoiceOfWords(s.Assets); err != nil {
		return v, err
	}
	saved, err := desk.Settings(ctx)
	if err != nil {
		return v, err
	}
	v.Spoken = v.Spoken.With(saved, f.Path("voice"), url.Values{})
	target, _ := instrument.ByID(h.Student.Instrument)
	v.Instrument, v.Careful = target.Title(), f.Say("careful."+string(f.Care))
	for _, key := range teach.ChangesOf(target) {
		v.Changes = append(v.Changes, ownChange{key, f.Say("changed." + key)})
	}
	today := teach.DateOf(desk.Now())
	if at := desk.Zone(ctx); at != time.Local {
		v.Zone = at.String()
	}
	v.Today, v.Weekday = today.Format(time.DateOnly), f.Weekday(today)
	until, err := teach.NextCheckin(ctx, desk, h.Student.ID)
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
		done[store.HomeTick{On: teach.DateOf(t.On), Line: t.Line}] = true
	}
	for _, planned := range p.Plan.Days {
		on := teach.DayOf(planned.On)
		if on.Before(today) || len(planned.Items) == 0 || len(v.Days) == mostAhead {
			continue
		}
		d, err := s.ownDay(r, &v, h.Student, planned, done)
		if err != nil {
			return v, err
		}
		for k := range d.Steps {
			d.Steps[k].Says = v.saying(d.Steps[k])
		}
		v.Days = append(v.Days, d)
	}
	v.showDay(today)
	v.Week = v.week(monday, p, done)
	v.pick(p, monday)
	return v, nil
}

// planOrNext is a student's plan; where there is none for today or later, a day with what
// comes next for them.
func planOrNext(ctx context.Context, desk *teach.Class, student store.Student,
	v *ownTodayView) (store.HomePlan, error) {
	today := teach.DateOf(desk.Now())
	p, err := desk.HomePlan(ctx, student.ID)
	if err == nil && p.Until.After(today) {
		v.HasPlan = true
		return p, nil
	}
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return p, err
	}
	v.Note = v.Say("day.noplan")
	p = store.HomePlan{Student: student.ID, From: today, Until: today.AddDate(0, 0, 1),
		Weekdays: []int{int(today.Weekday())}, Minutes: teach.UsualHomeMinutes}
	if err := teach.LayOutPlan(ctx, desk, &p, student, v.reads); err != nil {
		return p, err
	}
	if !slices.ContainsFunc(p.Plan.Days, func(d homeplan.Planned) bool {
		return slices.ContainsFunc(d.Items, func(i homeplan.Item) bool { return i.Kind.OfAChunk() })
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
		d := ownWeekday{On: on.Format(time.DateOnly), Short: v.Short(on), Name: v.Catalog.Weekday(on), State: "free"}
		if at := slices.IndexFunc(p.Plan.Days, func(planned homeplan.Planned) bool {
			return planned.On == teach.DayNumber(on) && len(planned.Items) > 0
		}); at >= 0 {
			d.State = "togo"
			if !slices.ContainsFunc(p.Plan.Days[at].Items, func(i homeplan.Item) bool {
				return !done[store.HomeTick{On: on, Line: teach.PlanLine(i)}]
			}) {
				d.State = "done"
			}
		}
		d.CanTap = slices.ContainsFunc(v.Days, func(day ownDay) bool { return day.On == d.On })
		past := d.On < v.Today
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

// saying is the place of what a step says among the page's sayings.
func (v *ownTodayView) saying(step ownStep) int {
	same := func(other ownStep) bool {
		return other.Heading == step.Heading && other.Form == step.Form && other.Rest == step.Rest &&
			other.Kind.OfAChunk() == step.Kind.OfAChunk() &&
			slices.EqualFunc(other.LedStep.Says, step.LedStep.Says,
				func(a, b teach.StepWords) bool { return a.Words == b.Words }) && slices.Equal(other.CountOff, step.CountOff)
	}
	if k := slices.IndexFunc(v.Sayings, same); k >= 0 {
		return k
	}
	v.Sayings = append(v.Sayings, step)
	return len(v.Sayings) - 1
}

func (s *handlers) ownDay(r *http.Request, v *ownTodayView, student store.Student, planned homeplan.Planned,
	done map[store.HomeTick]bool) (ownDay, error) {
	on := teach.DayOf(planned.On)
	minutes := 0
	d := ownDay{On: on.Format(time.DateOnly), Name: v.Catalog.Weekday(on)}
	for k, i := range planned.Items {
		step, err := s.ownStep(r, v, student, i)
		if err != nil {
			return d, err
		}
		step.K, step.Done = k, done[store.HomeTick{On: on, Line: step.Line}]
		d.Steps = append(d.Steps, step)
		minutes += wholeMinutes(i) // as the lines say it
	}
	addWarmMusic(v, student, planned, d.Steps)
	steps := v.Say("day.step")
	if n := len(d.Steps); n > 1 {
		steps = v.Say("day.steps", teach.Capital(v.Number(n)))
	}
	d.Sum = v.Say("day.sum", steps, v.Say("day.left", minutes))
	return d, nil
}

// wholeMinutes is how many minutes a line takes, in whole ones.
func wholeMinutes(i homeplan.Item) int { return (i.Halves + 1) / 2 }

// addWarmMusic gives the long notes that a day begins with their music, from its first chunk.
func addWarmMusic(v *ownTodayView, student store.Student, planned homeplan.Planned, steps []ownStep) {
	first := slices.IndexFunc(planned.Items, func(i homeplan.Item) bool { return i.Kind.OfAChunk() })
	if first < 0 || steps[0].Kind != homeplan.Warm || steps[first].Music == "" {
		return
	}
	step := planned.Items[first].Step
	read := v.reads[teach.PartKey{Instrument: student.Instrument, Exercise: store.ExerciseID(step.Exercise)}]
	chunk, ok := read.Alone(step)
	if !ok {
		return
	}
	long, ok := read.Warm(chunk)
	if !ok {
		return
	}
	key := "warm " + step.Chunk.String() + " of " + steps[first].Music
	v.play(key, long)
	warm := &steps[0]
	warm.Music, warm.Tempo, warm.CountOff, warm.Click = key, teach.WarmTempo, long.CountOff, true
	warm.Chunk, warm.Exercise = step.Chunk, 0
}

// ownStep makes a step of a line of a plan. One whose exercise cannot be read any more has no
// music.
func (s *handlers) ownStep(r *http.Request, v *ownTodayView, student store.Student, i homeplan.Item) (ownStep, error) {
	step := ownStep{LedStep: teach.LedStep{Scene: lesson.Scene{Step: i.Step}}, Line: teach.PlanLine(i), Kind: i.Kind,
		Time: v.Say("day.left", wholeMinutes(i)), Why: v.Say("kind." + string(i.Kind)), Rest: i.Step.Rests}
	switch i.Kind {
	case homeplan.Warm:
		step.Form, step.Name = routine.Play, v.Say("warm."+teach.FamilyOf(student.Instrument))
		return step, nil
	case homeplan.Cards:
		step.Form, step.Name, step.How = routine.Name, v.Say("cards.step"), v.Say("cards.about")
		return step, nil
	}
	where := v.Say("whole")
	if i.Step.Label != teach.WholeLabel {
		where = v.Say("chunk", i.Step.Label)
	}
	step.Name = fmt.Sprintf("%d · %s, %s", i.Step.Number, i.Step.Title, where)
	step.How = v.often(i)
	if strings.HasPrefix(i.Why, "for the check-in") {
		step.Why = v.Say("kind.due")
	}
	key := fmt.Sprintf("%d/%s", i.Step.Exercise, i.Step.Chunk)
	part, known, err := teach.LoadOwnPart(r.Context(), site.ClassOf(r), v.reads, student, i.Step)
	if err != nil || !known {
		return step, err
	}
	step.LedStep = teach.NewLedStep(0, lesson.Scene{Step: i.Step}, key, []teach.Stand{part})
	v.play(key, part)
	v.Voice, v.A4 = s.Recordings.VoiceOf(part.Instrument), part.A4
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
