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
	// Strings under a bow. Fretted ones would be a mechanism of their own.
	BowedStrings Mechanism = "strings"
	Sticks       Mechanism = "sticks"
	Bars         Mechanism = "bars"
	Drums        Mechanism = "drums" // tuned ones: timpani
)

// Range is the lowest and the highest note of something, as written.
type Range struct{ Low, High score.Pitch }

// Holds says whether a pitch lies in the range.
func (r Range) Holds(p score.Pitch) bool {
	return r.Low.MIDI() <= p.MIDI() && p.MIDI() <= r.High.MIDI()
}

// Instrument is one kind of instrument. Pitches are as written for it.
type Instrument struct {
	ID            string         // names it in files, tables and addresses; what it can do is said by its traits
	Name          string         // "clarinet", for use in a sentence
	Family        string         // "woodwind", "brass", "strings", "percussion"
	Transposition score.Interval // from the written to the sounding pitch
	Clef          score.Clef
	OtherClefs    []score.Clef // it meets later
	Mechanism     Mechanism
	Lowest        score.Pitch // of the notes it has a fingering for
	Highest       score.Pitch
	Years         [3]Range      // comfortable in the first, second and third year
	Tessitura     score.Pitch   // the note lines sit around
	OneNote       score.Pitch   // what a drill on one note sits well on
	Start         string        // how a sound is started before playing, in a sentence
	Blown         bool          // a breath comes before the first note
	HandInBell    bool          // the right hand lies in the bell
	Thumb         bool          // a woodwind whose left thumb covers a hole or key in most notes
	Program       int           // General MIDI program, from 1; 0 is the drum channel
	Pedal         int           // MIDI number of the written pedal note, of brass whose fingering is computed
	Valves        int           // 3 or 4, of brass with valves
	OpenStrings   []score.Pitch // from the lowest
	Drums         []Drum        // of timpani, from the largest

	Keys        KeyLayout   // of a woodwind
	Hand        HandPattern // of bowed strings
	Sticking    Sticking    // of strokes that have none written
	Models      Models      // what a teacher may say of the instruments they own
	Horn        bool        // its valves work on the horn's longer tube
	ThumbSide   bool        // a double horn's thumb
	ThirdSlide  bool        // a trumpet's third valve has a slide for a finger
	Attachment  bool        // a trombone's F attachment
	HasBreak    bool        // a clarinet's, between the throat notes and the register above
	SwapsLittle bool        // both little fingers have the same keys
	Forks       bool        // an oboe: F is forked where its finger would have to slide
	LeftF       bool        // an oboe with a key for F on the left side
	NoResonance bool        // an oboe without the key that clears its forked F
	Pivots      bool        // the player keeps the thumb and pivots a half step
	RightDown   bool        // the right hand is down on throat notes beside the break
	FourDown    bool        // 4 is taken where the line comes down to an open string
	TwoHands    bool        // a drum with right and left sticks

	breath [3]float64
	voice  Voice
	called []string
	short  []string
}

// KeyLayout is how the keys of a woodwind lie under the hands, and with it the table
// of its fingerings.
type KeyLayout string

// The layouts. Sizes of one kind share one; their ranges tell them apart.
const (
	FluteKeys     KeyLayout = "flute"
	OboeKeys      KeyLayout = "oboe"
	BassoonKeys   KeyLayout = "bassoon"
	ClarinetKeys  KeyLayout = "clarinet"
	SaxophoneKeys KeyLayout = "saxophone"
)

// HandPattern is how the left hand lies on bowed strings.
type HandPattern string

// The patterns.
const (
	UpperHand HandPattern = "upper" // violin and viola
	CelloHand HandPattern = "cello"
	BassHand  HandPattern = "bass"
)

// Drum is a kettle of timpani with the notes it can be tuned to.
type Drum struct {
	Inches int
	Range
}

// DocsPage is the page and heading of the documentation that tell of it.
func (i Instrument) DocsPage() string { return "docs/instruments.md#" + i.ID }

// Title is the name with a capital, for a heading.
func (i Instrument) Title() string { return strings.ToUpper(i.Name[:1]) + i.Name[1:] }

// Unpitched says whether it plays strokes without pitch.
func (i Instrument) Unpitched() bool { return i.Mechanism == Sticks }

// Bowed says whether it is played with a bow.
func (i Instrument) Bowed() bool { return i.Mechanism == BowedStrings }

// LaneName heads the lane of fingerings: "Valves", "Slide", "Fingers",
// "String", "Bars", "Drums" or "Sticking".
func (i Instrument) LaneName() string {
	switch i.Mechanism {
	case Valves:
		return "Valves"
	case Slide:
		return "Slide"
	case BowedStrings:
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

// ConcertReader is an instrument that reads what is entered in concert pitch as it is.
func ConcertReader() Instrument {
	i, _ := ByID("flute")
	return i
}

// fourthValve is what a fourth valve adds below: a major third.
var fourthValve = score.ChromaticInterval(-4)

// catalogue lists the instruments in score order.
var catalogue = slices.Concat(woodwinds(), brass(), stringed(), percussion())

func rangeOf(text string) Range {
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

// LipsTire says whether the player's lips hold a mouthpiece or a reed, and tire.
func (i Instrument) LipsTire() bool {
	return i.Family == "brass" || i.Mechanism == Woodwind && i.Keys != FluteKeys
}

// Families lists the families, in score order.
func Families() []string { return []string{"woodwind", "brass", "strings", "percussion"} }
