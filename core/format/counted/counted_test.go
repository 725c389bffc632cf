package counted

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/score"
)

// shown writes a part: "C4 1/4", rests as z, ties as -, bars as |.
func shown(p score.Part) string {
	var words []string
	for _, m := range p.Measures {
		for _, e := range m.Events {
			word := "z"
			if e.Kind == score.Note {
				word = strings.Repeat("(", e.SlurStarts) + e.Pitch.String()
				if e.Unpitched {
					word = "x"
				}
			}
			word += ":" + e.Length.String()
			if e.TieOn {
				word += "-"
			}
			words = append(words, word+strings.Repeat(")", e.SlurEnds))
		}
		words = append(words, "|")
	}
	return strings.Join(words, " ")
}

func read(t *testing.T, text string) score.Part {
	t.Helper()
	s, err := Read(context.Background(), text)
	if err != nil {
		t.Fatalf("%q: %v", text, err)
	}
	return s.Parts[0]
}

// rhythm is a part without its pitches.
func rhythm(p score.Part) string { return strings.ReplaceAll(shown(p), "B4:", "") }

// What is said aloud, and what it is; worked by hand in every meter of the trade. Source:
// common practice.
func TestCountLines(t *testing.T) {
	for _, test := range []struct{ meter, line, want string }{
		{"4/4", "1 2 3 4", "1/4 1/4 1/4 1/4 |"},
		{"4/4", "1234|1 (2) 3 (4)", "1/4 1/4 1/4 1/4 | 1/2 1/2 |"},
		{"4/4", "1 2 3 | 1 (2) & 3 [4]", "1/4 1/4 1/2 | 3/8 1/8 1/4 z:1/4 |"},
		{"4/4", "1 3 1", "1/2 1/2 | 1 |"}, // bar lines left out, holds left out
		{"4/4", "1 (2 3 4)", "1 |"},
		{"4/4", "1&2&34", "1/8 1/8 1/8 1/8 1/4 1/4 |"},
		{"4/4", "1 e & a 2 & 3 & a 4 e &", "1/16 1/16 1/16 1/16 1/8 1/8 1/8 1/16 1/16 1/16 1/16 1/8 |"},
		{"4/4", "1e&a2 3 4", "1/16 1/16 1/16 1/16 1/4 1/4 1/4 |"},
		{"4/4", "1 la li 2 la li 3 4", "1/12 1/12 1/12 1/12 1/12 1/12 1/4 1/4 |"},
		{"4/4", "1 li 2 3 4", "1/6 1/12 1/4 1/4 1/4 |"},
		{"4/4", "1 ta la ta li ta 2 3 4", "1/24 1/24 1/24 1/24 1/24 1/24 1/4 1/4 1/4 |"},
		{"4/4", "[1] 2 [3] [4]", "z:1/4 1/4 z:1/4 z:1/4 |"},
		{"4/4", "1 2 [3 4]", "1/4 1/4 z:1/2 |"},
		{"4/4", "[1 2 3 4] | 1", "z:1 | 1 |"},
		{"4/4", "1 2 [3 4 1] 3", "1/4 1/4 z:1/2 | z:1/2 1/2 |"}, // brackets over a bar line
		{"4/4", "1 [&] 2 [&] 3 4", "1/8 z:1/8 1/8 z:1/8 1/4 1/4 |"},
		{"4/4", "1 2 3 4 | (1) 2 3 4", "1/4 1/4 1/4 1/4- | 1/4 1/4 1/4 1/4 |"},
		{"4/4", "1 (2) 3 | (1) (2) 3", "1/2 1/2- | 1/2 1/2 |"},
		{"4/4", "1 (2) & (3) 4", "3/8 1/8- 1/4 1/4 |"},
		{"4/4", "1 & (2) & 3", "1/8 1/4 1/8 1/2 |"}, // a quarter between beats
		{"4/4", "4 | 1 2 3 4 | 1", "1/4 | 1/4 1/4 1/4 1/4 | 1 |"},
		{"4/4", "4 & | 1 3 | 1", "1/8 1/8 | 1/2 1/2 | 1 |"},
		{"4/4", "1 2 3 4 | =1 | 1 3", "1/4 1/4 1/4 1/4 | 1/4 1/4 1/4 1/4 | 1/2 1/2 |"},
		{"4/4", "1 3 | 1 2 3 | =1-2", "1/2 1/2 | 1/4 1/4 1/2 | 1/2 1/2 | 1/4 1/4 1/2 |"},
		{"3/4", "1 2 3 1 (2) 3 1", "1/4 1/4 1/4 | 1/2 1/4 | 3/4 |"},
		{"3/4", "3 | 1 2 & 3 | 1 3 | 1", "1/4 | 1/4 1/8 1/8 1/4 | 1/2 1/4 | 3/4 |"},
		{"2/4", "1 & 2 1 2 & 1", "1/8 1/8 1/4 | 1/4 1/8 1/8 | 1/2 |"},
		{"5/4", "1 2 3 4 5", "1/4 1/4 1/4 1/4 1/4 |"},
		{"6/8", "1 la li 2", "1/8 1/8 1/8 3/8 |"},
		{"6/8", "1 li 2 (la) li", "1/4 1/8 1/4 1/8 |"},
		{"6/8", "1 2 1", "3/8 3/8 | 3/4 |"},
		{"6/8", "1 2 3 4 5 6", "1/8 1/8 1/8 1/8 1/8 1/8 |"}, // every eighth counted
		{"6/8", "1 3 4 6 | 1 4", "1/4 1/8 1/4 1/8 | 3/8 3/8 |"},
		{"6/8", "6 | 1 4 6 | 1", "1/8 | 3/8 1/4 1/8 | 3/4 |"},
		{"6/8", "1 la ta li 2", "1/8 1/16 1/16 1/8 3/8 |"},
		{"9/8", "1 la li 2 3", "1/8 1/8 1/8 3/8 3/8 |"},
		{"12/8", "1 2 3 4", "3/8 3/8 3/8 3/8 |"},
		{"12/8", "1 4 7 10 11 12", "3/8 3/8 3/8 1/8 1/8 1/8 |"},
		{"cut", "1 2 | 1 & 2", "1/2 1/2 | 1/4 1/4 1/2 |"},
		{"3/8", "1 2 3 1", "1/8 1/8 1/8 | 3/8 |"},
		{"2/2", "1 (2) | (1) 2", "1- | 1/2 1/2 |"},
	} {
		if got := rhythm(read(t, "meter: "+test.meter+"\ncount: "+test.line)); got != test.want {
			t.Errorf("%s, %q:\n got %s\nwant %s", test.meter, test.line, got, test.want)
		}
	}
}

