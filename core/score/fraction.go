package score

import (
	"fmt"
	"math/bits"
	"strconv"
	"strings"
)

// Fraction is an exact amount of time as a fraction of a whole note, always in
// lowest terms. The zero value is 0, and two equal fractions compare equal
// with ==.
type Fraction struct {
	num      int64
	denLess1 int64 // the denominator less one, so that the zero value is 0/1
}

// Frac returns num/den in lowest terms. It panics when den is 0; readers check
// what users typed before they call it.
func Frac(num, den int64) Fraction {
	if den == 0 {
		panic("score: a fraction with denominator 0")
	}
	if den < 0 {
		num, den = -num, -den
	}
	if den&(den-1) == 0 { // most note values: halving is quicker than dividing
		halves := min(bits.TrailingZeros64(uint64(num)), bits.TrailingZeros64(uint64(den)))
		return Fraction{num >> halves, den>>halves - 1}
	}
	if g := gcd(abs(num), den); g > 1 {
		num, den = num/g, den/g
	}
	return Fraction{num, den - 1}
}

// Num is the numerator in lowest terms.
func (f Fraction) Num() int64 { return f.num }

// Den is the denominator in lowest terms, at least 1.
func (f Fraction) Den() int64 { return f.denLess1 + 1 }

// Add returns f + g.
func (f Fraction) Add(g Fraction) Fraction {
	if f.denLess1 == g.denLess1 {
		return Frac(f.num+g.num, f.Den())
	}
	return Frac(f.num*g.Den()+g.num*f.Den(), f.Den()*g.Den())
}

// Sub returns f - g.
func (f Fraction) Sub(g Fraction) Fraction {
	if f.denLess1 == g.denLess1 {
		return Frac(f.num-g.num, f.Den())
	}
	return Frac(f.num*g.Den()-g.num*f.Den(), f.Den()*g.Den())
}

// Mul returns f × g.
func (f Fraction) Mul(g Fraction) Fraction { return Frac(f.num*g.num, f.Den()*g.Den()) }

// Div returns f ÷ g; g must not be 0.
func (f Fraction) Div(g Fraction) Fraction { return Frac(f.num*g.Den(), f.Den()*g.num) }

// Cmp is -1, 0 or 1 as f is less than, equal to or more than g.
func (f Fraction) Cmp(g Fraction) int {
	a, b := f.num*g.Den(), g.num*f.Den()
	switch {
	case a < b:
		return -1
	case a > b:
		return 1
	}
	return 0
}

// Less says whether f < g.
func (f Fraction) Less(g Fraction) bool { return f.Cmp(g) < 0 }

// Min is the lesser of two fractions.
func (f Fraction) Min(g Fraction) Fraction {
	if g.Less(f) {
		return g
	}
	return f
}

// IsZero says whether f is 0.
func (f Fraction) IsZero() bool { return f.num == 0 }

// Floor is the largest whole number not above f.
func (f Fraction) Floor() int64 {
	q := f.num / f.Den()
	if f.num < 0 && f.num%f.Den() != 0 {
		q--
	}
	return q
}

// Within returns what is left of f after whole multiples of unit are taken
// away: the place of f inside its unit, from 0 up to but not including unit.
func (f Fraction) Within(unit Fraction) Fraction {
	left := (f.num * unit.Den()) % (unit.num * f.Den())
	if left == 0 {
		return Fraction{}
	}
	if left < 0 {
		left += unit.num * f.Den()
	}
	return Frac(left, f.Den()*unit.Den())
}

// Float is f as a floating point number, for drawing and sound only.
func (f Fraction) Float() float64 { return float64(f.num) / float64(f.Den()) }

// String writes f as "3/8", or as "2" when it is whole.
func (f Fraction) String() string {
	if f.Den() == 1 {
		return strconv.FormatInt(f.num, 10)
	}
	return fmt.Sprintf("%d/%d", f.num, f.Den())
}

// MarshalText writes f as String does.
func (f Fraction) MarshalText() ([]byte, error) { return []byte(f.String()), nil }

// UnmarshalText reads what MarshalText writes.
func (f *Fraction) UnmarshalText(text []byte) error {
	g, err := ParseFraction(string(text))
	if err != nil {
		return err
	}
	*f = g
	return nil
}

// ParseFraction reads "3/8" or "2".
func ParseFraction(text string) (Fraction, error) {
	top, bottom, slash := strings.Cut(text, "/")
	num, err := strconv.ParseInt(top, 10, 32)
	if err != nil {
		return Fraction{}, fmt.Errorf("%q is not a fraction such as 3/8", text)
	}
	den := int64(1)
	if slash {
		den, err = strconv.ParseInt(bottom, 10, 32)
	}
	if err != nil || den == 0 {
		return Fraction{}, fmt.Errorf("%q is not a fraction such as 3/8", text)
	}
	return Frac(num, den), nil
}

// Words writes a number of beats as a teacher says it: "3", "½", "3½", "1⅓",
// "5/16" where there is no single character for the part.
func (f Fraction) Words() string {
	whole := f.Floor()
	part := f.Sub(Frac(whole, 1))
	if part.IsZero() {
		return strconv.FormatInt(whole, 10)
	}
	sign := partSign(part)
	switch {
	case sign == "":
		return f.String()
	case whole == 0:
		return sign
	}
	return strconv.FormatInt(whole, 10) + sign
}

// partSign is the single character for a part of one, "" where there is none.
func partSign(part Fraction) string {
	type in struct{ num, den int64 }
	switch (in{part.num, part.Den()}) {
	case in{1, 2}:
		return "½"
	case in{1, 4}:
		return "¼"
	case in{3, 4}:
		return "¾"
	case in{1, 3}:
		return "⅓"
	case in{2, 3}:
		return "⅔"
	case in{1, 6}:
		return "⅙"
	case in{5, 6}:
		return "⅚"
	case in{1, 8}:
		return "⅛"
	case in{3, 8}:
		return "⅜"
	case in{5, 8}:
		return "⅝"
	case in{7, 8}:
		return "⅞"
	}
	return ""
}

func gcd(a, b int64) int64 {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}

func abs(n int64) int64 {
	if n < 0 {
		return -n
	}
	return n
}
