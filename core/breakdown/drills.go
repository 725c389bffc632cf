package breakdown

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// Drill is two neighbouring notes of an exercise, back and forth.
type Drill struct {
	From, To finger.Played
	Change   finger.Change
	Measures []int // where the exercise has this change, either way
	Tempo    int   // beats a minute to start at
}

const (
	// drilled is how many changes are worth drilling at a time.
	drilled = 4
	// worthADrill is the least cost of one.
	worthADrill = 3
)

// Drills lists the hardest changes of a part, hardest first: the cost decides, then
// how often the change comes. A change and its way back are one drill, with the
// reason of the dearer. Changes with a rest between their notes are left out: the
// hand has its time there. Drums without pitch have none.
func (r Report) Drills(target instrument.Instrument) []Drill {
	if target.Unpitched() {
		return nil
	}
	found := map[[2]finger.Played]*Drill{}
	for _, c := range r.changes {
		if c.rested || c.change.Cost < worthADrill || c.from.Pitch == c.to.Pitch {
			continue
		}
		pair := [2]finger.Played{c.from, c.to}
		if d := found[[2]finger.Played{c.to, c.from}]; d != nil {
			pair = [2]finger.Played{c.to, c.from}
		}
		d := found[pair]
		if d == nil {
			d = &Drill{From: pair[0], To: pair[1]}
			found[pair] = d
		}
		if c.change.Cost > d.Change.Cost {
			d.Change, d.From, d.To = c.change, c.from, c.to
		}
		d.Measures = append(d.Measures, r.Measures[c.at.Measure].Number)
	}
	var list []Drill
	for _, d := range found {
		d.Tempo = drillTempo(d.Change.Cost)
		list = append(list, *d)
	}
	slices.SortFunc(list, func(a, b Drill) int {
		return cmp.Or(
			b.Change.Cost-a.Change.Cost,
			len(b.Measures)-len(a.Measures),
			a.Measures[0]-b.Measures[0],
			a.From.Pitch.MIDI()-b.From.Pitch.MIDI(),
			a.To.Pitch.MIDI()-b.To.Pitch.MIDI(),
		)
	})
	return list[:min(len(list), drilled)]
}

// drillTempo is where to start a drill: 84 for the easiest change and slower by five
// for each point of its cost, on the metronome scale, not under 40. The figures are
// ours, within the range beginners work in.
func drillTempo(cost int) int {
	return routine.StepTempo(max(40, 100-5*cost), 0)
}

// drillMeasures is how many measures a drill has: halves twice, quarters, and a
// long note to land on.
const drillMeasures = 4

// DrillScore writes drills as music for the instrument of the report, one after
// the other, and gives each as a chunk. The longer values come first.
func (r Report) DrillScore(drills []Drill) (score.Score, []Chunk) {
	part := score.Part{Name: r.Part.Name, Transposition: r.Part.Transposition}
	var chunks []Chunk
	for _, d := range drills {
		from := len(part.Measures)
		for _, lengths := range [drillMeasures][]int{{2, 2}, {2, 2}, {4, 4, 4, 4}, {1}} {
			part.Measures = append(part.Measures, r.drillMeasure(d, lengths, len(part.Measures)+1))
		}
		part.Measures[len(part.Measures)-1].DoubleBar = true
		p := Chunk{Label: fmt.Sprintf("%s – %s", name.Short(d.From.Pitch, false), name.Short(d.To.Pitch, false))}
		for k := range drillMeasures {
			p.Measures, p.At = append(p.Measures, from+k+1), append(p.At, from+k)
		}
		p.Why = fmt.Sprintf("%s, from %s; start at %d", d.Change.Why, measureWords(d.Measures), d.Tempo)
		chunks = append(chunks, p)
	}
	part.MarkAccidentals()
	return score.Score{Title: "Hard changes from " + r.Title, Parts: []score.Part{part}}, chunks
}

func (r Report) drillMeasure(d Drill, lengths []int, number int) score.Measure {
	meter := score.Meter{Beats: 4, Unit: 4}
	m := score.Measure{Number: number, Meter: meter, Key: r.Part.Key(), Clef: r.Part.Clef(), Length: meter.Length()}
	at := score.Fraction{}
	for k, value := range lengths {
		e := score.Event{Start: at, Length: score.Frac(1, int64(value)), Value: score.Value{Base: value}, Pitch: d.From.Pitch}
		if k%2 == 1 || value == 1 {
			e.Pitch = d.To.Pitch
		}
		at = at.Add(e.Length)
		m.Events = append(m.Events, e)
	}
	return m
}

// measureWords says "m. 3" or "m. 3, 5 and 7", each number once.
func measureWords(numbers []int) string {
	var words []string
	for _, n := range slices.Compact(slices.Sorted(slices.Values(numbers))) {
		words = append(words, fmt.Sprint(n))
	}
	last := len(words) - 1
	if last == 0 {
		return "m. " + words[0]
	}
	return "m. " + strings.Join(words[:last], ", ") + " and " + words[last]
}
