package midi

import (
	"slices"

	"unhurriedbench/core/score"
)

// notator writes notes on a grid as measures.
type notator struct {
	song   song
	stream *stream
	grid   []int64
	clef   score.Clef
}

func (w *notator) part(notes []sounded) (score.Part, error) {
	part := score.Part{Name: w.stream.name}
	end := notes[len(notes)-1].end
	for at := (score.Fraction{}); at.Less(end); {
		tick := at.Mul(score.Frac(4*w.song.quarter, 1)).Floor()
		m := score.Measure{
			Meter: w.meterAt(tick), Key: keyAt(w.song.keys, tick), Clef: w.clef,
		}
		to := at.Add(m.Meter.Length())
		if meter, short := w.song.pickup(); short && at.IsZero() {
			m.Meter = meter
		}
		for len(notes) > 0 && at.Less(to) {
			n := notes[0]
			if at.Less(n.start) { // silence before it
				until := n.start.Min(to)
				w.rest(&m, at, until)
				at = until
				continue
			}
			until := n.end.Min(to)
			w.note(&m, at, until, n, to.Less(n.end))
			at = until
			if at == n.end {
				notes = notes[1:]
			}
		}
		if at.Less(to) {
			w.rest(&m, at, to)
			at = to
		}
		part.Measures = append(part.Measures, m)
		if *w.song.events += len(m.Events); *w.song.events > score.MostEvents {
			return part, score.Problems{score.TooManyEvents()}
		}
		if len(part.Measures) > score.MostMeasures {
			return part, score.Problems{score.TooManyMeasures(len(part.Measures))}
		}
	}
	return part, part.Finish()
}

// pickup is the meter of a file that begins with one measure of a shorter meter, which
// is then a pickup to it.
func (sg song) pickup() (score.Meter, bool) {
	if len(sg.meters) < 2 || sg.meters[0].at != 0 {
		return score.Meter{}, false
	}
	first, next := sg.meters[0].value.Length(), sg.meters[1]
	one := first.Mul(score.Frac(4*sg.quarter, 1)).Floor()
	return next.value, next.at == one && first.Less(next.value.Length())
}

func (w *notator) meterAt(tick int64) score.Meter {
	return at(w.song.meters, tick, score.Meter{Beats: 4, Unit: 4})
}

func keyAt(keys []change[score.Key], tick int64) score.Key { return at(keys, tick, score.Key{}) }

// rest writes silence, split at beats.
func (w *notator) rest(m *score.Measure, from, to score.Fraction) {
	for _, v := range w.values(from, to) {
		m.Events = append(m.Events, score.Event{Kind: score.Rest, Value: v, Length: v.Length()})
	}
}

// note writes a note as few tied values; goesOn ties the last one over the bar.
func (w *notator) note(m *score.Measure, from, to score.Fraction, n sounded, goesOn bool) {
	values := w.values(from, to)
	for k, v := range values {
		e := score.Event{Value: v, Length: v.Length(), TieOn: k < len(values)-1 || goesOn}
		if w.stream.drums {
			e.Unpitched = true
			e.Pitch = score.Pitch{Step: score.B, Octave: 4}
		} else {
			e.Pitch = spell(n.keys[0], m.Key)
			for _, key := range n.keys[1:] {
				e.Others = append(e.Others, spell(key, m.Key))
			}
			if e.TieOn {
				e.InnerTies = slices.Clone(e.Others)
			}
		}
		m.Events = append(m.Events, e)
	}
}

var quarterLength = score.Frac(1, 4)

// values writes a length as note values. What lies in a quarter divided in
// threes or fives is written as a tuplet there.
func (w *notator) values(from, to score.Fraction) []score.Value {
	var values []score.Value
	for from.Less(to) {
		next := from.Sub(from.Within(quarterLength)).Add(quarterLength)
		switch {
		case w.ratio(from).Actual > 0 && (!from.Within(quarterLength).IsZero() || to.Less(next)):
			until := next.Min(to)
			values = append(values, tuplets(until.Sub(from), w.ratio(from))...)
			from = until
		default:
			until := to
			if w.ratio(to).Actual > 0 && !to.Within(quarterLength).IsZero() {
				until = to.Sub(to.Within(quarterLength))
			}
			plain := until.Sub(from)
			if v, ok := score.ValueOf(plain); ok {
				values = append(values, v)
				from = until
				continue
			}
			if !from.Within(quarterLength).IsZero() {
				until = next.Min(until)
			}
			several, ok := score.ValuesOf(until.Sub(from))
			if !ok { // finer than anything written; the grid does not allow it
				return append(values, score.Value{Base: 64})
			}
			values = append(values, several...)
			from = until
		}
	}
	return values
}

// ratio is the tuplet that the quarter note at a place is divided by: three in
// the time of two, five in the time of four, or none.
func (w *notator) ratio(place score.Fraction) score.Ratio {
	q := place.Div(quarterLength).Floor()
	switch {
	case q >= int64(len(w.grid)):
	case w.grid[q]%3 == 0:
		return score.Ratio{Actual: 3, Normal: 2}
	case w.grid[q]%5 == 0:
		return score.Ratio{Actual: 5, Normal: 4}
	}
	return score.Ratio{}
}

// tuplets writes a length inside a quarter that a tuplet divides.
func tuplets(length score.Fraction, ratio score.Ratio) []score.Value {
	plain := length.Mul(score.Frac(int64(ratio.Actual), int64(ratio.Normal)))
	values, ok := score.ValuesOf(plain)
	if !ok {
		return []score.Value{{Base: 8, Tuplet: ratio}}
	}
	for i := range values {
		values[i].Tuplet = ratio
	}
	return values
}

// spell names a MIDI key in a key signature: its own notes as it has them, and
// others within five fifths down and six up of the key note, so that C has F
// sharp and B flat.
func spell(midi uint8, key score.Key) score.Pitch {
	for fifths := key.Fifths - 5; fifths <= key.Fifths+6; fifths++ {
		// On the line of fifths F is -1, C 0, G 1.
		letter := [7]score.Step{score.F, score.C, score.G, score.D, score.A, score.E, score.B}[((fifths+1)%7+7)%7]
		alter := (fifths + 1) / 7
		if fifths+1 < 0 && (fifths+1)%7 != 0 {
			alter--
		}
		p := score.Pitch{Step: letter, Alter: alter, Octave: 4}
		if d := int(midi) - p.MIDI(); d%12 == 0 {
			p.Octave += d / 12
			return p
		}
	}
	return score.Pitch{Step: score.C, Octave: 4}
}
