package finger

import (
	"cmp"
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testabc"
)

// Common practice; each row says whose.
func TestStickings(t *testing.T) {
	tests := []struct {
		name, id, music string
		sticking        instrument.Sticking
		year            int
		want            string
	}{
		{"the first year alternates, again after a rest of a beat", "snare", "c z c c|c/c/c c2", instrument.StickingByYear, 1, "R R L R L R L"},
		{"and across a shorter rest, R rest L", "snare", "c z/ c/ c c", instrument.StickingByYear, 1, "R L R L"},
		{"the first year starts again after a note of two beats", "snare", "c c c2|c c c2|c z c z|c2 c c", instrument.StickingByYear, 1, "R L R R L R R R R R L"},
		{"in a roll the hands go on", "snare", "c !///!c2 c", instrument.StickingByYear, 1, "R L L"},
		{"after written sticking by turns", "snare", "\"^R\"c c \"^R\"c c", instrument.Alternating, 1, "R L R L"},
		{"from the right in each measure", "snare", "c c c z|c c2 c", instrument.EachMeasure, 1, "R L R R L R"},
		{"later the right hand leads", "snare", "c c c c", instrument.StickingByYear, 2, "R R R R"},
		{"quarters among eighths are all right", "snare", "c c c c|c/c/ c c/c/ c", instrument.RightLead, 1, "R R R R R L R R L R"},
		{"the grid is each beat's own", "snare", "c/c/ c z/c/ c|c// c// c/ c c2", instrument.RightLead, 1, "R L R L R R L R R R"},
		{"eighths are right and left where sixteenths come later", "snare", "c/c/ c/c/ c/c/ c|c//c//c//c// c c2", instrument.RightLead, 2, "R L R L R L R R L R L R R"},
		{"an eighth and two sixteenths", "snare", "c/c//c// c/>c/ z//c//c/ c", instrument.RightLead, 2, "R R L R L L R R"},
		{"a pickup counts from the bar's end", "snare", "c/|c/c/ c2 c|c3 z/|", instrument.RightLead, 1, "L R L R R R"},
		{"and of an odd bar too", "snare", "M:3/4\nL:1/4\nc|c c c|c2|", instrument.RightLead, 1, "R R R R R"},
		{"triplets alternate", "snare", "(3c/c/c/ (3c/c/c/ c2|z c (3c/c/c/ c", instrument.RightLead, 1, "R L R L R L R R L R L R"},
		{
			"six eight alternates, R after a rest or at the bar",
			"snare",
			"M:6/8\nL:1/8\nccc c2c|czc ccc|",
			instrument.RightLead,
			1,
			"R L R L R R R L R L",
		},
		{"a lone compound upbeat is left", "snare", "M:6/8\nL:1/8\nc|ccc ccc|c3 c2|", instrument.RightLead, 1, "L R L R L R L R L"},
		{"flam, drag and ruff", "snare", "{c}c {cc}c {ccc}c {c}c/c/", instrument.Alternating, 1, "lR rrL lrlR rL R"},
		{"a bass drum has no right and left", "bass-drum", "c c/c/ c2", instrument.StickingByYear, 1, ""},
		{"but where it is written", "small-percussion", "\"^R\"c \"^L\"c c2", instrument.StickingByYear, 1, "R L"},
	}
	for _, tt := range tests {
		music := tt.music
		if !strings.Contains(music, "M:") {
			music = "M:4/4\nL:1/4\n" + music
		}
		head, notes := music[:strings.LastIndex(music, "\n")+1], music[strings.LastIndex(music, "\n")+1:]
		i, _ := instrument.ByID(tt.id)
		i.Sticking = tt.sticking
		part := testabc.Part(t, head+"K:C clef=perc\n"+strings.TrimSuffix(notes, "|")+"|]")
		if got := strings.Join(texts(i, part, Options{Year: tt.year}), " "); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.name, got, tt.want)
		}
	}
}

// The usual rolls at four hand moves a quarter: an eighth 5, a quarter 9 tied and 7
// not, a half 17 and 15, a whole 33 and 31; the rates by tempo. Common practice.
func TestRolls(t *testing.T) {
	at := func(n int) score.Tempo { return score.Tempo{Beat: score.Frac(1, 4), PerMinute: n} }
	tests := []struct {
		meter, music string
		tempo        score.Tempo
		want         string
	}{
		{"4/4", "!///!c/-c/ !///!c-c !///!c", at(100), "5 9 7"},
		{"4/4", "!///!c2-c2", at(104), "17"},
		{"4/4", "!///!c2 c2", at(104), "15"},
		{"4/4", "!///!c4-|c4", score.Tempo{}, "33"},
		{"4/4", "!///!c4|!///!c/ c3 c/", score.Tempo{}, "31 5"},
		{"4/4", "!///!c2-!///!c2-|c4", at(100), "33"}, // one roll, over the tie
		{"4/4", "!///!c-c2c", at(69), "13"},
		{"4/4", "!///!c-c2c", at(140), "7"},
		{"4/4", "!///!c-c2c", at(160), "5"},
		{"2/2", "!///!c2-c2", score.Tempo{Beat: score.Frac(1, 2), PerMinute: 60}, "13"}, // a quarter at 120
		{"6/8", "!///!c3/-c3/", score.Tempo{}, "13"},
		{"6/8", "!///!c3/-c3/", score.Tempo{Beat: score.Frac(3, 8), PerMinute: 100}, "7"},
		{"6/8", "!///!c3/-c3/", score.Tempo{Beat: score.Frac(3, 8), PerMinute: 40}, "25"},
	}
	snare, _ := instrument.ByID("snare")
	for _, tt := range tests {
		part := testabc.Part(t, "M:"+tt.meter+"\nL:1/4\nK:C clef=perc\n"+tt.music+"|]")
		var got []string
		for _, m := range Part(snare, part, Options{Tempo: tt.tempo}) {
			for _, c := range m {
				if c.Roll.Strokes > 0 {
					got = append(got, fmt.Sprint(c.Roll.Strokes))
					said := fmt.Sprintf("a %d-stroke roll", c.Roll.Strokes)
					if c.Roll.Long() {
						said = fmt.Sprintf("a long roll, %d hand moves", c.Roll.Moves)
					}
					if !strings.Contains(c.Care, said) {
						t.Errorf("%s: the care is %q", tt.music, c.Care)
					}
				}
			}
		}
		if strings.Join(got, " ") != tt.want {
			t.Errorf("%s at %v: %v strokes, want %s", tt.music, tt.tempo, got, tt.want)
		}
	}
}

