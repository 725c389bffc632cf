package instrument

import (
	"fmt"
	"strings"

	"unhurriedbench/core/score"
)

// facts are what is known of one instrument beside how it is played.
type facts struct {
	// ranges has, as written, all that it has a fingering for, what is comfortable in the first,
	// second and third year of playing, the note its first-year lines sit around, and what a drill
	// on one note sits well on where that is another; "" without pitch.
	//
	// Source: common practice of beginners' books. A wind's home is the middle of its
	// first five notes; strings sit around A, and D is their first open string.
	ranges string
	breath [3]float64 // seconds on one breath by year; the zero value is usualBreath
	voice  Voice      // that it is heard with
	called []string   // words of part names, in small letters
	// short are its names in lists of students, beside its name here, in English, German, French,
	// Spanish and Italian: in small letters, without points. What speaks of several instruments
	// stands at each. Source: common practice of score order and class lists.
	short []string
}

// with is the instrument with its facts. It panics on bad ranges, which every test would show.
func (i Instrument) with(f facts) Instrument {
	i.breath, i.voice, i.called, i.short = f.breath, f.voice, f.called, f.short
	var pitches []score.Pitch
	for _, word := range strings.Fields(f.ranges) {
		pitches = append(pitches, score.MustPitch(word))
	}
	if len(pitches) == 0 {
		return i
	}
	i.Lowest, i.Highest = pitches[0], pitches[1]
	for year := range i.Years {
		i.Years[year] = Range{pitches[2+2*year], pitches[3+2*year]}
	}
	i.Tessitura, i.OneNote = pitches[8], pitches[len(pitches)-1]
	return i
}

// Comfort is what is comfortable in a year of playing, 1 to 3; other years are taken
// as the nearest.
func (i Instrument) Comfort(year int) Range { return i.Years[yearAt(year)] }

// yearAt is the place of a year of playing in what is listed by year.
func yearAt(year int) int { return min(max(year, 1), len(Instrument{}.Years)) - 1 }

var yearNames = [len(Instrument{}.Years)]string{"first-year", "second-year", "third-year"}

// seat is the octave that suits a line, and what decided.
type seat struct {
	octaves int
	year    int // whose range holds the line; 0 where none does
	passing int // notes that pass beyond that year's range
	beyond  int // notes that then lie beyond the instrument
}

// A note or two that pass by do not move a line: each of a beat or less, and up to a third
// beyond the range of the year. Source: common practice of beginners' books.
const (
	mostPassing    = 2
	furthestPassed = 4 // half steps
)

// passing counts the notes of a line, moved by half steps, that pass beyond a range; ok is
// false where one is longer than a beat, further beyond, or beyond the instrument, or there
// are too many.
func passing(part score.Part, semitones int, r, reach Range) (n int, ok bool) {
	beyond := func(r Range, midi int) int { return max(r.Low.MIDI()-midi, midi-r.High.MIDI(), 0) }
	for i := range part.Measures {
		m := &part.Measures[i]
		for j := range m.Events {
			e := &m.Events[j]
			if e.Kind != score.Note {
				continue
			}
			midi := e.Pitch.MIDI() + semitones
			far := beyond(r, midi)
			if far == 0 {
				continue
			}
			if n++; n > mostPassing || far > furthestPassed || longerThanBeat(m.Meter, e.Length) || e.TieOn || e.Tied ||
				beyond(reach, midi) > 0 {
				return n, false
			}
		}
	}
	return n, true
}

func distance(a, b int) int { return max(a-b, b-a) }

func longerThanBeat(m score.Meter, length score.Fraction) bool {
	return m.Unit == 0 || m.Beat().Less(length)
}

