package instrument

import (
	"fmt"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// toDrums writes a melody's rhythm for two timpani, tuned to the key note and the
// fifth: the fifth stands under the second, fifth and seventh notes of the scale,
// which belong to its chord, and the key note under all others. Source: common
// practice of two-drum parts.
func toDrums(part *score.Part, target Instrument) string {
	key, move := part.Key().Transpose(part.Transposition)
	tonic, fifth := tunedTo(key, target)
	for i := range part.Measures {
		m := &part.Measures[i]
		m.Key, _ = m.Key.Transpose(move)
		m.Clef = target.Clef
		for j := range m.Events {
			e := &m.Events[j]
			if e.Kind != score.Note {
				continue
			}
			degree := (int(e.Pitch.Transpose(move).Step) - int(tonic.Step) + 7) % 7
			e.Pitch, e.Others, e.Sign, e.Fingering, e.String = tonic, nil, false, "", 0
			if degree == 1 || degree == 4 || degree == 6 {
				e.Pitch = fifth
			}
			e.SlurStarts, e.SlurEnds = 0, 0
		}
	}
	part.Transposition = target.Transposition
	part.MarkAccidentals()
	return fmt.Sprintf(
		"The rhythm on two drums: %s under most notes, %s under the second, fifth and seventh of the scale. Type the book’s own timpani part under Parts.",
		name.Spoken(tonic, false),
		name.Spoken(fifth, false),
	)
}

// tunedTo finds the key note and the fifth, above it or below, that lie nearest
// the middle of the two middle drums, the lower on the 29 inch.
func tunedTo(key score.Key, target Instrument) (tonic, fifth score.Pitch) {
	var lower, upper Drum // the two every school has
	for _, d := range target.Drums {
		switch d.Inches {
		case 29:
			lower = d
		case 26:
			upper = d
		}
	}
	step, alter := key.Tonic()
	least := -1
	for octave := 1; octave <= 4; octave++ {
		t := score.Pitch{Step: step, Alter: alter, Octave: octave}
		up, down := score.Interval{Steps: 4, Semitones: 7}, score.Interval{Steps: -3, Semitones: -5}
		for _, f := range []score.Pitch{t.Transpose(up), t.Transpose(down)} {
			low, high := t, f
			if f.MIDI() < t.MIDI() {
				low, high = f, t
			}
			if !lower.Holds(low) || !upper.Holds(high) {
				continue
			}
			away := offCentre(low, lower.Range) + offCentre(high, upper.Range)
			if least < 0 || away < least {
				tonic, fifth, least = t, f, away
			}
		}
	}
	return tonic, fifth
}

// offCentre is twice the distance of a pitch from the middle of a range, in
// semitones.
func offCentre(p score.Pitch, r Range) int {
	away := 2*p.MIDI() - r.Low.MIDI() - r.High.MIDI()
	return max(away, -away)
}
