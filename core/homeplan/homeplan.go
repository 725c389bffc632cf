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
	Page  Kind = "page"  // a whole line of a page that is played through, one line after another
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
	Page         int     // its place on a page that was given as a whole, from 1; 0 for none
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
	Items  []Item
	Enough bool `json:",omitempty"` // more minutes were given than do good: the rest is free
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
	Page  []int64 `json:",omitempty"` // exercises that are played through each day, one after another
	Picks bool    `json:",omitempty"` // the student picks which days of the week, as many as were given
}

// Bounds of what may be asked for.
const (
	MostMinutes = 60 // a day
	MostDays    = 60
)

// The figures are ours, but for what is enough: common practice of teachers of beginners.
const (
	enough     = 30 // minutes a day; more do no good, least of all to a beginner's lips
	warmFrom   = 10 // minutes of a day from which on it begins with long notes
	cardsFrom  = 8  // minutes from which on it has a round of cards
	cardHalves = 4
	mostCards  = 10 // half minutes of cards, where nothing else is left to do
	homeTalk   = 15 // seconds in which a student reads what is to be done
	fewLines   = 5  // lines of a day up to fewMinutes, a line being a chunk in one sitting
	moreLines  = 7
	fewMinutes = 20
	mostTimes  = 6    // a stage is done in one sitting
	lipSeconds = 720. // that lips play in a day at most
	used       = 0.85 // of a day's minutes that are filled where there is anything to do
)

// warmHalves is how long the long notes of a day last, in half minutes.
func warmHalves(minutes int) int {
	switch {
	case minutes < warmFrom:
		return 0
	case minutes < 20:
		return 4
	case minutes < enough:
		return 6
	}
	return 8
}

// work is a chunk on its way through the plan.
type work struct {
	Chunk
	at      int // the next stage, by its place in the routine; len(Steps) is done
	placed  bool
	tight   bool  // something of it was longer than a day has
	late    bool  // its last stage was reached on the last day only
	touched int   // the last day it was in
	paged   bool  // it was played with its page on some day
	within  *work // the whole line that the chunk is of, nil for that and where it is not there
}

// open says whether stages of the chunk are still to be done.
func (w *work) open() bool { return w.at < len(w.Steps) }

// Daily is what stands in every day that has room for it.
type Daily struct {
	Warm  bool // it begins with long notes
	Cards bool // a round of reading cards, while lips, arms or hands rest
}

// Make lays out a plan over some days, in their order, the last of them the last before the
// check-in. The minutes of a day are used, up to what is enough: long notes, what is due, hardest
// first, what is in progress, one thing learned, and something to enjoy. All open stages of a
// chunk are done in one sitting, repeated until sure. On the last day what is due is played twice
// in a row, as it will be. What was learned comes back at growing distances, 1, 2, 4, 8 days and so
// on. What is due and does not fit is named.
func Make(days []Day, chunks []Chunk, daily Daily) Plan {
	var plan Plan
	list := make([]*work, len(chunks))
	for k, p := range chunks {
		list[k] = &work{Chunk: p, at: max(p.Steps.Index(p.State.Stage), 0), touched: -1}
	}
	for _, w := range list {
		for _, whole := range list {
			if w != whole && w.Exercise == whole.Exercise && whole.Whole() {
				w.within = whole
			}
		}
	}
	slices.SortStableFunc(list, func(a, b *work) int { return cmp.Compare(b.Hard, a.Hard) })
	given := slices.DeleteFunc(slices.Clone(days), func(d Day) bool { return d.Minutes <= 0 })
	for k, day := range given {
		plan.Days = append(plan.Days, planDay(day, list, len(given)-k, daily))
	}
	for _, w := range list {
		if left, is := w.left(len(given)); is {
			plan.Left = append(plan.Left, left)
		}
	}
	return plan
}

// laying is one day on its way.
type laying struct {
	day    Day
	left   int // days, this one included
	free   int // half minutes
	middle []Item
	of     []*work // whose the items of middle are
	page   []Item  // the page that is played through
	last   []Item  // what is played twice in a row at the end
	cards  int     // half minutes
	lips   float64 // seconds that lips have played
}

