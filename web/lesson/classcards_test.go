package lesson_test

import (
	"context"
	"encoding/json"
	"fmt"
	"regexp"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	room "unhurriedbench/web/lesson"
)

// A class sees one concert note at a time, everybody's own.
func TestCardsForAClass(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	ctx, desk := context.Background(), s.Store.For(b.Teacher)
	if _, err := desk.AddStudent(ctx, store.Student{ClassID: b.Class, FirstName: "Tess", Instrument: "trumpet"}); err != nil {
		t.Fatal(err)
	}
	twice := s.Exercise(t, b.Teacher, 2, "Two octaves", "trombone", "T:Two octaves\nM:4/4\nL:1/4\nK:Bb clef=bass\nB,,4|B,4|]\n")
	for _, name := range []string{"Alma", "Bo", "Cleo"} {
		if err := desk.AddAttempts(ctx, store.Attempt{StudentID: testsite.StudentCalled(t, desk, b.Class, name), ExerciseID: twice, Chunk: breakdown.ChunkKey{First: 1, Last: 2}, Try: routine.Try{Stage: routine.Count, Clean: true}}); err != nil {
			t.Fatal(err)
		}
	}
	_, page := v.Get(fmt.Sprintf("/cards?class=%d", b.Class))
	text := regexp.MustCompile(`(?s)<script type="application/json" id="class-notes">(.*?)</script>`).FindStringSubmatch(page)
	if text == nil {
		t.Fatalf("there are no notes on\n%s", page)
	}
	var notes []room.ClassNote
	if err := json.Unmarshal([]byte(text[1]), &notes); err != nil {
		t.Fatal(err)
	}
	if len(notes) < 3 {
		t.Fatalf("the notes are %+v", notes)
	}
	for _, n := range notes {
		for _, c := range n.Cards {
			want := n.Concert // violin and trombone read what sounds
			if c.Instrument == "trumpet" {
				want = map[string]string{"B flat": "C", "C": "D", "D": "E", "E flat": "F", "F": "G", "A": "B", "G": "A"}[n.Concert]
			}
			if c.Name != want || c.Way == nil || c.Place == "" {
				t.Errorf("concert %s is %s on the %s, want %s", n.Concert, c.Name, c.Title, want)
			}
			if n.Concert == "B flat" && c.Instrument == "trombone" && c.Place != "line 2" { // of the two it has met, where a line sits well
				t.Errorf("the trombone's B flat stands on %s", c.Place)
			}
		}
	}
	if notes[0].Concert != "B flat" && notes[0].Concert != "D" {
		t.Errorf("the scale begins on %s", notes[0].Concert)
	}
	empty, account := s.Teacher(t, "new@school.example")
	if _, err := s.Store.For(account.ID).AddClass(context.Background(), "New"); err != nil {
		t.Fatal(err)
	}
	_, page = empty.Get("/cards")
	testsite.Wants(t, page, "No notes yet")
}
