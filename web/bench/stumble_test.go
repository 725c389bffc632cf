package bench_test

import (
	"context"
	"fmt"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// A stumble at the whole may say in which measure: it is one of the chunk with that measure, and
// not of the others.
func TestAStumbleInAMeasure(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	b, desk := testsite.Furnish(t, s.Store, account.ID), s.Store.For(account.ID)
	const music = "T:Two Ways\nM:4/4\nL:1/4\nK:C\nc d e f|g4|e2 d c|c4|]\n"
	id := s.Exercise(t, account.ID, 7, "Two Ways", "", music)
	bench := fmt.Sprintf("/bench/%d?instrument=trombone&student=%d&class=%d", id, b.Student, b.Class)
	_, page := v.Get(bench + "&chunk=1-4")
	testsite.Wants(t, page, `<option value="3">m. 3</option>`)
	if _, page = v.Get(bench + "&chunk=1-2"); strings.Contains(page, "data-measure") {
		t.Error("in a chunk of two measures it is asked which")
	}
	mark := url.Values{"instrument": {"trombone"}, "student": {fmt.Sprint(b.Student)}, "class": {fmt.Sprint(b.Class)}, "chunk": {"1-4"},
		"stage": {"count"}, "tempo": {"60"}, "cause": {"rhythm"}, "measure": {"3"}}
	_, page = v.Script(fmt.Sprintf("/bench/%d/attempts", id), mark)
	testsite.Wants(t, page, "a stumble, rhythm, m. 3")
	mark.Set("measure", "77") // which the chunk does not have
	_, page = v.Script(fmt.Sprintf("/bench/%d/attempts", id), mark)
	testsite.Wants(t, page, "a stumble, rhythm.")
	standings, err := desk.ClassStandings(ctx, b.Class)
	if err != nil {
		t.Fatal(err)
	}
	at := standings[store.Task{Student: b.Student, Exercise: id}]
	for key, stumbles := range map[string]int{"1-2": 0, "3-4": 1, "1-4": 2} {
		chunk, _ := breakdown.ParseChunkKey(key)
		if got := at.State(routine.Standard(), chunk).Stumbles; got != stumbles {
			t.Errorf("%s has %d stumbles, want %d", key, got, stumbles)
		}
	}
}
