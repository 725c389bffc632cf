package reading_test

import (
	"context"
	"errors"
	"fmt"
	"reflect"
	"strings"
	"sync"
	"testing"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format"
	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/demo"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/internal/testscore"
	"unhurriedbench/reading"
	"unhurriedbench/store"
)

const (
	lamp  = "T:First Lamp\nM:4/4\nL:1/4\nK:Bb\nB c d e|f4|e d c B|B4|]\n"
	waltz = "T:Waltz\nM:3/4\nL:1/4\nK:F\nF G A|B3|A G F|F3|c B A|G3|A G E|F3|]\n"
)

// desk is a new teacher's, with an exercise.
func desk(t testing.TB, s *store.Store, content string) (*store.Desk, store.ExerciseID) {
	t.Helper()
	teacher, err := s.AddTeacher(
		context.Background(),
		strings.ToLower(fmt.Sprintf("%p@school.example", new(int))),
		"A",
		"B",
		"a long password",
	)
	if err != nil {
		t.Fatal(err)
	}
	d := s.For(teacher.ID)
	id, err := d.AddExercise(
		context.Background(),
		store.Exercise{Book: "B", Number: 1, Title: "x"},
		store.Source{Format: "abc", Content: content},
	)
	if err != nil {
		t.Fatal(err)
	}
	return d, id
}

// What is kept of an exercise is what reading it again would say, for every instrument
// and the whole demo book.
func TestWhatIsKeptIsWhatIsRead(t *testing.T) {
	s, ctx := testdb.Open(t), context.Background()
	if err := demo.Load(ctx, s); err != nil {
		t.Fatal(err)
	}
	teacher, err := s.DemoTeacher(ctx)
	if err != nil {
		t.Fatal(err)
	}
	d, r := s.For(teacher.ID), reading.New(reading.Memory)
	list, err := d.Exercises(ctx)
	if err != nil || len(list) < 15 {
		t.Fatalf("the demo has %d exercises, %v", len(list), err)
	}
	for _, i := range instrument.All() {
		met := breakdown.MetIn()
		for _, x := range list {
			if !x.Read || x.FileParts < 1 {
				t.Errorf("exercise %d was not read: %+v", x.Number, x)
			}
			demanded, err := d.Demanded(ctx, []string{i.ID})
			if err != nil {
				t.Fatal(err)
			}
			saved := demanded.MetBefore(x, i.ID, nil)
			if !reflect.DeepEqual(saved, met) {
				t.Errorf("before exercise %d the %s has met %v, want %v", x.Number, i.Name, saved, met)
			}
			part, err := r.Part(ctx, d, x, i.ID)
			if err != nil {
				t.Fatal(err)
			}
			if got := listed(breakdown.OutlineOf(part.Source)); !reflect.DeepEqual(got, x.Outline) {
				t.Errorf("exercise %d is %+v, kept as %+v", x.Number, got, x.Outline)
			}
			report := breakdown.Read(part.Score, part.Source, part.WrittenFor, i, nil, breakdown.Options{})
			keys := make([]breakdown.ChunkKey, len(report.Chunks))
			for k, p := range breakdown.Cut(report.Part) {
				keys[k] = p.Key()
			}
			if !reflect.DeepEqual(keys, x.Outline.Chunks) {
				t.Errorf("exercise %d for the %s is cut %v, kept as %v", x.Number, i.Name, keys, x.Outline.Chunks)
			}
			for _, t := range breakdown.Elements(report) {
				met.Add(t)
			}
		}
	}
}

