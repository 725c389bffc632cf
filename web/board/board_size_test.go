package board_test

import (
	"context"
	"fmt"
	"io"
	"math/rand/v2"
	"testing"

	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// The Board of 60 students by 40 exercises, where everybody stands somewhere else, is
// under 150 KB on the wire.
func TestTheBoardOnTheWire(t *testing.T) {
	t.Parallel()
	s := testsite.FurnishSchool(t, 40, 0, 60, 0)
	chance := rand.New(rand.NewPCG(1, 2))
	steps := routine.Standard()
	for k, id := range s.Students {
		student := store.Student{ID: id, ClassID: s.Class, FirstName: fmt.Sprint("Student", k), Initial: string(rune('A' + k%26)), Instrument: "trombone"}
		if err := s.Desk.ChangeStudent(context.Background(), student); err != nil {
			t.Fatal(err)
		}
		var log []store.Attempt
		for range 80 {
			x := s.List[chance.IntN(len(s.List))]
			a := store.Attempt{StudentID: id, ExerciseID: x.ID, Chunk: x.Outline.Chunks[chance.IntN(len(x.Outline.Chunks))],
				Try: routine.Try{Stage: steps[chance.IntN(len(steps))].Stage, Clean: chance.IntN(3) > 0}, Tempo: 60}
			if !a.Clean {
				a.Cause = routine.AllCauses()[chance.IntN(len(routine.AllCauses()))]
			}
			log = append(log, a)
		}
		if err := s.Desk.AddAttempts(context.Background(), log...); err != nil {
			t.Fatal(err)
		}
	}
	r := s.Visitor.Request("GET", "/board", nil)
	r.Header.Set("Accept-Encoding", "gzip, br") // as browsers ask; what comes is not unpacked then
	answer, err := s.Visitor.Client.Do(r)
	if err != nil {
		t.Fatal(err)
	}
	defer answer.Body.Close()
	page, err := io.ReadAll(answer.Body)
	if err != nil {
		t.Fatal(err)
	}
	t.Logf("the Board is %d KB on the wire (%s)", len(page)>>10, answer.Header.Get("Content-Encoding"))
	if len(page) >= 150<<10 || answer.Header.Get("Content-Encoding") == "" {
		t.Errorf("the Board is %d KB on the wire, packed as %q", len(page)>>10, answer.Header.Get("Content-Encoding"))
	}
}