// planDay lays out one day, after which n are left, itself included.
func planDay(day Day, list []*work, left int, daily Daily) Planned {
	d := Planned{Day: day, Enough: day.Minutes > enough}
	minutes := min(day.Minutes, enough)
	l := laying{day: day, left: left, free: 2 * minutes}
	warm := 0
	if daily.Warm {
		warm = warmHalves(minutes)
	}
	l.free -= warm
	if left == 1 {
		l.twiceInARow(list)
	}
	if daily.Cards && minutes >= cardsFrom {
		l.cards = min(cardHalves, l.free)
		l.free -= l.cards
	}
	l.throughThePage(list)
	l.due(list)
	l.sittings(list, false)
	l.again(list, 1, false)
	l.again(list, 1, true)
	l.fill(list, 2*minutes, warm, daily.Cards && minutes >= cardsFrom)
	if warm > 0 {
		d.Items = append(d.Items, Item{Kind: Warm, Halves: warm, Why: "so that breath, bow or hands are ready"})
	}
	d.Items = append(d.Items, l.middle...)
	d.Items = append(d.Items, l.page...)
	if l.cards > 0 {
		d.Items = append(d.Items, Item{Kind: Cards, Halves: l.cards, Why: "reading, while lips and hands rest"})
	}
	d.Items = append(d.Items, l.last...)
	return d
}

// lines is how many chunks are in the day.
func (l *laying) lines() int {
	n := 0
	for k, w := range l.of {
		if !slices.Contains(l.of[:k], w) {
			n++
		}
	}
	return n
}

// room says whether the day takes another line.
func (l *laying) room() bool {
	most := moreLines
	if l.day.Minutes <= fewMinutes {
		most = fewLines
	}
	return l.lines()+len(l.last) < most
}

// take puts an item into the day where there is time for it.
func (l *laying) take(w *work, i Item) bool {
	if i.Halves > l.free {
		return false
	}
	l.middle, l.of, l.free = append(l.middle, i), append(l.of, w), l.free-i.Halves
	w.touched = l.day.On
	l.lips += w.blown(i.Step)
	return true
}

// blown is how many seconds lips play in a step.
func (w *work) blown(s lesson.Step) float64 {
	if !w.Lips {
		return 0
	}
	return s.Sounding(false)
}

// twiceInARow keeps the time first in which what is due is played as it will be.
func (l *laying) twiceInARow(list []*work) {
	for _, w := range list {
		if i := w.twice(); w.Due && l.room() && w.at >= len(w.Steps)-1 && i.Halves <= l.free {
			w.late = w.open() && l.left == 1 && w.State.Stage != routine.Done && !w.placed
			l.last, l.free = append(l.last, i), l.free-i.Halves
			w.at, w.placed, w.touched = len(w.Steps), true, l.day.On
		}
	}
}

// throughThePage plays the lines of a page that was given as a whole, one after another, twice
// through, or once where there is no more time; a day that is too short for it goes without.
func (l *laying) throughThePage(list []*work) {
	page := slices.DeleteFunc(slices.Clone(list), func(w *work) bool { return w.Page == 0 || !w.Whole() })
	slices.SortFunc(page, func(a, b *work) int { return cmp.Compare(a.Page, b.Page) })
	for times := 2; times > 0 && len(page) > 0; times-- {
		var items []Item
		sum, why := 0, [...]string{1: "the page, once through, one line after another", 2: "the page, twice through, one line after another"}[times]
		for _, w := range page {
			s := w.step(len(w.Steps)-1, times)
			s.Rests = false
			items, sum = append(items, Item{Page, s, s.Halves(), why}), sum+s.Halves()
		}
		if sum > l.free {
			continue
		}
		l.page, l.free = items, l.free-sum
		for _, w := range page {
			w.touched, w.placed, w.paged = l.day.On, true, true
			l.lips += w.blown(w.step(len(w.Steps)-1, times))
		}
		return
	}
}

// due puts what is due today: of what is open as much as there is for each of the days left, the
// hardest first, with the least that each of the others needs kept; then what is through already,
// so that it stays.
func (l *laying) due(list []*work) {
	var open []*work
	for _, w := range list {
		if w.Due && w.open() {
			open = append(open, w)
		}
	}
	today := (len(open) + l.left - 1) / l.left
	for k, w := range open {
		if l.room() && (k < today || l.left > 1 && k < today+1) {
			l.sitting(w, "for the check-in")
		}
	}
	for _, w := range list {
		if w.Due && !w.open() && w.touched != l.day.On && l.left > 1 && l.day.On > w.Last {
			s := w.step(len(w.Steps)-1, 1)
			if l.room() && l.take(w, Item{Again, s, s.Halves(), "for the check-in: it stays"}) {
				w.Last, w.Reviews, w.placed = l.day.On, w.Reviews+1, true
			}
		}
	}
}

