package bench

import (
	"cmp"
	"slices"

	"unhurriedbench/core/card"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
)

// cardSheet is the notes of an exercise as cards for one instrument, a note on the front,
// its name, its place and how it is played on the back.
type cardSheet struct {
	Drawn music.SheetData `json:"drawn"` // what the drawings need to know
	Cards []flashcard     `json:"cards"`
}

type flashcard struct {
	MEI   string           `json:"mei"`
	Name  string           `json:"name"`
	Place string           `json:"place"`
	Event music.SheetEvent `json:"event"`
}

// cardsOf makes a card of each note of what is explained, the lowest first; nil where there
// is no pitch.
func cardsOf(x teach.Explained, target instrument.Instrument, saved teach.Settings) *cardSheet {
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
	sheet := &cardSheet{Drawn: music.DrawnFor(target, saved.Preferences.StringColours(target))}
	sheet.Drawn.Hands = x.Words.Hands
	for _, at := range notes {
		sheet.Cards = append(sheet.Cards, cardOf(x, target, at))
	}
	return sheet
}

func cardOf(x teach.Explained, target instrument.Instrument, at score.Place) flashcard {
	m, p := x.Report.Part.Measures[at.Measure], x.Report.Part.At(at).Pitch
	made := flashcard{
		MEI:  music.CardMEI(card.Card{Kind: card.Name, Clef: m.Clef, Pitches: []score.Pitch{p}}),
		Name: x.Options.Name.Say(p, false, m.Key), Place: name.Place(p, m.Clef),
	}
	if way := x.Report.Measures[at.Measure].Events[at.Event].Played; way.Text != "" { // as the line shows it
		made.Event = music.WayEvent(target, x.Words, p, way.Fingering)
	}
	return made
}
