package score

import (
	"fmt"
	"slices"
)

// Finish turns measures of events that only have their lengths into a part:
// it sets starts, numbers and offsets, marks tied notes and written
// accidentals, and checks that every measure holds what its meter asks.
// The error is a Problems.
func (p *Part) Finish() error {
	if len(p.Measures) == 0 {
		return Problems{General("There is no music in it.", "Add at least one measure of notes.")}
	}
	if len(p.Measures) > MostMeasures {
		return Problems{TooManyMeasures(len(p.Measures))}
	}
	p.addUpLengths()
	p.number()
	problems := p.checkLengths()
	if len(problems) > 0 {
		return problems
	}
	p.completeSigns()
	p.setStarts()
	p.groupTuplets()
	p.joinTies()
	p.MarkAccidentals()
	return nil
}

func (p *Part) addUpLengths() {
	for i := range p.Measures {
		m := &p.Measures[i]
		m.Length = Fraction{}
		for j := range m.Events {
			e := &m.Events[j]
			if e.WholeMeasure {
				e.Length = m.Meter.Length()
			}
			m.Length = m.Length.Add(e.Length)
		}
		if len(m.Events) == 1 && m.Events[0].Kind == Rest && m.Length == m.Meter.Length() {
			m.Events[0].WholeMeasure, m.Events[0].Value = true, Value{Base: 1}
		}
	}
}

// number finds the pickup and the halves of measures that a repeat divides, and
// numbers the rest from 1.
func (p *Part) number() {
	next := 1
	for i := range p.Measures {
		m := &p.Measures[i]
		m.Number, m.Offset, m.Split = next, Fraction{}, false
		short := m.Length.Less(m.Meter.Length())
		switch {
		case i == 0 && short && len(p.Measures) > 1:
			m.Number = 0
			m.Offset = m.Meter.Length().Sub(m.Length)
			continue
		case i > 0 && short && p.continues(i, i-1):
			m.Split = true
			m.Offset = p.Measures[i-1].Length
			m.Number = p.Measures[i-1].Number
			continue
		case i > 0 && short && m.EndingStart && p.beforeEndings(i) >= 0 && p.continues(i, p.beforeEndings(i)):
			base := p.Measures[p.beforeEndings(i)]
			m.Split, m.Offset, m.Number = true, base.Length, base.Number
			continue
		}
		next++
	}
}

// beforeEndings is the index of the measure before the run of endings around measure
// i, -1 where there is none.
func (p *Part) beforeEndings(i int) int {
	for i >= 0 && len(p.Measures[i].Endings) > 0 {
		i--
	}
	return i
}

// continues says whether measure i is the second half of an earlier one, divided by a
// repeat sign, an ending or a double bar.
func (p *Part) continues(i, earlier int) bool {
	before, m := p.Measures[earlier], p.Measures[i]
	divided := before.RepeatEnd || m.RepeatStart || before.DoubleBar || m.EndingStart
	return divided && !before.Split && before.Number > 0 &&
		before.Length.Add(m.Length) == m.Meter.Length()
}

func (p *Part) checkLengths() Problems {
	var problems Problems
	pickup := Fraction{}
	if p.Measures[0].Number == 0 {
		pickup = p.Measures[0].Length
	}
	for i, m := range p.Measures {
		full := m.Meter.Length()
		switch m.Length.Cmp(full) {
		case 1:
			problems = append(problems, p.lengthProblem(m, full,
				fmt.Sprintf("Take %s away, or check the note lengths.", beats(m.Length.Sub(full), m.Meter))))
		case -1:
			if m.Number == 0 || m.Split || p.mayBeShort(i, pickup) {
				continue
			}
			problems = append(problems, p.lengthProblem(m, full,
				fmt.Sprintf("Add %s, as notes or as a rest.", beats(full.Sub(m.Length), m.Meter))))
		}
	}
	return problems
}

// mayBeShort allows a measure that a later half completes, and the last measure
// of a chunk or of a repeated strain that gives its missing time to the pickup.
func (p *Part) mayBeShort(i int, pickup Fraction) bool {
	m := p.Measures[i]
	if i+1 < len(p.Measures) && p.Measures[i+1].Split {
		return true
	}
	full := m.Meter.Length()
	if m.Length.Add(pickup) == full {
		return i == len(p.Measures)-1 || m.RepeatEnd || m.EndingStop || m.Fine || m.Jump.To != ""
	}
	// A strain that starts with its own pickup after a repeat sign ends short by
	// that pickup.
	if i == len(p.Measures)-1 || m.RepeatEnd {
		for j := i; j > 0; j-- {
			if p.Measures[j].Split {
				return m.Length.Add(p.Measures[j].Length) == full
			}
		}
	}
	return false
}

