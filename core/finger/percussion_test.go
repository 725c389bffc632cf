package finger

import (
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/internal/testabc"
)

func TestStickingOptions(t *testing.T) {
	tests := []struct {
		name, id, music string
		sticking        Sticking
		want            string
	}{
		{"by turns through rests", "snare", "c c z c|c/c/c c2", Alternating, "R L R L R L R"},
		{"by turns after written sticking", "snare", "\"^R\"c c \"^R\"c c", Alternating, "R L R L"},
		{"flam, drag and ruff", "snare", "{c}c {cc}c {ccc}c {c}c/c/", Natural, "lR llR lrlR lR L"},
		{"a flam of the left", "snare", "c {c}c c2", Alternating, "R rL R"},
		{"one beater on the bass drum", "bass-drum", "c c/c/ c2", Natural, "R R R R"},
		{"two where strokes are close", "bass-drum", "c//c//c//c// c c2", Natural, "R L R L R R"},
	}
	for _, tt := range tests {
		i, _ := instrument.ByID(tt.id)
		part := testabc.Part(t, "M:4/4\nL:1/4\nK:C clef=perc\n"+tt.music+"|]")
		if got := strings.Join(texts(i, part, Options{Sticking: tt.sticking}), " "); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.name, got, tt.want)
		}
	}
}

// The usual strokes of rolls at about 100: a tied eighth 5, a tied quarter 9, a
// tied half 17; untied two fewer. Common practice.
func TestRolls(t *testing.T) {
	tests := []struct {
		music string
		tempo int
		want  string
	}{
		{"!///!c/-c/ !///!c-c !///!c", 100, "5 9 7"},
		{"!///!c2-c2", 104, "17"},
		{"!///!c-c2c", 72, "13"}, // sextuplets where the beat is slow
		{"!///!c-c2c", 140, "7"}, // triplets where it is quick
		{"!///!c4", 0, "47"},
	}
	snare, _ := instrument.ByID("snare")
	for _, tt := range tests {
		part := testabc.Part(t, "M:4/4\nL:1/4\nK:C clef=perc\n"+tt.music+"|]")
		var got []string
		for _, m := range Part(snare, part, Options{Tempo: tt.tempo}) {
			for _, c := range m {
				if c.Roll.Strokes > 0 {
					got = append(got, fmt.Sprint(c.Roll.Strokes))
					if !strings.Contains(c.Care, fmt.Sprintf("a %d-stroke roll", c.Roll.Strokes)) {
						t.Errorf("%s: the care is %q", tt.music, c.Care)
					}
				}
			}
		}
		if strings.Join(got, " ") != tt.want {
			t.Errorf("%s at %d: %v strokes, want %s", tt.music, tt.tempo, got, tt.want)
		}
	}
	marimba, _ := instrument.ByID("marimba")
	c := Part(marimba, testabc.Part(t, "M:4/4\nL:1/4\nK:C\n!///!c4|]"), Options{Tempo: 100})[0][0]
	if !c.Roll.Single || c.Roll.Strokes != 16 || !strings.Contains(c.Care, "single strokes") {
		t.Errorf("a marimba rolls %+v, %s", c.Roll, c.Care)
	}
}

func TestHandsOnBars(t *testing.T) {
	tests := []struct{ music, want string }{
		{"c d e f", "R L R L"},
		{"c a c a", "L R L R"}, // the left hand below
		{"a c a c", "R L R L"},
		{"c a z c", "L R R"},
		{"\"^L\"c d e f", "L R L R"},
	}
	bells, _ := instrument.ByID("bells")
	for _, tt := range tests {
		var got []string
		for _, c := range Part(bells, testabc.Part(t, "M:4/4\nL:1/4\nK:C\n"+tt.music+"|]"), Options{})[0] {
			if c.Text != "" {
				got = append(got, c.Hand)
			}
		}
		if strings.Join(got, " ") != tt.want {
			t.Errorf("%s: %v, want %s", tt.music, got, tt.want)
		}
	}
}

// Two drums for two notes; a third where a drum is free long enough, and a word
// where it is not.
func TestTuning(t *testing.T) {
	tests := []struct{ name, music, drums, cares string }{
		{"two notes", "C, G,, C, G,,", "26 29 26 29", "tune the 26 inch drum to C before the start|tune the 29 inch drum to G before the start||"},
		{"a third drum", "C, G,, F, C,", "26 29 23 26", ""},
		{"a fourth note waits for a free drum", "C, G,, C, G,,|F, D,, z2|z4|A,,4", "26 29 26 29 23 32 29", "||||tune the 23 inch drum to F before the start|tune the 32 inch drum to D before the start|retune the 29 inch drum from G to A in the 8 beats it is free"},
		{"no time", "C, G,, F, D,,|A,, C, F, D,,", "26 29 23 32 29 26 23 32", "||||no time to retune: the 29 inch drum goes from G to A with 2 beats free|||"},
	}
	timpani, _ := instrument.ByID("timpani")
	for _, tt := range tests {
		var drums, cares []string
		for _, m := range Part(timpani, testabc.Part(t, "M:4/4\nL:1/4\nK:C clef=bass\n"+tt.music+"|]"), Options{}) {
			for _, c := range m {
				if c.Text != "" {
					drums, cares = append(drums, c.Text), append(cares, c.Care)
				}
			}
		}
		if got := strings.Join(drums, " "); got != tt.drums {
			t.Errorf("%s: drums %s, want %s", tt.name, got, tt.drums)
		}
		for k, want := range strings.Split(tt.cares, "|") {
			if want != "" && cares[k] != want {
				t.Errorf("%s: stroke %d says %q, want %q", tt.name, k+1, cares[k], want)
			}
		}
	}
	part := testabc.Part(t, "M:4/4\nL:1/4\nK:C clef=bass\nC,4|]")
	if got := texts(timpani, part, Options{Preferred: Preferred{48: "29"}}); got[0] != "29" {
		t.Errorf("with the 29 preferred C is on %s", got[0])
	}
}
