package breakdown

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/instrument"
)

// newAt lists what is said to be new, by measure and note.
func newAt(r Report) string {
	var list []string
	for _, m := range r.Measures {
		for j, e := range m.Events {
			if e.Has(New) {
				said := e.Why[strings.Index(e.Why, lead(e.Why)):]
				said, _, _ = strings.Cut(said, ".")
				list = append(list, fmt.Sprintf("%d.%d %s", m.Number, j+1, said))
			}
		}
	}
	return strings.Join(list, "; ")
}

func lead(why string) string {
	if strings.Contains(why, "New: ") {
		return "New: "
	}
	return "Here for the first time: "
}

// metBy is what an instrument meets in a line.
func metBy(t *testing.T, id, line string) *Met {
	t.Helper()
	met := MetIn()
	for _, thing := range Elements(read(t, line, id, nil)) {
		met.Add(thing)
	}
	return met
}

// What was met before is not new, and everything else is, once: notes, lengths, rests,
// signs, keys, meters and ways to play a note.
func TestWhatIsNew(t *testing.T) {
	const before = "M:4/4\nL:1/4\nK:F\nF G A2|F4|]\n"
	for _, test := range []struct{ id, line, want string }{
		{"violin", "M:4/4\nL:1/4\nK:F\nF A G2|F4|]", ""},
		{"violin", "M:4/4\nL:1/4\nK:F\nF G A>A|B B A2|]", "1.3 New: dotted quarter note; 1.4 New: eighth note; 2.1 New: B flat"},
		{"violin", "M:4/4\nL:1/4\nK:F\nF z A2|=B ^G A F|]", "1.2 New: quarter rest; 2.1 New: B natural, natural sign; 2.2 New: G sharp, sharp sign"},
		{"violin", "M:3/4\nL:1/4\nK:Bb\nF G A|F3|]", "1.1 New: the meter 3/4, the key signature of B flat major; 2.1 New: dotted half note"},
		{"snare", "M:4/4\nL:1/4\nK:F\nF>A G2|F4|]", "1.1 New: dotted quarter note; 1.2 New: eighth note"},
	} {
		if got := newAt(read(t, test.line, test.id, metBy(t, test.id, before))); got != test.want {
			t.Errorf("%s, %q:\n got %s\nwant %s", test.id, test.line, got, test.want)
		}
	}
	// A file by itself: what comes after its first measure for the first time.
	got := newAt(read(t, "M:4/4\nL:1/4\nK:C\nG|c d c d|e2 d2|c d e/e/ c|c3|]", "flute", nil))
	if want := "2.1 Here for the first time: half note, E; 3.3 Here for the first time: eighth note; 4.1 Here for the first time: dotted half note"; got != want {
		t.Errorf("by itself:\n got %s\nwant %s", got, want)
	}
}

// Another way to play a note that is known is new, and a new note's way goes without saying.
func TestANewWayToPlayANote(t *testing.T) {
	met := metBy(t, "clarinet", "M:4/4\nL:1/4\nK:C\nD E F G|A4|]")
	r := read(t, "M:4/4\nL:1/4\nK:C\nE F G A|]", "clarinet", met)
	if got := newAt(r); got != "" {
		t.Errorf("what was played already is new: %s", got)
	}
	r.Measures[0].Events[1].Fingering = "R T 1"
	var said []string
	for _, n := range r.novelties(met) {
		said = append(said, n.said)
	}
	if got := strings.Join(said, ", "); got != "another way to play G" {
		t.Errorf("a new way is told as %q", got)
	}
}

// The key of one sharp after that of two: every C is natural again, and a trap. So is the E
// of F after B flat and E flat. Source: common practice.
func TestTheKeyAfterAnotherKey(t *testing.T) {
	for _, test := range []struct{ id, before, line, want string }{
		{"violin", "M:4/4\nL:1/4\nK:D\nd e f g|a b c' d'|c' b a2|d4|]", "M:4/4\nL:1/4\nK:G\ng a b c'|d' c' b a|g4|]", "1.4"},
		{"trombone", "M:4/4\nL:1/4\nK:Eb\ne f g a|b2 g2|e4|]", "M:4/4\nL:1/4\nK:F\nf e d e|f4|]", "1.2"},
		{"violin", "M:4/4\nL:1/4\nK:G\ng a b c'|d'4|]", "M:4/4\nL:1/4\nK:D\nd' c' b a|f4|]", "1.2"},
	} {
		r := read(t, test.line, test.id, metBy(t, test.id, test.before))
		if got := alerts(r, Trap); got != test.want {
			t.Errorf("%s after %q: traps at %q, want %q", test.line, test.before, got, test.want)
		}
	}
}

// Chunks of five notes between rests, and sixteenths that set the tempo of the whole.
// Source: common practice.
func TestFiveNoteChunksAndQuickNotes(t *testing.T) {
	r := read(t, "M:4/4\nL:1/4\nK:C\nc d e f|g2 z2|g f e d|c2 z2|e f g f|e2 z2|]", "flute", nil)
	var chunks []string
	for _, p := range r.Chunks {
		notes := 0
		for _, at := range p.At {
			for _, e := range r.Measures[at].Events {
				if e.Kind == "note" {
					notes++
				}
			}
		}
		chunks = append(chunks, fmt.Sprint(p.Label, " ", notes))
	}
	if got := strings.Join(chunks, ", "); got != "A 5, B 5, C 5, Whole 15" {
		t.Errorf("the chunks have %s notes", got)
	}
	quick := read(t, "M:4/4\nL:1/4\nQ:1/4=96\nK:C\nc d e f|g4|f//e//f//g// f e d|c4|]", "flute", nil)
	slow := read(t, "M:4/4\nL:1/4\nQ:1/4=96\nK:C\nc d e f|g4|f/e/ f e d|c4|]", "flute", nil)
	if quick.Tempo.LimitMeasure != 3 || quick.Tempo.Suggested >= slow.Tempo.Suggested {
		t.Errorf("with sixteenths it starts at %d for m. %d, without at %d", quick.Tempo.Suggested, quick.Tempo.LimitMeasure, slow.Tempo.Suggested)
	}
}

func TestDemandsAreThoseOfTheWholeReading(t *testing.T) {
	const line = "M:4/4\nL:1/4\nK:Bb\nd e f2|f>e d2|c d e z|d =e f2|d e f2|g>f e d|c/d/ e d c|B3 z|]\n"
	s, err := abc.Read(context.Background(), line)
	if err != nil {
		t.Fatal(err)
	}
	for _, i := range instrument.All() {
		r, d := Read(s, s.Parts[0], "", i, nil, Options{}), DemandsOf(s, s.Parts[0], "", i)
		if d.Parts != r.Difficulty.Parts || !slices.Equal(d.Elements, Elements(r)) {
			t.Errorf("%s: demands %v %v, the whole reading has %v %v", i.ID, d.Parts, d.Elements, r.Difficulty.Parts, Elements(r))
		}
	}
}
