package finger

import (
	"testing"

	"unhurriedbench/core/instrument"
)

// way is a fingering of an instrument by its text.
func way(t *testing.T, i instrument.Instrument, text string) Fingering {
	t.Helper()
	if i.Unpitched() {
		return struck(text[len(text)-1:], len(text)-1)
	}
	for midi := i.Lowest.MIDI(); midi <= i.Highest.MIDI(); midi++ {
		for _, p := range spellings(midi) {
			c, _ := For(i, p)
			for _, f := range c.Ways() {
				if f.Text == text {
					return f
				}
			}
		}
	}
	f, ok := layoutOf(i).onKeys(text)
	if !ok {
		t.Fatalf("the %s has no way %q", i.Name, text)
	}
	return f
}

func TestWords(t *testing.T) {
	spacing, own := Words{Spacing: true}, Words{Two: "near", Three: "far"}
	tests := []struct {
		id, text string
		w        Words
		want     string
	}{
		{"violin", "A L2", Words{}, "low 2 on A"},
		{"violin", "A L2", spacing, "2 close to 1 on A"},
		{"violin", "D H3", Words{}, "high 3 on D"},
		{"violin", "E L3", spacing, "3 close to a low 2 on E"},
		{"violin", "E4(III)", Words{}, "4 on E, third position"},
		{"viola", "C0", spacing, "open C"},
		{"cello", "D3", Words{}, "3 on D, the three hand (1 3 4, the half step between 3 and 4)"},
		{"cello", "A2", own, "2 on A, the near"},
		{"cello", "C x4", Words{}, "extended 4 on C"},
		{"bass", "G1(half)", Words{}, "1 on G, half position"},
		{"trumpet", "1-2-3", Words{}, "valves 1, 2 and 3"},
		{"trumpet", "0", Words{}, "open"},
		{"horn-double", "T1", Words{}, "thumb, valve 1"},
		{"trombone", "2+", Words{}, "second position, a little in"},
		{"trombone-f", "F2", Words{}, "trigger, second position"},
		{"clarinet", "T 1 2 3 | 4 5", Words{Hands: true}, "left hand thumb, L1 L2 L3; right hand R1 R2"},
		{"clarinet", "T R 1 2 3 L-C# |", Words{}, "left hand thumb, register key, 1 2 3, C sharp key"},
		{"clarinet", "|", Words{}, "nothing pressed"},
		{"clarinet", "R A | 4 5 6", Words{}, "left hand register key, A key; right hand 4 5 6"},
		{"flute", "TBb 1 | Eb", Words{}, "left hand thumb B flat lever, 1; right hand E flat key"},
		{"oboe", "half 2 3 | 4 5 6 C#", Words{}, "left hand half 1, 2 3; right hand 4 5 6, C sharp key"},
		{
			"alto-sax",
			"oct palmD palmEb palmF | highE",
			Words{},
			"left hand octave key, palm D key, palm E flat key, palm F key; right hand high E key",
		},
		{"bassoon", "W half 2 3 | F# 4 5 6", Words{}, "left hand whisper key, half 1, 2 3; right hand thumb F sharp key, 4 5 6"},
		{
			"bassoon",
			"lowD lowC 1 2 3 C# | pancakeE 4 5 6 F",
			Words{},
			"left hand low D key, low C key, 1 2 3, C sharp key; right hand thumb E key, 4 5 6, F key",
		},
		{"snare", "lR", Words{}, "flam, right"},
		{"timpani", "29", Words{}, "the 29 inch drum"},
		{"bells", "F#4", Words{}, "the bar F sharp 4"},
		{"bells", "Bb4", Words{}, "the bar B flat 4"},
	}
	for _, tt := range tests {
		i, _ := instrument.ByID(tt.id)
		if got := tt.w.Say(i, way(t, i, tt.text)); got != tt.want {
			t.Errorf("%s %s is said %q, want %q", tt.id, tt.text, got, tt.want)
		}
	}
	flute, _ := instrument.ByID("flute")
	if got := (Words{Hands: true}).Show(flute, "T 1 2 3 | 4 6 Eb"); got != "T L1 L2 L3 | R1 R3 Eb" {
		t.Errorf("with hands it is written %q", got)
	}
}

// Every key a table uses can be drawn, once, and says who presses it.
func TestKeys(t *testing.T) {
	for _, i := range woodwinds() {
		id, table := i.ID, tableOf(i)
		var drawn uint64
		for _, key := range Keys(i) {
			drawn |= 1 << key.At
			if key.By == "" || Order(i)[key.At] != key.Name {
				t.Errorf("%s: the key %+v", id, key)
			}
		}
		for midi, ways := range table {
			for _, way := range ways {
				if down, _ := layoutOf(i).keys(way.Text); down&^drawn != 0 {
					t.Errorf("%s, MIDI %d: %q has a key that is not drawn", id, midi, way.Text)
				}
			}
		}
	}
	trumpet, _ := instrument.ByID("trumpet")
	if Keys(trumpet) != nil || Order(trumpet) != nil {
		t.Error("a trumpet has a woodwind's keys")
	}
}
