package bench_test

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

const duet = "T:Pier Duet\nM:4/4\nL:1/4\nK:C\nV:1 name=\"First\"\nc d e f|g4|\nV:2 name=\"Second\"\nC2 D2|E4|\n"

// A part of a file becomes part B, an exercise of its own; each line stands over the other,
// and is heard with it.
func TestLinesAAndB(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	id := s.Exercise(t, account.ID, 7, "Pier Duet", "", duet)
	parts := fmt.Sprintf("/exercises/%d/parts", id)
	_, page := v.Get(parts)
	testsite.Wants(t, page, "Lines A and B", "Second: 4/4, C major, 2 measures")
	if status, _ := v.Post(fmt.Sprintf("/exercises/%d/second", id), url.Values{"what": {"part"}, "part": {"5"}}); status != http.StatusNotFound {
		t.Errorf("a part that is not there gives %d", status)
	}
	v.Post(fmt.Sprintf("/exercises/%d/second", id), url.Values{"what": {"part"}, "part": {"1"}})
	_, page = v.Get(parts)
	testsite.Wants(t, page, "This is part A; part B is", "Pier Duet, part B")
	bench := fmt.Sprintf("/bench/%d?instrument=trombone&class=%d", id, b.Class)
	_, page = v.Get(bench)
	testsite.Wants(t, page, ">Part A</a>", ">Part B</a>", `scale=\"64%\"`, "has either part", `data-want="other"> with part B`)
	h := benchHeard(t, page)
	if h.Other == nil || len(h.Other.Notes) != 3 || len(h.Round.Notes) != 5 || h.Other.Notes[0].Sounds != 0.5 {
		t.Errorf("beside part A is heard %+v", h.Other)
	}
	_, page = v.Get(bench + "&other=large")
	testsite.Wants(t, page, `scale=\"100%\"`)
	if _, page = v.Get(bench + "&other=none"); strings.Contains(page, `scale=\"`) {
		t.Error("the other line stands though it is left out")
	}
	if _, page = v.Get(bench + "&line=even-walk"); strings.Contains(page, ">Part A</a>") || benchHeard(t, page).Other != nil {
		t.Error("a derived line has another beside it")
	}
}

// A student who has been given a line is led to it; the teacher may look at the other.
func TestGivenLines(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	one := s.Exercise(t, account.ID, 7, "Upper", "", "M:4/4\nL:1/4\nK:C\nc d e f|g4|]\n")
	two := s.Exercise(t, account.ID, 8, "Lower", "", "M:4/4\nL:1/4\nK:C\nC2 D2|E4|]\n")
	v.Post(fmt.Sprintf("/exercises/%d/second", one), url.Values{"what": {"exercise"}, "other": {fmt.Sprint(two)}})
	bench := func(id store.ExerciseID) string {
		return fmt.Sprintf("/bench/%d?instrument=trombone&class=%d&student=%d", id, b.Class, b.Student)
	}
	_, to := v.Post("/lines/give", url.Values{"student": {fmt.Sprint(b.Student)}, "line": {"B"}, "back": {bench(one)}})
	if to != bench(one) {
		t.Errorf("giving leads to %s", to)
	}
	status, to := v.Get(bench(one))
	if status != http.StatusSeeOther || !strings.HasPrefix(to, fmt.Sprintf("/bench/%d?", two)) {
		t.Fatalf("the student's Bench of part A gives %d to %s", status, to)
	}
	_, page := v.Get(to)
	testsite.Wants(t, page, "8 · Lower", "has part B", "Take it back")
	_, page = v.Get(bench(one) + "&keep=yes")
	testsite.Wants(t, page, "7 · Upper", "keep=yes", "Give part A")

	// The class's part holds for a student without their own.
	v.Post("/lines/give", url.Values{"student": {fmt.Sprint(b.Student)}, "line": {""}, "back": {bench(one)}})
	if status, _ = v.Get(bench(one)); status != http.StatusOK {
		t.Errorf("a line that was taken back still leads away: %d", status)
	}
	v.Post("/lines/give", url.Values{"class": {fmt.Sprint(b.Class)}, "line": {"B"}, "back": {bench(one)}})
	if status, _ = v.Get(bench(one)); status != http.StatusSeeOther {
		t.Errorf("the class's line is not its student's: %d", status)
	}
	v.Post(fmt.Sprintf("/exercises/%d/second", one), url.Values{})
	_, page = v.Get(bench(one))
	if strings.Contains(page, ">Part A</a>") {
		t.Error("parted lines are still two")
	}
}

// A round has its entries marked, and its next voice beside it; lines of other measures do
// not stand together.
func TestRounds(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	testsite.Furnish(t, s.Store, account.ID)
	id := s.Exercise(t, account.ID, 7, "Ring", "", "M:2/4\nL:1/4\nK:C\nC D|E F|G2|E2|C E|G2|]\n")
	second := fmt.Sprintf("/exercises/%d/second", id)
	for _, bad := range []string{"0", "6", "x", "99"} {
		status, page := v.Post(second, url.Values{"what": {"round"}, "entry": {bad}})
		if status != http.StatusUnprocessableEntity {
			t.Errorf("a round after %s measures gives %d", bad, status)
		}
		testsite.Wants(t, page, "after 1 to 5 full measures", `value="`+bad+`"`)
	}
	v.Post(second, url.Values{"what": {"round"}, "entry": {"2"}})
	_, page := v.Get(fmt.Sprintf("/bench/%d?instrument=violin&chunk=1-6", id))
	testsite.Wants(t, page, "enters after 2 full measures", `\u003creh staff=\"3\" tstamp=\"1\"\u003e2\u003c`, `tstamp=\"1\"\u003e3\u003c`, "with the next voice")
	if h := benchHeard(t, page); h.Other == nil || h.Other.Notes[0].At != 1 || h.Other.Notes[0].MIDI[0] != h.Round.Notes[0].MIDI[0] {
		t.Errorf("the next voice is %+v", h.Other)
	}
	other := s.Exercise(t, account.ID, 8, "Long", "", "M:4/4\nL:1/4\nK:C\nC D E F|]\n")
	v.Post(second, url.Values{"what": {"exercise"}, "other": {fmt.Sprint(other)}})
	_, page = v.Get(fmt.Sprintf("/bench/%d?instrument=violin", id))
	testsite.Wants(t, page, "do not have the same measures", ">Part B</a>")
}
