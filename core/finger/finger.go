// Package finger says how each note is played on each instrument, and what it
// takes to get from one to the next. The text of a fingering is spelled as
// docs/fingerings.md explains; one file a mechanism.
package finger

import (
	"slices"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Fingering is one way to play a note.
type Fingering struct {
	Text     string
	Why      string // when to use it, if it is not the usual way
	Care     string // what to mind in playing it, "" for nothing
	Partial  int    // of brass: which resonance of the tube sounds; else 0
	ByChoice bool   // a habit a player has or has not: never taken for one passage alone
	Hand     string // of keyed bars: "R" or "L"
	Roll     Roll   // of a rolled stroke
}

// Choice is the fingering to learn first and the others there are.
type Choice struct {
	Fingering
	Alternates []Fingering
}

// For finds how an instrument plays a written pitch; ok is false outside its
// range. Sticks have no pitches and timpani depend on what was played before: see
// Part.
func For(i instrument.Instrument, p score.Pitch) (Choice, bool) {
	if !i.Plays(p) {
		return Choice{}, false
	}
	switch i.Mechanism {
	case instrument.Valves:
		return firstIsDefault(brassFor(i, p))
	case instrument.Slide:
		return firstIsDefault(slide(p, i.ID == "trombone-f"))
	case instrument.Strings:
		return firstIsDefault(stopped(i, p))
	case instrument.Woodwind:
		return firstIsDefault(woodwindTables[i.ID][p.MIDI()])
	case instrument.Bars:
		return Choice{Fingering: Fingering{Text: p.String()}}, true
	case instrument.Drums:
		return firstIsDefault(drumsFor(i, p))
	}
	return Choice{}, false
}

// firstIsDefault makes a choice of a list in order of preference.
func firstIsDefault(found []Fingering) (Choice, bool) {
	if len(found) == 0 {
		return Choice{}, false
	}
	first := found[0]
	first.Why = ""
	return Choice{Fingering: first, Alternates: found[1:]}, true
}

// Ways lists the default and the alternates.
func (c Choice) Ways() []Fingering { return append([]Fingering{c.Fingering}, c.Alternates...) }

// Prefer makes an alternate the one to learn first; the usual way becomes an
// alternate. A text that is none of its alternates changes nothing.
func (c Choice) Prefer(text string) Choice {
	k := slices.IndexFunc(c.Alternates, func(way Fingering) bool { return way.Text == text })
	if k < 0 {
		return c
	}
	usual := c.Fingering
	usual.Why = "the usual way"
	others := append([]Fingering{usual}, c.Alternates[:k]...)
	return Choice{Fingering: c.Alternates[k], Alternates: append(others, c.Alternates[k+1:]...)}
}

// Preferred is the fingering a teacher wants for a note, by its MIDI number as
// written.
type Preferred map[int]string

// Options is how a teacher wants a part fingered; the zero value is the default
// of everything.
type Options struct {
	Preferred Preferred
	Usual     bool // every note its first way, whatever its neighbours
	Sticking  Sticking
	Tempo     int // beats a minute, for the strokes of rolls; 0 for a moderate one
}

// Part finds the fingering of every event of a part written for the instrument,
// by measure and event. Rests, notes that continue a tie and notes out of range
// have none. An alternate is taken where it makes its line really easier.
func Part(i instrument.Instrument, part score.Part, o Options) [][]Choice {
	choices, n := make([][]Choice, len(part.Measures)), 0
	for _, m := range part.Measures {
		n += len(m.Events)
	}
	all := make([]Choice, n)
	for k, m := range part.Measures {
		choices[k], all = all[:len(m.Events):len(m.Events)], all[len(m.Events):]
	}
	switch i.Mechanism {
	case instrument.Sticks:
		stick(i, part, choices, o)
	case instrument.Drums:
		tune(i, part, choices, o.Preferred)
		addRolls(part, choices, o)
	case instrument.Bars:
		pitched(i, part, choices, o)
		alternateHands(part, choices)
		addRolls(part, choices, o)
	default:
		pitched(i, part, choices, o)
	}
	return choices
}

// pitched fingers every note by its pitch, each run of notes without a rest by
// its cheapest path.
func pitched(i instrument.Instrument, part score.Part, choices [][]Choice, o Options) {
	l := newLine(i, part, o)
	run, places := make([]int, 0, 256), make([]score.Place, 0, 256)
	flush := func() {
		for k, way := range l.cheapest(run) {
			choices[places[k].Measure][places[k].Event] = l.notes[run[k]].ways[way]
		}
		run, places = run[:0], places[:0]
	}
	reach := instrument.Range{Low: i.Lowest, High: i.Highest}
	for k := range part.Measures {
		events := part.Measures[k].Events
		for j := range events {
			switch e := &events[j]; {
			case e.Kind == score.Rest:
				flush()
			case !e.Tied && reach.Holds(e.Pitch):
				run = append(run, l.note(e.Pitch))
				places = append(places, score.Place{Measure: k, Event: j})
			}
		}
	}
	flush()
}
