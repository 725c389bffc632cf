package finger

import "unhurriedbench/core/score"

// The written pedal notes of the horn's two sides, as MIDI numbers: C2 for the F
// side, F2 for the B flat side.
const (
	hornPedal     = 36
	hornFlatPedal = 41
)

// hornPartials are the F side's, the ninth apart: it is a passing choice for D and C
// sharp in the staff, which are safer on the tenth (common practice).
var (
	hornPartials = []partial{{2, 12}, {3, 19}, {4, 24}, {5, 28}, {6, 31}, {8, 36}, {10, 40}, {12, 43}, {16, 48}}
	hornNinth    = partial{9, 38}
	// flatPartials are the B flat side's; its ninth is the first choice for G and F
	// sharp above the staff, and the twelfth for A flat and A (common practice).
	flatPartials = []partial{{6, 31}, {8, 36}, {9, 38}, {12, 43}}
	// lowFlatPartials give its alternates below.
	lowFlatPartials = []partial{{3, 19}, {4, 24}}
)

// hornF lists the single F horn's fingerings, the shortest tube first.
func hornF(p score.Pitch) []Fingering {
	found := onPartials(p, hornPedal, hornPartials, 3)
	if down := hornPedal + hornNinth.semitones - p.MIDI(); down == 0 || down == 1 {
		onNinth := onValves(valveSets[down], hornNinth.number)
		onNinth.Why = "the same note on partial 9: a shorter tube, less safe"
		found = append(found, onNinth)
	}
	return found
}

// firstOnFlatSide is the G sharp in the staff, from which up school players take
// the B flat side of a double horn (common practice).
const firstOnFlatSide = 68

// doubleHorn gives the F side up to G in the staff and the B flat side, with the
// thumb, from G sharp; the other side's are alternates.
func doubleHorn(p score.Pitch) []Fingering {
	onF := hornF(p)
	if p.MIDI() < firstOnFlatSide {
		for _, f := range onPartials(p, hornFlatPedal, lowFlatPartials, 3) {
			f.Why = "the B flat side, to match a neighbour on it"
			onF = append(onF, f.withThumb())
		}
		return onF
	}
	var found []Fingering
	for _, f := range onPartials(p, hornFlatPedal, flatPartials, 3) {
		found = append(found, f.withThumb())
	}
	if len(onF) > 0 {
		onF[0].Why = "the F side, to match a neighbour on it"
		found = append(found, onF[0])
	}
	return found
}
