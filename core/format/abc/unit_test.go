package abc

import (
	"context"
	"strings"
	"testing"
)

// A tune whose L: line was forgotten gets one message, and only where that would mend it.
func TestMissingLengthOfALetter(t *testing.T) {
	const asks = "Is L:1/4 missing?"
	tests := []struct {
		music string
		hint  string // "" where there is none
	}{
		{"M:4/4\nK:C\nC D E F|G A B c|c B A G|C4|]", asks},
		{"M:4/4\nK:C\nG|C D E F|G A B c|c B A|]", asks}, // with a pickup
		{"M:2/4\nK:C\nC D|E F|", asks},                  // a plain letter is a sixteenth there
		{"M:2/4\nK:C\nCD EF|GA Bc|cB AG|", "Is L:1/8 missing?"},
		{"M:4/4\nL:1/8\nK:C\nC D E F|G A B c|c B A G|C4|]", ""},  // it is not missing
		{"M:4/4\nK:C\nC2 D2 E2 F2|G A B c|c2 B2 A2 G2|C8|]", ""}, // one measure is short
		{"M:4/4\nK:C\nC D E F|G A B|c B A G|C4|]", ""},           // it would not mend it
	}
	for _, tt := range tests {
		_, err := Read(context.Background(), "X:1\nT:T\n"+tt.music)
		if err == nil {
			t.Errorf("%q is read", tt.music)
			continue
		}
		switch said := err.Error(); {
		case tt.hint == "" && strings.Contains(said, "missing?"):
			t.Errorf("%q: says %s", tt.music, said)
		case tt.hint != "" && (strings.Count(said, "\n") > 0 || !strings.Contains(said, tt.hint)):
			t.Errorf("%q: says %s, want once %q", tt.music, said, tt.hint)
		}
	}
}