// seatOf finds the octave for a line that is moved by base within the octave: the
// first year's range that holds it, a passing note or two left out, else the first later
// year's; in it the middle of the lowest and the highest note lies nearest the
// instrument's home, of two as near the upper one on strings and the lower one elsewhere.
// Where no year holds the line the fewest notes lie beyond the instrument. So two lines of
// one compass lie in one octave, and a later year moves none that fits; beside the other
// lines of a book see InBook.
func seatOf(part score.Part, base score.Interval, target Instrument) seat {
	low, high := extent(part)
	from, to := low.MIDI()+base.Semitones, high.MIDI()+base.Semitones
	if len(part.Notes()) == 0 {
		return seat{year: 1}
	}
	home := target.tessituraOf(part, base)
	away := func(octaves int) int { return distance(from+to+24*octaves, 2*home) }
	nearer := func(a, b int) bool {
		if x, y := away(a), away(b); x != y {
			return x < y
		}
		return (a > b) == (target.Bowed())
	}
	// An octave with passing notes is better than one that holds all only where it lies half an
	// octave nearer.
	better := func(octaves, n int, than seat) bool {
		const halfAnOctave = 12 // of the doubled middle
		switch {
		case (n > 0) == (than.passing > 0):
			return nearer(octaves, than.octaves)
		case n > 0:
			return away(octaves)+halfAnOctave <= away(than.octaves)
		}
		return away(octaves) < away(than.octaves)+halfAnOctave
	}
	for year := 1; year <= len(target.Years); year++ {
		r, found, best := target.Comfort(year), false, seat{year: year}
		for octaves := -furthest; octaves <= furthest; octaves++ {
			n, fits := passing(part, base.Semitones+12*octaves, r, Range{target.Lowest, target.Highest})
			if fits && (!found || better(octaves, n, best)) {
				found, best.octaves, best.passing = true, octaves, n
			}
		}
		if found {
			return best
		}
	}
	best := seat{beyond: -1}
	for octaves := -furthest; octaves <= furthest; octaves++ {
		beyond := beyondReach(part, base.Semitones+12*octaves, target)
		if best.beyond < 0 || beyond < best.beyond || beyond == best.beyond && nearer(octaves, best.octaves) {
			best = seat{octaves: octaves, beyond: beyond}
		}
	}
	return best
}

// furthest is how many octaves either way a line is moved at most: from the piccolo
// to the tuba.
const furthest = 5

func beyondReach(part score.Part, semitones int, target Instrument) int {
	n := 0
	for _, at := range part.Notes() {
		if midi := part.At(at).Pitch.MIDI() + semitones; midi < target.Lowest.MIDI() || midi > target.Highest.MIDI() {
			n++
		}
	}
	return n
}

// tessituraOf is where a line sits well, as a MIDI number. On the cello a line in E flat
// with an A flat sits an octave lower, where its hand need not extend twice.
func (i Instrument) tessituraOf(part score.Part, base score.Interval) int {
	home := i.Tessitura.MIDI()
	if i.Hand != CelloHand {
		return home
	}
	key, move := part.Key().Transpose(base)
	if step, alter := key.Tonic(); step != score.E || alter != -1 {
		return home
	}
	for _, at := range part.Notes() {
		if p := part.At(at).Pitch.Transpose(move); p.Step == score.A && p.Alter == -1 {
			return home - 12
		}
	}
	return home
}

// words says where the line lies and why.
func (s seat) words(target Instrument) string {
	switch {
	case s.year == 0 && s.beyond == 1:
		return fmt.Sprintf("one note lies beyond the %s, the fewest in any octave", target.Name)
	case s.year == 0 && s.beyond > 0:
		return fmt.Sprintf("%d notes lie beyond the %s, the fewest in any octave", s.beyond, target.Name)
	case s.year == 0:
		return fmt.Sprintf("beyond the third-year range %s to %s", target.Comfort(3).Low, target.Comfort(3).High)
	}
	r := target.Comfort(s.year)
	words := fmt.Sprintf("in the %s range %s to %s", yearNames[s.year-1], r.Low, r.High)
	switch s.passing {
	case 0:
		return words
	case 1:
		return words + ", with one short note beyond it"
	}
	return fmt.Sprintf("%s, with %d short notes beyond it", words, s.passing)
}
