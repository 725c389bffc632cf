package finger

import (
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Every woodwind table a second time, the other way about: not note by note but
// key by key, with the notes in which the key is down. From memory, common
// practice. Where the two disagree one of them is wrong; what came of it stands in
// the provenance of the table.
var secondWriting = map[string]string{
	"flute": `
T: C4-B4 D5-B5 D6-F#6 A6 B6
1: C4-C5 E5-C6 Eb6-G6 B6-C7
2: C4-A4 D5-A5 D6-E6 G6-A6 C7
3: C4-G#4 D5-G#5 D6-Eb6 F6-G#6 B6-C7
G#: G#4 G#5 Eb6 G#6 C7
4: C4-F4 Bb4 D5-F5 Bb5 Eb6-F6 A6-Bb6 C7
tr1: Bb6
tr2: B6
5: C4-E4 D5-E5 Eb6-E6
6: C4-Eb4 F#4 D5-Eb5 F#5 Eb6 F#6
right Eb: Eb4-C#5 Eb5-A6
right C#: C#4
right C: C4`,
	"oboe": `
oct1: E5-G#5
oct2: A5-C6
half: C#5-Eb5
1: Bb3-C5 E5-C6
2: Bb3-Bb4 C#5-Bb5 C#6-D6
3: Bb3-G#4 C#5-G#5 C#6-D6
G#: G#4 G#5
B: B3
Bb: Bb3
4: Bb3-F#4 Bb4 C5-F#5 Bb5 C6-C#6
5: Bb3-F4 C#5-F5
6: Bb3-Eb4 C#5-Eb5
right F: F4 F5
right Eb: Eb4 Eb5
right C#: C#4 C#5
right C: Bb3-C4 C#6-D6`,
	"clarinet": `
T: E3-F4 B4-E6
R: Bb4-E6
A: A4-Bb4
1: E3-E4 F#4 B4-B5
2: E3-Eb4 B4-Bb5 C#6-E6
3: E3-C#4 B4-G#5 C#6-E6
G#: G#4
L-E: E3 B4
L-C#: C#4 G#5
4: E3-Bb3 B4-F5 C#6-D6
5: E3-A3 B3 B4-E5 F#5 C#6 Eb6
6: E3-G#3 B4-Eb5
sideEb: Eb4 Bb5
R-F: F3 C5
R-F#: F#3 C#5
R-Ab: G#3 Eb5 D6-E6`,
	"bassoon": `
W: E2-G#3
lowD: Bb1-Eb2
lowC: Bb1-C#2
lowB: Bb1-B1
lowBb: Bb1
C#: C#3 C#4
half: F#3-G#3
1: Bb1-E3 A3-D4
2: Bb1-D3 F#3-D4
3: Bb1-C#3 Eb3 F#3-C#4
Eb: Eb2
little C#: C#2
pancakeE: Bb1-E2
right F#: F#2 F#3
right Bb: Bb2 Bb3
4: Bb1-B2 F#3-B3
5: Bb1-Bb2 F#3-Bb3
6: Bb1-G#2 F#3-G#3
right F: Bb1-F2
little Ab: G#2 G#3`,
	"alto-sax": `
oct: D5-F#6
1: Bb3-B4 D5-B5
2: Bb3-Bb4 C5 D5-Bb5 C6
3: Bb3-G#4 D5-G#5
G#: G#4 G#5
palmD: D6-F#6
palmEb: Eb6-F#6
palmF: F6-F#6
C#: C#4
B: B3
Bb: Bb3
4: Bb3-F4 D5-F5
5: Bb3-E4 F#4 D5-E5 F#5
6: Bb3-Eb4 D5-Eb5
sideBb: Bb4 Bb5
highE: E6-F#6
highF#: F#6
right Eb: Eb4 Eb5
right C: Bb3-C#4`,
}

func TestSecondWritingAgrees(t *testing.T) {
	for id, text := range secondWriting {
		i, _ := instrument.ByID(id)
		l := layoutOf(i)
		second := map[int]uint64{}
		for _, line := range strings.Split(strings.TrimSpace(text), "\n") {
			key, notes, _ := strings.Cut(line, ": ")
			bit := bitOf(t, l, key)
			for _, run := range strings.Fields(notes) {
				first, last, isRun := strings.Cut(run, "-")
				if !isRun {
					last = first
				}
				for midi := score.MustPitch(first).MIDI(); midi <= score.MustPitch(last).MIDI(); midi++ {
					second[midi] |= bit
				}
			}
		}
		for midi, ways := range tableOf(i) {
			if down, _ := l.keys(ways[0].Text); down != second[midi] {
				t.Errorf("%s, %s: %q, but key by key it is %q", id, spellings(midi)[0], ways[0].Text, l.text(second[midi]))
			}
		}
	}
}

// bitOf finds a key, of the right hand or the left little finger where it says so.
func bitOf(t *testing.T, l *layout, name string) uint64 {
	t.Helper()
	hand, key, found := strings.Cut(name, " ")
	if !found {
		hand, key = "", name
	}
	from := 0
	switch hand {
	case "right":
		from = slices.Index(l.order, "|")
	case "little":
		from = slices.Index(l.order, "3")
		if key == "Ab" {
			from = slices.Index(l.order, "6")
		}
	}
	k := slices.Index(l.order[from:], key)
	if k < 0 {
		t.Fatalf("no key %q", name)
	}
	return 1 << (from + k)
}

func (l *layout) text(keys uint64) string {
	var words []string
	for k, key := range l.order {
		if key == "|" || keys&(1<<k) != 0 {
			words = append(words, key)
		}
	}
	return strings.Join(words, " ")
}
