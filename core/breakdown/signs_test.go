package breakdown_test

import (
	"slices"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// A sign is offered where the measure's or the key's still holds, or no longer does, and none is
// written.
func TestSignsAtRisk(t *testing.T) {
	t.Parallel()
	s, err := abc.Read(t.Context(), "T:Signs\nM:4/4\nL:1/4\nK:F\nF _E E F|E G F2|=B B A2|B A F2|]\n")
	if err != nil {
		t.Fatal(err)
	}
	oboe, _ := instrument.ByID("oboe")
	groups := breakdown.Read(s, s.Parts[0], "", oboe, nil, breakdown.Options{}).SignsAtRisk()
	found := map[string][]int{}
	for _, g := range groups {
		found[g.Name+" "+g.Sign] = g.Measures
		if g.Written {
			t.Errorf("the signs of %s are written already", g.Name)
		}
	}
	for name, want := range map[string][]int{"E flat ♭": {1}, "E natural ♮": {2}, "B natural ♮": {3}, "B flat ♭": {4}} {
		if !slices.Equal(found[name], want) {
			t.Errorf("%s is offered in %v, want %v", name, found[name], want)
		}
	}
	marks := map[score.Place][]breakdown.Annotation{}
	for _, g := range groups {
		for _, at := range g.Places {
			if event := s.Parts[0].At(at); event.Sign {
				t.Errorf("%s has a sign at %v already", g.Name, at)
			}
			marks[at] = []breakdown.Annotation{{Kind: breakdown.AnnotationSign, Word: g.Sign, Pitch: breakdown.PitchAt(*s.Parts[0].At(at))}}
		}
	}
	for _, g := range breakdown.Read(s, s.Parts[0], "", oboe, nil, breakdown.Options{Annotations: marks}).SignsAtRisk() {
		if !g.Written {
			t.Errorf("the signs of %s are written, and are offered again", g.Name)
		}
	}
}