// Letters take the octave nearest to the note before and what the key and the signs of
// their measure make of them.
func TestNameLines(t *testing.T) {
	for _, test := range []struct{ fields, count, name, want string }{
		{"key: Bb", "1 2 3 4 1 2 3", "bcde fdb", "Bb4 C5 D5 Eb5 | F5 D5 Bb4 |"},
		{"key: F\nstart: G4", "1 2 3 4 | 1 2 3 4", "gabc|cb=ag", "G4 A4 Bb4 C5 | C5 B4 A4 G4 |"},
		{"start: C4", "1 2 3 4", "c g c' g", "C4 G3 C5 G4 |"},
		{"start: C4", "1 2 3 4", "c c' c, e", "C4 C5 C4 E4 |"},
		{"start: F4", "1 2 3 4 | 1 2", "f# f f= f | f f sharp", "F#4 F#4 F4 F4 | F4 F#4 |"},
		{"start: B4", "1 2 3 4", "b3 a", "B4 B4 B4 A4 |"},
		{"start: B4", "1 2 3 4", "(b a) (g a)", "(B4 A4) (G4 A4) |"},
		{"start: G4", "1 2 3 4 | (1) 2 3 4", "gabc|dcb", "G4 A4 B4 C5 | C5 D5 C5 B4 |"},
		{"key: Dm\nstart: D4", "1 2 3 4", "d e f# b-", "D4 E4 F#4 Bb4 |"},
		{"for: trombone\nkey: Bb", "1 2 3 4", "bcdb", "Bb2 C3 D3 Bb2 |"},
		{"for: snare", "1 & 2 3 4", "", "x x x x x |"},
	} {
		p := read(t, test.fields+"\ncount: "+test.count+"\nname: "+test.name)
		var words []string
		for _, m := range p.Measures {
			for _, e := range m.Events {
				word := e.Pitch.String()
				if e.Unpitched {
					word = "x"
				}
				words = append(words, strings.Repeat("(", e.SlurStarts)+word+strings.Repeat(")", e.SlurEnds))
			}
			words = append(words, "|")
		}
		if got := strings.Join(words, " "); got != test.want {
			t.Errorf("%s, %s, %s:\n got %s\nwant %s", test.fields, test.count, test.name, got, test.want)
		}
	}
}

