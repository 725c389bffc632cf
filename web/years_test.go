package web

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/store"
)

// A section's year decides which octave is suggested, on the Bench and in what is
// exported from it.
func TestYearOfASection(t *testing.T) {
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	high := s.exercise(t, account.ID, store.Exercise{Number: 1, Title: "High", Source: "T:High\nM:4/4\nL:1/4\nK:C\na b c' b|a4|]\n"})
	bench := fmt.Sprintf("/bench/%d?instrument=clarinet&section=%d", high, b.section)
	export := fmt.Sprintf("/exercises/%d/export?instrument=clarinet&section=%d&as=abc", high, b.section)
	_, page := v.get(bench)
	wants(t, page, "B3 to D4, suggested", "the first-year range")
	_, page = v.get(export)
	wants(t, page, "B,2 C2 D2 C2|B,8")

	year := fmt.Sprintf("/sections/%d/year", b.section)
	if status, to := v.post(year, url.Values{"year": {"2"}}); status != http.StatusSeeOther || to != "/people" {
		t.Fatalf("choosing the year gives %d %s", status, to)
	}
	_, page = v.get("/people")
	wants(t, page, `<option value="2" selected>second</option>`)
	_, page = v.get(bench)
	wants(t, page, "B4 to D5, suggested", "the second-year range")
	_, page = v.get(export)
	wants(t, page, "B2 c2 d2 c2|B8")
	for _, bad := range []string{"0", "4", "", "two"} {
		status, page := v.post(year, url.Values{"year": {bad}})
		if status != http.StatusUnprocessableEntity || !strings.Contains(page, "first, second or third") {
			t.Errorf("the year %q gives %d", bad, status)
		}
	}
}
