package score

import "slices"

// mostPlayed bounds the played order of a part with repeats, far above any
// exercise.
const mostPlayed = 20000

// Order lists the indexes of the measures in the order they are played:
// repeats taken, endings chosen by pass, D.C. and D.S. followed once, after
// which repeats are not taken again (common practice).
func (p Part) Order() []int {
	var order []int
	passes := map[int]int{} // how often the strain ending at a measure has been played
	start, pass := 0, 1
	jumped, toCoda := false, false

	for i := 0; i < len(p.Measures) && len(order) < mostPlayed; {
		m := p.Measures[i]
		if m.RepeatStart && start != i {
			start, pass = i, 1
		}
		if !plays(m, pass, jumped, p.lastPass(i)) {
			i++
			continue
		}
		order = append(order, i)

		if jumped && m.Fine {
			break
		}
		if jumped && toCoda && m.ToCoda {
			if coda := p.find(func(m Measure) bool { return m.Coda }); coda > i {
				i, toCoda = coda, false
				start, pass = coda, 1
				continue
			}
		}
		if m.RepeatEnd && !jumped {
			again := passes[i]+1 < max(m.Times, 2)
			if len(m.Endings) > 0 { // the sign that closes the last ending repeats nothing
				again = pass < max(p.lastPass(i), 2)
			}
			if again {
				passes[i]++
				pass++
				i = start
				continue
			}
			if len(m.Endings) == 0 {
				start, pass = i+1, 1
			}
		}
		if m.Jump.To != "" && !jumped {
			jumped = true
			toCoda = m.Jump.Al == "coda"
			start, pass = 0, 1
			if m.Jump.To == "segno" {
				start = max(0, p.find(func(m Measure) bool { return m.Segno }))
			}
			i = start
			continue
		}
		i++
		if len(m.Endings) > 0 && (i == len(p.Measures) || len(p.Measures[i].Endings) == 0) {
			start, pass = i, 1
		}
	}
	return order
}

// plays says whether a measure is part of this pass; after a jump only the last
// ending is played.
func plays(m Measure, pass int, jumped bool, last int) bool {
	if len(m.Endings) == 0 {
		return true
	}
	if jumped {
		pass = last
	}
	for _, n := range m.Endings {
		if n == pass {
			return true
		}
	}
	return false
}

// lastPass is the highest ending number in the run of endings around measure i.
func (p Part) lastPass(i int) int {
	from := i
	for from > 0 && len(p.Measures[from-1].Endings) > 0 {
		from--
	}
	last := 0
	for ; from < len(p.Measures) && len(p.Measures[from].Endings) > 0; from++ {
		for _, n := range p.Measures[from].Endings {
			last = max(last, n)
		}
	}
	return last
}

func (p Part) find(is func(Measure) bool) int {
	for i, m := range p.Measures {
		if is(m) {
			return i
		}
	}
	return -1
}

// Sounding is one struck note as it is heard, ties joined.
type Sounding struct {
	Place  Place
	Onset  Fraction // from the start of the chunk, in whole notes
	Length Fraction
	Pitch  Pitch
}

// joins says whether a tied note goes on from s; after a repeat it may not.
func (s Sounding) joins(e Event, onset Fraction) bool {
	return s.Onset.Add(s.Length) == onset && s.Pitch.MIDI() == e.Pitch.MIDI()
}

// Holds says whether a note or chord ties a pitch on to the next note.
func (e Event) Holds(p Pitch) bool {
	return e.TieOn && e.Pitch.MIDI() == p.MIDI() ||
		slices.ContainsFunc(e.InnerTies, func(inner Pitch) bool { return inner.MIDI() == p.MIDI() })
}

// Sounding lists the notes heard when measures are played in the given order.
func (p Part) Sounding(order []int) []Sounding {
	notes := make([]Sounding, 0, p.Events())
	at := Fraction{}
	for _, i := range order {
		m := &p.Measures[i]
		for j := range m.Events {
			e := &m.Events[j]
			if e.Kind != Note {
				continue
			}
			onset := at.Add(e.Start.Sub(m.Offset))
			if n := len(notes); e.Tied && n > 0 && notes[n-1].joins(*e, onset) {
				notes[n-1].Length = notes[n-1].Length.Add(e.Length)
				continue
			}
			if n := len(notes); e.Tied && n > 0 && notes[n-1].Onset.Add(notes[n-1].Length) == onset &&
				p.At(notes[n-1].Place).Holds(e.Pitch) {
				continue // an inner note of the chord before sounds on
			}
			notes = append(notes, Sounding{Place{i, j}, onset, e.Length, e.Pitch})
		}
		at = at.Add(m.Length)
	}
	return notes
}

// Written lists the measure indexes once each, as they stand on the page.
func (p Part) Written() []int {
	order := make([]int, len(p.Measures))
	for i := range order {
		order[i] = i
	}
	return order
}
