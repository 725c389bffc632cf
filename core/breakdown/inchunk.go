package breakdown

import (
	"slices"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/score"
)

// PitchesIn lists the written pitches that are struck in a chunk, each once, in the order met.
func (r Report) PitchesIn(key ChunkKey) []score.Pitch {
	var list []score.Pitch
	for _, m := range r.Part.Measures {
		if m.Number < key.First || m.Number > key.Last {
			continue
		}
		for _, e := range m.Events {
			if e.Kind != score.Rest && !e.Tied && !e.Unpitched && !slices.Contains(list, e.Pitch) {
				list = append(list, e.Pitch)
			}
		}
	}
	return list
}

// HardestChange is the costliest change between two notes of a chunk, of two alike the first;
// ok is false where nothing in it is worth a drill.
func (r Report) HardestChange(key ChunkKey) (from, to score.Pitch, change finger.Change, ok bool) {
	inside := func(i int) bool { n := r.Measures[i].Number; return n >= key.First && n <= key.Last }
	for _, c := range r.changes {
		begins := c.at.Event > 0 || c.at.Measure > 0 && inside(c.at.Measure-1) // the note before it is in the chunk too
		if inside(c.at.Measure) && begins && c.from.Pitch != c.to.Pitch && c.change.Cost >= worthADrill &&
			c.change.Cost > change.Cost {
			from, to, change, ok = c.from.Pitch, c.to.Pitch, c.change, true
		}
	}
	return from, to, change, ok
}

// Join is chunks that follow each other as one, by its first and last measure; ok is false
// where no chunk begins or ends so.
func (r Report) Join(chunks []Chunk, key ChunkKey) (joined Chunk, ok bool) {
	first := slices.IndexFunc(chunks, func(p Chunk) bool { return !p.Whole() && p.Key().First == key.First })
	last := slices.IndexFunc(chunks, func(p Chunk) bool { return !p.Whole() && p.Key().Last == key.Last })
	if first < 0 || last < 0 || chunks[first].From() > chunks[last].From() {
		return joined, false
	}
	a, b := chunks[first], chunks[last]
	joined = Chunk{Label: a.Label + b.Label, Why: "joined", Start: a.Start, End: b.End}
	for i := a.From(); i <= b.To(); i++ {
		joined.At = append(joined.At, i)
		if n := r.Part.Measures[i].Number; len(joined.Measures) == 0 || joined.Measures[len(joined.Measures)-1] != n {
			joined.Measures = append(joined.Measures, n)
		}
	}
	return joined, true
}
