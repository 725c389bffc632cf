package lesson

import (
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
)

// Everybody gets one seat; strings sit in front and percussion behind, who plays the same
// together.
func TestSeats(t *testing.T) {
	for _, tt := range []struct {
		plays  string
		across int
		want   string
	}{
		{"", 4, "[]"},
		{"flute flute clarinet clarinet", 4, "[[0 1 2 3]]"},
		{"clarinet flute clarinet flute clarinet", 4, "[[1 3] [0 2 4]]"},
		{"flute clarinet clarinet clarinet clarinet clarinet clarinet", 4, "[[0] [1 2 3 4] [5 6]]"},
		{"snare trumpet flute violin cello", 2, "[[3 4] [2 1] [0]]"},
		{"flute trumpet", 0, "[[0] [1]]"},
	} {
		if got := fmt.Sprint(Seats(strings.Fields(tt.plays), tt.across)); got != tt.want {
			t.Errorf("%q, %d across: %s, want %s", tt.plays, tt.across, got, tt.want)
		}
	}
	var all []string
	for _, i := range instrument.All() {
		all = append(all, i.ID, i.ID)
	}
	seen := map[int]bool{}
	for _, row := range Seats(all, 7) {
		if len(row) > 7 {
			t.Errorf("%d sit in a row of 7", len(row))
		}
		for _, k := range row {
			if seen[k] {
				t.Errorf("%s has two seats", all[k])
			}
			seen[k] = true
		}
	}
	if len(seen) != len(all) {
		t.Errorf("%d of %d are seated", len(seen), len(all))
	}
}
