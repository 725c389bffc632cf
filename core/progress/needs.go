package progress

import (
	"cmp"
	"math"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

// Heard is a try with where and when it was made.
type Heard struct {
	Exercise int64
	Unit     breakdown.ChunkKey
	Stage    routine.Stage
	Form     routine.Stage // kind of the stage
	Clean    bool
	Cause    routine.Cause
	At       int64 // in seconds since 1970
	Day      int   // since 1 January 1970, where the school is
}

// Need is what somebody needs help with: the one place to begin, and over what.
type Need struct {
	Exercise int64
	Unit     breakdown.ChunkKey
	Stage    routine.Stage
	Form     routine.Stage
	Cause    routine.Cause
	Stumbles int     // in the tries that it is told from
	Of       int     // these tries
	Since    int64   // the first of the stumbles, in seconds since 1970
	Weight   float64 // of the stumbles: each counts half as much every two weeks
	Habit    bool    // it is met in several lines
}

// What counts as stuck. Source: common practice; the figures are ours.
const (
	stuckRunning = 3  // stumbles one after the other
	stuckOf      = 8  // or half of the last tries
	halfLife     = 14 // days in which trouble weighs half
	leastWeight  = 1.0

	// NeedDays is how long a try bears on who needs help.
	NeedDays = 28
)

// NeedOf finds what one student needs help with most, from their tries of the last weeks, oldest
// first; ok is false where nothing is the matter. A place is stuck after three stumbles running
// or where half of the last eight tries stumbled, and so is a cause that comes again and again at
// one kind of stage, in whatever line. A good day ends it.
func NeedOf(tries []Heard, today int) (need Need, ok bool) {
	type place struct {
		exercise int64
		unit     breakdown.ChunkKey
	}
	places, forms := map[place][]Heard{}, map[routine.Stage][]Heard{}
	for _, t := range tries {
		if today-t.Day > NeedDays {
			continue
		}
		p := place{t.Exercise, t.Unit}
		places[p], forms[t.Form] = append(places[p], t), append(forms[t.Form], t)
	}
	var found []Need
	for _, list := range places {
		if n, stuck := stuckIn(list, today, func(t Heard) bool { return !t.Clean }); stuck {
			found = append(found, n)
		}
	}
	for _, list := range forms {
		for _, cause := range routine.AllCauses() {
			if n, stuck := stuckIn(list, today, func(t Heard) bool { return !t.Clean && t.Cause == cause }); stuck {
				n.Habit = true
				found = append(found, n)
			}
		}
	}
	found = append(found, recurring(tries, today)...)
	if len(found) == 0 {
		return need, false
	}
	slices.SortFunc(found, func(a, b Need) int {
		return cmp.Or(cmp.Compare(b.Weight, a.Weight), cmp.Compare(a.Since, b.Since), cmp.Compare(a.Exercise, b.Exercise),
			cmp.Compare(a.Unit.First, b.Unit.First), cmp.Compare(string(a.Cause), string(b.Cause)))
	})
	return found[0], true
}

// recurring finds causes that came on most of the last days with tries, whatever the line and
// the stage: a habit, where no single place is bad enough.
func recurring(tries []Heard, today int) []Need {
	var days []int
	for _, t := range slices.Backward(tries) {
		if today-t.Day <= NeedDays && !slices.Contains(days, t.Day) && len(days) < recurOf {
			days = append(days, t.Day)
		}
	}
	var found []Need
	for _, cause := range routine.AllCauses() {
		need, on, all := Need{Cause: cause, Habit: true}, map[int]bool{}, 0
		for _, t := range tries {
			if !slices.Contains(days, t.Day) {
				continue
			}
			if need.Of++; t.Clean {
				continue
			}
			if all++; t.Cause != cause {
				continue
			}
			if need.Stumbles++; need.Stumbles == 1 {
				need.Since = t.At
			}
			need.Weight += math.Exp2(-float64(today-t.Day) / halfLife)
			need.Exercise, need.Unit, need.Stage, need.Form = t.Exercise, t.Unit, t.Stage, t.Form
			on[t.Day] = true
		}
		again := len(on) >= recurOn && 3*need.Stumbles >= 2*all
		alone := len(on) >= aloneOn && need.Stumbles == all
		if (again || alone) && on[days[0]] && need.Weight >= leastWeight {
			found = append(found, need)
		}
	}
	return found
}

// A cause that came on recurOn of the last recurOf days with tries, the last one among them, and
// makes two thirds of the stumbles, is a habit; so is one that came on aloneOn of them and is all
// that stumbled. The figures are ours.
const (
	recurOn = 3
	recurOf = 4
	aloneOn = 2
)

// stuckIn says whether the last of some tries are stuck over what counts as a stumble, at the
// place where it went wrong last.
func stuckIn(list []Heard, today int, stumbled func(Heard) bool) (need Need, stuck bool) {
	list = list[max(0, len(list)-stuckOf):]
	running, most := 0, 0
	lastDay := list[len(list)-1].Day
	good := true // the last day
	var over routine.Causes
	for _, t := range list {
		if !stumbled(t) {
			running = 0
			continue
		}
		if running++; need.Stumbles == 0 {
			need.Since = t.At
		}
		most = max(most, running)
		need.Stumbles++
		need.Weight += math.Exp2(-float64(today-t.Day) / halfLife)
		need.Exercise, need.Unit, need.Stage, need.Form = t.Exercise, t.Unit, t.Stage, t.Form
		over.Add(t.Cause)
		good = good && t.Day != lastDay
	}
	need.Of, need.Cause = len(list), over.Main()
	enough := most >= stuckRunning || len(list) == stuckOf && 2*need.Stumbles >= stuckOf
	return need, enough && !good && need.Weight >= leastWeight
}

// SharedNeeds are those of some who share place and cause, three or more, most first, by who they
// are: the needs of the students, of those whose trouble is at most two weeks old, by its age in days.
func SharedNeeds(needs map[int64]Need, age func(Need) int) [][]int64 {
	type what struct {
		exercise int64
		unit     breakdown.ChunkKey
		cause    routine.Cause
	}
	by := map[what][]int64{}
	for student, n := range needs {
		if age(n) <= halfLife {
			key := what{n.Exercise, n.Unit, n.Cause}
			by[key] = append(by[key], student)
		}
	}
	var list [][]int64
	for _, some := range by {
		if len(some) >= leastShared {
			slices.Sort(some)
			list = append(list, some)
		}
	}
	slices.SortFunc(list, func(a, b []int64) int { return cmp.Or(len(b)-len(a), cmp.Compare(a[0], b[0])) })
	return list
}

// leastShared is from how many on they are taken together.
const leastShared = 3
