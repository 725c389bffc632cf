package breakdown

import (
	"fmt"
	"strings"
	"testing"
)

// Turns a reader takes in at one glance, found by hand. Source: common practice.
func TestFigures(t *testing.T) {
	for music, want := range map[string]string{
		"c d e f|g4|]":      "up the scale from C to G [1 2]",
		"c d e f|e d c2|]":  "up the scale from C to F [1]; down the scale from F to C [1 2]",
		"c e g c'|g e c2|]": "the notes of one chord: C, E, G [1 2]",
		"d f a f|d4|]":      "the notes of one chord: D, F, A [1 2]",
		"c c c c|d2 d2|]":   "C, 4 times [1]",
		"c d z e|f g z2|]":  "",                               // rests part them
		"c e d f|e g f2|]":  "",                               // thirds and steps
		"c f c f|c4|]":      "",                               // two notes are no chord
		"c d e2-|e f g2|]":  "up the scale from C to G [1 2]", // a tie strikes nothing
		"c e g a|]":         "the notes of one chord: C, E, G [1]",
	} {
		var words []string
		for _, f := range read(t, "M:4/4\nL:1/4\nK:C\n"+music, "violin", nil).Figures {
			words = append(words, fmt.Sprintf("%s %v", f.Words, f.Measures))
		}
		if got := strings.Join(words, "; "); got != want {
			t.Errorf("%s: %s, want %s", music, got, want)
		}
	}
}

// Lines that are lines before them, and what is left to learn.
func TestLinesThatComeAgain(t *testing.T) {
	const a, b = "c d e f|g2 e2|d e f d|c4|", "g e c e|g4|f d b, d|c4|"
	for _, test := range []struct {
		music, want string
		left        int
	}{
		{a + b + a, "Line 3 is line 1 again.", 7}, // its last measure is line 1's
		{a + "c d e f|g2 e2|d e f d|g4|]", "Line 2 is line 1 again but for m. 8.", 5},
		{a + "e f g a|b2 g2|f g a f|e4|]", "Line 2 has the rhythm of line 1.", 8},
		{a + "c2 d2|e f g2|a2 g2|c4|]", "", 7},
		{"G|" + a + a, "Line 2 is line 1 again.", 4},
	} {
		r := read(t, "M:4/4\nL:1/4\nK:C\n"+test.music, "violin", nil)
		var words []string
		for _, l := range r.Lines {
			words = append(words, l.Words())
		}
		if got := strings.Join(words, " "); got != test.want || r.Left != test.left {
			t.Errorf("%s: %q with %d left, want %q with %d", test.music, got, r.Left, test.want, test.left)
		}
	}
}

// The same notes in another rhythm are distinguished from the same rhythm on other notes.
func TestSameNotesInAnotherRhythm(t *testing.T) {
	r := read(t, "M:4/4\nL:1/4\nK:C\nc d e2|c2 d e|c/d/ e3|g f e2|c4|c4|]", "violin", nil)
	var words []string
	for _, s := range r.Same {
		words = append(words, fmt.Sprintf("%v as %v %s", s.Measures, s.As, s.How))
	}
	if got, want := strings.Join(words, "; "), "[2] as [1] notes; [3] as [1] notes; [4] as [1] rhythm; [6] as [5] same"; got != want {
		t.Errorf("%s, want %s", got, want)
	}
}
