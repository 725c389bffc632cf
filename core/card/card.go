// Package card makes reading cards from what a student has worked on, answers them for the
// student's instrument, and says which to ask and when.
package card

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// Kind is what a card asks.
type Kind string

// The kinds.
const (
	Place    Kind = "place"    // on which line or space the note stands
	Name     Kind = "name"     // what it is called
	Finger   Kind = "finger"   // how it is played
	Key      Kind = "key"      // which letters a key signature changes
	Rhythm   Kind = "rhythm"   // a measure, to be counted
	Interval Kind = "interval" // how far two neighbours are apart
	Change   Kind = "change"   // two notes, to be fingered one after the other
)

// Kinds lists them in the order in which they come in.
func Kinds() []Kind { return []Kind{Place, Name, Finger, Rhythm, Key, Interval, Change} }

// ParseKind finds a kind by its name.
func ParseKind(text string) (Kind, bool) {
	return Kind(text), slices.Contains(Kinds(), Kind(text))
}

// OnInstrument says whether the answer is another one on another instrument.
func (k Kind) OnInstrument() bool { return k == Finger || k == Change }

// Card is one thing that is asked.
type Card struct {
	Kind    Kind
	Clef    score.Clef
	Pitches []score.Pitch // one, or two neighbours; none of a key or a rhythm
	Key     score.Key
	Bar     score.Measure // of a rhythm: what is counted
	Count   string        // of a rhythm, as it is counted: "1 & (2) 3"
	Where   string        // in what it was met: "6 · Ferry Landing, B"
	Shown   []string      // by pitch: the fingering that stood there in all that was met, "" where it differed
}

// ID names a card in a log: it is the same wherever the card was met.
func (c Card) ID() string {
	switch c.Kind {
	case Key:
		return fmt.Sprintf("key:%d", c.Key.Fifths)
	case Rhythm:
		return fmt.Sprintf("rhythm:%s:%s", c.Bar.Meter, rhythmOf(c.Bar))
	}
	parts := make([]string, len(c.Pitches))
	for k, p := range c.Pitches {
		parts[k] = p.String()
	}
	notes := strings.Join(parts, "-")
	if c.Kind.OnInstrument() {
		return string(c.Kind) + ":" + notes
	}
	return fmt.Sprintf("%s:%s%d:%s", c.Kind, c.Clef.Sign, c.Clef.Line, notes)
}

// LongestID is the most bytes of an ID that is kept.
const LongestID = 120

// Chunk is a chunk that a student has worked on.
type Chunk struct {
	Where  string // "6 · Ferry Landing, B"
	Report breakdown.Report
	Key    breakdown.ChunkKey
}

// Deck makes the cards of what a student of an instrument has worked on: notes from the
// lowest, each with its place, its name and how it is played; then the rhythms, keys,
// intervals and changes of the chunks in their order. An accidental is on a card only where it
// stood in one of them. Where there is no pitch there are rhythms alone; how a bar is struck
// is its name, and nothing is asked of notes that the instrument does not have.
func Deck(i instrument.Instrument, chunks []Chunk) []Card {
	var notes, rest []Card
	known := map[string]bool{}
	add := func(to *[]Card, c Card) {
		if id := c.ID(); !known[id] && len(id) <= LongestID && fits(i, c) {
			known[id] = true
			*to = append(*to, c)
		}
	}
	for _, p := range chunks {
		p.eachNote(func(clef score.Clef, pitch score.Pitch) {
			for _, kind := range []Kind{Place, Name, Finger} {
				add(&notes, Card{Kind: kind, Clef: clef, Pitches: []score.Pitch{pitch}, Where: p.Where})
			}
		})
		p.eachBar(func(m score.Measure, counted string) {
			add(&rest, Card{Kind: Rhythm, Clef: m.Clef, Bar: m, Count: counted, Where: p.Where})
		})
		p.eachKey(func(clef score.Clef, key score.Key) {
			add(&rest, Card{Kind: Key, Clef: clef, Key: key, Where: p.Where})
		})
		p.eachNeighbours(func(clef score.Clef, from, to score.Pitch) {
			add(&rest, Card{Kind: Interval, Clef: clef, Pitches: []score.Pitch{from, to}, Where: p.Where})
		})
		if from, to, _, ok := p.Report.HardestChange(p.Key); ok {
			add(&rest, Card{Kind: Change, Clef: p.Report.Part.Measures[0].Clef, Pitches: []score.Pitch{from, to},
				Where: p.Where})
		}
	}
	shown := shownWays(chunks)
	for _, list := range [][]Card{notes, rest} {
		for k, c := range list {
			for _, p := range c.Pitches {
				list[k].Shown = append(list[k].Shown, shown[p])
			}
		}
	}
	slices.SortStableFunc(notes, func(a, b Card) int {
		return cmp.Or(a.Pitches[0].Diatonic()-b.Pitches[0].Diatonic(), a.Pitches[0].Alter-b.Pitches[0].Alter)
	})
	return append(notes, rest...)
}

