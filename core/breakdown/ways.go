package breakdown

import (
	"cmp"
	"fmt"
	"slices"

	"unhurriedbench/core/score"
)

// HandChunk is a chunk as a teacher has it: which measures, and why.
type HandChunk struct {
	Key ChunkKey
	Why string
}

// Way is a way to cut an exercise into chunks.
type Way string

// The ways. The program cuts by phrases.
const (
	ByPhrases  Way = "phrases"
	ByMeasures Way = "measures" // every few measures
	ByNotes    Way = "notes"    // at the bar line after a few notes
	ByHardest  Way = "hardest"  // the hardest measure alone, then with its neighbours
	ByJoining  Way = "joining"  // A, B, both together, C, all three
)

// Bounds of the number that ByMeasures and ByNotes take.
const (
	MostMeasuresEach = 16
	MostNotesEach    = 64
)

// CutBy cuts the part of a report in another way; n is for ByMeasures and ByNotes. The last
// chunk is the whole. An exercise of one measure is one chunk. ByPhrases is nothing: the
// program's own.
func (r Report) CutBy(way Way, n int) []HandChunk {
	numbers := r.numbers()
	whole := ChunkKey{numbers[0], numbers[len(numbers)-1]}
	var list []HandChunk
	switch way {
	case ByMeasures:
		list = everyMeasure(numbers, min(max(n, 1), MostMeasuresEach))
	case ByNotes:
		list = r.everyNotes(numbers, min(max(n, 1), MostNotesEach))
	case ByHardest:
		list = r.aroundHardest(numbers)
	case ByJoining:
		list = joined(plainKeys(Cut(r.Part)))
	}
	if len(list) == 0 {
		return nil
	}
	return WithWhole(list, whole)
}

// WithWhole has a list of chunks end with the whole, which stands nowhere else.
func WithWhole(list []HandChunk, whole ChunkKey) []HandChunk {
	list = slices.DeleteFunc(slices.Clone(list), func(p HandChunk) bool { return p.Key == whole })
	return append(list, HandChunk{whole, wholeWhy})
}

// numbers lists the numbers of the measures, the pickup's 0 included.
func (r Report) numbers() []int {
	var list []int
	for _, m := range r.Part.Measures {
		if !slices.Contains(list, m.Number) {
			list = append(list, m.Number)
		}
	}
	return list
}

// everyMeasure cuts every n full measures; a pickup goes along with the first.
func everyMeasure(numbers []int, n int) []HandChunk {
	var list []HandChunk
	for from := 0; from < len(numbers); {
		to := from + n - 1
		if numbers[from] == 0 {
			to++
		}
		to = min(to, len(numbers)-1)
		why := measureCount(n)
		if n == 1 {
			why = "one measure"
		}
		list = append(list, HandChunk{ChunkKey{numbers[from], numbers[to]}, why})
		from = to + 1
	}
	return list
}

// everyNotes cuts at the bar line after every n notes that are struck.
func (r Report) everyNotes(numbers []int, n int) []HandChunk {
	struck := map[int]int{}
	for _, at := range r.Part.Notes() {
		if !r.Part.At(at).Tied {
			struck[r.Part.Measures[at.Measure].Number]++
		}
	}
	var list []HandChunk
	from, sum := 0, 0
	for k, number := range numbers {
		sum += struck[number]
		if sum >= n || k == len(numbers)-1 {
			list = append(list, HandChunk{ChunkKey{numbers[from], number}, fmt.Sprintf("%d notes", sum)})
			from, sum = k+1, 0
		}
	}
	return list
}

// around is how often the neighbours are taken in.
const around = 3

// aroundHardest is the hardest measure alone, and then with a neighbour more on each side.
func (r Report) aroundHardest(numbers []int) []HandChunk {
	hardest, most := -1, 0.0
	for _, m := range r.Measures {
		if m.Difficulty.Total > most {
			hardest, most = slices.Index(numbers, m.Number), m.Difficulty.Total
		}
	}
	if hardest < 0 {
		return nil
	}
	why := fmt.Sprintf("the hardest measure, %d of 9", grade(most))
	var list []HandChunk
	for n := range around {
		from, to := max(hardest-n, 0), min(hardest+n, len(numbers)-1)
		list = append(list, HandChunk{ChunkKey{numbers[from], numbers[to]}, why})
		if from == 0 && to == len(numbers)-1 {
			break
		}
		why = "with its neighbours"
	}
	return list
}

// joined is each chunk after the other, and after each all so far together.
func joined(keys []ChunkKey) []HandChunk {
	var list []HandChunk
	for k, key := range keys {
		list = append(list, HandChunk{key, "alone"})
		if k == 0 {
			continue
		}
		why := fmt.Sprintf("%s and %s together", label(k-1), label(k))
		if k > 1 {
			why = fmt.Sprintf("%s to %s together", label(0), label(k))
		}
		list = append(list, HandChunk{ChunkKey{keys[0].First, key.Last}, why})
	}
	return list
}

