package finger

// clarinetTable is the seventeen-key clarinet's, from low E to the E above high
// C, the same for B flat and E flat clarinets.
//
// Provenance: from memory, common practice. The upper register was written apart
// from the lower and agrees with it by the law of the twelfth: the register key
// added to a lower fingering sounds a twelfth higher (TestClarinetTwelfth). From C
// sharp above the staff the first finger is lifted from the fingering a major sixth
// below, which makes a vent of its hole, and from D on the right E flat key helps
// the pitch (TestClarinetSixth). The throat notes bear the right hand down, as far
// below their holes as its own lie. Written a second time key by key, in
// secondwriting_test.go, without a difference.
const clarinetTable = `
E3 T 1 2 3 L-E | 4 5 6 / T 1 2 3 | 4 5 6 R-E: right little finger, when the left one is needed next
F3 T 1 2 3 | 4 5 6 R-F / T 1 2 3 L-F | 4 5 6: left little finger, next to a right-hand A flat or E
F#3 T 1 2 3 | 4 5 6 R-F# / T 1 2 3 L-F# | 4 5 6: left little finger, next to a right-hand E or A flat
G3 T 1 2 3 | 4 5 6
G#3 T 1 2 3 | 4 5 6 R-Ab
A3 T 1 2 3 | 4 5
Bb3 T 1 2 3 | 4
B3 T 1 2 3 | 5 / T 1 2 3 | 4 sliver: chromatic, and in a trill with B flat
C4 T 1 2 3 |
C#4 T 1 2 3 L-C# |
D4 T 1 2 |
Eb4 T 1 2 | sideEb / T 1 | 4: one and one, where the side key is out of reach
E4 T 1 |
F4 T |
F#4 1 | / T | sideEb sideF#: chromatic, and in a trill with F
G4 | / | 4 5 6: right hand down for resonance, and ready for the break
G#4 G# | / G# | 4 5 6: right hand down for resonance, and ready for the break
A4 A | / A | 4 5 6: right hand down for resonance, and ready for the break
Bb4 R A | / R A | 4 5 6: right hand down for resonance, and ready for the break / A | sideBb: by choice, a clearer sound where there is time for the side key
B4 T R 1 2 3 L-E | 4 5 6 / T R 1 2 3 | 4 5 6 R-E: right little finger, when the left one is needed next
C5 T R 1 2 3 | 4 5 6 R-F / T R 1 2 3 L-F | 4 5 6: left little finger, next to a right-hand E flat or B
C#5 T R 1 2 3 | 4 5 6 R-F# / T R 1 2 3 L-F# | 4 5 6: left little finger, next to a right-hand B or E flat
D5 T R 1 2 3 | 4 5 6
Eb5 T R 1 2 3 | 4 5 6 R-Ab
E5 T R 1 2 3 | 4 5
F5 T R 1 2 3 | 4
F#5 T R 1 2 3 | 5 / T R 1 2 3 | 4 sliver: chromatic, and in a trill with F
G5 T R 1 2 3 |
G#5 T R 1 2 3 L-C# |
A5 T R 1 2 |
Bb5 T R 1 2 | sideEb / T R 1 | 4: one and one, where the side key is out of reach
B5 T R 1 |
C6 T R |
C#6 T R 2 3 | 4 5
D6 T R 2 3 | 4 R-Ab
Eb6 T R 2 3 | 5 R-Ab
E6 T R 2 3 | R-Ab
`

// bassClarinetLow is what a bass clarinet has below.
const bassClarinetLow = `
Eb3 T 1 2 3 | 4 5 6 R-Eb / T 1 2 3 L-Eb | 4 5 6: left little finger, next to a right-hand E or F
`
