package simulate

import (
	"context"
	"fmt"
	"io"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/demo"
	"unhurriedbench/reading"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// Lessons of a term: two a week for twelve weeks.
const (
	Weeks       = 12
	LessonsWeek = 2
)

// Report is what a simulated term comes to, class by class.
type Report struct {
	Seed    uint64
	Classes []ClassReport
}

// ClassReport is what a term comes to in a class.
type ClassReport struct {
	Name     string
	Students int
	Cards    [Weeks]int // most students with a card after a lesson of the week
	Habits   []HabitReport
	Earned   int // stages of chunks that are shown as earned
	Unearned int // of them, those without a clean try that counts for them
	Used     int // half minutes that lessons take
	Given    int // half minutes that they have
	Home     []HomeReport
}

// HabitReport says after which lesson with a habit a student's card names it.
type HabitReport struct {
	Student Student
	Met     int // lessons in which the habit tripped the student before there was a card; 0 for no card
}

// HomeReport is how much of the minutes at home practice plans use.
type HomeReport struct {
	Minutes     int // a day
	Used, Given int // half minutes
}

// homeMinutes are the minutes a day that plans are tried with.
var homeMinutes = []int{12, 15, 20, 30, 45, 60}

// Term holds a term with some classes, in which two students are absent now and then, and deletes
// it again.
func Term(ctx context.Context, s *store.Store, seed uint64, classes ...*Class) (Report, error) {
	report := Report{Seed: seed}
	email := fmt.Sprintf("simulated-%d@lantern-hall.example", seed)
	if err := s.DeleteUnfinishedDemo(ctx, email); err != nil {
		return report, err
	}
	teacher, err := s.AddDemoTeacher(ctx, email, "Simulated", "")
	if err != nil {
		return report, err
	}
	desk := s.For(teacher.ID)
	if err := demo.AddBook(ctx, desk); err != nil {
		return report, err
	}
	for _, class := range classes {
		class.Students[1].Misses, class.Students[4].Misses = []int{5, 6}, []int{9, 11, 12}
		r, err := class.term(ctx, desk, seed)
		if err != nil {
			return report, err
		}
		report.Classes = append(report.Classes, r)
	}
	return report, s.DeleteUnfinishedDemo(ctx, email)
}

// term holds the lessons of a term in a class.
func (c *Class) term(ctx context.Context, desk *store.Desk, seed uint64) (ClassReport, error) {
	r := ClassReport{Name: c.Name, Students: len(c.Students)}
	if err := c.Open(ctx, desk, reading.New(reading.Memory), seed, time.Date(2026, 9, 7, 9, 0, 0, 0, time.UTC)); err != nil {
		return r, err
	}
	met, named := map[int]int{}, map[int]bool{}
	for n := range Weeks * LessonsWeek {
		plan, err := c.Suggest(ctx, teach.LessonWants{})
		if err != nil {
			return r, err
		}
		r.Used, r.Given = r.Used+plan.Fit().Halves, r.Given+2*plan.Minutes
		begun := c.now
		if err := c.Hold(ctx, plan, 3+n%2); err != nil {
			return r, err
		}
		help, err := c.help(ctx, begun.Add(time.Hour))
		if err != nil {
			return r, err
		}
		week := n / LessonsWeek
		r.Cards[week] = max(r.Cards[week], help.Students()-len(help.Absent))
		for k, s := range c.Students {
			if s.Habit != Steady && !named[k] && c.tripped[c.ids[k]] {
				met[k]++
				named[k] = named[k] || names(help, c.ids[k], s.Habit.Cause())
			}
		}
		c.tripped = map[store.StudentID]bool{}
	}
	for k, s := range c.Students {
		if s.Habit != Steady && met[k] > 0 {
			h := HabitReport{Student: s, Met: met[k]}
			if !named[k] {
				h.Met = 0
			}
			r.Habits = append(r.Habits, h)
		}
	}
	var err error
	if r.Earned, r.Unearned, err = c.earned(ctx); err != nil {
		return r, err
	}
	r.Home, err = c.atHome(ctx)
	return r, err
}

// help is who needs help at a moment.
func (c *Class) help(ctx context.Context, at time.Time) (teach.Help, error) {
	desk := c.Desk()
	desk.Clock = func() time.Time { return at }
	w, err := teach.LoadClassWork(ctx, desk, c.ID)
	if err != nil {
		return teach.Help{}, err
	}
	standings, err := desk.ClassStandings(ctx, c.ID)
	if err != nil {
		return teach.Help{}, err
	}
	needs, err := teach.ClassNeeds(ctx, desk, w, c.ID, standings)
	if err != nil {
		return teach.Help{}, err
	}
	return teach.ClassHelp(ctx, desk, w, c.ID, standings, needs)
}

// names says whether a student has a card that names a cause.
func names(h teach.Help, student store.StudentID, cause routine.Cause) bool {
	for _, card := range h.Cards {
		if card.Student.ID == student && card.Cause() == string(cause) {
			return true
		}
	}
	for _, shared := range h.Shared {
		for _, s := range shared.Students {
			if s.ID == student && shared.Cause() == string(cause) {
				return true
			}
		}
	}
	return false
}

// earned counts the stages of chunks that are shown as earned, and those of them for which the
// log has no clean try at music that they are in.
func (c *Class) earned(ctx context.Context) (earned, without int, err error) {
	desk := c.Desk()
	w, err := teach.LoadClassWork(ctx, desk, c.ID)
	if err != nil {
		return 0, 0, err
	}
	standings, err := desk.ClassStandings(ctx, c.ID)
	if err != nil {
		return 0, 0, err
	}
	for _, student := range w.Students {
		log, err := desk.StudentAttempts(ctx, student.ID)
		if err != nil {
			return 0, 0, err
		}
		for _, x := range w.Exercises {
			at := standings[store.Task{Student: student.ID, Exercise: x.ID}]
			if at == nil {
				continue
			}
			steps, outline := w.Rules.For(student.ID, x.ID), breakdown.OutlineOf(c.book[x.Number].Score.Parts[0])
			for _, chunk := range outline.Chunks {
				state := at.State(steps, chunk)
				for k := range steps {
					if steps.Credit(state, k) != routine.Earned {
						continue
					}
					if earned++; !cleanIn(log, x.ID, steps[k].Stage, outline, chunk) {
						without++
					}
				}
			}
		}
	}
	return earned, without, nil
}

// cleanIn says whether a log has a clean try at a stage that bears on a chunk, or on all its
// chunks where it is joined.
func cleanIn(log []store.Attempt, x store.ExerciseID, stage routine.Stage, o breakdown.Outline, chunk breakdown.ChunkKey) bool {
	var tries []progress.Logged
	for n := len(log) - 1; n >= 0; n-- {
		if a := log[n]; a.ExerciseID == x && a.Stage == stage && a.Clean && !a.Undone {
			tries = append(tries, progress.Logged{Unit: a.Chunk, Try: routine.Try{Stage: stage, Clean: true, Class: true}})
		}
	}
	for _, f := range progress.Fold(routine.Routine{{Stage: stage}, {Stage: "last"}}, o, tries) {
		if f.Unit == chunk && f.Earned.Has(0) {
			return true
		}
	}
	return false
}

// atHome makes plans for everybody with so many minutes a day, and adds up what they use.
func (c *Class) atHome(ctx context.Context) ([]HomeReport, error) {
	desk := c.Desk()
	students, err := desk.Students(ctx, c.ID)
	if err != nil {
		return nil, err
	}
	reads := teach.PartsAtHome{}
	var list []HomeReport
	for _, minutes := range homeMinutes {
		h := HomeReport{Minutes: minutes}
		for _, student := range students {
			today := teach.DateOf(desk.Now())
			p := store.HomePlan{Student: student.ID, From: today, Until: today.AddDate(0, 0, 7), Minutes: minutes,
				Weekdays: teach.UsualDays, Changed: map[string]int{}}
			if err := teach.LayOutPlan(ctx, desk, &p, student, reads); err != nil {
				return nil, err
			}
			for _, d := range p.Plan.Days {
				h.Used, h.Given = h.Used+d.Halves(), h.Given+2*min(minutes, 30)
			}
		}
		list = append(list, h)
	}
	return list, nil
}

// Print writes the report as the table of docs/simulated.md.
func (r Report) Print(out io.Writer) {
	for _, c := range r.Classes {
		fmt.Fprintf(out, "Seed %d, %s, %d students\n", r.Seed, c.Name, c.Students)
		fmt.Fprintf(out, "  students with a card, week by week: %v\n", c.Cards)
		for _, h := range c.Habits {
			after := "never named"
			if h.Met > 0 {
				after = fmt.Sprintf("named after %d lessons in which it was met", h.Met)
			}
			fmt.Fprintf(out, "  %s, %s, %s: %s\n", h.Student.First, h.Student.Instrument, h.Student.Habit, after)
		}
		fmt.Fprintf(out, "  stages shown as earned: %d, of them never earned: %d\n", c.Earned, c.Unearned)
		fmt.Fprintf(out, "  lessons use %d of %d minutes, %d %%\n", c.Used/2, c.Given/2, 100*c.Used/max(c.Given, 1))
		for _, h := range c.Home {
			fmt.Fprintf(out, "  at home with %d minutes a day: %d %% used of what is enough\n", h.Minutes, 100*h.Used/max(h.Given, 1))
		}
	}
}
