package count

import (
	"strings"
	"testing"
	"unhurriedbench/internal/testabc"
)

func TestWhy(t *testing.T) {
	tests := []struct {
		music   string
		british bool
		want    []string
	}{
		{"M:4/4\nL:1/8\nK:C\nc3 d e4|]", false, []string{
			"A dotted quarter: 1 + ½ = 1½ beats, from 1 through the first half of 2.",
			"An eighth: ½ beat, from the & of 2.",
			"A half: 2 beats, from 3 through 4.",
		}},
		{"M:4/4\nL:1/4\nK:C\nc z2 d|]", true, []string{
			"A crotchet: 1 beat, on 1.", "A minim rest: 2 beats, from 2 through 3.", "A crotchet: 1 beat, on 4.",
		}},
		{"M:4/4\nL:1/8\nK:C\nc2-c d e4|]", false, []string{
			"A quarter: 1 beat, tied: 1 + ½ = 1½ beats, from 1 through the first half of 2.",
			"Tied to the note before: it adds ½ beat and is not struck.",
		}},
		{"M:2/4\nL:1/8\nK:C\n(3cde f2|z4|]", false, []string{
			"An eighth of a triplet: 3 in the time of 2, ½ × ⅔ = ⅓ beat, from 1.",
		}},
		{"M:6/8\nL:1/8\nK:C\nc3 d2e|]", false, []string{
			"A dotted quarter: ⅔ + ⅓ = 1 beat, on 1.", "A quarter: ⅔ beat, from 2.", "An eighth: ⅓ beat, from the li of 2.",
		}},
		{"M:4/4\nL:1/4\nK:C\nc d2>e2|z4|]", false, []string{"", "A dotted half: 2 + 1 = 3 beats, from 2 through 4."}},
	}
	for _, tt := range tests {
		got := Why(testabc.Part(t, strings.Replace(tt.music, "d2>e2", "d3", 1)), Options{}, tt.british)[0]
		for k, want := range tt.want {
			if want != "" && got[k] != want {
				t.Errorf("note %d: %q, want %q", k+1, got[k], want)
			}
		}
	}
}

func TestCompare(t *testing.T) {
	tests := []struct{ name, a, b, want string }{
		{"a tie is the note it adds up to", "M:4/4\nL:1/8\nK:C\nc2-c d e4|]", "M:4/4\nL:1/8\nK:C\ng3 a b4|]", "Same"},
		{
			"other pitches, same rhythm",
			"M:2/4\nL:1/4\nK:C\nc d|]",
			"M:2/4\nL:1/4\nK:C\ne z|]",
			"Different: they part in measure 1 at 2: the first has a note of 1 beat, the second a rest.",
		},
		{
			"a rest is not a held note",
			"M:2/4\nL:1/4\nK:C\nc2|]",
			"M:2/4\nL:1/4\nK:C\nc z|]",
			"at 1: the first has a note of 2 beats, the second a note of 1 beat.",
		},
		{
			"off the beat",
			"M:4/4\nL:1/8\nK:C\nc2 d2 e4|]",
			"M:4/4\nL:1/8\nK:C\nc2 de f4|]",
			"at 2: the first has a note of 1 beat, the second a note of ½ beat.",
		},
		{"longer", "M:2/4\nL:1/4\nK:C\nc d|]", "M:2/4\nL:1/4\nK:C\nc d|e2|]", "one of them is longer"},
	}
	for _, tt := range tests {
		got := Compare(testabc.Part(t, tt.a), testabc.Part(t, tt.b), Options{})
		if !strings.Contains(got.Why, tt.want) || got.Same != (tt.want == "Same") {
			t.Errorf("%s: %s, want %q", tt.name, got.Why, tt.want)
		}
	}
	shared := Compare(testabc.Part(t, "M:2/4\nL:1/8\nK:C\nc2 d2|]"), testabc.Part(t, "M:2/4\nL:1/8\nK:C\n(3cde f2|]"), Options{}).Rows[0].Pulses
	var labels []string
	for _, pulse := range shared {
		labels = append(labels, pulse.Label)
	}
	if got := strings.Join(labels, " "); got != "1 la & li 2 &" {
		t.Errorf("the shared ruler counts %s", got)
	}
}
