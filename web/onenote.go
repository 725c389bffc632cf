package web

import (
	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// oneNote is the concert note that suits everybody in the section, and what it
// is on this instrument.
type oneNote struct {
	class            instrument.PitchClass
	Concert, Written string
	Choices          []oneNoteChoice
	Everybody        []oneNoteLine
}

// oneNoteChoice is a concert note to choose, "Bb" in an address.
type oneNoteChoice struct {
	Key, Name string
	Chosen    bool
}

// oneNoteLine is what one instrument of the section plays.
type oneNoteLine struct{ Instrument, Written, Where string }

// oneNoteFor finds everybody's written note for the concert note that was asked
// for, or that suits the section.
func oneNoteFor(section []store.Student, i instrument.Instrument, o breakdown.Options, asked string) oneNote {
	var present []instrument.Instrument
	seen := map[string]bool{}
	for _, student := range section {
		if known, ok := instrument.ByID(student.Instrument); ok && !seen[known.ID] {
			seen[known.ID] = true
			present = append(present, known)
		}
	}
	if i.Unpitched() {
		return oneNote{}
	}
	say := func(p score.Pitch) string { return o.Name.Say(p, false, score.Key{}) }
	class := instrument.SuggestOneNote(present)
	for _, c := range instrument.OneNotes() {
		if keyOf(c) == asked {
			class = c
		}
	}
	one := oneNote{class: class, Concert: say(class.Pitch()), Written: say(instrument.WrittenFor(class, i))}
	for _, c := range instrument.OneNotes() {
		one.Choices = append(one.Choices, oneNoteChoice{keyOf(c), say(c.Pitch()), c == class})
	}
	for _, other := range present {
		if !other.Unpitched() {
			p := instrument.WrittenFor(class, other)
			one.Everybody = append(one.Everybody, oneNoteLine{other.Name, say(p), name.Place(p, other.Clef)})
		}
	}
	return one
}
