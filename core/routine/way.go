package routine

import (
	"slices"

	"unhurriedbench/core/instrument"
)

// Way is a way of doing a stage.
type Way string

// The ways. Source: common practice.
const (
	Clap       Way = "clap"
	Point      Way = "point"
	Air        Way = "air"
	OneNote    Way = "one-note"
	Mouthpiece Way = "mouthpiece"
	Pad        Way = "pad"
	Pluck      Way = "pluck"
	Echo       Way = "echo"
	Silent     Way = "silent"
	Listen     Way = "listen"
	Along      Way = "along"
	Sing       Way = "sing"
	Pairs      Way = "pairs"
	SayPlay    Way = "say-play"
)

// Ways lists them.
func Ways() []Way {
	return []Way{Clap, Point, Air, OneNote, Mouthpiece, Pad, Pluck, Echo, Silent, Listen, Along, Sing, Pairs, SayPlay}
}

// ParseWay reads a way's text; ok is false for anything else.
func ParseWay(text string) (Way, bool) {
	w := Way(text)
	return w, slices.Contains(Ways(), w)
}

// Word names a way on a page.
func (w Way) Word() string {
	return map[Way]string{
		Clap: "clapped", Point: "pointing", Air: "on air", OneNote: "on one note", Mouthpiece: "on the mouthpiece",
		Pad:   "on the pad",
		Pluck: "plucked", Echo: "echo, four counts", Silent: "silent fingers", Listen: "heard first", Along: "fingered along",
		Sing: "sung", Pairs: "one says, one plays", SayPlay: "I say, you play",
	}[w]
}

// Words says what an instrument does in a way; "" where it has no such way.
func (w Way) Words(i instrument.Instrument) string {
	switch w {
	case Clap:
		return "Clap each note; the hands stay together as long as it lasts."
	case Point:
		if i.Unpitched() {
			return "Point to each stroke on the page."
		}
		return "Point to each note on the page, or finger it."
	case Echo:
		return "Hear four counts, answer four counts."
	case Air:
		return bySound(i, "Blow the rhythm through the teeth, one tongue to a note.", "Bow the rhythm in the air.",
			"Tap it on the knees.")
	case OneNote:
		if i.Unpitched() {
			return ""
		}
		return "Play the rhythm on the one note for everyone."
	case Mouthpiece:
		return mouthpieceWords(i)
	case Pluck:
		return bySound(i, "", "Pluck it before the bow comes to it.", "")
	case Pad:
		return bySound(i, "", "", "On the pad or the knees first.")
	case Silent:
		return "Hands alone, no sound."
	case Listen:
		return "Hear it once first, eyes on the page."
	case Along:
		if i.Unpitched() {
			return "Move the sticks along, just above the pad, while it sounds."
		}
		return "Finger along while it sounds."
	case Sing:
		if i.Unpitched() {
			return ""
		}
		return "Sing the names where the voice sits well."
	case Pairs:
		return "In twos: one says it, the other plays, then change."
	case SayPlay:
		return "A measure is said, then played."
	}
	return ""
}

// Short says a way in a few words for an instrument, "head joint alone"; "" where it has no
// such way.
func (w Way) Short(i instrument.Instrument) string {
	switch {
	case w.Words(i) == "":
		return ""
	case w == Pluck:
		return "plucked first"
	case w == Pad:
		return "on the pad first"
	case w == Air && !i.Blown:
		return "in the air"
	case w == Mouthpiece && i.Keys == instrument.FluteKeys:
		return "head joint alone"
	case w == Mouthpiece && (i.Keys == instrument.OboeKeys || i.Keys == instrument.BassoonKeys):
		return "reed alone"
	case w == Mouthpiece:
		return "mouthpiece alone"
	}
	return w.Word()
}

// mouthpieceWords is what a wind player does before the instrument speaks.
func mouthpieceWords(i instrument.Instrument) string {
	switch {
	case i.Family == "brass":
		return "Buzz the rhythm on the mouthpiece alone."
	case i.Keys == instrument.FluteKeys:
		return "Blow the rhythm on the head joint alone."
	case i.Keys == instrument.OboeKeys, i.Keys == instrument.BassoonKeys:
		return "Crow the rhythm on the reed alone."
	case i.Blown:
		return "Blow the rhythm on the mouthpiece alone."
	}
	return ""
}

// bySound chooses by how the sound is made: blown, bowed or struck.
func bySound(i instrument.Instrument, winds, strings, percussion string) string {
	switch {
	case i.Blown:
		return winds
	case i.Bowed():
		return strings
	}
	return percussion
}
