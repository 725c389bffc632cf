package simulate_test

import (
	"context"
	"strings"
	"testing"

	"unhurriedbench/internal/testdb"
	"unhurriedbench/simulate"
)

// A term with planted habits and absences: what is shown as earned was earned; at most a third of
// a class has a card; every habit that is met is named within three lessons; minutes at home are
// used. It is of a small class; docs/simulated.md has the terms of a band and of strings.
func TestASimulatedTerm(t *testing.T) {
	if testing.Short() {
		t.Skip("it holds a term of 24 lessons")
	}
	t.Parallel()
	r, err := simulate.Term(context.Background(), testdb.Open(t), 1, simulate.Drums())
	if err != nil {
		t.Fatal(err)
	}
	var text strings.Builder
	r.Print(&text)
	for _, c := range r.Classes {
		if c.Unearned > 0 || c.Earned < 500 {
			t.Errorf("%s: %d stages are shown as earned, %d never were", c.Name, c.Earned, c.Unearned)
		}
		for week, n := range c.Cards {
			if 3*n > c.Students+1 { // in one week of twelve one more is stuck
				t.Errorf("%s: in week %d %d of %d have a card", c.Name, week+1, n, c.Students)
			}
		}
		for _, h := range c.Habits {
			if h.Met < 1 || h.Met > 3 {
				t.Errorf("%s: %s, who %s, is named after %d lessons", c.Name, h.Student.First, h.Student.Habit, h.Met)
			}
		}
		for _, h := range c.Home {
			if h.Used*100 < 85*h.Given {
				t.Errorf("%s: at home %d of %d half minutes are used with %d a day", c.Name, h.Used, h.Given, h.Minutes)
			}
		}
	}
	t.Log(text.String())
}
