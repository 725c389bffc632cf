package teach

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"unhurriedbench/core/card"
	"unhurriedbench/core/progress"
	"unhurriedbench/store"
)

// homeDone is what a student has done at home, and what they say of it. It is theirs: what the
// teacher has heard stands in the log.
type homeDone struct {
	Days  int // on which something was done
	Lines int // of the plan that are ticked
	Of    int // lines there were up to today
	Clean int // tries that they say were clean
	Tries []HomeTry
	More  int    // tries that are not listed
	Hears string // how what they say stands beside what was heard, "" where too little is known
}

// HomeTry is a try as a student says it went.
type HomeTry struct {
	When, What, How string
	Clean           bool
}

// MostSaid is how many tries at home are listed.
const MostSaid = 12

// Any says whether there is something to tell.
func (d homeDone) Any() bool { return d.Days > 0 || len(d.Tries) > 0 }

// Words say it in a line: "3 days, 7 of 9 lines; 5 tries, 4 clean as they say".
func (d homeDone) Words() string {
	if !d.Any() {
		return ""
	}
	words := Plural(d.Days, "day", "days")
	if d.Of > 0 {
		words += fmt.Sprintf(", %d of %s", d.Lines, Plural(d.Of, "line", "lines"))
	}
	if n := len(d.Tries) + d.More; n > 0 {
		words += fmt.Sprintf("; %s, %d clean as they say", Plural(n, "try", "tries"), d.Clean)
	}
	return words
}

// homeSince is from when on what was done is shown: the first day of a plan, else four weeks
// ago.
func homeSince(p *store.HomePlan, now time.Time) time.Time {
	if p != nil {
		return p.From
	}
	return DateOf(now).AddDate(0, 0, -28)
}

// NewHomeDone gathers what was done since a time.
func NewHomeDone(now time.Time, p *store.HomePlan, tries []store.HomeTry, ticks []store.HomeTick,
	named func(store.HomeTry) (what, stage string)) homeDone {
	var d homeDone
	since, today := homeSince(p, now), DateOf(now)
	days := map[time.Time]bool{}
	for _, t := range ticks {
		if !DateOf(t.On).Before(since) {
			days[DateOf(t.On)] = true
		}
	}
	for _, t := range slices.Backward(tries) {
		if t.At.Before(since) {
			continue
		}
		days[DateOf(t.At)] = true
		if t.Clean {
			d.Clean++
		}
		if len(d.Tries) == MostSaid {
			d.More++
			continue
		}
		what, stage := named(t)
		d.Tries = append(d.Tries, HomeTry{When: When(t.At), What: what, How: SaidWords(t, stage), Clean: t.Clean})
	}
	d.Days = len(days)
	if p == nil {
		return d
	}
	for _, planned := range p.Plan.Days {
		on := DayOf(planned.On)
		for _, i := range planned.Items {
			if on.After(today) {
				continue
			}
			d.Of++
			if slices.ContainsFunc(ticks, func(t store.HomeTick) bool {
				return DateOf(t.On).Equal(on) &&
					t.Line == PlanLine(i)
			}) {
				d.Lines++
			}
		}
	}
	return d
}

// SaidWords says how a try went as the student has it: "Play at 66: clean; better, they slowed
// down".
func SaidWords(t store.HomeTry, stage string) string {
	words := stage
	if t.Tempo > 0 {
		words += fmt.Sprintf(" at %d", t.Tempo)
	}
	if t.Clean {
		words += ": clean"
	} else {
		words += ": stumble over " + t.Cause.Words()
	}
	var more []string
	if beside := map[store.Beside]string{store.Better: "better than before", store.Same: "as before",
		store.Worse: "not so good as before"}[t.Beside]; beside != "" {
		more = append(more, beside)
	}
	if changed := map[string]string{"slower": "slower", "counted": "counted aloud", "earlier": "moved earlier",
		"air": "more air", "bow": "the bow", "sticks": "the sticks"}[t.Changed]; changed != "" {
		more = append(more, "changed: "+changed)
	}
	if len(more) > 0 {
		words += "; " + strings.Join(more, ", ")
	}
	return words
}

// loadHomeDone is what a student has done at home, of a plan where there is one, and how well they
// hear it, beside the teacher's log, newest first.
func loadHomeDone(ctx context.Context, desk *Class, student store.Student, p *store.HomePlan,
	log []store.Attempt) (homeDone, error) {
	tries, err := TriesAtHome(ctx, desk, student.ID, DateOf(desk.Now()).AddDate(0, -3, 0))
	if err != nil {
		return homeDone{}, err
	}
	ticks, err := desk.HomeTicks(ctx, 0, student.ID, homeSince(p, desk.Now()))
	if err != nil {
		return homeDone{}, err
	}
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return homeDone{}, err
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		return homeDone{}, err
	}
	d := NewHomeDone(desk.Now(), p, tries, ticks[student.ID], func(t store.HomeTry) (string, string) {
		stage := rules.For(student.ID, t.Exercise).Word(t.Stage)
		k := slices.IndexFunc(exercises, func(x store.Exercise) bool { return x.ID == t.Exercise })
		if k < 0 {
			return "an exercise since taken away", stage
		}
		return fmt.Sprintf("%d · %s, %s", exercises[k].Number, exercises[k].Title, t.Chunk.Words()), stage
	})
	d.Hears = judged(tries, log).Words()
	return d, nil
}

// homeCards is where a student stands with their cards.
type homeCards struct {
	Seen, Known, Due int
	Speed            SpeedPlot
}

// knownFrom is how many right answers in a row make a card known; the figure is ours.
const knownFrom = 3

func newHomeCards(log []card.Answered, now time.Time) (homeCards, error) {
	words, err := English()
	c := homeCards{Speed: NewSpeedPlot(card.Speeds(log, card.Name), words)}
	for _, state := range card.States(log) {
		c.Seen++
		if state.Streak >= knownFrom {
			c.Known++
		}
		if !state.Due.After(now) {
			c.Due++
		}
	}
	return c, err
}

// judged holds what a student says beside what the teacher has heard.
func judged(tries []store.HomeTry, log []store.Attempt) progress.Judging {
	var said, heard []progress.Marked
	for _, t := range tries {
		said = append(said, progress.Marked{Exercise: int64(t.Exercise), Chunk: t.Chunk, Stage: t.Stage,
			Clean: t.Clean, On: DayNumber(t.At)})
	}
	for _, a := range slices.Backward(log) { // the oldest first
		if !a.Undone && !a.Moved {
			heard = append(heard, progress.Marked{Exercise: int64(a.ExerciseID), Chunk: a.Chunk, Stage: a.Stage,
				Clean: a.Clean, On: DayNumber(a.At)})
		}
	}
	return progress.Judge(said, heard)
}

// AddClassDone adds, to the plans of a class, what was done of them.
func AddClassDone(ctx context.Context, desk *Class, class store.ClassID, plans []PracticePlan) error {
	tries, err := desk.HomeTries(ctx, class, 0, DateOf(desk.Now()).AddDate(0, -3, 0))
	if err != nil {
		return err
	}
	ticks, err := desk.HomeTicks(ctx, class, 0, DateOf(desk.Now()).AddDate(0, -3, 0))
	if err != nil {
		return err
	}
	for k := range plans {
		id := plans[k].Student.ID
		plans[k].Done = NewHomeDone(desk.Now(), plans[k].plan, tries[id], ticks[id], func(store.HomeTry) (string,
			string) {
			return "", ""
		})
	}
	return nil
}