func (p *Part) lengthProblem(m Measure, full Fraction, do string) Problem {
	return Problem{
		Measure: m.Number, Line: m.Line, Column: m.Column,
		What: fmt.Sprintf("it holds %s, and %s asks for %s.",
			beats(m.Length, m.Meter), m.Meter, beats(full, m.Meter)),
		Do: do,
	}
}

// beats says a length in the meter's lower figure: "3½ quarters".
func beats(length Fraction, meter Meter) string {
	n := length.Mul(Frac(int64(meter.Unit), 1))
	name := ValueName(meter.Unit, false) + " note"
	if n.Cmp(Frac(1, 1)) > 0 || n.IsZero() {
		name += "s"
	}
	return n.Words() + " " + name
}

// completeSigns gives the chunk its final bar line, and says of each D.C. and
// D.S. where it ends when only a Fine or a coda sign in the music does.
func (p *Part) completeSigns() {
	p.Measures[len(p.Measures)-1].DoubleBar = true
	p.pairCodas()
	p.repeatBeforeEndings()
	p.repeatAsSaid()
	al := ""
	switch {
	case p.find(func(m Measure) bool { return m.Fine }) >= 0:
		al = "fine"
	case p.find(func(m Measure) bool { return m.ToCoda }) >= 0:
		al = "coda"
	}
	for i := range p.Measures {
		if j := &p.Measures[i].Jump; j.To != "" && j.Al == "" {
			j.Al = al
		}
	}
}

// repeatAsSaid has a strain played as often as words over it say.
func (p *Part) repeatAsSaid() {
	for i := range p.Measures {
		if p.Measures[i].Said == 0 {
			continue
		}
		for k := i; k < len(p.Measures) && (k == i || !p.Measures[k].RepeatStart); k++ {
			if m := &p.Measures[k]; m.RepeatEnd {
				m.Times = min(p.Measures[i].Said, MostTimes)
				p.Measures[i].Said = 0
				break
			}
		}
	}
}

// repeatBeforeEndings repeats at the end of an ending that one for a later pass
// follows, where the sign is missing and nothing else leads back.
func (p *Part) repeatBeforeEndings() {
	for i := range len(p.Measures) - 1 {
		m, next := &p.Measures[i], p.Measures[i+1]
		if len(m.Endings) == 0 || len(next.Endings) == 0 || m.RepeatEnd || m.Jump.To != "" {
			continue
		}
		if slices.Min(next.Endings) > slices.Max(m.Endings) {
			m.RepeatEnd, m.Implied = true, true
		}
	}
}

// pairCodas takes the first of two coda signs for the place where the music is left,
// which is before the measure that the sign stands over.
func (p *Part) pairCodas() {
	var signs []int
	for i, m := range p.Measures {
		if m.ToCoda {
			return
		}
		if m.Coda {
			signs = append(signs, i)
		}
	}
	if len(signs) > 1 && signs[0] > 0 {
		p.Measures[signs[0]].Coda = false
		p.Measures[signs[0]-1].ToCoda = true
	}
}

func (p *Part) setStarts() {
	for i := range p.Measures {
		m := &p.Measures[i]
		at := m.Offset
		for j := range m.Events {
			m.Events[j].Start = at
			at = at.Add(m.Events[j].Length)
		}
	}
}

// groupTuplets marks where each tuplet starts and ends: it is complete when it
// fills a whole number of times its normal notes.
func (p *Part) groupTuplets() {
	for i := range p.Measures {
		var sum, shortest Fraction
		open := false
		for j := range p.Measures[i].Events {
			e := &p.Measures[i].Events[j]
			e.TupletStarts, e.TupletEnds = false, false
			ratio := e.Value.Tuplet
			if ratio.Actual == 0 {
				open = false
				continue
			}
			plain := Value{Base: e.Value.Base}.Length()
			if !open {
				open, sum, shortest = true, Fraction{}, plain
				e.TupletStarts = true
			}
			if plain.Less(shortest) {
				shortest = plain
			}
			sum = sum.Add(e.Length)
			if sum.Within(shortest.Mul(Frac(int64(ratio.Normal), 1))).IsZero() {
				open = false
				e.TupletEnds = true
			}
		}
	}
}

