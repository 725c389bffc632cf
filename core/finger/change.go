package finger

import (
	"fmt"
	"strconv"
	"strings"

	"unhurriedbench/core/instrument"
)

// Change is what it takes to get from one note to the next.
type Change struct {
	Cost int    `json:"cost"` // 0 for nothing to do
	Why  string `json:"why"`
	// a teacher would stop at it: its cost is Hard or more, or it is of a kind that goes wrong however little moves
	Hard bool `json:"-"`
}

// Hard is the cost from which a change is hard whatever its kind. Hard by kind are:
// across a break or a register, the same fingering on another partial, a far slide,
// a string crossing into another finger pattern, a shift, fingers that slide into an
// extension together, a finger that moves within its string in the first two years,
// and one that slides from key to key. Source: common practice; the figure is ours.
const Hard = 6

// ChangeBetween gives the cost of going from one note to the next and its reason
// in words, in a year of playing. The weights are ours: a finger moved is 1, and so
// is each pair that moves in opposite directions; what hands find harder is said
// beside each rule.
func ChangeBetween(i instrument.Instrument, from, to Played, year int) Change {
	if from.Text == "" || to.Text == "" {
		return Change{}
	}
	var why reasons
	cost := changeOf(i, from, to, year, &why)
	return Change{Cost: cost, Why: why.sentence(), Hard: cost >= Hard || why.hard}
}

// changeOf is the cost of a change, with its reasons where why is not nil.
func changeOf(i instrument.Instrument, from, to Played, year int, why *reasons) int {
	return mechanismOf(i).change(i, from, to, year, why)
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
func lipCost(from, to Played, moved int, still string, why *reasons) int {
	lip := lipWork(to.Pitch.MIDI() - from.Pitch.MIDI())
	if from.Partial == to.Partial {
		return 0
	}
	text := ""
	if why != nil {
		text = fmt.Sprintf("the lip goes from partial %d to %d", from.Partial, to.Partial)
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