// shownWays is the fingering of each note that stood over it in all of the chunks; a note that
// stood with several has "", and is asked for by itself.
func shownWays(chunks []Chunk) map[score.Pitch]string {
	shown, several := map[score.Pitch]string{}, map[score.Pitch]bool{}
	for _, p := range chunks {
		p.measures(func(at int, m score.Measure) {
			for j, e := range m.Events {
				text := p.Report.Measures[at].Events[j].Fingering
				if !struck(e) || text == "" {
					continue
				}
				if was := shown[e.Pitch]; was != "" && was != text {
					several[e.Pitch] = true
				}
				shown[e.Pitch] = text
			}
		})
	}
	for pitch := range several {
		delete(shown, pitch)
	}
	return shown
}

// fits says whether a card asks something of the instrument.
func fits(i instrument.Instrument, c Card) bool {
	if c.Kind.OnInstrument() && i.Mechanism == instrument.Bars {
		return false
	}
	for _, p := range c.Pitches {
		if _, ok := finger.For(i, p); !ok {
			return false
		}
	}
	return true
}

// measures calls do with the measures of the chunk.
func (p Chunk) measures(do func(at int, m score.Measure)) {
	for k, m := range p.Report.Part.Measures {
		if m.Number >= p.Key.First && m.Number <= p.Key.Last {
			do(k, m)
		}
	}
}

// struck says whether an event is a note with pitch that begins here.
func struck(e score.Event) bool { return e.Kind != score.Rest && !e.Tied && !e.Unpitched }

func (p Chunk) eachNote(do func(score.Clef, score.Pitch)) {
	p.measures(func(_ int, m score.Measure) {
		for _, e := range m.Events {
			if struck(e) {
				do(m.Clef, e.Pitch)
			}
		}
	})
}

// eachBar calls do with every full measure of two events or more, for one alone is no rhythm
// to count. What is tied over the bar line is left out: its count needs the measure before.
func (p Chunk) eachBar(do func(score.Measure, string)) {
	p.measures(func(at int, m score.Measure) {
		if len(m.Events) < 2 || m.Length != m.Meter.Length() || m.Split || m.Events[0].Tied ||
			m.Events[len(m.Events)-1].TieOn {
			return
		}
		do(onOneLine(m), counted(p.Report.Measures[at]))
	})
}

// counted is the count of a measure as it is said, with what is held in parentheses and what
// is rested in brackets.
func counted(m breakdown.Measure) string {
	var words []string
	for _, e := range m.Events {
		open, close := "(", ")"
		switch {
		case e.Kind == "rest":
			open, close = "[", "]"
			if e.Count != "" {
				words = append(words, open+e.Count+close)
			}
		case e.Count != "":
			words = append(words, e.Count)
		}
		for _, held := range e.Held {
			if held != "" {
				words = append(words, open+held+close)
			}
		}
	}
	return strings.Join(words, " ")
}