// The hand that begins a roll is the tap's where an even number of moves comes before
// the tap, else the other; the tap has a hand of its own. Common practice.
func TestHandsOfRolls(t *testing.T) {
	tests := []struct {
		name, music string
		sticking    instrument.Sticking
		want        string
	}{
		{"five begins and ends with one hand", "!///!c/-c/ c c c", instrument.Alternating, "R R L R L"},
		{"seven changes", "!///!c c c c", instrument.Alternating, "R R L R"},
		{"nine does not", "!///!c-c c c", instrument.Alternating, "R R L R"},
		{"the next hand begins", "c !///!c-c c", instrument.Alternating, "R L L R"},
		{"with right lead the tap goes by its place", "c/ !///!c/-c c c/c/", instrument.RightLead, "R R R R R L"},
		{"a tied seven ends by its place too", "!///!c-c/ c/ c c", instrument.RightLead, "R R L R R"},
	}
	snare, _ := instrument.ByID("snare")
	for _, tt := range tests {
		part := testabc.Part(t, "M:4/4\nL:1/4\nK:C clef=perc\n"+tt.music+"|]")
		snare.Sticking = tt.sticking
		if got := strings.Join(texts(snare, part, Options{}), " "); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.name, got, tt.want)
		}
	}
	marimba, _ := instrument.ByID("marimba")
	c := Part(marimba, testabc.Part(t, "M:4/4\nL:1/4\nK:C\n!///!c4|]"), Options{})[0][0]
	if !c.Roll.Unmeasured || c.Roll.Strokes != 0 || !strings.Contains(c.Care, "single strokes") {
		t.Errorf("a marimba rolls %+v, %s", c.Roll, c.Care)
	}
	triangle, _ := instrument.ByID("small-percussion")
	c = Part(triangle, testabc.Part(t, "M:4/4\nL:1/4\nK:C clef=perc\n!///!c4|]"), Options{})[0][0]
	if c.Roll != (Roll{}) || !strings.Contains(c.Care, "not counted") {
		t.Errorf("a triangle rolls %+v, %s", c.Roll, c.Care)
	}
}

func TestHandsOnBars(t *testing.T) {
	tests := []struct{ meter, music, want string }{
		{"", "c d e f", "R L R L"},
		{"", "c a c a", "L R L R"}, // the left hand below
		{"", "a c a c", "R L R L"},
		{"", "c d a c", "R L R L"},
		{"", "c d e a", "L R L R"}, // one that begins with the right would cross
		{"", "c f b e", "L R R L"},
		{"", "c a z c", "L R R"}, // again after a rest of a beat
		{"", "c z/ d/ e f", "R L R L"},
		{"", "c d2 c", "R L R"}, // and after a note of two beats
		{"3/4", "c d e|c d e", "R L R R L R"},
		{"", "c d e2|c d e2|c d e2", "R L R R L R R L R"},
		{"", "c2 a/e/ c", "R R L R"},      // doubled on the long note, not on the eighths
		{"", "c a/ c'/ e g", "L L R L R"}, // on the long note before, not on the eighths,
		{"", "\"^L\"c d e f", "L R L R"},
	}
	bells, _ := instrument.ByID("bells")
	for _, tt := range tests {
		var got []string
		for _, measure := range Part(bells, testabc.Part(t, "M:"+cmp.Or(tt.meter, "4/4")+"\nL:1/4\nK:C\n"+tt.music+"|]"), Options{}) {
			for _, c := range measure {
				if c.Text != "" {
					got = append(got, c.Hand)
				}
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
		{
			"two notes",
			"C, G,, C, G,,",
			"26 29 26 29",
			"tune the 26 inch drum to C before the start|tune the 29 inch drum to G before the start||",
		},
		{"a third drum", "C, G,, F, C,", "26 29 23 26", ""},
		{
			"a fourth note waits for a free drum",
			"C, G,, C, G,,|F, D,, z2|z4|A,,4",
			"26 29 26 29 23 32 29",
			"||||tune the 23 inch drum to F before the start|tune the 32 inch drum to D before the start|retune the 29 inch drum from G to A in the 6 beats of rest",
		},
		{
			"no time",
			"C, G,, F, D,,|A,, C, F, D,,",
			"26 29 23 32 29 26 23 32",
			"||||no time to retune: the 29 inch drum goes from G to A with 0 beats of rest|||",
		},
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
