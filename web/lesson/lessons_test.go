package lesson_test

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	room "unhurriedbench/web/lesson"
	"unhurriedbench/web/music"
)

// A lesson is suggested for a class, changed, run, marked, taken back, ended; and the
// next one begins with what was left.
func TestALesson(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID) // Ines, once clean at Count
	desk := s.Store.For(account.ID)
	var others []store.StudentID
	for _, name := range []string{"Bea", "Tomo", "Kofi"} {
		id, err := desk.AddStudent(ctx, store.Student{ClassID: b.Class, FirstName: name, Instrument: "trumpet"})
		if err != nil {
			t.Fatal(err)
		}
		others = append(others, id)
	}
	_, page := v.Get("/lessons")
	testsite.Wants(t, page, "Lessons of Tuesday brass", "None yet.", `name="minutes"`)
	if status, page := v.Post("/lessons", url.Values{"class": {fmt.Sprint(b.Class)}, "minutes": {"soon"}}); status != http.StatusUnprocessableEntity || !strings.Contains(page, "The minutes, “soon”, are no number") || !strings.Contains(page, `value="soon"`) {
		t.Errorf("a lesson of soon minutes gives %d", status)
	}
	status, to := v.Post("/lessons", url.Values{"class": {fmt.Sprint(b.Class)}, "minutes": {"20"}})
	if status != http.StatusSeeOther {
		t.Fatalf("planning gives %d, %s", status, to)
	}
	_, page = v.Get(to)
	testsite.Wants(t, page, "Long concert B flat together", "<b>1 · First Lamp</b> <span>In progress.", "1 · First Lamp, the line: Count", "1 · First Lamp, the line: Play", "Start lesson", "Sounding ", "Lesson shape: 3, 3, 6, 16, 2 min")
	times := regexp.MustCompile(`plan-time">([^<]*)<`)
	halves := func(page string) int {
		total := 0
		rows := strings.Split(page, `<li id="step-`)[1:]
		for _, row := range rows {
			if strings.Contains(strings.SplitN(row, ">", 2)[0], " out") {
				continue
			}
			said := times.FindStringSubmatch(row)[1]
			whole, half := 0, strings.Contains(said, "½")
			fmt.Sscanf(said, "%d", &whole)
			if total += 2 * whole; half {
				total++
			}
		}
		return total
	}
	sum := func(page string) string {
		return regexp.MustCompile(`plan-sum" role="status"><p><b>\d+ steps?, (.*) of \d+ min\.`).FindStringSubmatch(page)[1]
	}
	if got := lesson.Time(halves(page)); got != sum(page) {
		t.Errorf("the steps add up to %s, the page says %s", got, sum(page))
	}
	plan := strings.Replace(to, "?", "/plan?", 1)
	_, page = v.Script(plan, url.Values{"do": {"times"}, "at": {"1"}, "to": {"12"}})
	testsite.Wants(t, page, ">Add</button>", "<details open><summary>Edit steps")
	if got := lesson.Time(halves(page)); got != sum(page) {
		t.Errorf("twelve times add up to %s, the page says %s", got, sum(page))
	}
	_, page = v.Script(plan, url.Values{"do": {"minutes"}, "to": {"6"}})
	if got := lesson.Time(halves(page)); got != sum(page) || !strings.Contains(page, "For the next lesson: ") {
		t.Errorf("of six minutes %s are used, the page says %s", got, sum(page))
	}
	v.Script(plan, url.Values{"do": {"minutes"}, "to": {"20"}})
	_, page = v.Script(plan, url.Values{"do": {"move"}, "at": {"1"}, "to": {"2"}})
	if strings.Index(page, `the line: Name</b>`) > strings.Index(page, `the line: Count</b>`) {
		t.Error("a step that was moved stands where it was")
	}
	_, page = v.Script(plan, url.Values{"do": {"move"}, "at": {"1"}, "to": {"0"}}) // to the very first place
	if first := strings.Index(page, "the line: Name</b>"); first < 0 || first > strings.Index(page, `plan-what"><b>Long`) {
		t.Error("a step that was moved to the first place does not stand there")
	}
	v.Script(plan, url.Values{"do": {"move"}, "at": {"0"}, "to": {"1"}})
	_, page = v.Script(plan, url.Values{"at": {"2"}, "drop": {"yes"}})
	if strings.Contains(page, "1 · First Lamp, the line: Count") {
		t.Error("a step that was left out is there")
	}
	for _, tt := range []struct {
		form url.Values
		says string
	}{
		{url.Values{"do": {"minutes"}, "to": {"0"}}, "are no number from 1 to 180"},
		{url.Values{"do": {"add"}, "exercise": {"999"}}, "Choose an exercise from the list."},
		{url.Values{"do": {"add"}, "exercise": {fmt.Sprint(b.Exercise)}, "chunk": {"F"}}, "1 · First Lamp has no chunk F. It has A, B, Whole."},
		{url.Values{"do": {"add"}, "exercise": {fmt.Sprint(b.Exercise)}, "chunk": {"B"}, "stage": {"juggle"}}, "Choose a stage from the list."},
	} {
		if status, page := v.Script(plan, tt.form); status != http.StatusUnprocessableEntity || !strings.Contains(page, tt.says) {
			t.Errorf("%v gives %d, without %q", tt.form, status, tt.says)
		}
	}
	if status, _ := v.Post(plan, url.Values{"do": {"add"}, "exercise": {fmt.Sprint(b.Exercise)}, "chunk": {"B"}, "stage": {"finger"}}); status != http.StatusSeeOther {
		t.Errorf("adding a step without a script gives %d", status)
	}
	if _, page := v.Get(to); !strings.Contains(page, "1 · First Lamp, m. 3–4: Finger") {
		t.Error("a step that was added is not there")
	}

	id, err := desk.AddLesson(ctx, b.Class, testsite.LessonOf(b, 3))
	if err != nil {
		t.Fatal(err)
	}
	at := fmt.Sprintf("/lessons/%d", id)
	class := fmt.Sprintf("?class=%d", b.Class)
	if status, to := v.Post(at+"/begin"+class, nil); status != http.StatusSeeOther || to != at+"/run"+class {
		t.Fatalf("beginning gives %d, %s", status, to)
	}
	_, page = v.Get(at + "/run" + class)
	testsite.Wants(t, page, "Count it aloud, m. 1–2", "Ines P.", "Everybody clean", "Trombone", "Trumpet", "lesson-music", "one note: ", `data-cause="rhythm"`)
	said := asks(v, at+"/mark"+class, url.Values{"step": {"0"}, "request_key": {"one"}, fmt.Sprintf("stumble-%d", others[0]): {"rhythm, m. 2"}, "absent": {fmt.Sprint(others[1])}})
	if said.Said != "1 · First Lamp, m. 1–2: Count: 2 clean. Bea, rhythm, m. 2. one not here." || said.Batch == 0 {
		t.Errorf("it is told %+v", said)
	}
	stands := func(id store.StudentID) routine.State {
		t.Helper()
		standings, err := desk.ClassStandings(ctx, b.Class)
		if err != nil {
			t.Fatal(err)
		}
		return standings[store.Task{Student: id, Exercise: b.Exercise}].State(routine.Standard(), breakdown.ChunkKey{First: 1, Last: 2})
	}
	if got := fmt.Sprintf("%s %d %d %d", stands(b.Student).Stage, stands(others[0]).Stumble, stands(others[1]).Tries, stands(others[2]).Earned); got != "name 1 0 1" {
		t.Errorf("after the mark they stand at %s", got)
	}
	if again := asks(v, at+"/mark"+class, url.Values{"step": {"0"}, "request_key": {"one"}}); again.Batch != said.Batch || stands(others[2]).Tries != 1 {
		t.Errorf("sent again it is %+v, %d tries", again, stands(others[2]).Tries)
	}
	// Ines is at Name now: clean at Count would send her back.
	if said := asks(v, at+"/mark"+class, url.Values{"step": {"0"}, "request_key": {"two"}}); !strings.Contains(said.Said, "2 clean. 2 past this stage already.") {
		t.Errorf("it is told %q", said.Said)
	} else if asks(v, at+"/undo"+class, url.Values{"batch": {fmt.Sprint(said.Batch)}}); stands(others[2]).Tries != 1 {
		t.Error("what was taken back counts")
	}
	asks(v, at+"/at"+class, url.Values{"step": {"0"}, "absent": {fmt.Sprint(others[1])}})
	if status, to := v.Post(at+"/mark"+class, url.Values{"step": {"0"}, "request_key": {"three"}}); status != http.StatusSeeOther || !strings.Contains(to, "/run?") {
		t.Errorf("a mark without a script gives %d, %s", status, to)
	}
	if status, _ := v.Post(at+"/mark"+class, url.Values{"step": {"7"}}); status != http.StatusNotFound {
		t.Errorf("a step that is not there gives %d", status)
	}
	v.Post(at+"/end"+class, nil)
	_, page = v.Get(at + class)
	testsite.Wants(t, page, "What was done", "The next lesson begins with", "1 · First Lamp, m. 1–2: Name", "not reached", "Suggest the next lesson")
	_, page = v.Get("/lessons" + class)
	testsite.Wants(t, page, "today", "2 steps")
	if status, to := v.Get(at + "/run" + class); status != http.StatusSeeOther {
		t.Errorf("running what is over gives %d, %s", status, to)
	}
	_, to = v.Post("/lessons", url.Values{"class": {fmt.Sprint(b.Class)}, "minutes": {"20"}})
	_, page = v.Get(to)
	testsite.Wants(t, page, "<b>1 · First Lamp</b>", "Left from the last lesson.")
}

