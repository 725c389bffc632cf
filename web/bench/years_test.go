package bench_test

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// A class's year decides which fingerings are taught; it moves no line that lies well.
func TestYearOfAClass(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	flicks := s.Exercise(t, account.ID, 1, "Flicks", "", "T:Flicks\nM:4/4\nL:1/4\nK:C\nA c d c|A4|]\n")
	bench := fmt.Sprintf("/bench/%d?instrument=bassoon&class=%d", flicks, b.Class)
	_, page := v.Get(bench)
	testsite.Wants(t, page, "A2 to D3, suggested", "the first-year range", `"fingering":"W 1 2 3 | 4 5"`)
	high, err := s.Store.For(account.ID).AddExercise(context.Background(), store.Exercise{Book: "Another", Number: 2, Title: "High", WrittenFor: "bassoon"},
		store.Source{Format: "abc", Content: "T:High\nM:4/4\nL:1/4\nK:C clef=bass\nA, C D C|A,4|]\n"}) // in a book of its own: neighbors keep their octave
	if err != nil {
		t.Fatal(err)
	}
	written := fmt.Sprintf("/bench/%d?instrument=bassoon&class=%d", high, b.Class)
	_, page = v.Get(written)
	testsite.Wants(t, page, `"fingering":"1 2 3 | 4 5"`, "touch the A flick key at the start")

	year := fmt.Sprintf("/classes/%d/year", b.Class)
	if status, to := v.Post(year, url.Values{"year": {"2"}}); status != http.StatusSeeOther || to != "/people" {
		t.Fatalf("choosing the year gives %d %s", status, to)
	}
	_, page = v.Get("/people")
	testsite.Wants(t, page, `<option value="2" selected>second</option>`)
	_, page = v.Get(bench)
	testsite.Wants(t, page, "A2 to D3, suggested", "the second-year range")
	_, page = v.Get(written)
	testsite.Wants(t, page, `"fingering":"flickA 1 2 3 | 4 5"`)
	for _, bad := range []string{"0", "4", "", "two"} {
		status, page := v.Post(year, url.Values{"year": {bad}})
		if status != http.StatusUnprocessableEntity || !strings.Contains(page, "first, second or third") {
			t.Errorf("the year %q gives %d", bad, status)
		}
	}
}
