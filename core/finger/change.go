package finger

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Change is what it takes to get from one note to the next.
type Change struct {
	Cost int    `json:"cost"` // 0 for nothing to do; from Hard on a teacher would stop at it
	Why  string `json:"why"`
}

// Hard is the cost from which a change is worth a drill of its own.
const Hard = 6

// Played is a note with the fingering it is played with.
type Played struct {
	Pitch score.Pitch
	Text  string
}

// ChangeBetween gives the cost of going from one note to the next and its reason
// in words. The weights are ours: a finger moved is 1, and so is each pair that
// moves in opposite directions; what hands find harder is said beside each rule.
func ChangeBetween(i instrument.Instrument, from, to Played) Change {
	if from.Text == "" || to.Text == "" {
		return Change{}
	}
	switch i.Mechanism {
	case instrument.Woodwind:
		return woodwindChange(i, from, to)
	case instrument.Valves:
		return valveChange(i, from, to)
	case instrument.Slide:
		return slideChange(from, to)
	case instrument.Strings:
		return stringChange(i, from, to)
	case instrument.Bars:
		return barChange(from, to)
	}
	return stickChange(from, to)
}

// join ends a list of reasons as a sentence.
func join(reasons []string) string {
	if len(reasons) == 0 {
		return "nothing moves"
	}
	return strings.Join(reasons, ", ")
}

func count(n int, one, many string) string {
	if n == 1 {
		return "one " + one
	}
	return strconv.Itoa(n) + " " + many
}

// crossing is how many pairs of fingers after the first move in opposite
// directions.
func crossing(down, up int) int { return max(min(down, up)-1, 0) }

// registerKeys open another register rather than another hole.
var registerKeys = map[string]bool{"R": true, "oct": true, "oct1": true, "oct2": true, "half": true}

// woodwindChange counts the keys that go down and up. A register key adds 2, the
// clarinet's break 4 more, and a little finger that slides from key to key 2.
func woodwindChange(i instrument.Instrument, from, to Played) Change {
	a, b := keysOf(from.Text), keysOf(to.Text)
	down, up, register := 0, 0, false
	for _, key := range b {
		if !slices.Contains(a, key) {
			down++
			register = register || registerKeys[key]
		}
	}
	for _, key := range a {
		if !slices.Contains(b, key) {
			up++
			register = register || registerKeys[key]
		}
	}
	c := Change{Cost: down + up + crossing(down, up)}
	var reasons []string
	switch moved := down + up; {
	case moved == 0 && from.Pitch.MIDI() != to.Pitch.MIDI():
		c.Cost += 3
		reasons = append(reasons, "no finger moves: the air alone changes the octave")
	case moved > 0:
		reasons = append(reasons, count(moved, "finger moves", "fingers move"))
	}
	if opposite := min(down, up); opposite > 0 {
		reasons = append(reasons, fmt.Sprintf("%d down while %d up", down, up))
	}
	if register {
		c.Cost += 2
		reasons = append(reasons, "the register changes")
	}
	if strings.HasSuffix(i.ID, "clarinet") && (from.Pitch.MIDI() > lastThroatNote) != (to.Pitch.MIDI() > lastThroatNote) {
		c.Cost += 4
		reasons = append(reasons, "over the break")
	}
	if slides(a, b) {
		c.Cost += 2
		reasons = append(reasons, "a little finger slides from key to key")
	}
	c.Why = join(reasons)
	return c
}

// lastThroatNote is the clarinet's B flat in the staff, below the break.
const lastThroatNote = 70

// keysOf lists the keys pressed, each with its hand: left-hand and right-hand keys
// may share a name.
func keysOf(text string) []string {
	left, right, _ := strings.Cut(text, "|")
	keys := strings.Fields(left)
	for _, key := range strings.Fields(right) {
		if slices.Contains(keys, key) {
			key = "right " + key
		}
		keys = append(keys, key)
	}
	return keys
}

