package web

import (
	"context"
	"fmt"
	"net/url"
	"strings"
	"testing"
	"time"

	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// What a family reads tells of one student alone, what is finished, under way and next, and
// what the teacher said.
func TestForTheFamily(t *testing.T) {
	t.Parallel()
	s, v, b := boardOf(t) // Ines has done A of First Lamp; Alma is stuck on B
	desk, now := s.store.For(b.teacher), time.Now()
	cleo := studentCalled(t, desk, b.section, "Cleo")
	_, page := v.get(fmt.Sprintf("/students/%d/family", cleo))
	wants(t, page, "Nothing was tried yet.")
	at := fmt.Sprintf("/students/%d/family", b.student)
	_, page = v.get(at)
	wants(t, page, "Notes Ines plays", `class="note-staff"`, "Under way", "1 · First Lamp", "Nothing is finished yet", "count it aloud and tap")
	for _, other := range []string{"Alma", "Cleo"} {
		if strings.Contains(page, other) {
			t.Errorf("it names %s", other)
		}
	}
	x, err := desk.ExerciseByID(context.Background(), b.exercise)
	if err != nil {
		t.Fatal(err)
	}
	var log []store.Attempt
	for _, piece := range x.Outline.Pieces {
		log = append(log, store.Attempt{StudentID: b.student, ExerciseID: b.exercise, Piece: piece, Try: routine.Try{Stage: routine.Done, Moved: true}, Tempo: 60})
	}
	if err := desk.AddAttempts(context.Background(), log...); err != nil {
		t.Fatal(err)
	}
	section := fmt.Sprint(b.section)
	v.post("/check-ins?section="+section, url.Values{"on": {now.Format(time.DateOnly)}, "minutes": {"10"}, "student": {fmt.Sprint(b.student)}})
	list, err := desk.StudentCheckins(context.Background(), b.student, 1)
	if err != nil || len(list) != 1 {
		t.Fatal(list, err)
	}
	v.post(fmt.Sprintf("/check-ins/%d/end?section=%s", list[0].ID, section), url.Values{"comment": {"A fine low B flat."}, "on": {now.AddDate(0, 0, 8).Format(time.DateOnly)}})
	v.post(fmt.Sprintf("/students/%d/plan", b.student), url.Values{"day": everyDay, "minutes": {"15"}, "until": {now.AddDate(0, 0, 4).Format(time.DateOnly)}})
	_, page = v.get(at)
	wants(t, page, "Everything begun is finished.", "today: A fine low B flat.", "Ines plays for the teacher: "+now.AddDate(0, 0, 8).Format("Mon 2 Jan"), "At home: four days planned, 15 minutes each")
}