// sittings goes on with what is in progress, while the day takes another line.
func (l *laying) sittings(list []*work, more bool) {
	for _, w := range list {
		if w.paged && w.touched == l.day.On { // it is played with its page
			continue
		}
		if !w.Due && w.open() && l.room() && (more || l.lines() < fewLines-1) {
			l.sitting(w, "in progress")
		}
	}
}

// sitting does the open stages of a chunk one after the other, each as often as in a lesson where
// there is time; those that do not fit wait for the next day.
func (l *laying) sitting(w *work, why string) {
	for w.open() {
		at := w.at
		s := w.step(at, w.often(at))
		for s.Times > 1 && s.Halves() > l.free {
			s.Times--
		}
		if !l.take(w, Item{Work, s, s.Halves(), why + ": " + w.Steps[at].Word}) {
			w.tight = w.tight || w.step(at, 1).Halves() > 2*l.day.Minutes
			return
		}
		w.at++
		w.placed = true
		if !w.open() {
			w.Last, w.Reviews = l.day.On, 0
			w.late = w.Due && l.left == 1
		}
	}
}

// again brings back what was learned, as much as n lines: what is due to come back by its days,
// or anything that is known, to enjoy.
func (l *laying) again(list []*work, n int, enjoy bool) {
	for _, w := range list {
		if n == 0 || !l.room() {
			return
		}
		if w.within != nil && !w.within.open() { // the whole line comes back, not a chunk of it
			continue
		}
		if w.open() || w.Due && l.left == 1 || w.touched == l.day.On || !enjoy && l.day.On < w.Last+w.gap() || enjoy && w.Due {
			continue
		}
		s := w.step(len(w.Steps)-1, 1)
		why := w.againWhy(l.day)
		if enjoy {
			why = "to enjoy: you can play it"
		}
		if l.take(w, Item{Again, s, s.Halves(), why}) {
			if !enjoy {
				w.Reviews++
			}
			w.Last = l.day.On
			n--
		}
	}
}

// fill uses the time that is left: what is practised is done more often, until it is sure; then
// more is brought back and gone on with; then there are more cards, and longer notes.
func (l *laying) fill(list []*work, all, warm int, cards bool) {
	enoughUsed := func() bool { return float64(all-l.free) >= used*float64(all) }
	for round := 0; round < mostTimes && !enoughUsed(); round++ {
		for k := range l.middle {
			if i := &l.middle[k]; !enoughUsed() && i.Step.Times < mostTimes {
				l.oftener(i, l.of[k])
			}
		}
	}
	if !enoughUsed() {
		l.sittings(list, true)
	}
	for n := 0; n < moreLines && !enoughUsed(); n++ {
		l.again(list, 1, false)
		l.again(list, 1, true)
	}
	for round := 0; round < mostTimes && !enoughUsed(); round++ {
		for k := range l.middle {
			if !enoughUsed() && l.middle[k].Step.Times < mostTimes {
				l.oftener(&l.middle[k], l.of[k])
			}
		}
	}
	if more := min(l.free, mostCards-l.cards); cards && more > 0 && !enoughUsed() {
		l.cards, l.free = l.cards+more, l.free-more
	}
}

// oftener does an item once more, where there is time and the lips allow it.
func (l *laying) oftener(i *Item, w *work) {
	more := i.Step
	more.Times++
	extra := more.Halves() - i.Halves
	blown := w.blown(more) - w.blown(i.Step)
	if extra > l.free || l.lips+blown > lipSeconds && blown > 0 {
		return
	}
	i.Step, i.Halves, l.free, l.lips = more, i.Halves+extra, l.free-extra, l.lips+blown
}

// often is how often a stage is done in a lesson.
func (w *work) often(at int) int { return max(w.Steps[at].Often(), w.Steps[at].ToGoOn()) }

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

// left says what of a due chunk did not fit into the days left, or only on the last of them.
func (w *work) left(days int) (Left, bool) {
	if w.Page > 0 && w.Whole() && !w.paged {
		return Left{Step: w.step(len(w.Steps)-1, 1), Why: "the page takes longer than a day has"}, true
	}
	if !w.Due || !w.open() && w.placed && !w.late {
		return Left{}, false
	}
	at := min(w.at, len(w.Steps)-1)
	l := Left{Step: w.step(at, 1)}
	switch {
	case days == 0:
		l.Why = "there is no day before the check-in"
	case w.late:
		l.Why = w.Steps[at].Word + " is only reached on the last day"
	case w.tight && !w.placed:
		l.Why = "once through takes longer than a day has"
	case !w.placed:
		l.Why = "there is no time for it"
	default:
		l.Why = fmt.Sprintf("%s does not fit before the check-in", w.Steps[at].Word)
	}
	return l, true
}
