package web_test

import (
	"context"
	"fmt"
	"strings"
	"testing"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// The Board says who is stuck, where, on what, since when, and the way on: most stuck
// first, those past four behind a line; a chunk that has gone on is stuck no more.
func TestWhoNeedsHelp(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	b, desk := testsite.Furnish(t, s.Store, account.ID), s.Store.For(account.ID)
	yesterday := time.Now().AddDate(0, 0, -1)
	stumble := func(name string, chunk breakdown.ChunkKey, times int, cause routine.Cause, tempo int) store.StudentID {
		t.Helper()
		id, err := desk.AddStudent(ctx, store.Student{ClassID: b.Class, FirstName: name, Instrument: "violin"})
		if err != nil {
			t.Fatal(err)
		}
		var log []store.Attempt
		for range times {
			log = append(log, store.Attempt{StudentID: id, ExerciseID: b.Exercise, Chunk: chunk, Try: routine.Try{Stage: routine.Name, Cause: cause}, Tempo: tempo, At: yesterday})
		}
		if err := desk.AddAttempts(ctx, log...); err != nil {
			t.Fatal(err)
		}
		return id
	}
	second := breakdown.ChunkKey{First: 3, Last: 4}
	stumble("Two", second, 2, routine.WrongName, 60)
	stumble("Three", second, 3, routine.WrongName, 63)
	five := stumble("Five", second, 5, routine.Fingering, 72)
	gone := stumble("Gone", second, 4, routine.WrongName, 60)
	for range routine.CleanToGoOn {
		if err := desk.AddAttempts(ctx, store.Attempt{StudentID: gone, ExerciseID: b.Exercise, Chunk: second, Try: routine.Try{Stage: routine.Name, Clean: true}}); err != nil {
			t.Fatal(err)
		}
	}
	_, theirs := v.Get(fmt.Sprintf("/students/%d", five))
	testsite.Wants(t, theirs, "What next", "<b>1 · First Lamp</b><br>m. 3–4, Name", "fingering, 5 tries running", "Name it at ")
	_, theirs = v.Get(fmt.Sprintf("/students/%d", b.Student))
	testsite.Wants(t, theirs, "m. 1–2, Count", "in progress")
	stumble("Old", breakdown.ChunkKey{First: 90, Last: 91}, 9, routine.Sound, 60) // a chunk that is not there any more
	_, page := v.Get("/board")
	testsite.Wants(t, page, "Needs help", "fingering, 5 tries running", "name, 3 tries running", `<span class="word">fingering</span>`,
		fmt.Sprintf("/bench/%d?student=%d&amp;class=%d&amp;chunk=3-4&amp;tempo=", b.Exercise, five, b.Class))
	if strings.Index(page, "<b>Five</b>") > strings.Index(page, "<b>Three</b>") {
		t.Error("who has stumbled most does not come first")
	}
	for _, name := range []string{"Two", "Gone", "Old"} {
		if strings.Contains(page, "<b>"+name+"</b>") {
			t.Errorf("%s is said to need help", name)
		}
	}
	if got := strings.Count(page, `<td class="stuck">`); got != 2 {
		t.Errorf("%d cells are stuck, want 2", got)
	}
	// From a student's link the Bench opens the first chunk that is not done, at their tempo.
	for _, step := range routine.Standard() {
		for range routine.CleanToGoOn {
			if err := desk.AddAttempts(ctx, store.Attempt{StudentID: five, ExerciseID: b.Exercise, Chunk: breakdown.ChunkKey{First: 1, Last: 2},
				Try: routine.Try{Stage: step.Stage, Clean: true}, Tempo: 88}); err != nil {
				t.Fatal(err)
			}
		}
	}
	_, page = v.Get(fmt.Sprintf("/bench/%d?student=%d", b.Exercise, five))
	testsite.Wants(t, page, "<b>Chunk B</b>, m. 3–4", `<b id="tempo-now">72</b>`)
	for k := range 5 {
		stumble(fmt.Sprint("More", k), second, 3, routine.Sound, 60)
	}
	_, page = v.Get("/board")
	testsite.Wants(t, page, "5 together", "Start a lesson for these 5", "<b>Five</b>", "<b>Three</b>")
}
