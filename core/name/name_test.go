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
		{"Bbb3", false, "B double flat", "B♭♭"},
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

// German names and solfège: common practice.
func TestSystems(t *testing.T) {
	flat := score.Key{Fifths: -2}
	tests := []struct {
		options Options
		pitch   string
		news    bool
		want    string
	}{
		{Options{}, "Eb4", false, "E flat"},
		{Options{}, "E4", true, "E natural"},
		{Options{Naturals: AlwaysNatural}, "E4", false, "E natural"},
		{Options{Naturals: NeverNatural}, "E4", true, "E"},
		{Options{System: FixedDo}, "Bb4", false, "si flat"},
		{Options{System: FixedDo}, "G4", false, "sol"},
		{Options{System: German}, "B4", true, "H"},
		{Options{System: German}, "Bb4", false, "B"},
		{Options{System: German}, "Eb4", false, "Es"},
		{Options{System: German}, "Ab4", false, "As"},
		{Options{System: German}, "Db4", false, "Des"},
		{Options{System: German}, "F#4", false, "Fis"},
		{Options{System: Degrees}, "Bb4", false, "1"},
		{Options{System: Degrees}, "D4", false, "3"},
		{Options{System: Degrees}, "E4", true, "♯4"},
		{Options{System: Degrees}, "A4", false, "7"},
	}
	for _, tt := range tests {
		if got := tt.options.Say(score.MustPitch(tt.pitch), tt.news, flat); got != tt.want {
			t.Errorf("%s in %+v is %q, want %q", tt.pitch, tt.options, got, tt.want)
		}
	}
	if got := (Options{System: FixedDo}).Show(score.MustPitch("Eb4"), false, flat); got != "mi♭" {
		t.Errorf("E flat is shown %q in fixed do", got)
	}
	for _, s := range Systems() {
		if s.Title() == "" {
			t.Errorf("%s has no name for a page", s)
		}
	}
}

func TestHint(t *testing.T) {
	tests := []struct {
		pitch string
		clef  score.Clef
		known []string
		want  string
	}{
		{"G4", score.Treble, nil, "It is the clef's own G on line 2: G."},
		{"B4", score.Treble, nil, "From the clef's own G on line 2, up 2 steps: A B."},
		{"E4", score.Treble, nil, "From the clef's own G on line 2, down 2 steps: F E."},
		{"Eb3", score.Bass, nil, "From the clef's own F on line 4, down one step: E."},
		{"D4", score.Alto, nil, "From the clef's own C on line 3, up one step: D."},
		{"D5", score.Treble, []string{"C5", "G4"}, "From the C you know on space 3, up one step: D."},
		{"C4", score.Percussion, nil, ""},
	}
	for _, tt := range tests {
		var known []score.Pitch
		for _, k := range tt.known {
			known = append(known, score.MustPitch(k))
		}
		if got := Hint(score.MustPitch(tt.pitch), tt.clef, known); got != tt.want {
			t.Errorf("%s: %q, want %q", tt.pitch, got, tt.want)
		}
	}
}
