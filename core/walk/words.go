package walk

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
)

// MostWords is how many words an instruction may have.
const MostWords = 12

// instruction says what to do in a move.
func (b *builder) instruction(m Move) string {
	where, i := Measures(m.chunk), b.lead.Instrument
	if m.chunk.Whole() && b.ask.Of != "" {
		where = b.ask.Of
	}
	if m.Joined {
		return fmt.Sprintf("Now join %s%s", where, b.own(m))
	}
	return fmt.Sprintf(b.saying(m, i), where) + b.own(m)
}

// own ends an instruction: with whom.
func (b *builder) own(m Move) string {
	switch {
	case m.With == Heard || m.Act == Echo || m.Act == SayPlay || m.Act == Pairs:
		return "."
	case m.With == Together && (m.Act == Look || m.Act == Along):
		return "."
	case m.With == Together && m.Act == Finger:
		return ", with me."
	case m.With == Together:
		return " with me."
	case b.ask.Class:
		return ", without me."
	}
	return ", on your own."
}

// sayings are the instructions of what everybody does alike, with the place left open.
var sayings = map[Act]string{
	Listen: "Listen to %s", Look: "Look over %s in time, silently", Count: "Count %s", Clap: "Clap and count %s",
	Along: "Finger %s along while it sounds", Pluck: "Pluck %s", Pad: "Play %s on the pad",
	Sing: "Sing the names of %s", Echo: "Echo %s, measure by measure", SayPlay: "I say, you play: %s",
	Pairs: "One says, one plays: %s", Play: "Play %s", Lap: "Tap %s on your lap",
}

// saying is the instruction of a move for an instrument.
func (b *builder) saying(m Move, i instrument.Instrument) string {
	strokes := i.Unpitched()
	switch m.Act {
	case Name:
		if strokes {
			return "Say right and left: %s"
		}
		return "Name %s"
	case Finger:
		if b.ask.Class && b.unlike() {
			return "Silent hands, %s"
		}
		return fingering[i.Mechanism]
	case Along:
		if strokes {
			return "Move the sticks along with %s"
		}
	case Air:
		switch {
		case i.Blown:
			return "Blow %s on air"
		case i.Bowed():
			return "Bow %s in the air"
		}
		return "Tap %s on your knees"
	case Mouthpiece:
		switch {
		case i.Family == "brass":
			return "Buzz %s"
		case i.Keys == instrument.FluteKeys:
			return "Head joint, %s"
		case i.Keys == instrument.OboeKeys, i.Keys == instrument.BassoonKeys:
			return "Reed, %s"
		}
		return "Mouthpiece, %s"
	}
	return sayings[m.Act]
}

// unlike says whether the hands of the players do different things.
func (b *builder) unlike() bool {
	return slices.ContainsFunc(b.players, func(p Player) bool { return p.Instrument.Mechanism != b.lead.Instrument.Mechanism })
}

// fingering says what the hands do where nothing sounds.
var fingering = map[instrument.Mechanism]string{
	instrument.Valves:       "Silent valves, %s",
	instrument.Slide:        "Silent slide, %s",
	instrument.Woodwind:     "Silent fingers, %s",
	instrument.BowedStrings: "Fingers without bow, %s",
	instrument.Bars:         "Mallets in the air, %s",
	instrument.Drums:        "Hands in the air, %s",
	instrument.Sticks:       "Sticks in the air, %s",
}

// Measures says where a chunk is: "the line", "measures 3 and 4", "the pickup to measure 2".
func Measures(c breakdown.Chunk) string {
	if c.Whole() {
		return "the line"
	}
	numbers := c.Measures
	if len(numbers) > 0 && numbers[0] == 0 {
		if len(numbers) == 1 {
			return "the pickup"
		}
		return "the pickup to measure " + strconv.Itoa(numbers[len(numbers)-1])
	}
	return listed(numbers)
}

// listed says measures: "measure 3", "measures 3 and 4", "measures 3 to 6".
func listed(numbers []int) string {
	switch len(numbers) {
	case 0:
		return ""
	case 1:
		return "measure " + strconv.Itoa(numbers[0])
	case 2:
		return fmt.Sprintf("measures %d and %d", numbers[0], numbers[1])
	}
	first, last := numbers[0], numbers[len(numbers)-1]
	if last-first == len(numbers)-1 {
		return fmt.Sprintf("measures %d to %d", first, last)
	}
	if len(numbers) == 3 {
		return fmt.Sprintf("measures %d, %d and %d", first, numbers[1], last)
	}
	return fmt.Sprintf("measures %d, %d to %d", first, numbers[1], last)
}

// again says which chunks need not be learned, as they are this one; "" for none.
func (b *builder) again(m Move) string {
	var same []string
	for _, p := range b.line.Chunks {
		if p.Same == m.key && p.Key != m.key && !p.Whole() {
			if c, there := b.chunkOf(p.Key); there {
				same = append(same, Measures(c))
			}
		}
	}
	if len(same) == 0 {
		return ""
	}
	verb := " are the same."
	if len(same) == 1 && strings.HasPrefix(same[0], "measure ") {
		verb = " is the same."
	}
	if len(same) > 2 { // so that it can be said in a breath
		same = append(same[:1], "others")
	}
	text := strings.Join(same, " and ") + verb
	return strings.ToUpper(text[:1]) + text[1:]
}
