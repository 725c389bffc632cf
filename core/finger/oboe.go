package finger

// oboeTable is the conservatory oboe's, from low B flat to the D above high C.
//
// Provenance: from memory, common practice. The upper octave was written apart
// and agrees with the lower from E to C, the first octave key being added up to
// G sharp and the second from A on (TestOboeOctave); C sharp to E flat have the
// half hole. High C sharp and D are the twelfths of F sharp and G with the first
// finger lifted and the C key added (TestOboeTwelfth). E flat above is left out: its
// fingerings differ from one oboe to the next. Written a second time key by key, in secondwriting_test.go, without a
// difference.
const oboeTable = `
Bb3 1 2 3 Bb | 4 5 6 C
B3 1 2 3 B | 4 5 6 C
C4 1 2 3 | 4 5 6 C
C#4 1 2 3 | 4 5 6 C#
D4 1 2 3 | 4 5 6
Eb4 1 2 3 | 4 5 6 Eb / 1 2 3 Eb | 4 5 6: left E flat, next to a right-hand C or C sharp
E4 1 2 3 | 4 5
F4 1 2 3 | 4 5 F / 1 2 3 | 4 6: forked, next to D or E flat / 1 2 3 | 4 6 Eb: forked, on an oboe with no F resonance key / 1 2 3 F | 4 5: left F, where the oboe has it
F#4 1 2 3 | 4
G4 1 2 3 |
G#4 1 2 3 G# |
A4 1 2 |
Bb4 1 2 | 4
B4 1 |
C5 1 | 4
C#5 half 2 3 | 4 5 6 C#
D5 half 2 3 | 4 5 6
Eb5 half 2 3 | 4 5 6 Eb / half 2 3 Eb | 4 5 6: left E flat, next to a right-hand C sharp
E5 oct1 1 2 3 | 4 5
F5 oct1 1 2 3 | 4 5 F / oct1 1 2 3 | 4 6: forked, next to D or E flat / oct1 1 2 3 | 4 6 Eb: forked, on an oboe with no F resonance key / oct1 1 2 3 F | 4 5: left F, where the oboe has it
F#5 oct1 1 2 3 | 4
G5 oct1 1 2 3 |
G#5 oct1 1 2 3 G# |
A5 oct2 1 2 |
Bb5 oct2 1 2 | 4
B5 oct2 1 |
C6 oct2 1 | 4
C#6 2 3 | 4 C
D6 2 3 | C
`
