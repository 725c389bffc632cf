package score

import (
	"fmt"
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

// ReadByBars is the remark for measures whose meter comes from their bar lines, behind the
// words that say where there is none.
func ReadByBars(where string, meters []string, do string) Problem {
	const told = 3
	text := strings.Join(meters[:min(len(meters), told)], ", ")
	if len(meters) > told {
		text += " and so on"
	}
	return General(where+" it is read by its bar lines, as "+text+".", do)
}

// NoMeter are the words of ReadByBars for a part that has none at all.
const NoMeter = "There is no meter in it;"

// UnevenByBars gives each measure that holds more or less than its meter asks for, and may not,
// the meter that its bar lines make, and says which those are; found is false where none does.
func (p *Part) UnevenByBars() (said Problem, found bool) {
	problems, measures := p.uneven()
	for _, i := range measures {
		m := &p.Measures[i]
		if meter, ok := meterOf(m.Length); ok {
			m.Meter, found = meter, true
		}
	}
	if !found {
		return Problem{}, false
	}
	numbers := make([]int, len(problems))
	for k, problem := range problems {
		numbers[k] = problem.Measure
	}
	return General("Measures that hold more or less than their meter are read by their bar lines: "+
		MeasureList(numbers)+".", ""), true
}

// uneven lists what is wrong with the lengths of measures, and the indexes of those measures.
func (p *Part) uneven() (problems Problems, measures []int) {
	p.addUpLengths()
	p.number()
	problems = p.checkLengths()
	numbers := map[int]bool{}
	for _, problem := range problems {
		numbers[problem.Measure] = true
	}
	for i, m := range p.Measures {
		if numbers[m.Number] && !m.Split && m.Length != m.Meter.Length() {
			measures = append(measures, i)
		}
	}
	return problems, measures
}

// MeasureList names measures by their numbers, at most six of them: "m. 3, 5 and 2 more".
func MeasureList(numbers []int) string {
	const most = 6
	words := make([]string, 0, most)
	for _, n := range numbers[:min(len(numbers), most)] {
		words = append(words, strconv.Itoa(n))
	}
	list := "m. " + strings.Join(words, ", ")
	if over := len(numbers) - most; over > 0 {
		list += fmt.Sprintf(" and %d more", over)
	}
	return list
}

// meterOf is a meter that a length fills; ok is false where no written one does.
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
	problems, measures := p.uneven()
	if 2*len(problems) >= len(p.Measures) {
		return nil
	}
	for _, i := range measures {
		p.Measures[i].Events = []Event{{Kind: Rest, WholeMeasure: true, Value: Value{Base: 1}}}
	}
	for k := range problems {
		problems[k].Do = "The measure is shown empty."
	}
	return problems
}
