package finger

import (
	"math/bits"
	"slices"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// table is a woodwind's fingerings by MIDI number of the written note, default
// first.
type table map[int][]Fingering

// parseTable reads lines of a note and its ways to be played, parted by " / ";
// behind each alternate a colon and when to use it. It panics on a bad line, which
// every test would show.
func parseTable(l *layout, text string) table {
	t := table{}
	for _, line := range strings.Split(strings.TrimSpace(text), "\n") {
		note, ways, found := strings.Cut(strings.TrimSpace(line), " ")
		if !found {
			continue
		}
		midi := score.MustPitch(note).MIDI()
		for _, way := range strings.Split(ways, " / ") {
			keys, why, _ := strings.Cut(way, ": ")
			f, ok := l.onKeys(strings.TrimSpace(keys))
			if !ok {
				panic("a fingering is misspelled, out of hand order or does not part the hands: " + line)
			}
			f.Why = why
			t[midi] = append(t[midi], f)
		}
	}
	return t
}

// woodwindTables is the table of each layout of keys, for all its sizes.
var woodwindTables = map[instrument.KeyLayout]table{
	instrument.FluteKeys: parseTable(commonLayout, fluteTable), instrument.OboeKeys: parseTable(commonLayout, oboeTable),
	instrument.BassoonKeys: parseTable(bassoonLayout, bassoonTable),
	instrument.ClarinetKeys: parseTable(
		commonLayout,
		bassClarinetLow+clarinetTable,
	), instrument.SaxophoneKeys: parseTable(commonLayout, saxTable+saxHigh),
}

// tableOf is as much of its layout's table as lies in a woodwind's range.
func tableOf(i instrument.Instrument) table {
	own := table{}
	for midi, ways := range woodwindTables[i.Keys] {
		if i.Lowest.MIDI() <= midi && midi <= i.Highest.MIDI() {
			own[midi] = ways
		}
	}
	return own
}

// layout is the keys of a woodwind in hand order, each a bit of a hand.
type layout struct {
	order    []string // with "|" between the hands
	bar      int      // where that is
	register uint64   // keys that open another register rather than another hole
	shared   []shared
	thumb    uint64 // the left thumb's, of which it presses one group at a time

	thumbsFirst bool // what stands before the first finger of either hand is its thumb's
}

// shared is a set of keys that one finger presses in turn.
type shared struct {
	finger string
	keys   uint64
}

var (
	commonLayout = newLayout("oct oct1 oct2 T TBb R A frontF half 1 bis 2 3 G# L-E L-F# L-F L-C# L-Eb palmD palmEb palmF F Eb C# B Bb | "+
		"4 5 6 sliver tr1 tr2 sideEb sideBb sideC sideF# highE highF# Eb F C# C R-E R-F R-F# R-Ab R-Eb",
		"oct oct1 oct2 half", "G# L-E L-F# L-F L-C# L-Eb F Eb C# B Bb", "Eb C# C R-E R-F R-F# R-Ab R-Eb", "6 F", "T TBb")
	bassoonLayout = newLayout("W lowD lowC lowB lowBb C# flickA flickC flickD half 1 2 3 Eb C# | pancakeE F# Ab Bb 4 5 6 F F# Ab",
		"half", "Eb C#", "F F# Ab", "", "").withThumbsFirst()
)

func layoutOf(i instrument.Instrument) *layout {
	if i.Keys == instrument.BassoonKeys {
		return bassoonLayout
	}
	return commonLayout
}

func (l *layout) withThumbsFirst() *layout {
	l.thumbsFirst = true
	return l
}

func newLayout(order, register, left, right, ring, thumb string) *layout {
	l := &layout{order: strings.Fields(order)}
	bar := slices.Index(l.order, "|")
	l.bar = bar
	mask := func(keys string, from, to int) uint64 {
		var m uint64
		for _, key := range strings.Fields(keys) {
			for k := from; k < to; k++ {
				if l.order[k] == key {
					m |= 1 << k
				}
			}
		}
		return m
	}
	last, six := slices.Index(l.order, "3"), slices.Index(l.order, "6")
	l.register = mask(register, 0, len(l.order))
	l.shared = []shared{
		{"the left little finger", mask(left, last, bar)}, {"the right little finger", mask(right, six, len(l.order))},
		{"the right ring finger", mask(ring, bar, len(l.order))},
	}
	l.thumb = mask(thumb, 0, bar)
	return l
}

// keys reads a fingering's text as bits; ok is false where a key is misspelled or
// out of hand order.
func (l *layout) keys(text string) (down uint64, ok bool) {
	at := -1
	for key := range strings.FieldsSeq(text) {
		next := slices.Index(l.order[at+1:], key)
		if next < 0 {
			return down, false
		}
		at += 1 + next
		if key != "|" {
			down |= 1 << at
		}
	}
	return down, strings.Contains(text, "|")
}

// lastThroatNote is the clarinet's B flat in the staff, below the break.
const lastThroatNote = 70

// mask is the keys of a text that need not be a whole fingering: "6 F", "| Bb". It
// panics on a misspelled one, which every test would show.
func (l *layout) mask(text string) uint64 {
	keys, _ := l.keys(text)
	if named := len(strings.Fields(strings.ReplaceAll(text, "|", ""))); bits.OnesCount64(keys) != named {
		panic("no such keys: " + text)
	}
	return keys
}

// woodwindChange counts the keys that go down and up. A register key adds 2; the
// clarinet's break, which has its own, 6, and one more upwards, where all fingers
// must close at once; a finger that slides from key to key 7, as every hand avoids
// it; and a thumb that slides 1.
func woodwindChange(i instrument.Instrument, from, to Played, why *reasons) int {
	l := layoutOf(i)
	pressed, lifted := to.Keys&^from.Keys, from.Keys&^to.Keys
	cost := l.fingers(from, to, pressed, lifted, why)
	if (pressed|lifted)&l.register != 0 {
		cost += 2
		why.sayHard("the register changes")
	}
	if upwards := to.Pitch.MIDI() > lastThroatNote; i.HasBreak && (from.Pitch.MIDI() > lastThroatNote) != upwards {
		cost += 6
		why.sayHard("over the break")
		if upwards {
			cost++
		}
	}
	for _, s := range l.shared {
		if pressed&s.keys != 0 && lifted&s.keys != 0 {
			cost += 7
			why.sayHard(s.finger + " slides from key to key")
		}
	}
	return cost
}

// fingers is the cost of what goes down and up.
func (l *layout) fingers(from, to Played, pressed, lifted uint64, why *reasons) int {
	cost := 0
	if thumb := l.thumb; pressed&thumb != 0 && lifted&thumb != 0 { // it slides, and is one finger
		pressed, lifted, cost = pressed&^thumb, lifted&^thumb, 2
		why.say("the thumb slides")
	}
	down, up := bits.OnesCount64(pressed), bits.OnesCount64(lifted)
	moved := down + up
	switch {
	case moved == 0 && cost == 0 && from.Pitch.MIDI() != to.Pitch.MIDI():
		why.sayHard("no finger moves: the air alone changes the octave")
		return 3
	case moved > 0 && why != nil:
		why.say(count(moved, "finger moves", "fingers move"))
		why.opposite(down, up)
	}
	return cost + moved + crossing(down, up)
}
