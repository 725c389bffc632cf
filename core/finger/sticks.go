package finger

import (
	"fmt"
	"math"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Sticking is how the hands share strokes that have no written sticking.
type Sticking string

// The ways: the right hand on the strong places, or strictly by turns.
const (
	Natural     Sticking = ""
	Alternating Sticking = "alternating"
)

// stick gives every stroke of a drum part its hand, its small strokes and its
// roll. Written sticking is kept.
func stick(i instrument.Instrument, part score.Part, choices [][]Choice, o Options) {
	turn := 0
	for k, m := range part.Measures {
		grid := stickingGrid(m)
		for j, e := range m.Events {
			if e.Kind != score.Note || e.Tied {
				continue
			}
			hand := naturalHand(e.Start, m.Meter, grid)
			switch {
			case e.Sticking != "":
				hand = e.Sticking
			case o.Sticking == Alternating:
				hand = "RL"[turn : turn+1]
			case i.ID == "bass-drum" && oneBeater(m):
				hand = "R"
			}
			turn = 0
			if strings.HasSuffix(hand, "R") {
				turn = 1
			}
			choices[k][j].Fingering = Fingering{Text: withGraces(hand, e.Graces), Care: graceWords(e.Graces)}
		}
	}
	addRolls(part, choices, o)
}

// stickingGrid is the distance at which the hands take turns in natural sticking:
// halves of the beat, or its quarters where a stroke falls between them; in
// compound meters its thirds or sixths.
func stickingGrid(m score.Measure) score.Fraction {
	parts := int64(2)
	if m.Meter.Compound() {
		parts = 3
	}
	grid := m.Meter.Beat().Div(score.Frac(parts, 1))
	for _, e := range m.Events {
		if e.Kind == score.Note && !e.Start.Within(grid).IsZero() {
			return grid.Mul(score.Frac(1, 2))
		}
	}
	return grid
}

// naturalHand gives the right hand the strong places: the hands alternate on the
// grid from the right. In compound meters the grid starts afresh with the right
// hand on each beat. Source: common practice.
func naturalHand(start score.Fraction, m score.Meter, grid score.Fraction) string {
	if start.Within(m.Beat()).Div(grid).Floor()%2 == 1 {
		return "L"
	}
	return "R"
}

// oneBeater says whether a bass drum part leaves its left hand free to damp: no
// two strokes of the measure lie closer than half a beat.
func oneBeater(m score.Measure) bool {
	half := m.Meter.Beat().Div(score.Frac(2, 1))
	if m.Meter.Compound() {
		half = m.Meter.Beat().Div(score.Frac(3, 1))
	}
	for _, e := range m.Events {
		if e.Kind == score.Note && e.Length.Less(half) {
			return false
		}
	}
	return true
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

// Roll is how a rolled note is struck; the zero value is no roll.
type Roll struct {
	Strokes int  // all of them, the last single one too
	Moves   int  // of the hands
	Single  bool // each move is one stroke, on bars and timpani; else it bounces for two
}

// comfortableMoves is how many times a second the hands move in a roll that is
// neither hurried nor loose. From memory, common practice: sixteenths at about 100
// to 108.
const comfortableMoves = 7.0

// moderate is the tempo taken where none is known.
const moderate = 80

// addRolls works out every rolled note: the hands move at the division of the beat
// that is nearest comfortableMoves. On drums every move bounces for two strokes; a
// roll that is tied ends with one tap on the note after it, one that is not makes
// its last move that tap, which gives the usual 5, 7, 9 and 17 strokes.
func addRolls(part score.Part, choices [][]Choice, o Options) {
	tempo := o.Tempo
	if tempo == 0 {
		tempo = moderate
	}
	for k, m := range part.Measures {
		parts := rollParts(m.Meter, tempo)
		for j, e := range m.Events {
			c := &choices[k][j]
			if !e.Roll || e.Kind != score.Note || c.Text == "" {
				continue
			}
			moves := max(2, int(e.Length.Div(m.Meter.Beat()).Mul(score.Frac(parts, 1)).Floor()))
			r := Roll{Moves: moves, Strokes: moves, Single: !e.Unpitched}
			if e.Unpitched {
				r.Strokes = 2*moves - 1
				if e.TieOn {
					r.Strokes = 2*moves + 1
				}
			}
			c.Roll = r
			c.Care = strings.TrimPrefix(c.Care+"; "+r.words(e.TieOn, parts, tempo), "; ")
		}
	}
}

// rollParts is into how many moves a beat is divided at a tempo.
func rollParts(m score.Meter, tempo int) int64 {
	divisions := []int64{2, 3, 4, 6, 8}
	if m.Compound() {
		divisions = []int64{3, 6, 9, 12}
	}
	best, least := divisions[0], math.Inf(1)
	for _, d := range divisions {
		if away := math.Abs(math.Log(float64(tempo) / 60 * float64(d) / comfortableMoves)); away < least {
			best, least = d, away
		}
	}
	return best
}

func (r Roll) words(tied bool, parts int64, tempo int) string {
	if r.Single {
		return fmt.Sprintf("a roll of single strokes, hands by turns: about %d, %d to the beat at %d", r.Strokes, parts, tempo)
	}
	ending := "the last move a single tap"
	if tied {
		ending = "then a tap on the note it is tied to"
	}
	return fmt.Sprintf("a %d-stroke roll at %d: the hands move %d times, %d to the beat, each bounced, %s", r.Strokes, tempo, r.Moves, parts, ending)
}

// stickChange is 1 for the same hand twice, and 1 more for small strokes to fit in.
func stickChange(from, to hand, why *reasons) int {
	cost := 0
	last, next := from.stick[len(from.stick)-1], to.stick[len(to.stick)-1]
	word := "the other hand"
	if last == next {
		cost, word = 1, "the same hand again"
	}
	why.say(word)
	if len(to.stick) > 1 {
		cost++
		why.say("with small strokes before it")
	}
	return cost
}
