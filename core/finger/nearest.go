package finger

import (
	"math/bits"
	"slices"
	"strconv"

	"unhurriedbench/core/instrument"
)

// Near is a note that what is pressed nearly sounds, and what is wanting.
type Near struct {
	Note  ChartNote
	Way   Fingering
	Press []string // "the E flat key", "finger 4", "valve 2"
	Lift  []string
}

// farthest is how many keys may be wanting before a fingering is no longer near.
const farthest = 2

// mostNear is how many near notes are worth telling.
const mostNear = 3

// Nearest lists the notes of a chart whose fingerings differ least from the keys or
// valves that are pressed, by one or two, at most three of them, lowest first. A
// finger that half closes its hole in place of closing it differs by one. What some
// note is played with is not near but that note: the list is then empty, as it is for
// instruments without keys and valves.
func (w Words) Nearest(i instrument.Instrument, pressed uint64) []Near {
	if i.Mechanism != instrument.Woodwind && i.Mechanism != instrument.Valves {
		return nil
	}
	pressed &= pressable(i)
	least := farthest
	var found []Near
	for _, n := range Chart(i) {
		way, apart := nearestWay(i, n.Choice, pressed)
		if apart == 0 {
			return nil
		}
		if apart > least {
			continue
		}
		if apart < least {
			least, found = apart, nil
		}
		press, lift := way.Keys&^pressed, pressed&^way.Keys
		found = append(found, Near{Note: n, Way: way, Press: w.keysIn(i, press), Lift: w.keysIn(i, lift)})
	}
	return found[:min(len(found), mostNear)]
}

// pressable are the keys or valves that an instrument has.
func pressable(i instrument.Instrument) uint64 {
	if i.Mechanism == instrument.Valves {
		return 1<<(i.Valves+1) - 1 // the thumb's too, which does nothing where there is none
	}
	var keys uint64
	for _, key := range Keys(i) {
		keys |= 1 << key.At
	}
	return keys
}

// nearestWay is the first of a note's ways that differs least from what is pressed.
func nearestWay(i instrument.Instrument, c Choice, pressed uint64) (way Fingering, apart int) {
	ways := c.Ways()
	best := slices.MinFunc(ways, func(a, b Fingering) int {
		return keysApart(i, a.Keys, pressed) - keysApart(i,
			b.Keys, pressed)
	})
	return best, keysApart(i, best.Keys, pressed)
}

// keysApart counts what differs between two sets of keys. The half hole and its finger
// are one.
func keysApart(i instrument.Instrument, a, b uint64) int {
	differ := a ^ b
	if i.Mechanism == instrument.Woodwind {
		l := layoutOf(i)
		half, one := slices.Index(l.order, "half"), slices.Index(l.order, "1")
		if half >= 0 && differ&(1<<half) != 0 {
			differ &^= 1 << one
		}
	}
	return bits.OnesCount64(differ)
}

// keysIn names each of a set of keys or valves.
func (w Words) keysIn(i instrument.Instrument, keys uint64) []string {
	var names []string
	if i.Mechanism == instrument.Valves {
		if keys&thumbValve != 0 {
			names = append(names, "the thumb valve")
		}
		for n := 1; n < len(valveSemitones); n++ {
			if keys&(1<<n) != 0 {
				names = append(names, "valve "+strconv.Itoa(n))
			}
		}
		return names
	}
	all := Keys(i)
	for _, key := range all {
		if keys&(1<<key.At) != 0 {
			names = append(names, w.keyName(key, all))
		}
	}
	return names
}

// keyName names one of a woodwind's keys, with its hand where the other has one of the
// same name.
func (w Words) keyName(key Key, all []Key) string {
	switch {
	case isFinger(key.Name):
		return "finger " + w.fingerName(key.Name)
	case key.Name == "half":
		return "finger " + w.fingerName("1") + " by half"
	case key.Name == "T":
		return "the thumb"
	}
	hand := ""
	if slices.ContainsFunc(all, func(other Key) bool {
		return other.Right != key.Right &&
			handless(other.Name) == handless(key.Name)
	}) {
		hand = map[bool]string{true: "right ", false: "left "}[key.Right]
	}
	return "the " + hand + sayKey(key.Name)
}

// Alike lists the notes of a woodwind's chart, lowest first, that stand octaves from a written
// note and can be played the same way but for the octave keys, that note among them,
// each with that way. It is empty where the note has no such fingering, and for other
// instruments, whose alternates are chosen note by note.
func Alike(i instrument.Instrument, chart []ChartNote, midi int, text string) []Near {
	at := slices.IndexFunc(chart, func(n ChartNote) bool { return n.Spellings[0].MIDI() == midi })
	if at < 0 || !chart[at].Choice.Has(text) || i.Mechanism != instrument.Woodwind {
		return nil
	}
	register := layoutOf(i).register
	desired := chart[at].Choice.way(text).Keys &^ register
	var found []Near
	for _, n := range chart {
		if (n.Spellings[0].MIDI()-midi)%12 != 0 {
			continue
		}
		for _, way := range n.Choice.Ways() {
			if way.Keys&^register == desired {
				found = append(found, Near{Note: n, Way: way})
				break
			}
		}
	}
	return found
}
