package finger

import (
	"fmt"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// stick gives every stroke of a drum part its hand, its small strokes and its
// roll. Written sticking is kept. Drums and small percussion that are struck with
// one beater have no right and left, unless it is written.
func stick(i instrument.Instrument, part score.Part, choices [][]Choice, o Options) {
	s := sticker{part: part, choices: choices, hand: "R", grid: binaryGrid(part)}
	s.way = i.Sticking
	if s.way == instrument.StickingByYear {
		s.way = instrument.RightLead
		if o.Year <= 1 {
			s.way = instrument.Alternating
		}
	}
	s.rolls = rollsOf(part, o.Tempo)
	for k := range part.Measures {
		s.fresh = true
		if s.way == instrument.EachMeasure {
			s.hand = "R"
		}
		for j, e := range part.Measures[k].Events {
			at := score.Place{Measure: k, Event: j}
			switch {
			case e.Kind == score.Rest:
				s.fresh = true
			case e.Tied:
			case i.TwoHands:
				s.strike(at, e)
			default:
				choices[k][j].Fingering = Fingering{Shape: Shape{Stroke: e.Sticking}, Text: e.Sticking, Care: graceWords(e.Graces)}
				if e.Roll {
					choices[k][j].Care = "a roll, not counted: even and close, to its full length"
				}
			}
		}
	}
}

// sticker goes through a part stroke by stroke.
type sticker struct {
	part    score.Part
	choices [][]Choice
	way     instrument.Sticking
	grid    score.Fraction
	rolls   map[score.Place]Roll
	hand    string // whose turn it is
	fresh   bool   // a rest or a bar line stands before the stroke
}

func other(hand string) string {
	if strings.HasSuffix(hand, "R") {
		return "L"
	}
	return "R"
}

func (s *sticker) strike(at score.Place, e score.Event) {
	hand := s.turn(at, e)
	roll, rolled := s.rolls[at]
	leads := s.way == instrument.RightLead && rolled && roll.tapped
	if leads { // the tap goes by its place, and the roll so that it ends there
		hand = s.turn(roll.tap, *s.part.At(roll.tap))
		if roll.odd() {
			hand = other(hand)
		}
	}
	if e.Sticking != "" {
		hand = e.Sticking
	}
	f := struck(hand, e.Graces)
	f.Care = graceWords(e.Graces)
	last := hand[len(hand)-1:]
	if rolled {
		if roll.odd() {
			last = other(last)
		}
		f.Roll = roll
		f.Care = strings.TrimPrefix(f.Care+"; "+roll.words(last), "; ")
		if roll.tapped {
			tap := struck(last, 0)
			tap.Care = "the tap that ends the roll"
			s.choices[roll.tap.Measure][roll.tap.Event] = Choice{Fingering: tap, Usual: tap.Text}
		}
	}
	s.choices[at.Measure][at.Event] = Choice{Fingering: f, Usual: f.Text}
	s.hand, s.fresh = other(last), false
}

// turn is the hand for a stroke that has none written. Where the right hand leads,
// triplets and compound meters alternate, from the right after a rest or a bar line.
func (s *sticker) turn(at score.Place, e score.Event) string {
	if s.way != instrument.RightLead {
		return s.hand
	}
	m := s.part.Measures[at.Measure]
	if m.Meter.Compound() || e.Value.Tuplet.Actual > 0 {
		switch {
		case m.Pickup() && len(m.Events) == 1:
			return "L"
		case s.fresh:
			return "R"
		}
		return s.hand
	}
	place := e.Start
	if m.Pickup() {
		place = m.Meter.Length().Sub(e.Start)
	}
	if place.Div(s.grid).Floor()%2 == 1 {
		return "L"
	}
	return "R"
}

// binaryGrid is the smallest of a whole note's halves, quarters, eighths and so on
// that every stroke of a part stands on, tuplets left out.
func binaryGrid(part score.Part) score.Fraction {
	den := int64(1)
	for _, m := range part.Measures {
		for _, e := range m.Events {
			if e.Kind == score.Note && e.Value.Tuplet.Actual == 0 {
				for e.Start.Mul(score.Frac(den, 1)).Den() > 1 && den < 64 {
					den *= 2
				}
			}
		}
	}
	return score.Frac(1, den)
}

// withGraces writes the small strokes before the hand that plays the note: one is
// the other hand's, two are both the other hand's, three take turns.
func withGraces(hand string, graces int) string {
	same, other := "r", "l"
	if hand == "L" {
		same, other = "l", "r"
	}
	switch {
	case hand != "R" && hand != "L" || graces == 0:
		return hand
	case graces == 1:
		return other + hand
	case graces == 2:
		return other + other + hand
	}
	return other + same + other + hand
}

func graceWords(graces int) string {
	switch graces {
	case 0:
		return ""
	case 1:
		return "a flam: the small stroke low and just before, the two almost one sound"
	case 2:
		return "a drag: two small strokes bounced low by one hand, then the note"
	}
	return "a ruff: three small strokes low and quick, then the note"
}

// stickChange is 1 for the same hand twice, and 1 more for small strokes to fit in.
func stickChange(from, to Played, why *reasons) int {
	cost := 0
	last, next := from.last(), to.last()
	word := "the other hand"
	if last == next {
		cost, word = 1, "the same hand again"
	}
	why.say(word)
	if len(to.Text) > 1 {
		cost++
		why.say("with small strokes before it")
	}
	return cost
}

func handWord(hand string) string {
	return fmt.Sprintf("%s hand", map[string]string{"R": "right", "L": "left"}[hand])
}
