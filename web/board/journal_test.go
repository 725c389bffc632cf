package board_test

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

// The Bench knows what the book's earlier exercises had: it warns of a letter that was
// otherwise in them, and tells notes from the places met there; later exercises and
// other books count for nothing.
func TestEarlierExercisesAreRemembered(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	in := func(book string, number int, music string) store.ExerciseID {
		t.Helper()
		id, err := s.Store.For(account.ID).AddExercise(context.Background(), store.Exercise{Book: book, Number: number, Title: "x"},
			store.Source{Format: "abc", Content: "M:4/4\nL:1/4\n" + music + "\n"})
		if err != nil {
			t.Fatal(err)
		}
		return id
	}
	in("First", 1, "K:Bb\nd e f e|B4|]")
	in("First", 3, "K:F\nd e f e|d4|]")
	in("Other", 1, "K:F\nd e f e|d4|]")
	second := in("First", 2, "K:F\nd e f e|g4|]")
	_, page := v.Get(fmt.Sprintf("/bench/%d?instrument=flute", second))
	testsite.Wants(t, page, "this is E natural, and E was flat in every exercise so far.", "From the F you know on line 5, up one step: G.")
	_, page = v.Get(fmt.Sprintf("/bench/%d?instrument=clarinet", second)) // who reads F sharp now, and read F natural
	testsite.Wants(t, page, "this is F sharp, and F was natural in every exercise so far.")
	alone := in("Third", 2, "K:F\nd e f e|g4|]")
	if _, page = v.Get(fmt.Sprintf("/bench/%d?instrument=flute", alone)); strings.Contains(page, "every exercise so far") {
		t.Error("an exercise with none before it has a trap from them")
	}
}

// A student's history shows every try, those taken back too, newest first; the bar and
// the word are what is left when those are not counted.
func TestHistoryWithTriesTakenBack(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	b, desk := testsite.Furnish(t, s.Store, account.ID), s.Store.For(account.ID) // with a clean try at Count of m. 1-2
	try := func(stage routine.Stage, clean bool, cause routine.Cause, tempo int) {
		t.Helper()
		if err := desk.AddAttempts(ctx, store.Attempt{StudentID: b.Student, ExerciseID: b.Exercise, Chunk: breakdown.ChunkKey{First: 1, Last: 2},
			Try: routine.Try{Stage: stage, Clean: clean, Cause: cause}, Tempo: tempo}); err != nil {
			t.Fatal(err)
		}
	}
	try(routine.Count, true, routine.None, 61)
	try(routine.Name, true, routine.None, 62)
	try(routine.Name, false, routine.WrongName, 63)
	page := fmt.Sprintf("/students/%d?exercise=%d", b.Student, b.Exercise)
	undo := func(nth int) {
		t.Helper()
		log, err := desk.StudentAttempts(ctx, b.Student)
		if err != nil {
			t.Fatal(err)
		}
		status, _ := v.Post(fmt.Sprintf("/students/%d/undo?attempt=%d", b.Student, log[nth].ID), url.Values{"exercise": {fmt.Sprint(b.Exercise)}})
		if status != 200 {
			t.Fatalf("undoing gives %d", status)
		}
	}
	_, text := v.Get(page)
	testsite.Wants(t, text, "<h1>Ines P. <small>trombone</small></h1>", "A, m. 1–2</a>", "<b>today</b> Count clean × 2; Name clean; Name stumble, name")
	steps := []struct {
		taken int // which of the log is taken back before looking, the newest being 0; -1 for none
		word  string
		bar   string
		back  int // tries that are marked as taken back
	}{
		{-1, "Name", "Count earned", 0},
		{0, "Name", "Count earned, Name 25%", 1}, // the stumble: one clean at Name stands again
		{2, "Name", "Name 25%", 2},               // one of the two at Count: the try at Name was by choice
		{1, "Count", "Count 50%", 3},
	}
	for _, step := range steps {
		if step.taken >= 0 {
			undo(step.taken)
		}
		_, text := v.Get(page)
		testsite.Wants(t, text, `<span class="word">`+step.word+`</span>`, step.bar)
		if got := strings.Count(text, "taken back"); got != step.back {
			t.Errorf("%d tries are marked as taken back, want %d", got, step.back)
		}
		last := -1
		for _, tempo := range []string{"63", "62", "61", "60"} {
			at := strings.Index(text, "<td>"+tempo+"</td>")
			if at < last {
				t.Errorf("the try at %s does not stand after a newer one", tempo)
			}
			last = at
		}
	}
}

