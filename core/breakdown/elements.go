package breakdown

import (
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// Element is something there is to learn: a note, a way to play it, how long a note or a
// rest is, a sign, a key or a meter. It is written without spaces.
type Element string

// noteElement is a written pitch: "Bb3".
func noteElement(p score.Pitch) Element { return Element(p.String()) }

// fingeringElement is how a note is played: "way:58:1-2".
func fingeringElement(p score.Pitch, fingering string) Element {
	return Element("way:" + strconv.Itoa(p.MIDI()) + ":" + strings.ReplaceAll(fingering, " ", "_"))
}

// lengthElement is a note value, restThing a rest.
func lengthElement(v score.Value) Element { return Element("length:" + hyphened(v.Name(false))) }

func restElement(e score.Event) Element {
	if e.WholeMeasure {
		return "rest:whole-measure"
	}
	return Element("rest:" + hyphened(e.Value.Name(false)))
}

func hyphened(words string) string { return strings.ReplaceAll(words, " ", "-") }

// signElement is a sign in front of a note.
func signElement(alter int) Element { return Element("sign:" + strconv.Itoa(alter)) }

func keyElement(k score.Key) Element { return Element("key:" + strconv.Itoa(k.Fifths)) }

func meterElement(m score.Meter) Element { return Element("meter:" + m.String()) }

// elements adds to a list what an event brings, what its measure opens with first. fingering
// is "" where there is none.
func elements(list []Element, m score.Measure, j int, fingering string, pitched bool) []Element {
	e := m.Events[j]
	if j == 0 {
		list = append(list, meterElement(m.Meter))
		if pitched && m.Key.Fifths != 0 {
			list = append(list, keyElement(m.Key))
		}
	}
	switch {
	case e.Kind == score.Rest:
		return append(list, restElement(e))
	case e.Tied:
		return list
	}
	list = append(list, lengthElement(e.Value))
	for _, brings := range []struct {
		thing Element
		has   bool
	}{{"play:slurs", e.SlurStarts > 0}, {"play:ties", e.TieOn}, {"play:rolls", e.Roll},
		{"play:fermatas", slices.Contains(e.Marks, score.Fermata)}, {"play:accents", slices.Contains(e.Marks, score.Accent)},
		{"play:hairpins", e.Hairpin != ""},
		{"play:flams", e.Graces == 1}, {"play:drags", e.Graces > 1}} {
		if brings.has {
			list = append(list, brings.thing)
		}
	}
	if e.Unpitched {
		return list
	}
	list = append(list, noteElement(e.Pitch))
	if e.Sign {
		list = append(list, signElement(e.Pitch.Alter))
	}
	if fingering != "" {
		list = append(list, fingeringElement(e.Pitch, fingering))
	}
	return list
}

// Elements lists what a part brings to anyone who plays it, each once, in the order met.
func Elements(r Report) []Element {
	var list, brought []Element
	seen, pitched := map[Element]bool{}, !r.Part.Unpitched()
	for i, m := range r.Part.Measures {
		for j := range m.Events {
			brought = elements(brought[:0], m, j, r.Measures[i].Events[j].Fingering, pitched)
			for _, t := range brought {
				if !seen[t] {
					seen[t] = true
					list = append(list, t)
				}
			}
		}
	}
	return list
}

// Demands are what a part demands of anyone who plays it on an instrument.
type Demands struct {
	Elements []Element
	Parts    DifficultyParts // in the first year; what is new depends on who plays
}

// DemandsOf reads the demands of an instrument's part made from a source.
func DemandsOf(s score.Score, source score.Part, writtenFor string, target instrument.Instrument) Demands {
	r := readNotes(s, source, writtenFor, target, nil, Options{})
	r.addDifficulty(target, 0)
	return Demands{Elements(r), r.Difficulty.Parts}
}

// Met is what a player has met in earlier exercises. A nil one is nothing.
type Met struct {
	letters  map[score.Step]map[int]bool // with which alterations
	places   map[int]bool                // on the staff, by their letter counted from C0
	known    []score.Pitch               // one for each place, in the order met
	elements map[Element]bool
}

// MetIn is what is met in some written pitches.
func MetIn(pitches ...score.Pitch) *Met {
	m := &Met{letters: map[score.Step]map[int]bool{}, places: map[int]bool{}, elements: map[Element]bool{}}
	for _, p := range pitches {
		m.Add(noteElement(p))
	}
	return m
}

// Add records a thing.
func (m *Met) Add(t Element) {
	if m.elements[t] {
		return
	}
	m.elements[t] = true
	if p, is := t.note(); is {
		m.read(p)
	}
}

// read records the letter and the place of a pitch.
func (m *Met) read(p score.Pitch) {
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
func (m *Met) Empty() bool { return m == nil || len(m.elements) == 0 }

// Has says whether a thing has been met.
func (m *Met) Has(t Element) bool { return m != nil && m.elements[t] }

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

// Words says what a thing is: "B flat", "dotted quarter note", "the meter 6/8"; "" for a way
// to play a note, and for a natural note's sign.
func (t Element) Words() string {
	kind, rest, _ := strings.Cut(string(t), ":")
	words := strings.ReplaceAll(rest, "-", " ")
	switch kind {
	case "length":
		return words + " note"
	case "rest":
		return words + " rest"
	case "sign":
		alter, _ := strconv.Atoi(rest) // what signThing wrote
		return strings.TrimSpace(map[int]string{0: "natural"}[alter]+score.AlterWord(alter)) + " sign"
	case "key":
		fifths, _ := strconv.Atoi(rest) // what keyThing wrote
		return signatureOf(fifths)
	case "meter":
		return "the meter " + rest
	case "play":
		return words
	}
	if p, is := t.note(); is {
		return name.Spoken(p, false)
	}
	return ""
}

// note is the written pitch that a thing is; ok is false for other things.
func (t Element) note() (p score.Pitch, ok bool) {
	if strings.Contains(string(t), ":") {
		return p, false
	}
	p, err := score.ParsePitch(string(t))
	return p, err == nil
}

// wordsAt is Words at the place where a thing is met: a key by its name, a natural note
// called so where its sign stands, a way to play with its note.
func (t Element) wordsAt(m score.Measure, e score.Event) string {
	switch {
	case strings.HasPrefix(string(t), "way:"):
		return "another way to play " + name.Spoken(e.Pitch, false)
	case strings.HasPrefix(string(t), "key:"):
		return "the key signature of " + m.Key.Name()
	case t == noteElement(e.Pitch):
		return name.Spoken(e.Pitch, e.Sign)
	}
	return t.Words()
}

// signatureOf is "the signature of two flats".
func signatureOf(fifths int) string {
	kind := "sharp"
	if fifths < 0 {
		kind = "flat"
	}
	number := [...]string{"no", "one", "two", "three", "four", "five", "six", "seven"}[min(abs(fifths), 7)]
	if abs(fifths) != 1 {
		kind += "s"
	}
	return "the signature of " + number + " " + kind
}
