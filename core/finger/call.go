package finger

import (
	"strings"

	"unhurriedbench/core/instrument"
)

// digits are the numbers of valves, positions and fingers as they are called out.
var digits = [...]string{"", "one", "two", "three", "four", "five", "six", "seven"}

// Call is what is called out in time for a fingering: "one two", "four", "low two", "right". It
// is "" where too much moves to be said in a beat: the keys of woodwinds.
func Call(i instrument.Instrument, f Fingering) string {
	switch i.Mechanism {
	case instrument.Valves:
		return callValves(f)
	case instrument.Slide:
		if f.Attached {
			return "trigger " + digits[f.Position]
		}
		return digits[f.Position]
	case instrument.BowedStrings:
		if f.Finger == 0 {
			return "open"
		}
		return map[Moved]string{Low: "low ", High: "high ", Extended: "stretch "}[f.Moved] + digits[f.Finger]
	case instrument.Bars, instrument.Drums:
		return hands[f.Hand]
	case instrument.Sticks:
		if f.Stroke == "" {
			return ""
		}
		return hands[string(f.last())]
	}
	return ""
}

var hands = map[string]string{"R": "right", "L": "left"}

func callValves(f Fingering) string {
	var said []string
	if f.Attached {
		said = append(said, "thumb")
	}
	if f.valves() == 0 {
		return strings.Join(append(said, "open"), " ")
	}
	for n := 1; n <= 4; n++ {
		if f.Keys&(1<<n) != 0 {
			said = append(said, digits[n])
		}
	}
	return strings.Join(said, " ")
}
