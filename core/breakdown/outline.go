package breakdown

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/score"
)

// OutlineVersion counts the changes to how parts are cut, named and met. An outline
// that was kept under another version is made again.
const OutlineVersion = 5

// Outline is what pages need of a part when it is not open.
type Outline struct {
	Signatures string     // meter and, of a pitched part, key: "4/4, B flat major"
	Measures   int        // full ones
	Chunks     []ChunkKey // the whole last
	Looks      []Look     // how its measures are written, where that is known
	Gaps       []ChunkKey // those of the chunks with measures left out of them
	For        Audience   // by its music
}

// OutlineOf reads the outline of a part. Its chunks are those of every part made
// from it.
func OutlineOf(part score.Part) Outline {
	o := Outline{Signatures: part.Meter().String(), Measures: part.Measures[len(part.Measures)-1].Number}
	if !part.Unpitched() {
		o.Signatures += ", " + part.Key().Name()
	}
	chunks := Cut(part)
	for _, p := range chunks {
		o.Chunks = append(o.Chunks, p.Key())
		if p.At[len(p.At)-1]-p.At[0] >= len(p.At) {
			o.Gaps = append(o.Gaps, p.Key())
		}
	}
	o.Looks, o.For = looks(part, chunks), AudienceOf(part)
	return o
}

// CutAs is the outline with the chunks a teacher cut, the whole last; those with measures
// that are not there are left out, and where none is left but the whole, it is as it was.
func (o Outline) CutAs(hand []ChunkKey) Outline {
	if len(hand) == 0 || len(o.Chunks) == 0 {
		return o
	}
	if keys := standing(hand, o.Chunks[len(o.Chunks)-1], len(o.Chunks)); len(keys) > 0 {
		o.Chunks = keys
	}
	return o
}

// standing are the chunks a teacher cut that lie in the whole, each once; none where only the
// whole is left of an exercise that the program cuts into more than one.
func standing(hand []ChunkKey, whole ChunkKey, plain int) []ChunkKey {
	var keys []ChunkKey
	for _, key := range hand {
		if key.First >= whole.First && key.Last <= whole.Last && key.First <= key.Last && !slices.Contains(keys, key) {
			keys = append(keys, key)
		}
	}
	if len(keys) == 1 && plain > 1 {
		return nil
	}
	return keys
}

// Label is the letter of a chunk, or "Whole"; "" for one that is not there any more.
func (o Outline) Label(key ChunkKey) string {
	for n, k := range o.Chunks {
		switch {
		case k != key:
		case n > 0 && n == len(o.Chunks)-1:
			return wholeLabel
		default:
			return label(n)
		}
	}
	return ""
}

// ChunkKey names a chunk by its first and last measure numbers, so that a log keeps
// its meaning when chunks are lettered again.
type ChunkKey struct{ First, Last int }

// Key is the chunk's key.
func (p Chunk) Key() ChunkKey {
	return ChunkKey{First: p.Measures[0], Last: p.Measures[len(p.Measures)-1]}
}

// String writes the key as "3-4".
func (k ChunkKey) String() string { return strconv.Itoa(k.First) + "-" + strconv.Itoa(k.Last) }

// ParseChunkKey reads "3-4"; ok is false for anything else.
func ParseChunkKey(text string) (key ChunkKey, ok bool) {
	first, last, _ := strings.Cut(text, "-")
	a, errA := strconv.Atoi(first)
	b, errB := strconv.Atoi(last)
	return ChunkKey{a, b}, errA == nil && errB == nil && 0 <= a && a <= b
}

// Words says which measures: "pickup", "pickup to m. 2", "m. 3", "m. 3–4".
func (k ChunkKey) Words() string {
	switch {
	case k.Last == 0:
		return "pickup"
	case k.First == 0:
		return fmt.Sprintf("pickup to m. %d", k.Last)
	case k.First == k.Last:
		return fmt.Sprintf("m. %d", k.First)
	}
	return fmt.Sprintf("m. %d–%d", k.First, k.Last)
}
