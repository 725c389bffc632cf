package score_test

import (
	"fmt"
	"testing"

	"unhurriedbench/internal/testabc"
)

// Which measures of rest one sign stands for: a run without anything to see in it.
func TestMultirests(t *testing.T) {
	for _, tt := range []struct{ name, music, want string }{
		{"none", "c4|z4|c4|]", "[0 0 0]"},
		{"two", "c4|z4|z4|c4|]", "[0 2 -1 0]"},
		{"many", "c4|Z8|c4|]", "[0 8 -1 -1 -1 -1 -1 -1 -1 0]"},
		{"to the end", "c4|Z2|]", "[0 2 -1]"},
		{"parted by a double bar", "z4|z4||z4|z4|]", "[2 -1 2 -1]"},
		{"parted by a repeat", "c4|z4|z4:|z4|c4|]", "[0 2 -1 0 0]"},
		{"parted by another meter", "z4|z4|[M:3/4]z3|z3|]", "[2 -1 2 -1]"},
		{"parted by a rehearsal mark", "z4|z4|[P:B]z4|z4|]", "[2 -1 2 -1]"},
		{"written out in halves", "z2z2|z2z2|]", "[0 0]"},
	} {
		if got := fmt.Sprint(testabc.Part(t, "M:4/4\nL:1/4\nK:C\n"+tt.music).Multirests()); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.name, got, tt.want)
		}
	}
}
