package score

// Value is how a duration is written: a note value, its dots, and the tuplet it
// stands in.
type Value struct {
	Base   int // 1 whole, 2 half, 4 quarter, 8, 16, 32, 64; 0 is a breve
	Dots   int // 0 to 2
	Tuplet Ratio
}

// Ratio is Actual notes in the time of Normal; the zero value is no tuplet.
type Ratio struct{ Actual, Normal int }

// Length is the time the value takes.
func (v Value) Length() Fraction {
	length := Frac(2, 1)
	if v.Base > 0 {
		length = Frac(1, int64(v.Base))
	}
	half := length
	for range v.Dots {
		half = half.Mul(Frac(1, 2))
		length = length.Add(half)
	}
	if v.Tuplet.Actual > 0 {
		length = length.Mul(Frac(int64(v.Tuplet.Normal), int64(v.Tuplet.Actual)))
	}
	return length
}

// ValueOf finds the single value, with up to two dots and outside any tuplet,
// that lasts exactly length, from a sixty-fourth to a breve.
func ValueOf(length Fraction) (Value, bool) {
	for _, base := range []int{0, 1, 2, 4, 8, 16, 32, 64} {
		for dots := range 3 {
			if v := (Value{Base: base, Dots: dots}); v.Length() == length {
				return v, true
			}
		}
	}
	return Value{}, false
}

// ValuesOf splits a length into values written one after another, longest
// first, as rests are. It fails for lengths no plain values add up to.
func ValuesOf(length Fraction) ([]Value, bool) {
	var values []Value
	for length.num > 0 && len(values) < 8 {
		if v, ok := ValueOf(length); ok {
			return append(values, v), true
		}
		fits := -1
		for _, base := range []int{1, 2, 4, 8, 16, 32, 64} {
			if Frac(1, int64(base)).Cmp(length) <= 0 {
				fits = base
				break
			}
		}
		if fits < 0 {
			return nil, false
		}
		values = append(values, Value{Base: fits})
		length = length.Sub(Frac(1, int64(fits)))
	}
	return nil, false
}

// Name is the value in words: "dotted quarter", "double-dotted half",
// "eighth of a triplet".
func (v Value) Name(british bool) string {
	name := ValueName(v.Base, british)
	switch v.Dots {
	case 1:
		name = "dotted " + name
	case 2:
		name = "double-dotted " + name
	}
	switch v.Tuplet.Actual {
	case 0:
	case 3:
		name += " of a triplet"
	default:
		name += " of a tuplet"
	}
	return name
}

// WithArticle is "an eighth note", "a sixteenth note".
func WithArticle(value string) string {
	if value == "eighth" {
		return "an eighth note"
	}
	return "a " + value + " note"
}
