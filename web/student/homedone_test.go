package student_test

import (
	"context"
	"fmt"
	"strings"
	"testing"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/homeplan"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// How a student hears their tries is shown beside what the teacher has heard of the same.
func TestHowAStudentHears(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	ctx, desk := context.Background(), s.Store.For(b.Teacher)
	alma := testsite.StudentCalled(t, desk, b.Class, "Alma")
	at := testsite.OwnPageOf(t, s, b, alma)
	home, err := s.Store.AtHome(ctx, strings.Trim(strings.TrimPrefix(at, "/my/"), "/"))
	if err != nil {
		t.Fatal(err)
	}
	chunk := breakdown.ChunkKey{First: 1, Last: 2}
	for n, days := range []int{20, 12, 4} {
		when := time.Now().AddDate(0, 0, -days)
		said := store.HomeTry{Exercise: b.Exercise, Chunk: chunk, Try: routine.Try{Stage: routine.Play, Clean: true}, At: when, RequestKey: store.RequestKey(fmt.Sprint("said ", n))}
		heard := store.Attempt{StudentID: alma, ExerciseID: b.Exercise, Chunk: chunk, Try: routine.Try{Stage: routine.Play, Cause: routine.Rhythm}, At: when.AddDate(0, 0, 1)}
		if err := home.Say(ctx, said); err != nil {
			t.Fatal(err)
		}
		slip := heard // pressed by mistake before, and taken back
		slip.Try, slip.At = routine.Try{Stage: routine.Play, Clean: true}, when.Add(time.Hour)
		batch, err := desk.AddTogether(ctx, "", slip)
		if err == nil {
			err = desk.UndoTogether(ctx, batch)
		}
		if err != nil {
			t.Fatal(err)
		}
		if err := desk.AddAttempts(ctx, heard); err != nil {
			t.Fatal(err)
		}
	}
	for _, page := range []string{fmt.Sprintf("/students/%d", alma), fmt.Sprintf("/students/%d/plan", alma)} {
		_, text := v.Get(page)
		testsite.Wants(t, text, "Alma hears it better than it is: of 3 tries, 3 were said to be clean and were not")
	}
}

// What was done of a plan: lines up to today, tries since its first day.
func TestWhatWasDone(t *testing.T) {
	t.Parallel()
	today := teach.DateOf(time.Now())
	day := func(n int) homeplan.Planned {
		return homeplan.Planned{Day: homeplan.Day{On: teach.DayNumber(today.AddDate(0, 0, n)), Minutes: 15}, Items: []homeplan.Item{{Kind: homeplan.Warm}, {Kind: homeplan.Cards}}}
	}
	p := &store.HomePlan{From: today.AddDate(0, 0, -2), Until: today.AddDate(0, 0, 3), Plan: homeplan.Plan{Days: []homeplan.Planned{day(-2), day(0), day(2)}}}
	try := func(daysAgo int, clean bool) store.HomeTry {
		return store.HomeTry{Try: routine.Try{Stage: routine.Play, Clean: clean, Cause: map[bool]routine.Cause{false: routine.Sound}[clean]}, Tempo: 60, At: today.AddDate(0, 0, -daysAgo).Add(time.Minute)}
	}
	d := teach.NewHomeDone(time.Now(), p, []store.HomeTry{try(9, true), try(1, false), try(0, true)}, []store.HomeTick{{On: today, Line: "warm"}, {On: today, Line: "else"}, {On: today.AddDate(0, 0, -9), Line: "warm"}},
		func(store.HomeTry) (string, string) { return "1 · Lamp", "Play" })
	if got := d.Words(); got != "2 days, 1 of 4 lines; 2 tries, 1 clean as they say" {
		t.Errorf("%q", got)
	}
	if len(d.Tries) != 2 || d.Tries[0].How != "Play at 60: clean" || d.Tries[1].How != "Play at 60: stumble over the sound" {
		t.Errorf("the tries are %+v", d.Tries)
	}
	var many []store.HomeTry
	for range teach.MostSaid + 3 {
		many = append(many, try(0, true))
	}
	if d := teach.NewHomeDone(time.Now(), nil, many, nil, func(store.HomeTry) (string, string) { return "", "" }); len(d.Tries) != teach.MostSaid || d.More != 3 || d.Clean != teach.MostSaid+3 {
		t.Errorf("of many: %d, %d more, %d clean", len(d.Tries), d.More, d.Clean)
	}
	if d := teach.NewHomeDone(time.Now(), nil, nil, nil, nil); d.Any() || d.Words() != "" {
		t.Errorf("of nothing: %q", d.Words())
	}
}
