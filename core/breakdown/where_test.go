package breakdown

import (
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
)

// A stumble lies where the chunk is hardest in what stumbled.
func TestWhereAStumbleLies(t *testing.T) {
	for _, tt := range []struct {
		instrument, music string
		first, last       int
		cause             routine.Cause
		want              string
	}{
		{"trombone", "K:C clef=bass\nB,,4|F,B,,F,B,,|C,4|]", 1, 2, routine.Fingering, "m. 2, B to F: the slide goes in, 6 positions"},
		{"trumpet", "C4|C/DE/ F/GF/|C4|]", 1, 3, routine.Rhythm, "m. 2: a note begins between beats and lasts through one"},
		{"trumpet", "C4|C/DE/ F/GF/|C4|]", 3, 3, routine.Rhythm, "m. 3: rhythm (wholes)"},
		{"trumpet", "C4|CD_E^F|C4|]", 1, 3, routine.WrongName, "m. 2: the sign in front of it makes it E flat until the bar line"},
		{"trumpet", "CDCD|C4|]", 1, 2, routine.WrongName, "m. 1"},
		{"trumpet", "C4|a4|]", 1, 2, routine.Sound, "m. 2: it goes up to A"},
		{"trumpet", "CcCc|C4|]", 1, 2, routine.Sound, "m. 1, C to C: no valve moves: the lip goes from partial 2 to 4"},
		{"trumpet", "C4|]", 1, 1, routine.Sound, "m. 1: it goes down to C"},
		{"trumpet", "C4|]", 1, 1, routine.None, ""},
		{"trumpet", "C4|]", 7, 9, routine.Rhythm, ""},
		{"snare", "K:C clef=perc\nc4|c/c/c/c/ c2|]", 1, 2, routine.Rhythm, "m. 2: rhythm (eighths)"},
	} {
		r := hardness(t, tt.instrument, tt.music, nil)
		target, _ := instrument.ByID(tt.instrument)
		if got := r.Where(ChunkKey{First: tt.first, Last: tt.last}, tt.cause, target); got != tt.want {
			t.Errorf("%s for %s, %s: %q, want %q", tt.music, tt.instrument, tt.cause, got, tt.want)
		}
	}
}
