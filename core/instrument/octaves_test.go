package instrument

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"unhurriedbench/core/score"
	"unhurriedbench/internal/testabc"
)

// scales are five notes up and an octave of each major key, at a concert pitch that
// is no instrument's own.
var scales = map[string]string{
	"Bb": "K:Bb\nB c d e f", "Eb": "K:Eb\ne f g a b", "F": "K:F\nF G A B c", "G": "K:G\nG A B c d", "D": "K:D\nd e f g a", "C": "K:C\nc d e f g",
}

var octaves = map[string]string{"Bb": " g a b", "Eb": " c' d' e'", "F": " d e f", "G": " e f g", "D": " b c' d'", "C": " a b c'"}

// Outside check: testdata/first-octaves.txt, common practice of beginners' books.
func TestFirstOctaves(t *testing.T) {
	text, err := os.ReadFile("testdata/first-octaves.txt")
	if err != nil {
		t.Fatal(err)
	}
	seen := map[string]bool{}
	for line := range strings.Lines(string(text)) {
		words := strings.Fields(line)
		if strings.HasPrefix(line, "#") || len(words) == 0 {
			continue
		}
		i := byID(t, words[0])
		seen[i.ID] = true
		keys := []string{"Bb", "Eb", "F"}
		if i.Family == "strings" {
			keys = []string{"G", "D", "C"}
		}
		for n, want := range words[1:] {
			key := keys[n%3]
			music := "M:5/4\nL:1/4\n" + scales[key]
			if n >= 3 {
				music = "M:8/4\nL:1/4\n" + scales[key] + octaves[key]
			}
			part := testabc.Part(t, music+"|]")
			made := Make(part, "", i, OctaveChoice{})
			if got := made.Part.At(made.Part.Notes()[0]).Pitch.String(); got != want || len(made.Outside) > 0 {
				t.Errorf("%s: %d notes of %s start on %s, want %s (%s)", i.ID, len(part.Notes()), key, got, want, made.Why)
			}
		}
	}
	for _, i := range All() {
		if !i.Unpitched() && i.Mechanism != Drums && !seen[i.ID] {
			t.Errorf("%s is not in the table", i.ID)
		}
	}
}

// Lines of one compass lie in one octave, wherever the source has them; a line that
// the first year holds lies in it.
func TestOneCompassOneOctave(t *testing.T) {
	for _, i := range All() {
		if i.Unpitched() || i.Mechanism == Drums {
			continue
		}
		for semitones := 1; semitones <= 12; semitones++ {
			for low := 48; low < 72; low++ {
				found := map[int]string{}
				for _, middle := range []int{0, semitones / 2, semitones} {
					for _, octave := range []int{-12, 0, 12} {
						part := notesAt(low+octave, low+octave+middle, low+octave+semitones, low+octave+middle)
						s := seatOf(part, baseMove(part, i), i)
						first := part.Measures[0].Events[0].Pitch.MIDI() + baseMove(part, i).Semitones + 12*s.octaves
						found[first] = fmt.Sprint(s)
						if r := i.Comfort(1); s.year == 1 && (first < r.Low.MIDI() || first+semitones > r.High.MIDI()) {
							t.Errorf("%s: a line from MIDI %d does not lie in the first year", i.ID, first)
						}
					}
				}
				if len(found) > 1 {
					t.Fatalf("%s: lines of %d half steps on the pitch of MIDI %d lie in several octaves: %v", i.ID, semitones, low, found)
				}
			}
		}
	}
}

// notesAt is a measure of quarters in C major.
func notesAt(midis ...int) score.Part {
	m := score.Measure{Number: 1}
	for _, midi := range midis {
		p := score.Pitch{Step: score.C, Octave: 4}.Transpose(score.ChromaticInterval(midi - 60))
		m.Events = append(m.Events, score.Event{Pitch: p, Length: score.Frac(1, 4)})
	}
	return score.Part{Measures: []score.Measure{m}}
}

// D, C and B flat are a trombone's first notes; a cello's E flat line with an A flat
// starts from its lower E flat; where a line fits no year, the reason says so.
func TestSeats(t *testing.T) {
	tests := []struct{ music, id, first, why string }{
		{"K:Bb\nd c B2", "trombone", "D3", "first-year range A2 to D4"},
		{"K:Eb\nE F G A", "cello", "Eb2", "first-year"},
		{"K:Bb\nE F G c", "cello", "Eb3", "first-year"},
		{"K:E\nE e e' e", "trumpet", "F#3", "second-year range G3 to F5, with 2 short notes beyond it"},
		{"K:C\nC c c' c", "trombone", "C2", "one note lies beyond the trombone"},
		{"K:C\nc d e f", "violin", "C5", ""},
		{"K:F#\nf g a2", "flute", "F#4", "first-year"}, // as near above home as below
		{"K:Db\nd e f2", "violin", "Db5", ""},
	}
	for _, tt := range tests {
		made := Make(testabc.Part(t, "M:4/4\nL:1/4\n"+tt.music+"|]"), "", byID(t, tt.id), OctaveChoice{})
		if got := made.Part.At(made.Part.Notes()[0]).Pitch.String(); got != tt.first || !strings.Contains(made.Why, tt.why) {
			t.Errorf("%s %s starts on %s (%s), want %s (%s)", tt.id, tt.music, got, made.Why, tt.first, tt.why)
		}
	}
}

// What is printed for one instrument goes to no other; sticking stays in percussion.
func TestPrintedFingeringsStay(t *testing.T) {
	source := testabc.Part(t, "M:4/4\nL:1/4\nK:C\n!4!c \"^R\"d e2|]")
	printed := func(target, writtenFor string) (string, string) {
		m := Make(source, writtenFor, byID(t, target), OctaveChoice{}).Part.Measures[0]
		return m.Events[0].Fingering, m.Events[1].Sticking
	}
	for _, tt := range []struct{ target, writtenFor, fingering, sticking string }{
		{"violin", "violin", "4", "R"}, {"cello", "violin", "", ""}, {"violin", "", "", ""}, {"snare", "", "", "R"}, {"bells", "", "", "R"},
	} {
		if f, s := printed(tt.target, tt.writtenFor); f != tt.fingering || s != tt.sticking {
			t.Errorf("%s from %q has the fingering %q and the sticking %q", tt.target, tt.writtenFor, f, s)
		}
	}
	for kind, want := range map[string]int{"2": 2, "3": 3, "": 4, "7": 4} {
		if got := len(byID(t, "timpani").OfModel(kind).Drums); got != want {
			t.Errorf("a school of the kind %q has %d drums", kind, got)
		}
	}
}

// Strings tune on the open string, winds in the middle of what their year has; read against
// what players of each tune on (common practice).
func TestTunedOn(t *testing.T) {
	flat, a := PitchClass{Step: score.B, Alter: -1}, PitchClass{Step: score.A}
	for _, c := range []struct {
		id      string
		concert PitchClass
		want    string
	}{
		{"violin", a, "A4"}, {"viola", a, "A4"}, {"cello", a, "A3"}, {"bass", a, "A2"}, {"cello", PitchClass{Step: score.G}, "G2"},
		{"flute", flat, "Bb4"}, {"clarinet", flat, "C4"}, {"alto-sax", flat, "G4"}, {"horn-f", flat, "F4"}, {"trombone", flat, "Bb2"},
	} {
		i, _ := ByID(c.id)
		if got := TunedOn(c.concert, i, 1).String(); got != c.want {
			t.Errorf("%s tunes on %s, want %s", c.id, got, c.want)
		}
	}
}
