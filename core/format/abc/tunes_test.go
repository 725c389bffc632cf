package abc

import (
	"context"
	"fmt"
	"testing"
)

func TestTunes(t *testing.T) {
	for _, test := range []struct{ text, want string }{
		{"K:C\nC", `[{0 "K:C\nC"}]`},
		{"X:3\nT:A\nT:B\nK:C\nC\n\nX:4\nK:D\nD\n", `[{3 "A" "X:3\nT:A\nT:B\nK:C\nC\n"} {4 "X:4\nK:D\nD\n"}]`},
		{"%abc-2.1\r\nM:3/4\r\n\r\nX:1\r\nK:C\r\nC\r\n", `[{1 "%abc-2.1\nM:3/4\nX:1\nK:C\nC\n"}]`},
		{"X: 7 \nK:C\nC\nX:\nK:C\nD", `[{7 "X: 7 \nK:C\nC\n"} {0 "X:\nK:C\nD\n"}]`},
		{"X:-1\nK:C\nC", `[{0 "X:-1\nK:C\nC\n"}]`},
	} {
		got := "["
		for n, tune := range Tunes(test.text) {
			if n > 0 {
				got += " "
			}
			title := ""
			if tune.Title != "" {
				title = fmt.Sprintf("%q ", tune.Title)
			}
			got += fmt.Sprintf("{%d %s%q}", tune.Number, title, tune.Text)
		}
		if got += "]"; got != test.want {
			t.Errorf("%q: %s, want %s", test.text, got, test.want)
		}
	}
	// What stands before the first tune holds in each.
	for _, tune := range Tunes("M:3/4\nL:1/4\n\nX:1\nK:C\nC D E|\n\nX:2\nK:G\nG A B|\n") {
		s, err := Read(context.Background(), tune.Text)
		if err != nil || s.Parts[0].Meter().String() != "3/4" {
			t.Errorf("tune %d: %v", tune.Number, err)
		}
	}
}