// One function gives an instrument's part, from its own source where it has one, and
// the outlines follow it; so do sources that are not a file's first part.
func TestOwnPartsAndLaterParts(t *testing.T) {
	s, ctx, r := testdb.Open(t), context.Background(), reading.New(reading.Memory)
	d, id := desk(t, s, lamp)
	outline := func(instrument string) breakdown.Outline {
		t.Helper()
		x, err := r.Exercise(ctx, d, id)
		if err != nil {
			t.Fatal(err)
		}
		own, err := d.OwnOutlines(ctx)
		if err != nil {
			t.Fatal(err)
		}
		o := own.Of(x, instrument)
		part, err := r.Part(ctx, d, x, instrument)
		if err != nil {
			t.Fatal(err)
		}
		if made := listed(breakdown.OutlineOf(part.Source)); !reflect.DeepEqual(o, made) {
			t.Errorf("the %s's outline is %+v, its part's %+v", instrument, o, made)
		}
		return o
	}
	if got := outline("oboe"); got.Measures != 4 || got.Signatures != "4/4, B flat major" {
		t.Errorf("made from the source it is %+v", got)
	}
	if err := d.SaveOverrides(ctx, id, store.OwnPart{Instrument: "oboe", Source: store.Source{Format: "abc", Content: waltz}}); err != nil {
		t.Fatal(err)
	}
	if got := outline("oboe"); got.Measures != 8 || got.Signatures != "3/4, F major" {
		t.Errorf("its own part is %+v", got)
	}
	if got := outline("flute"); got.Measures != 4 {
		t.Errorf("the flute has the oboe's part: %+v", got)
	}
	both := musicxml.Write(score.Score{Parts: []score.Part{parts(t, lamp), parts(t, waltz)}})
	x, err := d.ExerciseByID(ctx, id)
	if err != nil {
		t.Fatal(err)
	}
	x.Part = 1
	if err := d.ChangeExercise(ctx, x, store.Source{Format: format.MusicXML, Content: string(both)}); err != nil {
		t.Fatal(err)
	}
	if got := outline("flute"); got.Measures != 8 {
		t.Errorf("of the file's second part it is %+v", got)
	}
	x.Part = 7 // there are fewer
	if err := d.ChangeExercise(ctx, x, store.Source{Format: format.MusicXML, Content: string(both)}); err != nil {
		t.Fatal(err)
	}
	if got := outline("flute"); got.Measures != 8 {
		t.Errorf("of a part that is not there it is %+v", got)
	}
}

func parts(t *testing.T, abc string) score.Part {
	t.Helper()
	sc, err := format.ReadKind(context.Background(), format.ABC, []byte(abc))
	if err != nil {
		t.Fatal(err)
	}
	return sc.Parts[0]
}

// A score is read once and shared; making parts of it and explaining them leaves it as
// it was.
func TestSharedScoresStayAsTheyAre(t *testing.T) {
	r := reading.New(reading.Memory)
	source := store.Source{Format: format.MusicXML, Content: string(musicxml.Write(testscore.Random(t, 7)))}
	sc, err := r.Score(context.Background(), source)
	if err != nil {
		t.Fatal(err)
	}
	before := fmt.Sprintf("%#v", sc)
	for _, i := range instrument.All() {
		report := breakdown.Read(sc, sc.Parts[0], "", i, breakdown.MetIn(), breakdown.Options{ForPage: true})
		report.DrillScore(report.Drills(i))
		breakdown.Read(sc, sc.Parts[0], i.ID, i, nil, breakdown.Options{Placed: instrument.OctaveChoice{Chosen: true, Octaves: 1}})
	}
	again, err := r.Score(context.Background(), source)
	if err != nil {
		t.Fatal(err)
	}
	if &again.Parts[0].Measures[0] != &sc.Parts[0].Measures[0] {
		t.Error("the score was read twice")
	}
	if after := fmt.Sprintf("%#v", again); after != before {
		t.Error("explaining a part changed its source")
	}
	file, err := r.File(context.Background(), "again.musicxml", []byte(source.Content))
	if err != nil || &file.Score.Parts[0].Measures[0] != &sc.Parts[0].Measures[0] {
		t.Errorf("the same file brought in again was read again: %v", err)
	}
}

