package count

import (
	"strconv"
	"strings"

	"unhurriedbench/core/score"
)

// foot is what the foot does in a measure.
type foot struct {
	pace   pace
	groups []int64 // of an odd meter: how many of its eighths each big beat has; else nil
	unit   score.Fraction
}

// tap is the foot's move at a place: down on the beat, up on its second half, and in compound
// meter with its third eighth. In five and seven eight it is down on the big beats, and up
// with the last eighth of each. Source: common practice.
func (f foot) tap(place score.Fraction) Tap {
	if f.groups == nil {
		return f.pace.tap(place)
	}
	at := score.Fraction{}
	for _, n := range f.groups {
		next := at.Add(f.unit.Mul(score.Frac(n, 1)))
		switch place {
		case at:
			return Down
		case next.Sub(f.unit):
			return Up
		}
		at = next
	}
	return NoTap
}

// feet is the foot in every measure of a part.
func feet(p score.Part, o Options) []foot {
	list := make([]foot, len(p.Measures))
	liked := map[string]int{} // groupings that measures ask for by their rhythm
	for i, m := range p.Measures {
		list[i] = foot{pace: paceOf(m.Meter, o), unit: score.Frac(1, int64(max(m.Meter.Unit, 1)))}
		if ways := groupings(m.Meter); len(ways) > 1 && best(m, ways, nil) >= 0 {
			liked[spelled(ways[best(m, ways, nil)])]++
		}
	}
	for i, m := range p.Measures {
		if ways := groupings(m.Meter); len(ways) > 0 {
			list[i].groups = ways[max(best(m, ways, liked), 0)]
		}
	}
	return list
}

// groupings lists how the eighths of an odd meter may fall into twos and threes, the usual one
// first: as the meter itself says where it is a sum. Other meters have none.
func groupings(m score.Meter) [][]int64 {
	if m.Groups != "" {
		var own []int64
		for word := range strings.SplitSeq(m.Groups, "+") {
			n, _ := strconv.ParseInt(word, 10, 64) // a sum that was read
			own = append(own, n)
		}
		return [][]int64{own}
	}
	switch {
	case m.Unit < 8:
	case m.Beats == 5:
		return [][]int64{{3, 2}, {2, 3}}
	case m.Beats == 7:
		return [][]int64{{2, 2, 3}, {3, 2, 2}, {2, 3, 2}}
	}
	return nil
}

func spelled(groups []int64) string {
	words := make([]string, len(groups))
	for k, n := range groups {
		words[k] = strconv.FormatInt(n, 10)
	}
	return strings.Join(words, "+")
}

// best is the grouping whose big beats the notes of a measure begin on, and none is held over.
// Where the rhythm does not say, it is what other measures like; -1 where those are not asked.
func best(m score.Measure, ways [][]int64, liked map[string]int) int {
	unit := score.Frac(1, int64(m.Meter.Unit))
	most, at, even := -1000, 0, false
	for k, groups := range ways {
		value, place := 0, score.Fraction{}
		for _, n := range groups[:len(groups)-1] {
			place = place.Add(unit.Mul(score.Frac(n, 1)))
			for _, e := range m.Events {
				switch {
				case e.Start == place && !e.Tied:
					value++
				case e.Start.Less(place) && place.Less(e.Start.Add(e.Length)):
					value -= 2
				}
			}
		}
		switch {
		case value > most:
			most, at, even = value, k, false
		case value == most && liked != nil && liked[spelled(groups)] > liked[spelled(ways[at])]:
			at = k
		case value == most:
			even = true
		}
	}
	if even && liked == nil {
		return -1
	}
	return at
}
