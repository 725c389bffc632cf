package score_test

import (
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/score"
	"unhurriedbench/internal/testabc"
)

// events writes a part as "C4:1/4 z:1/2 | …", ties with -.
func events(p score.Part) string {
	var words []string
	for _, m := range p.Measures {
		for _, e := range m.Events {
			text := "z"
			if e.Kind == score.Note {
				text = e.Pitch.String()
			}
			text += ":" + e.Length.String()
			if e.TieOn {
				text += "-"
			}
			words = append(words, text)
		}
		words = append(words, "|")
	}
	return strings.Join(words, " ")
}

// Worked by hand: the second voice of a round while the first sings it once.
func TestDelayed(t *testing.T) {
	for _, c := range []struct {
		text string
		by   int
		want string
	}{
		{"M:2/4\nL:1/4\nK:C\nC D | E F | G2 | C2 |]", 2, "z:1/2 | z:1/2 | C4:1/4 D4:1/4 | E4:1/4 F4:1/4 |"},
		{"M:3/4\nL:1/4\nK:C\nG | C2 D | E2- E | C2 |]", 1, "z:1/4 | z:1/2 G4:1/4 | C4:1/2 D4:1/4 | E4:1/2 |"},
		{"M:2/4\nL:1/4\nK:C\nC2- | C D | E2 |]", 1, "z:1/2 | C4:1/2- | C4:1/4 D4:1/4 |"},
		{"M:2/4\nL:1/4\nK:C\nC2- | C D | E2- | E2 |]", 3, "z:1/2 | z:1/2 | z:1/2 | C4:1/2 |"},
		{"M:2/4\nL:1/4\nK:C\nC D | E F |]", 5, "z:1/2 | z:1/2 |"},
	} {
		part := testabc.Part(t, "X:1\nT:Round\n"+c.text)
		before := fmt.Sprint(part)
		later := part.Delayed(c.by)
		got := events(later)
		if got != c.want {
			t.Errorf("%s after %d:\n got %s\nwant %s", c.text, c.by, got, c.want)
		}
		if fmt.Sprint(part) != before {
			t.Errorf("%s is changed", c.text)
		}
		if !score.SameMeasures(part, later) {
			t.Error("the voice has other measures than the round")
		}
	}
}
