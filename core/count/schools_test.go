package count

import (
	"strings"
	"testing"

	"unhurriedbench/core/score"
	"unhurriedbench/internal/testabc"
)

// Takadimi: Hoffman, Pelto and White 1996. The others: common practice.
func TestSchools(t *testing.T) {
	const (
		simple     = "M:4/4\nL:1/16\nK:C\nc4 d2e2 fgab c4|d8 e6 f2|c2d6 z4 e4|]"
		compound   = "M:6/8\nL:1/16\nK:C\nc2d2e2 f4g2|cdefga b6|c12|]"
		triplet    = "M:2/4\nL:1/8\nK:C\n(3cde c2|]"
		broad      = "M:4/4\nL:1/4\nK:C\n(3cde f g|c2 (3:2:2c2d|]"
		syncopated = "M:4/4\nL:1/8\nK:C\nc d2 e f2 g2|]"
		sixteenths = "M:4/4\nL:1/16\nK:C\ncd2e f2ga bc3 c3d|]"
		restsHere  = "M:4/4\nL:1/4\nK:C\nc2 z2|z2 c2|c z c c|]"
	)
	tests := []struct {
		school School
		music  string
		want   string
	}{
		{Numbers, simple, "1 2 & 3 e & a 4 | 1 (2) 3 (4) & | 1 & (2) [3] 4"},
		{Pulsed, simple, "1 (&) 2 & 3 e & a 4 (&) | 1 (&) (2) (&) 3 (&) (4) & | 1 & (2) (&) [3] [&] 4 (&)"},
		{Values, simple, "ta ti ti ti ka ti ka ta | ta (a) tam (m) ti | ti tam (m) ta"},
		{Places, simple, "ta ta di ta ka di mi ta | ta (–) ta (–) di | ta di (–) ta"},
		{Function, simple, "du du de du ta de ta du | du (–) du (–) de | du de (–) du"},
		{OneTa, simple, "ta ta ta ta ta ta ta ta | ta (–) ta (–) ta | ta ta (–) rest ta"},
		{Words, simple, "sail an chor har bor mas ter sail | sail (–) sail (–) ho | an chor (–) sail"},
		{Places, compound, "ta ki da ta da | ta va ki di da ma ta | ta (–)"},
		{Function, compound, "du da di du di | du ta da ta di ta du | du (–)"},
		{Values, compound, "ti ti ti ta ti | ti ka ti ka ti ka tam | tam (a)"},
		{Words, compound, "pas sen ger row ing | is land hop ping fer ry sail | sail (–)"},
		{Pulsed, compound, "1 la li 2 (la) li | 1 ta la ta li ta 2 (la) (li) | 1 (la) (li) (2) (la) (li)"},
		{Places, triplet, "ta ki da ta"},
		{Function, triplet, "du da di du"},
		{Values, triplet, "tri o la ta"},
		{Words, triplet, "pas sen ger sail"},
		{Values, broad, "tri o (–) la ta ta | ta (a) tri (–) la"},
		{Numbers, broad, "1 li (2) la 3 4 | 1 (2) 3 (4) la"},
		{Pulsed, broad, "1 (la) li (2) la (li) 3 (&) 4 (&) | 1 (&) (2) (&) 3 (la) (li) (4) la (li)"},
		{Words, broad, "o cean (–) wide sail sail | sail (–) deep (–) sea"},
		{Values, syncopated, "ti ta (–) ti ta ta"},
		{Values, sixteenths, "ka ti ka ti ti ka ka tim tim ka"},
		{Pulsed, triplet, "1 la li 2 (&)"},
		// By value a half is ta-a, also where it is the beat.
		{Values, "M:C|\nL:1/4\nK:C\nc2 d e|c4|c3 d|]", "ta (a) ta ta | ta (a) (a) (a) | ta (a) (a) ta"},
		{Values, "M:3/2\nL:1/4\nK:C\nc4 d2|c3 d e2|]", "ta (a) (a) (a) ta (a) | ta (a) (a) ta ta (a)"},
		{Values, "M:6/8\nL:1/8\nK:C\nc4 d2|c2 d e3|c d4 e|]", "ta (a) ta | ta ti tam | ti ta (a) ti"},
		// The third of four sixteenths, before a struck one and before one that is held on.
		{Values, "M:2/4\nL:1/16\nK:C\ncdef g4|cdef- f4|cdef-f2g2|]", "ti ka ti ka ta | ti ka ti ta (a) | ti ka ti tim (–) ti"},
		{OneTa, "M:6/8\nL:1/8\nK:C\nc2z z2c|z3 c3|]", "ta li 2 ta | rest ta"},
		{OneTa, "M:6/8\nL:1/8\nK:C\nc3 z2c|]", "ta 2 ta"},
		{Words, "M:6/8\nL:1/8\nK:C\nc|c3 c3|]", "off | sail sail"},
		{Words, "M:4/4\nL:1/8\nK:C\nc|c8|]", "ho | sail (–) (–) (–)"},
		// One-breath ta: a half rest that ends a measure is "3 4", one that begins it "1 2".
		{OneTa, restsHere, "ta (–) 3 4 | 1 2 ta (–) | ta rest ta ta"},
	}
	for _, tt := range tests {
		if got := counted(testabc.Part(t, tt.music), Options{School: tt.school}); got != tt.want {
			t.Errorf("%s:\n got %s\nwant %s", tt.school, got, tt.want)
		}
	}
}

