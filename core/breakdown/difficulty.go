package breakdown

import (
	"encoding/json"
	"math"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Difficulty is how hard something is for an instrument in a year of playing: in its parts,
// and in all, each from 0 to 1. The model and its weights, all of them ours, stand in this
// file; docs/difficulty.md tells them. No part grows less where a value is cut in two on
// the beat, a sign is added, a change grows sharper or a note is put higher.
type Difficulty struct {
	Total float64         `json:"total"`
	Parts DifficultyParts `json:"parts"`
}

// DifficultyParts are what makes something hard.
type DifficultyParts struct {
	Rhythm  float64 `json:"rhythm"`
	Reading float64 `json:"reading"`
	Change  float64 `json:"change"`
	Range   float64 `json:"range"`
	Breath  float64 `json:"breath"` // or bow
	New     float64 `json:"new"`
}

// MarshalJSON writes two places behind the point.
func (d Difficulty) MarshalJSON() ([]byte, error) {
	type plain Difficulty
	d.Total = hundredths(d.Total)
	for _, part := range d.Parts.all() {
		*part = hundredths(*part)
	}
	return json.Marshal(plain(d))
}

func hundredths(x float64) float64 { return math.Round(100*x) / 100 }

func (p *DifficultyParts) all() [6]*float64 {
	return [6]*float64{&p.Rhythm, &p.Reading, &p.Change, &p.Range, &p.Breath, &p.New}
}

// weights are how much of the whole each part can make by itself, in the order of all.
var weights = [6]float64{0.70, 0.50, 0.60, 0.50, 0.25, 0.35}

// halves are the points at which a part is half as hard as can be, in the order of all.
var halves = [6]float64{4, 5, 3.5, 1.2, 1, 3}

// share turns points into a part from 0 towards 1.
func share(points, half float64) float64 { return 1 - math.Exp2(-points/half) }

// Total is the difficulty of parts together, from 0 to 1: each takes its share of what the
// others leave.
func (p DifficultyParts) Total() float64 {
	easy := 1.0
	for k, part := range p.all() {
		easy *= 1 - weights[k]*(*part)
	}
	return 1 - easy
}

// points are a measure's, by part.
type points [6]float64

const (
	rhythmPart = iota
	readingPart
	changePart
	rangePart
	breathPart
	newPart
)

func (p points) difficulty() Difficulty {
	var d Difficulty
	for k, part := range d.Parts.all() {
		*part = share(p[k], halves[k])
	}
	d.Total = d.Parts.Total()
	return d
}

// together is the difficulty of several measures: three fifths of the hardest in each part
// and two fifths of them on the whole. Those without a note count for nothing.
func together(measures []Difficulty) Difficulty {
	var sum, most DifficultyParts
	sounding := 0.0
	for _, m := range measures {
		if m.Total == 0 {
			continue
		}
		sounding++
		for k, part := range m.Parts.all() {
			*sum.all()[k] += *part
			*most.all()[k] = max(*most.all()[k], *part)
		}
	}
	var d Difficulty
	if sounding == 0 {
		return d
	}
	for k, part := range d.Parts.all() {
		*part = 0.6*(*most.all()[k]) + 0.4*(*sum.all()[k])/sounding
	}
	d.Total = d.Parts.Total()
	return d
}

// addDifficulty finds how hard each measure, each chunk and the whole is, and how fast each
// measure can go.
func (r *Report) addDifficulty(target instrument.Instrument, year int) {
	r.paces = r.pacesOf(target, year)
	each := make([]points, len(r.Measures))
	for i := range r.Measures {
		each[i][rhythmPart] = r.rhythmPoints(i)
		each[i][readingPart] = r.readingPoints(i, target)
		each[i][rangePart] = r.rangePoints(i, target, year)
		each[i][newPart] = float64(len(r.Measures[i].New))
		each[i][changePart] = r.handPoints(i, target)
	}
	r.changePoints(each)
	r.hurryPoints(each)
	r.breathPoints(each, target, year)
	list := make([]Difficulty, len(r.Measures))
	for i := range r.Measures {
		if r.sounds(i) {
			list[i] = each[i].difficulty()
		}
		r.Measures[i].Difficulty = list[i]
	}
	r.Difficulty = together(list)
	for k, p := range r.Chunks {
		var within []Difficulty
		for _, at := range p.At {
			within = append(within, list[at])
		}
		r.Chunks[k].Difficulty = hundredths(together(within).Total)
	}
}

// forAHurry is the points of a measure that is marked twice as fast as a year of playing can go;
// the figure is ours.
const forAHurry = 3

// hurryPoints adds those of a tempo that is marked faster than a measure can go, to the changes
// where the hand has to move for it, to the rhythm where it does not.
func (r *Report) hurryPoints(each []points) {
	for i, p := range r.paces {
		if p.goes == 0 {
			continue
		}
		part := rhythmPart
		if p.moves {
			part = changePart
		}
		each[i][part] += forAHurry * max(0, float64(r.marked)/p.goes-1)
	}
}

// sounds says whether a note is struck in a measure.
func (r *Report) sounds(i int) bool {
	for _, e := range r.Part.Measures[i].Events {
		if e.Kind != score.Rest && !e.Tied {
			return true
		}
	}
	return false
}

// rhythmPoints are what there is to count in a measure.
func (r *Report) rhythmPoints(i int) float64 {
	m := r.Part.Measures[i]
	beat := m.Meter.Beat()
	sum := 0.0
	if i > 0 && r.Part.Measures[i-1].Meter != m.Meter {
		sum++
	}
	for j, e := range m.Events {
		if e.Kind == score.Rest {
			sum += restPoints(e, beat)
		} else if !e.Tied {
			sum += notePoints(e, beat)
			if j > 0 && m.Events[j-1].Kind == score.Rest && weak(m.Meter, e.Start) {
				sum += 0.5 // an entry that nothing leans on
			}
		}
	}
	return sum
}

// weak says whether a place is a beat without weight: neither the first of a measure nor the one
// in the middle of an even meter.
func weak(m score.Meter, at score.Fraction) bool {
	beat := m.Beat()
	if !onBeat(at, beat) {
		return false // which is counted between beats already
	}
	half := m.Length().Mul(score.Frac(1, 2))
	return !at.IsZero() && (at != half || !onBeat(half, beat))
}

func restPoints(e score.Event, beat score.Fraction) float64 {
	if e.WholeMeasure || onBeat(e.Start, beat) && !e.Length.Less(beat) {
		return 0.2
	}
	return 0.8 // counted between beats
}

func notePoints(e score.Event, beat score.Fraction) float64 {
	points := 0.0
	switch beats := e.Length.Div(beat).Float(); {
	case beats >= 2:
		points = 0.2
	case beats >= 1:
		points = 0.3
	case beats >= 0.5:
		points = 0.6
	case beats >= 0.3: // thirds of a beat
		points = 0.7
	case beats >= 0.25:
		points = 1.2
	default:
		points = 2.4
	}
	whole := onBeat(e.Length, beat)
	switch {
	case !onBeat(e.Start, beat) && beat.Less(nextBeat(e, beat)): // it begins between beats and lasts through one
		points += 1.5
	case !whole && beat.Less(e.Length): // a beat and a half
		points += 0.8
	case e.Value.Dots > 0:
		points += 0.2
	}
	if e.TieOn {
		points += 0.6
	}
	if e.Value.Tuplet.Actual > 0 {
		points += 0.5
	}
	if e.Graces > 0 || e.Roll {
		points += 0.8
	}
	for _, mark := range e.Marks {
		if mark == score.Staccato || mark == score.Accent || mark == score.Tenuto {
			points += 0.15
		}
	}
	return points
}

// nextBeat is how far a note reaches, from the beat before its start.
func nextBeat(e score.Event, beat score.Fraction) score.Fraction {
	return e.Start.Within(beat).Add(e.Length)
}

func onBeat(at, beat score.Fraction) bool {
	return at.Within(beat).IsZero()
}

// readingPoints are what there is to read: signs, letters that the key changes, and leaps.
func (r *Report) readingPoints(i int, target instrument.Instrument) float64 {
	if target.Unpitched() {
		return 0
	}
	sum := 0.0
	for j, e := range r.Part.Measures[i].Events {
		if e.Kind == score.Rest || e.Tied || e.Unpitched {
			continue
		}
		for _, a := range r.Measures[i].Events[j].Alerts {
			switch a {
			case Accidental, Carried, Cancelled, Trap:
				sum += 2
			case Respelled:
				sum++
			case InKey:
				sum += 0.5
			}
		}
		if before, is := r.struckBefore(i, j); is {
			sum += leapPoints(e.Pitch.Diatonic() - before.Diatonic())
		}
	}
	return sum
}

// leapPoints are a step's, a third's and so on.
func leapPoints(steps int) float64 {
	if steps < 0 {
		steps = -steps
	}
	return [...]float64{0, 0.1, 0.4, 0.6, 0.7, 0.9, 1, 1.1}[min(steps, 7)]
}

// struckBefore is the pitch of the note before an event, over the bar line too.
func (r *Report) struckBefore(i, j int) (score.Pitch, bool) {
	for ; i >= 0; i-- {
		events := r.Part.Measures[i].Events
		if j < 0 {
			j = len(events)
		}
		for j--; j >= 0; j-- {
			if e := events[j]; e.Kind != score.Rest && !e.Tied && !e.Unpitched {
				return e.Pitch, true
			}
		}
	}
	return score.Pitch{}, false
}

// changePoints are what the hands, the slide or the lip do to get to each note, and how
// soon.
func (r *Report) changePoints(each []points) {
	for _, c := range r.changes {
		m := r.Part.Measures[c.at.Measure]
		held, _, _ := r.noteBefore(c.at)
		beats := held.Div(m.Meter.Beat()).Float()
		hurry := 1.0
		switch {
		case c.rested:
			hurry = 0.4
		case beats < 0.3:
			hurry = 2.2
		case beats < 1:
			hurry = 1.5
		}
		cost := float64(c.change.Cost)
		if c.change.Hard {
			cost = max(cost, finger.Hard)
		}
		each[c.at.Measure][changePart] += 0.06 * hurry * math.Pow(cost, 1.3)
	}
}

// lowIsEasy is which share of the way from the middle down to the lowest comfortable note is no
// harder than the middle. The figure is ours.
const lowIsEasy = 0.5

// handPoints are what the hands do beside fingers: a drum to retune, and on sticks the same hand
// twice in moving notes.
func (r *Report) handPoints(i int, target instrument.Instrument) float64 {
	sum := 0.0
	events := r.Measures[i].Events
	for j, e := range events {
		if e.Kind == "rest" || e.Tied {
			continue
		}
		if target.Mechanism == instrument.Drums && e.Care != "" {
			sum += 1.5
		}
		if target.Unpitched() && j > 0 && events[j-1].Kind != "rest" && e.Fingering != "" &&
			e.Fingering == events[j-1].Fingering && events[j-1].Length.Less(r.Part.Measures[i].Meter.Beat()) {
			sum += 0.5
		}
	}
	return sum
}

// rangePoints grow with the distance of a measure's notes from where lines of the instrument sit,
// to both sides: one at the top, and at the bottom, of what is comfortable in the year. Low is hard
// too: an oboe's, a flute's and a saxophone's lowest notes, the pedal side of brass.
func (r *Report) rangePoints(i int, target instrument.Instrument, year int) float64 {
	if target.Unpitched() || target.Mechanism == instrument.Drums || target.Mechanism == instrument.Bars {
		return 0
	}
	middle := target.Tessitura.MIDI()
	above := float64(max(target.Comfort(year).High.MIDI()-middle, 3))
	below := float64(max(middle-target.Comfort(year).Low.MIDI(), 3))
	if target.Bowed() {
		below = math.Inf(1) // an open low string is as easy as any
	}
	top, sum := 0.0, 0.0
	for _, e := range r.Part.Measures[i].Events {
		if e.Kind == score.Rest || e.Tied || e.Unpitched {
			continue
		}
		height := float64(e.Pitch.MIDI()-middle) / above
		if height < 0 {
			height = max(0, float64(middle-e.Pitch.MIDI())/below-lowIsEasy)
		}
		top, sum = max(top, height*height), sum+height*height
	}
	return top + 0.1*sum
}

// breathPoints grow with how long one breath or one bow has to last: a note, or the notes
// under a slur, against what is long in the year of playing. Between notes that are not
// slurred there is always room for a breath.
func (r *Report) breathPoints(each []points, target instrument.Instrument, year int) {
	longest := longestBow[min(max(year, 1), 3)-1]
	switch {
	case target.Blown:
		longest = longestBreath[min(max(year, 1), 3)-1]
	case target.Hand == "":
		return
	}
	held, slurred := 0.0, 0
	for i, m := range r.Part.Measures {
		for _, e := range m.Events {
			if e.Kind == score.Rest || !e.Tied && slurred == 0 {
				held = 0
			}
			slurred = max(slurred+e.SlurStarts-e.SlurEnds, 0)
			if e.Kind != score.Rest {
				held += e.Length.Div(m.Meter.Beat()).Float()
				each[i][breathPart] = max(each[i][breathPart], held/longest-0.5)
			}
		}
	}
}

// What is long for one breath and for one bow in each year, in beats. The figures are ours.
var (
	longestBreath = [3]float64{8, 12, 16}
	longestBow    = [3]float64{4, 6, 8}
)
