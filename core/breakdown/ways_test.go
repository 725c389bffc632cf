package breakdown

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/internal/testscore"
)

// cutBy shows the chunks of a way.
func cutBy(r Report, way Way, n int) string {
	var words []string
	for _, p := range r.CutBy(way, n) {
		words = append(words, fmt.Sprintf("%s (%s)", p.Key, p.Why))
	}
	return strings.Join(words, "; ")
}

// Other ways to cut, worked by hand: every few measures or notes, five-note chunks, the
// hardest measure with its neighbours, and joining. Source: common practice.
func TestWaysToCut(t *testing.T) {
	const lamp = "G|c d e f|g2 e2|f/e/d/c/ B ^c|d4|e f g a|g3|]"
	for _, test := range []struct {
		way  Way
		n    int
		want string
	}{
		{ByPhrases, 0, ""},
		{ByMeasures, 1, "0-1 (one measure); 2-2 (one measure); 3-3 (one measure); 4-4 (one measure); 5-5 (one measure); 6-6 (one measure); 0-6 (one tempo throughout)"},
		{ByMeasures, 4, "0-4 (four measures); 5-6 (four measures); 0-6 (one tempo throughout)"},
		{ByMeasures, 99, "0-6 (one tempo throughout)"},
		{ByNotes, 5, "0-1 (5 notes); 2-3 (8 notes); 4-5 (5 notes); 6-6 (1 notes); 0-6 (one tempo throughout)"},
		{ByHardest, 0, "3-3 (the hardest measure, 5 of 9); 2-4 (with its neighbours); 1-5 (with its neighbours); 0-6 (one tempo throughout)"},
		{ByJoining, 0, "0-2 (alone); 3-4 (alone); 0-4 (A and B together); 5-6 (alone); 0-6 (one tempo throughout)"},
	} {
		r := read(t, "M:4/4\nL:1/4\nK:C\n"+lamp, "violin", nil)
		if got := cutBy(r, test.way, test.n); got != test.want {
			t.Errorf("%s %d: %s, want %s", test.way, test.n, got, test.want)
		}
	}
	three := read(t, "M:4/4\nL:1/4\nK:C\nc d e f|g4|e f g a|b4|d f a f|c4|]", "violin", nil)
	if got, want := cutBy(three, ByJoining, 0), "1-2 (alone); 3-4 (alone); 1-4 (A and B together); 5-6 (alone); 1-6 (one tempo throughout)"; got != want {
		t.Errorf("joining: %s, want %s", got, want)
	}
	if got := cutBy(read(t, "M:4/4\nL:1/4\nK:C\nc4|]", "violin", nil), ByMeasures, 2); got != "1-1 (one tempo throughout)" {
		t.Errorf("one measure is cut %s", got)
	}
}

// Every measure lies in one chunk, where chunks are not joined, and every way can be read
// again as the teacher's own chunks, the whole last.
func TestWaysCoverEveryMeasureOnce(t *testing.T) {
	for seed := range uint64(120) {
		s := testscore.Random(t, seed)
		target := instrument.All()[seed%31]
		r := Read(s, s.Parts[0], "", target, nil, Options{})
		for _, way := range []Way{ByMeasures, ByNotes, ByHardest, ByJoining} {
			list := r.CutBy(way, int(seed%5)+1)
			if list[len(list)-1].Key != (ChunkKey{r.numbers()[0], r.numbers()[len(r.numbers())-1]}) {
				t.Fatalf("seed %d, %s: the last chunk is %v", seed, way, list[len(list)-1])
			}
			if way == ByMeasures || way == ByNotes {
				var covered []int
				for _, p := range list[:len(list)-1] {
					for _, n := range r.numbers() {
						if p.Key.First <= n && n <= p.Key.Last {
							covered = append(covered, n)
						}
					}
				}
				if len(list) > 1 && !slices.Equal(covered, r.numbers()) {
					t.Fatalf("seed %d, %s: measures %v are in chunks, of %v", seed, way, covered, r.numbers())
				}
			}
			again := Read(s, s.Parts[0], "", target, nil, Options{Chunks: list})
			if len(list) == 1 {
				continue
			}
			for k, p := range again.Chunks {
				if p.Key() != list[k].Key || p.Why != list[k].Why || p.Whole() != (k == len(list)-1) {
					t.Fatalf("seed %d, %s: chunk %d is %v, want %v", seed, way, k, p, list[k])
				}
			}
		}
	}
}

