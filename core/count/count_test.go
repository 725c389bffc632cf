package count

import (
	"strings"
	"testing"

	"unhurriedbench/core/score"
	"unhurriedbench/internal/testabc"
)

// counted writes a part's count as a teacher does over the notes: held beats in
// round brackets, rests in square ones, bar lines as strokes.
func counted(p score.Part, o Options) string {
	var measures []string
	for _, lane := range Lanes(p, o) {
		var words []string
		for _, cell := range lane {
			if cell.Look != Quiet && cell.Label != "" {
				words = append(words, cell.Text())
			}
		}
		measures = append(measures, strings.Join(words, " "))
	}
	return strings.Join(measures, " | ")
}

// Worked measures: common practice.
func TestNumbers(t *testing.T) {
	tests := []struct{ name, music, want string }{
		{"quarters and halves", "M:4/4\nL:1/4\nK:C\nc d e2|c4|c3 z|]", "1 2 3 (4) | 1 (2) (3) (4) | 1 (2) (3) [4]"},
		{"eighths", "M:4/4\nL:1/8\nK:C\ncd e2 fg a2|z2 c z d z c2|]", "1 & 2 3 & 4 | [1] 2 [&] 3 [&] 4"},
		{"dotted quarter", "M:4/4\nL:1/8\nK:C\nc3 d e4|]", "1 (2) & 3 (4)"},
		{"sixteenths", "M:2/4\nL:1/16\nK:C\ncdef g4|c3d e2fg|]", "1 e & a 2 | 1 a 2 & a"},
		{"syncopation", "M:4/4\nL:1/8\nK:C\nc d2 e f2 g2|]", "1 & (2) & 3 4"},
		{"tie over the bar", "M:4/4\nL:1/4\nK:C\nc2 d2-|d2 e2|]", "1 (2) 3 (4) | (1) (2) 3 (4)"},
		{"pickup on four", "M:4/4\nL:1/4\nK:C\nc|d4|e3|]", "4 | 1 (2) (3) (4) | 1 (2) (3)"},
		{"six eight", "M:6/8\nL:1/8\nK:C\nc2d efg|c3 z3|c6|]", "1 li 2 la li | 1 [2] | 1 (2)"},
		{"sixteenths of six eight", "M:6/8\nL:1/16\nK:C\ncdefga b6|]", "1 ta la ta li ta 2"},
		{"triplet", "M:2/4\nL:1/8\nK:C\n(3cde c2|(3c2d2e2|]", "1 la li 2 | 1 li (2) la"},
		{"cut time", "M:C|\nL:1/4\nK:C\nc2 d e|c/d/e/f/ g2|c4|]", "1 2 & | 1 e & a 2 | 1 (2)"},
		{"three eight", "M:3/8\nL:1/8\nK:C\nc d e|c3|c/d/ e2|]", "1 2 3 | 1 (2) (3) | 1 & 2 (3)"},
		{"five four", "M:5/4\nL:1/4\nK:C\nc2 d e f|]", "1 (2) 3 4 5"},
	}
	for _, tt := range tests {
		if got := counted(testabc.Part(t, tt.music), Options{}); got != tt.want {
			t.Errorf("%s:\n got %s\nwant %s", tt.name, got, tt.want)
		}
	}
}

func TestTiedNotesAreHeldThrough(t *testing.T) {
	p := testabc.Part(t, "M:4/4\nL:1/4\nK:C\nc d3-|d2 e2|]")
	got := Part(p, Options{})
	if first := got[0][1]; first.Label != "2" || strings.Join(first.Held, " ") != "3 4 1 2" {
		t.Errorf("the tied note is counted %s, held %v", first.Label, first.Held)
	}
	if second := got[1][0]; second.Label != "" || second.Held != nil {
		t.Errorf("its continuation has the count %q and holds %v", second.Label, second.Held)
	}
}

