package teach

import (
	"slices"

	"unhurriedbench/core/breakdown"
)

// Opening is the first notes of a line, to be found by ear.
type Opening struct {
	Names []string // in the order heard
	Given []string // each once, by the alphabet
}

// How many notes are found by ear: the usual, and the most. Source: common practice; the figures
// are ours.
const (
	usualEar = 5
	mostEar  = 9
)

// ByEar takes the first notes of a part, the usual number where none is asked for; a part without
// named notes has none.
func ByEar(r breakdown.Report, notes int) Opening {
	if notes < 1 {
		notes = usualEar
	}
	notes = min(notes, mostEar)
	var o Opening
	for _, m := range r.Measures {
		for _, e := range m.Events {
			if e.Kind != "note" || e.Tied || e.Name == "" || r.Part.Unpitched() || len(o.Names) == notes {
				continue
			}
			o.Names = append(o.Names, e.Name)
			if !slices.Contains(o.Given, e.Name) {
				o.Given = append(o.Given, e.Name)
			}
		}
	}
	slices.Sort(o.Given)
	return o
}
