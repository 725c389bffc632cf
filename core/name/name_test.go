package name

import (
	"testing"

	"unhurriedbench/core/score"
)

// Staff places: common practice.
func TestPlace(t *testing.T) {
	tests := []struct {
		pitch string
		clef  score.Clef
		want  string
	}{
		{"E4", score.Treble, "line 1"},
		{"G4", score.Treble, "line 2"},
		{"F5", score.Treble, "line 5"},
		{"F4", score.Treble, "space 1"},
		{"E5", score.Treble, "space 4"},
		{"D4", score.Treble, "space below the staff"},
		{"C4", score.Treble, "first ledger line below the staff"},
		{"B3", score.Treble, "space below the first ledger line"},
		{"A3", score.Treble, "second ledger line below the staff"},
		{"G5", score.Treble, "space above the staff"},
		{"A5", score.Treble, "first ledger line above the staff"},
		{"C6", score.Treble, "second ledger line above the staff"},
		{"F3", score.Bass, "line 4"},
		{"G2", score.Bass, "line 1"},
		{"C4", score.Bass, "first ledger line above the staff"},
		{"C4", score.Alto, "line 3"},
		{"C4", score.Tenor, "line 4"},
		{"Eb3", score.Bass, "space 3"},
	}
	for _, tt := range tests {
		if got := Place(score.MustPitch(tt.pitch), tt.clef); got != tt.want {
			t.Errorf("%s in the %s clef is on %q, want %q", tt.pitch, tt.clef.Name(), got, tt.want)
		}
	}
}

func TestSpoken(t *testing.T) {
	tests := []struct {
		pitch        string
		natural      bool
		spoken, show string
	}{
		{"Eb4", false, "E flat", "E♭"},
		{"E4", false, "E", "E"},
		{"E4", true, "E natural", "E♮"},
		{"F#4", true, "F sharp", "F♯"},
		{"Bbb3", false, "B double flat", "B𝄫"},
	}
	for _, tt := range tests {
		p := score.MustPitch(tt.pitch)
		if got := Spoken(p, tt.natural); got != tt.spoken {
			t.Errorf("%s is said %q, want %q", tt.pitch, got, tt.spoken)
		}
		if got := Short(p, tt.natural); got != tt.show {
			t.Errorf("%s is shown %q, want %q", tt.pitch, got, tt.show)
		}
	}
}
