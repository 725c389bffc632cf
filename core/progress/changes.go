package progress

import (
	"cmp"
	"slices"

	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// Failed is a chunk in which fingerings went wrong, with its hardest change, which is
// taken to be what failed.
type Failed struct {
	From, To score.Pitch
	Why      string // what it takes
	Exercise int64
	Where    string // the chunk
	Stumbles int    // over fingerings, ever
	Holds    bool   // the chunk has gone on past where it went wrong
}

// FailedChange is a change that has failed, in all chunks that have it.
type FailedChange struct {
	Failed          // in the chunk where it failed most; it holds where it does in all of them
	Others []string // the other chunks
}

// Changes adds up what has failed, a change and its way back as one: first those that do not
// hold yet, of those what failed most.
func Changes(list []Failed) []FailedChange {
	by := map[[2]score.Pitch][]Failed{}
	for _, f := range list {
		if f.Stumbles == 0 {
			continue
		}
		pair := [2]score.Pitch{f.From, f.To}
		if _, back := by[[2]score.Pitch{f.To, f.From}]; back {
			pair = [2]score.Pitch{f.To, f.From}
		}
		by[pair] = append(by[pair], f)
	}
	var changes []FailedChange
	for _, some := range by {
		slices.SortStableFunc(some, func(a, b Failed) int { return b.Stumbles - a.Stumbles })
		c := FailedChange{Failed: some[0]}
		for _, f := range some[1:] {
			c.Stumbles += f.Stumbles
			c.Others = append(c.Others, f.Where)
			c.Holds = c.Holds && f.Holds
		}
		changes = append(changes, c)
	}
	slices.SortFunc(changes, func(a, b FailedChange) int {
		open := func(c FailedChange) int { return map[bool]int{false: 0, true: 1}[c.Holds] }
		return cmp.Or(open(a)-open(b), b.Stumbles-a.Stumbles, a.From.Diatonic()-b.From.Diatonic(),
			a.To.Diatonic()-b.To.Diatonic(), a.From.Alter-b.From.Alter, a.To.Alter-b.To.Alter)
	})
	return changes
}

// FailedAt counts the stumbles of a chunk's log that a change may be to blame for, and says
// whether it has held since: the last try at a stage that went wrong so was clean, or the
// chunk is done.
func FailedAt(log []routine.Try, state routine.State) (stumbles int, holds bool) {
	wrong := map[routine.Stage]bool{}
	for _, t := range log {
		switch {
		case t.Moved:
		case t.Clean:
			delete(wrong, t.Stage)
		case t.Cause == routine.Fingering:
			stumbles++
			wrong[t.Stage] = true
		}
	}
	return stumbles, len(wrong) == 0 || state.Stage == routine.Done
}
