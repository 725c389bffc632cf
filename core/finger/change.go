package finger

import (
	"fmt"
	"strconv"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Change is what it takes to get from one note to the next.
type Change struct {
	Cost int    `json:"cost"` // 0 for nothing to do
	Why  string `json:"why"`
	Hard bool   `json:"-"` // a teacher would stop at it: its cost is Hard or more, or it is of a kind that goes wrong however little moves
}

// Hard is the cost from which a change is hard whatever its kind. Hard by kind are:
// across a break or a register, the same fingering on another partial, a far slide,
// a string crossing into another finger pattern, a shift, fingers that slide into an
// extension together, a finger that moves within its string in the first two years,
// and one that slides from key to key. Source: common practice; the figure is ours.
const Hard = 6

// Played is a note with the fingering it is played with.
type Played struct {
	Pitch score.Pitch
	Text  string
}

// ChangeBetween gives the cost of going from one note to the next and its reason
// in words, in a year of playing. The weights are ours: a finger moved is 1, and so
// is each pair that moves in opposite directions; what hands find harder is said
// beside each rule.
func ChangeBetween(i instrument.Instrument, from, to Played, year int) Change {
	if from.Text == "" || to.Text == "" {
		return Change{}
	}
	c := changerOf(i, year)
	var why reasons
	cost := c.cost(c.take(from), c.take(to), &why)
	return Change{Cost: cost, Why: why.sentence(), Hard: cost >= Hard || why.hard}
}

// changer knows the changes of one instrument.
type changer struct {
	take func(Played) hand                     // takes a fingering apart
	cost func(from, to hand, why *reasons) int // with its reasons, where why is not nil
}

// hand is a fingering taken apart, so that a change is cheap to weigh. Each
// mechanism uses its own fields.
type hand struct {
	midi     int
	keys     uint64 // keys or valves that are down, a bit each
	partial  int
	position int  // of the slide; of a hand on strings, in semitones above the open string
	attached bool // the F attachment, or the thumb of a double horn
	line     int  // which string, from the lowest
	finger   int
	moved    int // how a finger is set apart in its hand
	stick    string
}

func changerOf(i instrument.Instrument, year int) changer {
	switch i.Mechanism {
	case instrument.Woodwind:
		return woodwindChanges(i)
	case instrument.Valves:
		return valveChanges(i)
	case instrument.Slide:
		return slideChanges()
	case instrument.Strings:
		return stringChanges(i, year)
	case instrument.Bars:
		return changer{take: func(p Played) hand { return hand{midi: p.Pitch.MIDI()} }, cost: barChange}
	case instrument.Drums:
		return drumChanges(i)
	}
	return changer{take: func(p Played) hand { return hand{stick: p.Text} }, cost: stickChange}
}

// reasons collects what a change asks, in words. A nil pointer collects nothing.
type reasons struct {
	words []string
	hard  bool
}

func (r *reasons) say(text string) {
	if r != nil {
		r.words = append(r.words, text)
	}
}

// sayHard says what makes a change hard by its kind.
func (r *reasons) sayHard(text string) {
	if r != nil {
		r.say(text)
		r.hard = true
	}
}

// opposite says how many go down and up at once, if any do.
func (r *reasons) opposite(down, up int) {
	if r != nil && min(down, up) > 0 {
		r.say(fmt.Sprintf("%d down while %d up", down, up))
	}
}

func (r *reasons) sentence() string {
	if len(r.words) == 0 {
		return "nothing moves"
	}
	return strings.Join(r.words, ", ")
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

// lipWork is what the lip has to do for an interval in half steps: nothing to a
// third, 1 to a fifth, 2 beyond. The figures are ours.
func lipWork(halfSteps int) int {
	switch halfSteps = max(halfSteps, -halfSteps); {
	case halfSteps <= 4:
		return 0
	case halfSteps <= 7:
		return 1
	}
	return 2
}

// lipCost is the work of the lip. Where nothing else moves, which still says so, it
// counts double and 1 more, and is always hard, since nothing helps the ear.
func lipCost(from, to hand, moved int, still string, why *reasons) int {
	lip := lipWork(to.midi - from.midi)
	if from.partial == to.partial {
		return 0
	}
	text := ""
	if why != nil {
		text = fmt.Sprintf("the lip goes from partial %d to %d", from.partial, to.partial)
	}
	if moved > 0 {
		if lip > 0 {
			why.say(text)
		}
		return lip
	}
	why.sayHard(still + ": " + text)
	return 2*lip + 1
}
