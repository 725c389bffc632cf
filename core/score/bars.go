package score

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
		beats, unit := length.Mul(Frac(4, 1)), 4
		for beats.Den() > 1 && unit < 16 {
			beats, unit = beats.Mul(Frac(2, 1)), unit*2
		}
		switch {
		case length.IsZero():
			if i > 0 {
				m.Meter = p.Measures[i-1].Meter
			}
			continue
		case beats.Den() > 1 || beats.Num() > mostBeats:
			continue
		}
		m.Meter = Meter{Beats: int(beats.Num()), Unit: unit}
		if k := len(words); k == 0 || words[k-1] != m.Meter.String() {
			words = append(words, m.Meter.String())
		}
	}
	return words
}

// mostBeats is the highest upper figure that readers take.
const mostBeats = 24

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
