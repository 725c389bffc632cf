package score

// Multirests finds the measures of rest that one sign with their number stands for: at the
// first of such a run how many it has, from two on, and -1 at the others. Nothing may stand
// between them that has to be seen: another key, meter or clef, a repeat, an ending, a double
// bar, a sign, or something written over a rest.
func (p Part) Multirests() []int {
	runs := make([]int, len(p.Measures))
	for i := 0; i < len(p.Measures); {
		to := i
		for to < len(p.Measures) && p.Measures[to].restsWhole() && (to == i || p.Measures[to-1].leadsOn(p.Measures[to])) {
			to++
		}
		if to-i > 1 {
			runs[i] = to - i
			for k := i + 1; k < to; k++ {
				runs[k] = -1
			}
		}
		i = max(to, i+1)
	}
	return runs
}

// restsWhole says whether a measure holds a whole rest and nothing else to see.
func (m Measure) restsWhole() bool {
	if len(m.Events) != 1 || m.Number == 0 || m.Split {
		return false
	}
	e := m.Events[0]
	return e.Kind == Rest && e.WholeMeasure && len(e.Marks) == 0 && e.Text == "" && e.Dynamic == "" && e.Hairpin == "" && !e.HairpinEnds
}

// leadsOn says whether nothing but a bar line stands between two measures.
func (m Measure) leadsOn(next Measure) bool {
	marked := m.RepeatEnd || m.DoubleBar || m.EndingStop || m.Fine || m.ToCoda || m.Jump.To != "" ||
		next.RepeatStart || next.EndingStart || next.Segno || next.Coda || next.Rehearsal != ""
	return !marked && m.Meter == next.Meter && m.Key == next.Key && m.Clef == next.Clef
}
