package card

import (
	"cmp"
	"slices"
	"strings"
	"time"
)

// KindOf is the kind of card that an ID names.
func KindOf(id string) Kind {
	kind, _, _ := strings.Cut(id, ":")
	return Kind(kind)
}

// Asking is the way a card is asked.
type Asking string

// How a card is asked, as it gets to be known.
const (
	InOrder Asking = "in order" // from the lowest up, with where it stands as help
	Mixed   Asking = "mixed"    // help where it is asked for
	Fast    Asking = "fast"     // without help
)

// Asked is a card of a round.
type Asked struct {
	Card
	Asking  Asking
	New     bool // it was never answered
	Because Because
}

// Because is why a card is asked now.
type Because string

// The reasons.
const (
	ItIsNew    Because = "new"
	ItIsTime   Because = "again"
	ItStumbled Because = "stumble" // in an exercise, since it was answered
)

// Wanted is what a round is made of.
type Wanted struct {
	Kinds []Kind
	New   int // cards that may be new on a day
	Short int // seconds that the round may take
}

// Bounds of what may be wanted.
const (
	MostNew    = 12
	UsualNew   = 4
	RoundTakes = 120 // seconds: a short round
)

// From how many right answers in a row on a card is mixed among the others, and from how many
// on it is asked fast. The figures are ours.
const (
	mixedFrom = 2
	fastFrom  = 4
)

// Round chooses the cards to ask now: those that were stumbled over in an exercise since they
// were answered, the last time given by their ID, those that are due, and new ones, as many as
// a day may have and the time allows.
// First come those that are not known yet, in the order of the deck, then the others mixed,
// then those that are asked fast. A new card on how a note is played waits until its name was
// right once.
func Round(deck []Card, log []Answered, stumbles map[string]time.Time, now time.Time, w Wanted) []Asked {
	states := States(log)
	left := w.New - newOn(log, now)
	var due, fresh []Asked
	for _, c := range deck {
		if !slices.Contains(w.Kinds, c.Kind) {
			continue
		}
		id := c.ID()
		s, known := states[id]
		at, stumbled := stumbles[id]
		stumbled = stumbled && at.After(s.Last)
		switch {
		case stumbled && known:
			due = append(due, Asked{Card: c, Asking: InOrder, Because: ItStumbled})
		case stumbled:
			fresh = append(fresh, Asked{Card: c, Asking: InOrder, New: true, Because: ItStumbled})
		case known && !s.Due.After(now):
			due = append(due, Asked{Card: c, Asking: s.asking(), Because: ItIsTime})
		case !known && c.Kind == Finger && !named(c, states, w.Kinds):
		case !known:
			fresh = append(fresh, Asked{Card: c, Asking: InOrder, New: true, Because: ItIsNew})
		}
	}
	slices.SortStableFunc(fresh, func(a, b Asked) int {
		return cmp.Compare(btoi(a.Because == ItIsNew),
			btoi(b.Because == ItIsNew))
	})
	fresh = fresh[:min(len(fresh), max(left, 0))]
	return inOrder(within(append(due, fresh...), states, w.Short), deck, now)
}

func btoi(b bool) int {
	if b {
		return 1
	}
	return 0
}

func (s State) asking() Asking {
	switch {
	case s.Streak >= fastFrom:
		return Fast
	case s.Streak >= mixedFrom:
		return Mixed
	}
	return InOrder
}

// named says whether the name of a finger card's note was right once, where names are asked.
func named(c Card, states map[string]State, kinds []Kind) bool {
	if !slices.Contains(kinds, Name) {
		return true
	}
	c.Kind = Name
	return states[c.ID()].Streak > 0
}

// newOn counts the cards whose first answer was on the day of now.
func newOn(log []Answered, now time.Time) int {
	first := map[string]time.Time{}
	for _, a := range log {
		if at, known := first[a.Card]; !known || a.At.Before(at) {
			first[a.Card] = a.At
		}
	}
	day, n := now.UTC().Truncate(24*time.Hour), 0
	for _, at := range first {
		n += btoi(at.UTC().Truncate(24 * time.Hour).Equal(day))
	}
	return n
}

// within keeps as many cards as some seconds allow, those first that are most behind; a new
// one takes twice the time of a slow answer, another what its kind takes at most.
func within(list []Asked, states map[string]State, seconds int) []Asked {
	slices.SortStableFunc(list, func(a, b Asked) int {
		return cmp.Or(cmp.Compare(btoi(a.New), btoi(b.New)), states[a.ID()].Due.Compare(states[b.ID()].Due))
	})
	var kept []Asked
	for _, a := range list {
		takes := a.Kind.SlowFrom()
		if a.New {
			takes *= 2
		}
		if seconds -= takes; seconds < 0 && len(kept) > 0 {
			break
		}
		kept = append(kept, a)
	}
	return kept
}

// inOrder lays a round out: the unknown in the order of the deck, the others mixed, the fast
// ones last. The mixing is another one every day, and the same within it.
func inOrder(list []Asked, deck []Card, now time.Time) []Asked {
	place := map[string]int{}
	for k, c := range deck {
		place[c.ID()] = k
	}
	day := uint64(now.UTC().Truncate(24 * time.Hour).Unix())
	mixed := func(a Asked) uint64 {
		h := day*1099511628211 + 14695981039346656037
		for _, b := range []byte(a.ID()) {
			h = (h ^ uint64(b)) * 1099511628211
		}
		return h
	}
	rank := map[Asking]int{InOrder: 0, Mixed: 1, Fast: 2}
	slices.SortStableFunc(list, func(a, b Asked) int {
		if c := cmp.Compare(rank[a.Asking], rank[b.Asking]); c != 0 {
			return c
		}
		if a.Asking == InOrder {
			return place[a.ID()] - place[b.ID()]
		}
		return cmp.Compare(mixed(a), mixed(b))
	})
	return list
}
