package score

// SameMeasures says whether two parts have the same measures, so that they can stand and
// sound together: as many, each as long and beginning at the same place.
func SameMeasures(a, b Part) bool {
	if len(a.Measures) != len(b.Measures) {
		return false
	}
	for i := range a.Measures {
		if a.Measures[i].Length != b.Measures[i].Length || a.Measures[i].Offset != b.Measures[i].Offset {
			return false
		}
	}
	return true
}

// Delayed is the part as a later voice of a round has it while the first goes through it once:
// rests for some full measures, then its beginning. A pickup comes before the measure where
// the voice enters. What would be played after the first voice has ended is left out. The
// measures keep the repeats, meters and keys of where they stand.
func (p Part) Delayed(full int) Part {
	later := p.Copy()
	pickup := 0
	if len(p.Measures) > 0 && p.Measures[0].Pickup() {
		pickup = 1
	}
	for i := range later.Measures {
		m := &later.Measures[i]
		from := i - full
		switch {
		case from >= pickup:
			m.Events = m.fitted(Part{Measures: p.Measures[from : from+1]}.Copy().Measures[0].Events)
		default:
			m.Events = m.rests()
		}
	}
	if enters := full + pickup - 1; pickup == 1 && enters > 0 && enters < len(later.Measures) {
		later.Measures[enters].endWith(p.Measures[0])
	}
	later.CutTies()
	later.CloseSlurs()
	later.CloseHairpins()
	later.MarkAccidentals()
	return later
}

// rests fills a measure.
func (m Measure) rests() []Event {
	if m.Length == m.Meter.Length() {
		return []Event{{Kind: Rest, Start: m.Offset, Length: m.Length, Value: Value{Base: 1}, WholeMeasure: true}}
	}
	return restsBetween(m.Offset, m.Offset.Add(m.Length))
}

// fitted is as many of the events of another measure as this one has room for, and rests for
// what is left of it.
func (m Measure) fitted(events []Event) []Event {
	at, end := m.Offset, m.Offset.Add(m.Length)
	var list []Event
	for _, e := range events {
		if e.Start != at || end.Less(e.Start.Add(e.Length)) {
			break
		}
		list, at = append(list, e), e.Start.Add(e.Length)
	}
	return append(list, restsBetween(at, end)...)
}

// endWith has a measure that rests end with a pickup.
func (m *Measure) endWith(pickup Measure) {
	m.Events = restsBetween(m.Offset, pickup.Offset)
	m.Events = append(m.Events, Part{Measures: []Measure{pickup}}.Copy().Measures[0].Events...)
}

// restsBetween is rests from one place of a measure to another.
func restsBetween(from, to Fraction) []Event {
	values, _ := ValuesOf(to.Sub(from)) // of no length, none
	var list []Event
	for _, v := range values {
		list = append(list, Event{Kind: Rest, Start: from, Length: v.Length(), Value: v})
		from = from.Add(v.Length())
	}
	return list
}

// CutTies takes off ties that lead to nothing or come from nothing.
func (p Part) CutTies() {
	var before *Event
	for i := range p.Measures {
		for j := range p.Measures[i].Events {
			e := &p.Measures[i].Events[j]
			held := e.Kind == Note && e.Tied && before != nil && before.Kind == Note
			if before != nil && !held {
				before.TieOn, before.InnerTies = false, nil
			}
			e.Tied, before = held, e
		}
	}
	if before != nil {
		before.TieOn, before.InnerTies = false, nil
	}
}
