package card

import (
	"cmp"
	"slices"
	"time"

	fsrs "github.com/open-spaced-repetition/go-fsrs/v3"
)

// Grade is how easily a card was answered.
type Grade int

// The grades, as the schedule has them.
const (
	Missed Grade = iota + 1 // wrong
	Slow                    // right, after long or with help
	Right
	Quick
)

// Answered is an answer in the log.
type Answered struct {
	Card   string // its ID
	Grade  Grade
	Millis int // from seeing it to answering, 0 where it was not measured
	At     time.Time
}

// pace is in how many seconds an answer of a kind is quick, and from how many on slow.
type pace struct{ quick, slow int }

// The figures are ours: a name is to be read in the time of a slow quarter note.
var paces = map[Kind]pace{
	Place: {2, 6}, Name: {2, 6}, Finger: {3, 8}, Key: {4, 12}, Rhythm: {6, 20}, Interval: {3, 10}, Change: {4, 12},
}

// SlowFrom is from how many seconds on an answer of the kind is slow.
func (k Kind) SlowFrom() int { return paces[k].slow }

// Judge grades an answer. A card that is seen for the first time is never graded quick: it may
// have been a guess.
func Judge(kind Kind, right bool, millis int, helped, first bool) Grade {
	p := paces[kind]
	switch {
	case !right:
		return Missed
	case helped || millis > 1000*p.slow:
		return Slow
	case millis > 0 && millis < 1000*p.quick && !first:
		return Quick
	}
	return Right
}

// farthest is after how many days at most a card comes back: a term. The figure is ours.
const farthest = 120

// scheduler spaces cards by the method FSRS with its published default weights.
func scheduler() *fsrs.FSRS {
	p := fsrs.DefaultParam()
	p.MaximumInterval = farthest
	return fsrs.NewFSRS(p)
}

// State is where a student is with a card.
type State struct {
	Seen   int       // answers
	Streak int       // right ones in a row, slow ones included
	Due    time.Time // when it comes back
	Last   time.Time
	Memory fsrs.Card
}

// States replays a log, in whatever order it came, into where each card stands.
func States(log []Answered) map[string]State {
	log = slices.Clone(log)
	slices.SortStableFunc(log, func(a, b Answered) int { return a.At.Compare(b.At) })
	f, states := scheduler(), map[string]State{}
	for _, a := range log {
		s, known := states[a.Card]
		if !known {
			s.Memory = fsrs.NewCard()
		}
		grade := min(max(a.Grade, Missed), Quick)
		s.Memory = f.Next(s.Memory, a.At, fsrs.Rating(grade)).Card
		s.Seen++
		s.Streak++
		if grade == Missed {
			s.Streak = 0
		}
		if s.Memory.ScheduledDays > farthest { // the method lets easy answers go beyond its bound by a day or two
			s.Memory.ScheduledDays, s.Memory.Due = farthest, a.At.AddDate(0, 0, farthest)
		}
		s.Due, s.Last = s.Memory.Due, a.At
		states[a.Card] = s
	}
	return states
}

// Speed is how quickly cards of a kind were answered on a day.
type Speed struct {
	Day    time.Time // midnight, UTC
	Median int       // milliseconds
	Of     int       // right answers that were measured
}

// Speeds says day by day how quickly cards of some kind were answered right, the oldest first.
func Speeds(log []Answered, kind Kind) []Speed {
	byDay := map[time.Time][]int{}
	for _, a := range log {
		if KindOf(a.Card) == kind && a.Grade > Missed && a.Millis > 0 {
			day := a.At.UTC().Truncate(24 * time.Hour)
			byDay[day] = append(byDay[day], a.Millis)
		}
	}
	var list []Speed
	for day, took := range byDay {
		slices.Sort(took)
		list = append(list, Speed{day, took[len(took)/2], len(took)})
	}
	slices.SortFunc(list, func(a, b Speed) int { return cmp.Compare(a.Day.Unix(), b.Day.Unix()) })
	return list
}
