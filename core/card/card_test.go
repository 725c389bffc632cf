package card

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// whole is music in 4/4 as one chunk for an instrument that reads it as written.
func whole(t *testing.T, id, music string) Chunk {
	t.Helper()
	if !strings.HasPrefix(music, "K:") {
		music = "K:C\n" + music
	}
	s, err := abc.Read(context.Background(), "M:4/4\nL:1/4\n"+music+"\n")
	if err != nil {
		t.Fatalf("%s: %v", music, err)
	}
	r := breakdown.Read(s, s.Parts[0], id, byID(t, id), nil, breakdown.Options{Finger: finger.Options{Year: 1}})
	last := r.Measures[len(r.Measures)-1].Number
	return Chunk{Where: "1 · Test, A", Report: r, Key: breakdown.ChunkKey{First: 1, Last: last}}
}

func byID(t *testing.T, id string) instrument.Instrument {
	t.Helper()
	i, known := instrument.ByID(id)
	if !known {
		t.Fatalf("there is no %s", id)
	}
	return i
}

func idsOf(deck []Card) []string {
	list := make([]string, len(deck))
	for k, c := range deck {
		list[k] = c.ID()
	}
	return list
}

// What a deck holds. Facts: common practice.
func TestDeck(t *testing.T) {
	for _, tt := range []struct{ instrument, music, want string }{
		{"trumpet", "E4|", "place:G2:E4 name:G2:E4 finger:E4"},
		{"trumpet", "E2 C2|C2 E2|", "place:G2:C4 name:G2:C4 finger:C4 place:G2:E4 name:G2:E4 finger:E4 rhythm:4/4:1/2 1/2 interval:G2:E4-C4 interval:G2:C4-E4"},
		{"trumpet", "C4-|C2 z2|", "place:G2:C4 name:G2:C4 finger:C4"}, // what is tied over is no rhythm of its own
		{"trumpet", "C2 C2-|C4|", "place:G2:C4 name:G2:C4 finger:C4"}, // nor what is tied onwards
		{"trumpet", "C-C C2|", "place:G2:C4 name:G2:C4 finger:C4 rhythm:4/4:1/4 t1/4 1/2"},
		{"trumpet", "C z E2|", "place:G2:C4 name:G2:C4 finger:C4 place:G2:E4 name:G2:E4 finger:E4 rhythm:4/4:1/4 r1/4 1/2"}, // a rest stands between
		{"trumpet", "C z C z|", "place:G2:C4 name:G2:C4 finger:C4 rhythm:4/4:1/4 r1/4 1/4 r1/4"},
		{"trumpet", "K:F\nB4|", "place:G2:Bb4 name:G2:Bb4 finger:Bb4 key:-1"},
		{"bells", "c4|", "place:G2:C5 name:G2:C5"},                  // the bar is its name
		{"trumpet", "C4|C,,4|", "place:G2:C4 name:G2:C4 finger:C4"}, // what it cannot play is not asked
		{"cello", "K:C clef=bass\nC,,4|", "place:F4:C2 name:F4:C2 finger:C2"},
	} {
		got := idsOf(Deck(byID(t, tt.instrument), []Chunk{whole(t, tt.instrument, tt.music)}))
		got = slices.DeleteFunc(got, func(id string) bool { return KindOf(id) == Change })
		if strings.Join(got, " ") != tt.want {
			t.Errorf("%s, %s:\n%s, want\n%s", tt.instrument, tt.music, strings.Join(got, " "), tt.want)
		}
	}
	twice := []Chunk{whole(t, "trumpet", "C D E F|"), whole(t, "trumpet", "C D E F|")}
	if a, b := Deck(byID(t, "trumpet"), twice[:1]), Deck(byID(t, "trumpet"), twice); len(a) != len(b) {
		t.Errorf("what was met twice gives %d cards, once %d", len(b), len(a))
	}
	if got := idsOf(Deck(byID(t, "snare"), []Chunk{whole(t, "snare", "K:C clef=perc\nc c c2|")})); strings.Join(got, " ") != "rhythm:4/4:1/4 1/4 1/2" {
		t.Errorf("a snare drum is asked %v", got)
	}
}