// littleFinger lists the keys of each little finger.
var littleFinger = [][]string{
	{"L-E", "L-F#", "L-F", "L-C#", "L-Eb", "G#", "B", "Bb"},
	{"R-E", "R-F", "R-F#", "R-Ab", "R-Eb", "Eb", "C#", "C"},
}

func slides(a, b []string) bool {
	for _, keys := range littleFinger {
		left, taken := false, false
		for _, key := range keys {
			was, is := slices.Contains(a, key), slices.Contains(b, key)
			left = left || was && !is
			taken = taken || is && !was
		}
		if left && taken {
			return true
		}
	}
	return false
}

// valveChange counts the valves that move, and adds 1 for each partial the lip
// crosses; where no valve moves to help the ear the lip's work counts double.
func valveChange(i instrument.Instrument, from, to Played) Change {
	a, b := valvesOf(from.Text), valvesOf(to.Text)
	moved, down, up := 0, 0, 0
	for valve := range a {
		if a[valve] != b[valve] {
			moved++
			if b[valve] {
				down++
			} else {
				up++
			}
		}
	}
	c := Change{Cost: moved + crossing(down, up)}
	var reasons []string
	if moved > 0 {
		reasons = append(reasons, count(moved, "valve moves", "valves move"))
	}
	if min(down, up) > 0 {
		reasons = append(reasons, fmt.Sprintf("%d down while %d up", down, up))
	}
	if a[0] == b[0] { // partials of different tubes do not compare
		reasons = c.addLip(reasons, partialOf(i, from), partialOf(i, to), "no valve moves")
	}
	c.Why = join(reasons)
	return c
}

// addLip adds 1 for each partial the lip crosses. Where nothing else moves, which
// still says so, its work counts double and 1 more, since nothing helps the ear.
func (c *Change) addLip(reasons []string, from, to int, still string) []string {
	lip := max(from-to, to-from)
	if lip == 0 {
		return reasons
	}
	text := "the lip goes from partial " + strconv.Itoa(from) + " to " + strconv.Itoa(to)
	if len(reasons) == 0 {
		c.Cost += lip + 1
		text = still + ": " + text
	}
	c.Cost += lip
	return append(reasons, text)
}

// valvesOf says which of the thumb and the three valves are down.
func valvesOf(text string) [4]bool {
	return [4]bool{strings.Contains(text, "T"), strings.Contains(text, "1"), strings.Contains(text, "2"), strings.Contains(text, "3")}
}

var valveSemitones = map[string]int{"0": 0, "2": 1, "1": 2, "1-2": 3, "3": 3, "2-3": 4, "1-3": 5, "1-2-3": 6}

// partialOf is the number of the partial a note is on.
func partialOf(i instrument.Instrument, p Played) int {
	pedal, text := i.Pedal, p.Text
	if flat, ok := strings.CutPrefix(text, "T"); ok {
		pedal, text = hornFlatPedal, flat
	}
	return nearestPartial(p.Pitch.MIDI() + valveSemitones[text] - pedal)
}

// partialSemitones is how far partials 1 to 12 lie above the pedal, rounded.
var partialSemitones = [...]int{0, 12, 19, 24, 28, 31, 34, 36, 38, 40, 42, 43}

func nearestPartial(semitones int) int {
	best, least := 1, -1
	for k, s := range partialSemitones {
		if d := max(s-semitones, semitones-s); least < 0 || d < least {
			best, least = k+1, d
		}
	}
	return best
}

