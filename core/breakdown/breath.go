package breakdown

import (
	"cmp"
	"fmt"
	"slices"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// everyMeasures is after how many measures a first-year player breathes where a phrase goes
// on: two, and four of one or two beats. Source: common practice.
func everyMeasures(m score.Meter) int {
	if m.BeatCount() < 3 {
		return 4
	}
	return 2
}

// breather goes through the notes of a part for the player's breath.
type breather struct {
	r     *Report
	notes []breathNote
	limit float64
	year  int
	tempo int
}

// breathNote is a note or the rest of a tied one.
type breathNote struct {
	at      score.Place
	seconds float64
	rests   bool // a rest or the end follows
	asked   bool // a breath is printed or pencilled after it
	barred  bool // the teacher wants none
	free    bool // neither a tie nor a slur goes on
	bar     bool // a bar line follows
	phrase  bool // a phrase ends
	chunk   bool // a chunk ends
	slurred bool // only a slur goes on
	tied    bool // the note itself goes on
	ended   bool // a slur ends
}

// addBreaths marks where a player of a wind instrument breathes, and says of each chunk how
// long it has to last. A breath is taken at every rest, where one is printed or the teacher
// wants it, and at the ends of phrases; in the first year every two measures where the
// phrase goes on for more than one; and where what is left of a phrase is too long for one
// breath at the tempo, at the last bar line or after the longest note. A slur is broken only
// where nothing else is left. Source: common practice.
func (r *Report) addBreaths(target instrument.Instrument, year int) {
	if !target.Blown {
		return
	}
	b := breather{r: r, limit: target.BreathSeconds(year), year: max(year, 1), tempo: r.Tempo.Suggested}
	b.gather()
	b.breathe()
	for k := range r.Chunks {
		b.time(&r.Chunks[k])
	}
}

// seconds is how long something lasts at the tempo to start at.
func (b *breather) seconds(length score.Fraction, m score.Measure) float64 {
	return 60 / float64(b.tempo) * length.Div(m.Meter.Beat()).Float()
}

func (b *breather) gather() {
	ends := map[score.Place]*Chunk{}
	for k, p := range b.r.phrases {
		if passages := p.Passages(b.r.Part); !p.Whole() && len(passages) > 0 {
			ends[b.r.lastIn(passages[len(passages)-1])] = &b.r.phrases[k]
		}
	}
	slurs := 0
	for i, m := range b.r.Part.Measures {
		for j, e := range m.Events {
			if e.Kind == score.Rest {
				if n := len(b.notes); n > 0 {
					b.notes[n-1].rests = true
				}
				continue
			}
			slurs = max(slurs+e.SlurStarts-e.SlurEnds, 0)
			at := score.Place{Measure: i, Event: j}
			x := b.r.Measures[i].Events[j]
			b.notes = append(b.notes, breathNote{
				at: at, seconds: b.seconds(e.Length, m), ended: e.SlurEnds > 0, free: !e.TieOn && slurs == 0,
				slurred: !e.TieOn && slurs > 0, tied: e.TieOn,
				bar: j == len(m.Events)-1, chunk: ends[at] != nil, phrase: ends[at] != nil && ends[at].phrase,
				asked:  slices.Contains(e.Marks, score.Breath) || has(x.Annotations, AnnotationBreath),
				barred: has(x.Annotations, NoBreath),
			})
		}
	}
	if n := len(b.notes); n > 0 {
		b.notes[n-1].rests = true
	}
}

// lastIn is the last note in a passage.
func (r *Report) lastIn(p Passage) score.Place {
	last := nowhere
	for j, e := range r.Part.Measures[p.At].Events {
		if e.Kind == score.Note && e.Start.Less(p.To) {
			last = score.Place{Measure: p.At, Event: j}
		}
	}
	return last
}

func (b *breather) breathe() {
	from, spent, bars := 0, 0.0, 0
	breathe := func(k int, why string) {
		x := &b.r.Measures[b.notes[k].at.Measure].Events[b.notes[k].at.Event]
		if x.Breath = why; why == "" {
			x.Breath = "Breathe where it is written."
		}
		from, spent, bars = k+1, 0, 0
	}
	for k := 0; k < len(b.notes); k++ {
		n := b.notes[k]
		if spent+n.seconds > b.limit && from < k {
			if at, why := b.inNeed(from, k); at >= 0 {
				breathe(at, why)
				k = at
				continue
			}
		}
		spent += n.seconds
		if n.bar {
			bars++
		}
		switch {
		case n.rests:
			from, spent, bars = k+1, 0, 0
		case n.asked:
			breathe(k, "")
		case n.barred || !n.free:
		case n.phrase:
			breathe(k, "Breathe where the phrase ends.")
		case b.year == 1 && n.bar && bars >= b.every(n) && !b.endsSoon(k+1):
			breathe(k, fmt.Sprintf("Breathe every %s.", measureCount(b.every(n))))
		}
	}
}

func (b *breather) every(n breathNote) int {
	return everyMeasures(b.r.Part.Measures[n.at.Measure].Meter)
}

// endsSoon says whether a phrase or a rest comes within a measure.
func (b *breather) endsSoon(from int) bool {
	for k := from; k < len(b.notes); k++ {
		if n := b.notes[k]; n.rests || n.phrase && n.free || n.asked {
			return true
		} else if n.bar {
			break
		}
	}
	return false
}

// inNeed is where to breathe among some notes that are too long for one breath: in their
// second half, if there is a place, at the last end of a chunk or bar line, else at the end of
// a slur or after the longest note; in a slur only where there is nothing else, and in a tied
// note where there is not even that. -1 is nowhere.
func (b *breather) inNeed(from, to int) (at int, why string) {
	best := func(may func(breathNote) bool) int {
		var list, late []int
		spent := 0.0
		for k := from; k < to; k++ {
			n := b.notes[k]
			spent += n.seconds
			if may(n) && !n.barred {
				list = append(list, k)
				if spent >= b.limit/2 {
					late = append(late, k)
				}
			}
		}
		if len(late) > 0 {
			list = late
		}
		if len(list) == 0 {
			return -1
		}
		return slices.MaxFunc(list, func(a, c int) int {
			x, y := b.notes[a], b.notes[c]
			return cmp.Or(boolCompare(x.bar && x.chunk, y.bar && y.chunk), boolCompare(x.bar, y.bar),
				boolCompare(x.ended, y.ended), boolCompare(!x.bar && x.seconds > y.seconds, !x.bar &&
					y.seconds > x.seconds), cmp.Compare(a, c))
		})
	}
	if at = best(func(n breathNote) bool { return n.free }); at >= 0 {
		return at, fmt.Sprintf("It is too long for one breath at %d: breathe here.", b.tempo)
	}
	if at = best(func(n breathNote) bool { return n.slurred }); at >= 0 {
		return at, fmt.Sprintf("The slur is too long for one breath at %d: it may be broken here.", b.tempo)
	}
	if at = best(func(n breathNote) bool { return n.tied }); at >= 0 {
		return at, fmt.Sprintf("The note is too long for one breath at %d: breathe here, and start it again softly.", b.tempo)
	}
	return -1, ""
}

func boolCompare(a, b bool) int {
	switch {
	case a == b:
		return 0
	case a:
		return 1
	}
	return -1
}

// time says how long the longest stretch of a chunk without a rest is, and whether one
// breath lasts as long.
func (b *breather) time(p *Chunk) {
	longest, now := 0.0, 0.0
	for _, passage := range p.Passages(b.r.Part) {
		m := b.r.Part.Measures[passage.At]
		for _, e := range m.Events {
			if e.Start.Less(passage.From) || !e.Start.Less(passage.To) {
				continue
			}
			if e.Kind == score.Rest {
				now = 0
				continue
			}
			now += b.seconds(e.Length, m)
			longest = max(longest, now)
		}
	}
	p.Breath = &ChunkBreath{Seconds: float64(int(10*longest+0.5)) / 10, One: longest <= b.limit}
}

// ChunkBreath is how long the longest stretch of a chunk without a rest lasts at the tempo
// to start at, and whether one breath lasts as long.
type ChunkBreath struct {
	Seconds float64 `json:"seconds"`
	One     bool    `json:"one"`
}
