package finger

import (
	"fmt"

	"unhurriedbench/core/score"
)

// The pedal notes of a tenor trombone as MIDI numbers: B flat 1 with its slide
// in, and F1 with the F attachment.
const (
	slidePedal      = 34
	attachmentPedal = 29
)

// slide lists the positions of a tenor trombone, nearest first: position n is
// n-1 semitones below the open tube. The seventh partial is a third of a semitone
// flat: it is used with the slide a little in, which is written with a plus, and
// so cannot be used in first position. Source: Benade, Fundamentals of Musical
// Acoustics.
//
// With the F attachment the slide has six positions, each a semitone and somewhat
// farther apart; it is the first choice where the plain slide would be out at
// sixth position or farther, and below its range. G and F sharp above the staff are
// played on the seventh partial, a raised second and third, as the slide is near
// there; fourth and fifth are the alternates (common practice).
func slide(p score.Pitch, attachment bool) []Fingering {
	var plain, attached []Fingering
	for _, open := range openPartials {
		if down := slidePedal + open.semitones - p.MIDI(); down >= 0 && down <= 6 {
			f := onSlide(down+1, open.number, false, false)
			f.Why = fmt.Sprintf("partial %d farther out, when the note before or after is out there", open.number)
			if open.number == 5 {
				f.Care = fmt.Sprintf("partial 5 is %d cents flat: a hair in from the position, but for first, which is lifted by the lip", -centsOff(5))
			}
			plain = append(plain, f)
		}
	}
	if down := slidePedal + 34 - p.MIDI(); down >= 1 && down <= 3 {
		raised := onSlide(down+1, 7, true, false)
		raised.Why = "partial 7, the slide a little in, when the notes around it are near"
		raised.Care = fmt.Sprintf("partial 7 is %d cents flat: the plus is a third of the way in to the next position", -centsOff(7))
		if down < 3 {
			plain = append([]Fingering{raised}, plain...)
			plain[1].Why = fmt.Sprintf("partial 8, farther out and in tune by itself: while the raised %d is not yet sure", down+1)
		} else {
			plain = append(plain, raised)
		}
	}
	if !attachment {
		return plain
	}
	for _, open := range openPartials[:2] {
		if down := attachmentPedal + open.semitones - p.MIDI(); down >= 0 && down <= 5 {
			f := onSlide(down+1, open.number, false, true)
			f.Why = "with the F attachment, to stay near"
			attached = append(attached, f)
		}
	}
	if len(plain) > 0 && len(attached) > 0 && plain[0].Position >= 6 {
		plain[0].Why = "without the attachment"
		return append(attached, plain...)
	}
	return append(plain, attached...)
}

// farSlide is from how many positions on the arm has to throw. Source: common
// practice.
const farSlide = 4

// slideChange counts the distance of the slide, 1 more when it is far, what the lip
// has to do, and 1 for the attachment.
func slideChange(from, to Played, why *reasons) int {
	distance := max(from.Position-to.Position, to.Position-from.Position)
	cost := distance
	if why != nil && distance > 0 {
		way := "out"
		if to.Position < from.Position {
			way = "in"
		}
		why.say("the slide goes " + way + ", " + count(distance, "position", "positions"))
		why.hard = distance >= farSlide
	}
	if distance >= farSlide {
		cost++
	}
	if from.Attached != to.Attached { // partials of different tubes do not compare
		why.say("the attachment changes")
		return cost + 1
	}
	return cost + lipCost(from, to, distance, "the slide stays", why)
}