// What is kept is bounded: the least recently used goes first, and what is larger than
// everything is not kept.
func TestMemoryIsBounded(t *testing.T) {
	song := func(n int) store.Source {
		return store.Source{Format: format.ABC, Content: fmt.Sprintf("T:%d\nK:C\nC4 D4|E8|]\n", n)}
	}
	r := reading.New(20000) // some six of them
	first := func(n int) *score.Measure {
		t.Helper()
		sc, err := r.Score(context.Background(), song(n))
		if err != nil {
			t.Fatal(err)
		}
		return &sc.Parts[0].Measures[0]
	}
	one, two := first(1), first(2)
	for n := 3; n < 40; n++ {
		if first(1) != one {
			t.Fatalf("what is used all the time was let go after %d others", n-2)
		}
		first(n)
	}
	if first(2) == two {
		t.Error("nothing was let go")
	}
	tiny := reading.New(10)
	a, err := tiny.Score(context.Background(), song(1))
	if err != nil {
		t.Fatal(err)
	}
	b, err := tiny.Score(context.Background(), song(1))
	if err != nil || &a.Parts[0].Measures[0] == &b.Parts[0].Measures[0] {
		t.Errorf("what is larger than the memory was kept, %v", err)
	}
	if _, err := r.Score(context.Background(), store.Source{Format: format.ABC, Content: "K:C\nC4 Q|]"}); err == nil {
		t.Error("a source that cannot be read has no error")
	}
}

// One command reads again what was read by other rules; what cannot be read says why.
func TestRefreshAll(t *testing.T) {
	s, ctx, r := testdb.Open(t), context.Background(), reading.New(reading.Memory)
	d, _ := desk(t, s, lamp)
	other, broken := desk(t, s, "K:C\nC4 Q4|]\n")
	for _, want := range []int{2, 0} {
		if n, err := r.RefreshAll(ctx, s, false); err != nil || n != want {
			t.Errorf("%d exercises were read again, %v, want %d", n, err, want)
		}
	}
	if _, err := s.DB().ExecContext(ctx, "UPDATE exercises SET read_version = 0"); err != nil {
		t.Fatal(err)
	}
	if _, err := s.DB().ExecContext(ctx, "UPDATE outlines SET chunks = ''"); err != nil {
		t.Fatal(err)
	}
	list, err := r.Exercises(ctx, d) // a page finds it stale before the command has run
	if err != nil || len(list) != 1 || !list[0].Read || len(list[0].Outline.Chunks) == 0 {
		t.Errorf("a stale exercise is listed as %+v, %v", list, err)
	}
	if n, err := r.RefreshAll(ctx, s, false); err != nil || n != 1 {
		t.Errorf("%d exercises were read again, %v, want the other teacher's", n, err)
	}
	if n, err := r.RefreshAll(ctx, s, true); err != nil || n != 2 {
		t.Errorf("%d exercises were read again, %v, want both", n, err)
	}
	x, err := r.Exercise(ctx, other, broken)
	if err != nil || !x.Read || !strings.Contains(x.Unread, "Q") || len(x.Outline.Chunks) != 0 {
		t.Errorf("what cannot be read is kept as %+v, %v", x, err)
	}
}

// Anyone who has gone does not take the reading away from others who wait for the same.
func TestReadingForWhoHasGone(t *testing.T) {
	r := reading.New(reading.Memory)
	for n := range 20 {
		source := store.Source{Format: format.ABC, Content: fmt.Sprintf("T:%d\nM:4/4\nL:1/4\nK:C\n", n) + strings.Repeat("CDEF|\n", 1500)}
		gone, leave := context.WithCancel(context.Background())
		var both sync.WaitGroup
		both.Go(func() {
			if _, err := r.Score(gone, source); err != nil && !errors.Is(err, context.Canceled) {
				t.Errorf("who has gone is told %v", err)
			}
		})
		both.Go(func() {
			time.Sleep(time.Duration(n) * 100 * time.Microsecond)
			leave()
		})
		both.Go(func() {
			time.Sleep(time.Duration(n) * 50 * time.Microsecond)
			if s, err := r.Score(context.Background(), source); err != nil || len(s.Parts) != 1 {
				t.Errorf("who waits is told %v", err)
			}
		})
		both.Wait()
	}
}

// listed is an outline as pages have it, without how its measures are written.
func listed(o breakdown.Outline) breakdown.Outline {
	o.Looks, o.Gaps = nil, nil
	return o
}
