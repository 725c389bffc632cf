package count

import (
	"cmp"

	"unhurriedbench/core/score"
)

// Cue is one word of a count-off.
type Cue struct {
	At     score.Fraction // whole notes before the first note, as a negative number
	Word   string
	Beat   bool // on a beat; the metronome clicks on these
	Breath bool // wind players breathe in
}

// CountOff leads into a part. Without a pickup it is one measure, or two when a
// measure has fewer than three beats, and its last two beats say "ready" and
// "go". With a pickup it counts up to the place where the pickup enters, and
// starts a measure earlier when that would leave less than a beat and a half.
// The last beat is a breath. Source: common practice.
func CountOff(p score.Part, o Options) []Cue {
	if len(p.Measures) == 0 {
		return nil
	}
	first := p.Measures[0]
	m := first.Meter
	pc := paceOf(m, o)
	full, beat := m.Length(), pc.beat
	lead := first.Offset
	switch {
	case lead.IsZero() && full.Div(beat).Floor() < 3:
		lead = full.Add(full)
	case lead.IsZero():
		lead = full
	case lead.Less(beat.Mul(score.Frac(3, 2))):
		lead = lead.Add(full)
	}
	entry := first.Offset
	cues := pc.countUp(full, entry, lead)
	if entry.IsZero() && len(cues) >= 2 {
		cues[len(cues)-2].Word = cmp.Or(o.Cues[0], "ready")
		cues[len(cues)-1].Word = cmp.Or(o.Cues[1], "go")
	}
	for i := len(cues) - 1; i >= 0; i-- {
		if cues[i].Beat {
			cues[i].Breath = true
			break
		}
	}
	return cues
}

// countUp counts the beats of the lead, and the parts of every beat when the
// music enters inside one.
func (p pace) countUp(full, entry, lead score.Fraction) []Cue {
	step := p.beat
	if !p.onBeat(entry) {
		step = p.subdivision(entry)
	}
	var cues []Cue
	for gone := (score.Fraction{}); gone.Less(lead); gone = gone.Add(step) {
		place := entry.Sub(lead).Add(gone).Within(full)
		cues = append(cues, Cue{At: gone.Sub(lead), Word: p.at(Numbers, place, false), Beat: p.onBeat(place)})
	}
	return cues
}

// subdivision is the coarsest of halves, thirds, quarters and sixths of a beat
// that reaches the entry.
func (p pace) subdivision(entry score.Fraction) score.Fraction {
	parts := []int64{2, 4, 3, 6}
	if p.compound {
		parts = []int64{3, 6}
	}
	for _, n := range parts {
		if step := p.beat.Div(score.Frac(n, 1)); entry.Within(step).IsZero() {
			return step
		}
	}
	return p.beat.Div(score.Frac(12, 1))
}
