package board_test

import (
	"context"
	"encoding/csv"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// Where a student who is stuck most likely goes wrong is asked for beside the Board.
func TestWhereOnTheBoard(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	desk := s.Store.For(b.Teacher)
	_, page := v.Get("/board")
	testsite.Wants(t, page, "/board/where?class=", `hx-trigger="intersect once"`)
	at := fmt.Sprintf("/board/where?class=%d&exercise=%d&cause=name&chunk=", b.Class, b.Exercise)
	if _, said := v.Get(at + fmt.Sprintf("3-4&student=%d", testsite.StudentCalled(t, desk, b.Class, "Alma"))); said != "m. 3" {
		t.Errorf("Alma goes wrong at %q", said)
	}
	for _, nothing := range []string{fmt.Sprintf("x&student=%d", b.Student), fmt.Sprintf("80-81&student=%d", b.Student)} {
		if status, said := v.Get(at + nothing); status != http.StatusOK || said != "" {
			t.Errorf("%s gives %d, %q", nothing, status, said)
		}
	}
}

// The Board is narrowed by its address, and says what several are stuck on together.
func TestTheBoardNarrowed(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	rows := func(query string) string {
		t.Helper()
		status, page := v.Get(fmt.Sprintf("/board?class=%d&%s", b.Class, query))
		if status != http.StatusOK {
			t.Fatalf("%s gives %d", query, status)
		}
		var names []string
		for _, name := range []string{"Ines P.", "Alma", "Bo", "Cleo"} {
			if strings.Contains(page, ">"+name+"</a> <small>") {
				names = append(names, name)
			}
		}
		return strings.Join(names, ", ")
	}
	for query, want := range map[string]string{
		"": "Ines P., Alma, Bo, Cleo", "instrument=trombone": "Ines P.", "instrument=violin": "Alma, Bo, Cleo", "who=stuck": "Alma, Bo", "who=stuck&instrument=trombone": "",
		"exercises=begun": "Ines P., Alma, Bo, Cleo", "instrument=kazoo": "",
	} {
		if got := rows(query); got != want {
			t.Errorf("with %q there are %q, want %q", query, got, want)
		}
	}
	_, page := v.Get("/board")
	testsite.Wants(t, page, "<b>Alma</b> violin", "name, 3 tries running", "m. 3–4, Name", "Name it at ")
	if strings.Contains(page, "together") {
		t.Error("two are taken together")
	}
	desk := s.Store.For(b.Teacher)
	for range 3 {
		try := store.Attempt{StudentID: testsite.StudentCalled(t, desk, b.Class, "Cleo"), ExerciseID: b.Exercise, Chunk: breakdown.ChunkKey{First: 3, Last: 4}, Try: routine.Try{Stage: routine.Name, Cause: routine.WrongName}}
		if err := desk.AddAttempts(context.Background(), try); err != nil {
			t.Fatal(err)
		}
	}
	_, page = v.Get("/board")
	testsite.Wants(t, page, "3 together", "Alma, Bo, Cleo", "name, since yesterday", "Start a lesson for these 3")
	if strings.Contains(page, "A lesson is running") || strings.Contains(page, "data-pulse") {
		t.Error("a lesson is said to run")
	}
}

// A group goes into the plan of the class, at the stage that mends what they are stuck on,
// and only they are marked at it.
func TestAGroupGoesIntoALesson(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	desk := s.Store.For(b.Teacher)
	students, err := desk.Students(context.Background(), b.Class)
	if err != nil {
		t.Fatal(err)
	}
	form := url.Values{"class": {fmt.Sprint(b.Class)}, "exercise": {fmt.Sprint(b.Exercise)}, "chunk": {"3-4"}, "cause": {"name"}}
	for _, student := range students {
		if student.FirstName == "Alma" || student.FirstName == "Bo" {
			form.Add("student", fmt.Sprint(student.ID))
		}
	}
	form.Add("student", "999999") // nobody's
	status, to := v.Post("/lessons/group", form)
	if status != http.StatusSeeOther {
		t.Fatalf("a group gives %d", status)
	}
	_, page := v.Get(to)
	testsite.Wants(t, page, "1 · First Lamp, m. 3–4: Name", "a group of 2", "a group that is stuck on the note names")
	if _, again := v.Post("/lessons/group", form); again != to {
		t.Errorf("a second group goes to %s, the first to %s", again, to)
	}
	v.Post(strings.Replace(to, "?", "/begin?", 1), nil)
	var said struct{ Said string }
	v.Asks(strings.Replace(to, "?", "/mark?", 1), url.Values{"step": {"0"}, "request_key": {"p"}}, &said)
	if !strings.Contains(said.Said, "2 clean.") {
		t.Errorf("it is told %q", said.Said)
	}
	_, board := v.Get("/board")
	testsite.Wants(t, board, "A lesson is running", "data-pulse=")
	for what, change := range map[string]url.Values{"chunk": {"chunk": {"80-81"}}, "student": {"student": {"1x"}}, "exercise": {"exercise": {"999"}}} {
		bad := url.Values{}
		for key, values := range form {
			bad[key] = values
		}
		for key, values := range change {
			bad[key] = values
		}
		if status, _ := v.Post("/lessons/group", bad); status != http.StatusNotFound {
			t.Errorf("a group with another %s gives %d", what, status)
		}
	}
}

func TestTheOtherViewsOfTheBoard(t *testing.T) {
	t.Parallel()
	_, v, b := testsite.BoardOf(t)
	class := fmt.Sprintf("?class=%d", b.Class)
	_, page := v.Get("/board/heat" + class)
	// Of four students and two chunks each one chunk of one is done: 1 of 8 has earned every
	// stage; its rhythm, which the other has too, makes it 2 of 8 counted.
	testsite.Wants(t, page, "First Lamp", `<td class="shade-1">13 <small>few</small></td>`, `<td class="shade-2">25 <small>`, `<span class="trouble">2</span>`)
	_, page = v.Get("/board/weeks" + class)
	testsite.Wants(t, page, `aria-label="9 tries, 100% clean"`, `aria-label="3 tries, 0% clean"`, `aria-label="nothing tried"`, `class="clean-tries"`)
	_, page = v.Get("/board/groups" + class + "&size=2")
	testsite.Wants(t, page, "Group A <small>all at Name, over the note names</small>", "B: Name", "Take group A into the lesson", "Cleo")
	_, page = v.Get("/board/groups" + class + "&size=4&how=balanced")
	testsite.Wants(t, page, "from Name to Count: the first can lead", "Group A")
	if status, _ := v.Get("/board/groups" + class + "&exercise=999"); status != http.StatusNotFound {
		t.Errorf("groups for an exercise that is not there give %d", status)
	}
	_, page = v.Get("/board/pulse" + class)
	if !strings.HasPrefix(page, `{"latest":`) || page == `{"latest":0}` {
		t.Errorf("the pulse is %s", page)
	}
}

// A gradebook counts by the rule, and by the day.
func TestAGradebook(t *testing.T) {
	t.Parallel()
	_, v, b := testsite.BoardOf(t)
	grades := func(query string) map[string]string {
		t.Helper()
		status, text := v.Get(fmt.Sprintf("/board/grades?class=%d&as=csv&%s", b.Class, query))
		rows, err := csv.NewReader(strings.NewReader(text)).ReadAll()
		if status != http.StatusOK || err != nil {
			t.Fatalf("%s gives %d, %v", query, status, err)
		}
		list := map[string]string{"": strings.Join(rows[0][3:], "|")}
		for _, row := range rows[1:] {
			list[row[0]] = strings.Join(row[3:], "|")
		}
		return list
	}
	before := time.Now().AddDate(0, 0, -3).Format(time.DateOnly)
	for _, tt := range []struct{ query, who, want string }{
		{"", "", "1 First Lamp|Mean"}, {"", "Ines", "50|50"}, {"", "Alma", "0|0"}, {"counts=whole", "Ines", "0|0"}, {"counts=chunks", "Ines", "0|0"},
		{"stage=count", "Ines", "100|100"}, {"by=" + before, "", "Mean"}, {"by=" + before, "Ines", "0"},
	} {
		if got := grades(tt.query)[tt.who]; got != tt.want {
			t.Errorf("with %q %s has %q, want %q", tt.query, tt.who, got, tt.want)
		}
	}
	for query, says := range map[string]string{"by=soon": "The day, “soon”, is none.", "counts=luck": "Choose what counts", "stage=sing": "Choose the stage"} {
		if status, page := v.Get(fmt.Sprintf("/board/grades?class=%d&%s", b.Class, query)); status != http.StatusUnprocessableEntity || !strings.Contains(page, says) {
			t.Errorf("%s gives %d, without %q", query, status, says)
		}
	}
}
