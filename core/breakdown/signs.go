package breakdown

import (
	"fmt"
	"slices"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// SignGroup is the notes of one name before which a sign may be pencilled: where it is easily
// forgotten, and none is written.
type SignGroup struct {
	Key      string // names it in forms: "E.-1"
	Name     string // "E flat"
	Sign     string // "♭"
	Places   []score.Place
	Measures []int // their numbers, each once
	Written  bool  // all of them have it already
}

// forgotten are the alerts of notes whose sign is easily forgotten. Source: common practice.
var forgotten = []Alert{Trap, Carried, Cancelled, InKey}

// SignsAtRisk lists the notes whose sign is easily forgotten, by their names, in the order met.
func (r Report) SignsAtRisk() []SignGroup {
	var groups []SignGroup
	for i, m := range r.Measures {
		for j, e := range m.Events {
			at := score.Place{Measure: i, Event: j}
			event := r.Part.At(at)
			if e.Kind != "note" || e.Tied || event.Unpitched || event.Sign || !slices.ContainsFunc(forgotten, e.Has) {
				continue
			}
			key := fmt.Sprintf("%s.%d", event.Pitch.Step, event.Pitch.Alter)
			k := slices.IndexFunc(groups, func(g SignGroup) bool { return g.Key == key })
			if k < 0 {
				k = len(groups)
				groups = append(groups, SignGroup{Key: key, Name: name.Spoken(event.Pitch, true), Sign: SignOf(event.Pitch), Written: true})
			}
			g := &groups[k]
			g.Places = append(g.Places, at)
			if !slices.Contains(g.Measures, m.Number) {
				g.Measures = append(g.Measures, m.Number)
			}
			g.Written = g.Written && has(e.Annotations, AnnotationSign)
		}
	}
	return groups
}

// SignOf is the sign of a pitch, a natural's too: "♮".
func SignOf(p score.Pitch) string { return string([]rune(name.Short(p, true))[1:]) }