// slideChange is the distance of the slide, 1 more when it is three positions or
// farther, 1 for each partial the lip crosses, and 1 for the attachment.
func slideChange(from, to Played) Change {
	a, triggerA := positionOf(from.Text)
	b, triggerB := positionOf(to.Text)
	distance := max(a-b, b-a)
	c := Change{Cost: distance}
	var reasons []string
	if distance > 0 {
		way := "out"
		if b < a {
			way = "in"
		}
		reasons = append(reasons, fmt.Sprintf("the slide goes %s, %s", way, count(distance, "position", "positions")))
	}
	if distance >= 3 {
		c.Cost++
	}
	if triggerA != triggerB { // partials of different tubes do not compare
		c.Cost++
		reasons = append(reasons, "the attachment changes")
	} else {
		reasons = c.addLip(reasons, slidePartial(from, a, triggerA), slidePartial(to, b, triggerB), "the slide stays")
	}
	c.Why = join(reasons)
	return c
}

func positionOf(text string) (position int, trigger bool) {
	rest, trigger := strings.CutPrefix(text, "F")
	if rest != "" {
		position = int(rest[0] - '0')
	}
	return position, trigger
}

func slidePartial(p Played, position int, trigger bool) int {
	pedal := slidePedal
	if trigger {
		pedal = attachmentPedal
	}
	return nearestPartial(p.Pitch.MIDI() + position - 1 - pedal)
}

// stringChange counts 1 for another finger, 1 for each string crossed, 2 for a
// finger that slides to another place on its string, 1 for a crossing that finds
// the hand in another pattern, and 3 for a shift.
func stringChange(i instrument.Instrument, from, to Played) Change {
	a, b := placeOf(i, from.Text), placeOf(i, to.Text)
	c := Change{}
	var reasons []string
	crossed := max(a.line-b.line, b.line-a.line)
	if crossed > 0 {
		c.Cost += crossed
		reasons = append(reasons, count(crossed, "string crossed", "strings crossed"))
	}
	switch {
	case a.finger != b.finger:
		c.Cost++
		reasons = append(reasons, "another finger")
	case a.finger > 0 && a.moved != b.moved && crossed == 0:
		c.Cost += 2
		reasons = append(reasons, "the same finger moves to another place")
	}
	if crossed > 0 && a.moved != b.moved && b.finger > 0 {
		c.Cost++
		reasons = append(reasons, "into another finger pattern")
	}
	if a.position != b.position && a.finger > 0 && b.finger > 0 {
		c.Cost += 3
		reasons = append(reasons, "the hand shifts")
	}
	c.Why = join(reasons)
	return c
}

// stoppedAt is a string fingering taken apart.
type stoppedAt struct {
	line     int // string, from the lowest
	finger   int
	moved    string
	position string
}

func placeOf(i instrument.Instrument, text string) stoppedAt {
	at := stoppedAt{}
	for k, open := range i.OpenStrings {
		if open.Step.String() == text[:1] {
			at.line = k
		}
	}
	rest, position, _ := strings.Cut(strings.TrimSpace(text[1:]), "(")
	at.position = strings.TrimSuffix(position, ")")
	if rest != "" {
		at.finger = int(rest[len(rest)-1] - '0')
		at.moved = rest[:len(rest)-1]
	}
	return at
}

// barChange is 1 for each third or part of one the hands travel, and 1 for the
// other row.
func barChange(from, to Played) Change {
	away := from.Pitch.MIDI() - to.Pitch.MIDI()
	away = max(away, -away)
	c := Change{Cost: (away + 3) / 4}
	var reasons []string
	if away > 0 {
		reasons = append(reasons, count(away, "half step along the bars", "half steps along the bars"))
	}
	if row(from.Pitch) != row(to.Pitch) {
		c.Cost++
		reasons = append(reasons, "to the other row")
	}
	c.Why = join(reasons)
	return c
}

// row is whether a bar lies in the upper row, that of the sharps and flats.
func row(p score.Pitch) bool {
	switch ((p.MIDI() % 12) + 12) % 12 {
	case 1, 3, 6, 8, 10:
		return true
	}
	return false
}

// stickChange is 1 for the same hand twice.
func stickChange(from, to Played) Change {
	if from.Text == to.Text {
		return Change{1, "the same hand again"}
	}
	return Change{0, "the other hand"}
}
