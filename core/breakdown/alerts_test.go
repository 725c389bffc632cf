package breakdown

import (
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
)

// said is what is said aloud of a line, note by note.
func said(r Report) string {
	var names []string
	for _, m := range r.Measures {
		for _, e := range m.Events {
			if e.Name != "" {
				names = append(names, e.Name)
			}
		}
	}
	return strings.Join(names, ", ")
}

// "Natural" is said where it is news: at a sign, as long as it holds, and after the
// letter was otherwise in the measure or in everything before. Common practice.
func TestNaturalIsSaidWhereItIsNews(t *testing.T) {
	for music, want := range map[string]string{
		"[K:F] =B B c2|B4|]":  "B natural, B natural, C, B flat",
		"[K:C] ^F =F F2|F4|]": "F sharp, F natural, F natural, F",
		"[K:C] _E E =e E|]":   "E flat, E flat, E natural, E natural", // in ABC a sign is for every octave
		"[K:C] ^F f F2|f4|]":  "F sharp, F sharp, F sharp, F natural",
		"[K:C] F A F2|F4|]":   "F, A, F, F",
	} {
		if got := said(read(t, "M:4/4\nL:1/4\nK:C\n"+music, "violin", nil)); got != want {
			t.Errorf("%s is said %s, want %s", music, got, want)
		}
	}
}

// A trap says how its letter was before, in order from the flattest.
func TestATrapSaysWhatWasBefore(t *testing.T) {
	r := read(t, "M:4/4\nL:1/4\nK:C\n^F _F =F2|__F4|]", "violin", nil)
	if got := r.Measures[1].Events[0].Why; !strings.Contains(got, "F was flat or natural or sharp everywhere before this") {
		t.Errorf("the double flat says %q", got)
	}
}

// Each spelling of one key names another letter it has.
func TestRespelledNotesNameEachOther(t *testing.T) {
	r := read(t, "M:4/4\nL:1/4\nK:C\n^B c _d ^c|B _c c2|]", "violin", nil)
	want := []string{"C natural", "B sharp", "C sharp", "D flat", "C flat", "B natural", "B natural"}
	k := 0
	for _, m := range r.Measures {
		for _, e := range m.Events {
			if !strings.Contains(e.Why, "Played the same as the "+want[k]+" elsewhere.") {
				t.Errorf("note %d, %s, says %q, want %s", k+1, e.Name, e.Why, want[k])
			}
			k++
		}
	}
}

// A long note is one beside a shorter one, on either side.
func TestLongNotesHaveAQuickNeighbour(t *testing.T) {
	for music, want := range map[string]string{
		"c d3|e4|c4|]":           "1.2", // a quarter before it
		"e4|d3 c|c4|]":           "2.1", // and after
		"e4|d4|c4|]":             "",
		"c2 d2|e2 d2|c4|]":       "",
		"c/d/ e2 f|g4|c4|]":      "1.3",
		"f e2 c/d/|g2 a2|c4|]":   "1.2",
		"c/d/ e3/2 z/ f|g4|c4|]": "1.3", // a beat and a half beside half a beat
		"c e z f|g4|c4|]":        "2.1", // three beats or more, a quarter before it
	} {
		if got := alerts(read(t, "M:4/4\nL:1/4\nK:C\n"+music, "violin", nil), Long); got != want {
			t.Errorf("%s has long notes at %q, want %q", music, got, want)
		}
	}
}

// The drills of a line, the dearest change first, then the one that comes most often,
// then the first; each as two measures of halves, one of quarters and a whole note.
// Positions: B flat 1, C 6, D 4, E flat 3, F 1.
func TestDrillsInOrder(t *testing.T) {
	r := read(t, "M:4/4\nL:1/4\nK:Bb\nB, D B, D|E C2 D|B, C E2|F F E2|]", "trombone", nil)
	trombone, _ := instrument.ByID("trombone")
	drills := r.Drills(trombone)
	var words []string
	for _, d := range drills {
		words = append(words, fmt.Sprintf("%s-%s %d at %d in %v", d.From.Pitch, d.To.Pitch, d.Change.Cost, d.Tempo, d.Measures))
	}
	if got, want := strings.Join(words, "; "), "Bb2-C3 6 at 69 in [3]; Bb2-D3 3 at 84 in [1 1 1 3]; Eb3-C3 3 at 84 in [2 3]"; got != want {
		t.Errorf("the drills are %s, want %s", got, want)
	}
	music, chunks := r.DrillScore(drills[:2])
	words = nil
	for _, m := range music.Parts[0].Measures {
		text := fmt.Sprint(m.Number)
		for _, e := range m.Events {
			text += fmt.Sprintf(" %s@%s+%s", e.Pitch, e.Start, e.Length)
		}
		words = append(words, text)
	}
	want := "1 Bb2@0+1/2 C3@1/2+1/2; 2 Bb2@0+1/2 C3@1/2+1/2; 3 Bb2@0+1/4 C3@1/4+1/4 Bb2@1/2+1/4 C3@3/4+1/4; 4 C3@0+1; " +
		"5 Bb2@0+1/2 D3@1/2+1/2; 6 Bb2@0+1/2 D3@1/2+1/2; 7 Bb2@0+1/4 D3@1/4+1/4 Bb2@1/2+1/4 D3@3/4+1/4; 8 D3@0+1"
	if got := strings.Join(words, "; "); got != want {
		t.Errorf("they are written\n%s, want\n%s", got, want)
	}
	for k, desired := range []string{"B♭ – C [1 2 3 4] [0 1 2 3] 1-4", "B♭ – D [5 6 7 8] [4 5 6 7] 5-8"} {
		p := chunks[k]
		if got := fmt.Sprintf("%s %v %v %s", p.Label, p.Measures, p.At, p.Key()); got != desired {
			t.Errorf("chunk %d is %s, want %s", k, got, desired)
		}
	}
}
