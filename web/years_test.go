package web

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/store"
)

// A section's year decides which fingerings are taught; it moves no line that lies well.
func TestYearOfASection(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	flicks := s.exercise(t, account.ID, 1, "Flicks", "", "T:Flicks\nM:4/4\nL:1/4\nK:C\nA c d c|A4|]\n")
	bench := fmt.Sprintf("/bench/%d?instrument=bassoon&section=%d", flicks, b.section)
	_, page := v.get(bench)
	wants(t, page, "A2 to D3, suggested", "the first-year range", `"fingering":"W 1 2 3 | 4 5"`)
	high, err := s.store.For(account.ID).AddExercise(context.Background(), store.Exercise{Book: "Another", Number: 2, Title: "High", WrittenFor: "bassoon"},
		store.Source{Format: "abc", Content: "T:High\nM:4/4\nL:1/4\nK:C clef=bass\nA, C D C|A,4|]\n"}) // in a book of its own: neighbors keep their octave
	if err != nil {
		t.Fatal(err)
	}
	written := fmt.Sprintf("/bench/%d?instrument=bassoon&section=%d", high, b.section)
	_, page = v.get(written)
	wants(t, page, `"fingering":"1 2 3 | 4 5"`, "touch the A flick key at the start")

	year := fmt.Sprintf("/sections/%d/year", b.section)
	if status, to := v.post(year, url.Values{"year": {"2"}}); status != http.StatusSeeOther || to != "/people" {
		t.Fatalf("choosing the year gives %d %s", status, to)
	}
	_, page = v.get("/people")
	wants(t, page, `<option value="2" selected>second</option>`)
	_, page = v.get(bench)
	wants(t, page, "A2 to D3, suggested", "the second-year range")
	_, page = v.get(written)
	wants(t, page, `"fingering":"flickA 1 2 3 | 4 5"`)
	for _, bad := range []string{"0", "4", "", "two"} {
		status, page := v.post(year, url.Values{"year": {bad}})
		if status != http.StatusUnprocessableEntity || !strings.Contains(page, "first, second or third") {
			t.Errorf("the year %q gives %d", bad, status)
		}
	}
}
