package breakdown

import "slices"

// Pencil is what a teacher writes over a note, or strikes out there.
type Pencil struct {
	Kind PencilKind
	Word string // of PencilWord, what is written; of StruckOut, the alert
}

// PencilKind says what a pencil does.
type PencilKind string

// The kinds.
const (
	PencilCircle  PencilKind = "circle"
	PencilArrow   PencilKind = "arrow"
	PencilWord    PencilKind = "word"
	PencilBreath  PencilKind = "breath"    // breathe after the note
	NoBreath      PencilKind = "no-breath" // and do not
	PencilUpBow   PencilKind = "up"
	PencilDownBow PencilKind = "down"
	StruckOut     PencilKind = "struck" // an alert that this class does not need
)

// LongestWord is the most letters of a word written over a note.
const LongestWord = 24

// PencilKinds lists them.
func PencilKinds() []PencilKind {
	return []PencilKind{PencilCircle, PencilArrow, PencilWord, PencilBreath, NoBreath, PencilUpBow, PencilDownBow, StruckOut}
}

// Against says whether two marks at a note cannot both stand: a breath and none, up and down,
// two words.
func (p Pencil) Against(q Pencil) bool {
	either := func(a, b PencilKind) bool { return p.Kind == a && q.Kind == b || p.Kind == b && q.Kind == a }
	return either(PencilBreath, NoBreath) || either(PencilUpBow, PencilDownBow) || p.Kind == PencilWord && q.Kind == PencilWord
}

// has says whether there is a mark of a kind.
func has(list []Pencil, kind PencilKind) bool {
	return slices.ContainsFunc(list, func(p Pencil) bool { return p.Kind == kind })
}

// strikeOut takes the alerts out that the teacher struck.
func (r *Report) strikeOut() {
	for i := range r.Measures {
		for j := range r.Measures[i].Events {
			x := &r.Measures[i].Events[j]
			if len(x.Pencils) == 0 {
				continue
			}
			x.Alerts = slices.DeleteFunc(x.Alerts, func(a Alert) bool { return slices.Contains(x.Pencils, Pencil{StruckOut, string(a)}) })
		}
	}
}
