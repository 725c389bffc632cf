package finger

// saxTable is the saxophone's, from low B flat to high F, the same for all sizes.
//
// Provenance: from memory, common practice. The upper octave was written apart
// and agrees with the lower by the octave law: from D to C sharp the octave key
// is all that is added (TestSaxophoneOctave). Written a second time key by key, in
// secondwriting_test.go, without a difference.
const saxTable = `
Bb3 1 2 3 Bb | 4 5 6 C
B3 1 2 3 B | 4 5 6 C
C4 1 2 3 | 4 5 6 C
C#4 1 2 3 C# | 4 5 6 C
D4 1 2 3 | 4 5 6
Eb4 1 2 3 | 4 5 6 Eb
E4 1 2 3 | 4 5
F4 1 2 3 | 4
F#4 1 2 3 | 5 / 1 2 3 | 4 sideF#: chromatic, and in a trill with F
G4 1 2 3 |
G#4 1 2 3 G# |
A4 1 2 |
Bb4 1 2 | sideBb / 1 bis |: in flat keys with no B natural next to it / 1 | 4: one and one, next to F or D in arpeggios
B4 1 |
C5 2 | / 1 | sideC: chromatic, and in a trill with B
C#5 |
D5 oct 1 2 3 | 4 5 6
Eb5 oct 1 2 3 | 4 5 6 Eb
E5 oct 1 2 3 | 4 5
F5 oct 1 2 3 | 4
F#5 oct 1 2 3 | 5 / oct 1 2 3 | 4 sideF#: chromatic, and in a trill with F
G5 oct 1 2 3 |
G#5 oct 1 2 3 G# |
A5 oct 1 2 |
Bb5 oct 1 2 | sideBb / oct 1 bis |: in flat keys with no B natural next to it / oct 1 | 4: one and one, next to F or D in arpeggios
B5 oct 1 |
C6 oct 2 | / oct 1 | sideC: chromatic, and in a trill with B
C#6 oct |
D6 oct palmD |
Eb6 oct palmD palmEb |
E6 oct palmD palmEb | highE / oct frontF 2 3 |: front key, in a leap from the notes below
F6 oct palmD palmEb palmF | highE / oct frontF 2 |: front key, in a leap from the notes below
`

// saxHigh is what an alto has above: the key over the right hand's side keys opens
// the highest hole, all others being open.
const saxHigh = `
F#6 oct palmD palmEb palmF | highE highF#
`