// What is right of a card, and what stands beside it. Source of names, valves, positions and
// fingers: common practice.
func TestAnswers(t *testing.T) {
	for _, tt := range []struct{ instrument, music, id, text, choices string }{
		{"trumpet", "C D E F|", "place:G2:C4", "first ledger line below the staff", ""},
		{"trumpet", "C D E F|", "name:G2:E4", "E", "C D *E F G A B"},
		{"trumpet", "K:F\nB A G F|", "name:G2:Bb4", "B flat", "C D E F G A *B♭ B"},
		{"trumpet", "C D E F|", "finger:D4", "valves 1 and 3", "0 *1-3 1-2 1"},
		{"trumpet", "C D E G|", "finger:G4", "open", "1-2 *0"}, // C's is the same, and D's is another way to play it
		{"trombone", "K:C clef=bass\nF, G, A, B,|", "finger:A3", "second position", ""},
		{"trumpet", "K:D\nF ^C D E|", "key:2", "F♯ C♯", "F♯ *F♯ C♯ F♯ C♯ G♯ B♭ E♭"},
		{"trumpet", "K:F\nB A G F|", "key:-1", "B♭", "none *B♭ B♭ E♭ F♯"},
		{"trumpet", "C E C2|", "interval:G2:C4-E4", "a third up", "a step up *a third up a fourth up a fifth up"},
		{"trumpet", "c C C2|", "interval:G2:C5-C4", "an octave down", "a sixth down a seventh down *an octave down 8 steps down"},
		{"trumpet", "C3/2 D/ E2|", "rhythm:4/4:3/8 1/8 1/2", "1 (2) & 3 (4)", ""},
		{"trumpet", "C z/ D/ E F|", "rhythm:4/4:1/4 r1/8 1/8 1/4 1/4", "1 [2] & 3 4", ""},
		{"violin", "D E ^F G|", "finger:F#4", "2 on D", ""},
		{"cello", "K:D clef=bass\nD, E, F, G,|", "finger:F#3", "", ""},
	} {
		i := byID(t, tt.instrument)
		deck := Deck(i, []Chunk{whole(t, tt.instrument, tt.music)})
		k := slices.Index(idsOf(deck), tt.id)
		if k < 0 {
			t.Errorf("%s, %s: there is no card %s among %v", tt.instrument, tt.music, tt.id, idsOf(deck))
			continue
		}
		a := Reader{Instrument: i}.Answer(deck[k], deck)
		var choices []string
		for _, c := range a.Choices {
			choices = append(choices, map[bool]string{true: "*"}[c.Right]+c.Text)
		}
		if tt.text != "" && a.Text != tt.text {
			t.Errorf("%s, %s: %q, want %q", tt.instrument, tt.id, a.Text, tt.text)
		}
		if got := strings.Join(choices, " "); tt.choices != "" && got != tt.choices {
			t.Errorf("%s, %s may be pressed: %s, want %s", tt.instrument, tt.id, got, tt.choices)
		}
	}
	deck := Deck(byID(t, "trumpet"), []Chunk{whole(t, "trumpet", "K:F\nB A G F|")})
	k := slices.Index(idsOf(deck), "name:G2:Bb4")
	for system, want := range map[name.System]string{name.FixedDo: "si flat", name.German: "B", name.Degrees: "B flat"} {
		if got := (Reader{Instrument: byID(t, "trumpet"), Names: name.Options{System: system}}).Answer(deck[k], deck); got.Text != want {
			t.Errorf("%s: %q, want %q", system, got.Text, want)
		}
	}
}

