// Package count says a rhythm: the label of every note, the beats it is held
// through, the foot's taps, the count-off before the music, and whether two
// rhythms are the same.
package count

import (
	"slices"

	"unhurriedbench/core/score"
)

// Counted is how one event is counted.
type Counted struct {
	Label string   // where it starts; "" for a note that continues a tie
	Held  []string // what is said or thought at the beats that begin while it sounds, after its start
	Tap   Tap
}

// Look is how a cell of the count lane is written.
type Look string

// The looks of a cell.
const (
	Struck Look = "struck" // 1
	Held   Look = "held"   // (2)
	Rested Look = "rest"   // [3]
	Quiet  Look = "quiet"  // a pulse on which nothing is said
)

// Cell is the count at one pulse of the ruler.
type Cell struct {
	Place score.Fraction
	Label string
	Look  Look
	Tap   Tap
	Beat  bool // a beat begins here
	Plain bool // a rest that is written without brackets
}

// Text is the label with the brackets of its look.
func (c Cell) Text() string {
	switch {
	case c.Label == "" || c.Plain:
		return c.Label
	case c.Look == Held:
		return "(" + c.Label + ")"
	case c.Look == Rested:
		return "[" + c.Label + "]"
	}
	return c.Label
}

// span is one note with its ties joined, or one rest, cut at bar lines: what is
// said at each moment of it that is said at all.
type span struct {
	rest    bool
	length  score.Fraction // through its ties
	written score.Value    // of the struck event
	moments []moment       // its start and then each held beat
	short   bool           // a sixteenth before a longer note of the same beat
	syncope int            // 1 to 3: its place in eighth, quarter, eighth; else 0
}

type moment struct {
	measure int
	event   int // the event sounding there
	place   score.Fraction
	pace    pace
	tuplet  bool
	starts  bool
	gone    score.Fraction // of the span, before this moment
	third   int            // of the triplet it stands in, from 1; 0 for none
}

// spans lists the notes and rests of a part with the moments at which they are
// counted: where they start, and every beat after that, or every eighth where
// the school says those.
func spans(p score.Part, o Options) []span {
	events := p.Events()
	list, moments := make([]span, 0, events), make([]moment, 0, 2*events)
	first := make([]int, 0, events+1) // the first moment of each span
	for i, m := range p.Measures {
		pc := paceOf(m.Meter, o)
		thirds := thirdsOf(m)
		for j, e := range m.Events {
			goesOn := e.Tied && len(list) > 0
			if !goesOn {
				list, first = append(list, span{rest: e.Kind == score.Rest, written: e.Value}), append(first, len(moments))
			}
			s := &list[len(list)-1]
			tuplet := e.Value.Tuplet.Actual > 0
			step := pc.step(o, e.Value.Tuplet.Actual == 3)
			if !goesOn || e.Start.Within(step).IsZero() {
				moments = append(moments, moment{i, j, e.Start, pc, tuplet, !goesOn, s.length, thirds[j]})
			}
			end := e.Start.Add(e.Length)
			for at := e.Start.Sub(e.Start.Within(step)).Add(step); at.Less(end); at = at.Add(step) {
				moments = append(moments, moment{i, j, at, pc, tuplet, false, s.length.Add(at.Sub(e.Start)), 0})
			}
			s.length = s.length.Add(e.Length)
		}
	}
	first = append(first, len(moments))
	for n := range list {
		list[n].moments = moments[first[n]:first[n+1]]
	}
	markShort(list)
	return list
}

// step is how often a held note or a rest is counted: every beat, or every half or
// third of one when the pulse is said; in a triplet the pulse is its thirds.
func (p pace) step(o Options, triplet bool) score.Fraction {
	quarter := score.Frac(1, 4)
	switch {
	case o.School == Values && !p.compound && quarter.Less(p.beat):
		return quarter // by value a half is ta-a, also where it is the beat
	case o.School != Pulsed:
		return p.beat
	case p.compound || triplet:
		return p.beat.Div(score.Frac(3, 1))
	}
	return p.beat.Div(score.Frac(2, 1))
}

