// Package play says what is heard when a part, or a chunk of it, is played: which notes
// sound when, how high, how long and how loud.
package play

import (
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/score"
)

// Note is one sound, ties joined. Times are in whole notes from the first note of a round.
type Note struct {
	Place   score.Place // of the written note that is struck
	At      score.Fraction
	Written score.Fraction // how long the note lasts
	Sounds  score.Fraction // how much of it is heard: half of a staccato note
	MIDI    []int          // in concert pitch, the written voice first; none for a stroke without pitch
	Loud    float64        // from 0 to 1, as it begins
	Ends    float64        // and as it ends, under a hairpin
	Joined  bool           // slurred to the note before, with no new attack
	Roll    bool
	Graces  int // strokes just before it: 1 a flam, 2 a drag
}

// Round is a chunk played once. Its times are as written; what a fermata adds is in Holds and in
// what the note sounds.
type Round struct {
	Notes  []Note
	Holds  []Hold
	Length score.Fraction // to the end of the last passage
	Rest   score.Fraction // after it, until the chunk can begin again in its place in the measure
}

// Hold is a fermata: from At on everything waits For.
type Hold struct{ At, For score.Fraction }

// longestHold is how many beats a fermata adds to its note at most, one at least; otherwise as
// many as the note has. Source: common practice has it "half as long again, or twice as long";
// whole beats, which a class can count, are ours.
const longestHold = 2

// HoldsIn are the fermatas of a passage, at their places in its measure.
func HoldsIn(part score.Part, s breakdown.Passage) []Hold {
	var list []Hold
	m := &part.Measures[s.At]
	for j := range m.Events {
		e := &m.Events[j]
		if from, to := later(e.Start, s.From), earlier(e.Start.Add(e.Length), s.To); from.Less(to) {
			if hold := holdOf(e, m.Meter, to); !hold.IsZero() {
				list = append(list, Hold{At: to, For: hold})
			}
		}
	}
	return list
}

// holdOf is what a fermata adds to a note or rest that is heard to a place in its measure: whole
// beats of its meter. Without one, or where the end is not heard, it is zero.
func holdOf(e *score.Event, m score.Meter, to score.Fraction) score.Fraction {
	if !slices.Contains(e.Marks, score.Fermata) || to.Less(e.Start.Add(e.Length)) {
		return score.Fraction{}
	}
	beats := e.Length.Div(m.Beat())
	whole := beats.Floor()
	if score.Frac(whole, 1).Less(beats) {
		whole++
	}
	return m.Beat().Mul(score.Frac(min(max(whole, 1), longestHold), 1))
}

// loudness is how loud the dynamics are, 0.7 where none is written. Source: common
// practice has each a step apart; the steps here are even.
var loudness = map[string]float64{
	"ppp": 0.3, "pp": 0.4, "p": 0.5, "mp": 0.6, "mf": 0.7, "f": 0.8, "ff": 0.9, "fff": 1,
	"fp": 0.5, "sfz": 0.9, "sf": 0.9, "fz": 0.9,
}

// longestBreath is how much of a note its breath takes at most, in whole notes. The figure is ours.
var longestBreath = score.Frac(1, 16)

// unmarked is how loud a part begins.
const unmarked = 0.7

// RoundOf lays out what is heard of passages of a part, in the order in which they
// are played. A note that began before its passage is heard from there; one that is tied
// beyond ends with it.
func RoundOf(part score.Part, passages []breakdown.Passage) Round {
	r := Round{Notes: make([]Note, 0, part.Events())}
	levels, slurred := levelsOf(part), slursOf(part)
	for _, s := range passages {
		m := &part.Measures[s.At]
		for j := range m.Events {
			e := &m.Events[j]
			from, to := later(e.Start, s.From), earlier(e.Start.Add(e.Length), s.To)
			if !from.Less(to) {
				continue
			}
			hold := holdOf(e, m.Meter, to)
			if !hold.IsZero() {
				r.Holds = append(r.Holds, Hold{At: r.Length.Add(to.Sub(s.From)), For: hold})
			}
			if e.Kind != score.Note {
				continue
			}
			n := Note{
				Place: score.Place{Measure: s.At, Event: j}, At: r.Length.Add(from.Sub(s.From)), Written: to.Sub(from),
				Graces: e.Graces, Roll: e.Roll,
			}
			if !e.Unpitched {
				n.MIDI = []int{sounding(part, e.Pitch)}
				for _, p := range e.Others {
					n.MIDI = append(n.MIDI, sounding(part, p))
				}
			}
			if last := len(r.Notes) - 1; e.Tied && last >= 0 && r.Notes[last].goesOn(n) {
				r.Notes[last].Written = r.Notes[last].Written.Add(n.Written)
				r.Notes[last].Sounds = r.Notes[last].Sounds.Add(n.Written).Add(hold)
				r.Notes[last].Ends = levels[n.Place].ends
				continue
			}
			n.Sounds = n.Written
			if slices.Contains(e.Marks, score.Staccato) && !e.TieOn {
				n.Sounds = n.Written.Mul(score.Frac(1, 2))
			}
			if slices.Contains(e.Marks, score.Breath) && !e.TieOn {
				n.Sounds = n.Sounds.Sub(n.Written.Mul(score.Frac(1, 4)).Min(longestBreath))
			}
			n.Sounds = n.Sounds.Add(hold)
			n.Loud, n.Ends = levels[n.Place].begins, levels[n.Place].ends
			if slices.Contains(e.Marks, score.Accent) {
				n.Loud = min(1, n.Loud+0.2)
				n.Ends = max(n.Ends, min(n.Loud, n.Ends+0.2))
			}
			last := len(r.Notes) - 1
			n.Joined = slurred[n.Place] && last >= 0 && r.Notes[last].At.Add(r.Notes[last].Written) == n.At
			r.Notes = append(r.Notes, n)
		}
		r.Length = r.Length.Add(s.To.Sub(s.From))
	}
	if len(passages) > 0 {
		r.Rest = between(part, passages[len(passages)-1], passages[0])
	}
	return r
}

