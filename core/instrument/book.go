package instrument

import "unhurriedbench/core/score"

// furthestJump is a major sixth, doubled: how far the middles of two lines that follow each
// other in a book lie apart at most, where both can. Our own figure.
const furthestJump = 2 * 9

// BookLine is a line of a book: what parts are made from, and for whom it is written.
type BookLine struct {
	Source     score.Part
	WrittenFor string // the id of an instrument, "" for none
}

// InBook finds the octaves of a book's lines for an instrument, against their sources: each
// lies as it would alone, but where two lines that follow each other would lie more than a
// sixth apart and both fit nearer to each other, they do. Lines without pitch,
// and those written for the instrument, are as they are. Source: common practice of
// beginners' books, which keep a player in one register from line to line.
func InBook(lines []BookLine, target Instrument) []int {
	octaves := make([]int, len(lines))
	if target.Unpitched() || target.Mechanism == Drums {
		return octaves
	}
	// way is a line in an octave: all that speaks against the lines up to it, and the
	// candidate of the line before that goes with it.
	type way struct{ octaves, middle, cost, before int }
	var ways [][]way
	var at []int
	for n, line := range lines {
		if line.Source.Unpitched() || len(line.Source.Notes()) == 0 {
			continue
		}
		var candidates []way
		for _, s := range seatsOf(line.Source, line.WrittenFor, target) {
			candidates = append(candidates, way{octaves: s.octaves, middle: s.middle, cost: s.further, before: -1})
		}
		if last := len(ways) - 1; last >= 0 {
			for k := range candidates {
				c := &candidates[k]
				best := -1
				for j, before := range ways[last] {
					cost := before.cost
					if distance(before.middle, c.middle) > furthestJump {
						cost += jumpCost
					}
					if best < 0 || cost < best {
						best, c.before = cost, j
					}
				}
				c.cost += best
			}
		}
		ways, at = append(ways, candidates), append(at, n)
	}
	if len(ways) == 0 {
		return octaves
	}
	k := 0
	for j, w := range ways[len(ways)-1] {
		if w.cost < ways[len(ways)-1][k].cost {
			k = j
		}
	}
	for n := len(ways) - 1; n >= 0; n-- {
		octaves[at[n]] = ways[n][k].octaves
		k = ways[n][k].before
	}
	return octaves
}

// jumpCost outweighs several lines that lie further from home than they would alone, and one
// that lies where only the year after has it, which costs laterCost.
const (
	jumpCost  = 60
	laterCost = 40
)

// possible is an octave a line could lie in.
type possible struct {
	octaves int
	middle  int // doubled, of its lowest and highest note
	further int // from home than the octave it has alone, doubled half steps
}

// seatsOf lists the octaves that hold a line in the year that its own octave is for, or the
// one after, its own first.
func seatsOf(source score.Part, writtenFor string, target Instrument) []possible {
	base := baseMove(source, target)
	low, high := extent(source)
	middle := func(octaves int) int { return low.MIDI() + high.MIDI() + 2*base.Semitones + 24*octaves }
	if writtenFor == target.ID {
		return []possible{{0, middle(0), 0}}
	}
	own := seatOf(source, base, target)
	list := []possible{{own.octaves, middle(own.octaves), 0}}
	if own.year == 0 {
		return list
	}
	home, reach := 2*target.tessituraOf(source, base), Range{target.Lowest, target.Highest}
	for octaves := -furthest; octaves <= furthest; octaves++ {
		if octaves == own.octaves {
			continue
		}
		further := max(1, distance(middle(octaves), home)-distance(middle(own.octaves), home))
		_, fits := passing(source, base.Semitones+12*octaves, target.Comfort(own.year), reach)
		_, later := passing(source, base.Semitones+12*octaves, target.Comfort(own.year+1), reach)
		switch {
		case fits:
			list = append(list, possible{octaves, middle(octaves), further})
		case later:
			list = append(list, possible{octaves, middle(octaves), further + laterCost})
		}
	}
	return list
}
