package finger

import (
	"fmt"
	"strconv"

	"unhurriedbench/core/score"
)

// slidePedal is the pedal note of a tenor trombone with its slide in, B flat 1
// as a MIDI number.
const slidePedal = 34

// slide computes the positions of a tenor trombone: position n is n-1 semitones
// below the open tube. The nearest position comes first. The seventh partial is
// a third of a semitone flat: it is used with the slide a little in, which is
// written with a plus, and so cannot be used in first position. Source:
// Benade, Fundamentals of Musical Acoustics.
func slide(p score.Pitch) (Choice, bool) {
	var found []Fingering
	for _, open := range openPartials {
		down := slidePedal + open.semitones - p.MIDI()
		if down < 0 || down > 6 {
			continue
		}
		found = append(found, Fingering{
			Text: strconv.Itoa(down + 1),
			Why:  fmt.Sprintf("partial %d farther out, when the note before or after is out there", open.number),
		})
	}
	if down := slidePedal + 34 - p.MIDI(); down >= 1 && down <= 3 {
		found = append(found, Fingering{
			Text: strconv.Itoa(down+1) + "+",
			Why:  "partial 7, the slide a little in, when the notes around it are near",
		})
	}
	return firstIsDefault(found)
}

// attachmentPedal is the pedal note of the tube with its F attachment, F1, as a
// MIDI number.
const attachmentPedal = 29

// slideWithAttachment adds the F attachment where the plain slide would be out at
// sixth position or farther, and below its range. On the longer tube the slide
// has six positions, each a semitone and somewhat farther apart.
func slideWithAttachment(p score.Pitch) (Choice, bool) {
	plain, ok := slide(p)
	var found []Fingering
	for _, open := range openPartials[:2] {
		if down := attachmentPedal + open.semitones - p.MIDI(); down >= 0 && down <= 5 {
			found = append(found, Fingering{Text: "F" + strconv.Itoa(down+1), Why: "with the F attachment, to stay near"})
		}
	}
	switch {
	case !ok:
		return firstIsDefault(found)
	case len(found) > 0 && (plain.Text == "6" || plain.Text == "7"):
		plain.Why = "without the attachment"
		return firstIsDefault(append(found, append([]Fingering{plain.Fingering}, plain.Alternates...)...))
	}
	plain.Alternates = append(plain.Alternates, found...)
	return plain, true
}
