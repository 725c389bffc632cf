package breakdown

import (
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
)

// What makes a measure hard is named by what weighs most in it.
func TestWhatTheTroubleIs(t *testing.T) {
	for _, tt := range []struct{ instrument, music, word, why string }{
		{"trumpet", "C//D//E//F//G//F//E//D// C2|C4|]", "rhythm", "The shortest note is a sixteenth note."},
		{"trumpet", "C/DE/ F/GF/|C4|]", "rhythm", "A note begins between beats and lasts through one."},
		{"trumpet", "C/z/z/D/ E/z/z/F/|C4|]", "rhythm", "Rests are counted between beats."},
		{"trumpet", "CD_E^F|C4|]", "signs", "The sign in front of it makes it E flat"},
		{"bells", "C2c2|C4|]", "leaps", "It leaps from C to C."},
		{"trombone", "K:C clef=bass\nF,B,,F,B,,|C,4|]", "slide", "the slide goes out, 6 positions. Leave the note before in good time."},
		{"trumpet", "a4|C4|]", "high", "It goes up to A, high for the trumpet in this year."},
		{"snare", "K:C clef=perc\nc/c/c/c/ c2|c4|]", "rhythm", "an eighth note"},
		{"trumpet", "z4|C4|]", "", "Nothing is played here."},
	} {
		r := hardness(t, tt.instrument, tt.music, nil)
		target, _ := instrument.ByID(tt.instrument)
		got := r.Trouble(0, target)
		if got.Word != tt.word || !strings.Contains(got.Why, tt.why) {
			t.Errorf("%s for %s: %q, %q; want %q, %q", tt.music, tt.instrument, got.Word, got.Why, tt.word, tt.why)
		}
		if got.Grade < 0 || got.Grade > 9 || got.Grade != r.Measures[0].Difficulty.Grade() {
			t.Errorf("%s is graded %d", tt.music, got.Grade)
		}
	}
}

// What comes again need not be learned again.
func TestWhatIsLeftToLearn(t *testing.T) {
	for _, tt := range []struct {
		music string
		left  int
		again string
	}{
		{"C D E F|G4|A G F E|D4|]", 4, "[]"},
		{"C D E F|G4|C D E F|C4|]", 3, "[M. 3 is m. 1 again.]"},
		{"C D E F|G2 E2|A2 F2|C4|C D E F|G2 E2|D2 B2|c4|]", 6, "[M. 5 and 6 are m. 1 and 2 again.]"},
		{"C D E F|D E F G|C4|]", 3, "[]"}, // shifted is not the same
	} {
		r := hardness(t, "flute", tt.music, nil)
		if r.Left != tt.left || fmt.Sprint(r.Again()) != tt.again {
			t.Errorf("%s: %d are left, %v", tt.music, r.Left, r.Again())
		}
	}
}
