package walk

import (
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/play"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// How long words take, in seconds: a pause and so much a word. The figures are ours, of a calm
// voice; the shipped one keeps within them.
const (
	pause   = 0.5
	perWord = 0.38
)

// talk is how long sentences take.
func talk(sentences ...string) float64 {
	total := 0.0
	for _, s := range sentences {
		if s != "" {
			total += pause + perWord*float64(len(strings.Fields(s)))
		}
	}
	return total
}

// lay fills in the words and times of passes, one after the other.
func (b *builder) lay(passes []Move) (moves []Move, seconds float64) {
	said := newSaid()
	for k, m := range passes {
		b.sound(&m)
		m.Says = b.instruction(m)
		if first := said.firstOf(m.key); first && !m.Joined && !(m.chunk.Whole() && k > 0 && m.rank == needed) {
			m.Minds = b.minds(m, said)
		}
		if lastOf(passes, k) {
			m.Again = b.again(m)
		}
		seconds = b.time(&m, seconds)
		moves = append(moves, m)
	}
	return moves, seconds
}

// lastOf says whether no later pass is of the same chunk.
func lastOf(passes []Move, k int) bool {
	for _, p := range passes[k+1:] {
		if p.key == passes[k].key && !p.Joined {
			return false
		}
	}
	return !passes[k].Joined
}

// whole is how long a whole note lasts, in seconds.
func (b *builder) whole() float64 {
	return 60 / float64(b.tempo) / b.lead.Report.Part.Meter().Beat().Float()
}

// time lays a move out from a time on and gives the time after it.
func (b *builder) time(m *Move, at float64) float64 {
	part, whole := b.lead.Report.Part, b.whole()
	passages := m.chunk.Played(part)
	first := part.Measures[passages[0].At]
	first.Offset = passages[0].From
	cues := count.CountOff(score.Part{Measures: []score.Measure{first}}, b.ask.Options.Count)

	m.At = at
	m.Passages = b.stretches(*m, passages)
	short := b.speak(m, whole)
	m.Minds = append(m.Minds, short...)
	lead := 0.0
	if len(cues) > 0 {
		lead = -cues[0].At.Float() * whole
	}
	m.Begins = at + talk(m.Minds...) + talk(m.Says) + lead
	for _, c := range cues {
		m.CountOff = append(m.CountOff, Cue{m.Begins + c.At.Float()*whole, c.Word, inWords(c.Word), c.Beat, c.Breath})
	}
	for k := range m.Passages {
		m.Passages[k].At += m.Begins
	}
	for k := range m.Spoken {
		m.Spoken[k].At += m.Begins
	}
	end := m.Passages[len(m.Passages)-1]
	m.Ends = end.At + end.to.Sub(end.from).Float()*whole + end.Hold
	m.Gap = part.Measures[end.Index].Meter.Length().Float()*whole + talk(m.Again)
	return m.Ends + m.Gap
}

// stretches are the measures of a move at their times from its first note. Where the program
// and the player take turns, each measure comes twice; what does not begin where the one before
// ended waits for its place in the measure. What sounds waits at a fermata; a count goes on.
func (b *builder) stretches(m Move, passages []breakdown.Passage) []Stretch {
	part, whole := b.lead.Report.Part, b.whole()
	var list []Stretch
	at, to := score.Fraction{}, passages[0].From
	holds := m.Part || m.Form == routine.Play
	put := func(who With, p breakdown.Passage, hold score.Fraction) {
		list = append(list, Stretch{Index: p.At, From: p.From.Float(), To: p.To.Float(), At: at.Float() * whole,
			Hold: hold.Float() * whole, Who: who, from: p.From, to: p.To})
		at, to = at.Add(p.To.Sub(p.From)).Add(hold), p.To
	}
	add := func(who With, passages ...breakdown.Passage) {
		for k, p := range passages {
			if k == 0 {
				full := part.Measures[p.At].Meter.Length()
				at = at.Add(p.From.Sub(to).Within(full))
			}
			if holds {
				for _, h := range play.HoldsIn(part, p) {
					put(who, breakdown.Passage{At: p.At, From: p.From, To: h.At}, h.For)
					p.From = h.At
				}
			}
			if p.From.Less(p.To) {
				put(who, p, score.Fraction{})
			}
		}
	}
	if m.Act != Echo && m.Act != SayPlay {
		for _, p := range passages {
			to = p.From // music goes on, also over a repeat
			add(whoOf(m.Act), p)
		}
		return list
	}
	for k := 0; k < len(passages); {
		n := 1
		if part.Measures[passages[k].At].Length.Cmp(passages[k].To.Sub(passages[k].From)) > 0 && k+1 < len(passages) {
			n = 2 // a pickup goes with its measure
		}
		add(Heard, passages[k:k+n]...)
		add(Alone, passages[k:k+n]...)
		k += n
	}
	return list
}

func whoOf(act Act) With {
	if act == Listen {
		return Heard
	}
	return Together
}
