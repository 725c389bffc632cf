// Package testscore makes scores at random for tests of readers and writers.
package testscore

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"testing"

	"unhurriedbench/core/score"
)

// Random returns a score that uses what a method book does. The same seed gives
// the same score.
func Random(t testing.TB, seed uint64) score.Score {
	t.Helper()
	g := &generator{rand.New(rand.NewPCG(seed, 1))}
	s := score.Score{Title: fmt.Sprintf("Test %d", seed), Composer: "Nobody & Co.", TempoWords: "Steady",
		Tempo: score.Tempo{Beat: score.Frac(1, 4), PerMinute: 60 + int(seed%40)}}
	p := g.part()
	if err := p.Finish(); err != nil {
		t.Fatalf("seed %d: %v", seed, err)
	}
	s.Parts = []score.Part{p}
	return s
}

type generator struct{ *rand.Rand }

func (g *generator) one(n int) bool { return g.IntN(n) == 0 }

var meters = []score.Meter{
	{Beats: 4, Unit: 4}, {Beats: 3, Unit: 4}, {Beats: 2, Unit: 4}, {Beats: 6, Unit: 8}, {Beats: 2, Unit: 2, Symbol: "cut"},
	{Beats: 4, Unit: 4, Symbol: "common"}, {Beats: 5, Unit: 4}, {Beats: 9, Unit: 8}, {Beats: 3, Unit: 8},
}

func (g *generator) part() score.Part {
	p := score.Part{Name: "Flute"}
	if g.one(3) {
		p.Name, p.Transposition = "Clarinet", score.Interval{Steps: -1, Semitones: -2}
	}
	meter := meters[g.IntN(len(meters))]
	key := score.Key{Fifths: g.IntN(10) - 5, Mode: "major"}
	clef := []score.Clef{score.Treble, score.Bass, score.Alto, {Sign: "G", Line: 2, Octave: -1}}[g.IntN(4)]
	n := 4 + g.IntN(8)
	for i := range n {
		if i > 0 && g.one(8) {
			key.Fifths = g.IntN(10) - 5
		}
		if i > 0 && g.one(10) {
			meter = meters[g.IntN(len(meters))]
		}
		m := score.Measure{Meter: meter, Key: key, Clef: clef}
		m.Events = g.measure(m, clef)
		p.Measures = append(p.Measures, m)
	}
	g.hairpins(p)
	last := &p.Measures[n-1]
	last.DoubleBar = true
	switch g.IntN(5) {
	case 0:
		p.Measures[0].RepeatStart = true
		last.RepeatEnd = true
	case 3: // a strain that is repeated in the middle, three times
		p.Measures[1].RepeatStart = true
		p.Measures[2].RepeatEnd, p.Measures[2].Times = true, 3
	case 1:
		p.Measures[0].RepeatStart = true
		p.Measures[n-2].Endings, p.Measures[n-2].EndingStart, p.Measures[n-2].EndingStop = []int{1}, true, true
		p.Measures[n-2].RepeatEnd = true
		last.Endings, last.EndingStart, last.EndingStop = []int{2}, true, true
	case 2:
		p.Measures[1].Fine = true
		last.Jump = score.Jump{To: "capo", Al: "fine"}
	}
	return p
}

// hairpins writes one from the first measure to the second, and at times one over a single event.
func (g *generator) hairpins(p score.Part) {
	any := func(i int) *score.Event { return &p.Measures[i].Events[g.IntN(len(p.Measures[i].Events))] }
	wedge := func() score.Hairpin { return []score.Hairpin{score.Crescendo, score.Diminuendo}[g.IntN(2)] }
	any(0).Hairpin = wedge()
	any(1).HairpinEnds = true
	if g.one(3) {
		alone := any(3)
		alone.Hairpin, alone.HairpinEnds = wedge(), true
	}
}

func (g *generator) measure(m score.Measure, clef score.Clef) []score.Event {
	if g.one(12) {
		return []score.Event{{Kind: score.Rest, WholeMeasure: true, Value: score.Value{Base: 1}}}
	}
	var events []score.Event
	left := m.Meter.Length()
	for left.Num() > 0 {
		onQuarter := m.Meter.Length().Sub(left).Within(score.Frac(1, 4)).IsZero()
		if left.Cmp(score.Frac(1, 4)) >= 0 && onQuarter && g.one(7) {
			for k := range 3 {
				e := g.event(score.Value{Base: 8, Tuplet: score.Ratio{Actual: 3, Normal: 2}}, clef)
				e.TupletStarts, e.TupletEnds = k == 0, k == 2
				events = append(events, e)
			}
			left = left.Sub(score.Frac(1, 4))
			continue
		}
		values := []score.Value{
			{Base: 2},
			{Base: 4},
			{Base: 4},
			{Base: 8},
			{Base: 8},
			{Base: 4, Dots: 1},
			{Base: 2, Dots: 1},
			{Base: 16},
			{Base: 8, Dots: 1},
			{Base: 2, Dots: 2},
		}
		v := values[g.IntN(len(values))]
		if left.Less(v.Length()) {
			if v = (score.Value{Base: 16}); left.Less(v.Length()) {
				break
			}
		}
		events = append(events, g.event(v, clef))
		left = left.Sub(v.Length())
	}
	return events
}

