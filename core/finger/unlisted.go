package finger

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Written reads the spelling of a fingering that somebody wrote for a note that no
// table here has: a note beyond the instrument's range. ok is false where it is no
// fingering of the instrument: a key it lacks, a string whose open note lies above
// the note, or a length of tube on which no partial comes near it. Bars, drums and
// sticks have none beyond theirs. Source: for tubes the harmonic series (Benade,
// Fundamentals of Musical Acoustics).
func Written(i instrument.Instrument, p score.Pitch, text string) (f Fingering, ok bool) {
	text = strings.Join(strings.Fields(text), " ")
	return mechanismOf(i).written(i, p, text)
}

// writtenValves reads "0", "1-3", "T2": each valve once, in order.
func writtenValves(i instrument.Instrument, text string) (Fingering, bool) {
	rest, thumb := strings.CutPrefix(text, "T")
	if thumb && !i.ThumbSide {
		return Fingering{}, false
	}
	var keys uint64
	if rest != "0" {
		for valve := range strings.SplitSeq(rest, "-") {
			n, err := strconv.Atoi(valve)
			if err != nil || n < 1 || n > max(i.Valves, 3) || keys>>n != 0 {
				return Fingering{}, false
			}
			keys |= 1 << n
		}
	}
	f := onValves(keys, 0)
	if thumb {
		f = f.withThumb()
	}
	return f, true
}

// writtenSlide reads "4", "2+", "F3".
func writtenSlide(i instrument.Instrument, text string) (Fingering, bool) {
	rest, attached := strings.CutPrefix(text, "F")
	rest, raised := strings.CutSuffix(rest, "+")
	position, err := strconv.Atoi(rest)
	if err != nil || position < 1 || position > 7 || attached && (!i.Attachment || position > 6) {
		return Fingering{}, false
	}
	return onSlide(position, 0, raised, attached), true
}

// writtenKeys reads the names of keys in hand order, those that the instrument has.
func writtenKeys(i instrument.Instrument, text string) (Fingering, bool) {
	f, ok := layoutOf(i).onKeys(text)
	return f, ok && f.Keys&^pressable(i) == 0
}

// writtenStop reads a string and a finger, "E4", "A 3": how far up the hand lies, the
// note says.
func writtenStop(i instrument.Instrument, p score.Pitch, text string) (Fingering, bool) {
	text = strings.ReplaceAll(text, " ", "")
	if len(text) != 2 || text[1] < '1' || text[1] > '4' {
		return Fingering{}, false
	}
	k := slices.IndexFunc(i.OpenStrings, func(open score.Pitch) bool { return open.Step.String() == text[:1] })
	if k < 0 || p.MIDI() <= i.OpenStrings[k].MIDI() {
		return Fingering{}, false
	}
	finger := int(text[1] - '0')
	base := p.MIDI() - i.OpenStrings[k].MIDI()
	for up, places := range playerOf(i).hand {
		for _, at := range places {
			if at.finger == finger && at.moved == InPlace {
				base -= up
			}
		}
	}
	if base < 1 {
		return Fingering{}, false
	}
	return Fingering{Shape: Shape{String: k, Position: base, Finger: finger}, Text: text}, true
}

// tubeBelow is the pedal note of the tube that a fingering makes, as a MIDI number.
func tubeBelow(i instrument.Instrument, f Fingering) int {
	if i.Mechanism == instrument.Slide {
		if f.Attached {
			return attachmentPedal - f.Position + 1
		}
		return slidePedal - f.Position + 1
	}
	pedal := i.Pedal
	switch {
	case i.Horn && f.Attached:
		pedal = hornFlatPedal
	case i.Horn:
		pedal = hornPedal
	}
	for valve, semitones := range valveSemitones {
		if f.Keys&^thumbValve&(1<<valve) != 0 {
			pedal -= semitones
		}
	}
	return pedal
}

// resounds says whether a tube has a partial, from the first to the sixteenth, within
// a half step of a note.
func resounds(pedal int, p score.Pitch) bool {
	for n := 1; n <= 16; n++ {
		if math.Abs(float64(pedal)+12*math.Log2(float64(n))-float64(p.MIDI())) < 0.7 {
			return true
		}
	}
	return false
}

// UnlistedReach is how many half steps above a table its players are known to go, where
// fingerings differ from one instrument to the next and none is listed.
const UnlistedReach = 5

// Unlisted says whether a note lies just above what a woodwind's table or a string
// player's positions have: it is played, and the fingering is the teacher's to write.
func Unlisted(i instrument.Instrument, p score.Pitch) bool {
	above := p.MIDI() - i.Highest.MIDI()
	return (i.Mechanism == instrument.Woodwind || i.Bowed()) && above > 0 && above <= UnlistedReach
}