// thirdsOf gives for each event of a measure the third of its triplet that it starts
// on, from 1; 0 outside triplets and between thirds.
func thirdsOf(m score.Measure) []int {
	thirds := make([]int, len(m.Events))
	for j := range m.Events {
		if !m.Events[j].TupletStarts || m.Events[j].Value.Tuplet.Actual != 3 {
			continue
		}
		last, length := tupletFrom(m, j)
		for k := j; k <= last; k++ {
			if n := m.Events[k].Start.Sub(m.Events[j].Start).Div(length).Mul(score.Frac(3, 1)); n.Den() == 1 {
				thirds[k] = int(n.Num()) + 1
			}
		}
	}
	return thirds
}

// tupletFrom is the last event of the tuplet that begins at an event of a measure, and
// the length of the whole.
func tupletFrom(m score.Measure, from int) (last int, length score.Fraction) {
	for k, e := range m.Events[from:] {
		last, length = from+k, length.Add(e.Length)
		if e.TupletEnds {
			break
		}
	}
	return last, length
}

// markShort finds sixteenths before a longer note of their beat, and eighth, quarter,
// eighth from a beat on.
func markShort(list []span) {
	for n := range list {
		first := list[n].moments[0]
		if list[n].rest || first.tuplet || n+1 == len(list) || list[n+1].rest {
			continue
		}
		sixteenth, next := score.Frac(1, 16), list[n+1]
		place := first.place.Within(first.pace.beat)
		// what is held beyond is no longer note of the beat
		inBeat := next.length.Min(first.pace.beat.Sub(place.Add(sixteenth)))
		if list[n].length == sixteenth && sixteenth.Less(inBeat) && place.Add(sixteenth).Less(first.pace.beat) &&
			!next.moments[0].tuplet {
			list[n].short = true
		}
		if n+2 < len(list) && first.pace.beat == score.Frac(1, 4) && place.IsZero() && !list[n+2].rest &&
			list[n].length == score.Frac(1, 8) && next.length == score.Frac(1, 4) && list[n+2].length == score.Frac(1, 8) {
			for k := range 3 {
				list[n+k].syncope = k + 1
			}
		}
	}
}

// Part counts every event of a part, by measure and event. Of tied notes the
// first carries the count and is held through all of them.
func Part(p score.Part, o Options) [][]Counted {
	counted := make([][]Counted, len(p.Measures))
	foot := feet(p, o)
	for i, m := range p.Measures {
		counted[i] = make([]Counted, len(m.Events))
		for j, e := range m.Events {
			counted[i][j].Tap = foot[i].tap(e.Start)
		}
	}
	said := wordsOf(p, o)
	for _, s := range spans(p, o) {
		first := s.moments[0]
		c := &counted[first.measure][first.event]
		for k := range s.moments {
			label := s.say(k, o, said)
			if k == 0 {
				c.Label = label
			} else {
				c.Held = append(c.Held, label)
			}
		}
	}
	return counted
}

// Lanes lays a part's count on the rulers of its measures.
func Lanes(p score.Part, o Options) [][]Cell {
	lanes := make([][]Cell, len(p.Measures))
	foot := feet(p, o)
	for i, m := range p.Measures {
		pc := paceOf(m.Meter, o)
		ruler := m.Ruler()
		lanes[i] = make([]Cell, len(ruler))
		for k, pulse := range ruler {
			lanes[i][k] = Cell{Place: pulse.Place, Look: Quiet, Tap: foot[i].tap(pulse.Place), Beat: pc.onBeat(pulse.Place)}
		}
	}
	said := wordsOf(p, o)
	for _, s := range spans(p, o) {
		for k, now := range s.moments {
			lane := lanes[now.measure]
			at := slices.IndexFunc(lane, func(c Cell) bool { return c.Place == now.place })
			if at < 0 {
				continue
			}
			cell := &lane[at]
			cell.Label = s.say(k, o, said)
			switch {
			case s.rest:
				cell.Look = Rested
				cell.Plain = o.plainRests(cell.Label)
			case now.starts:
				cell.Look = Struck
			default:
				cell.Look = Held
			}
		}
	}
	return lanes
}