// What a teacher would rather have is what is right.
func TestThePreferredFingering(t *testing.T) {
	i := byID(t, "trumpet")
	deck := Deck(i, []Chunk{whole(t, "trumpet", "C D E A|")})
	k := slices.Index(idsOf(deck), "finger:A4")
	for preferred, want := range map[string]string{"": "valves 1 and 2", "3": "valve 3"} {
		r := Reader{Instrument: i, Preferred: finger.Preferred{score.MustPitch("A4").MIDI(): preferred}}
		if got := r.Answer(deck[k], deck).Text; got != want {
			t.Errorf("with %q A is played %q, want %q", preferred, got, want)
		}
	}
}

// On every instrument, everything that is asked has an answer, one of what may be pressed is
// right, and no other way to play a note is counted wrong.
func TestEveryInstrumentIsAnswered(t *testing.T) {
	s, err := abc.Read(context.Background(), "M:4/4\nL:1/4\nK:Bb\nB c d e|f2 d2|c A B z|B/c/d e2|]\n")
	if err != nil {
		t.Fatal(err)
	}
	asked := map[Kind]int{}
	for _, i := range instrument.All() {
		r := breakdown.Read(s, s.Parts[0], "", i, nil, breakdown.Options{Finger: finger.Options{Year: 1}})
		deck := Deck(i, []Chunk{{Where: "all", Report: r, Key: breakdown.ChunkKey{First: 1, Last: 4}}})
		if len(deck) < 3 {
			t.Errorf("%s has %d cards", i.Name, len(deck))
		}
		for _, c := range deck {
			asked[c.Kind]++
			a := Reader{Instrument: i, Year: 1}.Answer(c, deck)
			right := 0
			for _, choice := range a.Choices {
				if choice.Right {
					right++
				}
				if c.Kind == Finger && !choice.Right && a.Ways[0].Has(choice.Way.Text) {
					t.Errorf("%s: %s for %s is counted wrong", i.Name, choice.Text, c.Pitches[0])
				}
			}
			if a.Text == "" || len(a.Choices) > 0 && right != 1 {
				t.Errorf("%s, %s: %q, %d right of %d", i.Name, c.ID(), a.Text, right, len(a.Choices))
			}
		}
	}
	for _, kind := range Kinds() {
		if asked[kind] == 0 {
			t.Errorf("no card asks for the %s", kind)
		}
	}
}

func TestStumbled(t *testing.T) {
	p := whole(t, "trumpet", "C D E2|D4|")
	d := score.MustPitch("D4")
	for over, want := range map[routine.Cause]string{
		routine.Rhythm:    "[rhythm:4/4:1/4 1/4 1/2]",
		routine.WrongName: "[place:G2:D4 name:G2:D4]",
		routine.Sound:     "[finger:D4]",
	} {
		got := slices.DeleteFunc(Stumbled(p, over, []score.Pitch{d}), func(id string) bool { return KindOf(id) == Change })
		if fmt.Sprint(got) != want {
			t.Errorf("over the %s: %v, want %s", over, got, want)
		}
	}
	if got := Stumbled(p, routine.None, []score.Pitch{d}); len(got) > 0 {
		t.Errorf("a clean try asks %v", got)
	}
}

// A card asks for the fingering that the line shows, and where lines differ for the usual one.
func TestACardAsksWhatTheLineShows(t *testing.T) {
	bass := byID(t, "bass")
	r := Reader{Instrument: bass, Year: 1}
	low := whole(t, "bass", "_B,, C, D, C,|")
	for _, tt := range []struct {
		name   string
		chunks []Chunk
		want   string
	}{
		{"with B flat on the string", []Chunk{low}, "A4(half)"},
		{"without", []Chunk{whole(t, "bass", "C, D, E, D,|")}, "A2"},
		{"once so, once so", []Chunk{low, whole(t, "bass", "C, D, E, D,|")}, "A2"},
	} {
		deck := Deck(bass, tt.chunks)
		for _, c := range deck {
			if c.ID() != "finger:C3" {
				continue
			}
			a := r.Answer(c, deck)
			if a.Ways[0].Text != tt.want {
				t.Errorf("%s C is %s, want %s", tt.name, a.Ways[0].Text, tt.want)
			}
		}
	}
}