// joinTies marks the second note of each tie and drops ties that lead to a rest
// or to another pitch.
// A tie into a first ending leads into the later ones too, where they begin on its pitch and
// are not struck again. Source: common practice.
func (p *Part) joinTies() {
	var before *Event
	for i := range p.Measures {
		for j := range p.Measures[i].Events {
			e := &p.Measures[i].Events[j]
			e.Tied = false
			into := j == 0 && p.tiedIntoEnding(i)
			switch {
			case j == 0 && p.laterEnding(i):
				e.Tied = into && !e.Restruck
				before.tiesEnd()
			case before != nil:
				before.tieTo(e)
			}
			e.Restruck = e.Restruck && into
			before = e
		}
	}
	before.tiesEnd()
}

// laterEnding says whether measure i begins an ending behind another.
func (p *Part) laterEnding(i int) bool { return p.Measures[i].EndingStart && p.beforeEndings(i) < i-1 }

// tiesEnd drops the ties of a note that none comes after.
func (e *Event) tiesEnd() {
	if e != nil {
		e.TieOn, e.InnerTies = false, nil
	}
}

// LeadsInto is the index of the measure that is played before measure i at first: the one in
// front of it or, where i begins a later ending, the one in front of the first ending. It is
// -1 for none.
func (p *Part) LeadsInto(i int) int {
	if p.Measures[i].EndingStart {
		return p.beforeEndings(i)
	}
	return i - 1
}

// Before is the event before a place as it is played at first, nil for none.
func (p *Part) Before(at Place) *Event {
	if at.Event > 0 {
		return &p.Measures[at.Measure].Events[at.Event-1]
	}
	k := p.LeadsInto(at.Measure)
	if k < 0 || len(p.Measures[k].Events) == 0 {
		return nil
	}
	return &p.Measures[k].Events[len(p.Measures[k].Events)-1]
}

// tiedIntoEnding says whether the measure before a run of endings ties its last note into
// them, and a later one begins with it.
func (p *Part) tiedIntoEnding(i int) bool {
	last, e := p.Before(Place{Measure: i}), p.Measures[i].Events[0]
	if !p.laterEnding(i) || last == nil {
		return false
	}
	if last.Kind != Note || e.Kind != Note || last.Unpitched != e.Unpitched {
		return false
	}
	return last.Unpitched && last.TieOn || !last.Unpitched && last.Holds(e.Pitch)
}

// tieTo carries the ties of a note or chord over to the next one: it is not struck
// where it is held from there, and ties that lead to nothing are dropped.
func (e *Event) tieTo(next *Event) {
	if next.Kind != Note || e.Unpitched != next.Unpitched {
		e.tiesEnd()
		return
	}
	if e.Unpitched {
		next.Tied = e.TieOn
		return
	}
	has := func(p Pitch) bool {
		return p.MIDI() == next.Pitch.MIDI() || slices.ContainsFunc(next.Others,
			func(q Pitch) bool { return q.MIDI() == p.MIDI() })
	}
	next.Tied = e.Holds(next.Pitch)
	e.TieOn = e.TieOn && has(e.Pitch)
	e.InnerTies = slices.DeleteFunc(e.InnerTies, func(p Pitch) bool { return !has(p) })
}

// line is one line or space of the staff.
type line struct {
	step   Step
	octave int
}

// MarkAccidentals sets Sign on every note that needs an accidental in front of
// it: one whose alteration is not what the key signature, or an earlier
// accidental on the same line or space of the measure, already gives. Signs
// that are set already stay, as reminders. A note tied over the bar line needs
// none.
func (p *Part) MarkAccidentals() {
	var before Pitch
	for i := range p.Measures {
		m := &p.Measures[i]
		inForce := map[line]int{}
		for j := range m.Events {
			e := &m.Events[j]
			if e.Kind != Note || e.Unpitched {
				continue
			}
			at := line{e.Pitch.Step, e.Pitch.Octave}
			now, set := inForce[at]
			if !set {
				now = m.Key.Alter(e.Pitch.Step)
			}
			respelled := before.Step != e.Pitch.Step
			before = e.Pitch
			if e.Tied && !respelled {
				if j > 0 {
					inForce[at] = e.Pitch.Alter
				}
				continue
			}
			if now != e.Pitch.Alter {
				e.Sign = true
			}
			inForce[at] = e.Pitch.Alter
			for _, other := range e.Others { // their signs hold on their own lines
				inForce[line{other.Step, other.Octave}] = other.Alter
			}
		}
	}
}
