package score

// Pulse is one mark on the ruler of pulses that lanes are laid on.
type Pulse struct {
	Place Fraction // from the bar line, as an event's Start
	Value Value    // how long until the next mark, as a note value
}

// Ruler divides the part of the measure that sounds into pulses: at least the
// halves of a simple beat or the thirds of a compound one, and finer in each
// beat where a note starts between them.
func (m Measure) Ruler() []Pulse {
	beat := m.Meter.Beat()
	end := m.Offset.Add(m.Length)
	pulses := make([]Pulse, 0, 16)
	for at := m.Offset.Sub(m.Offset.Within(beat)); at.Less(end); at = at.Add(beat) {
		value, parts := m.division(at, beat)
		step := beat.Div(Frac(int64(parts), 1))
		for k := range parts {
			place := at.Add(step.Mul(Frac(int64(k), 1)))
			if !place.Less(m.Offset) && place.Less(end) {
				pulses = append(pulses, Pulse{place, value})
			}
		}
	}
	return pulses
}

// division finds the coarsest division of the beat that starts at from on which
// every event in it starts.
func (m Measure) division(from, beat Fraction) (Value, int) {
	parts := []int{2, 4, 3, 6, 8, 12, 24, 5, 10, 7, 16, 32, 64}
	if m.Meter.Compound() {
		parts = []int{3, 6, 12, 24}
	} else if beat.Cmp(Frac(1, 8)) <= 0 {
		parts = append([]int{1}, parts...)
	}
	triplet := m.tripletIn(from, beat)
	for _, n := range parts {
		if (!triplet || n%3 == 0) && m.fits(from, beat, n) {
			return pulseValue(m.Meter, n), n
		}
	}
	return pulseValue(m.Meter, 24), 24 // nothing finer is written
}

// tripletIn says whether a triplet sounds in the beat, whose thirds are then its
// pulses also where none of them is struck.
func (m Measure) tripletIn(from, beat Fraction) bool {
	for _, e := range m.Events {
		if e.Value.Tuplet.Actual == 3 && e.Start.Less(from.Add(beat)) && from.Less(e.Start.Add(e.Length)) {
			return true
		}
	}
	return false
}

func (m Measure) fits(from, beat Fraction, parts int) bool {
	step := beat.Div(Frac(int64(parts), 1))
	for _, e := range m.Events {
		place := e.Start.Sub(from)
		if place.num < 0 || !place.Less(beat) {
			continue
		}
		if !place.Within(step).IsZero() {
			return false
		}
	}
	return true
}

// pulseValue writes the n-th part of a beat as a note value.
func pulseValue(m Meter, n int) Value {
	if m.Compound() {
		return Value{Base: m.Unit * n / 3}
	}
	normal := n
	switch {
	case n%3 == 0:
		normal = n / 3 * 2
	case n%5 == 0:
		normal = n / 5 * 4
	case n%7 == 0:
		normal = n / 7 * 4
	default:
		return Value{Base: m.Unit * n}
	}
	return Value{Base: m.Unit * normal, Tuplet: Ratio{n, normal}}
}
