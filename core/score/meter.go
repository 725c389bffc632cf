package score

import (
	"slices"
	"strconv"
	"strings"
)

// Meter is a time signature.
type Meter struct {
	Beats  int    // the upper figure
	Unit   int    // the lower figure: 1, 2, 4, 8 or 16
	Symbol string // "common" or "cut" where a C is written, else ""
	Groups string // "3+2" where the upper figure is written as a sum of twos and threes, else ""
}

// ParseMeter reads the two figures of a time signature; the upper one may be a sum
// such as 3+2. ok is false for figures that readers do not take.
func ParseMeter(upper, lower string) (m Meter, ok bool) {
	words, uneven := strings.Split(upper, "+"), false
	for k, word := range words {
		words[k] = strings.TrimSpace(word)
		uneven = uneven || words[k] != words[0]
		n, err := strconv.Atoi(words[k])
		if err != nil || n < 1 || n > mostBeats {
			return Meter{}, false
		}
		m.Beats += n
	}
	unit, err := strconv.Atoi(strings.TrimSpace(lower))
	if err != nil || m.Beats > mostBeats || !slices.Contains([]int{1, 2, 4, 8, 16}, unit) {
		return Meter{}, false
	}
	m.Unit = unit
	for _, word := range words {
		uneven = uneven && (word == "2" || word == "3")
	}
	if uneven && unit >= 8 {
		m.Groups = strings.Join(words, "+")
	}
	return m, true
}

// Length is the time one full measure holds.
func (m Meter) Length() Fraction { return Frac(int64(m.Beats), int64(m.Unit)) }

// Compound says whether each beat divides in three: 6/8, 9/8, 12/8 and their
// like. 3/8 counts its eighths.
func (m Meter) Compound() bool { return m.Unit >= 8 && m.Beats > 3 && m.Beats%3 == 0 }

// Beat is the value that gets the beat: the lower figure's, or in compound
// meters three of them. In cut time it is the half note, as 2/2 says. Source:
// common practice.
func (m Meter) Beat() Fraction {
	if m.Compound() {
		return Frac(3, int64(m.Unit))
	}
	return Frac(1, int64(m.Unit))
}

// BeatCount is how many beats a full measure has.
func (m Meter) BeatCount() int { return int(m.Length().Div(m.Beat()).Floor()) }

// String writes "4/4".
func (m Meter) String() string { return strconv.Itoa(m.Beats) + "/" + strconv.Itoa(m.Unit) }

// BeatName is the note value that gets the beat, in US words, or British ones
// where british is true.
func (m Meter) BeatName(british bool) string {
	name := ValueName(m.Unit, british)
	if m.Compound() {
		return "dotted " + ValueName(m.Unit/2, british)
	}
	return name
}

// ValueName is the name of the note value 1/n of a whole note, from a
// sixty-fourth to a whole note; 0 is the breve.
func ValueName(n int, british bool) string {
	us := map[int]string{
		0:  "breve",
		1:  "whole",
		2:  "half",
		4:  "quarter",
		8:  "eighth",
		16: "sixteenth",
		32: "thirty-second",
		64: "sixty-fourth",
	}
	uk := map[int]string{
		0:  "breve",
		1:  "semibreve",
		2:  "minim",
		4:  "crotchet",
		8:  "quaver",
		16: "semiquaver",
		32: "demisemiquaver",
		64: "hemidemisemiquaver",
	}
	if british {
		return uk[n]
	}
	return us[n]
}
