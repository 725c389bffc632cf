package progress

import (
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

// Logged is a try at a unit of an exercise: a chunk, joined chunks or the whole.
type Logged struct {
	Unit breakdown.ChunkKey
	routine.Try
}

// Folded is what a log adds up to for a unit.
type Folded struct {
	Unit breakdown.ChunkKey
	routine.State
	Own     int   // tries at it itself
	Counted []int // which tries counted for it, by their place in the log
	Last    int   // the last entry of the log that counted, tries and moves; -1 for none
	LastOwn bool  // and it was at the unit itself
	Played  int   // the last entry that was at its music, not at its rhythm alone; Last where none was
}

// bears is how a try at one unit bears on another.
type bears int

const (
	notAtAll bears = iota
	onRhythm       // it has the same rhythm
	within         // it contains the other, or what is the same music
	wholly         // it is the other, or the same written music
)

// bearing says how a try at a unit bears on another.
func bearing(o breakdown.Outline, unit, on breakdown.ChunkKey) bears {
	switch {
	case o.SameMusic(unit, on):
		return wholly
	case o.Contains(unit, on):
		return within
	}
	best := notAtAll
	if o.SameRhythm(unit, on) {
		best = onRhythm
	}
	for _, other := range o.Parts() {
		switch {
		case other == on || !o.Contains(unit, other):
		case o.SameMusic(other, on):
			return within
		case o.SameRhythm(other, on):
			best = onRhythm
		}
	}
	return best
}

// Fold says where the log of one student at one exercise leads, oldest first: for each chunk
// of the outline, and each other unit that was tried, that anything bears on. What is clean
// in joined chunks or the whole counts for every chunk in it; chunks that are the same written
// music share what was earned, and those of the same rhythm what was earned at its stages. Of
// the whole, and of joined chunks, a stage but the last is earned where all its chunks have
// earned it.
func Fold(r routine.Routine, o breakdown.Outline, log []Logged) []Folded {
	units := slices.Clone(o.Chunks)
	for _, l := range log {
		if !slices.Contains(units, l.Unit) {
			units = append(units, l.Unit)
		}
	}
	list := make([]Folded, len(units))
	for k, unit := range units {
		list[k] = Folded{Unit: unit, State: r.Start(), Last: -1, Played: -1}
	}
	known := map[breakdown.ChunkKey][]bears{}
	for at, l := range log {
		on, seen := known[l.Unit]
		if !seen {
			on = make([]bears, len(units))
			for k, unit := range units {
				on[k] = bearing(o, l.Unit, unit)
			}
			known[l.Unit] = on
		}
		for k := range list {
			list[k].add(r, l, at, stumbledAt(o, l, units[k], on[k]))
		}
	}
	for k := range list {
		list[k].joined(r, o, list)
		list[k].State = list[k].State.Settled()
	}
	return slices.DeleteFunc(list, func(f Folded) bool { return f.Last < 0 })
}

// Passed is where a unit stood after an entry of the log that bore on it.
type Passed struct {
	routine.State
	At int // the place of the entry in the log
}

// History says where a unit stood after each entry of a log that bore on it.
func History(r routine.Routine, o breakdown.Outline, log []Logged, unit breakdown.ChunkKey) []Passed {
	var list []Passed
	f := Folded{Unit: unit, State: r.Start(), Last: -1}
	for at, l := range log {
		if f.add(r, l, at, stumbledAt(o, l, unit, bearing(o, l.Unit, unit))); f.Last == at {
			list = append(list, Passed{f.State.Settled(), at})
		}
	}
	return list
}

// add counts an entry of the log that bears on the unit in some way.
func (f *Folded) add(r routine.Routine, l Logged, at int, how bears) {
	before := f.Tries
	switch how {
	case wholly:
		f.State = r.After(f.State, l.Try)
	case within:
		f.State = r.Within(f.State, l.Try)
	case onRhythm:
		if l.Moved || r.Step(l.Stage).Form() != routine.Count {
			return
		}
		f.State = r.Within(f.State, l.Try)
	default:
		return
	}
	own := l.Unit == f.Unit
	if f.Tries > before {
		f.Counted = append(f.Counted, at)
		if own {
			f.Own++
		}
	}
	if f.Tries > before || own || l.Moved && how == within && l.Stage == routine.Done {
		if f.Last, f.LastOwn = at, own; how != onRhythm || f.Played < 0 {
			f.Played = at
		}
	}
}

// stumbledAt is how a stumble in a larger unit bears on one in it where the measure was said: it
// is one of the chunk with that measure too, and of what is the same music; what lies elsewhere
// did not stumble.
func stumbledAt(o breakdown.Outline, l Logged, unit breakdown.ChunkKey, how bears) bears {
	if how != within || l.Clean || l.Moved || l.Measure == 0 {
		return how
	}
	for _, part := range o.Parts() {
		if !o.Contains(l.Unit, part) || l.Measure < part.First || l.Measure > part.Last {
			continue
		}
		switch {
		case part == unit || o.SameMusic(part, unit):
			return wholly
		case o.Contains(unit, part):
			return within
		}
	}
	return notAtAll
}

// joined adds what is earned of a unit because all its chunks have earned it.
func (f *Folded) joined(r routine.Routine, o breakdown.Outline, list []Folded) {
	earned, last, chunks := ^routine.StageSet(0), -1, 0
	for _, part := range o.Parts() {
		if !o.Contains(f.Unit, part) {
			continue
		}
		at := slices.IndexFunc(list, func(p Folded) bool { return p.Unit == part })
		earned &= list[at].Earned
		chunks, last = chunks+1, max(last, list[at].Last)
	}
	if earned = earned.Before(len(r) - 1); chunks < 2 || earned == 0 {
		return
	}
	f.Earned |= earned
	if f.Stage != routine.Done && f.Earned.Has(r.Index(f.Stage)) && f.Stumble == 0 {
		f.State.Stage = r.Next(f.State)
	}
	if f.Last < 0 {
		f.Last, f.Played = last, last
	}
}
