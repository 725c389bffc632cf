package finger

import (
	"fmt"

	"unhurriedbench/core/score"
)

// The written pedal notes of the horn's two sides, as MIDI numbers: C2 for the F
// side, F2 for the B flat side.
const (
	hornPedal     = 36
	hornFlatPedal = 41
)

// hornPartials are the F side's, the ninth apart: it is a passing choice for D and C
// sharp in the staff, which are safer on the tenth (common practice).
var (
	hornPartials = []partial{{3, 19}, {4, 24}, {5, 28}, {6, 31}, {8, 36}, {10, 40}, {12, 43}}
	hornNinth    = partial{9, 38}
)

// hornF computes the single F horn's fingerings, the shortest tube first.
func hornF(p score.Pitch) []Fingering {
	found := onPartials(p, hornPedal, hornPartials)
	if down := hornPedal + hornNinth.semitones - p.MIDI(); down == 0 || down == 1 {
		found = append(found, Fingering{Text: valveSets[down], Why: "the same note on partial 9: a shorter tube, less safe"})
	}
	return found
}

// onPartials lists the valve sets that reach a note from the given partials,
// lowest partial first.
func onPartials(p score.Pitch, pedal int, partials []partial) []Fingering {
	var found []Fingering
	for _, open := range partials {
		down := pedal + open.semitones - p.MIDI()
		if down < 0 || down > 6 {
			continue
		}
		found = append(found, Fingering{Text: valveSets[down], Why: fmt.Sprintf("the same note on partial %d: a longer tube, to match a neighbour", open.number)})
		if down == 3 {
			found = append(found, Fingering{Text: "3", Why: "valve 3 alone is the same length as 1 and 2 together"})
		}
	}
	return found
}

// firstOnFlatSide is the G sharp in the staff, from which up school players take
// the B flat side of a double horn (common practice).
const firstOnFlatSide = 68

// doubleHorn gives the F side up to G in the staff and the B flat side, with the
// thumb, from G sharp; the other side's are alternates.
func doubleHorn(p score.Pitch) (Choice, bool) {
	onF := hornF(p)
	if p.MIDI() < firstOnFlatSide {
		return firstIsDefault(onF)
	}
	var found []Fingering
	for _, f := range onPartials(p, hornFlatPedal, []partial{{6, 31}, {8, 36}}) {
		found = append(found, Fingering{Text: "T" + f.Text, Why: f.Why})
	}
	if len(onF) > 0 {
		found = append(found, Fingering{Text: onF[0].Text, Why: "the F side, to match a neighbour on it"})
	}
	return firstIsDefault(found)
}
