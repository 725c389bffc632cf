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
	Drums    Mechanism = "drums" // tuned ones: timpani
)

// Range is the lowest and the highest note of something, as written.
type Range struct{ Low, High score.Pitch }

// Holds says whether a pitch lies in the range.
func (r Range) Holds(p score.Pitch) bool {
	return r.Low.MIDI() <= p.MIDI() && p.MIDI() <= r.High.MIDI()
}

// Instrument is one kind of instrument. Pitches are as written for it.
type Instrument struct {
	ID          string
	Name        string // "clarinet", for use in a sentence
	Family      string // "woodwind", "brass", "strings", "percussion"
	Sounds      score.Interval
	Clef        score.Clef
	OtherClefs  []score.Clef // it meets later
	Mechanism   Mechanism
	Lowest      score.Pitch // of the notes it has a fingering for
	Highest     score.Pitch
	Years       [3]Range      // comfortable in the first, second and third year
	Home        score.Pitch   // the note lines sit around
	Drill       score.Pitch   // what a one-note drill sits well on
	Start       string        // how a sound is started before playing, in a sentence
	Blown       bool          // a breath comes before the first note
	Thumb       bool          // a woodwind whose left thumb covers a hole or key in most notes
	Program     int           // General MIDI program, from 1; 0 is the drum channel
	Pedal       int           // MIDI number of the written pedal note, of brass whose fingering is computed
	Valves      int           // 3 or 4, of brass with valves
	OpenStrings []score.Pitch // from the lowest
	Drums       []Drum        // of timpani, from the largest

	Horn        bool // its valves work on the horn's longer tube
	ThumbSide   bool // a double horn's thumb
	Attachment  bool // a trombone's F attachment
	HasBreak    bool // a clarinet's, between the throat notes and the register above
	SwapsLittle bool // both little fingers have the same keys
	Extends     bool // a cello's hand, which extends
	Forks       bool // an oboe: F is forked where its finger would have to slide
	LeftF       bool // an oboe with a key for F on the left side
	NoResonance bool // an oboe without the key that clears its forked F
	MayPivot    bool // a double bass
	Pivots      bool // and its player keeps the thumb and pivots a half step
	OpenOrFour  bool // violin and viola: an open string or the fourth finger on the one below
	FourDown    bool // and 4 is taken where the line comes down to that string
	TwoHands    bool // a drum with right and left sticks
}

// Drum is a kettle of timpani with the notes it can be tuned to.
type Drum struct {
	Inches int
	Range
}

// MayHaveFourth says whether the instrument is also made with a fourth valve.
func (i Instrument) MayHaveFourth() bool {
	return strings.HasPrefix(i.ID, "euphonium") || strings.HasPrefix(i.ID, "tuba")
}

// FourValves is the same instrument with a fourth valve, which takes it a major third
// lower; other instruments are returned unchanged.
func (i Instrument) FourValves() Instrument {
	if i.MayHaveFourth() && i.Valves == 3 {
		i.Valves = 4
		i.Lowest = i.Lowest.Transpose(score.ChromaticInterval(-4))
	}
	return i
}

// Owning is timpani of which a school owns two, three or four drums: the 29 and 26
// inch, then the 32, then the 23 (common practice); other instruments and numbers
// are returned unchanged.
func (i Instrument) Owning(drums int) Instrument {
	left := map[int][]int{2: {29, 26}, 3: {32, 29, 26}}[drums]
	if left == nil || i.Mechanism != Drums {
		return i
	}
	all := i.Drums
	i.Drums = nil
	for _, d := range all {
		if slices.Contains(left, d.Inches) {
			i.Drums = append(i.Drums, d)
		}
	}
	i.Lowest, i.Highest = i.Drums[0].Low, i.Drums[len(i.Drums)-1].High
	return i
}

// DocsPage is the page and heading of the documentation that tell of it.
func (i Instrument) DocsPage() string { return "docs/instruments.md#" + i.ID }

// Title is the name with a capital, for a heading.
func (i Instrument) Title() string { return strings.ToUpper(i.Name[:1]) + i.Name[1:] }

// Unpitched says whether it plays strokes without pitch.
func (i Instrument) Unpitched() bool { return i.Mechanism == Sticks }

// LaneName heads the lane of fingerings: "Valves", "Slide", "Fingers",
// "String", "Bars", "Drums" or "Sticking".
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
	case Drums:
		return "Drums"
	}
	return "Fingers"
}

// Plays says whether the written pitch lies in its range.
func (i Instrument) Plays(p score.Pitch) bool {
	return Range{i.Lowest, i.Highest}.Holds(p)
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
var catalogue = ranged(slices.Concat(woodwinds(), brass(), stringed(), percussion()))

func span(text string) Range {
	low, high, _ := strings.Cut(text, " ")
	return Range{score.MustPitch(low), score.MustPitch(high)}
}

// clefs adds clefs the instrument meets later.
func (i Instrument) clefs(later ...score.Clef) Instrument {
	i.OtherClefs = later
	return i
}

// starts sets how a sound is started before playing.
func (i Instrument) starts(how string) Instrument {
	i.Start = how
	return i
}

// sounding is an interval from the written to the sounding pitch, in letters
// and semitones.
func sounding(steps, semitones int) score.Interval {
	return score.Interval{Steps: steps, Semitones: semitones}
}
