package web

import (
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/card"
)

// The settings of reading cards.
const (
	askedSetting    = "cards-ask"
	newCardsSetting = "cards-new"
)

// usualKinds are asked where nothing is chosen: a place is told beside the name.
var usualKinds = []card.Kind{card.Name, card.Finger, card.Rhythm, card.Key, card.Interval, card.Change}

// cards is what the rounds of the teacher's students are made of.
func (p preferences) cards() card.Wanted {
	w := card.Wanted{New: card.UsualNew, Short: card.RoundTakes}
	for _, word := range strings.Fields(p.Asked) {
		if kind, known := card.ParseKind(word); known && !slices.Contains(w.Kinds, kind) {
			w.Kinds = append(w.Kinds, kind)
		}
	}
	if len(w.Kinds) == 0 {
		w.Kinds = slices.Clone(usualKinds)
	}
	if n, err := strconv.Atoi(p.NewCards); err == nil {
		w.New = max(0, min(n, card.MostNew))
	}
	return w
}