// The demo's room is laid out for every instrument in it, each step with music.
func TestTheDemosLessonIsLaidOut(t *testing.T) {
	t.Parallel()
	v := testsite.InDemo(t)
	_, to := v.Post("/lessons", url.Values{"minutes": {"30"}})
	_, run := v.Post(strings.Replace(to, "?", "/begin?", 1), nil)
	_, page := v.Get(run)
	steps := strings.Count(page, `<div class="lesson-head `)
	if cards := strings.Count(page, `class="room-card"`); steps < 8 || cards != steps*6 {
		t.Errorf("%d steps have %d cards for six instruments", steps, cards)
	}
	text := regexp.MustCompile(`(?s)id="lesson-music">(.*?)</script>`).FindStringSubmatch(page)[1]
	var music map[string]map[string]music.StepMusic
	if err := json.Unmarshal([]byte(text), &music); err != nil {
		t.Fatal(err)
	}
	for _, m := range regexp.MustCompile(`data-music="([^"]*)"`).FindAllStringSubmatch(page, -1) {
		if len(music[m[1]]) != 6 || len(music[m[1]]["cello"].Sheet.Measures) == 0 {
			t.Errorf("the music of %s is for %d instruments", m[1], len(music[m[1]]))
		}
	}
}

// asks is what the lesson's script asks for and receives.
func asks(v *testsite.Visitor, path string, form url.Values) (a room.LessonAnswer) {
	v.T.Helper()
	v.Asks(path, form, &a)
	return a
}
