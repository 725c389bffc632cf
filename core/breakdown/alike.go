package breakdown

import (
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/score"
)

// Look says how a measure is written, by numbers that are equal where measures are: its
// music, and its rhythm alone. Where the next chunk begins with a pickup in it, Head is the
// measure without that pickup, and Tail the pickup; else both are zero.
type Look struct {
	Number     int
	All        Alike
	Head, Tail Alike
}

// Alike numbers what is written alike.
type Alike struct{ Music, Rhythm int }

// Looks says how every measure of a part is written, in the order of their numbers.
func looks(part score.Part, chunks []Chunk) []Look {
	numbered := map[string]int{}
	alike := func(events []score.Event, m score.Measure) Alike {
		music, rhythm := written(events, m)
		number := func(text string) int {
			if numbered[text] == 0 {
				numbered[text] = len(numbered) + 1
			}
			return numbered[text]
		}
		return Alike{number("music " + music), number("rhythm " + rhythm)}
	}
	lead := map[int]int{} // where the next chunk's pickup begins, by index of the measure
	for _, p := range chunks {
		if p.Start != nil {
			events := part.Measures[p.From()-1].Events
			lead[p.From()-1] = slices.IndexFunc(events, func(e score.Event) bool { return e.Start == *p.Start })
		}
	}
	var list []Look
	for i := 0; i < len(part.Measures); {
		m := part.Measures[i]
		events := slices.Clone(m.Events)
		look := Look{Number: m.Number}
		if at := lead[i]; at > 0 {
			look.Head, look.Tail = alike(m.Events[:at], m), alike(m.Events[at:], m)
		}
		for i++; i < len(part.Measures) && part.Measures[i].Number == m.Number; i++ {
			events = append(events, part.Measures[i].Events...)
		}
		look.All = alike(events, m)
		list = append(list, look)
	}
	return list
}

// written spells events as they are written, and their rhythm alone.
func written(events []score.Event, m score.Measure) (music, rhythm string) {
	var notes, beats strings.Builder
	fmt.Fprintf(&beats, "%v %v", m.Meter, m.Offset)
	for _, e := range events {
		fmt.Fprintf(&beats, " %v+%v%v%v", e.Start, e.Length, e.Kind, e.Tied)
		fmt.Fprintf(&notes, " %v%v%d%d%d%v%v%s", e.Pitch, e.TieOn, e.SlurStarts, e.SlurEnds, e.Graces, e.Roll, e.Marks, e.Sticking)
	}
	return beats.String() + notes.String(), beats.String()
}

// Contains says whether all of a chunk lies in another, larger one.
func (o Outline) Contains(unit, chunk ChunkKey) bool {
	return unit != chunk && unit.First <= chunk.First && chunk.Last <= unit.Last && !slices.Contains(o.Gaps, unit)
}

// Unit says whether a key is a chunk of the outline, or chunks that follow each other joined.
func (o Outline) Unit(key ChunkKey) bool {
	if slices.Contains(o.Chunks, key) {
		return true
	}
	begins := slices.ContainsFunc(o.Parts(), func(p ChunkKey) bool { return p.First == key.First })
	ends := slices.ContainsFunc(o.Parts(), func(p ChunkKey) bool { return p.Last == key.Last })
	return begins && ends && key.First <= key.Last
}

// SameMusic says whether two chunks are the same written music.
func (o Outline) SameMusic(a, b ChunkKey) bool {
	return o.same(a, b, func(x, y Alike) bool { return x.Music == y.Music })
}

// SameRhythm says whether two chunks have the same rhythm.
func (o Outline) SameRhythm(a, b ChunkKey) bool {
	return o.same(a, b, func(x, y Alike) bool { return x.Rhythm == y.Rhythm })
}

func (o Outline) same(a, b ChunkKey, alike func(x, y Alike) bool) bool {
	if a == b {
		return true
	}
	first, second := o.spelled(a), o.spelled(b)
	return len(first) > 0 && len(first) == len(second) && slices.EqualFunc(first, second, alike)
}

// spelled is how a chunk is written, its pickup first; nothing where it has a gap or is not
// there.
func (o Outline) spelled(key ChunkKey) []Alike {
	at := slices.IndexFunc(o.Looks, func(l Look) bool { return l.Number == key.First })
	if at < 0 || slices.Contains(o.Gaps, key) {
		return nil
	}
	list := []Alike{{}}
	if at > 0 {
		list[0] = o.Looks[at-1].Tail
	}
	for _, l := range o.Looks[at:] {
		switch {
		case l.Number > key.Last:
			return list
		case l.Number == key.Last && l.Head != Alike{}:
			list = append(list, l.Head)
		default:
			list = append(list, l.All)
		}
	}
	return list
}

// Parts are the chunks of an outline without the whole, where it has more than one.
func (o Outline) Parts() []ChunkKey {
	if len(o.Chunks) > 1 {
		return o.Chunks[:len(o.Chunks)-1]
	}
	return o.Chunks
}

// First is the first chunk of the outline that is the same written music as one of them.
func (o Outline) First(key ChunkKey) ChunkKey {
	for _, other := range o.Parts() {
		if o.SameMusic(other, key) {
			return other
		}
	}
	return key
}
