package music

import (
	"unhurriedbench/core/card"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/teach"
)

// WayEvent is a fingering of a note with what its drawing needs.
func WayEvent(i instrument.Instrument, w finger.Words, p score.Pitch, f finger.Fingering) SheetEvent {
	return SheetEvent{Fingering: f.Text, Said: w.Say(i, f), Drawn: finger.Draw(i, p, f), MIDI: p.MIDI()}
}

// OwnCard is a card of a round for the page's script.
type OwnCard struct {
	ID      string      `json:"id"`
	Kind    card.Kind   `json:"kind"`
	MEI     string      `json:"mei"`
	Asking  card.Asking `json:"asking"`
	New     bool        `json:"new"`
	Why     string      `json:"why"`   // a key of the words
	Where   string      `json:"where"` // in what it was met
	Answer  string      `json:"answer"`
	More    string      `json:"more"`
	Help    string      `json:"help"`
	Ways    []CardWay   `json:"ways"`
	Choices []ownChoice `json:"choices"`
	Sounds  []int       `json:"sounds"` // MIDI numbers, one after the other; none of what is not played
}

// CardWay is how a note is played, to be drawn.
type CardWay struct {
	Name  string     `json:"name"`
	Event SheetEvent `json:"event"`
}

type ownChoice struct {
	Text  string   `json:"text"`
	Right bool     `json:"right"`
	Way   *CardWay `json:"way,omitempty"`
}

// DrawCards is what drawings of fingerings need to know.
func DrawCards(d teach.Deck) SheetData {
	data := DrawnFor(d.Reader.Instrument, d.Settings.Preferences.StringColours(d.Reader.Instrument))
	data.Hands = d.Reader.Words.Hands
	return data
}

// NewOwnCard is a card of a round for the page's script.
func NewOwnCard(d teach.Deck, a card.Asked) OwnCard {
	answer := d.Reader.Answer(a.Card, d.Deck)
	c := OwnCard{ID: a.ID(), Kind: a.Kind, MEI: CardMEI(a.Card), Asking: a.Asking, New: a.New, Why: "why." +
		string(a.Because), Where: a.Where, Answer: answer.Text, More: answer.More}
	if a.Asking != card.Fast {
		c.Help = answer.More
	}
	for _, way := range answer.Ways {
		c.Ways = append(c.Ways, NewCardWay(d, way))
		c.Sounds = append(c.Sounds, way.Pitch.Transpose(d.Reader.Instrument.Transposition).MIDI())
	}
	for _, choice := range answer.Choices {
		own := ownChoice{Text: choice.Text, Right: choice.Right}
		if choice.Way != nil {
			way := NewCardWay(d, *choice.Way)
			own.Way = &way
		}
		c.Choices = append(c.Choices, own)
	}
	return c
}

// NewCardWay is a fingering with what its drawing needs.
func NewCardWay(d teach.Deck, w card.Way) CardWay {
	return CardWay{d.Reader.Show(w.Pitch), WayEvent(d.Reader.Instrument, d.Reader.Words, w.Pitch, w.Fingering)}
}

// CardMEI is the front of a card.
func CardMEI(c card.Card) string {
	four := score.Meter{Beats: 4, Unit: 4}
	m := score.Measure{Number: 1, Meter: four, Clef: c.Clef, Key: c.Key, Length: score.Frac(1, 1)}
	note := func(p score.Pitch, length score.Fraction, base int, start score.Fraction) score.Event {
		return score.Event{Start: start, Length: length, Value: score.Value{Base: base}, Pitch: p, Sign: p.Alter != 0}
	}
	switch {
	case c.Kind == card.Rhythm:
		m = c.Bar
	case c.Kind == card.Key:
		m.Events = []score.Event{{Kind: score.Rest, Length: score.Frac(1, 1), Value: score.Value{Base: 1},
			WholeMeasure: true}}
	case len(c.Pitches) == 2:
		m.Events = []score.Event{note(c.Pitches[0], score.Frac(1, 2), 2, score.Frac(0, 1)),
			note(c.Pitches[1], score.Frac(1, 2), 2, score.Frac(1, 2))}
	default:
		m.Events = []score.Event{note(c.Pitches[0], score.Frac(1, 1), 1, score.Frac(0, 1))}
	}
	return mei.Write(score.Part{Measures: []score.Measure{m}}, mei.Options{})
}
