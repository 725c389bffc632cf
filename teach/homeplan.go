package teach

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
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
)

// What a plan is made of where nothing is chosen: four days a week, a quarter of an hour.
// Source: common practice.
var UsualDays = []int{int(time.Monday), int(time.Tuesday), int(time.Thursday), int(time.Saturday)}

// UsualHomeMinutes is how long a day at home is where nobody says otherwise. Source: common
// practice.
const UsualHomeMinutes = 15

// PracticePlan is a student's plan, with the form that makes it.
type PracticePlan struct {
	Student  store.Student
	Title    string // of the instrument
	Guest    store.Guest
	Has      bool // there is a plan
	Until    string
	now      time.Time
	Weekdays []int
	Minutes  int
	Days     []homeDay
	Left     []homeplan.Left
	CheckIn  string // when it is, "" for none to come
	Problem  string
	Print    bool // it stands among those of a class, to be printed
	Own      *OwnLink

	MinutesTyped string // in a form that was refused
	Page         PageField
	Picks        bool // the student picks the days
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
	Enough  bool // more minutes are given than do good
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
func (PracticePlan) Week() []time.Weekday {
	return []time.Weekday{time.Monday, time.Tuesday, time.Wednesday, time.Thursday, time.Friday,
		time.Saturday, time.Sunday}
}

// AddDone adds what the student has done at home.
func AddDone(ctx context.Context, desk *Class, v *PracticePlan) error {
	log, err := desk.StudentAttempts(ctx, v.Student.ID)
	if err != nil {
		return err
	}
	v.Done, err = loadHomeDone(ctx, desk, v.Student, v.plan, log)
	return err
}

// MinutesField is what stands in the field of minutes.
func (v PracticePlan) MinutesField() string { return cmp.Or(v.MinutesTyped, strconv.Itoa(v.Minutes)) }

// LoadPracticePlan is a student's plan, with what its form holds before anything is typed.
func LoadPracticePlan(ctx context.Context, desk *Class, student store.StudentID) (PracticePlan, error) {
	v := PracticePlan{Guest: desk.Guest(), Weekdays: UsualDays, Minutes: UsualHomeMinutes}
	var err error
	if v.Student, err = desk.StudentByID(ctx, student); err != nil {
		return v, err
	}
	if v.Page, err = NewPageField(ctx, desk, nil); err != nil {
		return v, err
	}
	v.Title = InstrumentTitle(v.Student.Instrument)
	until, err := NextCheckin(ctx, desk, student)
	if err != nil {
		return v, err
	}
	if !until.IsZero() {
		v.CheckIn = DayWords(until, desk.Now())
	} else {
		until = DateOf(desk.Now()).AddDate(0, 0, checkin.DaysOn)
	}
	v.Until = until.Format(time.DateOnly)
	p, err := desk.HomePlan(ctx, student)
	if errors.Is(err, store.ErrNotFound) {
		return v, nil
	}
	if err != nil {
		return v, err
	}
	v.show(p, desk.Now())
	return v, nil
}

// NextCheckin is the day of a student's check-in to come, the zero time where there is none
// after today.
func NextCheckin(ctx context.Context, desk *Class, student store.StudentID) (time.Time, error) {
	next, err := desk.NextCheckin(ctx, student)
	if err != nil || next == nil || !next.On.After(DateOf(desk.Now())) {
		return time.Time{}, err
	}
	return next.On, nil
}

// show lays a plan out for the page, every day between its first and its last.
func (v *PracticePlan) show(p store.HomePlan, now time.Time) {
	v.plan = &p
	v.Has, v.Until, v.Weekdays, v.Minutes, v.Left = true, p.Until.Format(time.DateOnly), p.Weekdays, p.Minutes, p.Plan.Left
	v.Page, v.Picks = v.Page.Of(p.Plan.Page), p.Plan.Picks
	today := DateOf(now)
	v.now = now
	for on := p.From; on.Before(p.Until); on = on.AddDate(0, 0, 1) {
		d := homeDay{On: on.Format(time.DateOnly), Name: on.Format("Mon 2 Jan"), Minutes: minutesOn(p, on),
			Past: on.Before(today)}
		for _, planned := range p.Plan.Days {
			if planned.On != DayNumber(on) {
				continue
			}
			d.Time = lesson.Time(planned.Halves())
			for _, i := range inSittings(planned.Items) {
				d.Items = append(d.Items, newHomeItem(i, v.Student))
			}
			d.Enough = planned.Enough
		}
		v.Days = append(v.Days, d)
	}
}

// warmWords are what an instrument of a family begins with. Source: common practice.
var warmWords = map[string]string{
	"brass":    "Long notes: first three notes, eight slow counts each",
	"woodwind": "Long notes: first three notes, as long as a slow breath each",
	"strings":  "Long bows on the open strings, four slow counts each", "percussion": "Even strokes, right and left, soft",
}

// inSittings puts the stages of a chunk that are done one after the other into one line.
func inSittings(items []homeplan.Item) []homeplan.Item {
	var list []homeplan.Item
	for _, i := range items {
		last := len(list) - 1
		if last < 0 || i.Kind != homeplan.Work || list[last].Kind != homeplan.Work || i.Step.Exercise != list[last].Step.Exercise ||
			i.Step.Chunk != list[last].Step.Chunk {
			list = append(list, i)
			continue
		}
		sitting := &list[last]
		sitting.Step.Parts = append(slices.Clone(sitting.Step.All()), i.Step.All()...)
		sitting.Step.Form, sitting.Step.Rests = i.Step.Form, sitting.Step.Rests || i.Step.Rests
		sitting.Step.Times = min(sitting.Step.Times, i.Step.Times)
		sitting.Halves += i.Halves
		sitting.Why, _, _ = strings.Cut(sitting.Why, ":")
	}
	return list
}

// oftenEach says how often each stage of a sitting is done: "4 or 5 times each".
func oftenEach(parts []lesson.Part) string {
	least, most := parts[0].Times, parts[0].Times
	for _, p := range parts {
		least, most = min(least, p.Times), max(most, p.Times)
	}
	switch few := [...]string{1: "once", 2: "twice"}; {
	case most > least:
		return fmt.Sprintf("%d to %d times each", least, most)
	case least < len(few):
		return few[least] + " each"
	}
	return InWords(least) + " times each"
}

func newHomeItem(i homeplan.Item, student store.Student) homeItem {
	item := homeItem{Item: i, Form: i.Step.Form, Name: i.Step.Name(), Time: lesson.Time(i.Halves)}
	switch i.Kind {
	case homeplan.Warm:
		item.Form, item.Name = routine.Play, warmWords[FamilyOf(student.Instrument)]
		return item
	case homeplan.Cards:
		item.Form, item.Name = routine.Name, "Cards: "+cardsWord(student.Instrument)
		return item
	}
	item.How = InWords(i.Step.Times) + " times"
	if few := [...]string{1: "once", 2: "twice"}; i.Step.Times < len(few) {
		item.How = few[i.Step.Times]
	}
	if len(i.Step.Parts) > 0 {
		item.How = oftenEach(i.Step.Parts)
	}
	if i.Kind == homeplan.Twice {
		item.How = "twice in a row"
	}
	if i.Kind == homeplan.Page {
		item.How += " through"
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

// FamilyOf is the family of an instrument.
func FamilyOf(id string) string {
	i, _ := instrument.ByID(id)
	return i.Family
}

// LayOutPlan lays out a plan from today on; the days before stay as they were.
func LayOutPlan(ctx context.Context, desk *Class, p *store.HomePlan, student store.Student, reads PartsAtHome) error {
	chunks, err := homeChunks(ctx, desk, student, reads, p.Plan)
	if err != nil {
		return err
	}
	today := DateOf(desk.Now())
	var days []homeplan.Day
	for on := p.From; on.Before(p.Until); on = on.AddDate(0, 0, 1) {
		if !on.Before(today) {
			days = append(days, homeplan.Day{On: DayNumber(on), Minutes: minutesOn(*p, on)})
		}
	}
	plan := homeplan.Make(days, chunks, homeplan.Daily{Warm: true, Cards: true})
	past := slices.DeleteFunc(p.Plan.Days, func(d homeplan.Planned) bool { return d.On >= DayNumber(today) })
	plan.Days, plan.Asked = append(slices.Clone(past), plan.Days...), p.Plan.Asked
	plan.Page, plan.Picks = p.Plan.Page, p.Plan.Picks
	p.Plan = plan
	return nil
}

// homeChunks are the chunks that a student may be given to do at home: what is due at the
// check-in to come, what was asked for, the lines of a page, and what they have tried last.
func homeChunks(ctx context.Context, desk *Class, student store.Student, reads PartsAtHome,
	plan homeplan.Plan) ([]homeplan.Chunk, error) {
	next, err := desk.NextCheckin(ctx, student.ID)
	if err != nil {
		return nil, err
	}
	due := map[dueKey]bool{}
	desired := map[store.ExerciseID]bool{}
	if next != nil {
		for _, step := range next.Due {
			due[dueKey{student.ID, step.Exercise, step.Chunk.String()}] = true
			desired[store.ExerciseID(step.Exercise)] = true
		}
	}
	for _, id := range slices.Concat(plan.Asked, plan.Page) {
		desired[store.ExerciseID(id)] = true
	}
	standings, err := desk.StudentStandings(ctx, student.ID)
	if err != nil {
		return nil, err
	}
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return nil, err
	}
	recent := RecentFirst(exercises, standings)
	for _, x := range recent[:min(len(recent), mostAsked)] {
		desired[x.ID] = true
	}
	log, err := desk.StudentAttempts(ctx, student.ID)
	if err != nil {
		return nil, err
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		return nil, err
	}
	var chunks []homeplan.Chunk
	for _, x := range exercises {
		if !desired[x.ID] || x.Unread != "" {
			continue
		}
		standing, steps := standings[store.Task{Student: student.ID, Exercise: x.ID}], rules.For(student.ID, x.ID)
		read, err := readHome(ctx, desk, reads, student, x.ID)
		if err != nil {
			return nil, err
		}
		outline, dated := read.outline(), datedAt(log, x.ID)
		for _, p := range read.Report.Chunks {
			key := p.Key()
			h := homeplan.Chunk{
				Chunk: newLessonChunk(read.at, read.Explained, p, steps), Steps: steps, State: standing.State(steps, key),
				Hard: p.Difficulty,
				Due:  due[dueKey{student.ID, int64(x.ID), key.String()}] || slices.Contains(plan.Asked, int64(x.ID)),
			}
			h.Lips = read.at.Instrument.LipsTire()
			if standing != nil {
				if tempo := h.State.NextTempo(standing.Times[key].Tempo); tempo > 0 {
					h.Tempo = tempo
				}
			}
			if p.Whole() {
				h.Page = slices.Index(plan.Page, int64(x.ID)) + 1
			}
			if h.State.Tries == 0 && !h.Due && h.Page == 0 && !nextOf(standing, read.Report.Chunks, key, steps) {
				continue
			}
			h.Last, h.Reviews, _ = homeplan.Learned(steps, outline, dated, key)
			chunks = append(chunks, h)
		}
	}
	return chunks, nil
}

// PartsAtHome are the parts that the plans of a class have been read for, so that each is
// read once.
type PartsAtHome map[PartKey]*partAtHome

// PartKey names an instrument's part of an exercise.
type PartKey struct {
	Instrument string
	Exercise   store.ExerciseID
}

type partAtHome struct {
	at Choice
	Explained
	saved Settings
}

// readHome reads a student's part of an exercise; it has no chunks where it cannot be read.
func readHome(ctx context.Context, desk *Class, reads PartsAtHome, student store.Student,
	exercise store.ExerciseID) (*partAtHome, error) {
	name := PartKey{student.Instrument, exercise}
	if known := reads[name]; known != nil {
		return known, nil
	}
	read := &partAtHome{}
	mine := func(_ Choice, tab InstrumentTab) bool { return tab.ID == student.Instrument }
	_, err := ExplainEach(ctx, desk, Request{Exercise: exercise, Class: student.ClassID}, mine,
		func(at Choice, _ InstrumentTab, x Explained, saved Settings) {
			*read = partAtHome{at, x, saved}
		})
	var unread score.Problems
	if err != nil && !errors.As(err, &unread) {
		return nil, err
	}
	reads[name] = read
	return read, nil
}

// Alone is a step's chunk by itself; ok is false where it is cut otherwise since, or cannot be
// read.
func (read *partAtHome) Alone(step lesson.Step) (part Stand, ok bool) {
	at, x, ask := read.at, read.Explained, AskAlone(read.at.Class.ID, step)
	at.Ask.Line, at.Ask.Of, at.Ask.Chunk = ask.Line, ask.Of, ask.Chunk
	at.chooseChunk(ask.Chunk)
	if len(x.Report.Chunks) == 0 || ask.Line != "" && x.OpenVersion(&at) != nil || at.Key != step.Chunk {
		return part, false
	}
	return NewStand(Work{Choice: at, Routine: at.Routine(), Stage: step.Stage, Tempo: step.Tempo}, x,
		read.saved.Preferences), true
}

// nextOf says whether an untried chunk is the first in learning order that is not done, of an
// exercise that is begun.
func nextOf(standing *progress.Standing, chunks []breakdown.Chunk, key breakdown.ChunkKey, steps routine.Routine) bool {
	for _, p := range chunks {
		if standing.State(steps, p.Key()).Stage != routine.Done {
			return p.Key() == key
		}
	}
	return false
}

// outline is the outline of the part, with how its measures are written.
func (read *partAtHome) outline() breakdown.Outline {
	if len(read.Report.Chunks) == 0 {
		return breakdown.Outline{}
	}
	o := breakdown.OutlineOf(read.Report.Part)
	o.Chunks = nil
	for _, p := range read.Report.Chunks {
		o.Chunks = append(o.Chunks, p.Key())
	}
	return o
}

// datedAt are the tries at an exercise, oldest first, of a log that is newest first.
func datedAt(log []store.Attempt, exercise store.ExerciseID) []homeplan.DatedTry {
	var list []homeplan.DatedTry
	for _, a := range slices.Backward(log) {
		if a.ExerciseID == exercise && !a.Undone {
			list = append(list, homeplan.DatedTry{Logged: progress.Logged{Unit: a.Chunk, Try: a.Try}, On: DayNumber(a.At)})
		}
	}
	return list
}

// UntilWords is the day the plan ends on, in words.
func (v PracticePlan) UntilWords() string {
	on, _ := time.Parse(time.DateOnly, v.Until)
	return DayWords(on, v.now)
}

// ChosenDay says whether a weekday is one of the plan's.
func (v PracticePlan) ChosenDay(day time.Weekday) bool { return slices.Contains(v.Weekdays, int(day)) }

// ChoicesWith are the minutes a day may have, what it has among them.
func (PracticePlan) ChoicesWith(minutes int) []int {
	list := []int{0, 5, 10, 15, 20, 25, 30, 40, 50, 60}
	if !slices.Contains(list, minutes) {
		list = append(list, minutes)
		slices.Sort(list)
	}
	return list
}

// OwnLink is a student's own page as their teacher sees it.
type OwnLink struct {
	store.OwnPage
	Address string
	QR      string // the address as a code to scan
}
