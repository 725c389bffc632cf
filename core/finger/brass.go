package finger

import (
	"fmt"
	"math"
	"math/bits"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// The valves by their number.
const (
	first uint64 = 1 << (iota + 1)
	second
	third
	fourth
)

// valveSets is the valve combination that lowers the open tube by 0 to 6
// semitones: valve 2 lowers one, valve 1 two, valve 3 three. Source: Benade,
// Fundamentals of Musical Acoustics; 1-2 is preferred to 3 by common practice.
var valveSets = []uint64{0, second, first, first | second, second | third, first | third, first | second | third}

// fourValveSets has the fourth valve, which lowers five semitones, in place of
// the combinations that are too short for their note, and below them. Source:
// common practice.
var fourValveSets = []uint64{
	0, second, first, first | second, second | third, fourth, second | fourth, first | fourth, first | second | fourth,
	second | third | fourth, first | third | fourth,
}

// valveSemitones is what each valve lowers the tube by, by its number.
var valveSemitones = [...]int{0, 2, 1, 3, 5}

// partial is a resonance of the open tube, in semitones above the pedal note.
type partial struct {
	number    int
	semitones int
}

// openPartials are the partials players use; the seventh is a third of a
// semitone flat and is left out: only a slide can make up for it.
var openPartials = []partial{{2, 12}, {3, 19}, {4, 24}, {5, 28}, {6, 31}, {8, 36}}

// brassFor lists the fingerings of a note on an instrument with valves, the one
// to learn first at the front.
func brassFor(i instrument.Instrument, p score.Pitch) []Fingering {
	var found []Fingering
	switch {
	case i.ThumbSide:
		found = doubleHorn(p)
	case i.Horn:
		found = hornF(p)
	default:
		found = onPartials(p, i.Pedal, openPartials, i.Valves)
	}
	for k := range found {
		found[k].Care = care(i, found[k])
	}
	return found
}

// onPartials lists the valve sets that reach a note from the given partials,
// lowest partial first, which is the shortest tube.
func onPartials(p score.Pitch, pedal int, partials []partial, valves int) []Fingering {
	sets := valveSets
	if valves == 4 {
		sets = fourValveSets
	}
	var found []Fingering
	for _, open := range partials {
		down := pedal + open.semitones - p.MIDI()
		if down < 0 || down >= len(sets) || down > 6 && open.number > 2 {
			continue
		}
		add := func(keys uint64, why string) {
			f := onValves(keys, open.number)
			f.Why = why
			found = append(found, f)
		}
		add(sets[down], fmt.Sprintf("the same note on partial %d: a longer tube, to match a neighbour", open.number))
		switch {
		case down == 3:
			add(third, "valve 3 alone is the same length as 1 and 2 together")
		case down == 5 && valves == 4:
			add(first|third, "without the fourth valve: sharp")
		case down == 6 && valves == 4:
			add(first|second|third, "without the fourth valve: sharper still")
		}
	}
	return found
}

// sharpFrom is from how many cents a fingering is said to be out of tune: what an
// ear in a school band hears and a lip cannot quite hide (common practice).
const sharpFrom = 13

// care says what is out of tune and what to do about it.
func care(i instrument.Instrument, f Fingering) string {
	var words []string
	if f.Partial == 5 {
		words = append(words, fmt.Sprintf("partial 5 is %d cents flat: hear it first, and lift it", -centsOff(5)))
	}
	long := f.Keys&first != 0 && f.Keys&third != 0 || f.Keys&fourth != 0
	if sharp := combinationSharp(f.Keys); sharp > sharpFrom && f.valves() > 1 && long {
		remedy := "lip it down"
		switch {
		case i.ThirdSlide:
			remedy = "third-valve slide out"
		case i.Valves == 4 && f.Keys&fourth == 0:
			remedy = "use the fourth valve"
		case i.Family == "brass":
			remedy = "pull the third-valve slide if it moves, or lip it down"
		}
		words = append(words, fmt.Sprintf("%s is too short by about %d cents: %s", onValves(f.Keys&^thumbValve,
			0).Text, sharp, remedy))
	}
	return strings.Join(words, "; ")
}

// centsOff is how far a partial lies above equal temperament, in cents.
func centsOff(n int) int {
	cents := 1200 * math.Log2(float64(n))
	return int(math.Round(cents - 100*math.Round(cents/100)))
}

// combinationSharp is by how many cents a combination of valves sounds too high,
// each loop being right for itself. Source: Benade, Fundamentals of Musical
// Acoustics.
func combinationSharp(keys uint64) int {
	length, semitones := 1.0, 0
	for valve, n := range valveSemitones {
		if keys&^thumbValve&(1<<valve) != 0 {
			length += math.Exp2(float64(n)/12) - 1
			semitones += n
		}
	}
	return int(math.Round(100*float64(semitones) - 1200*math.Log2(length)))
}

// valveChange counts the valves that move, and adds what the lip has to do.
func valveChange(from, to Played, why *reasons) int {
	down, up := bits.OnesCount64(to.Keys&^from.Keys), bits.OnesCount64(from.Keys&^to.Keys)
	moved := down + up
	if why != nil && moved > 0 {
		why.say(count(moved, "valve moves", "valves move"))
		why.opposite(down, up)
	}
	cost := moved + crossing(down, up)
	if from.Attached == to.Attached { // partials of different tubes do not compare
		cost += lipCost(from, to, moved, "no valve moves", why)
	}
	return cost
}