func TestTaps(t *testing.T) {
	got := Part(testabc.Part(t, "M:4/4\nL:1/8\nK:C\nc3 d e/f/ g a2|]"), Options{})[0]
	want := []Tap{Down, Up, Down, NoTap, Up, Down}
	for i, tap := range want {
		if got[i].Tap != tap {
			t.Errorf("note %d: the foot goes %q, want %q", i+1, got[i].Tap, tap)
		}
	}
}

// Where the foot goes, pulse by pulse: v down, ^ up, . neither. Common practice.
func TestFoot(t *testing.T) {
	for _, tt := range []struct{ name, music, want string }{
		{"four four", "M:4/4\nL:1/4\nK:C\nc4|]", "v^v^v^v^"},
		{"six eight", "M:6/8\nL:1/8\nK:C\nc3 d2e|]", "v.^v.^"},
		{"nine eight", "M:9/8\nL:1/8\nK:C\nc6-c3|]", "v.^v.^v.^"},
		{"six eight with sixteenths", "M:6/8\nL:1/16\nK:C\ncdefga b6|]", "v...^.v.^"},
		{"five eight, three and two", "M:5/8\nL:1/8\nK:C\nc3 d2|]", "v.^v^"},
		{"five eight, two and three", "M:5/8\nL:1/8\nK:C\nc2 d3|]", "v^v.^"},
		{"five eight of eighths, as the measure beside it", "M:5/8\nL:1/8\nK:C\nc2 d3|cdefg|]", "v^v.^ v^v.^"},
		{"five eight of eighths alone", "M:5/8\nL:1/8\nK:C\ncdefg|]", "v.^v^"},
		{"five eight as it is written", "M:2+3/8\nL:1/8\nK:C\ncdefg|]", "v^v.^"},
		{"seven eight", "M:7/8\nL:1/8\nK:C\nc2 d2 e3|c3 d2 e2|]", "v^v^v.^ v.^v^v^"},
	} {
		var rows []string
		for _, lane := range Lanes(testabc.Part(t, tt.music), Options{}) {
			row := ""
			for _, cell := range lane {
				row += map[Tap]string{Down: "v", Up: "^", NoTap: "."}[cell.Tap]
			}
			rows = append(rows, row)
		}
		if got := strings.Join(rows, " "); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.name, got, tt.want)
		}
	}
}

// Count-offs: common practice, among them a pickup on four and one on the and of
// two.
func TestCountOff(t *testing.T) {
	tests := []struct{ name, music, want string }{
		{"four four", "M:4/4\nL:1/4\nK:C\nc4|]", "1 2 ready go*"},
		{"three four", "M:3/4\nL:1/4\nK:C\nc3|]", "1 ready go*"},
		{"two four takes two measures", "M:2/4\nL:1/4\nK:C\nc2|]", "1 2 ready go*"},
		{"six eight takes two measures", "M:6/8\nL:1/8\nK:C\nc6|]", "1 2 ready go*"},
		{"pickup on four", "M:4/4\nL:1/4\nK:C\nc|c4|c3|]", "1 2 3*"},
		{"pickup on the and of two", "M:2/4\nL:1/8\nK:C\nc|c4|c3|]", "1 & 2*"},
		{"pickup on two of two four", "M:2/4\nL:1/4\nK:C\nc|c2|c|]", "1 2 1*"},
		{"long pickup", "M:4/4\nL:1/4\nK:C\nc d e|c4|c|]", "1 2 3 4 1*"},
		{"eighth before six eight", "M:6/8\nL:1/8\nK:C\nc|c6|c3 c2|]", "1 la li 2* la"},
	}
	for _, tt := range tests {
		p := testabc.Part(t, tt.music)
		cues := CountOff(p, Options{})
		var words []string
		for _, c := range cues {
			word := c.Word
			if c.Breath {
				word += "*"
			}
			words = append(words, word)
		}
		if got := strings.Join(words, " "); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.name, got, tt.want)
		}
		for i := 1; i < len(cues); i++ {
			if !cues[i-1].At.Less(cues[i].At) || !cues[i].At.Less(score.Fraction{}) {
				t.Errorf("%s: cue %d is at %s", tt.name, i, cues[i].At)
			}
		}
	}
}
