package counted

import "unhurriedbench/core/score"

// written is how a note or a rest is written: in one value where it begins on a beat or
// stays within one, else tied at the next beat. Thirds that are no
// plain value are written as a triplet.
func written(s sound, m score.Meter) []score.Value {
	var list []score.Value
	beat := m.Beat()
	for from := s.from; from.Less(s.to); {
		to := s.to
		within := from.Within(beat)
		next := from.Sub(within).Add(beat)
		off := !within.IsZero()
		half := within == beat.Mul(score.Frac(1, 2)) && to.Sub(from) == beat // a beat long from between two
		if off && next.Less(to) && !half {
			to = next
		}
		values := inOne(from, to, beat)
		list, from = append(list, values...), to
	}
	return list
}

// inOne writes a length in as few values as it takes.
func inOne(from, to, beat score.Fraction) []score.Value {
	length := to.Sub(from)
	if v, ok := score.ValueOf(length); ok && v.Dots < 2 {
		return []score.Value{v}
	}
	for _, base := range []int{2, 4, 8, 16, 32} {
		if v := (score.Value{Base: base, Tuplet: score.Ratio{Actual: 3, Normal: 2}}); v.Length() == length {
			return []score.Value{v}
		}
	}
	for _, step := range []score.Fraction{beat, score.Frac(1, 8)} { // whole steps, and thirds of one
		if whole := step.Mul(score.Frac(length.Div(step).Floor(), 1)); !whole.IsZero() && whole.Less(length) {
			return append(inOne(from, from.Add(whole), beat), inOne(from.Add(whole), to, beat)...)
		}
	}
	values, _ := score.ValuesOf(length)
	return values
}
