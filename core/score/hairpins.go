package score

// Wedge is a hairpin with the events on which it begins and ends.
type Wedge struct {
	Hairpin
	From, To Place
}

// Wedges pairs the beginnings of hairpins with their ends, in written order. An event that has
// both ends the one that is open, or is one of its own. What does not begin or does not end
// here, as in a part cut from a longer one, begins and ends with the part.
func (p Part) Wedges() []Wedge {
	list, _ := p.wedges()
	return list
}

// wedges pairs hairpins, and gives the events with a beginning or an end that has no other.
func (p Part) wedges() (list []Wedge, lone []Place) {
	open := false
	var last Place
	for i := range p.Measures {
		for j := range p.Measures[i].Events {
			e, at := &p.Measures[i].Events[j], Place{Measure: i, Event: j}
			ends := e.HairpinEnds
			if ends && open {
				list[len(list)-1].To, open, ends = at, false, false
			}
			if e.Hairpin != "" {
				if open {
					list[len(list)-1].To = last
					lone = append(lone, list[len(list)-1].From)
				}
				list = append(list, Wedge{Hairpin: e.Hairpin, From: at, To: at})
				open, ends = !ends, false
			}
			if ends {
				lone = append(lone, at)
			}
			last = at
		}
	}
	if open {
		list[len(list)-1].To = last
		lone = append(lone, list[len(list)-1].From)
	}
	return list, lone
}

// CloseHairpins takes out hairpins that do not end and ends of hairpins that do not begin, and
// says where.
func (p *Part) CloseHairpins() []Problem {
	_, lone := p.wedges()
	var list []Problem
	for _, at := range lone {
		e, m := p.At(at), p.Measures[at.Measure]
		what := "a hairpin ends that does not begin; it is left out."
		if e.Hairpin != "" {
			what, e.Hairpin = "a hairpin begins that does not end; it is left out.", ""
		} else {
			e.HairpinEnds = false
		}
		list = addOnce(list, Problem{Measure: m.Number, Line: m.Line, What: what, Do: "Check where it grows louder or softer."})
	}
	return list
}

// addOnce adds a problem, or counts it with one of the same words.
func addOnce(list []Problem, p Problem) []Problem {
	for k := range list {
		if list[k].What == p.What {
			list[k].Times = max(list[k].Times, 1) + 1
			return list
		}
	}
	return append(list, p)
}