func TestSlowBeatAndRests(t *testing.T) {
	six := testabc.Part(t, "M:6/8\nL:1/8\nK:C\nc3 d2e|z3 f/g/a z|]")
	tests := []struct {
		options Options
		want    string
	}{
		{Options{SlowBeat: true}, "1 (2) (3) 4 (5) 6 | [1] [2] [3] 4 & 5 [6]"},
		{Options{}, "1 2 li | [1] 2 ta la [li]"},
		{Options{SlowBeat: true, Rests: AsWord}, "1 (2) (3) 4 (5) 6 | rest – – 4 & 5 rest"},
		{Options{SlowBeat: true, Rests: AtPlace}, "1 (2) (3) 4 (5) 6 | 1 2 3 4 & 5 6"},
		{Options{School: Places, SlowBeat: true}, "ta (–) (–) ta (–) ta | ta di ta"},
	}
	for _, tt := range tests {
		if got := counted(six, tt.options); got != tt.want {
			t.Errorf("%+v:\n got %s\nwant %s", tt.options, got, tt.want)
		}
	}
	var words []string
	for _, c := range CountOff(testabc.Part(t, "M:6/8\nL:1/8\nK:C\nc6|]"), Options{SlowBeat: true}) {
		words = append(words, c.Word)
	}
	if got := strings.Join(words, " "); got != "1 2 3 4 ready go" {
		t.Errorf("the slow count-off is %s", got)
	}
}

func TestOwnCueWords(t *testing.T) {
	cues := CountOff(testabc.Part(t, "M:4/4\nL:1/4\nK:C\nc4|]"), Options{Cues: [2]string{"horns", "up"}})
	if got := cues[2].Word + " " + cues[3].Word; got != "horns up" {
		t.Errorf("the count-off ends with %q", got)
	}
}

// Syn-co-pa is the teacher's choice, from the beat on only.
func TestSyncopa(t *testing.T) {
	part := testabc.Part(t, "M:4/4\nL:1/8\nK:C\nc d2 e f2 g2|c2 cd2e f2|cd- de f4|]")
	want := "syn co (–) pa ta ta | ta syn co (–) pa ta | syn co (–) pa ta (a)"
	if got := counted(part, Options{School: Values, Syncopa: true}); got != want {
		t.Errorf("syncopations are\n%s, want\n%s", got, want)
	}
}

func TestValuesJoinTies(t *testing.T) {
	got := Part(testabc.Part(t, "M:4/4\nL:1/8\nK:C\nc2-c d e4-|e4 f4|]"), Options{School: Values})
	if got[0][0].Label != "tam" || got[0][3].Label != "ta" || strings.Join(got[0][3].Held, "") != "aaa" {
		t.Errorf("a quarter tied to an eighth is %q, two tied halves are %q with %v", got[0][0].Label, got[0][3].Label, got[0][3].Held)
	}
}

func TestWordTables(t *testing.T) {
	if err := CheckWords(DefaultWords()); err != nil {
		t.Errorf("our own words: %v", err)
	}
	for key, word := range map[string]string{"xx": "a-b", "x---": "two-words", "----": "none", "xoxo": "a-b", "x-x-": "", "..x-": " "} {
		if err := CheckWords(WordTable{key: word}); err == nil {
			t.Errorf("%q for %q was taken", word, key)
		}
	}
	own := Options{School: Words, Words: WordTable{"x-x-": "ti-ger"}}
	if got := counted(testabc.Part(t, "M:2/4\nL:1/8\nK:C\ncd e2|]"), own); got != "ti ger 2" {
		t.Errorf("with one word of the teacher's own the count is %s", got)
	}
	if got := Pattern("x-."); got != "note, held, rest" {
		t.Errorf("the pattern in words is %q", got)
	}
}

func TestEverySchoolSaysSomethingAtEveryNote(t *testing.T) {
	p := testabc.Part(t, "M:4/4\nL:1/8\nK:C\nc3 d efga|(3cde f2 g4|z2 c2 d>e f2|]")
	for _, school := range Schools() {
		if school.Title() == "" {
			t.Errorf("%s has no name for a page", school)
		}
		for i, measure := range Part(p, Options{School: school}) {
			for j, c := range measure {
				if p.Measures[i].Events[j].Kind == score.Note && c.Label == "" {
					t.Errorf("%s says nothing at measure %d, note %d", school, i+1, j+1)
				}
			}
		}
	}
}
