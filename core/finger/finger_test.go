package finger

import (
	"math"
	"slices"
	"strconv"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

func fingering(t *testing.T, id, note string) Choice {
	t.Helper()
	i, ok := instrument.ByID(id)
	if !ok {
		t.Fatalf("no instrument %s", id)
	}
	c, _ := For(i, score.MustPitch(note))
	return c
}

// Facts of the trade: common practice.
func TestFingerings(t *testing.T) {
	tests := []struct{ id, notes, want string }{
		{"trumpet", "C4 C#4 D4 Eb4 E4 F4 F#4 G4", "0 1-2-3 1-3 2-3 1-2 1 2 0"},
		{"trumpet", "Ab4 A4 Bb4 B4 C5 D5 Eb5 E5 F5 G5", "2-3 1-2 1 2 0 1 2 0 1 0"},
		{"trombone", "E2 F2 Bb2 B2 C3 D3 Eb3 E3 F3 G3 A3 Bb3 C4 D4", "7 6 1 7 6 4 3 2 1 4 2 1 3 1"},
		{"clarinet", "C4 D4 E4 F4 G4", "T 1 2 3 |,T 1 2 |,T 1 |,T |,|"},
		{"clarinet", "Bb3 B3 A4 Bb4 C5", "T 1 2 3 | 4,T 1 2 3 | 5,A |,R A |,T R 1 2 3 | 4 5 6 R-F"},
		{"violin", "D4 E4 F4 F#4 G4 G#4 A4 C5 C#5 Bb5", "D0,D1,D L2,D2,D3,D H3,A0,A L2,A2,E L4"},
		{"violin", "Ab3 Ab4 Eb5 B5", "G L1,D L4,A L4,E4"},
		{"violin", "G4 Gb4 F#4 Db5 C#5 Ab5 G#5", "D3,D L3,D2,A L3,A2,E L3,E2"},
		{"alto-sax", "B4 A4 G4 C5 D5 F4 E4 C#5 Bb3", "1 |,1 2 |,1 2 3 |,2 |,oct 1 2 3 | 4 5 6,1 2 3 | 4,1 2 3 | 4 5,|,1 2 3 Bb | 4 5 6 C"},
		{
			"flute",
			"D5 Eb5 F5 F#5 D4 G4 B4 C5",
			"T 2 3 | 4 5 6,T 2 3 | 4 5 6 Eb,T 1 2 3 | 4 Eb,T 1 2 3 | 6 Eb,T 1 2 3 | 4 5 6,T 1 2 3 | Eb,T 1 | Eb,1 | Eb",
		},
		{"oboe", "B4 A4 G4 C5 D5 F#4 E5 A5", "1 |,1 2 |,1 2 3 |,1 | 4,half 2 3 | 4 5 6,1 2 3 | 4,oct1 1 2 3 | 4 5,oct2 1 2 |"},
		{"horn-f", "C4 D4 Eb4 E4 F4 F#4 G4 G#4 A4 Bb4 B4 C5 D5", "0,1,2,0,1,2,0,2-3,1-2,1,2,0,1"},
		{"horn-double", "C4 F4 G4 G#4 A4 Bb4 B4 C5 D5 F5", "0,1,0,T2-3,T1-2,T1,T2,T0,T1-2,T0"},
		{"trombone-f", "C3 B2 F2 Eb2 C2 Bb2 D3 F3", "F1,F2,F1,F3,F6,1,4,1"},
		{
			"bass",
			"E2 F2 F#2 G2 G#2 A2 Bb2 C3 C#3 D3 F#3 G3 B3 C4 C#4 D4 Eb4 E4 F4 G4",
			"E0,E1(half),E1,E2,E4,A0,A1(half),A2,A4,D0,D4,G0,G4,G1(III),G2(III),G4(III),G2(IV),G4(IV),G1(VI),G3(VI)",
		},
		{"bells", "Bb4 C5", "Bb4,C5"},
		{"horn-double", "F#5 G5 G#5 A5 C3", "T2,T0,T2-3,T1-2,0"},
		{"horn-f", "C3 C#3 D3 F3 G5 G#5 A5", "0,1-2-3,1-3,1,0,2-3,1-2"},
		{"trombone", "F4 F#4 G4 G#4", "1,3+,2+,3"},
		{"oboe", "C#6 D6", "2 3 | 4 C,2 3 | C"},
		{"flute", "Bb6 B6 C7", "| 4 tr1,T 1 3 | tr2,1 2 3 G# | 4"},
		{"alto-sax", "F6 F#6", "oct palmD palmEb palmF | highE,oct palmD palmEb palmF | highE highF#"},
		{"clarinet", "F#5 G5 C#6 D6 E6", "T R 1 2 3 | 5,T R 1 2 3 |,T R 2 3 | 4 5,T R 2 3 | 4 R-Ab,T R 2 3 | R-Ab"},
		{"bassoon", "F2 G2 C3 F3 G3 A3 C4", "W 1 2 3 | 4 5 6 F,W 1 2 3 | 4 5 6,W 1 2 3 |,W |,W half 2 3 | 4 5 6,1 2 3 | 4 5,1 2 3 |"},
		{"violin", "C6 C#6 Db6 D6", "E3(III),E H3(III),E L4(III),E4(III)"},
		{"viola", "F5 G5", "A3(III),A4(III)"},
		{"cello", "Eb4 E4 F4 F#4 G4", "A x4,A1(IV),A2(IV),A3(IV),A4(IV)"},
		{"timpani", "C3 F2 Bb2 F3 D2", "26,29,29,26,32"},
		{"viola", "C3 D3 E3 Eb3 G3 F4 A4", "C0,C1,C2,C L2,G0,D L2,A0"},
		{"euphonium-bc", "Bb2 C3 D3 Eb3 F3 Bb3 C4", "0 1-3 1-2 1 0 0 1"},
		{"tuba-bb", "Bb1 C2 D2 Eb2 F2 Bb2", "0 1-3 1-2 1 0 0"},
		{"tuba-eb", "Eb2 F2 G2 Ab2 Bb2 Eb3", "0 1-3 1-2 1 0 0"},
		{"cello", "D3 E3 F3 F#3 G3 C4 C#4 Eb3 G#2", "D0,D1,D2,D3,D4,A2,A3,D x1,G x1"},
		{"cello", "C2 D2 E2 F2 F#2 G2", "C0,C1,C3,C4,C x4,G0"},
	}
	for _, tt := range tests {
		split := strings.Fields
		if strings.Contains(tt.want, ",") {
			split = func(s string) []string { return strings.Split(s, ",") }
		}
		want := split(tt.want)
		for k, note := range strings.Fields(tt.notes) {
			if got := fingering(t, tt.id, note).Text; got != want[k] {
				t.Errorf("%s %s is %q, want %q", tt.id, note, got, want[k])
			}
		}
	}
}

func TestAlternates(t *testing.T) {
	tests := []struct{ id, note, want string }{
		{"trombone", "Bb3", "5"},
		{"trombone", "D4", "4"},
		{"trombone", "F3", "6"},
		{"trumpet", "E4", "3"},
		{"trumpet", "G4", "1-3"},
		{"violin", "A4", "D4"},
		{"violin", "E5", "A4"},
		{"clarinet", "B3", "T 1 2 3 | 4 sliver"},
		{"trombone-f", "C3", "6"},
		{"violin", "E5", "A2(III)"},
		{"cello", "B2", "G x2"},
		{"cello", "C3", "G x3"},
		{"bass", "B3", "G1(II½)"},
		{"bassoon", "A3", "flickA 1 2 3 | 4 5"},
		{"alto-sax", "F6", "oct frontF 2 |"},
		{"horn-double", "A4", "1-2"},
		{"horn-double", "F4", "T0"},
	}
	for _, tt := range tests {
		var texts []string
		for _, f := range fingering(t, tt.id, tt.note).Alternates {
			texts = append(texts, f.Text)
			if f.Why == "" {
				t.Errorf("%s %s: the alternate %q has no reason", tt.id, tt.note, f.Text)
			}
		}
		if !slices.Contains(texts, tt.want) {
			t.Errorf("%s %s: alternates %q, want %q among them", tt.id, tt.note, texts, tt.want)
		}
	}
}

func TestEverySemitoneOfTheRangeAndNoneOutside(t *testing.T) {
	for _, i := range instrument.All() {
		if i.Unpitched() {
			continue
		}
		for midi := i.Lowest.MIDI(); midi <= i.Highest.MIDI(); midi++ {
			for _, p := range spellings(midi) {
				if c, ok := For(i, p); !ok || c.Text == "" {
					t.Errorf("%s has no fingering for %s", i.ID, p)
				}
			}
		}
		for _, midi := range []int{i.Lowest.MIDI() - 1, i.Highest.MIDI() + 1} {
			if c, ok := For(i, spellings(midi)[0]); ok {
				t.Errorf("%s has %q for a note out of range", i.ID, c.Text)
			}
		}
	}
}

// spellings lists the pitches with at most one sharp or flat at a MIDI number.
func spellings(midi int) []score.Pitch {
	var list []score.Pitch
	for octave := 0; octave < 9; octave++ {
		for step := score.C; step <= score.B; step++ {
			for alter := -1; alter <= 1; alter++ {
				if p := (score.Pitch{Step: step, Alter: alter, Octave: octave}); p.MIDI() == midi {
					list = append(list, p)
				}
			}
		}
	}
	return list
}

// Acoustics (Benade, Fundamentals of Musical Acoustics): partial n of a tube
// lies 1200·log2(n) cents above its pedal, and each valve or position lowers it
// by its semitones. The pitch a fingering implies must lie within 15 cents of
// equal temperament; the fifth is 14 flat, the third and sixth 2 sharp, the seventh
// 31 flat, which the slide makes up for. The default must not be beaten by more than 14 cents.
func TestBrassFingeringsSoundTheirNote(t *testing.T) {
	down := map[string]int{"0": 0, "2": 1, "1": 2, "1-2": 3, "3": 3, "2-3": 4, "1-3": 5, "1-2-3": 6,
		"4": 5, "2-4": 6, "1-4": 7, "1-2-4": 8, "2-3-4": 9, "1-3-4": 10}
	pedals := map[string]int{
		"horn-f":       36,
		"horn-double":  36,
		"trumpet":      48,
		"trombone":     34,
		"trombone-f":   34,
		"euphonium-bc": 34,
		"euphonium-tc": 48,
		"tuba-bb":      22,
		"tuba-eb":      27,
	}
	for id, pedal := range pedals {
		three, _ := instrument.ByID(id)
		for _, i := range []instrument.Instrument{three, three.OfModel("4")} {
			for midi := i.Lowest.MIDI(); midi <= i.Highest.MIDI(); midi++ {
				c, _ := For(i, spellings(midi)[0])
				var off []float64
				for _, f := range c.Ways() {
					text, tube := f.Text, pedal
					switch text[0] {
					case 'T':
						text, tube = text[1:], 41
					case 'F':
						text, tube = text[1:], 29
					}
					semitones, ok := down[text]
					if i.Mechanism == instrument.Slide {
						n, err := strconv.Atoi(strings.TrimSuffix(text, "+"))
						semitones, ok = n-1, err == nil
					}
					if !ok {
						t.Errorf("%s: %q is not a fingering", id, f.Text)
						continue
					}
					sounds := float64(100*(tube-semitones)) + 1200*math.Log2(float64(f.Partial))
					if strings.HasSuffix(text, "+") { // the slide is a third of a semitone in
						sounds += 100.0 / 3
					}
					cents := math.Abs(sounds - float64(100*midi))
					off = append(off, cents)
					if cents > 15 {
						t.Errorf("%s: %q on partial %d is %.0f cents from MIDI %d", id, f.Text, f.Partial, cents, midi)
					}
				}
				if off[0] > slices.Min(off)+14 {
					t.Errorf("%s, MIDI %d: %q is %.0f cents off, another way only %.0f", id, midi, c.Text, off[0], slices.Min(off))
				}
			}
		}
	}
}

// Valve loops are each right for themselves, so that together they are too short.
// The figures follow from equal temperament: 1-3 by 30 cents, 1-2-3 by 54.
func TestCare(t *testing.T) {
	tests := []struct{ id, note, text, want string }{
		{"trumpet", "D4", "1-3", "30 cents: third-valve slide out"},
		{"trumpet", "C#4", "1-2-3", "54 cents: third-valve slide out"},
		{"trumpet", "E5", "0", "partial 5 is 14 cents flat"},
		{"trumpet", "A4", "1-2", ""},
		{"trombone", "D4", "1", "partial 5"},
		{"trombone", "G4", "2+", "partial 7 is 31 cents flat"},
		{"tuba-bb", "C2", "1-3", "third-valve slide"},
	}
	for _, tt := range tests {
		for _, f := range fingering(t, tt.id, tt.note).Ways() {
			if f.Text == tt.text && (tt.want == "" && f.Care != "" || !strings.Contains(f.Care, tt.want)) {
				t.Errorf("%s %s with %s: %q, want %q", tt.id, tt.note, tt.text, f.Care, tt.want)
			}
		}
	}
	euphonium, _ := instrument.ByID("euphonium-bc")
	for note, want := range map[string]string{"C3": "4", "B2": "2-4", "D2": "1-2-4", "C2": "1-3-4"} {
		if c, _ := For(euphonium.OfModel("4"), score.MustPitch(note)); c.Text != want {
			t.Errorf("with four valves %s is %q, want %q", note, c.Text, want)
		}
	}
}

// The clarinet overblows a twelfth: the register key added to a fingering of
// the lower register sounds nineteen semitones higher.
func TestClarinetTwelfth(t *testing.T) {
	for _, id := range []string{"clarinet", "eb-clarinet", "bass-clarinet"} {
		law(t, id, "E3", "F4", 19, func(low string) string {
			if low == "1 |" { // F sharp 4 has no thumb, so no register key
				return ""
			}
			return strings.Replace(low, "T", "T R", 1)
		})
	}
}

// Above high C the clarinet lifts the first finger from the fingering a major
// sixth below: the fifth partial of a tube closed at one end against its third,
// 5:3 (Benade, Fundamentals of Musical Acoustics). From D on the right A flat key
// helps the pitch.
func TestClarinetSixth(t *testing.T) {
	for _, id := range []string{"clarinet", "eb-clarinet"} {
		law(t, id, "E5", "E5", 9, func(low string) string { return strings.Replace(low, "1 ", "", 1) })
		law(t, id, "F5", "G5", 9, func(low string) string { return strings.TrimSpace(strings.Replace(low, "1 ", "", 1)) + " R-Ab" })
	}
}

// The bassoon's octave: the first hole half open from F sharp to G sharp; from A to
// D the same fingers with the whisper key up, and a flick key at the start.
func TestBassoonOctave(t *testing.T) {
	law(t, "bassoon", "F#2", "G#2", 12, func(low string) string { return strings.Replace(low, "1", "half", 1) })
	law(t, "bassoon", "A2", "D3", 12, func(low string) string { return strings.Replace(low, "W ", "", 1) })
	for note, key := range map[string]string{"A3": "flickA ", "Bb3": "flickA ", "B3": "flickC ", "C4": "flickC ", "D4": "flickD "} {
		first, second := fingering(t, "bassoon", note), Choice{}
		bassoon, _ := instrument.ByID("bassoon")
		second, _ = Taught(bassoon, score.MustPitch(note), 2)
		if second.Text != key+first.Text || !strings.Contains(first.Care, "flick key at the start") {
			t.Errorf("%s is %q with %q, and %q in the second year", note, first.Text, first.Care, second.Text)
		}
	}
}

// The saxophone overblows an octave with the octave key alone, from D to C sharp.
func TestSaxophoneOctave(t *testing.T) {
	for _, id := range []string{"soprano-sax", "alto-sax", "tenor-sax", "bari-sax"} {
		law(t, id, "D4", "C#5", 12, func(low string) string {
			return strings.TrimSpace("oct " + low)
		})
	}
}

// The flute's second octave has the fingerings of the first, but for D and E
// flat, where the first finger is lifted to help the octave speak.
func TestFluteOctave(t *testing.T) {
	for _, id := range []string{"flute", "piccolo"} {
		law(t, id, "E4", "C#5", 12, func(low string) string { return low })
		law(t, id, "D4", "Eb4", 12, func(low string) string { return strings.Replace(low, "1 ", "", 1) })
	}
}

// The oboe adds its first octave key from E to G sharp and its second from A to
// C; D and E flat have the half hole instead of the first finger.
func TestOboeOctave(t *testing.T) {
	law(t, "oboe", "E4", "G#4", 12, func(low string) string { return "oct1 " + low })
	law(t, "oboe", "A4", "C5", 12, func(low string) string { return "oct2 " + low })
	law(t, "oboe", "C#4", "Eb4", 12, func(low string) string { return strings.Replace(low, "1", "half", 1) })
}

// The oboe's twelfth: high C sharp and D are F sharp and G with the first finger
// lifted and the C key down (the third partial of a conical tube).
func TestOboeTwelfth(t *testing.T) {
	law(t, "oboe", "F#4", "G4", 19, func(low string) string { return strings.TrimSpace(strings.Replace(low, "1 ", "", 1)) + " C" })
}

// law checks the default fingerings of a range against those some semitones
// above it; an empty expectation is an exception of the law.
func law(t *testing.T, id, from, to string, up int, higher func(string) string) {
	t.Helper()
	i, _ := instrument.ByID(id)
	table := tableOf(i)
	for midi := score.MustPitch(from).MIDI(); midi <= score.MustPitch(to).MIDI(); midi++ {
		low, high := table[midi], table[midi+up]
		if len(low) == 0 || len(high) == 0 {
			t.Errorf("%s: no fingering for MIDI %d or %d above it", id, midi, up)
			continue
		}
		if want := higher(low[0].Text); want != "" && high[0].Text != want {
			t.Errorf("%s: %d semitones above %q is %q, want %q", id, up, low[0].Text, high[0].Text, want)
		}
	}
}

// woodwinds are the instruments with keys.
func woodwinds() []instrument.Instrument {
	var list []instrument.Instrument
	for _, i := range instrument.All() {
		if i.Mechanism == instrument.Woodwind {
			list = append(list, i)
		}
	}
	return list
}

// What an instrument is fingered by is named in the catalogue, and known here: one
// without it is refused, not fingered as another.
func TestEveryInstrumentIsFingeredByATraitItHas(t *testing.T) {
	for _, i := range instrument.All() {
		if _, known := players[i.Hand]; i.Bowed() && !known {
			t.Errorf("the %s has no hand pattern that is known: give it one in the catalogue, and set its fingers in players", i.Name)
		}
		if _, known := woodwindTables[i.Keys]; i.Mechanism == instrument.Woodwind && !known {
			t.Errorf("the %s has no layout of keys that is known: give it one in the catalogue, and a table in woodwindTables", i.Name)
		}
		if i.Mechanism == instrument.Valves && (i.Valves == 0 || i.Pedal == 0) {
			t.Errorf("the %s has %d valves on a tube with the pedal note %d", i.Name, i.Valves, i.Pedal)
		}
	}
	fiddle, _ := instrument.ByID("violin")
	fiddle.Hand = "" // a new instrument with four strings
	if c, ok := For(fiddle, score.MustPitch("B4")); ok {
		t.Errorf("with no hand pattern it is fingered %q", c.Text)
	}
	pipe, _ := instrument.ByID("flute")
	pipe.Keys = ""
	if c, ok := For(pipe, score.MustPitch("B4")); ok {
		t.Errorf("with no layout of keys it is fingered %q", c.Text)
	}
}

// Every key in a table is one that docs/inspect.md names, in hand order, and
// no two notes of one register have the same default.
func TestWoodwindSpelling(t *testing.T) {
	for _, i := range woodwinds() {
		id, notes := i.ID, tableOf(i)
		for midi, ways := range notes {
			for k, way := range ways {
				if _, ok := layoutOf(i).keys(way.Text); !ok {
					t.Errorf("%s, MIDI %d: %q is misspelled, out of order or does not part the hands", id, midi, way.Text)
				}
				if k > 0 && way.Why == "" {
					t.Errorf("%s, MIDI %d: the alternate %q has no reason", id, midi, way.Text)
				}
			}
			for other, same := range notes {
				if other > midi && other-midi < 11 && same[0].Text == ways[0].Text {
					t.Errorf("%s: MIDI %d and %d are both %q", id, midi, other, ways[0].Text)
				}
			}
		}
	}
}

// The sounding pitch of a string fingering, from its text alone: the plain hand by
// its semitones, where each position stands, and what a moved finger adds.
func TestStringFingeringsSoundTheirNote(t *testing.T) {
	open := map[string]map[byte]int{
		"violin": {'G': 55, 'D': 62, 'A': 69, 'E': 76},
		"viola":  {'C': 48, 'G': 55, 'D': 62, 'A': 69},
		"cello":  {'C': 36, 'G': 43, 'D': 50, 'A': 57},
		"bass":   {'E': 40, 'A': 45, 'D': 50, 'G': 55},
	}
	plain := map[string][5]int{"violin": {0, 2, 4, 5, 7}, "viola": {0, 2, 4, 5, 7}, "cello": {0, 2, 3, 4, 5}, "bass": {0, 2, 3, -9, 4}}
	violin, cello := map[string]int{"half": -1, "II": 2, "III": 3}, map[string]int{"half": -1, "II": 1, "II½": 2, "III": 3, "IV": 5, "VI": 8}
	positions := map[string]map[string]int{"violin": violin, "viola": violin, "cello": cello, "bass": cello}
	moved := map[string]int{"": 0, "L": -1, "H": 1}
	for id := range open {
		i, _ := instrument.ByID(id)
		for midi := i.Lowest.MIDI(); midi <= i.Highest.MIDI(); midi++ {
			for _, p := range spellings(midi) {
				c, _ := For(i, p)
				for _, f := range c.Ways() {
					text, position, _ := strings.Cut(strings.TrimSuffix(f.Text, ")"), "(")
					finger := int(text[len(text)-1] - '0')
					if position == "VI" && finger == 3 { // in the fourth's place
						finger = 4
					}
					how := strings.TrimSpace(text[1 : len(text)-1])
					by := moved[how] + positions[id][position]
					if how == "x" { // stretched: down from the first finger, up from the others
						by = map[int]int{1: -1, 2: 1, 3: 1, 4: 1}[finger]
					}
					if got := open[id][f.Text[0]] + plain[id][finger] + by; got != midi {
						t.Errorf("%s: %s as %q sounds %d, want %d", id, p, f.Text, got, midi)
					}
				}
			}
		}
	}
}

func TestChart(t *testing.T) {
	for _, i := range instrument.All() {
		chart := Chart(i)
		if i.Unpitched() {
			if chart != nil {
				t.Errorf("%s has a chart without fingerings", i.ID)
			}
			continue
		}
		if want := i.Highest.MIDI() - i.Lowest.MIDI() + 1; len(chart) != want {
			t.Errorf("%s: the chart has %d notes, want %d", i.ID, len(chart), want)
		}
		for k, n := range chart {
			for _, p := range n.Spellings {
				if p.MIDI() != i.Lowest.MIDI()+k {
					t.Errorf("%s: note %d of the chart is spelled %s", i.ID, k+1, p)
				}
			}
		}
	}
	trumpet, _ := instrument.ByID("trumpet")
	c := Chart(trumpet)[score.MustPitch("C4").MIDI()-trumpet.Lowest.MIDI()]
	var others []string
	for _, p := range c.Neighbours {
		others = append(others, p.String())
	}
	if got := strings.Join(others, " "); got != "G4 C5 E5 G5 C6" {
		t.Errorf("beside C the open trumpet plays %s", got)
	}
}

// At six half steps the spelling tells the finger, and the chart has both.
func TestChartHasBothSpellings(t *testing.T) {
	violin, _ := instrument.ByID("violin")
	n := Chart(violin)[6]
	if n.Choice.Text != "G L4" || n.Choice.Alternates[0].Text != "G H3" || n.Choice.Alternates[0].Why != "where it is written C sharp" {
		t.Errorf("C sharp or D flat on the G string: %+v", n.Choice)
	}
}

func TestPrefer(t *testing.T) {
	c := fingering(t, "alto-sax", "Bb4")
	bis := c.Prefer("1 bis |")
	if bis.Text != "1 bis |" || bis.Alternates[0].Text != "1 2 | sideBb" || len(bis.Alternates) != len(c.Alternates) {
		t.Errorf("with bis preferred the choice is %+v", bis)
	}
	if got := c.Prefer("1 2 3 |"); got.Text != c.Text {
		t.Errorf("a fingering of another note was preferred: %q", got.Text)
	}
}
