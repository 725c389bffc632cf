package student_test

import (
	"context"
	"fmt"
	"net/url"
	"strings"
	"testing"
	"time"

	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// What a family reads tells of one student alone, what is finished, under way and next, and
// what the teacher said.
func TestForTheFamily(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t) // Ines has done A of First Lamp; Alma is stuck on B
	desk, now := s.Store.For(b.Teacher), time.Now()
	cleo := testsite.StudentCalled(t, desk, b.Class, "Cleo")
	_, page := v.Get(fmt.Sprintf("/students/%d/family", cleo))
	testsite.Wants(t, page, "Nothing was tried yet.")
	at := fmt.Sprintf("/students/%d/family", b.Student)
	_, page = v.Get(at)
	testsite.Wants(t, page, "Notes Ines plays", `class="note-staff"`, "Under way", "1 · First Lamp", "Nothing is finished yet", "name its notes aloud")
	for _, other := range []string{"Alma", "Cleo"} {
		if strings.Contains(page, other) {
			t.Errorf("it names %s", other)
		}
	}
	x, err := desk.ExerciseByID(context.Background(), b.Exercise)
	if err != nil {
		t.Fatal(err)
	}
	var log []store.Attempt
	for _, chunk := range x.Outline.Chunks {
		log = append(log, store.Attempt{StudentID: b.Student, ExerciseID: b.Exercise, Chunk: chunk, Try: routine.Try{Stage: routine.Done, Moved: true}, Tempo: 60})
	}
	if err := desk.AddAttempts(context.Background(), log...); err != nil {
		t.Fatal(err)
	}
	class := fmt.Sprint(b.Class)
	v.Post("/check-ins?class="+class, url.Values{"on": {now.Format(time.DateOnly)}, "minutes": {"10"}, "student": {fmt.Sprint(b.Student)}})
	list, err := desk.StudentCheckins(context.Background(), b.Student, 1)
	if err != nil || len(list) != 1 {
		t.Fatal(list, err)
	}
	v.Post(fmt.Sprintf("/check-ins/%d/end?class=%s", list[0].ID, class), url.Values{"comment": {"A fine low B flat."}, "on": {now.AddDate(0, 0, 8).Format(time.DateOnly)}})
	v.Post(fmt.Sprintf("/students/%d/plan", b.Student), url.Values{"day": testsite.EveryDay, "minutes": {"15"}, "until": {now.AddDate(0, 0, 4).Format(time.DateOnly)}})
	_, page = v.Get(at)
	testsite.Wants(t, page, "Everything begun is finished.", "today: A fine low B flat.", "Ines plays for the teacher: "+now.AddDate(0, 0, 8).Format("Mon 2 Jan"), "At home: four days planned, 15 minutes each")
}
