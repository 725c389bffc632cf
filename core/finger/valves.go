package finger

import "unhurriedbench/core/score"

// valveSets is the valve combination that lowers the open tube by 0 to 6
// semitones: valve 2 lowers one, valve 1 two, valve 3 three. Source: Benade,
// Fundamentals of Musical Acoustics; 1-2 is preferred to 3 by common practice.
var valveSets = [7]string{"0", "2", "1", "1-2", "2-3", "1-3", "1-2-3"}

// partial is a resonance of the open tube, in semitones above the pedal note.
type partial struct {
	number    int
	semitones int
}

// openPartials are the partials players use; the seventh is a third of a
// semitone flat and is left out: only a slide can make up for it.
var openPartials = []partial{{2, 12}, {3, 19}, {4, 24}, {5, 28}, {6, 31}, {8, 36}}

// valves computes the fingerings of a three-valve instrument from the MIDI
// number of its written pedal note, the shortest tube first.
func valves(p score.Pitch, pedal int) (Choice, bool) {
	return firstIsDefault(onPartials(p, pedal, openPartials))
}

// firstIsDefault makes a choice of a list in order of preference.
func firstIsDefault(found []Fingering) (Choice, bool) {
	if len(found) == 0 {
		return Choice{}, false
	}
	first := found[0]
	first.Why = ""
	return Choice{Fingering: first, Alternates: found[1:]}, true
}
