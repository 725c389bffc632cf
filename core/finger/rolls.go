package finger

import (
	"fmt"

	"unhurriedbench/core/score"
)

// Roll is how a rolled note is struck; the zero value is no roll.
type Roll struct {
	Strokes    int  // all of them, the last single one too; 0 where they are not counted
	Moves      int  // of the hands
	Unmeasured bool // single strokes by turns, on bars and timpani

	tapped bool // it is tied to a note that is struck once
	tap    score.Place
}

// longRoll is from how many strokes on a roll is no longer called by their number.
// Source: common practice, which names rolls up to seventeen.
const longRoll = 17

// Long says whether the strokes are too many to have a name.
func (r Roll) Long() bool { return r.Strokes > longRoll }

// odd says whether an odd number of moves comes before the last stroke, so that it
// is the other hand's.
func (r Roll) odd() bool { return (r.Strokes-1)/2%2 == 1 }

// rollsOf counts every roll of a drum part at the tempo marked in the music, never
// at that of practice: the moves of the hands that fit into it and the rolled notes
// tied to it, at least two. Each move bounces for two strokes, and one tap ends the
// roll: on the note it is tied to, or for a roll that is tied to none as its last
// move, which gives 5, 9 or 7, 17 or 15. Source: common practice.
func rollsOf(part score.Part, tempo score.Tempo) map[score.Place]Roll {
	rolls := map[score.Place]Roll{}
	var from score.Place
	length, open := score.Fraction{}, false
	finish := func(tap score.Place, tapped bool) {
		if !open {
			return
		}
		open = false
		moves := movesIn(part.Measures[from.Measure].Meter, tempo, length)
		r := Roll{Moves: moves, Strokes: 2*moves - 1, tapped: tapped, tap: tap}
		if tapped {
			r.Strokes = 2*moves + 1
		}
		r.Strokes = max(r.Strokes, 5)
		rolls[from] = r
	}
	for k, m := range part.Measures {
		for j, e := range m.Events {
			at := score.Place{Measure: k, Event: j}
			switch {
			case e.Kind == score.Note && e.Tied && open && e.Roll:
				length = length.Add(e.Length)
			case e.Kind == score.Note && e.Tied && open:
				finish(at, true)
			default:
				finish(at, false)
				if e.Kind == score.Note && e.Roll {
					from, length, open = at, e.Length, true
				}
			}
		}
	}
	finish(score.Place{}, false)
	return rolls
}

// movesIn is how many moves of the hands fit into a length, at least two.
func movesIn(m score.Meter, tempo score.Tempo, length score.Fraction) int {
	unit, a := score.Frac(1, 4), quarterMoves
	perMinute := quartersPerMinute(tempo)
	if m.Compound() {
		unit, a = score.Frac(3, 8), dottedMoves
		perMinute = unmarkedDotted
		if tempo.PerMinute > 0 {
			perMinute = float64(tempo.PerMinute) * tempo.Beat.Div(unit).Float()
		}
	}
	moves := a[len(a)-1].moves
	for k := len(a) - 2; k >= 0; k-- {
		if perMinute <= a[k].upTo {
			moves = a[k].moves
		}
	}
	return max(2, int(length.Div(unit).Mul(score.Frac(moves, 1)).Floor()))
}

// unmarkedDotted is the tempo in dotted quarters where none is marked; the figure
// is ours.
const unmarkedDotted = 60.0

// moveRate is how many moves a quarter, or a dotted quarter, takes up to a tempo.
type moveRate struct {
	upTo  float64
	moves int64
}

// The rates keep the hands at a pace that is neither hurried nor loose. Source:
// common practice.
var (
	quarterMoves = []moveRate{{69, 6}, {112, 4}, {152, 3}, {0, 2}}
	dottedMoves  = []moveRate{{46, 12}, {80, 6}, {0, 3}}
)

// words tells how the roll goes and with which hand it ends.
func (r Roll) words(last string) string {
	ending := fmt.Sprintf("the last stroke a single tap of the %s", handWord(last))
	if r.tapped {
		ending = fmt.Sprintf("then a tap of the %s on the note it is tied to", handWord(last))
	}
	if r.Long() {
		return fmt.Sprintf("a long roll, %d hand moves, each bounced, %s", r.Moves, ending)
	}
	return fmt.Sprintf("a %d-stroke roll, each move of the hands bounced, %s", r.Strokes, ending)
}
