package breakdown

import (
	"slices"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Bow is which way a bow goes at a note that begins it.
type Bow struct {
	Down bool
	Why  string // where it is worth a sign; "" where it goes on as it comes
}

// String is "down" or "up".
func (b Bow) String() string {
	if b.Down {
		return "down"
	}
	return "up"
}

// MarshalText writes "down" or "up".
func (b Bow) MarshalText() ([]byte, error) { return []byte(b.String()), nil }

// stroke is a note that begins a bow.
type stroke struct {
	at       score.Place
	measure  score.Measure
	event    score.Event
	rested   bool // a rest, or nothing, comes before
	downbeat bool
	fixed    bool // the way is printed or the teacher's
	down     bool
}

// addBows gives every bow of a string part its way: down on the downbeat, one bow to a slur,
// pickups so that the downbeat comes down, and on from there by turns. After a rest, and
// where a phrase begins after a note of two beats, the bow is lifted for the downbeat. From
// the second year a short note after a dotted one is hooked, where the next downbeat would
// come up. What is printed, and what the teacher wants, stands. Source: common practice.
func (r *Report) addBows(target instrument.Instrument, year int) {
	if target.Hand == "" {
		return
	}
	strokes := r.strokes()
	starts := map[score.Place]bool{}
	for _, p := range r.phrases {
		if passages := p.Passages(r.Part); !p.Whole() && len(passages) > 0 {
			starts[r.firstIn(passages[0])] = true
		}
	}
	for k := range strokes {
		s := &strokes[k]
		x := &r.Measures[s.at.Measure].Events[s.at.Event]
		goes := Bow{Down: s.down}
		var before *stroke
		if k > 0 {
			before = &strokes[k-1]
			goes.Down = !before.down
		}
		switch {
		case s.fixed:
			goes = Bow{s.down, "As it is written."}
		case before == nil || s.rested:
			goes.Down = s.downbeat || toDownbeat(strokes[k:])%2 == 0
			goes.Why = beginning(*s, goes.Down, before == nil)
		case s.downbeat && !goes.Down && starts[s.at] && lasting(*before):
			goes = Bow{true, "Lift the bow: the phrase begins down."}
		case !s.downbeat && starts[s.at] && lasting(*before) && goes.Down != (toDownbeat(strokes[k:])%2 == 0):
			goes = Bow{!goes.Down, "Lift the bow: the phrase begins before its downbeat."}
		case year > 1 && hooks(strokes, k):
			goes = Bow{before.down, "Hooked: in the same bow as the note before, stopped between."}
		case s.downbeat && !goes.Down:
			goes.Why = "This downbeat comes up."
		}
		s.down = goes.Down
		x.Bow = &goes
	}
}

// strokes lists the notes that begin a bow.
func (r *Report) strokes() []stroke {
	var list []stroke
	slurs, rested := 0, true
	for i, m := range r.Part.Measures {
		for j, e := range m.Events {
			if e.Kind == score.Rest {
				rested = true
				continue
			}
			if !e.Tied && slurs == 0 {
				x := r.Measures[i].Events[j]
				up := slices.Contains(e.Marks, score.UpBow) || has(x.Annotations, AnnotationUpBow)
				down := slices.Contains(e.Marks, score.DownBow) && !has(x.Annotations, AnnotationUpBow) ||
					has(x.Annotations, AnnotationDownBow)
				list = append(list, stroke{
					at: score.Place{Measure: i, Event: j}, measure: m, event: e, rested: rested,
					downbeat: e.Start.IsZero() && !m.Split, fixed: up || down, down: down,
				})
			}
			rested = false
			slurs = max(slurs+e.SlurStarts-e.SlurEnds, 0)
		}
	}
	return list
}

// firstIn is the first note in a passage.
func (r *Report) firstIn(p Passage) score.Place {
	for j, e := range r.Part.Measures[p.At].Events {
		if e.Kind == score.Note && !e.Start.Less(p.From) {
			return score.Place{Measure: p.At, Event: j}
		}
	}
	return nowhere
}

// toDownbeat counts the bows from the first one to the next downbeat; where a rest comes
// first, it is even on a beat and odd between beats.
func toDownbeat(strokes []stroke) int {
	for n, s := range strokes {
		switch {
		case n == 0:
		case s.rested:
			if onBeat(strokes[0].event.Start, strokes[0].measure.Meter.Beat()) {
				return 0
			}
			return 1
		case s.downbeat:
			return n
		}
	}
	return 0
}

func beginning(s stroke, down, first bool) string {
	switch {
	case s.downbeat && first:
		return "Down on the downbeat."
	case s.downbeat:
		return "Down on the downbeat: the bow goes back in the rest."
	case down:
		return "Down, so that the downbeat comes down."
	}
	return "Up before the downbeat."
}

// lasting says whether a bow gives time to be lifted after it.
func lasting(s stroke) bool {
	beat := s.measure.Meter.Beat()
	return s.event.Length.Cmp(beat.Mul(score.Frac(2, 1))) >= 0
}

// hooks says whether a short note after a dotted one is hooked to it: the first such pair in
// a measure after which the downbeat would come up.
func hooks(strokes []stroke, k int) bool {
	s, before := strokes[k], strokes[k-1]
	if s.at.Measure != before.at.Measure || before.event.Value.Dots == 0 ||
		before.event.Length.Less(s.event.Length.Mul(score.Frac(2, 1))) ||
		s.event.SlurStarts > 0 || before.event.SlurStarts > 0 {
		return false
	}
	left := toDownbeat(strokes[k:])
	if left == 0 || k+left >= len(strokes) || !strokes[k+left].downbeat || strokes[k+left].rested {
		return false
	}
	return before.down == (left%2 == 0) // it would come up as it goes
}
