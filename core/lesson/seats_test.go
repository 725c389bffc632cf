package lesson

import (
	"fmt"
	"strings"
	"testing"
)

// Everybody gets one seat; who plays the same sits together.
func TestSeats(t *testing.T) {
	for _, tt := range []struct {
		plays  string
		across int
		want   string
	}{
		{"", 4, "[]"},
		{"f f c c", 4, "[[0 1 2 3]]"},
		{"f f c c c", 4, "[[0 1] [2 3 4]]"},
		{"f c c c c c c", 4, "[[0] [1 2 3 4] [5 6]]"},
		{"f f f f f t", 2, "[[0 1] [2 3] [4 5]]"},
		{"f t", 0, "[[0] [1]]"},
	} {
		if got := fmt.Sprint(Seats(strings.Fields(tt.plays), tt.across)); got != tt.want {
			t.Errorf("%q, %d across: %s, want %s", tt.plays, tt.across, got, tt.want)
		}
	}
}