// The Board is right for instruments with parts of their own and for sources that are
// not the first part: what is done is all done.
func TestTheBoardOfOtherParts(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	desk := s.Store.For(account.ID)
	class, err := desk.AddClass(ctx, "Mixed")
	if err != nil {
		t.Fatal(err)
	}
	long := "M:4/4\nL:1/4\nK:C\nc d e f|g4|c d e f|g4|e4|f4|g4|c4|]\n"
	two := "M:4/4\nL:1/4\nV:1\nV:2\nK:C\nV:1\nc4|d4|]\nV:2\nc d e f|g4|c d e f|g4|e4|f4|]\n"
	own, err := desk.AddExercise(ctx, store.Exercise{Book: "B", Number: 1, Title: "Own"}, store.Source{Format: "abc", Content: testsite.Lamp})
	if err != nil {
		t.Fatal(err)
	}
	second, err := desk.AddExercise(ctx, store.Exercise{Book: "B", Number: 2, Title: "Second part", Part: 1}, store.Source{Format: "abc", Content: two})
	if err != nil {
		t.Fatal(err)
	}
	if err := desk.SaveOverrides(ctx, own, store.OwnPart{Instrument: "trombone", Source: store.Source{Format: "abc", Content: long}}); err != nil {
		t.Fatal(err)
	}
	var histories []string
	for _, instrument := range []string{"trombone", "flute"} {
		student, err := desk.AddStudent(ctx, store.Student{ClassID: class, FirstName: "X", Instrument: instrument})
		if err != nil {
			t.Fatal(err)
		}
		for _, id := range []store.ExerciseID{own, second} {
			_, page := v.Get(fmt.Sprintf("/bench/%d?student=%d", id, student))
			chunks := strings.Split(page, `<span id="chunk-`)[1:]
			for _, chunk := range chunks {
				key, _, _ := strings.Cut(chunk, `"`)
				for _, step := range routine.Standard() {
					for range routine.CleanToGoOn {
						status, _ := v.Post(fmt.Sprintf("/bench/%d/attempts", id), url.Values{
							"student": {fmt.Sprint(student)}, "instrument": {instrument}, "chunk": {key}, "stage": {string(step.Stage)}, "result": {"clean"},
						})
						if status != 303 {
							t.Fatalf("a mark at chunk %s gives %d", key, status)
						}
					}
				}
			}
			want := map[string]int{"trombone": 5, "flute": 3}[instrument]
			if id == second {
				want = 4
			}
			if len(chunks) != want {
				t.Errorf("the %s's Bench has %d chunks, want %d", instrument, len(chunks), want)
			}
		}
		histories = append(histories, fmt.Sprintf("/students/%d", student))
	}
	_, board := v.Get("/board")
	if got := strings.Count(board, `<span class="word tick">✓</span>`); got != 4 {
		t.Errorf("%d of 4 exercises are done on the Board", got)
	}
	const full = `aria-label="Count earned, Name earned, Finger earned, Play earned"`
	if got := strings.Count(board, full); got != 4 {
		t.Errorf("%d of 4 bars are full", got)
	}
	for k, path := range histories {
		_, page := v.Get(path)
		want := []int{2 + 5 + 4, 2 + 3 + 4}[k] // two exercises, and their chunks
		if bars, words := strings.Count(page, full), strings.Count(page, `<span class="word">Done</span>`); bars != want || words != want {
			t.Errorf("the history %s has %d full bars and %d done, want %d", path, bars, words, want)
		}
	}
}

// An exercise whose source no longer reads breaks nothing: the Shelf says so, the Bench
// says why, and every other screen goes on without it.
func TestAnExerciseThatCannotBeRead(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	b, desk := testsite.Furnish(t, s.Store, account.ID), s.Store.For(account.ID)
	broken, err := desk.AddExercise(ctx, store.Exercise{Book: "The Ferry Book", Number: 2, Title: "Broken"},
		store.Source{Format: "abc", Content: "M:4/4\nL:1/4\nK:C\nc d Q f|]\n"})
	if err != nil {
		t.Fatal(err)
	}
	third, err := desk.AddExercise(ctx, store.Exercise{Book: "The Ferry Book", Number: 3, Title: "Third"}, store.Source{Format: "abc", Content: testsite.Lamp})
	if err != nil {
		t.Fatal(err)
	}
	for path, want := range map[string]struct {
		status int
		text   string
	}{
		"/":                              {200, "cannot be read: edit it"},
		fmt.Sprintf("/bench/%d", broken): {422, "This exercise cannot be read any more"},
		fmt.Sprintf("/bench/%d", third):  {200, "3 · Third"},
		fmt.Sprintf("/exercises/%d/edit", broken):  {200, "c d Q f|]"},
		fmt.Sprintf("/exercises/%d/parts", broken): {200, "Parts of 2"},
		"/board":   {200, "Broken"},
		"/compare": {200, "Same or different"},
		fmt.Sprintf("/compare?a=%d&b=%d", broken, third):           {200, "Broken cannot be read any more: edit it first."},
		fmt.Sprintf("/students/%d?exercise=%d", b.Student, broken): {200, "No tries at this one yet."},
	} {
		if status, page := v.Get(path); status != want.status {
			t.Errorf("%s gives %d, want %d", path, status, want.status)
		} else {
			testsite.Wants(t, page, want.text)
		}
	}
	b.Exercise = broken
	if status, said := testsite.Mark(v, b, url.Values{"result": {"clean"}}); status != 422 || !strings.Contains(said, "nothing was marked") {
		t.Errorf("a mark at it gives %d: %s", status, said)
	}
}
