// Package finger says how each note is played on each instrument, and what it
// takes to get from one to the next. The text of a fingering is spelled as
// docs/inspect.md explains; one file a mechanism.
package finger

import (
	"slices"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Fingering is one way to play a note.
type Fingering struct {
	Shape
	Text    string // the shape, spelled
	Why     string // when to use it, if it is not the usual way
	Care    string // what to mind in playing it, "" for nothing
	Partial int    // of brass: which resonance of the tube sounds; else 0
	Hand    string // of keyed bars and timpani: "R" or "L"
	Roll    Roll   // of a rolled stroke
}

// Source says why a fingering stands in a line.
type Source string

// The sources, in the order in which they are asked.
const (
	Printed Source = "printed" // over the note
	Chosen  Source = "chosen"  // by the teacher
	Ruled   Source = "rule"    // a rule of the trade asks for it
	Usual   Source = ""        // the usual one
)

// Choice is the fingering that stands and the others there are.
type Choice struct {
	Fingering
	Alternates []Fingering
	By         Source
	Usual      string // the usual way's text
	Unfit      string // what is printed over the note and is no fingering of it
}

// Alternate says whether something else than the usual way stands.
func (c Choice) Alternate() bool { return c.Text != c.Usual && c.Usual != "" }

// For finds how an instrument plays a written pitch in the first year; ok is false
// outside its range. Sticks have no pitches and timpani depend on what was played
// before: see Part.
func For(i instrument.Instrument, p score.Pitch) (Choice, bool) { return Taught(i, p, 1) }

// Taught is For, in a year of playing.
func Taught(i instrument.Instrument, p score.Pitch, year int) (Choice, bool) {
	if !i.Plays(p) {
		return Choice{}, false
	}
	return firstIsUsual(mechanismOf(i).ways(i, p, year))
}

// firstIsUsual makes a choice of a list in order of preference.
func firstIsUsual(found []Fingering) (Choice, bool) {
	if len(found) == 0 {
		return Choice{}, false
	}
	first := found[0]
	first.Why = ""
	return Choice{Fingering: first, Alternates: found[1:], Usual: first.Text}, true
}

// UsualWay is the usual one of the ways.
func (c Choice) UsualWay() Fingering { return c.way(c.Usual) }

// way is the one of the ways with a text, or what stands.
func (c Choice) way(text string) Fingering {
	for _, way := range c.Alternates {
		if way.Text == text {
			return way
		}
	}
	return c.Fingering
}

// Ways lists what stands and the alternates.
func (c Choice) Ways() []Fingering { return append([]Fingering{c.Fingering}, c.Alternates...) }

// Has says whether a text is one of the ways.
func (c Choice) Has(text string) bool {
	is := func(way Fingering) bool { return way.Text == text }
	return text != "" && (is(c.Fingering) || slices.ContainsFunc(c.Alternates, is))
}

// Prefer makes an alternate the one that stands; the usual way becomes an
// alternate. A text that is not among its alternates changes nothing.
func (c Choice) Prefer(text string) Choice {
	k := slices.IndexFunc(c.Alternates, func(way Fingering) bool { return way.Text == text })
	if k < 0 {
		return c
	}
	before := c.Fingering
	if before.Text == c.Usual {
		before.Why = "the usual way"
	}
	others := append([]Fingering{before}, c.Alternates[:k]...)
	c.Fingering, c.Alternates = c.Alternates[k], append(others, c.Alternates[k+1:]...)
	if c.Text == c.Usual {
		c.Why = ""
	}
	return c
}

// because makes a text stand, by a source, with its reason here.
func (c Choice) because(by Source, text, why string) Choice {
	c = c.Prefer(text)
	c.By = by
	if why != "" && c.Alternate() {
		c.Why = why
	}
	return c
}

// Preferred is the fingering a teacher wants for a note, by its MIDI number as
// written.
type Preferred map[int]string

// Spot is the fingering a teacher chose for one place, with the written pitch, a MIDI
// number, it was chosen for: another note there leaves it aside.
type Spot struct {
	Pitch int
	Text  string
}

// Options is how a teacher wants a part fingered; the zero value is a first-year
// line with the default of everything.
type Options struct {
	Year      int                  // of playing, 1 to 3; 0 is the first
	Preferred Preferred            // for a note, everywhere
	Placed    map[score.Place]Spot // for one place of this part
	Plain     bool                 // no rule of the trade: every note as its teacher has it, or its usual way
	Tempo     score.Tempo          // marked in the music, for the strokes of rolls
}

// placed is the fingering chosen for a place where a note stands, "" for none.
func (o Options) placed(at score.Place, midi int) string {
	if here := o.Placed[at]; here.Pitch == midi {
		return here.Text
	}
	return ""
}

// Part finds the fingering of every event of a part written for the instrument,
// by measure and event. Rests, notes that continue a tie and notes out of range
// have none; nor have drums that are struck without right and left.
func Part(i instrument.Instrument, part score.Part, o Options) [][]Choice {
	choices, all := make([][]Choice, len(part.Measures)), make([]Choice, part.Events())
	for k, m := range part.Measures {
		choices[k], all = all[:len(m.Events):len(m.Events)], all[len(m.Events):]
	}
	mechanismOf(i).finger(i, part, choices, o)
	return choices
}
