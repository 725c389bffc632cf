// Package homeplan spreads what a student does at home over the days and minutes they have.
package homeplan

import (
	"cmp"
	"fmt"
	"slices"

	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
)

// Kind is what a line of a plan is.
type Kind string

// The kinds.
const (
	Warm  Kind = "warm"  // long notes, long bows or even strokes
	Work  Kind = "work"  // a stage of a chunk
	Again Kind = "again" // what was learned, brought back
	Twice Kind = "twice" // what is due, twice in a row, before the check-in
	Cards Kind = "cards" // a short round of reading cards
)

// OfAChunk says whether a line of the kind is at a chunk.
func (k Kind) OfAChunk() bool { return k != Warm && k != Cards }

// Chunk is a chunk as a student has it.
type Chunk struct {
	lesson.Chunk                 // with the tempo of the next try
	Steps        routine.Routine // that the student follows
	State        routine.State
	Due          bool    // asked for at the check-in
	Hard         float64 // from 0 to 1, for this instrument
	Last         int     // the day it was clean last, for a done one
	Reviews      int     // days on which it was clean again since it was done
}

// Day is a day with the minutes there are; days are counted from 1 January 1970.
type Day struct {
	On      int
	Minutes int
}

// Item is a line of a day.
type Item struct {
	Kind   Kind        `json:"kind"`
	Step   lesson.Step `json:"step"`
	Halves int         `json:"halves"` // half minutes
	Why    string      `json:"why"`
}

// Planned is a day of a plan.
type Planned struct {
	Day
	Items []Item
}

// Halves is how many half minutes the day's lines take.
func (d Planned) Halves() int {
	total := 0
	for _, i := range d.Items {
		total += i.Halves
	}
	return total
}

// Left is what was due and did not fit, or not whole.
type Left struct {
	Step lesson.Step `json:"step"`
	Why  string      `json:"why"`
}

// Plan is what is to be done, day by day.
type Plan struct {
	Days  []Planned
	Left  []Left
	Asked []int64 `json:",omitempty"` // exercises that were asked for beside the check-in
}

// Bounds of what may be asked for.
const (
	MostMinutes = 60 // a day
	MostDays    = 60
)

// The figures are ours.
const (
	warmHalves = 4  // two minutes of long notes, where the day has warmFrom
	warmFrom   = 20 // half minutes
	cardHalves = 4  // a round of cards, where the day has cardsFrom
	cardsFrom  = 16 // half minutes
	homeTalk   = 15 // seconds in which a student reads what is to be done
	mostLines  = 5  // of a day, beside long notes and what is due: few things, each often
	mostAgain  = 2  // lines of a day that bring back what was learned, while there is something begun
	homeTimes  = 2  // a stage is done that many times as often as in a lesson, where there is room
)

// work is a chunk on its way through the plan.
type work struct {
	Chunk
	at     int // the next stage, by its place in the routine; len(Steps) is done
	placed bool
	tight  bool // something of it was longer than a day has
}

// Daily is what stands in every day that has room for it.
type Daily struct {
	Warm  bool // it begins with long notes
	Cards bool // a round of reading cards, while lips, arms or hands rest
}

// Make lays out a plan over some days, in their order, the last of them the last before the
// check-in. Every day has at most its minutes. What is due comes first, hardest first, a stage
// a day, or more where there are fewer days than stages; on the last day it is played twice in
// a row, as it will be. Then what was learned comes back at growing distances, 1, 2, 4, 8 days
// and so on, a few lines a day so that what is begun goes on as well. What is due and does not
// fit is named.
func Make(days []Day, chunks []Chunk, daily Daily) Plan {
	var plan Plan
	list := make([]*work, len(chunks))
	for k, p := range chunks {
		list[k] = &work{Chunk: p, at: max(p.Steps.Index(p.State.Stage), 0)}
	}
	slices.SortStableFunc(list, func(a, b *work) int { return cmp.Compare(b.Hard, a.Hard) })
	used := slices.DeleteFunc(slices.Clone(days), func(d Day) bool { return d.Minutes <= 0 })
	for k, day := range used {
		plan.Days = append(plan.Days, planDay(day, list, len(used)-k, daily))
	}
	for _, w := range list {
		if left, is := w.left(len(used)); is {
			plan.Left = append(plan.Left, left)
		}
	}
	return plan
}