// plainKeys are the keys of some chunks without the whole, in page order, those that lie
// in one another left out.
func plainKeys(chunks []Chunk) []ChunkKey {
	var keys []ChunkKey
	for _, p := range chunks {
		if key := p.Key(); !p.Whole() && (len(keys) == 0 || key.First > keys[len(keys)-1].Last) {
			keys = append(keys, key)
		}
	}
	return keys
}

// cutAs makes chunks as a teacher has them, each with the pickup that the program's cut
// gives its measures; ones with measures that are not there are left out. ok is false where
// none is left but the whole.
func cutAs(part score.Part, plain []Chunk, hand []HandChunk) (chunks []Chunk, ok bool) {
	first, last := part.Measures[0].Number, 0
	for _, m := range part.Measures {
		last = max(last, m.Number)
	}
	keys := make([]ChunkKey, len(hand))
	for k, h := range hand {
		keys[k] = h.Key
	}
	for _, key := range standing(keys, ChunkKey{first, last}, len(plain)) {
		h := hand[slices.Index(keys, key)]
		p := Chunk{Label: label(len(chunks)), Why: h.Why}
		for i, m := range part.Measures {
			if m.Number < h.Key.First || m.Number > h.Key.Last {
				continue
			}
			p.At = append(p.At, i)
			if !slices.Contains(p.Measures, m.Number) {
				p.Measures = append(p.Measures, m.Number)
			}
		}
		for _, known := range plain {
			if known.Whole() {
				continue
			}
			if known.From() == p.From() {
				p.Start = known.Start
			}
			if known.To() == p.To() {
				p.End, p.phrase = known.End, known.phrase
			}
		}
		chunks = append(chunks, p)
	}
	if len(chunks) == 0 {
		return nil, false
	}
	if n := len(chunks); n > 1 {
		chunks[n-1].Label = wholeLabel
	}
	return chunks, true
}

// A chunk is met first for its rhythm and its reading, which are everybody's, from hardEnough
// on and where it is muchHarder than every other. The figures are ours.
const (
	hardEnough = 0.3
	muchHarder = 0.1
)

// learningOrder puts the chunks that the program cut in the order in which they are learned,
// with the reason: what comes again brings its copies along, and what is much harder to count
// and to read than all the rest, or brings most that is new, is met first, while everybody is
// fresh. The whole stays last. Source: common practice.
func (r *Report) learningOrder() {
	n := len(r.Chunks) - 1 // the whole
	if n < 2 || !r.Chunks[n].Whole() {
		return
	}
	like := make([]int, n) // the chunk that each is again, or itself
	for k := range like {
		like[k] = k
		heard := r.Chunks[k].hear(r.Part)
		for j := range k {
			if like[j] == j && compare(r.Chunks[j].hear(r.Part), heard) == "same" {
				like[k] = j
				r.Chunks[k].Why = fmt.Sprintf("%s again: start there", r.Chunks[j].Label)
				break
			}
		}
	}
	brings := make([]int, n)
	for k := range brings {
		for _, at := range r.Chunks[k].At {
			brings[k] += len(r.Measures[at].New)
		}
	}
	first, why := -1, ""
	if k := standsOut(n, like, r.hardForAll, muchHarder); k > 0 && r.hardForAll(k) >= hardEnough {
		first, why = k, "the hardest by far: meet it first"
	} else if k := standsOut(n, like, func(k int) float64 { return float64(brings[k]) }, 2); k > 0 {
		first, why = k, fmt.Sprintf("most that is new, %d things: meet it first", brings[k])
	}
	order := make([]int, 0, n)
	take := func(k int) {
		for j := range like {
			if like[j] == k {
				order = append(order, j)
			}
		}
	}
	if first > 0 {
		r.Chunks[first].Why = why + ", " + r.Chunks[first].Why
		take(first)
	}
	for k := range like {
		if like[k] == k && k != first {
			take(k)
		}
	}
	chunks := make([]Chunk, 0, n+1)
	for _, k := range order {
		chunks = append(chunks, r.Chunks[k])
	}
	r.Chunks = append(chunks, r.Chunks[n])
}

// hardForAll is how hard a chunk is but for the hands and the lip; an ending, which is played
// after what leads to it, is not.
func (r *Report) hardForAll(k int) float64 {
	var within []Difficulty
	for _, at := range r.Chunks[k].At {
		if len(r.Part.Measures[at].Endings) > 0 {
			return 0
		}
		within = append(within, r.Measures[at].Difficulty)
	}
	parts := together(within).Parts
	return DifficultyParts{Rhythm: parts.Rhythm, Reading: parts.Reading}.Total()
}

// standsOut is the chunk, copies left aside, whose figure is above that of every other by a
// margin; -1 for none.
func standsOut(n int, like []int, of func(int) float64, by float64) int {
	var list []int
	for k := range n {
		if like[k] == k {
			list = append(list, k)
		}
	}
	if len(list) < 2 {
		return -1
	}
	slices.SortStableFunc(list, func(a, b int) int { return cmp.Compare(of(b), of(a)) })
	if of(list[0])-of(list[1]) < by {
		return -1
	}
	return list[0]
}