func (g *generator) event(v score.Value, clef score.Clef) score.Event {
	e := score.Event{Value: v, Length: v.Length()}
	if g.one(6) {
		e.Kind = score.Rest
		return e
	}
	bottom := clef.BottomLine()
	d := bottom.Diatonic() + g.IntN(10) - 1
	e.Pitch = score.Pitch{Step: score.Step(d % 7), Octave: d / 7, Alter: []int{0, 0, 0, 0, -1, 1}[g.IntN(6)]}
	if g.one(8) {
		e.TieOn = true // Finish drops it unless the next note is the same
	}
	if g.one(6) {
		e.Marks = []score.Mark{[]score.Mark{score.Staccato, score.Accent, score.Tenuto, score.Fermata, score.UpBow, score.Breath}[g.IntN(6)]}
	}
	if g.one(9) {
		e.Dynamic = []string{"p", "mf", "f"}[g.IntN(3)]
	}
	if g.one(9) {
		e.Fingering = []string{"4", "1-2", "0", "L2"}[g.IntN(4)]
	}
	if g.one(9) { // a third below is struck with it, and may be held
		below := score.Pitch{Step: score.Step((d - 2) % 7), Octave: (d - 2) / 7}
		e.Others = []score.Pitch{below}
		if g.one(2) {
			e.InnerTies = []score.Pitch{below}
		}
	}
	if g.one(12) {
		e.Text = `soft & "warm"`
	}
	return e
}

// Long is a score of twelve parts and some 250 measures, thirty pages or so: 3 MB of
// MusicXML.
func Long(t testing.TB) score.Score {
	var s score.Score
	for n := range uint64(12) {
		var part score.Part
		for seed := n * 100; len(part.Measures) < 250; seed++ {
			next := Random(t, seed).Parts[0]
			for _, m := range next.Measures {
				m.RepeatStart, m.RepeatEnd, m.Endings, m.EndingStart, m.EndingStop, m.Jump, m.Fine = false, false, nil, false, false, score.Jump{}, false
				part.Measures = append(part.Measures, m)
			}
		}
		part.Name = fmt.Sprintf("Part %d", n+1)
		if err := part.Finish(); err != nil {
			t.Fatal(err)
		}
		s.Parts = append(s.Parts, part)
	}
	return s
}

// WithoutChords returns a score with one note at a time, for checks against programs
// that strike all notes of a chord where we follow the highest.
func WithoutChords(s score.Score) score.Score {
	for k := range s.Parts {
		part := s.Parts[k].Copy()
		for _, at := range part.Notes() {
			part.At(at).Others, part.At(at).InnerTies = nil, nil
		}
		part.MarkAccidentals()
		s.Parts[k] = part
	}
	return s
}

// Plain returns a score with the fields that a format does not keep taken away:
// source lines, and quotation marks that ABC has no way to write.
func Plain(s score.Score) score.Score {
	s.Remarks = nil
	parts := s.Parts
	s.Parts = nil
	for _, p := range parts {
		p = p.Copy()
		for i := range p.Measures {
			m := &p.Measures[i]
			m.Line, m.Column = 0, 0
			for j := range m.Events {
				m.Events[j].Line = 0
				if len(m.Events[j].Others) == 0 {
					m.Events[j].Others = nil
				}
				if len(m.Events[j].InnerTies) == 0 {
					m.Events[j].InnerTies = nil
				}
			}
		}
		s.Parts = append(s.Parts, p)
	}
	return s
}

// Differ fails the test with the first place where two scores differ.
func Differ(t testing.TB, got, want score.Score) bool {
	t.Helper()
	if reflect.DeepEqual(got, want) {
		return false
	}
	for i := range min(len(got.Parts), len(want.Parts)) {
		a, b := got.Parts[i].Measures, want.Parts[i].Measures
		for k := range min(len(a), len(b)) {
			x, y := a[k], b[k]
			for j := range min(len(x.Events), len(y.Events)) {
				if !reflect.DeepEqual(x.Events[j], y.Events[j]) {
					t.Errorf("measure %d, event %d:\n got %+v\nwant %+v", k+1, j+1, x.Events[j], y.Events[j])
					return true
				}
			}
			if !reflect.DeepEqual(x, y) {
				t.Errorf("measure %d:\n got %+v\nwant %+v", k+1, x, y)
				return true
			}
		}
		got.Parts[i].Measures, want.Parts[i].Measures = nil, nil
	}
	t.Errorf("apart from its measures:\n got %+v\nwant %+v", got, want)
	return true
}
