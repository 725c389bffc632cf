package finger

import (
	"fmt"
	"strings"
)

// fingerLittle shares the clarinet's little-finger keys between the hands, so that
// no finger slides from key to key where the other hand has the key too: over each
// unbroken run of such notes the fewest slides, then the fewest alternates, then
// what the exercise has already, then the earlier note its usual way. Source:
// common practice.
func (l *melody) fingerLittle() {
	has := map[int]string{} // what each note was played with last
	for from := 0; from < len(l.notes); {
		to := from
		for to < len(l.notes) && l.notes[to].choice.littleKey() != 0 && (to == from || !l.notes[to].rested) {
			to++
		}
		if to-from > 1 {
			l.shareLittle(from, to, has)
		}
		for ; from < to; from++ {
			has[l.notes[from].midi] = l.notes[from].choice.Text
		}
		if from < len(l.notes) && l.notes[from].choice.littleKey() == 0 {
			from++
		}
	}
}

// The keys that both little fingers of a clarinet have, for the left and the right.
var leftLittle, rightLittle = littleKeys("L-"), littleKeys("R-")

func littleKeys(hand string) uint64 {
	var keys uint64
	for k, name := range commonLayout.order {
		if strings.HasPrefix(name, hand) {
			keys |= 1 << k
		}
	}
	return keys
}

// littleKey is the key a clarinet's fingering gives to a little finger, 0 for none.
func (s Shape) littleKey() uint64 { return s.Keys & (leftLittle | rightLittle) }

// littleCost is what is to be least, the weightiest first.
type littleCost struct{ slides, alternates, changed int }

func (a littleCost) less(b littleCost) bool {
	switch {
	case a.slides != b.slides:
		return a.slides < b.slides
	case a.alternates != b.alternates:
		return a.alternates < b.alternates
	}
	return a.changed < b.changed
}

func (a littleCost) plus(b littleCost) littleCost {
	return littleCost{a.slides + b.slides, a.alternates + b.alternates, a.changed + b.changed}
}

// shareLittle fingers the run from one note up to another, which it leaves out.
// From the end backwards it knows the least cost of each way of going on.
func (l *melody) shareLittle(from, to int, has map[int]string) {
	ways := make([][]Fingering, to-from)
	least := make([][]littleCost, to-from)
	for n := to - from - 1; n >= 0; n-- {
		ways[n] = l.littleWays(from + n)
		least[n] = make([]littleCost, len(ways[n]))
		for w, way := range ways[n] {
			least[n][w] = l.littleAlone(from+n, way.Text, has)
			if n+1 < len(ways) {
				next := l.bestLittle(from+n+1, way, ways[n+1], least[n+1])
				least[n][w] = least[n][w].plus(least[n+1][next]).plus(l.littleSlide(from+n+1, way, ways[n+1][next]))
			}
		}
	}
	before := Fingering{}
	for n := range ways {
		way := ways[n][l.bestLittle(from+n, before, ways[n], least[n])]
		l.rule(from+n, way.Text, l.littleWhy(from, to, from+n))
		before = way
	}
}

// littleWays lists the usual way and those that differ in the little finger's hand.
func (l *melody) littleWays(k int) []Fingering {
	c := l.notes[k].choice
	ways := []Fingering{c.Fingering}
	if l.notes[k].fixed {
		return ways
	}
	for _, way := range c.Alternates {
		if way.littleKey() != 0 {
			ways = append(ways, way)
		}
	}
	return ways
}

func (l *melody) littleAlone(k int, text string, has map[int]string) littleCost {
	cost := littleCost{}
	if text != l.notes[k].choice.Usual {
		cost.alternates = 1
	}
	if known := has[l.notes[k].midi]; known != "" && known != text {
		cost.changed = 1
	}
	return cost
}

// littleSlide counts a slide from one way to the k-th note's, and a change of hand
// on a note that is struck again as one, since a repeated note keeps its fingering.
func (l *melody) littleSlide(k int, before, now Fingering) littleCost {
	a, b := before.littleKey(), now.littleKey()
	oneHand := (a|b)&leftLittle == a|b || (a|b)&rightLittle == a|b
	if before.Text != "" && a != b && (oneHand || l.notes[k].midi == l.notes[k-1].midi) {
		return littleCost{slides: 1}
	}
	return littleCost{}
}

// bestLittle is the way of the k-th note to go on with after another; the usual one
// comes first.
func (l *melody) bestLittle(k int, before Fingering, ways []Fingering, least []littleCost) int {
	best := 0
	for w := 1; w < len(ways); w++ {
		cost := least[w].plus(l.littleSlide(k, before, ways[w]))
		if cost.less(least[best].plus(l.littleSlide(k, before, ways[best]))) {
			best = w
		}
	}
	return best
}

// littleWhy names the neighbour for which the hand is changed.
func (l *melody) littleWhy(from, to, k int) string {
	for _, j := range l.neighbours(k) {
		if j >= from && j < to {
			return fmt.Sprintf("the other hand, so that no little finger slides between it and %s", l.called(j))
		}
	}
	return "the other hand, so that no little finger slides"
}
