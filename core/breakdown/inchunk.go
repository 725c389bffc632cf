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
