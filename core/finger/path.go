package finger

import (
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// alternateCost is what an alternate must save before it is taken in place of
// the default: more than a teacher would call nothing. In another position of the
// left hand it is positionCost, since it is seldom alone there. The figures are ours.
const (
	alternateCost = 3
	positionCost  = 2
)

// maxWays is how many ways of a note are tried at most.
const maxWays = 12

// line fingers runs of notes by dynamic programming over the ways each can be
// played. Ways and the costs between them are worked out once for each pair of
// different notes.
type line struct {
	instrument instrument.Instrument
	change     changer
	options    Options
	stays      bool // on strings: no other position is thought of
	known      map[score.Pitch]int
	notes      []lineNote
	costs      [][][]int16 // from note, to note: a cost for each pair of ways
}

// lineNote is a note that occurs in the line, with the ways worth trying.
type lineNote struct {
	ways  []Choice // the default, and each alternate put first
	hands []hand
	alone []int32 // what each costs by itself
}

func newLine(i instrument.Instrument, part score.Part, o Options) *line {
	l := &line{instrument: i, change: changerOf(i), options: o, known: map[score.Pitch]int{}}
	l.stays = i.Mechanism == instrument.Strings && staysInFirst(i, part)
	return l
}

func (l *line) choice(p score.Pitch) Choice {
	preferred := l.options.Preferred[p.MIDI()]
	if l.stays && preferred == "" {
		return inFirst(l.instrument, p)
	}
	c, _ := For(l.instrument, p)
	return c.Prefer(preferred)
}

// note returns the number under which a pitch is known.
func (l *line) note(p score.Pitch) int {
	if n, ok := l.known[p]; ok {
		return n
	}
	c := l.choice(p)
	n := lineNote{ways: []Choice{c}, hands: []hand{l.change.take(Played{p, c.Text})}, alone: []int32{0}}
	for _, way := range c.Alternates {
		if !way.ByChoice && !l.options.Usual && len(n.ways) < maxWays {
			n.ways = append(n.ways, c.Prefer(way.Text))
			h, alone := l.change.take(Played{p, way.Text}), int32(alternateCost)
			if l.instrument.Mechanism == instrument.Strings && h.position != firstPosition {
				alone = positionCost
			}
			n.hands, n.alone = append(n.hands, h), append(n.alone, alone)
		}
	}
	l.notes = append(l.notes, n)
	l.known[p] = len(l.notes) - 1
	return len(l.notes) - 1
}

// between gives the costs of going from any way of one note to any of another,
// row by row.
func (l *line) between(a, b int) []int16 {
	for len(l.costs) < len(l.notes) {
		l.costs = append(l.costs, nil)
	}
	for len(l.costs[a]) < len(l.notes) {
		l.costs[a] = append(l.costs[a], nil)
	}
	if l.costs[a][b] == nil {
		from, to := l.notes[a].hands, l.notes[b].hands
		table := make([]int16, 0, len(from)*len(to))
		for _, x := range from {
			for _, y := range to {
				table = append(table, int16(l.change.cost(x, y, nil)))
			}
		}
		l.costs[a][b] = table
	}
	return l.costs[a][b]
}

// cheapest fingers a run of notes, given by the numbers note returned: the least
// sum of its changes and of what each note costs that is not played its default
// way. It returns a way for each, 0 for the default; of paths that cost the
// same the one with the default at its end is taken.
func (l *line) cheapest(run []int) []uint8 {
	if len(run) == 0 {
		return nil
	}
	cameFrom := make([][maxWays]uint8, len(run))
	reached := [maxWays]int32{}
	before := copy(reached[:], l.notes[run[0]].alone)
	for k := 1; k < len(run); k++ {
		table, next := l.between(run[k-1], run[k]), [maxWays]int32{}
		alone := l.notes[run[k]].alone
		ways := len(alone)
		for to := range ways {
			least, best := reached[0]+int32(table[to]), uint8(0)
			for from := 1; from < before; from++ {
				if cost := reached[from] + int32(table[from*ways+to]); cost < least {
					least, best = cost, uint8(from)
				}
			}
			next[to] = least + alone[to]
			cameFrom[k][to] = best
		}
		reached, before = next, ways
	}
	best := uint8(0)
	for way := range before {
		if reached[way] < reached[best] {
			best = uint8(way)
		}
	}
	path := make([]uint8, len(run))
	for k := len(run) - 1; k >= 0; k-- {
		path[k] = best
		best = cameFrom[k][best]
	}
	return path
}
