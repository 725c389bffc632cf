package breakdown

import (
	"strings"

	"unhurriedbench/core/score"
)

// novelty is something new at its first place.
type novelty struct {
	at   score.Place
	said string
}

// novelties lists what was not met before, each thing at its first place. Where nothing is
// known of what was met, the exercise is taken by itself: its first measure, with the pickup
// before it, is where it begins, and what comes later for the first time is new. A way to
// play a note counts where the note is known.
func (r *Report) novelties(met *Met) []novelty {
	known, pitched := map[Element]bool{}, !r.Part.Unpitched()
	begun := !met.Empty()
	var list []novelty
	var brought []Element
	for i, m := range r.Part.Measures {
		for j, e := range m.Events {
			fresh := false
			brought = elements(brought[:0], m, j, r.Measures[i].Events[j].Fingering, pitched)
			for _, t := range brought {
				if known[t] || met.Has(t) {
					continue
				}
				known[t] = true
				fresh = fresh || t == noteElement(e.Pitch)
				if begun && !(fresh && strings.HasPrefix(string(t), "way:")) {
					list = append(list, novelty{score.Place{Measure: i, Event: j}, t.wordsAt(m, e)})
				}
			}
		}
		begun = begun || m.Number > 0
	}
	return list
}

// markNew marks what is new, and gives each measure what it brings; none where nothing is
// known of what was met.
func (r *Report) markNew(met *Met) {
	lead := "New: "
	if met.Empty() {
		lead = "Here for the first time: "
	}
	list := r.novelties(met)
	for k := 0; k < len(list); {
		at := list[k].at
		var words []string
		for ; k < len(list) && list[k].at == at; k++ {
			words = append(words, list[k].said)
		}
		r.Measures[at.Measure].Events[at.Event].mark(New, lead+strings.Join(words, ", ")+".")
		if !met.Empty() {
			r.Measures[at.Measure].New = append(r.Measures[at.Measure].New, words...)
		}
	}
}

// News lists in words what the part brings to the player it was read for: "B flat", "dotted
// quarter note".
func (r Report) News() []string {
	var words []string
	for _, m := range r.Measures {
		words = append(words, m.New...)
	}
	return words
}

// NewIn is News for another player. Where nothing was met before it is empty.
func (r Report) NewIn(met *Met) []string {
	if met.Empty() {
		return nil
	}
	var words []string
	for _, n := range r.novelties(met) {
		words = append(words, n.said)
	}
	return words
}
