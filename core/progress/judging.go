package progress

import (
	"cmp"
	"fmt"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

// Marked is a try as somebody marked it, on a day counted from 1 January 1970.
type Marked struct {
	Exercise int64
	Chunk    breakdown.ChunkKey
	Stage    routine.Stage
	Clean    bool
	On       int
}

// same says whether two tries were at the same stage of the same chunk.
func (m Marked) same(other Marked) bool {
	return m.Exercise == other.Exercise && m.Chunk == other.Chunk && m.Stage == other.Stage
}

// Judging is how what a student says of their tries stands beside what the teacher heard.
type Judging struct {
	Agree int // both clean, or both not
	Over  int // they said clean, and it was not
	Under int // they said it stumbled, and it was clean
}

// judgedWithin is in how many days after a student has said how it goes what the teacher hears
// is held beside it; the figure is ours.
const judgedWithin = 7

// Judge holds what a student said beside what the teacher heard: each first hearing of a stage
// of a chunk on a day beside what was said of it last, on that day or in the week before. What
// was said is used once.
func Judge(said, heard []Marked) Judging {
	var j Judging
	used := make([]bool, len(said))
	heard = slices.Clone(heard)
	slices.SortStableFunc(heard, func(a, b Marked) int { return cmp.Compare(a.On, b.On) })
	for k, h := range heard {
		if slices.ContainsFunc(heard[:k], func(e Marked) bool { return e.same(h) && e.On == h.On }) {
			continue // heard again that day: it is no longer what was practised
		}
		last := -1
		for n, s := range said {
			if !used[n] && s.same(h) && s.On <= h.On && s.On >= h.On-judgedWithin && (last < 0 || s.On >= said[last].On) {
				last = n
			}
		}
		if last < 0 {
			continue
		}
		for n, s := range said { // what was said before it is not held beside a later hearing
			used[n] = used[n] || s.same(h) && s.On <= h.On
		}
		switch {
		case said[last].Clean == h.Clean:
			j.Agree++
		case said[last].Clean:
			j.Over++
		default:
			j.Under++
		}
	}
	return j
}

// Compared is how often both are known.
func (j Judging) Compared() int { return j.Agree + j.Over + j.Under }

// enoughCompared is from how many on there is something to say; the figure is ours.
const enoughCompared = 3

// Words say it in a sentence; "" where too little is known.
func (j Judging) Words() string {
	n := j.Compared()
	switch {
	case n < enoughCompared:
		return ""
	case 3*j.Over >= n && j.Over > max(j.Under, 1):
		return fmt.Sprintf("hears it better than it is: of %d tries, %d were said to be clean and were not", n, j.Over)
	case 3*j.Under >= n && j.Under > max(j.Over, 1):
		return fmt.Sprintf("hears it worse than it is: of %d tries, %d were said to stumble and were clean", n, j.Under)
	}
	return fmt.Sprintf("hears it as you do: %d of %d tries alike", j.Agree, n)
}
