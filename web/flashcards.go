package web

import (
	"cmp"
	"slices"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// cardSheet is the notes of an exercise as cards for one instrument, a note on the front,
// its name, its place and how it is played on the back.
type cardSheet struct {
	Drawn sheetData   `json:"drawn"` // what the drawings need to know
	Cards []flashcard `json:"cards"`
}

type flashcard struct {
	MEI   string     `json:"mei"`
	Name  string     `json:"name"`
	Place string     `json:"place"`
	Event sheetEvent `json:"event"`
}

// cardsOf makes a card of each note of what is explained, the lowest first; nil where there
// is no pitch.
func cardsOf(x explained, target instrument.Instrument, kept taughtBy) *cardSheet {
	part := x.Report.Part
	var notes []score.Place
	for _, at := range part.Notes() {
		e := part.At(at)
		seen := slices.ContainsFunc(notes, func(other score.Place) bool { return part.At(other).Pitch == e.Pitch })
		if !e.Unpitched && !seen {
			notes = append(notes, at)
		}
	}
	if len(notes) == 0 {
		return nil
	}
	slices.SortStableFunc(notes, func(a, b score.Place) int {
		return cmp.Compare(part.At(a).Pitch.MIDI(), part.At(b).Pitch.MIDI())
	})
	sheet := &cardSheet{Drawn: drawnFor(target, kept.Preferences.stringColours(target))}
	sheet.Drawn.Hands = x.Words.Hands
	for _, at := range notes {
		sheet.Cards = append(sheet.Cards, cardOf(x, target, at))
	}
	return sheet
}

func cardOf(x explained, target instrument.Instrument, at score.Place) flashcard {
	m, p := x.Report.Part.Measures[at.Measure], x.Report.Part.At(at).Pitch
	alone := score.Part{Measures: []score.Measure{{
		Number: 1, Meter: m.Meter, Clef: m.Clef, Length: score.Frac(1, 1),
		Events: []score.Event{{Length: score.Frac(1, 1), Value: score.Value{Base: 1}, Pitch: p, Sign: p.Alter != 0}},
	}}}
	card := flashcard{MEI: mei.Write(alone, mei.Options{}), Name: x.Options.Name.Say(p, false, m.Key), Place: name.Place(p, m.Clef)}
	if way, ok := finger.Taught(target, p, x.Options.Finger.Year); ok {
		way = way.Prefer(x.Options.Finger.Preferred[p.MIDI()])
		card.Event = sheetEvent{Fingering: way.Text, Said: x.Words.Say(target, way.Fingering), Drawn: finger.Draw(target, p, way.Fingering), MIDI: p.MIDI()}
	}
	return card
}