// Chunks of measures that are not there any more are left out; where none is left the
// program cuts again.
func TestChunksOfAnExerciseThatHasChanged(t *testing.T) {
	s := "M:4/4\nL:1/4\nK:C\nc d e f|g4|c d e f|g4|]"
	keys := func(hand ...HandChunk) string {
		r := inChunks(t, s, hand)
		var words []string
		for _, p := range r.Chunks {
			words = append(words, p.Label+" "+p.Key().String())
		}
		return strings.Join(words, ", ")
	}
	if got := keys(HandChunk{ChunkKey{2, 3}, "by hand"}, HandChunk{ChunkKey{9, 9}, ""}, HandChunk{ChunkKey{1, 4}, ""}); got != "A 2-3, Whole 1-4" {
		t.Errorf("what is left: %s", got)
	}
	if got := keys(HandChunk{ChunkKey{5, 6}, ""}, HandChunk{ChunkKey{1, 6}, ""}); got != "A 1-2, B 3-4, Whole 1-4" {
		t.Errorf("nothing is left: %s", got)
	}
}

// A chunk that the teacher cut begins with the pickup its measures have.
func TestChunksByHandSaveTheirPickups(t *testing.T) {
	r := inChunks(t, "M:4/4\nL:1/4\nK:C\nc|f2 e d|c3 c|d e f d|c3 c|f2 e d|c3 c|d c e2|f3|]",
		[]HandChunk{{ChunkKey{3, 6}, "by hand"}, {ChunkKey{0, 8}, ""}})
	p := r.Chunks[0]
	if p.InWords() != "pickup, m. 3–6" || p.Start == nil || p.End == nil {
		t.Errorf("the chunk is %s, from %v to %v", p.InWords(), p.Start, p.End)
	}
}

// What is hardest by far to count and read, or brings most that is new, is met first.
func TestLearningOrder(t *testing.T) {
	order := func(text string, met *Met) string {
		var words []string
		for _, p := range read(t, text, "violin", met).Chunks {
			words = append(words, p.Label+": "+p.Why)
		}
		return strings.Join(words, "; ")
	}
	hard := "M:4/4\nL:1/4\nK:C\nc c c c|c4|d d d d|d4|e/^f//e//_e/d//c// ^G A3//^c//|B4|]"
	if got, want := order(hard, nil), "C: the hardest by far: meet it first, to the end; A: two measures; B: m. 1–2 again, shifted, two measures; Whole: one tempo throughout"; got != want {
		t.Errorf("%s, want %s", got, want)
	}
	met := metBy(t, "violin", "M:4/4\nL:1/4\nK:C\nc d e f|g4|]")
	news := "M:4/4\nL:1/4\nK:C\nc d e f|g4|a2 b2|c'4|c d e f|g4|]"
	if got, want := order(news, met), "B: most that is new, 4 things: meet it first, two measures; A: two measures; C: A again: start there; Whole: one tempo throughout"; got != want {
		t.Errorf("%s, want %s", got, want)
	}
}

// inChunks reads a line with a teacher's chunks.
func inChunks(t *testing.T, text string, hand []HandChunk) Report {
	t.Helper()
	r := read(t, text, "violin", nil)
	target, _ := instrument.ByID("violin")
	s := testscore.Random(t, 1)
	s.Parts[0] = r.Part
	return Read(s, r.Part, "violin", target, nil, Options{Chunks: hand})
}
