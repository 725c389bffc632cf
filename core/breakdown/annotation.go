package breakdown

import (
	"slices"

	"unhurriedbench/core/score"
)

// Annotation is what a teacher writes over a note, or strikes out there.
type Annotation struct {
	Kind AnnotationKind
	Word string // of AnnotationWord, what is written; of StruckOut, the alert
	// of the note it was written over, a MIDI number, 0 for a rest or a stroke: another note there leaves it aside
	Pitch int
}

// AnnotationKind says what a pencil does.
type AnnotationKind string

// The kinds.
const (
	AnnotationCircle  AnnotationKind = "circle"
	AnnotationArrow   AnnotationKind = "arrow"
	AnnotationWord    AnnotationKind = "word"
	AnnotationBreath  AnnotationKind = "breath"    // breathe after the note
	NoBreath          AnnotationKind = "no-breath" // and do not
	AnnotationUpBow   AnnotationKind = "up"
	AnnotationDownBow AnnotationKind = "down"
	AnnotationSign    AnnotationKind = "sign"   // the sign that holds, in front of a note that has none written
	StruckOut         AnnotationKind = "struck" // an alert that this class does not need
)

// LongestWord is the most letters of a word written over a note.
const LongestWord = 24

// AnnotationKinds lists them.
func AnnotationKinds() []AnnotationKind {
	return []AnnotationKind{AnnotationCircle, AnnotationArrow, AnnotationWord, AnnotationBreath, NoBreath,
		AnnotationUpBow, AnnotationDownBow, AnnotationSign, StruckOut}
}

// Against says whether two marks at a note cannot both stand: a breath and none, up and down,
// two words.
func (p Annotation) Against(q Annotation) bool {
	either := func(a, b AnnotationKind) bool { return p.Kind == a && q.Kind == b || p.Kind == b && q.Kind == a }
	return either(AnnotationBreath, NoBreath) || either(AnnotationUpBow, AnnotationDownBow) ||
		p.Kind == AnnotationWord && q.Kind == AnnotationWord
}

// has says whether there is a mark of a kind.
func has(list []Annotation, kind AnnotationKind) bool {
	return slices.ContainsFunc(list, func(p Annotation) bool { return p.Kind == kind })
}

// strikeOut takes the alerts out that the teacher struck.
func (r *Report) strikeOut() {
	for i := range r.Measures {
		for j := range r.Measures[i].Events {
			x := &r.Measures[i].Events[j]
			if len(x.Annotations) == 0 {
				continue
			}
			x.Alerts, x.eased = slices.DeleteFunc(x.Alerts, x.struck), slices.DeleteFunc(x.eased, x.struck)
		}
	}
}

// struck says whether the teacher struck an alert out.
func (e Event) struck(a Alert) bool {
	return slices.ContainsFunc(e.Annotations, func(p Annotation) bool {
		return p.Kind == StruckOut &&
			p.Word == string(a)
	})
}

// StruckOut lists the alerts that the teacher struck out here.
func (e Event) StruckOut() []Alert {
	var list []Alert
	for _, p := range e.Annotations {
		if p.Kind == StruckOut {
			list = append(list, Alert(p.Word))
		}
	}
	return list
}

// PitchAt is what a mark at a place is kept with: the note's MIDI number, 0 for a rest or a
// stroke.
func PitchAt(e score.Event) int {
	if e.Kind == score.Rest || e.Unpitched {
		return 0
	}
	return e.Pitch.MIDI()
}

// fitting are the marks that were written over the note that stands there.
func fitting(list []Annotation, e score.Event) []Annotation {
	return slices.DeleteFunc(slices.Clone(list), func(p Annotation) bool { return p.Pitch != PitchAt(e) })
}
