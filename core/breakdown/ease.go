package breakdown

import (
	"cmp"
	"slices"

	"unhurriedbench/core/score"
)

// Of how many notes one is marked at most, and how many in a line of a few notes; the figures
// are ours. A page where every third note carries a mark is not read.
const (
	markedOneIn = 5
	markedLeast = 3
)

// marked is a note that carries alerts beside New.
type marked struct {
	at     score.Place
	rank   int // the higher, the rather it is kept
	inLine int // how many of its line rank before it
}

// easeMarks leaves the alerts that matter most where more notes carry one than are looked at:
// signs and traps first, then the first note of each letter that the key changes, hard changes
// and what else goes wrong surely; of two alike, in lines of music by turns. The others are told
// on request, and count wherever it is asked what goes wrong. New stays.
func (r *Report) easeMarks() {
	notes := 0
	var list []marked
	inKey := map[score.Pitch]bool{}
	for i, m := range r.Part.Measures {
		for j, e := range m.Events {
			if e.Kind == score.Rest {
				continue
			}
			notes++
			letter := score.Pitch{Step: e.Pitch.Step, Alter: e.Pitch.Alter}
			rank := 0
			for _, a := range r.Measures[i].Events[j].Alerts {
				rank = max(rank, a.rank(inKey[letter]))
				inKey[letter] = inKey[letter] || a == InKey
			}
			if rank > 0 {
				list = append(list, marked{at: score.Place{Measure: i, Event: j}, rank: rank})
			}
		}
	}
	room := max(markedLeast, (notes+markedOneIn/2)/markedOneIn)
	if len(list) <= room {
		return
	}
	byRank := func(a, b marked) int { return cmp.Compare(b.rank, a.rank) }
	slices.SortStableFunc(list, byRank)
	lines := map[int]int{}
	for k := range list {
		line := systemOf(r.Part.Measures[list[k].at.Measure])
		list[k].inLine = lines[line]
		lines[line]++
	}
	slices.SortStableFunc(list, func(a, b marked) int { return cmp.Or(byRank(a, b), cmp.Compare(a.inLine, b.inLine)) })
	for _, m := range list[room:] {
		x := &r.Measures[m.at.Measure].Events[m.at.Event]
		kept := []Alert{}
		for _, a := range x.Alerts {
			if a == New {
				kept = append(kept, a)
			} else {
				x.eased = append(x.eased, a)
			}
		}
		x.Alerts = kept
	}
}

// rank is how much an alert matters where there is no room for all; 0 for New, which has room
// of its own. A letter that the key changes matters most where it comes first.
func (a Alert) rank(again bool) int {
	switch a {
	case New:
		return 0
	case Trap, Cancelled, Accidental, Carried:
		return 20 + goesWrong[a]
	case InKey:
		if !again {
			return 10 + goesWrong[a]
		}
	}
	return goesWrong[a]
}
