package finger

import (
	"strings"
	"unhurriedbench/core/instrument"
)

// bassoonTable is the German-system bassoon's, from low B flat to the D above the
// staff. Above it fingerings differ from one instrument to the next and are left
// out.
//
// Provenance: from memory, common practice, each line reasoned from the tone
// holes. The whisper key stays down to the G sharp of the half-hole octave. F to G
// sharp in the middle have the low octave's fingers with the first hole half open;
// from A to C and for D the fingers are the low octave's, the whisper key is up
// and its flick key is touched at the start of the note (TestBassoonOctave): in the
// first year that is said beside the plain fingering, from the second it is written. The
// Eb, C sharp, Ab and Bb keys open a vent above the note below, so each is added to
// that note's fingering; the thumb's F sharp key closes the F hole by itself. Read
// through against the tone holes, and written twice more key by key, apart from each
// other (secondwriting_test.go): the one difference was that the first of the two had
// the thumb's A flat key as the default, which is the little finger's, the thumb
// being wanted for F sharp and B flat.
const bassoonTable = `
Bb1 lowD lowC lowB lowBb 1 2 3 | pancakeE 4 5 6 F
B1 lowD lowC lowB 1 2 3 | pancakeE 4 5 6 F
C2 lowD lowC 1 2 3 | pancakeE 4 5 6 F
C#2 lowD lowC 1 2 3 C# | pancakeE 4 5 6 F
D2 lowD 1 2 3 | pancakeE 4 5 6 F
Eb2 lowD 1 2 3 Eb | pancakeE 4 5 6 F
E2 W 1 2 3 | pancakeE 4 5 6 F
F2 W 1 2 3 | 4 5 6 F
F#2 W 1 2 3 | F# 4 5 6 / W 1 2 3 | 4 5 6 F#: little finger, next to a thumb E or B flat
G2 W 1 2 3 | 4 5 6
G#2 W 1 2 3 | 4 5 6 Ab / W 1 2 3 | Ab 4 5 6: thumb, next to a little-finger F
A2 W 1 2 3 | 4 5
Bb2 W 1 2 3 | Bb 4 5
B2 W 1 2 3 | 4
C3 W 1 2 3 |
C#3 W C# 1 2 3 |
D3 W 1 2 |
Eb3 W 1 3 |
E3 W 1 |
F3 W |
F#3 W half 2 3 | F# 4 5 6 / W half 2 3 | 4 5 6 F#: little finger, next to a thumb B flat
G3 W half 2 3 | 4 5 6
G#3 W half 2 3 | 4 5 6 Ab / W half 2 3 | Ab 4 5 6: thumb, next to a little-finger F sharp
A3 1 2 3 | 4 5 / flickA 1 2 3 | 4 5: with the flick key, touched at the start
Bb3 1 2 3 | Bb 4 5 / flickA 1 2 3 | Bb 4 5: with the flick key, touched at the start
B3 1 2 3 | 4 / flickC 1 2 3 | 4: with the flick key, touched at the start
C4 1 2 3 | / flickC 1 2 3 |: with the flick key, touched at the start
C#4 C# 1 2 3 |
D4 1 2 | / flickD 1 2 |: with the flick key, touched at the start
`

// flickKeys are touched by the left thumb at the start of a note.
var flickKeys = []string{"flickA", "flickC", "flickD"}

// byYear takes the ways of a woodwind's note as they are taught in a year of
// playing: the bassoon's flick keys are said in the first year and written later.
func byYear(i instrument.Instrument, ways []Fingering, year int) []Fingering {
	if i.Keys != instrument.BassoonKeys || len(ways) != 2 {
		return ways
	}
	plain, flicked := ways[0], ways[1]
	key := ""
	for _, name := range flickKeys {
		if flicked.Keys&^plain.Keys == bassoonLayout.mask(name) {
			key = strings.TrimPrefix(name, "flick")
		}
	}
	if key == "" {
		return ways
	}
	if year < 2 {
		plain.Care = "touch the " + key + " flick key at the start, then let go"
		return []Fingering{plain, flicked}
	}
	plain.Why = "without the flick, in a slur from a note that already speaks"
	return []Fingering{flicked, plain}
}
