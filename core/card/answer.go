package card

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// Reader is for whom cards are answered: an instrument, as it is taught.
type Reader struct {
	Instrument instrument.Instrument
	Names      name.Options
	Words      finger.Words
	Year       int              // of playing, from 1
	Preferred  finger.Preferred // fingerings
}

// Answer is what is right of a card, and what may be pressed.
type Answer struct {
	Text    string   // "B flat", "second position", "B♭, E♭", "a third up"
	Short   string   // the same where there is little room
	More    string   // to know beside it: where the note stands
	Ways    []Way    // how its notes are played, where that is asked
	Choices []Choice // what may be pressed; none where the student turns the card and judges
}

// Way is how a note is played.
type Way struct {
	Pitch score.Pitch
	finger.Choice
}

// Choice is something to press.
type Choice struct {
	Text  string
	Right bool
	Way   *Way // where fingerings are pressed, to be drawn
}

// mostChoices is how many ways may be pressed, the right one among them.
const mostChoices = 6

// Answer computes what is right of a card. What may be pressed beside it comes from the other
// cards of the deck; no other way to play the same note is among it.
func (r Reader) Answer(c Card, deck []Card) Answer {
	switch c.Kind {
	case Place:
		return r.place(c, deck)
	case Name:
		return r.name(c, deck)
	case Finger:
		return r.finger(c, deck)
	case Key:
		return r.key(c)
	case Rhythm:
		return Answer{Text: c.Count, Short: c.Count}
	case Interval:
		return r.interval(c)
	}
	return r.change(c)
}

// naming is how notes are named on cards: degrees need a key, so letters stand for them.
func (r Reader) naming() name.Options {
	if r.Names.System == name.Degrees {
		r.Names.System = name.Letters
	}
	return r.Names
}

// Show names a note in the width of a notehead.
func (r Reader) Show(p score.Pitch) string { return r.naming().Show(p, false, score.Key{}) }

// Say names a note aloud.
func (r Reader) Say(p score.Pitch) string { return r.naming().Say(p, false, score.Key{}) }

// way is how a note of a card is played: as it stood where it was met, else as it is taught.
func (r Reader) way(c Card, k int) (Way, bool) {
	p := c.Pitches[k]
	current, ok := finger.Taught(r.Instrument, p, max(r.Year, 1))
	current = current.Prefer(r.Preferred[p.MIDI()])
	if k < len(c.Shown) && r.Preferred[p.MIDI()] == "" {
		current = current.Prefer(c.Shown[k])
	}
	return Way{p, current}, ok
}

func (r Reader) place(c Card, deck []Card) Answer {
	at := name.Place(c.Pitches[0], c.Clef)
	a := Answer{Text: at, Short: at, More: r.Say(c.Pitches[0])}
	a.Choices = pressed(deck, Place, func(other Card) string { return name.Place(other.Pitches[0], other.Clef) }, c)
	return a
}

func (r Reader) name(c Card, deck []Card) Answer {
	p := c.Pitches[0]
	a := Answer{Text: r.Say(p), Short: r.Show(p), More: name.Place(p, c.Clef)}
	if way, ok := r.way(c, 0); ok && r.Instrument.Mechanism != instrument.Bars {
		a.Ways = []Way{way}
	}
	var letters []score.Pitch // the seven, and what stands with a sign in the deck
	for step := score.C; step <= score.B; step++ {
		letters = append(letters, score.Pitch{Step: step, Octave: 4})
	}
	for _, other := range deck {
		if other.Kind == Name && other.Pitches[0].Alter != 0 {
			letters = append(letters, other.Pitches[0])
		}
	}
	slices.SortStableFunc(letters, func(a, b score.Pitch) int { return cmp.Or(int(a.Step)-int(b.Step), a.Alter-b.Alter) })
	for _, letter := range letters {
		text := r.Show(letter)
		if !slices.ContainsFunc(a.Choices, func(c Choice) bool { return c.Text == text }) {
			a.Choices = append(a.Choices, Choice{Text: text, Right: text == a.Short})
		}
	}
	return a
}

func (r Reader) finger(c Card, deck []Card) Answer {
	way, ok := r.way(c, 0)
	if !ok {
		return Answer{}
	}
	said := r.Words.Say(r.Instrument, way.Fingering)
	a := Answer{Text: said, Short: r.Words.Show(r.Instrument, way.Text), More: r.Say(c.Pitches[0]), Ways: []Way{way}}
	a.Choices = r.waysBeside(way, deck)
	return a
}

