package count

import "unhurriedbench/core/score"

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
func CountOff(p score.Part) []Cue {
	if len(p.Measures) == 0 {
		return nil
	}
	first := p.Measures[0]
	m := first.Meter
	full, beat := m.Length(), m.Beat()
	lead := first.Offset
	switch {
	case lead.IsZero() && m.BeatCount() < 3:
		lead = full.Add(full)
	case lead.IsZero():
		lead = full
	case lead.Less(beat.Mul(score.Frac(3, 2))):
		lead = lead.Add(full)
	}
	entry := first.Offset
	cues := countUp(m, entry, lead)
	if entry.IsZero() && len(cues) >= 2 {
		cues[len(cues)-2].Word = "ready"
		cues[len(cues)-1].Word = "go"
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
func countUp(m score.Meter, entry, lead score.Fraction) []Cue {
	beat := m.Beat()
	step := beat
	if !entry.Within(beat).IsZero() {
		step = subdivision(m, entry)
	}
	var cues []Cue
	for gone := (score.Fraction{}); gone.Less(lead); gone = gone.Add(step) {
		place := entry.Sub(lead).Add(gone).Within(m.Length())
		cues = append(cues, Cue{
			At:   gone.Sub(lead),
			Word: Label(m, place, false),
			Beat: place.Within(beat).IsZero(),
		})
	}
	return cues
}

// subdivision is the coarsest of halves, thirds, quarters and sixths of a beat
// that reaches the entry.
func subdivision(m score.Meter, entry score.Fraction) score.Fraction {
	beat := m.Beat()
	parts := []int64{2, 4, 3, 6}
	if m.Compound() {
		parts = []int64{3, 6}
	}
	for _, n := range parts {
		if step := beat.Div(score.Frac(n, 1)); entry.Within(step).IsZero() {
			return step
		}
	}
	return beat.Div(score.Frac(12, 1))
}
