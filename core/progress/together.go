package progress

import (
	"cmp"
	"fmt"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

// Trouble is what somebody is stuck on.
type Trouble struct {
	Student    int64
	Instrument string
	Exercise   int64
	Chunk      breakdown.ChunkKey
	Form       routine.Stage // kind of the stage they are at
	Cause      routine.Cause
	Stumbles   int
	Since      int64 // seconds since 1970
}

// Shared is what several are stuck on together.
type Shared struct {
	Trouble             // of the one who has been for longest
	Students    []int64 // the one who has been for longest first
	Instruments []string
}

// Together finds what two or more are stuck on together, across instruments: the same chunk,
// over the same cause. Most students first; of two alike, the one that has lasted longer.
func Together(list []Trouble) []Shared {
	type what struct {
		exercise int64
		chunk    breakdown.ChunkKey
		cause    routine.Cause
	}
	by := map[what][]Trouble{}
	for _, t := range list {
		key := what{t.Exercise, t.Chunk, t.Cause}
		by[key] = append(by[key], t)
	}
	var shared []Shared
	for _, some := range by {
		if len(some) < 2 {
			continue
		}
		slices.SortFunc(some, func(a, b Trouble) int {
			return cmp.Or(cmp.Compare(a.Since, b.Since), cmp.Compare(a.Student, b.Student))
		})
		s := Shared{Trouble: some[0]}
		for _, t := range some {
			s.Students = append(s.Students, t.Student)
			if !slices.Contains(s.Instruments, t.Instrument) {
				s.Instruments = append(s.Instruments, t.Instrument)
			}
			s.Stumbles = max(s.Stumbles, t.Stumbles)
		}
		shared = append(shared, s)
	}
	slices.SortFunc(shared, func(a, b Shared) int {
		return cmp.Or(len(b.Students)-len(a.Students), cmp.Compare(a.Since, b.Since),
			cmp.Compare(a.Student, b.Student), cmp.Compare(a.Exercise, b.Exercise), cmp.Compare(a.Chunk.First, b.Chunk.First))
	})
	return shared
}

// Member is somebody to be put into a group for an exercise.
type Member struct {
	Student    int64
	Instrument string
	Stage      int           // they are at, by its place in the routine of the class; beyond the last one they are done
	Word       string        // of that stage
	Cause      routine.Cause // that they are stuck on, None for nobody's trouble
	Share      float64       // of the exercise that they have behind them, 0 to 1
}

// Team is a group, with the reason for it.
type Team struct {
	Members []Member
	Why     string
}

// Grouping is how groups are made.
type Grouping string

// The ways of grouping.
const (
	ByTrouble Grouping = "trouble"  // who is stuck on the same thing, or at the same stage, together
	Balanced  Grouping = "balanced" // in each group some who are ahead and some who are behind
)

// Groups puts everybody into groups of a size, which is 2 at least; no group is larger, and
// where the numbers allow none is of one alone. The order is that of the members where
// nothing else decides.
func Groups(members []Member, size int, how Grouping) []Team {
	if len(members) == 0 {
		return nil
	}
	size = max(size, 2)
	if how == Balanced {
		return balanced(members, size)
	}
	sorted := slices.Clone(members)
	// those with one trouble stand together, those with none after them
	slices.SortStableFunc(sorted, func(a, b Member) int {
		return cmp.Or(cmp.Compare(causeOrder(a.Cause), causeOrder(b.Cause)), a.Stage-b.Stage, cmp.Compare(a.Share, b.Share))
	})
	var teams []Team
	for _, part := range dealt(len(sorted), size) {
		team := Team{Members: sorted[:part]}
		sorted = sorted[part:]
		team.Why = alikeWords(team.Members)
		teams = append(teams, team)
	}
	return teams
}

// causeOrder is the place of a cause, those who are stuck on none last.
func causeOrder(c routine.Cause) int {
	if k := slices.Index(routine.AllCauses(), c); k >= 0 {
		return k
	}
	return len(routine.AllCauses())
}

// dealt shares n out into as few groups of at most a size as there can be, as evenly
// as it goes.
func dealt(n, size int) []int {
	groups := (n + size - 1) / size
	list := make([]int, groups)
	for k := range list {
		list[k] = n / groups
		if k < n%groups {
			list[k]++
		}
	}
	return list
}

// balanced deals from the one who is furthest on to the one who is least, there and back.
func balanced(members []Member, size int) []Team {
	sorted := slices.Clone(members)
	slices.SortStableFunc(sorted, func(a, b Member) int { return cmp.Or(cmp.Compare(b.Share, a.Share), b.Stage-a.Stage) })
	teams := make([]Team, len(dealt(len(sorted), size)))
	for k, m := range sorted {
		round, place := k/len(teams), k%len(teams)
		if round%2 == 1 {
			place = len(teams) - 1 - place
		}
		teams[place].Members = append(teams[place].Members, m)
	}
	for k := range teams {
		furthest, least := slices.MaxFunc(teams[k].Members, byStage), slices.MinFunc(teams[k].Members, byStage)
		teams[k].Why = fmt.Sprintf("from %s to %s: the first can lead", furthest.Word, least.Word)
		if furthest.Stage == least.Stage {
			teams[k].Why = "all at " + least.Word
		}
	}
	return teams
}

func byStage(a, b Member) int { return a.Stage - b.Stage }

// alikeWords says what the members of a group have in common.
func alikeWords(members []Member) string {
	least, furthest := slices.MinFunc(members, byStage), slices.MaxFunc(members, byStage)
	where := "all at " + least.Word
	if least.Stage != furthest.Stage {
		where = fmt.Sprintf("from %s to %s", least.Word, furthest.Word)
	}
	var over routine.Causes
	for _, m := range members {
		over.Add(m.Cause)
	}
	most := over.Main()
	switch n := slices.Max(over[:]); {
	case most == routine.None:
		return where
	case n == len(members):
		return where + ", over " + most.Words()
	default:
		return fmt.Sprintf("%s, %d of %d over %s", where, n, len(members), most.Words())
	}
}
