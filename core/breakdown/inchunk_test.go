package breakdown

import (
	"fmt"
	"testing"
)

// The notes of a chunk are those that are struck in its measures, and its hardest change lies
// between two of them.
func TestInAChunk(t *testing.T) {
	for _, tt := range []struct {
		instrument, music string
		first, last       int
		pitches, change   string
	}{
		{"trumpet", "C D E2|z4|C4-|C4|]", 1, 1, "[C4 D4 E4]", "none"},
		{"trumpet", "C D E2|z4|C4-|C4|]", 2, 2, "[]", "none"},
		{"trumpet", "C D E2|z4|C4-|C4|]", 3, 4, "[C4]", "none"},
		{"trombone", "K:C clef=bass\nF,B,,F,B,,|C,4|]", 1, 1, "[F3 B2]", "F3 B2"},
		{"trombone", "K:C clef=bass\nF,B,,F,B,,|C,4|]", 2, 2, "[C3]", "none"}, // the change into it begins before the chunk
		{"trombone", "K:C clef=bass\nF,B,,F,B,,|C,4|]", 1, 2, "[F3 B2 C3]", "F3 B2"},
		{"trombone", "K:C clef=bass\nF,4|C,4|]", 2, 2, "[C3]", "none"},
		{"trombone", "K:C clef=bass\nF,4|C,4|]", 1, 2, "[F3 C3]", "F3 C3"},
	} {
		r := hardness(t, tt.instrument, tt.music, nil)
		key := ChunkKey{First: tt.first, Last: tt.last}
		change := "none"
		if from, to, made, ok := r.HardestChange(key); ok {
			change = fmt.Sprint(from, " ", to)
			if made.Why == "" {
				t.Errorf("%s: the change has no reason", tt.music)
			}
		}
		if got := fmt.Sprint(r.PitchesIn(key)); got != tt.pitches || change != tt.change {
			t.Errorf("%s, %s: %s, %s, want %s, %s", tt.music, key, got, change, tt.pitches, tt.change)
		}
	}
}
