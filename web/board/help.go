package board

import "unhurriedbench/teach"

// mostCards is how many cards stand above the Board.
const mostCards = 5

// helpShown is what of the help stands above the Board.
type helpShown struct {
	Shared []teach.SharedCard
	Cards  []teach.HelpCard
	Absent []teach.AbsentCard
	Less   bool // there is more
}

// shownOf chooses the cards above the Board: what several share, then who needs help most, and
// in any case one of those who were absent; or all of them.
func shownOf(h teach.Help, all bool) helpShown {
	v := helpShown{Shared: h.Shared, Cards: h.Cards, Absent: h.Absent}
	if all {
		return v
	}
	left := mostCards - min(len(h.Absent), 1)
	v.Shared = h.Shared[:min(len(h.Shared), left)]
	left -= len(v.Shared)
	v.Cards = h.Cards[:min(len(h.Cards), left)]
	left -= len(v.Cards)
	v.Absent = h.Absent[:min(len(h.Absent), left+min(len(h.Absent), 1))]
	v.Less = len(v.Shared)+len(v.Cards)+len(v.Absent) < len(h.Shared)+len(h.Cards)+len(h.Absent)
	return v
}
