package finger

import (
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// pressedOn is what a fingering's text presses.
func pressedOn(t *testing.T, i instrument.Instrument, text string) uint64 {
	t.Helper()
	if i.Mechanism == instrument.Valves {
		var keys uint64
		for name := range strings.SplitSeq(text, "-") {
			keys |= 1 << (name[0] - '0')
		}
		return keys &^ thumbValve
	}
	keys, ok := layoutOf(i).keys(text)
	if !ok {
		t.Fatalf("%s has no keys %q", i.ID, text)
	}
	return keys
}

func TestNearest(t *testing.T) {
	for _, c := range []struct{ instrument, pressed, want string }{
		{"flute", "T 1 2 |", "A4: press the E flat key; A5: press the E flat key"},
		{"flute", "T 1 2 3 | 4 5 6 Eb C#", "C#4: lift the E flat key; D#4: lift the C sharp key"},
		{"flute", "T 1 2 | 5 6 Eb", "D#4: press finger 3 and finger 4; F#4: press finger 3 lift finger 5; A4: lift finger 5 and finger 6"},
		{"clarinet", "T 1 2 3 | 6", "C4: lift finger 6"},
		{"clarinet", "T R 1 2 3 | 4 5 6 R-E", ""},
		{"clarinet", "T 1 3 |", "C4: press finger 2; E4: lift finger 3"},
		{"oboe", "1 2 3 | 5 Eb", "D#4: press finger 4 and finger 6; E4: press finger 4 lift the right E flat key; G4: lift finger 5 and the right E flat key"},
		{"oboe", "1 2 3 | 4 5 6 C", ""},
		{"oboe", "1 3 | 4 5 6", "D4: press finger 2"},
		{"alto-sax", "1 3 |", "G4: press finger 2; B4: lift finger 3"},
		{"alto-sax", "2 3 | 4", "F4: press finger 1"},
		{"bassoon", "W 1 2 3 | 5", "A2: press finger 4; C3: lift finger 5"},
		{"trumpet", "1-2-3", ""},
		{"euphonium-bc", "2-4", ""}, // it has three, and 2 is a fingering
		{"euphonium-bc of four", "3-4", "C2: press valve 1; C#2: press valve 2; F2: lift valve 3"},
		{"snare", "|", ""},
	} {
		id, four := strings.CutSuffix(c.instrument, " of four")
		i, _ := instrument.ByID(id)
		if four {
			i = i.OfModel("4")
		}
		if i.Mechanism == instrument.Sticks {
			if near := (Words{}).Nearest(i, 0); near != nil {
				t.Errorf("the %s has near notes: %v", c.instrument, near)
			}
			continue
		}
		var got []string
		for _, n := range (Words{}).Nearest(i, pressedOn(t, i, c.pressed)) {
			said := n.Note.Spellings[0].String() + ":"
			if len(n.Press) > 0 {
				said += " press " + strings.Join(n.Press, " and ")
			}
			if len(n.Lift) > 0 {
				said += " lift " + strings.Join(n.Lift, " and ")
			}
			got = append(got, said)
		}
		if said := strings.Join(got, "; "); said != c.want {
			t.Errorf("%s, %s: near are %q, want %q", c.instrument, c.pressed, said, c.want)
		}
	}
}

// Where every key that is pressed is one of a fingering's, that fingering is the answer.
func TestNothingIsNearerThanAFingering(t *testing.T) {
	for _, i := range instrument.All() {
		for _, n := range Chart(i) {
			for _, way := range n.Choice.Ways() {
				if near := (Words{}).Nearest(i, way.Keys); near != nil {
					t.Errorf("%s: beside %s, which is a fingering of %s, %v is told", i.ID, way.Text, n.Spellings[0], near)
				}
			}
		}
	}
}

func TestAlike(t *testing.T) {
	for _, c := range []struct{ instrument, note, fingering, want string }{
		{"flute", "Bb4", "TBb 1 | Eb", "A#4 TBb 1 | Eb, A#5 TBb 1 | Eb"},
		{"alto-sax", "Bb5", "oct 1 bis |", "A#4 1 bis |, A#5 oct 1 bis |"},
		{"oboe", "F4", "1 2 3 F | 4 5", "F4 1 2 3 F | 4 5, F5 oct1 1 2 3 F | 4 5"},
		{"flute", "Bb4", "no such", ""},
		{"trumpet", "A4", "3", ""}, // chosen note by note
		{"violin", "A4", "D 4", ""},
	} {
		i, _ := instrument.ByID(c.instrument)
		var got []string
		for _, n := range Alike(i, Chart(i), score.MustPitch(c.note).MIDI(), c.fingering) {
			got = append(got, n.Note.Spellings[0].String()+" "+n.Way.Text)
		}
		if said := strings.Join(got, ", "); said != c.want {
			t.Errorf("%s %s, %s: alike are %q, want %q", c.instrument, c.note, c.fingering, said, c.want)
		}
	}
}
