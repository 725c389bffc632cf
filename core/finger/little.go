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
	settled := map[int]bool{}
	little := func(at int) bool { return l.notes[l.played[at].note].choice.littleKey() != 0 }
	for from := 0; from < len(l.played); {
		to := from
		for to < len(l.played) && little(to) && (to == from || !l.played[to].rested) {
			to++
		}
		if to-from > 1 {
			l.shareLittle(l.played[from:to], settled, has)
		}
		for _, p := range l.played[from:to] {
			has[l.notes[p.note].midi], settled[p.note] = l.notes[p.note].choice.Text, true
		}
		from = max(to, from+1)
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

// shareLittle fingers a run in the order in which it is played; a note that was played before
// keeps what it had. From the end backwards it knows the least cost of each way of going on.
func (l *melody) shareLittle(run []playedNote, settled map[int]bool, has map[int]string) {
	ways := make([][]Fingering, len(run))
	least := make([][]littleCost, len(run))
	for n := len(run) - 1; n >= 0; n-- {
		k := run[n].note
		ways[n] = l.littleWays(k, settled[k])
		least[n] = make([]littleCost, len(ways[n]))
		for w, way := range ways[n] {
			least[n][w] = l.littleAlone(k, way.Text, has)
			if n+1 < len(ways) {
				next := l.bestLittle(k, run[n+1].note, way, ways[n+1], least[n+1])
				least[n][w] = least[n][w].plus(least[n+1][next]).plus(l.littleSlide(k, run[n+1].note, way, ways[n+1][next]))
			}
		}
	}
	before, was := Fingering{}, -1
	for n, p := range run {
		way := ways[n][l.bestLittle(was, p.note, before, ways[n], least[n])]
		if !settled[p.note] {
			l.rule(p.note, way.Text, l.littleWhy(run, n))
		}
		before, was = way, p.note
	}
}

// littleWays lists the usual way and those that differ in the little finger's hand, or what is
// settled.
func (l *melody) littleWays(k int, settled bool) []Fingering {
	c := l.notes[k].choice
	ways := []Fingering{c.Fingering}
	if l.notes[k].fixed || settled {
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

// littleSlide counts a slide from one note's way to that of the k-th, which is played after it,
// and a change of hand on a note that is struck again as one, since a repeated note keeps its
// fingering.
func (l *melody) littleSlide(was, k int, before, now Fingering) littleCost {
	a, b := before.littleKey(), now.littleKey()
	oneHand := (a|b)&leftLittle == a|b || (a|b)&rightLittle == a|b
	if before.Text != "" && a != b && (oneHand || l.notes[k].midi == l.notes[was].midi) {
		return littleCost{slides: 1}
	}
	return littleCost{}
}

// bestLittle is the way of the k-th note to go on with after another; the usual one
// comes first.
func (l *melody) bestLittle(was, k int, before Fingering, ways []Fingering, least []littleCost) int {
	best := 0
	for w := 1; w < len(ways); w++ {
		cost := least[w].plus(l.littleSlide(was, k, before, ways[w]))
		if cost.less(least[best].plus(l.littleSlide(was, k, before, ways[best]))) {
			best = w
		}
	}
	return best
}

// littleWhy names the neighbour in a run for which the hand is changed.
func (l *melody) littleWhy(run []playedNote, n int) string {
	for _, j := range []int{n - 1, n + 1} {
		if j >= 0 && j < len(run) && l.notes[run[j].note].midi != l.notes[run[n].note].midi {
			return fmt.Sprintf("the other hand, so that no little finger slides between it and %s", l.called(run[j].note))
		}
	}
	return "the other hand, so that no little finger slides"
}
