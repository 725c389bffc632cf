package score

// CloseSlurs takes out slurs that do not end and ends of slurs that do not begin, and
// says where. The end of a slur in a later ending, which began before the first, and a
// slur from a grace note that was left out go without a word.
func (p *Part) CloseSlurs() []Problem {
	var list []Problem
	var open []Place
	say := func(m Measure, what string) {
		list = addOnce(list, Problem{Measure: m.Number, Line: m.Line, What: what, Do: "Check where its notes are slurred."})
	}
	for i, m := range p.Measures {
		for j := range m.Events {
			e := &m.Events[j]
			if lone := min(e.SlurStarts, e.SlurEnds-len(open)); lone > 0 { // over one note
				e.SlurStarts, e.SlurEnds = e.SlurStarts-lone, e.SlurEnds-lone
			}
			for range e.SlurEnds {
				if len(open) > 0 {
					open = open[:len(open)-1]
					continue
				}
				e.SlurEnds--
				if len(m.Endings) == 0 {
					say(m, "a slur ends that does not begin; it is left out.")
				}
			}
			for range e.SlurStarts {
				open = append(open, Place{Measure: i, Event: j})
			}
		}
	}
	for _, at := range open {
		p.At(at).SlurStarts--
		say(p.Measures[at.Measure], "a slur begins that does not end; it is left out.")
	}
	return list
}
