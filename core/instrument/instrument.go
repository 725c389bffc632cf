// Package instrument is the catalogue of instruments and makes each one's part
// from a common source.
package instrument

import "unhurriedbench/core/score"

// Mechanism is how an instrument changes its note.
type Mechanism string

// The mechanisms, one file of package finger each.
const (
	Valves   Mechanism = "valves"
	Slide    Mechanism = "slide"
	Woodwind Mechanism = "woodwind"
	Strings  Mechanism = "strings"
	Sticks   Mechanism = "sticks"
)

// Instrument is one kind of instrument. Pitches are as written for it.
type Instrument struct {
	ID        string
	Name      string // "clarinet", for use in a sentence
	Family    string // "woodwind", "brass", "strings", "percussion"
	Sounds    score.Interval
	Clef      score.Clef
	Mechanism Mechanism
	Lowest    score.Pitch // of the notes with a fingering here
	Highest   score.Pitch
	Low       score.Pitch // comfortable in the first year
	High      score.Pitch
	Home      score.Pitch // where a first-year line sits well
	Blown     bool        // a breath comes before the first note
}

// Title is the name with a capital, for a heading.
func (i Instrument) Title() string { return string(i.Name[0]-'a'+'A') + i.Name[1:] }

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
	}
	return "Fingers"
}

// Plays says whether the written pitch lies in the range it has fingerings for.
func (i Instrument) Plays(p score.Pitch) bool {
	m := p.MIDI()
	return i.Lowest.MIDI() <= m && m <= i.Highest.MIDI()
}

func majorSecondDown() score.Interval { return score.Interval{Steps: -1, Semitones: -2} }

// catalogue lists the instruments in score order. Ranges are common practice:
// Low to High is what a first-year book asks for.
func catalogue() []Instrument {
	p := score.MustPitch
	return []Instrument{
		{ID: "clarinet", Name: "clarinet", Family: "woodwind", Sounds: majorSecondDown(), Clef: score.Treble, Mechanism: Woodwind,
			Lowest: p("E3"), Highest: p("C6"), Low: p("E3"), High: p("A4"), Home: p("D4"), Blown: true},
		{ID: "trumpet", Name: "trumpet", Family: "brass", Sounds: majorSecondDown(), Clef: score.Treble, Mechanism: Valves,
			Lowest: p("F#3"), Highest: p("C6"), Low: p("B3"), High: p("D5"), Home: p("G4"), Blown: true},
		{ID: "trombone", Name: "trombone", Family: "brass", Clef: score.Bass, Mechanism: Slide,
			Lowest: p("E2"), Highest: p("Bb4"), Low: p("A2"), High: p("D4"), Home: p("F3"), Blown: true},
		{ID: "violin", Name: "violin", Family: "strings", Clef: score.Treble, Mechanism: Strings,
			Lowest: p("G3"), Highest: p("B5"), Low: p("G3"), High: p("B5"), Home: p("A4")},
		{ID: "cello", Name: "cello", Family: "strings", Clef: score.Bass, Mechanism: Strings,
			Lowest: p("C2"), Highest: p("Eb4"), Low: p("G2"), High: p("D4"), Home: p("F3")},
		{ID: "snare", Name: "snare drum", Family: "percussion", Clef: score.Percussion, Mechanism: Sticks},
	}
}

// All lists every instrument in score order.
func All() []Instrument { return catalogue() }

// ByID finds an instrument.
func ByID(id string) (Instrument, bool) {
	for _, i := range catalogue() {
		if i.ID == id {
			return i, true
		}
	}
	return Instrument{}, false
}
