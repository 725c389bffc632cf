package score

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
)

// MeterByBars gives each measure the meter that its bar lines make, for a source that
// gives none, and lists the meters where they change: "3/4". A measure without length
// has the meter before it.
func (p *Part) MeterByBars() []string {
	var words []string
	for i := range p.Measures {
		m := &p.Measures[i]
		length := Fraction{}
		for _, e := range m.Events {
			length = length.Add(e.Length)
		}
		if length.IsZero() {
			if i > 0 {
				m.Meter = p.Measures[i-1].Meter
			}
			continue
		}
		meter, ok := meterOf(length)
		if !ok {
			continue
		}
		m.Meter = meter
		if k := len(words); k == 0 || words[k-1] != m.Meter.String() {
			words = append(words, m.Meter.String())
		}
	}
	return words
}

// mostBeats is the highest upper figure that readers take: a chant may stand a line long
// between two bar lines.
const mostBeats = 64

// ReadByBars is the remark for a part whose meter comes from its bar lines.
func ReadByBars(meters []string, do string) Problem {
	const told = 3
	text := ""
	for k, m := range meters[:min(len(meters), told)] {
		if k > 0 {
			text += ", "
		}
		text += m
	}
	if len(meters) > told {
		text += " and so on"
	}
	return General("There is no meter in it; it is read by its bar lines, as "+text+".", do)
}

// UnevenByBars gives each measure that holds more or less than its meter asks for, and may not,
// the meter that its bar lines make, and says which those are; found is false where none does.
func (p *Part) UnevenByBars() (said Problem, found bool) {
	p.addUpLengths()
	p.number()
	var numbers []int
	for _, problem := range p.checkLengths() {
		numbers = append(numbers, problem.Measure)
	}
	for i := range p.Measures {
		m := &p.Measures[i]
		if m.Split || !slices.Contains(numbers, m.Number) || m.Length == m.Meter.Length() {
			continue
		}
		if meter, ok := meterOf(m.Length); ok {
			m.Meter, found = meter, true
		}
	}
	if !found {
		return Problem{}, false
	}
	words := make([]string, 0, len(numbers))
	for _, n := range numbers[:min(len(numbers), 6)] {
		words = append(words, strconv.Itoa(n))
	}
	more := ""
	if len(numbers) > 6 {
		more = fmt.Sprintf(" and %d more", len(numbers)-6)
	}
	return General("Measures that hold more or less than their meter are read by their bar lines: m. "+strings.Join(words, ", ")+more+".", ""), true
}

// meterOf is a meter that a length fills; ok is false where there is none that is written.
func meterOf(length Fraction) (m Meter, ok bool) {
	beats, unit := length.Mul(Frac(4, 1)), 4
	for beats.Den() > 1 && unit < 16 {
		beats, unit = beats.Mul(Frac(2, 1)), unit*2
	}
	if beats.Den() > 1 || beats.Num() > mostBeats || beats.Num() < 1 {
		return Meter{}, false
	}
	return Meter{Beats: int(beats.Num()), Unit: unit}, true
}

// EmptyUneven empties each measure that holds more or less than its meter asks for, and may not,
// and says so of each; the rest of the part is kept. Where that would be half of it or more,
// nothing is emptied.
func (p *Part) EmptyUneven() Problems {
	p.addUpLengths()
	p.number()
	problems := p.checkLengths()
	if 2*len(problems) >= len(p.Measures) {
		return nil
	}
	for k := range problems {
		for i := range p.Measures {
			m := &p.Measures[i]
			if m.Number != problems[k].Measure || m.Split || m.Length == m.Meter.Length() {
				continue
			}
			m.Events = []Event{{Kind: Rest, WholeMeasure: true, Value: Value{Base: 1}}}
		}
		problems[k].Do = "The measure is shown empty."
	}
	return problems
}