// onOneLine is a measure with its rhythm alone: every note on the middle line, no signs.
func onOneLine(m score.Measure) score.Measure {
	middle := m.Clef.BottomLine()
	for range 4 {
		middle = nextUp(middle)
	}
	events := make([]score.Event, len(m.Events))
	for k, e := range m.Events {
		events[k] = score.Event{Kind: e.Kind, Start: e.Start, Length: e.Length, Value: e.Value, Pitch: middle,
			TieOn: e.TieOn, Tied: e.Tied,
			TupletStarts: e.TupletStarts, TupletEnds: e.TupletEnds, WholeMeasure: e.WholeMeasure, Unpitched: e.Unpitched}
	}
	return score.Measure{Number: 1, Meter: m.Meter, Clef: m.Clef, Length: m.Length, Events: events}
}

// nextUp is the natural note above.
func nextUp(p score.Pitch) score.Pitch {
	if p.Step == score.B {
		return score.Pitch{Step: score.C, Octave: p.Octave + 1}
	}
	return score.Pitch{Step: p.Step + 1, Octave: p.Octave}
}

// rhythmOf names what is struck and held in a measure: "1/4 1/4 r1/2".
func rhythmOf(m score.Measure) string {
	parts := make([]string, len(m.Events))
	for k, e := range m.Events {
		parts[k] = e.Length.String()
		switch {
		case e.Kind == score.Rest:
			parts[k] = "r" + parts[k]
		case e.Tied:
			parts[k] = "t" + parts[k]
		}
	}
	return strings.Join(parts, " ")
}

// eachKey calls do with every signature that changes a letter.
func (p Chunk) eachKey(do func(score.Clef, score.Key)) {
	pitched := false
	p.eachNote(func(score.Clef, score.Pitch) { pitched = true })
	p.measures(func(_ int, m score.Measure) {
		if pitched && m.Key.Fifths != 0 {
			do(m.Clef, score.Key{Fifths: m.Key.Fifths})
		}
	})
}

// eachNeighbours calls do with every two different notes of which one follows the other.
func (p Chunk) eachNeighbours(do func(clef score.Clef, from, to score.Pitch)) {
	var before score.Pitch
	begun := false
	p.measures(func(_ int, m score.Measure) {
		for _, e := range m.Events {
			switch {
			case e.Kind == score.Rest:
				begun = false
			case struck(e):
				if begun && before.Diatonic() != e.Pitch.Diatonic() {
					do(m.Clef, before, e.Pitch)
				}
				before, begun = e.Pitch, true
			}
		}
	})
}

// Stumbled lists the cards that a stumble in a chunk is asked again by: over names, the names
// and places of the notes in question; over fingerings, how they are played and the hardest
// change; over rhythm, its measures; over the sound, how the notes are played.
func Stumbled(p Chunk, over routine.Cause, doubtful []score.Pitch) []string {
	var ids []string
	var kinds []Kind
	switch over {
	case routine.Rhythm:
		p.eachBar(func(m score.Measure, _ string) {
			if id := (Card{Kind: Rhythm, Bar: m}).ID(); !slices.Contains(ids, id) {
				ids = append(ids, id)
			}
		})
	case routine.WrongName:
		kinds = []Kind{Place, Name}
	case routine.Fingering, routine.Sound:
		kinds = []Kind{Finger}
		if from, to, _, ok := p.Report.HardestChange(p.Key); ok {
			ids = append(ids, Card{Kind: Change, Pitches: []score.Pitch{from, to}}.ID())
		}
	}
	p.eachNote(func(clef score.Clef, pitch score.Pitch) {
		for _, kind := range kinds {
			id := Card{Kind: kind, Clef: clef, Pitches: []score.Pitch{pitch}}.ID()
			if slices.Contains(doubtful, pitch) && !slices.Contains(ids, id) {
				ids = append(ids, id)
			}
		}
	})
	return ids
}
