package finger

import (
	"fmt"
	"math"
	"math/bits"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// valveSets is the valve combination that lowers the open tube by 0 to 6
// semitones: valve 2 lowers one, valve 1 two, valve 3 three. Source: Benade,
// Fundamentals of Musical Acoustics; 1-2 is preferred to 3 by common practice.
var valveSets = []string{"0", "2", "1", "1-2", "2-3", "1-3", "1-2-3"}

// fourValveSets has the fourth valve, which lowers five semitones, in place of
// the combinations that are too short for their note, and below them. Source:
// common practice.
var fourValveSets = []string{"0", "2", "1", "1-2", "2-3", "4", "2-4", "1-4", "1-2-4", "2-3-4", "1-3-4"}

// valveSemitones is what each valve lowers the tube by.
var valveSemitones = map[byte]int{'1': 2, '2': 1, '3': 3, '4': 5}

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
		add := func(text, why string) { found = append(found, Fingering{Text: text, Why: why, Partial: open.number}) }
		add(sets[down], fmt.Sprintf("the same note on partial %d: a longer tube, to match a neighbour", open.number))
		switch {
		case down == 3:
			add("3", "valve 3 alone is the same length as 1 and 2 together")
		case down == 5 && valves == 4:
			add("1-3", "without the fourth valve: sharp")
		case down == 6 && valves == 4:
			add("1-2-3", "without the fourth valve: sharper still")
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
	if sharp := combinationSharp(f.Text); sharp > sharpFrom && strings.Count(f.Text, "-") > 0 && (strings.Contains(f.Text, "1-3") || strings.Contains(f.Text, "1-2-3") || strings.Contains(f.Text, "4")) {
		remedy := "lip it down"
		switch {
		case i.ID == "trumpet":
			remedy = "third-valve slide out"
		case i.Valves == 4 && !strings.Contains(f.Text, "4"):
			remedy = "use the fourth valve"
		case i.Family == "brass":
			remedy = "pull the third-valve slide if it moves, or lip it down"
		}
		words = append(words, fmt.Sprintf("%s is too short by about %d cents: %s", strings.TrimPrefix(f.Text, "T"), sharp, remedy))
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
func combinationSharp(text string) int {
	length, semitones := 1.0, 0
	for k := range len(text) {
		if n := valveSemitones[text[k]]; n > 0 {
			length += math.Exp2(float64(n)/12) - 1
			semitones += n
		}
	}
	return int(math.Round(100*float64(semitones) - 1200*math.Log2(length)))
}

// valveChanges counts the valves that move, and adds what the lip has to do.
func valveChanges(i instrument.Instrument) changer {
	return changer{
		take: func(p Played) hand {
			pedal, text := i.Pedal, p.Text
			flat, thumb := strings.CutPrefix(text, "T")
			if thumb {
				pedal, text = hornFlatPedal, flat
			}
			h := hand{midi: p.Pitch.MIDI(), attached: thumb}
			if thumb {
				h.keys = 1
			}
			lowered := 0
			for k := range len(text) {
				if n := valveSemitones[text[k]]; n > 0 {
					h.keys |= 1 << (text[k] - '0')
					lowered += n
				}
			}
			h.partial = nearestPartial(h.midi + lowered - pedal)
			return h
		},
		cost: valveChange,
	}
}

func valveChange(from, to hand, why *reasons) int {
	down, up := bits.OnesCount64(to.keys&^from.keys), bits.OnesCount64(from.keys&^to.keys)
	moved := down + up
	if why != nil && moved > 0 {
		why.say(count(moved, "valve moves", "valves move"))
		why.opposite(down, up)
	}
	cost := moved + crossing(down, up)
	if from.attached == to.attached { // partials of different tubes do not compare
		cost += lipCost(from, to, moved, "no valve moves", why)
	}
	return cost
}

// partialSemitones is how far partials 1 to 16 lie above the pedal, rounded.
var partialSemitones = [...]int{0, 12, 19, 24, 28, 31, 34, 36, 38, 40, 42, 43, 44, 46, 47, 48}

func nearestPartial(semitones int) int {
	best, least := 1, -1
	for k, s := range partialSemitones {
		if d := max(s-semitones, semitones-s); least < 0 || d < least {
			best, least = k+1, d
		}
	}
	return best
}
