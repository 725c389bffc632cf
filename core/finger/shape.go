package finger

import (
	"math/bits"
	"strconv"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Shape is a fingering as a value: what hands and fingers do. Each mechanism uses its
// own fields. Fingerings are taken apart where their tables are read; rules, costs and
// drawings look at shapes, and text is for files, tables and pages.
type Shape struct {
	Keys     uint64 // that are down: of a woodwind by their place in its order, valves by their number
	Position int    // of the slide, 1 to 7; of a hand on strings, in half steps from the open string to its first finger
	Raised   bool   // the slide a little in
	Attached bool   // the F attachment, or the thumb of a double horn
	String   int    // from the lowest
	Finger   int    // on a string, 0 for none
	Moved    Moved  // how that finger is set apart in its hand
	Inches   int    // of a drum
	Stroke   string // the hand that strikes, or the sticking as it is written
	Graces   int    // small strokes before it
}

// Moved is how a finger on a string is set apart from its place in the plain hand.
type Moved int

// The ways.
const (
	Low      Moved = -1
	InPlace  Moved = 0
	High     Moved = 1
	Extended Moved = 2
)

// spelled is how a moved finger is written before its number.
func (m Moved) spelled() string {
	return map[Moved]string{Low: "L", High: "H", Extended: "x"}[m]
}

// onValves is a set of valves as a fingering: "0", "1-2".
func onValves(keys uint64, partial int) Fingering {
	var names []string
	for n := 1; n <= 4; n++ {
		if keys&(1<<n) != 0 {
			names = append(names, strconv.Itoa(n))
		}
	}
	text := strings.Join(names, "-")
	if text == "" {
		text = "0"
	}
	return Fingering{Shape: Shape{Keys: keys}, Text: text, Partial: partial}
}

// withThumb is the same valves with the thumb of a double horn.
func (f Fingering) withThumb() Fingering {
	f.Attached, f.Keys, f.Text = true, f.Keys|thumbValve, "T"+f.Text
	return f
}

// thumbValve stands among the valves for a double horn's thumb.
const thumbValve = 1

// onSlide is a position as a fingering: "3", "2+", "F1".
func onSlide(position, partial int, raised, attached bool) Fingering {
	text := strconv.Itoa(position)
	if attached {
		text = "F" + text
	}
	if raised {
		text += "+"
	}
	return Fingering{Shape: Shape{Position: position, Raised: raised, Attached: attached}, Text: text, Partial: partial}
}

// onDrum is a kettle as a fingering: "29".
func onDrum(inches int) Fingering {
	return Fingering{Shape: Shape{Inches: inches}, Text: strconv.Itoa(inches)}
}

// onKeys is a woodwind's keys as a fingering, spelled as they are written in its
// table; ok is false where a key is misspelled or out of hand order.
func (l *layout) onKeys(text string) (f Fingering, ok bool) {
	keys, ok := l.keys(text)
	return Fingering{Shape: Shape{Keys: keys}, Text: text}, ok
}

// struck is a stroke as a fingering: "R", "lR".
func struck(stroke string, graces int) Fingering {
	return Fingering{Shape: Shape{Stroke: stroke, Graces: graces}, Text: withGraces(stroke, graces)}
}

// last is the hand that a stroke ends with.
func (s Shape) last() byte { return s.Stroke[len(s.Stroke)-1] }

// valves counts the valves that are down, a thumb left out.
func (s Shape) valves() int { return bits.OnesCount64(s.Keys &^ thumbValve) }

// Played is a note with the fingering it is played with.
type Played struct {
	Pitch score.Pitch
	Shape
	Text    string
	Partial int
}

// On is a note played with a fingering.
func (f Fingering) On(p score.Pitch) Played { return Played{p, f.Shape, f.Text, f.Partial} }

// Stopped says whether a finger is put on a string.
func (p Played) Stopped(i instrument.Instrument) bool {
	return i.Bowed() && p.Finger > 0
}
