package count

import (
	"fmt"

	"unhurriedbench/core/score"
)

// Difference is the first place where two rhythms part.
type Difference struct {
	Measure int // of the first rhythm, as an index; -1 where it has ended
	Place   score.Fraction
	Why     string
}

// Compared is two rhythms laid over one ruler of pulses.
type Compared struct {
	Same  bool
	First *Difference // nil when they are the same
	Why   string
	Rows  []ComparedMeasure
}

// ComparedMeasure is one measure of both rhythms.
type ComparedMeasure struct {
	Number int
	Pulses []ComparedPulse
}

// ComparedPulse is what happens in both rhythms at one pulse.
type ComparedPulse struct {
	Label     string // what the ruler counts here
	A, B      string // "note", "held" or "rest"
	Different bool
}

// beatState is what a rhythm does at a moment.
type beatState struct {
	what string         // "note", "held", "rest"
	left score.Fraction // of a note struck here, its whole length
}

// Compare lays two passages over one ruler and says whether they count the
// same: whether their notes start at the same moments for the same lengths,
// however they are written.
func Compare(a, b score.Part, o Options) Compared {
	var c Compared
	c.Same = true
	differ := func(measure int, place score.Fraction, why string) {
		if c.Same {
			c.Same = false
			c.First = &Difference{measure, place, why}
		}
	}
	soundA, soundB := moments(a), moments(b)
	for i := range max(len(a.Measures), len(b.Measures)) {
		if i >= len(a.Measures) || i >= len(b.Measures) {
			differ(min(i, len(a.Measures)-1), score.Fraction{}, "one of them is longer")
			break
		}
		ma, mb := a.Measures[i], b.Measures[i]
		if ma.Length != mb.Length || ma.Offset != mb.Offset {
			differ(i, score.Fraction{}, fmt.Sprintf("one measure holds %s, the other %s",
				beatsOf(paceOf(ma.Meter, o), ma.Length), beatsOf(paceOf(mb.Meter, o), mb.Length)))
		}
		row := ComparedMeasure{Number: ma.Number}
		pc := paceOf(ma.Meter, o)
		for _, place := range sharedRuler(ma, mb) {
			x, y := soundA.at(i, place), soundB.at(i, place)
			pulse := ComparedPulse{Label: pc.at(Numbers, place, false), A: x.what, B: y.what, Different: x != y}
			if pulse.Different {
				differ(i, place, describe(x, y, pc))
			}
			row.Pulses = append(row.Pulses, pulse)
		}
		c.Rows = append(c.Rows, row)
	}
	c.Why = "Same: every note starts at the same moment and lasts as long."
	if !c.Same {
		m := a.Measures[max(c.First.Measure, 0)]
		where := paceOf(m.Meter, o).at(Numbers, c.First.Place, false)
		c.Why = fmt.Sprintf("Different: they part in measure %d", m.Number)
		if where != "" {
			c.Why += " at " + where
		}
		c.Why += ": " + c.First.Why + "."
	}
	return c
}

func describe(x, y beatState, pc pace) string {
	word := func(s beatState) string {
		switch s.what {
		case "note":
			return "a note of " + beatsOf(pc, s.left)
		case "held":
			return "a held note"
		}
		return "a rest"
	}
	return fmt.Sprintf("the first has %s, the second %s", word(x), word(y))
}

// heard is what a part does at each place of each measure where something
// starts, ties joined.
type heard struct {
	part    score.Part
	lengths map[score.Place]score.Fraction
}

func moments(p score.Part) heard {
	lengths := map[score.Place]score.Fraction{}
	for _, note := range p.Sounding(p.Written()) {
		lengths[note.Place] = note.Length
	}
	return heard{p, lengths}
}

func (h heard) at(measure int, place score.Fraction) beatState {
	for j, e := range h.part.Measures[measure].Events {
		if place.Less(e.Start) || !place.Less(e.Start.Add(e.Length)) {
			continue
		}
		switch {
		case e.Kind == score.Rest:
			return beatState{what: "rest"}
		case e.Start == place && !e.Tied:
			return beatState{"note", h.lengths[score.Place{Measure: measure, Event: j}]}
		}
		return beatState{what: "held"}
	}
	return beatState{what: "rest"}
}

// sharedRuler merges the pulses of two measures.
func sharedRuler(a, b score.Measure) []score.Fraction {
	var places []score.Fraction
	pa, pb := a.Ruler(), b.Ruler()
	for len(pa) > 0 || len(pb) > 0 {
		var next score.Fraction
		switch {
		case len(pb) == 0 || len(pa) > 0 && pa[0].Place.Less(pb[0].Place):
			next, pa = pa[0].Place, pa[1:]
		case len(pa) == 0 || pb[0].Place.Less(pa[0].Place):
			next, pb = pb[0].Place, pb[1:]
		default:
			next, pa, pb = pa[0].Place, pa[1:], pb[1:]
		}
		places = append(places, next)
	}
	return places
}
