package breakdown

import (
	"math"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// Tempo is where to start, and what keeps it from being faster.
type Tempo struct {
	LimitMeasure int `json:"limit_measure"` // the number of the measure that sets it; 0 also where nothing does
	Suggested    int `json:"suggested"`     // beats a minute, on the metronome scale

	Slower bool   `json:"-"` // than work would begin but for that measure
	Like   string `json:"-"` // the exercise whose clean tempo it is, where it comes from a history
}

// Clean is an exercise with the tempo at which a student, or half of a class, were clean
// at it.
type Clean struct {
	Name  string
	Parts DifficultyParts
	Tempo int // beats a minute
}

// How near two exercises are in rhythm and in changes to be taken for alike. The figures are
// ours.
const (
	likeRhythm = 0.12
	likeChange = 0.2
)

// StartFrom takes the start tempo from a history: the fastest that was clean on an exercise
// like this one, not above the mark, which is 0 for none.
func (r *Report) StartFrom(history []Clean, mark int) {
	best := Clean{}
	for _, c := range history {
		here := r.Difficulty.Parts
		if math.Abs(c.Parts.Rhythm-here.Rhythm) <= likeRhythm && math.Abs(c.Parts.Change-here.Change) <= likeChange &&
			c.Tempo > best.Tempo {
			best = c
		}
	}
	if best.Tempo == 0 {
		return
	}
	r.Tempo.Suggested, r.Tempo.Like = best.Tempo, best.Name
	if mark > 0 {
		r.Tempo.Suggested = min(best.Tempo, mark)
	}
	r.Tempo.Slower = false
}

// How long it takes to get to the next note, in seconds, in each year of playing: whatever
// it is, and for each point of its change up to a hard one. The figures are ours: with them
// a first-year player has eighths at 52 or more, within the range beginners work in.
var (
	toTheNext   = [3]float64{0.28, 0.22, 0.18}
	forAPoint   = [3]float64{0.035, 0.027, 0.02}
	toTheStroke = [3]float64{0.20, 0.16, 0.13} // of sticks, whose next stroke is always near
)

// ease is how much slower than it could go work begins.
const ease = 0.85

// pace is how fast a measure can go, in beats a minute, 0 where nothing bounds it, and whether
// the hand has to move for the note that bounds it.
type pace struct {
	goes  float64
	moves bool
}

// pacesOf is how fast each measure can go in a year of playing: what its quickest or hardest
// change allows.
func (r *Report) pacesOf(target instrument.Instrument, year int) []pace {
	at := min(max(year, 1), 3) - 1
	costs := map[score.Place]int{}
	for _, c := range r.changes {
		if !c.rested {
			costs[c.at] = min(c.change.Cost, finger.Hard)
		}
	}
	paces := make([]pace, len(r.Part.Measures))
	for i, m := range r.Part.Measures {
		for j, e := range m.Events {
			if e.Kind == score.Rest || e.Tied {
				continue
			}
			_, gap, is := r.noteBefore(score.Place{Measure: i, Event: j})
			if !is {
				continue
			}
			takes := toTheNext[at] + forAPoint[at]*float64(costs[score.Place{Measure: i, Event: j}])
			if target.Unpitched() {
				takes = toTheStroke[at]
			}
			if goes := 60 * gap.Div(m.Meter.Beat()).Float() / takes; paces[i].goes == 0 || goes < paces[i].goes {
				paces[i] = pace{goes, costs[score.Place{Measure: i, Event: j}] > 0}
			}
		}
	}
	return paces
}

// tempo finds the measure that limits the whole, since one tempo holds throughout, and
// where to start: never faster than routine.StartTempo has it, on the notch under what the
// measure allows.
func (r *Report) tempo() Tempo {
	t := Tempo{Suggested: routine.StartTempo(r.marked)}
	slowest := 0.0
	for i, p := range r.paces {
		if p.goes > 0 && (slowest == 0 || p.goes < slowest) {
			slowest, t.LimitMeasure = p.goes, r.Part.Measures[i].Number
		}
	}
	if limit := int(ease * slowest); slowest > 0 && limit < t.Suggested {
		t.Suggested, t.Slower = routine.StepTempo(limit, 0), true
	}
	return t
}

// noteBefore is how long the note before a struck one is held, ties and all, and how long
// before it that was struck.
func (r *Report) noteBefore(at score.Place) (held, since score.Fraction, is bool) {
	i, j := at.Measure, at.Event
	for {
		for j--; j >= 0; j-- {
			e := r.Part.Measures[i].Events[j]
			since = since.Add(e.Length)
			if e.Kind == score.Rest {
				continue
			}
			if held = held.Add(e.Length); !e.Tied {
				return held, since, true
			}
		}
		if i--; i < 0 {
			return held, since, false
		}
		j = len(r.Part.Measures[i].Events)
	}
}
