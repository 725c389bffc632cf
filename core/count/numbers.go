// Package count says a rhythm: the label of every note, the beats it is held
// through, the foot's taps, and the count-off before the music.
package count

import (
	"strconv"

	"unhurriedbench/core/score"
)

// Label is what the numbers school says at a place in the measure: the beat's
// number where it begins; & at its half; e, &, a at its quarters; la, li at its
// thirds; ta at its sixths; nothing elsewhere. The half of a compound beat, or
// of one that a tuplet divides in six, is a sixth. Source: common practice.
func Label(m score.Meter, place score.Fraction, tuplet bool) string {
	beat := m.Beat()
	inside := place.Within(beat)
	if inside.IsZero() {
		return beatNumber(m, place)
	}
	part := inside.Div(beat)
	switch {
	case part == score.Frac(1, 2) && !m.Compound() && !tuplet:
		return "&"
	case part == score.Frac(1, 4):
		return "e"
	case part == score.Frac(3, 4):
		return "a"
	case part == score.Frac(1, 3):
		return "la"
	case part == score.Frac(2, 3):
		return "li"
	case part.Mul(score.Frac(6, 1)).Den() == 1:
		return "ta"
	}
	return ""
}

// beatNumber is the number of the beat that place falls in, from 1.
func beatNumber(m score.Meter, place score.Fraction) string {
	return strconv.FormatInt(place.Div(m.Beat()).Floor()+1, 10)
}

// Tap is what the foot does.
type Tap string

// The foot goes down on the beat and up on its second half.
const (
	NoTap Tap = ""
	Down  Tap = "down"
	Up    Tap = "up"
)

// TapAt is the foot's move at a place: down where a beat begins, up at its half.
func TapAt(m score.Meter, place score.Fraction) Tap {
	beat := m.Beat()
	switch inside := place.Within(beat); {
	case inside.IsZero():
		return Down
	case inside == beat.Mul(score.Frac(1, 2)):
		return Up
	}
	return NoTap
}
