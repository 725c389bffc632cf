// Package score holds one written part: its pitches, exact durations, measures
// and signs, and the order in which the measures are played.
package score

import (
	"strconv"
	"strings"
)

// Kind tells a note from a rest.
type Kind int

// The kinds of event.
const (
	Note Kind = iota
	Rest
)

// Event is a note or a rest.
type Event struct {
	Kind   Kind
	Start  Fraction // from the bar line; in a pickup, from where a full measure's bar line would be
	Length Fraction // as a fraction of a whole note
	Value  Value
	Pitch  Pitch   // of a note; meaningless when Unpitched
	Others []Pitch // further notes struck with it in a divided part, which lanes do not follow

	Unpitched    bool    // a stroke on an instrument without pitch
	Sign         bool    // an accidental is written in front
	TieOn        bool    // tied to the next note
	Tied         bool    // continues the note before and is not struck
	Restruck     bool    // begins an ending and is struck, though a tie leads into the ending before
	InnerTies    []Pitch // of Others, those that are tied to the next note
	SlurStarts   int     // slurs that begin on this note
	SlurEnds     int     // slurs that end on it
	TupletStarts bool
	TupletEnds   bool
	WholeMeasure bool // a rest written in the middle of an otherwise empty measure

	Graces int  // strokes in small notes before it: 1 a flam, 2 a drag
	Roll   bool // rolled for its whole length, on strings a bowed tremolo

	Marks    []Mark // articulations, bow marks and the like
	Sticking string // written sticking: "R", "L"

	Fingering string // printed over it: "4", "1-2"
	String    int    // printed with it: the string, from the highest as 1; 0 for none

	Text    string // a direction over or under the note, as written
	Dynamic string // "p", "mf"…

	Hairpin     Hairpin // that begins on this note or rest
	HairpinEnds bool    // the one that is open ends on it

	Line int // source line it was read from, 0 when unknown
}

// Mark is a sign attached to a note.
type Mark string

// The marks method books use.
const (
	Staccato Mark = "staccato"
	Accent   Mark = "accent"
	Tenuto   Mark = "tenuto"
	Fermata  Mark = "fermata"
	Breath   Mark = "breath"
	UpBow    Mark = "up-bow"
	DownBow  Mark = "down-bow"
)

// Hairpin is a wedge under the music: louder or softer by and by. The zero value is none.
type Hairpin string

// The two wedges.
const (
	Crescendo  Hairpin = "crescendo"
	Diminuendo Hairpin = "diminuendo"
)

// Jump is an instruction at the end of a measure to go on elsewhere.
type Jump struct {
	To string // "" none, "capo" from the beginning, "segno" from the sign
	Al string // "" to the end, "fine", "coda"
}

// Measure is what stands between two bar lines.
type Measure struct {
	Number int   // a pickup is 0, the first full measure 1
	Meter  Meter // in force
	Key    Key   // in force
	Clef   Clef  // in force at its start
	Offset Fraction
	Length Fraction
	Events []Event

	Split       bool // a later part of a measure that a repeat sign or an ending divides
	RepeatStart bool
	RepeatEnd   bool
	Missed      bool  // two bar lines with nothing between them stand in front of it
	Implied     bool  // RepeatEnd is not written: the ending of a later pass follows at once
	Said        int   // words over it say to play the strain so often; 0 once that is followed
	Times       int   // how often a repeat that ends here is played in all; 0 means 2
	Endings     []int // the passes on which this measure is played; none means every pass
	EndingStart bool  // the first measure of its ending bracket
	EndingStop  bool
	DoubleBar   bool
	Segno       bool
	Coda        bool // the coda starts here
	ToCoda      bool // after this measure the last pass leaves for the coda
	Fine        bool
	Jump        Jump
	Rehearsal   string

	Line   int // source line, 0 when unknown
	Column int // column of its first event in that line, from 1; 0 when unknown
}

// EndingText names the endings a measure stands in: "1, 2".
func (m Measure) EndingText() string {
	words := make([]string, len(m.Endings))
	for i, n := range m.Endings {
		words[i] = strconv.Itoa(n)
	}
	return strings.Join(words, ", ")
}

// Pickup says whether the measure is an upbeat to the first full one.
func (m Measure) Pickup() bool { return m.Number == 0 }

// Part is one staff, one voice.
type Part struct {
	Name          string   // as the source names it
	Transposition Interval // from the written to the sounding pitch; zero for concert pitch
	Measures      []Measure
}

// Score is what a file holds.
type Score struct {
	Title      string
	Composer   string
	Tempo      Tempo
	TempoWords string
	Parts      []Part
	Remarks    []Problem // what was left out or read in one of two ways, each with its place
}

// Tempo is a metronome mark; the zero value means no mark.
type Tempo struct {
	Beat      Fraction // the value counted
	PerMinute int
}

// FastestMark is the most beats a minute that a mark is read as.
const FastestMark = 400

// Beats is the mark in beats of a meter a minute, rounded down; 0 for none.
func (t Tempo) Beats(m Meter) int {
	if t.PerMinute == 0 {
		return 0
	}
	return int(Frac(int64(t.PerMinute), 1).Mul(t.Beat).Div(m.Beat()).Floor())
}

// Quarters is the mark in quarter notes a minute; 0 for none.
func (t Tempo) Quarters() float64 { return 4 * float64(t.PerMinute) * t.Beat.Float() }

// Meter is the first measure's.
func (p Part) Meter() Meter {
	if len(p.Measures) == 0 {
		return Meter{Beats: 4, Unit: 4}
	}
	return p.Measures[0].Meter
}

// Key is the first measure's.
func (p Part) Key() Key {
	if len(p.Measures) == 0 {
		return Key{}
	}
	return p.Measures[0].Key
}

// Clef is the first measure's.
func (p Part) Clef() Clef {
	if len(p.Measures) == 0 {
		return Treble
	}
	return p.Measures[0].Clef
}

// Unpitched says whether the part has strokes and no pitched note.
func (p Part) Unpitched() bool {
	strokes := false
	for _, m := range p.Measures {
		for _, e := range m.Events {
			if e.Kind == Note && !e.Unpitched {
				return false
			}
			strokes = strokes || e.Unpitched
		}
	}
	return strokes
}

// Copy returns a part that shares no slices with p.
func (p Part) Copy() Part {
	measures := make([]Measure, len(p.Measures))
	for i, m := range p.Measures {
		m.Events = append([]Event(nil), m.Events...)
		for j, e := range m.Events {
			m.Events[j].Others = append([]Pitch(nil), e.Others...)
			m.Events[j].InnerTies = append([]Pitch(nil), e.InnerTies...)
		}
		measures[i] = m
	}
	p.Measures = measures
	return p
}

// Place says where an event stands, for use as an index.
type Place struct{ Measure, Event int }

// Before says whether a place comes before another, as written.
func (p Place) Before(q Place) bool {
	return p.Measure < q.Measure || p.Measure == q.Measure && p.Event < q.Event
}

// Events is how many notes and rests there are.
func (p Part) Events() int {
	n := 0
	for i := range p.Measures {
		n += len(p.Measures[i].Events)
	}
	return n
}

// Notes lists the places of all notes, tied ones included, in written order.
func (p Part) Notes() []Place {
	places := make([]Place, 0, p.Events())
	for i := range p.Measures {
		for j := range p.Measures[i].Events {
			if p.Measures[i].Events[j].Kind == Note {
				places = append(places, Place{i, j})
			}
		}
	}
	return places
}

// At returns the event at a place.
func (p Part) At(at Place) *Event { return &p.Measures[at.Measure].Events[at.Event] }
