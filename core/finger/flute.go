package finger

// fluteTable is the Boehm flute's and the piccolo's, from low C to the C
// three octaves above.
//
// Provenance: from memory, common practice. The second octave was written apart
// and agrees with the first from E to C sharp (TestFluteOctave); for D and E
// flat the first finger is lifted. Low D and C have the little finger off the E
// flat key, as the D above has too. The topmost B flat, B and C are harmonics vented
// by the trill keys and open holes; they follow no octave law. Written a second
// time key by key, in secondwriting_test.go, without a difference.
const fluteTable = `
C4 T 1 2 3 | 4 5 6 C
C#4 T 1 2 3 | 4 5 6 C#
D4 T 1 2 3 | 4 5 6
Eb4 T 1 2 3 | 4 5 6 Eb
E4 T 1 2 3 | 4 5 Eb
F4 T 1 2 3 | 4 Eb
F#4 T 1 2 3 | 6 Eb / T 1 2 3 | 5 Eb: next to E, in quick passages
G4 T 1 2 3 | Eb
G#4 T 1 2 3 G# | Eb
A4 T 1 2 | Eb
Bb4 T 1 | 4 Eb / TBb 1 | Eb: in flat keys with no B natural next to it / T 1 | sideBb Eb: chromatic, and in a trill with A
B4 T 1 | Eb
C5 1 | Eb
C#5 | Eb
D5 T 2 3 | 4 5 6
Eb5 T 2 3 | 4 5 6 Eb
E5 T 1 2 3 | 4 5 Eb
F5 T 1 2 3 | 4 Eb
F#5 T 1 2 3 | 6 Eb / T 1 2 3 | 5 Eb: next to E, in quick passages
G5 T 1 2 3 | Eb
G#5 T 1 2 3 G# | Eb
A5 T 1 2 | Eb
Bb5 T 1 | 4 Eb / TBb 1 | Eb: in flat keys with no B natural next to it / T 1 | sideBb Eb: chromatic, and in a trill with A
B5 T 1 | Eb
C6 1 | Eb
C#6 | Eb
D6 T 2 3 | Eb
Eb6 T 1 2 3 G# | 4 5 6 Eb
E6 T 1 2 | 4 5 Eb
F6 T 1 3 | 4 Eb
F#6 T 1 3 | 6 Eb
G6 1 2 3 | Eb
G#6 2 3 G# | Eb
A6 T 2 | 4 Eb
Bb6 | 4 tr1
B6 T 1 3 | tr2
C7 1 2 3 G# | 4
`
