// Package finger says how each note is played on each instrument. The text of a
// fingering is spelled as docs/fingerings.md explains; one file a mechanism.
package finger

import (
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Fingering is one way to play a note.
type Fingering struct {
	Text string
	Why  string // for an alternate, when to use it
}

// Choice is the fingering to learn first and the others there are.
type Choice struct {
	Fingering
	Alternates []Fingering
}

// Known says whether fingerings are kept for an instrument.
func Known(i instrument.Instrument) bool {
	return i.Mechanism != instrument.Woodwind || woodwindTables[i.ID] != nil
}

// For finds how an instrument plays a written pitch; ok is false outside its
// range and where Known is false. Sticks have no pitches: see Part.
func For(i instrument.Instrument, p score.Pitch) (Choice, bool) {
	if !i.Plays(p) {
		return Choice{}, false
	}
	switch i.Mechanism {
	case instrument.Valves:
		return brassFor(i, p)
	case instrument.Slide:
		if i.ID == "trombone-f" {
			return slideWithAttachment(p)
		}
		return slide(p)
	case instrument.Strings:
		if i.ID == "bass" {
			return doubleBass(i, p)
		}
		return stopped(i, p)
	case instrument.Woodwind:
		return firstIsDefault(woodwindTables[i.ID][p.MIDI()])
	case instrument.Bars:
		return Choice{Fingering: Fingering{Text: p.String()}}, true
	}
	return Choice{}, false
}

func brassFor(i instrument.Instrument, p score.Pitch) (Choice, bool) {
	switch i.ID {
	case "horn-f":
		return firstIsDefault(hornF(p))
	case "horn-double":
		return doubleHorn(p)
	}
	return valves(p, i.Pedal)
}

// Preferred is the fingering a teacher wants for a note, by its MIDI number as
// written.
type Preferred map[int]string

// Prefer makes an alternate the one to learn first; the usual way becomes an
// alternate. A text that is none of its alternates changes nothing.
func (c Choice) Prefer(text string) Choice {
	for k, way := range c.Alternates {
		if way.Text != text {
			continue
		}
		others := []Fingering{{Text: c.Text, Why: "the usual way"}}
		others = append(others, c.Alternates[:k]...)
		others = append(others, c.Alternates[k+1:]...)
		return Choice{Fingering: Fingering{Text: way.Text}, Alternates: others}
	}
	return c
}

// Part finds the fingering of every event of a part written for the instrument,
// by measure and event, with the teacher's preferences, which may be nil. Rests, notes that continue a tie and notes out of range
// have none.
func Part(i instrument.Instrument, part score.Part, preferred Preferred) [][]Choice {
	choices := make([][]Choice, len(part.Measures))
	for k, m := range part.Measures {
		choices[k] = make([]Choice, len(m.Events))
		if i.Mechanism == instrument.Sticks {
			naturalSticking(m, choices[k])
			continue
		}
		for j, e := range m.Events {
			if e.Kind == score.Note && !e.Tied {
				c, _ := For(i, e.Pitch)
				choices[k][j] = c.Prefer(preferred[e.Pitch.MIDI()])
			}
		}
	}
	return choices
}