// goesOn says whether what is tied to a note follows it at the same pitch. What is tied to
// an inner note of a chord is no note of its own either; the tap that ends a roll is one.
func (n Note) goesOn(tied Note) bool {
	if n.At.Add(n.Written) != tied.At || len(n.MIDI) == 0 != (len(tied.MIDI) == 0) {
		return false
	}
	if len(tied.MIDI) == 0 {
		return !n.Roll || tied.Roll
	}
	return slices.Contains(n.MIDI, tied.MIDI[0])
}

// between is how long to wait after the last passage until the measure has come round to
// where the first begins.
func between(part score.Part, last, first breakdown.Passage) score.Fraction {
	return first.From.Sub(last.To).Within(part.Measures[last.At].Meter.Length())
}

// sounding is a written pitch as it sounds.
func sounding(part score.Part, written score.Pitch) int {
	return written.Transpose(part.Transposition).MIDI()
}

// sudden are the dynamics of one note alone.
var sudden = []string{"sfz", "sf", "fz"}

// level is how loud a note begins and ends.
type level struct{ begins, ends float64 }

// step is how much louder or softer a hairpin goes where no dynamic says how far: one step.
const step = 0.1

// levelsOf is how loud each note is by the dynamics and hairpins before it, as written.
func levelsOf(part score.Part) map[score.Place]level {
	levels := map[score.Place]level{}
	wedges := part.Wedges()
	now := unmarked
	var swell *swell
	at := score.Fraction{} // of the measure's bar line, from the beginning
	for i := range part.Measures {
		m := &part.Measures[i]
		for j := range m.Events {
			e, place := &m.Events[j], score.Place{Measure: i, Event: j}
			begins := at.Add(e.Start.Sub(m.Offset))
			loud, known := loudness[e.Dynamic]
			if known && !slices.Contains(sudden, e.Dynamic) {
				now = loud
			}
			if swell != nil && !begins.Less(swell.to) {
				if !known {
					now = swell.loud
				}
				swell = nil
			}
			if len(wedges) > 0 && wedges[0].From == place {
				swell = swellOf(part, wedges[0], now)
				swell.from, swell.to = begins, begins.Add(swell.to)
				wedges = wedges[1:]
			}
			x := level{now, now}
			if swell != nil {
				x = level{swell.at(begins), swell.at(begins.Add(e.Length))}
			}
			if known {
				x.ends += loud - x.begins
				x.begins = loud
			}
			levels[place] = x
		}
		at = at.Add(m.Length)
	}
	return levels
}

// swell is a hairpin in time: how loud it begins and where it leads.
type swell struct {
	from, to  score.Fraction
	was, loud float64
}

// at is how loud it is at a time.
func (s swell) at(t score.Fraction) float64 {
	share := t.Sub(s.from).Div(s.to.Sub(s.from)).Float()
	return s.was + (s.loud-s.was)*min(max(share, 0), 1)
}

// swellOf is a hairpin from so loud on, its end counted from its beginning. It leads to the
// dynamic on its last note, or on the note after it, where one says so and in its direction.
func swellOf(part score.Part, w score.Wedge, was float64) *swell {
	s := &swell{was: was, loud: min(1, was+step)}
	if w.Hairpin == score.Diminuendo {
		s.loud = max(step, was-step)
	}
	leads := func(e *score.Event) bool {
		loud, known := loudness[e.Dynamic]
		if known = known && loud != was && (loud > was) == (w.Hairpin == score.Crescendo); known {
			s.loud = loud
		}
		return known
	}
	length := score.Fraction{}
	for i := w.From.Measure; i < len(part.Measures); i++ {
		for j := range part.Measures[i].Events {
			e, place := &part.Measures[i].Events[j], score.Place{Measure: i, Event: j}
			switch {
			case place.Before(w.From):
				continue
			case w.To.Before(place):
				leads(e)
				s.to = length
				return s
			case place == w.To && place != w.From && leads(e):
				s.to = length
				return s
			}
			length = length.Add(e.Length)
		}
	}
	s.to = length
	return s
}

// slursOf are the notes under a slur that began before them.
func slursOf(part score.Part) map[score.Place]bool {
	inside := map[score.Place]bool{}
	open := 0
	for _, at := range part.Notes() {
		e := part.At(at)
		inside[at] = open > 0
		open = max(0, open+e.SlurStarts-e.SlurEnds)
	}
	return inside
}

func later(a, b score.Fraction) score.Fraction {
	if a.Less(b) {
		return b
	}
	return a
}

func earlier(a, b score.Fraction) score.Fraction {
	if b.Less(a) {
		return b
	}
	return a
}