// planDay lays out one day, after which n are left, itself included.
func planDay(day Day, list []*work, left int, daily Daily) Planned {
	d := Planned{Day: day}
	free := 2 * day.Minutes
	var first, last []Item
	if daily.Warm && free >= warmFrom {
		first, free = append(first, Item{Kind: Warm, Halves: warmHalves,
			Why: "so that breath, bow or hands are ready"}), free-warmHalves
	}
	take := func(into *[]Item, i Item) bool {
		if i.Halves > free {
			return false
		}
		*into, free = append(*into, i), free-i.Halves
		return true
	}
	var middle []Item
	hard := map[int]float64{}
	put := func(w *work, i Item) bool {
		if !take(&middle, i) {
			return false
		}
		hard[len(middle)-1] = w.Hard
		return true
	}
	if left == 1 { // time for what is due twice in a row is kept first
		for _, w := range list {
			if w.Due && w.at >= len(w.Steps)-1 && take(&last, w.twice()) {
				w.at, w.placed = len(w.Steps), true
			}
		}
	}
	save := 0 // half minutes that what is due today needs at the least
	for _, w := range list {
		save += w.least(left)
	}
	for _, w := range list {
		if !w.Due {
			continue
		}
		save -= w.least(left)
		for range w.stagesToday(left) {
			if !w.stage(put, day, free-save, "for the check-in") {
				break
			}
		}
	}
	if cards := (Item{Kind: Cards, Halves: cardHalves, Why: "reading, while lips and hands rest"}); daily.Cards &&
		2*day.Minutes >= cardsFrom {
		var round []Item
		if take(&round, cards) {
			last = append(round, last...)
		}
	}
	again := mostLines
	if slices.ContainsFunc(list, func(w *work) bool { return !w.Due && w.at < len(w.Steps) }) {
		again = mostAgain
	}
	for _, w := range list {
		if w.at >= len(w.Steps) && !(w.Due && left == 1) && day.On >= w.Last+w.gap() && len(middle) < mostLines && again > 0 {
			s := w.step(len(w.Steps)-1, 1)
			if put(w, Item{Again, s, s.Halves(), w.againWhy(day)}) {
				w.Last, w.Reviews, again = day.On, w.Reviews+1, again-1
			}
		}
	}
	for _, w := range list {
		if !w.Due && w.at < len(w.Steps) && len(middle) < mostLines {
			w.stage(put, day, free, "begun")
		}
	}
	order := make([]int, len(middle))
	for k := range order {
		order[k] = k
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(hard[b], hard[a]) })
	d.Items = first
	for n, k := range order {
		if n == 0 && len(order) > 1 {
			middle[k].Why += "; the hardest first"
		}
		d.Items = append(d.Items, middle[k])
	}
	d.Items = append(d.Items, last...)
	return d
}

// stagesToday is how many stages of a chunk are done today, so that it is through when the
// days are over.
func (w *work) stagesToday(left int) int {
	stages := len(w.Steps) - w.at
	return (stages + left - 1) / left
}

// least is how many half minutes the stages of a due chunk take today, as often as in a lesson.
func (w *work) least(left int) int {
	total := 0
	for at := w.at; w.Due && at < w.at+w.stagesToday(left); at++ {
		total += w.step(at, w.often(at)).Halves()
	}
	return total
}

// often is how often a stage is done in a lesson.
func (w *work) often(at int) int { return max(w.Steps[at].Often(), w.Steps[at].ToGoOn()) }

// stage puts the next stage of a chunk into a day, more often than in a lesson where it takes
// no more than some half minutes then, else fewer times, as the day has room; it says whether
// it has gone on.
func (w *work) stage(put func(*work, Item) bool, day Day, room int, why string) bool {
	if w.at >= len(w.Steps) {
		return false
	}
	in := w.Steps[w.at]
	for times := homeTimes * w.often(w.at); times > 0; times-- {
		s := w.step(w.at, times)
		if s.Halves() > room && times > w.often(w.at) {
			continue
		}
		if put(w, Item{Work, s, s.Halves(), why + ": " + in.Word}) {
			w.at++
			w.placed = true
			if w.at == len(w.Steps) {
				w.Last, w.Reviews = day.On, 0
			}
			return true
		}
	}
	w.tight = w.tight || w.step(w.at, 1).Halves() > 2*day.Minutes
	return false
}

// step is a stage of the chunk, done some number of times.
func (w *work) step(at, times int) lesson.Step {
	of := w.Chunk.Chunk
	of.Steps = w.Steps
	s := of.Do(w.Steps[at].Stage, homeTalk, "")
	s.Times = times
	return s
}

// twice is the chunk played twice in a row, as it will be at the check-in.
func (w *work) twice() Item {
	s := w.step(len(w.Steps)-1, 2)
	s.Rests = false // it is known by then
	return Item{Twice, s, s.Halves(), "as you will play it, twice in a row"}
}

// gap is after how many days a done chunk comes back: 1, then 2, 4, 8 and so on.
func (w *work) gap() int { return 1 << min(w.Reviews, 6) }

func (w *work) againWhy(day Day) string {
	if n := day.On - w.Last; n > 1 {
		return fmt.Sprintf("learned; again after %d days", n)
	}
	return "learned; again after a day"
}

// left says what of a due chunk did not fit into the days left.
func (w *work) left(days int) (Left, bool) {
	if !w.Due || w.at >= len(w.Steps) && w.placed {
		return Left{}, false
	}
	at := min(w.at, len(w.Steps)-1)
	l := Left{Step: w.step(at, 1)}
	switch {
	case days == 0:
		l.Why = "there is no day before the check-in"
	case w.tight:
		l.Why = "once through takes longer than a day has"
	case !w.placed:
		l.Why = "there is no time for it"
	default:
		l.Why = fmt.Sprintf("%s does not fit before the check-in", w.Steps[at].Word)
	}
	return l, true
}