// waysBeside are the fingerings that may be pressed for a note: its own, and those of the
// notes nearest to it that are not another way to play it. The order is that of their notes.
func (r Reader) waysBeside(right Way, deck []Card) []Choice {
	others := []Way{right}
	for _, c := range nearest(deck, Finger, right.Pitch) {
		way, ok := r.way(c, 0)
		if !ok || right.Has(way.Text) || len(others) == mostChoices {
			continue
		}
		if !slices.ContainsFunc(others, func(w Way) bool { return w.Text == way.Text }) {
			others = append(others, way)
		}
	}
	if len(others) == 1 {
		return nil // there is nothing to choose among
	}
	slices.SortFunc(others, func(a, b Way) int { return a.Pitch.MIDI() - b.Pitch.MIDI() })
	choices := make([]Choice, len(others))
	for k := range others {
		choices[k] = Choice{Text: r.Words.Show(r.Instrument, others[k].Text), Right: others[k].Text == right.Text,
			Way: &others[k]}
	}
	return choices
}

// nearest are the cards of a kind, those whose notes lie nearest to a note first.
func nearest(deck []Card, kind Kind, to score.Pitch) []Card {
	list := slices.DeleteFunc(slices.Clone(deck), func(c Card) bool { return c.Kind != kind || c.Pitches[0] == to })
	far := func(c Card) int { return max(c.Pitches[0].MIDI()-to.MIDI(), to.MIDI()-c.Pitches[0].MIDI()) }
	slices.SortStableFunc(list, func(a, b Card) int { return far(a) - far(b) })
	return list
}

// pressed are what some cards of the deck say, the nearest to this one, each once; nil where
// there is nothing to choose among.
func pressed(deck []Card, kind Kind, says func(Card) string, c Card) []Choice {
	cards := append([]Card{c}, nearest(deck, kind, c.Pitches[0])...)
	var kept []Card
	for _, other := range cards {
		if len(kept) < mostChoices && !slices.ContainsFunc(kept, func(k Card) bool { return says(k) == says(other) }) {
			kept = append(kept, other)
		}
	}
	if len(kept) == 1 {
		return nil
	}
	slices.SortStableFunc(kept, func(a, b Card) int { return a.Pitches[0].Diatonic() - b.Pitches[0].Diatonic() })
	choices := make([]Choice, len(kept))
	for k, other := range kept {
		choices[k] = Choice{Text: says(other), Right: says(other) == says(c)}
	}
	return choices
}

// key says which letters a signature changes, in the order in which they are written. Beside
// it may be pressed the signatures with one sign more and less, and with as many of the other
// sign.
func (r Reader) key(c Card) Answer {
	letters := func(k score.Key) string {
		var names []string
		for _, step := range k.Changed() {
			names = append(names, r.Show(score.Pitch{Step: step, Alter: k.Alter(step), Octave: 4}))
		}
		if len(names) == 0 {
			return "none"
		}
		return strings.Join(names, " ")
	}
	a := Answer{Text: letters(c.Key), Short: letters(c.Key), More: c.Key.SignatureWords()}
	one := 1
	if c.Key.Fifths < 0 {
		one = -1
	}
	for _, fifths := range []int{c.Key.Fifths - one, c.Key.Fifths, c.Key.Fifths + one, -c.Key.Fifths} {
		if fifths >= -7 && fifths <= 7 {
			a.Choices = append(a.Choices, Choice{Text: letters(score.Key{Fifths: fifths}), Right: fifths == c.Key.Fifths})
		}
	}
	return a
}

var intervalNames = [...]string{"the same note", "a step", "a third", "a fourth", "a fifth", "a sixth",
	"a seventh", "an octave"}

// interval says how far apart two notes are written, and which way it goes.
func (r Reader) interval(c Card) Answer {
	steps := c.Pitches[1].Diatonic() - c.Pitches[0].Diatonic()
	far, way := max(steps, -steps), "up"
	if steps < 0 {
		way = "down"
	}
	called := func(n int) string {
		if n < len(intervalNames) {
			return intervalNames[n]
		}
		return fmt.Sprintf("%d steps", n)
	}
	a := Answer{Text: called(far) + " " + way, Short: called(far) + " " + way, More: r.Say(c.Pitches[0]) + " to " +
		r.Say(c.Pitches[1])}
	from := max(1, far-2)
	for n := from; n < from+4; n++ {
		a.Choices = append(a.Choices, Choice{Text: called(n) + " " + way, Right: n == far})
	}
	return a
}

func (r Reader) change(c Card) Answer {
	var a Answer
	var said []string
	for k := range c.Pitches {
		if way, ok := r.way(c, k); ok {
			a.Ways = append(a.Ways, way)
			said = append(said, r.Words.Say(r.Instrument, way.Fingering))
		}
	}
	a.Text = strings.Join(said, ", then ")
	a.Short, a.More = a.Text, r.Say(c.Pitches[0])+" to "+r.Say(c.Pitches[1])
	return a
}
