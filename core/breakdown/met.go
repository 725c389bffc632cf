package breakdown

import (
	"fmt"
	"strconv"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// Thing is something there is to learn: a note, a way to play it, how long a note or a
// rest is, a sign, a key or a meter. It is written without spaces.
type Thing string

// noteThing is a written pitch: "Bb3".
func noteThing(p score.Pitch) Thing { return Thing(p.String()) }

// wayThing is how a note is played: "way:58:1-2".
func wayThing(p score.Pitch, fingering string) Thing {
	return Thing("way:" + strconv.Itoa(p.MIDI()) + ":" + strings.ReplaceAll(fingering, " ", "_"))
}

// lengthThing is a note value, restThing a rest.
func lengthThing(v score.Value) Thing { return Thing("length:" + hyphened(v.Name(false))) }

func restThing(e score.Event) Thing {
	if e.WholeMeasure {
		return "rest:whole-measure"
	}
	return Thing("rest:" + hyphened(e.Value.Name(false)))
}

func hyphened(words string) string { return strings.ReplaceAll(words, " ", "-") }

// signThing is a sign in front of a note.
func signThing(alter int) Thing { return Thing("sign:" + strconv.Itoa(alter)) }

func keyThing(k score.Key) Thing { return Thing("key:" + strconv.Itoa(k.Fifths)) }

func meterThing(m score.Meter) Thing { return Thing("meter:" + m.String()) }

// things lists what an event brings, what its measure opens with first. fingering is ""
// where there is none.
func things(m score.Measure, j int, fingering string, pitched bool) []Thing {
	e := m.Events[j]
	var list []Thing
	if j == 0 {
		list = append(list, meterThing(m.Meter))
		if pitched && m.Key.Fifths != 0 {
			list = append(list, keyThing(m.Key))
		}
	}
	switch {
	case e.Kind == score.Rest:
		return append(list, restThing(e))
	case e.Tied:
		return list
	}
	list = append(list, lengthThing(e.Value))
	if e.Unpitched {
		return list
	}
	list = append(list, noteThing(e.Pitch))
	if e.Sign {
		list = append(list, signThing(e.Pitch.Alter))
	}
	if fingering != "" {
		list = append(list, wayThing(e.Pitch, fingering))
	}
	return list
}

// Things lists what a part brings to whoever plays it, each once, in the order met.
func Things(r Report) []Thing {
	var list []Thing
	seen, pitched := map[Thing]bool{}, !r.Part.Unpitched()
	for i, m := range r.Part.Measures {
		for j := range m.Events {
			for _, t := range things(m, j, r.Measures[i].Events[j].Fingering, pitched) {
				if !seen[t] {
					seen[t] = true
					list = append(list, t)
				}
			}
		}
	}
	return list
}

// Demands are what a part demands of whoever plays it on an instrument.
type Demands struct {
	Things []Thing
	Parts  DifficultyParts // in the first year; what is new depends on who plays
}

// DemandsOf reads the demands of an instrument's part made from a source.
func DemandsOf(s score.Score, source score.Part, writtenFor string, target instrument.Instrument) Demands {
	r := Read(s, source, writtenFor, target, nil, Options{})
	return Demands{Things(r), r.Difficulty.Parts}
}

// Met is what a player has met in earlier exercises. A nil one is nothing.
type Met struct {
	letters map[score.Step]map[int]bool // with which alterations
	places  map[int]bool                // on the staff, by their letter counted from C0
	known   []score.Pitch               // one for each place, in the order met
	things  map[Thing]bool
}

// MetIn is what is met in some written pitches.
func MetIn(pitches ...score.Pitch) *Met {
	m := &Met{letters: map[score.Step]map[int]bool{}, places: map[int]bool{}, things: map[Thing]bool{}}
	for _, p := range pitches {
		m.Add(noteThing(p))
	}
	return m
}

// Add records a thing.
func (m *Met) Add(t Thing) {
	if m.things[t] {
		return
	}
	m.things[t] = true
	p, err := score.ParsePitch(string(t))
	if err != nil {
		return // not a note
	}
	if m.letters[p.Step] == nil {
		m.letters[p.Step] = map[int]bool{}
	}
	m.letters[p.Step][p.Alter] = true
	if place := p.Diatonic(); !m.places[place] {
		m.places[place] = true
		m.known = append(m.known, p)
	}
}

// Empty says whether nothing has been met.
func (m *Met) Empty() bool { return m == nil || len(m.things) == 0 }

// Has says whether a thing has been met.
func (m *Met) Has(t Thing) bool { return m != nil && m.things[t] }

// as says with which alterations a letter has been met.
func (m *Met) as(step score.Step) map[int]bool {
	if m == nil {
		return nil
	}
	return m.letters[step]
}

// Places lists the places on the staff that have been met, each by its first pitch.
func (m *Met) Places() []score.Pitch {
	if m == nil {
		return nil
	}
	return m.known
}

// thingWords says what a thing is: "B flat", "dotted quarter note", "the meter 6/8".
func thingWords(t Thing, m score.Measure, e score.Event) string {
	kind, rest, _ := strings.Cut(string(t), ":")
	words := strings.ReplaceAll(rest, "-", " ")
	switch kind {
	case "way":
		return fmt.Sprintf("another way to play %s", name.Spoken(e.Pitch, false))
	case "length":
		return words + " note"
	case "rest":
		return words + " rest"
	case "sign":
		return strings.TrimSpace(map[int]string{0: "natural"}[e.Pitch.Alter]+score.AlterWord(e.Pitch.Alter)) + " sign"
	case "key":
		return "the key signature of " + m.Key.Name()
	case "meter":
		return "the meter " + rest
	}
	return name.Spoken(e.Pitch, e.Sign)
}
