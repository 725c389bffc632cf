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
	s := sticker{part: part, choices: choices, hand: "R", grids: beatGrids(part)}
	s.way = i.Sticking
	if s.way == instrument.StickingByYear {
		s.way = instrument.RightLead
		if o.Year <= 1 {
			s.way, s.again = instrument.Alternating, true
		}
	}
	s.rolls = rollsOf(part, o.Tempo)
	turns := freshTurns{}
	for k := range part.Measures {
		s.fresh = true
		if s.way == instrument.EachMeasure {
			s.hand = "R"
		}
		for j, e := range part.Measures[k].Events {
			at := score.Place{Measure: k, Event: j}
			if turns.startAgain(part.Measures[k].Meter.Beat(), e) && s.again {
				s.hand = "R"
			}
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
	grids   map[beatOf]score.Fraction
	rolls   map[score.Place]Roll
	again   bool   // turns start again after a rest of a beat or a note of two, as in the first year
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
	beat := m.Meter.Beat()
	grid := s.grids[beatOf{at.Measure, e.Start.Div(beat).Floor()}]
	if e.Start.Within(beat).Div(grid).Floor()%2 == 1 {
		return "L"
	}
	return "R"
}

// beatOf is a beat of a measure, from 0.
type beatOf struct {
	measure int
	beat    int64
}

// beatGrids is, for each beat that a stroke begins in, the smallest of its halves, quarters,
// eighths and so on that every such stroke stands on, tuplets left out. So a beat of two
// eighths is right, left also where another beat has sixteenths. Source: common practice.
func beatGrids(part score.Part) map[beatOf]score.Fraction {
	grids := map[beatOf]score.Fraction{}
	for k, m := range part.Measures {
		beat := m.Meter.Beat()
		for _, e := range m.Events {
			if e.Kind != score.Note || e.Value.Tuplet.Actual > 0 {
				continue
			}
			place, at := e.Start.Within(beat), beatOf{k, e.Start.Div(beat).Floor()}
			grid, known := grids[at]
			if !known {
				grid = beat
			}
			for halved := 0; place.Div(grid).Den() > 1 && halved < 6; halved++ {
				grid = grid.Div(score.Frac(2, 1))
			}
			grids[at] = grid
		}
	}
	return grids
}

// freshTurns says where hands that take turns start again: after a rest of a beat, or a note
// of two beats, through its ties. Source: common practice.
type freshTurns struct {
	rested, held  score.Fraction // up to here
	begun, rolled bool
}

// startAgain takes the next event of a part, in a meter whose beat is given, and says whether it is
// struck with a fresh turn.
func (f *freshTurns) startAgain(beat score.Fraction, e score.Event) bool {
	switch {
	case e.Kind == score.Rest:
		f.rested, f.held = f.rested.Add(e.Length), score.Fraction{}
		return false
	case e.Tied && f.rolled: // the tap that ends a roll, or more of it
		f.held, f.rolled = e.Length, e.Roll
		return false
	case e.Tied:
		f.held = f.held.Add(e.Length)
		return false
	}
	long := !f.rolled && f.held.Cmp(beat.Mul(score.Frac(2, 1))) >= 0 // in a roll the hands go on
	fresh := !f.begun || f.rested.Cmp(beat) >= 0 || long
	f.begun, f.rested, f.held, f.rolled = true, score.Fraction{}, e.Length, e.Roll
	return fresh
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
