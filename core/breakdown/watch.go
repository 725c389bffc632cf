package breakdown

import (
	"fmt"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Watched is something to watch for in a piece.
type Watched struct {
	Measure int
	Name    string // of the note, or its stroke
	Trap    bool
	Why     string
}

// Watch lists what to watch for in a piece, measure by measure: letters that sound
// otherwise, drums to tune, and every hard change, there and back being one, at its
// first place in the piece, wherever else in the exercise it is marked.
func (r Report) Watch(piece []Passage, target instrument.Instrument) []Watched {
	hard := map[score.Place]madeChange{}
	for _, c := range r.changes {
		if c.change.Hard {
			hard[c.at] = c
		}
	}
	listed := map[either]bool{}
	var list []Watched
	for _, passage := range piece {
		for j, e := range r.Measures[passage.At].Events {
			if e.Start.Less(passage.From) || !e.Start.Less(passage.To) {
				continue
			}
			w := Watched{Measure: r.Measures[passage.At].Number, Name: e.ShortName, Trap: e.Has(Trap), Why: e.Why}
			if w.Name == "" {
				w.Name = e.Fingering
			}
			c, changes := hard[score.Place{Measure: passage.At, Event: j}]
			again := listed[c.either()]
			if changes {
				listed[c.either()] = true
			}
			if changes && !again && !e.Has(HardChange) {
				w.Why = strings.TrimSpace(fmt.Sprintf("%s A hard change: %s.", w.Why, c.change.Why))
			}
			tuned := target.Mechanism == instrument.Drums && e.Care != ""
			if tuned {
				w.Why = strings.TrimSpace(strings.ToUpper(e.Care[:1]) + e.Care[1:] + ". " + w.Why)
			}
			if tuned || changes && !again || e.Has(HardChange) || w.Trap || e.Has(Accidental) || e.Has(Carried) || e.Has(Cancelled) {
				list = append(list, w)
			}
		}
	}
	return list
}
