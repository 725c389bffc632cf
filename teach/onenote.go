package teach

import (
	"slices"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// oneNote is the concert note that suits everybody in the class, and what it
// is on this instrument.
type oneNote struct {
	Class            instrument.PitchClass
	Pitch            score.Pitch // as the instrument reads it
	Concert, Written string
	Choices          []oneNoteChoice
	Own              []oneNoteChoice // every note of the instrument, as it reads them
	Everybody        []oneNoteLine
}

// oneNoteChoice is a concert note to choose, "Bb" in an address.
type oneNoteChoice struct {
	Key, Name string
	Chosen    bool
}

// oneNoteLine is what one instrument of the class plays.
type oneNoteLine struct{ Instrument, Written, Where string }

// writtenNote is a note of an instrument in an address, as it is written: "B4".
func writtenNote(text string, i instrument.Instrument) (p score.Pitch, ok bool) {
	p, err := score.ParsePitch(text)
	return p, err == nil && !i.Unpitched() && i.Plays(p)
}

// OneNoteFor finds everybody's written note for the concert note that was asked
// for, or that suits the class; or the instrument's own note that was asked for.
func OneNoteFor(class []store.Student, i instrument.Instrument, o breakdown.Options, requested string) oneNote {
	var present []instrument.Instrument
	seen := map[string]bool{}
	for _, student := range class {
		if known, ok := instrument.ByID(student.Instrument); ok && !seen[known.ID] {
			seen[known.ID] = true
			present = append(present, known)
		}
	}
	if i.Unpitched() {
		return oneNote{}
	}
	say := func(p score.Pitch) string { return o.Name.Say(p, false, score.Key{}) }
	chosen := instrument.SuggestOneNote(present)
	for _, c := range instrument.OneNotes() {
		if KeyOf(c) == requested {
			chosen = c
		}
	}
	one := oneNote{Class: chosen, Pitch: instrument.WrittenFor(chosen, i), Concert: say(chosen.Pitch())}
	own, isOwn := writtenNote(requested, i)
	if isOwn {
		one.Pitch, one.Concert = own, say(own.Transpose(i.Transposition))
	}
	one.Written = say(one.Pitch)
	for _, c := range instrument.OneNotes() {
		one.Choices = append(one.Choices, oneNoteChoice{KeyOf(c), say(c.Pitch()), c == chosen && !isOwn})
	}
	for _, n := range finger.Chart(i) {
		p := n.Spellings[len(n.Spellings)-1]
		if isOwn && own.MIDI() == p.MIDI() {
			p = own
		}
		one.Own = append(one.Own, oneNoteChoice{p.String(), say(p) + ", " + name.Place(p, i.Clef), isOwn && p == own})
	}
	for _, other := range present {
		if !other.Unpitched() {
			p := instrument.WrittenFor(chosen, other)
			one.Everybody = append(one.Everybody, oneNoteLine{other.Name, say(p), name.Place(p, other.Clef)})
		}
	}
	return one
}

// ClassNotes are the notes that a class may have as its one note for everyone, by their names in
// concert pitch.
func ClassNotes(class store.Class, students []store.Student, saved Settings) []oneNoteChoice {
	options := saved.Preferences.Options(class)
	var list []oneNoteChoice
	chosen := ClassNote(class, students)
	for _, c := range instrument.OneNotes() {
		list = append(list, oneNoteChoice{KeyOf(c), options.Name.Say(c.Pitch(), false, score.Key{}), c == chosen})
	}
	return list
}

// IsClassNote says whether a text is the key of such a note.
func IsClassNote(key string) bool {
	return slices.ContainsFunc(instrument.OneNotes(), func(c instrument.PitchClass) bool { return KeyOf(c) == key })
}

// KeyOf is a note in an address: "Bb".
func KeyOf(class instrument.PitchClass) string {
	return strings.TrimSuffix(class.Pitch().String(), "4")
}

// InstrumentsOf lists the instruments that students play, each once, in score order.
func InstrumentsOf(students []store.Student) []instrument.Instrument {
	var list []instrument.Instrument
	for _, i := range instrument.All() {
		if slices.ContainsFunc(students, func(s store.Student) bool { return s.Instrument == i.ID }) {
			list = append(list, i)
		}
	}
	return list
}
