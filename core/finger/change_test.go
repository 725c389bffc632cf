package finger

import (
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

func change(t *testing.T, id, from, to string) Change {
	t.Helper()
	i, ok := instrument.ByID(id)
	if !ok {
		t.Fatalf("no instrument %s", id)
	}
	played := func(note string) Played {
		p := score.MustPitch(note)
		c, ok := For(i, p)
		if !ok {
			t.Fatalf("%s does not play %s", id, note)
		}
		return c.On(p)
	}
	return ChangeBetween(i, played(from), played(to), 1)
}

// Facts of the trade: common practice.
func TestChanges(t *testing.T) {
	tests := []struct {
		id, from, to string
		cost         int
		why          string
	}{
		{"flute", "D5", "Eb5", 1, "one finger moves"},
		{"flute", "Eb5", "F5", 3, "3 fingers move, 1 down while 2 up"},
		{"flute", "G4", "G5", 3, "no finger moves: the air alone changes the octave"},
		{"alto-sax", "C5", "D5", 8, "6 fingers move, the register changes"},
		{"horn-f", "F4", "Bb4", 3, "no valve moves: the lip goes from partial 6 to 8"},
		{"trumpet", "C4", "D4", 2, "2 valves move"},
		{"trumpet", "D4", "E4", 2, "2 valves move, 1 down while 1 up"},
		{"trumpet", "C4", "G4", 3, "no valve moves"},
		{"trombone", "Bb2", "C3", 6, "the slide goes out, 5 positions"},
		{"trombone", "D3", "Eb3", 1, "the slide goes in, one position"},
		{"trombone-f", "Bb2", "C3", 1, "the attachment changes"},
		{"violin", "D4", "E4", 1, "a finger goes down"},
		{"violin", "G4", "A4", 2, "one string crossed, the finger lifts"},
		{"violin", "F4", "F#4", 2, "the same finger moves to another place"},
		{"violin", "F#4", "C5", 4, "one string crossed, the same finger moves to another place across the strings"},
		{"violin", "E4", "B4", 2, "one string crossed, the same finger on the next string"},
		{"violin", "D4", "A4", 1, "one string crossed"},
		{"bass", "B3", "C4", 6, "the hand shifts"},
		{"bells", "C5", "C#5", 2, "to the other row"},
		{"clarinet", "C5", "Eb5", 9, "the right little finger slides from key to key"},
		{"horn-double", "G4", "A4", 3, "3 valves move"},
		{"cello", "G2", "G#2", 1, "a finger goes down"},
		{"cello", "D4", "E4", 7, "the hand shifts"},
		{"cello", "A2", "C#3", 2, "another finger, the hand opens or closes for an extension"},
		{"cello", "B2", "C#3", 7, "2, 3 and 4 slide a half step together"},
		{"cello", "Ab2", "Bb2", 2, "the hand opens or closes for an extension"},
		{"cello", "C3", "C#3", 2, "the same finger moves to another place"},
		{"violin", "G5", "Ab5", 1, "another finger"},
		{"bass", "F2", "G2", 5, "the hand shifts a half step"},
		{"oboe", "D4", "F4", 9, "the right ring finger slides"},
		{"timpani", "F2", "F3", 1, "to another drum"},
		{"trombone", "Bb3", "D4", 1, "the slide stays"},
		{"trombone", "Bb2", "F3", 3, "the slide stays"},
	}
	for _, tt := range tests {
		got := change(t, tt.id, tt.from, tt.to)
		if got.Cost != tt.cost || !strings.Contains(got.Why, tt.why) {
			t.Errorf("%s %s to %s costs %d (%s), want %d (%s)", tt.id, tt.from, tt.to, got.Cost, got.Why, tt.cost, tt.why)
		}
	}
}

// What a teacher stops at though little moves: common practice.
func TestHardByKind(t *testing.T) {
	tests := []struct {
		id, from, to string
		hard         bool
	}{
		{"horn-f", "F4", "Bb4", true}, {"trumpet", "C4", "G4", true}, {"trumpet", "C4", "D4", false},
		{"alto-sax", "G4", "G5", true}, {"flute", "G4", "G5", true}, {"flute", "Eb5", "F5", false},
		{"clarinet", "A4", "Bb4", false}, {"clarinet", "Bb4", "B4", true}, {"clarinet", "C5", "Eb5", true},
		{"trombone", "D3", "F3", false}, {"trombone", "C3", "F3", true}, {"trombone", "Bb3", "D4", true},
		{"violin", "F#4", "C5", true}, {"violin", "F4", "F#4", true}, {"violin", "F#4", "A4", false}, {"bass", "B3", "C4", true},
	}
	for _, tt := range tests {
		if got := change(t, tt.id, tt.from, tt.to); got.Hard != tt.hard {
			t.Errorf("%s %s to %s is hard: %v (%d, %s)", tt.id, tt.from, tt.to, got.Hard, got.Cost, got.Why)
		}
	}
}

// The clarinet's break is the hardest of the beginner's changes.
func TestTheBreakIsHardest(t *testing.T) {
	hardest := change(t, "clarinet", "A4", "B4").Cost
	notes := strings.Fields("E3 F3 G3 A3 Bb3 B3 C4 D4 E4 F4 G4 A4 Bb4")
	for k := 1; k < len(notes); k++ {
		if got := change(t, "clarinet", notes[k-1], notes[k]).Cost; got >= hardest {
			t.Errorf("%s to %s costs %d, the break %d", notes[k-1], notes[k], got, hardest)
		}
	}
	if hardest < Hard {
		t.Errorf("the break costs %d, which does not count as hard", hardest)
	}
}

// Where the hand only does the same the other way round, a change costs the same
// both ways; over the clarinet's break it is harder upwards.
func TestChangesAreSymmetrical(t *testing.T) {
	for _, i := range instrument.All() {
		if i.Unpitched() {
			continue
		}
		year := i.Comfort(1)
		for a := year.Low.MIDI(); a <= year.High.MIDI(); a++ {
			for b := a + 1; b <= min(a+7, year.High.MIDI()); b++ {
				p, q := spellings(a)[0], spellings(b)[0]
				x, _ := For(i, p)
				y, _ := For(i, q)
				there, back := ChangeBetween(i, x.On(p), y.On(q), 1), ChangeBetween(i, y.On(q), x.On(p), 1)
				if d := there.Cost - back.Cost; !i.Bowed() && d != 0 || d > 1 || d < -1 {
					t.Errorf("%s: %s to %s costs %d, back %d", i.ID, p, q, there.Cost, back.Cost)
				}
			}
		}
	}
	up, down := change(t, "clarinet", "Bb4", "B4"), change(t, "clarinet", "B4", "Bb4")
	if up.Cost != down.Cost+1 {
		t.Errorf("over the break costs %d upwards, %d downwards", up.Cost, down.Cost)
	}
}
