package count

import "unhurriedbench/core/score"

// Counted is how one event is counted.
type Counted struct {
	Label string   // where it starts; "" for a note that continues a tie
	Held  []string // numbers of the beats that begin while it sounds, after its start
	Tap   Tap
}

// Part counts every event of a part, by measure and event. Of tied notes the
// first carries the count and is held through all of them.
func Part(p score.Part) [][]Counted {
	counted := make([][]Counted, len(p.Measures))
	var struck *Counted
	for i, m := range p.Measures {
		counted[i] = make([]Counted, len(m.Events))
		for j, e := range m.Events {
			c := &counted[i][j]
			c.Tap = TapAt(m.Meter, e.Start)
			held := heldBeats(m.Meter, e.Start, e.Length)
			if e.Tied && struck != nil {
				if e.Start.Within(m.Meter.Beat()).IsZero() {
					struck.Held = append(struck.Held, beatNumber(m.Meter, e.Start))
				}
				struck.Held = append(struck.Held, held...)
				continue
			}
			c.Label = Label(m.Meter, e.Start, e.Value.Tuplet.Actual > 0)
			c.Held = held
			struck = c
		}
	}
	return counted
}

// heldBeats lists the beats that begin after start and before its end.
func heldBeats(m score.Meter, start, length score.Fraction) []string {
	var held []string
	beat, end := m.Beat(), start.Add(length)
	for at := start.Sub(start.Within(beat)).Add(beat); at.Less(end); at = at.Add(beat) {
		held = append(held, beatNumber(m, at))
	}
	return held
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
}

// Text is the label with the brackets of its look.
func (c Cell) Text() string {
	switch c.Look {
	case Held:
		return "(" + c.Label + ")"
	case Rested:
		return "[" + c.Label + "]"
	}
	return c.Label
}

// Lane lays a measure's count on its ruler: held beats in round brackets, rests
// in square ones.
func Lane(m score.Measure) []Cell {
	ruler := m.Ruler()
	cells := make([]Cell, len(ruler))
	for k, pulse := range ruler {
		cell := Cell{Place: pulse.Place, Look: Quiet, Tap: TapAt(m.Meter, pulse.Place)}
		onBeat := pulse.Place.Within(m.Meter.Beat()).IsZero()
		for _, e := range m.Events {
			if pulse.Place.Less(e.Start) || !pulse.Place.Less(e.Start.Add(e.Length)) {
				continue
			}
			starts := e.Start == pulse.Place
			switch {
			case e.Kind == score.Rest && (starts || onBeat):
				cell.Look = Rested
			case e.Kind == score.Note && starts && !e.Tied:
				cell.Look = Struck
			case e.Kind == score.Note && onBeat:
				cell.Look = Held
			}
			if cell.Look != Quiet {
				cell.Label = Label(m.Meter, pulse.Place, e.Value.Tuplet.Actual > 0)
			}
		}
		cells[k] = cell
	}
	return cells
}