// Fields, repeats, endings and where it goes on.
func TestFrameAndSigns(t *testing.T) {
	s, err := Read(context.Background(), "title: Second Ferry\nnumber: 14\nmeter: 3/4\nkey: F\nfor: clarinet\ntempo: quarter = 72\ncount: |: 1 2 3 | 1 3 |\n first 1 2 3 :| second 1 |\n segno 1 2 3 fine | 1 D.S. al fine\nname: gab|ab|cba|g|\n gab|g\n")
	if err != nil {
		t.Fatal(err)
	}
	p := s.Parts[0]
	if s.Title != "Second Ferry" || s.Tempo.PerMinute != 72 || p.Key().Fifths != -1 || p.Meter().String() != "3/4" || p.Name != "Clarinet" || p.Transposition.Semitones != -2 {
		t.Errorf("the frame is %+v, %+v", s.Tempo, p.Measures[0])
	}
	if got := fmt.Sprint(p.Order()); got != "[0 1 2 0 1 3 4 5 4]" {
		t.Errorf("it is played %s", got)
	}
}

// What is wrong is said of the exercise, with its measure.
func TestWhatIsWrong(t *testing.T) {
	for text, want := range map[string]string{
		"count: 1 2 3 4 | 1 2 3 5":                    "Measure 2, line 1: 4/4 has no beat 5. Write 4, or begin the next measure with 1.",
		"count: 1 2 3 4\nname: cde":                   "Line 2: 4 notes are counted and 3 named; the first without a name is in measure 1. Name the rest, or count fewer.",
		"count: 1 3\nname: cde":                       "2 notes are counted, and more are named.",
		"count: 1 2 3 4 | 1 3\nname: c d e | f g a":   "Measure 1, line 2: 4 notes are counted and 3 named.",
		"count: 1 2 | 2 3":                            "Measure 2, line 1: The measure does not begin on 1.",
		"count: (1) 2":                                "Nothing is held into this measure.",
		"count: 1 [2] (3)":                            "Something is held after a rest.",
		"count: 1 2 hello":                            `"hello" is not counted.`,
		"count: 1 ( 2 [3]":                            "A bracket opens inside another.",
		"count: 1 [2":                                 "A bracket is not closed.",
		"count: 1 2)":                                 "A bracket closes that is not open.",
		"count: 1 | =7":                               "There is no such measure to say again.",
		"count: 1 & e":                                `"e" does not come after the label before it.`,
		"count: 1 2 / 3 & 4":                          "Something is counted after the end of the measure.",
		"title: x":                                    "Nothing is counted.",
		"meter: 4/5\ncount: 1":                        `"4/5" is no meter.`,
		"key: H\ncount: 1":                            `"H" is no key.`,
		"for: kazoo\ncount: 1":                        `"kazoo" is no instrument.`,
		"tempo: fast\ncount: 1":                       `"fast" is no tempo.`,
		"start: X4\ncount: 1":                         `"X4" is no note to start near.`,
		"count: 1 2\nname: c h":                       `"h" is no note.`,
		"colour: red\ncount: 1":                       `is no field.`,
		"count: 1\ncount: 2":                          "for the second time",
		"count: :| 1":                                 "A repeat ends before anything is counted.",
		"count: 1\nname: " + strings.Repeat("c'", 30): "more are named",
		"count: 1\nname: c''''''''''":                 "outside every instrument",
	} {
		_, err := Read(context.Background(), text)
		if err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%q: %v, want %q", text, err, want)
		}
	}
	if _, err := Read(context.Background(), "count: "+strings.Repeat("1 2 3 4 ", 20_000)); err == nil {
		t.Error("twenty thousand measures are taken")
	}
	gone, leave := context.WithCancel(context.Background())
	leave()
	if _, err := Read(gone, "count: 1 2 3 4"); err == nil {
		t.Error("it is read for nobody")
	}
}

// Nothing that is typed breaks it, and what it reads adds up.
func FuzzRead(f *testing.F) {
	for _, text := range []string{"count: 1 2 3 4 | 1 (2) & 3 [4]\nname: gabc|gab", "meter: 6/8\ncount: 1 la li 2 ta\nname: (ab) c#", "count: |: 1 first 1 :| second 1 D.C. al fine"} {
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text string) {
		s, err := Read(context.Background(), text)
		if err != nil {
			return
		}
		for _, m := range s.Parts[0].Measures {
			sum := score.Fraction{}
			for _, e := range m.Events {
				sum = sum.Add(e.Length)
			}
			if sum != m.Length || m.Meter.Length().Less(sum) {
				t.Fatalf("%q: measure %d holds %s of %s", text, m.Number, sum, m.Meter.Length())
			}
		}
	})
}
