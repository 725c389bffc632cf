package routine

import "math/bits"

// StageSet is some of the stages of a routine, by their place in it.
type StageSet uint32

// Has says whether the stage at a place is in the set.
func (s StageSet) Has(k int) bool { return s&(1<<k) != 0 }

// With is the set with the stage at a place.
func (s StageSet) With(k int) StageSet { return s | 1<<k }

// Without is the set without the stage at a place.
func (s StageSet) Without(k int) StageSet { return s &^ (1 << k) }

// Before are those in the set that come before a place.
func (s StageSet) Before(k int) StageSet { return s & (1<<k - 1) }

// last is the place of the last stage in the set, -1 for none.
func (s StageSet) last() int { return bits.Len32(uint32(s)) - 1 }

// Credit is what is known of a stage of a chunk. Nothing is called earned that was not.
type Credit int

// The credits, the least first.
const (
	Open       Credit = iota // none of the others
	PassedOver               // not earned, and a later stage was tried while the last is not earned
	ByPlaying                // not earned, but the last stage was: who can play it can do this
	Earned                   // clean as often in a row as the routine says
)

// Words says a credit: "earned".
func (c Credit) Words() string {
	return [...]string{"open", "passed over", "by playing", "earned"}[c]
}

// Credit says what is known of the stage at a place.
func (r Routine) Credit(s State, k int) Credit {
	switch last := len(r) - 1; {
	case s.Earned.Has(k):
		return Earned
	case k < last && s.Earned.Has(last):
		return ByPlaying
	case k < r.Index(s.Stage) && s.Tried.last() > k:
		return PassedOver
	}
	return Open
}

// Cell is a stage in the bar that shows where somebody stands.
type Cell struct {
	Filled float64 // from 0 to 1: 1 where it is earned
	Credit Credit
}

// Cells are the bar of stages of a chunk: full for a stage that is earned, in part for the
// one at hand.
func (r Routine) Cells(s State) []Cell {
	cells := make([]Cell, len(r))
	for k := range cells {
		cells[k].Credit = r.Credit(s, k)
		switch {
		case cells[k].Credit == Earned:
			cells[k].Filled = 1
		case r[k].Stage == s.Stage:
			need := r[k].ToGoOn()
			cells[k].Filled = float64(s.TempoStep*need+min(s.Clean, need)) / float64((r[k].faster()+1)*need)
		}
	}
	return cells
}
