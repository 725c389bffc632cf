package midi

import (
	"fmt"
	"slices"

	"unhurriedbench/core/score"
)

// grids are the divisions of a quarter note that are tried, plainest first.
var grids = []int64{1, 2, 4, 3, 6, 8, 12, 16, 24, 5}

// sounded is a note or chord on the grid; times are in whole notes.
type sounded struct {
	start, end score.Fraction
	keys       []uint8 // the highest first
}

// placed is a stream put on the grid.
type placed struct {
	notes   []sounded
	grid    []int64 // of each quarter note
	moved   int
	overlap int
	joined  int // struck with the one before, whose place is the nearest
}

// quantise puts a stream's notes on a grid, quarter note by quarter note: the
// plainest on which everything lies exactly, else the plainest within a
// twenty-fourth of a quarter, else the nearest. An end less than a thirty-second note before the next
// start is that start.
func (sg song) quantise(st *stream) placed {
	notes := joinChords(st.notes, sg.shift(), sg.quarter)
	var p placed
	for i := range notes {
		n := &notes[i]
		if i+1 < len(notes) {
			next := notes[i+1].start
			if n.end > next {
				p.overlap++
			}
			if n.end > next-sg.quarter/8 {
				n.end = next
			}
		}
	}
	quarters := notes[len(notes)-1].end/sg.quarter + 2
	p.grid = sg.chooseGrids(notes, quarters)
	for _, n := range notes {
		start, end := sg.nearest(n.start, p.grid), sg.nearest(n.end, p.grid)
		if sg.far(n.start, start) {
			p.moved++
		}
		if k := len(p.notes); k > 0 && start.Less(p.notes[k-1].end) {
			if !p.notes[k-1].start.Less(start) {
				p.joined++
				p.notes[k-1].keys = together(p.notes[k-1].keys, n.keys...)
				continue
			}
			p.notes[k-1].end = start
		}
		if !start.Less(end) {
			q := start.Mul(score.Frac(4, 1)).Floor() // where it was moved to, which may be the next quarter
			end = start.Add(score.Frac(1, 4*p.grid[q]))
		}
		p.notes = append(p.notes, sounded{start, end, n.keys})
	}
	return p
}

// struckTogether is one or more notes that start together, in ticks.
type struckTogether struct {
	start, end int64
	keys       []uint8
}

func joinChords(notes []played, shift, quarter int64) []struckTogether {
	var list []struckTogether
	for _, n := range notes {
		start, end := max(n.start-shift, 0), n.end-shift
		if k := len(list) - 1; k >= 0 && start-list[k].start < quarter/32 {
			list[k].keys = together(list[k].keys, n.key)
			list[k].end = max(list[k].end, end)
			continue
		}
		list = append(list, struckTogether{start, end, []uint8{n.key}})
	}
	return list
}

// together adds keys to those struck together, each once and the highest first.
func together(keys []uint8, more ...uint8) []uint8 {
	keys = append(slices.Clone(keys), more...)
	slices.Sort(keys)
	keys = slices.Compact(keys)
	slices.Reverse(keys)
	return keys
}

func (sg song) chooseGrids(notes []struckTogether, quarters int64) []int64 {
	points := make([][]int64, quarters)
	for _, n := range notes {
		for _, tick := range []int64{n.start, n.end} {
			points[tick/sg.quarter] = append(points[tick/sg.quarter], tick%sg.quarter)
		}
	}
	chosen := make([]int64, quarters)
	for q, ticks := range points {
		chosen[q] = sg.chooseGrid(ticks)
	}
	return chosen
}

func (sg song) chooseGrid(ticks []int64) int64 {
	nearest, least := grids[0], int64(-1)
	within := func(allowed int64) int64 {
		for _, grid := range grids {
			worst := int64(0)
			for _, tick := range ticks {
				worst = max(worst, sg.off(tick, grid))
			}
			if worst <= allowed {
				return grid
			}
			if least < 0 || worst < least {
				nearest, least = grid, worst
			}
		}
		return 0
	}
	if grid := within(sg.quarter / 200); grid > 0 {
		return grid
	}
	if grid := within(sg.quarter / 24); grid > 0 {
		return grid
	}
	return nearest
}

// off is how many ticks a place in a quarter note lies from a grid.
func (sg song) off(tick, grid int64) int64 {
	near := (tick*grid*2 + sg.quarter) / (2 * sg.quarter)
	d := tick - near*sg.quarter/grid
	return max(d, -d)
}

func (sg song) nearest(tick int64, grid []int64) score.Fraction {
	q := tick / sg.quarter
	g := grid[q]
	inside := ((tick%sg.quarter)*g*2 + sg.quarter) / (2 * sg.quarter)
	return score.Frac(q*g+inside, 4*g)
}

// far says whether a start was moved by more than a hundredth of a quarter.
func (sg song) far(tick int64, to score.Fraction) bool {
	exact := score.Frac(tick, 4*sg.quarter)
	d := exact.Sub(to)
	if d.Num() < 0 {
		d = to.Sub(exact)
	}
	return d.Cmp(score.Frac(1, 400)) > 0
}

// write turns a stream into a part.
func (sg song) write(st *stream) (score.Part, []score.Problem, error) {
	if len(st.notes) == 0 {
		return score.Part{}, nil, score.Problems{score.General("A track has only notes of no length.",
			"Export the file again.")}
	}
	last := int64(0)
	for _, n := range st.notes {
		last = max(last, n.end)
	}
	if last/sg.quarter > 4*score.MostMeasures {
		return score.Part{}, nil, score.Problems{score.TooManyMeasures(int(last / sg.quarter / 4))}
	}
	p := sg.quantise(st)
	w := &notator{song: sg, stream: st, grid: p.grid, clef: clefFor(st)}
	part, err := w.part(p.notes)
	if err != nil {
		return score.Part{}, nil, err
	}
	var remarks []score.Problem
	remark := func(n int, one, many string) {
		switch {
		case n == 1:
			remarks = append(remarks, score.General("1 note "+one, ""))
		case n > 1:
			remarks = append(remarks, score.General(fmt.Sprintf("%d notes %s", n, many), ""))
		}
	}
	remark(p.moved, "was moved to the nearest place that can be written.",
		"were moved to the nearest place that can be written.")
	remark(p.joined, "came so soon after another that it is written with it.",
		"came so soon after others that they are written with them.")
	remark(st.empty, "of no length was left out.", "of no length were left out.")
	remark(st.endless, "has no end and lasts to the end of the file.", "have no end and last to the end of the file.")
	remark(p.overlap, "overlapped the next and was cut short.", "overlapped the next and were cut short.")
	return part, remarks, nil
}

// clefFor is bass for music that lies mostly below middle C.
func clefFor(st *stream) score.Clef {
	if st.drums {
		return score.Percussion
	}
	sum := 0
	for _, n := range st.notes {
		sum += int(n.key)
	}
	if sum/len(st.notes) < 57 {
		return score.Bass
	}
	return score.Treble
}
