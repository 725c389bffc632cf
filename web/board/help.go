package board

import (
	"time"
	"unhurriedbench/core/progress"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

const (
	// helpShown is how many who need help stand above the Board; the others are behind a line.
	helpShown = 4
	// mostHelp is how many cards stand behind that line; the table has all.
	mostHelp = 40
)

// tell puts above the Board what most are stuck on together, and beside it who needs help
// most of the others, each once; the rest is behind a line.
func (v *boardView) tell(list []teach.Stuck, now time.Time) {
	teach.MostStuckFirst(list)
	troubles := make([]progress.Trouble, len(list))
	for k, s := range list {
		troubles[k] = s.Trouble()
	}
	shared := progress.Together(troubles)
	told := map[store.StudentID]bool{}
	for k, s := range shared {
		if k >= teach.SharedShown+mostHelp {
			break
		}
		card := teach.NewSharedCard(s, list, now)
		if k >= teach.SharedShown {
			v.SharedMore = append(v.SharedMore, card)
			continue
		}
		v.Shared = append(v.Shared, card)
		for _, id := range s.Students {
			told[store.StudentID(id)] = true
		}
	}
	v.MoreHelp = max(0, len(shared)-teach.SharedShown)
	for _, s := range list {
		switch {
		case !told[s.Student.ID] && len(v.Help)+len(v.Shared) < helpShown:
			told[s.Student.ID] = true
			v.Help = append(v.Help, s.Card(now))
			continue
		case len(v.More) < mostHelp:
			v.More = append(v.More, s.Card(now))
		}
		v.MoreHelp++
	}
}
