package student_test

import (
	"context"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"net/url"
	"strings"
	"testing"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// A student's page shows the notes they hold, the changes that failed, their days and tempos,
// and their check-ins.
func TestAStudentsPage(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	b, desk := testsite.Furnish(t, s.Store, account.ID), s.Store.For(account.ID)
	x := s.Exercise(t, account.ID, 5, "Far Slides", "trombone", "T:Far Slides\nM:4/4\nL:1/4\nK:F clef=bass\nF,B,,F,B,,|F,4|C,D,E,F,|F,4|]\n")
	bea, err := desk.AddStudent(ctx, store.Student{ClassID: b.Class, FirstName: "Bea", Instrument: "trombone"})
	if err != nil {
		t.Fatal(err)
	}
	at := fmt.Sprintf("/students/%d", bea)
	_, page := v.Get(at)
	testsite.Wants(t, page, "No tries yet.", "nothing tried in the last twelve weeks", "Schedule</a>", "Not begun: ")
	if strings.Contains(page, "note-staff") {
		t.Error("without a try there is a staff of notes")
	}
	first := breakdown.ChunkKey{First: 1, Last: 2}
	outline, err := desk.ExerciseByID(ctx, x)
	if err != nil {
		t.Fatal(err)
	}
	if len(outline.Outline.Chunks) > 0 {
		first = outline.Outline.Chunks[0]
	}
	var log []store.Attempt
	add := func(days, tempo int, try routine.Try) {
		log = append(log, store.Attempt{StudentID: bea, ExerciseID: x, Chunk: first, Try: try, Tempo: tempo, At: time.Now().AddDate(0, 0, -days)})
	}
	clean := func(stage routine.Stage) routine.Try { return routine.Try{Stage: stage, Clean: true} }
	for _, stage := range []routine.Stage{routine.Count, routine.Name} {
		add(9, 54, clean(stage))
		add(9, 56, clean(stage))
	}
	add(2, 60, routine.Try{Stage: routine.Finger, Cause: routine.Fingering})
	add(2, 63, clean(routine.Count))
	add(1, 66, routine.Try{Stage: routine.Finger, Cause: routine.Fingering})
	if err := desk.AddAttempts(ctx, log...); err != nil {
		t.Fatal(err)
	}
	v.Post(fmt.Sprintf("/check-ins?class=%d", b.Class), url.Values{"on": {time.Now().Format(time.DateOnly)}, "minutes": {"10"}, "student": {fmt.Sprint(bea)}})
	_, page = v.Get(at)
	testsite.Wants(t, page, "7 tries on 3 days, 71% clean", `class="note-staff"`, "5 · Far Slides, A goes wrong over the fingering", "does not hold yet", "2 stumbles over the fingering in 5 · Far Slides, A",
		"Drill it", "clean at 56 on ", ", at 63 on ", "to come: 5 · Far Slides")
	_, only := v.Get(at + fmt.Sprintf("?exercise=%d", x))
	if strings.Contains(only, "note-staff") || !strings.Contains(only, "tempo-plot") {
		t.Error("an exercise's own page has all that the student's has")
	}
}

// Drawings are well formed, and say in words what they show.
func TestDrawingsOfAStudent(t *testing.T) {
	t.Parallel()
	now := time.Date(2026, 11, 26, 12, 0, 0, 0, time.UTC)
	try := func(days, tempo int, clean bool) teach.LoggedTry {
		return teach.LoggedTry{Attempt: store.Attempt{Tempo: tempo, At: now.AddDate(0, 0, -days), Try: routine.Try{Stage: routine.Play, Clean: clean}}}
	}
	undone := try(0, 200, true)
	undone.Undone = true
	tries := []teach.LoggedTry{undone, try(0, 72, true), try(0, 80, false), try(3, 66, false), try(7, 60, true), try(7, 63, true), try(500, 40, true)}
	tempo := teach.NewTempoPlot(tries, time.Now())
	if got := fmt.Sprint(len(tempo.Days), tempo.Days[3].Tempo, tempo.Days[3].Clean, tempo.Days[2].Tempo, tempo.Days[2].Clean, tempo.Days[1].Tempo); got != "4 72 true 66 false 63" {
		t.Errorf("the tempos are %s", got)
	}
	days := teach.NewDayPlot(tries, now)
	days.Heard[days.Day(now)] = `a "flag" & more`
	if got := days.Words(); got != "5 tries on 3 days, 60% clean" {
		t.Errorf("the days are %s", got)
	}
	if n := len(days.Tries); n != 81 || days.Tries[80] != 2 || days.Tries[77] != 1 || days.Tries[73] != 2 {
		t.Errorf("the days are %v", days.Tries)
	}
	draw := func(plot any) string {
		drawn, err := site.DrawPlot(plot)
		if err != nil {
			t.Fatal(err)
		}
		return string(drawn)
	}
	drawn := map[string]string{"tempo": draw(tempo), "days": draw(days), "no days": draw(teach.NewDayPlot(nil, now))}
	for _, i := range instrument.All() {
		if i.Unpitched() {
			continue
		}
		var notes []progress.OwnNote
		for k, p := range []score.Pitch{i.Clef.BottomLine(), {Step: score.C, Octave: 2, Alter: 1}, {Step: score.B, Octave: 6, Alter: -1}, {Step: score.G, Octave: 4, Alter: -2}} {
			notes = append(notes, progress.OwnNote{Pitch: p, Hold: progress.Holds()[k], Doubt: map[bool]string{true: "<why>"}[k == 1]})
		}
		for _, row := range teach.NewStaffRows(notes, i, name.Options{System: name.Degrees}) {
			drawn[i.ID] = string(music.DrawStaffRow(row))
			if n := strings.Count(drawn[i.ID], `class="head"`); n != len(notes) || !strings.Contains(drawn[i.ID], ">fingered<") || !strings.Contains(row.Words(), "C♯ named, in question") {
				t.Errorf("%s: %d notes are drawn, %s", i.ID, n, row.Words())
			}
		}
	}
	for what, svg := range drawn {
		d := xml.NewDecoder(strings.NewReader(svg))
		for {
			if _, err := d.Token(); errors.Is(err, io.EOF) {
				break
			} else if err != nil {
				t.Errorf("%s is no XML: %v\n%s", what, err, svg)
				break
			}
		}
		if !strings.Contains(svg, `role="img" aria-label="`) {
			t.Errorf("%s has no words", what)
		}
	}
}

// Many notes stand in rows, none is lost, and the bottom line of each clef is on its line.
func TestStaffRows(t *testing.T) {
	t.Parallel()
	i, _ := instrument.ByID("trumpet")
	var notes []progress.OwnNote
	for k := range 2*teach.MostOnRow + 1 {
		notes = append(notes, progress.OwnNote{Pitch: score.Pitch{Step: score.Step(k % 7), Octave: 4 + k/7}, Hold: progress.HeldMet})
	}
	rows := teach.NewStaffRows(notes, i, name.Options{})
	if len(rows) != 3 || len(rows[2].Notes) != 1 {
		t.Errorf("%d notes stand in %d rows", len(notes), len(rows))
	}
	// E4 stands on the bottom line of the treble clef, as the trumpet reads it.
	svg := string(music.DrawStaffRow(teach.StaffRow{Clef: i.Clef, Notes: []teach.StaffNote{{OwnNote: progress.OwnNote{Pitch: score.Pitch{Step: score.E, Octave: 4}, Hold: progress.HeldOwned}, Name: "E"}}}))
	line := svg[strings.Index(svg, `class="line" d="M0 `)+len(`class="line" d="M0 `):]
	y, _, _ := strings.Cut(line, "H") // of the first line drawn, the lowest
	if !strings.Contains(svg, `class="head" transform="translate(70.0 `+y+`)`) {
		t.Errorf("E stands elsewhere than on the bottom line at %s: %s", y, svg)
	}
}
