package breakdown

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Watched is something to watch for in a chunk.
type Watched struct {
	At      score.Place
	Measure int
	Name    string // of the note, or its stroke; "" for a rest
	Trap    bool
	Alerts  []Alert
	Why     string
}

// goesWrong is how surely each alert goes wrong, from 10; the figures are ours. The key
// signature and the last note, which everyone hears about, come last.
var goesWrong = map[Alert]int{
	Trap: 10, HardChange: 9, Cancelled: 8, Accidental: 7, Carried: 7, LookAlike: 6, Skip: 6, New: 5, Respelled: 4,
	Prepare: 3, Long: 3, Held: 3, Breathe: 2, Accented: 2, Swells: 2, InKey: 2, Last: 1,
}

// weight is how surely something watched goes wrong.
func (w Watched) weight() int {
	most, sum := 0, 0
	for _, a := range w.Alerts {
		most, sum = max(most, goesWrong[a]), sum+goesWrong[a]
	}
	return 10*most + sum
}

// Watch lists what to watch for in a chunk, what will go wrong most first: everything that
// carries an alert, drums to tune, and every hard change, there and back being one, at its
// first place in the chunk, wherever else in the exercise it is marked.
func (r Report) Watch(chunk []Passage, target instrument.Instrument) []Watched {
	hard := map[score.Place]madeChange{}
	for _, c := range r.changes {
		if c.change.Hard {
			hard[c.at] = c
		}
	}
	listed := map[either]bool{}
	var list []Watched
	for _, passage := range chunk {
		for j, e := range r.Measures[passage.At].Events {
			if e.Start.Less(passage.From) || !e.Start.Less(passage.To) {
				continue
			}
			at := score.Place{Measure: passage.At, Event: j}
			w := Watched{At: at, Measure: r.Measures[passage.At].Number, Name: e.ShortName, Trap: e.Has(Trap),
				Alerts: slices.Concat(e.Alerts, e.eased), Why: e.Why}
			if w.Name == "" {
				w.Name = e.Fingering
			}
			c, changes := hard[at]
			again := listed[c.either()]
			if changes {
				listed[c.either()] = true
			}
			if changes && !again && !e.Has(HardChange) && !e.struck(HardChange) {
				w.Why = strings.TrimSpace(fmt.Sprintf("%s A hard change: %s.", w.Why, c.change.Why))
				w.Alerts = append(w.Alerts, HardChange)
			}
			tuned := target.Mechanism == instrument.Drums && e.Care != ""
			if tuned {
				w.Why = strings.TrimSpace(strings.ToUpper(e.Care[:1]) + e.Care[1:] + ". " + w.Why)
				w.Alerts = append(w.Alerts, HardChange)
			}
			if len(w.Alerts) > 0 {
				list = append(list, w)
			}
		}
	}
	slices.SortStableFunc(list, func(a, b Watched) int { return cmp.Compare(b.weight(), a.weight()) })
	return list
}
