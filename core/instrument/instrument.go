// Package instrument is the catalogue of instruments and makes each one's part
// from a common source.
package instrument

import (
	"slices"
	"strings"

	"unhurriedbench/core/score"
)

// Mechanism is how an instrument changes its note.
type Mechanism string

// The mechanisms, one file of package finger each.
const (
	Valves   Mechanism = "valves"
	Slide    Mechanism = "slide"
	Woodwind Mechanism = "woodwind"
	Strings  Mechanism = "strings"
	Sticks   Mechanism = "sticks"
	Bars     Mechanism = "bars"
)

// Instrument is one kind of instrument. Pitches are as written for it.
type Instrument struct {
	ID          string
	Name        string // "clarinet", for use in a sentence
	Family      string // "woodwind", "brass", "strings", "percussion"
	Sounds      score.Interval
	Clef        score.Clef
	Mechanism   Mechanism
	Lowest      score.Pitch // of what a school player reaches
	Highest     score.Pitch
	Low         score.Pitch // comfortable in the first year
	High        score.Pitch
	Home        score.Pitch   // where a first-year line sits well
	Blown       bool          // a breath comes before the first note
	Thumb       bool          // a woodwind whose left thumb covers a hole or key in most notes
	Program     int           // General MIDI program, from 1
	Pedal       int           // MIDI number of the written pedal note, of brass whose fingering is computed
	OpenStrings []score.Pitch // from the lowest
}

// Title is the name with a capital, for a heading.
func (i Instrument) Title() string { return strings.ToUpper(i.Name[:1]) + i.Name[1:] }

// Unpitched says whether it plays strokes without pitch.
func (i Instrument) Unpitched() bool { return i.Mechanism == Sticks }

// LaneName heads the lane of fingerings: "Valves", "Slide", "Fingers",
// "String" or "Sticking".
func (i Instrument) LaneName() string {
	switch i.Mechanism {
	case Valves:
		return "Valves"
	case Slide:
		return "Slide"
	case Strings:
		return "String"
	case Sticks:
		return "Sticking"
	case Bars:
		return "Bars"
	}
	return "Fingers"
}

// Plays says whether the written pitch lies in its range.
func (i Instrument) Plays(p score.Pitch) bool {
	m := p.MIDI()
	return i.Lowest.MIDI() <= m && m <= i.Highest.MIDI()
}

// All lists every instrument in score order.
func All() []Instrument { return slices.Clone(catalogue) }

// ByID finds an instrument.
func ByID(id string) (Instrument, bool) {
	for _, i := range catalogue {
		if i.ID == id {
			return i, true
		}
	}
	return Instrument{}, false
}

// catalogue lists the instruments in score order.
var catalogue = slices.Concat(woodwinds(), brass(), stringed(), percussion())

// span is a range of written pitches for the tables of this package: the
// reach of a school player, the comfort of a first-year one, and the home note.
func (i Instrument) span(lowest, low, home, high, highest string) Instrument {
	i.Lowest, i.Low, i.Home = score.MustPitch(lowest), score.MustPitch(low), score.MustPitch(home)
	i.High, i.Highest = score.MustPitch(high), score.MustPitch(highest)
	return i
}

// sounding is an interval from the written to the sounding pitch, in letters
// and semitones.
func sounding(steps, semitones int) score.Interval {
	return score.Interval{Steps: steps, Semitones: semitones}
}
