package settings_test

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// formIn are the fields of the form on a page, as a browser would send them.
func formIn(page string) url.Values {
	form := url.Values{}
	for _, m := range regexp.MustCompile(`<input[^>]* name="([^"]*)"[^>]*>`).FindAllStringSubmatch(page, -1) {
		if strings.Contains(m[0], "checkbox") && !strings.Contains(m[0], " checked") {
			continue
		}
		value := regexp.MustCompile(` value="([^"]*)"`).FindStringSubmatch(m[0])
		if value != nil {
			form.Add(m[1], value[1])
		}
	}
	for _, m := range regexp.MustCompile(`(?s)<select[^>]* name="([^"]*)"[^>]*>(.*?)</select>`).FindAllStringSubmatch(page, -1) {
		if chosen := regexp.MustCompile(`value="([^"]*)" selected`).FindStringSubmatch(m[2]); chosen != nil {
			form.Set(m[1], chosen[1])
		}
	}
	for _, m := range regexp.MustCompile(`(?s)<textarea[^>]* name="([^"]*)"[^>]*>(.*?)</textarea>`).FindAllStringSubmatch(page, -1) {
		form.Set(m[1], m[2])
	}
	return form
}

// A shipped routine is copied, its stages moved, dropped and added to, kept, followed by a
// class, changed, and taken away.
func TestARoutineOfOnesOwn(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	_, page := v.Get("/routines")
	testsite.Wants(t, page, "Count first", "Name first, in three steps", "Hear and echo first", "Air and mouthpiece first", "Pluck, then bow", "Hands, then pad", "Trombone")
	_, page = v.Get("/routines/edit?id=name-first&copy=yes")
	testsite.Wants(t, page, `value="Our name first, in three steps"`, `value="Name and finger"`)
	words := func(page string) string {
		var list []string
		for _, m := range regexp.MustCompile(`name="\d+-word" value="([^"]*)"`).FindAllStringSubmatch(page, -1) {
			list = append(list, m[1])
		}
		return strings.Join(list, ", ")
	}
	press := func(do string) {
		t.Helper()
		form := formIn(page)
		form.Set("do", do)
		var status int
		if status, page = v.Post("/routines", form); status != http.StatusOK {
			t.Fatalf("%s gives %d", do, status)
		}
	}
	for _, tt := range []struct{ do, want string }{
		{"down-0", "Name and finger, Name, Play"}, {"up-1", "Name, Name and finger, Play"}, {"up-0", "Name, Name and finger, Play"}, {"down-2", "Name, Name and finger, Play"},
		{"add-echo", "Name, Name and finger, Play, Echo"}, {"add-own", "Name, Name and finger, Play, Echo, Ours"}, {"drop-1", "Name, Play, Echo, Ours"}, {"drop-9", "Name, Play, Echo, Ours"}, {"drop-2", "Name, Play, Ours"},
	} {
		if press(tt.do); words(page) != tt.want {
			t.Errorf("after %s the stages are %q, want %q", tt.do, words(page), tt.want)
		}
	}
	form := formIn(page)
	form.Set("title", "")
	form.Set("0-clean", "9")
	form.Set("0-class-clean", "8")
	form.Set("2-word", "Sing")
	form.Set("2-say-brass", "Sing it, brass.")
	status, page2 := v.Post("/routines", form)
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a routine without a name gives %d", status)
	}
	testsite.Wants(t, page2, "Give the routine a name.", "Stage 1: how many clean in a row go on is 9. Make it 0 to 5.", "how many clean in a row of a class go on is 8.", `value="Sing"`, "Sing it, brass.</textarea>")
	form.Set("title", "  Ours,   sung ")
	form.Set("0-clean", "1")
	form.Set("0-class-clean", "3")
	form.Set("2-stage", "own")
	if status, to := v.Post("/routines", form); status != http.StatusSeeOther || to != "/routines" {
		t.Fatalf("a good routine gives %d, %s", status, to)
	}
	_, page = v.Get("/routines")
	testsite.Wants(t, page, "Ours, sung is kept.", "Ours, sung <small>yours</small>")
	if status, again := v.Post("/routines", form); status != http.StatusUnprocessableEntity || !strings.Contains(again, "There is a routine called Ours, sung already.") {
		t.Errorf("a second of its name gives %d", status)
	}
	own := regexp.MustCompile(`id="routine-(own-\d+)"`).FindStringSubmatch(page)[1]
	if _, edit := v.Get("/routines/edit?id=" + own); formIn(edit).Get("0-class-clean") != "3" {
		t.Error("how often a class is to be clean is not kept")
	}
	if status, _ := v.Post("/routines/choose", url.Values{"class": {fmt.Sprint(b.Class)}, "routine": {own}}); status != http.StatusSeeOther {
		t.Fatalf("choosing it gives %d", status)
	}
	bench := fmt.Sprintf("/bench/%d?student=%d&chunk=1-2", b.Exercise, b.Student)
	_, page = v.Get(bench + "&stage=own")
	testsite.Wants(t, page, `id="stage-name" class="name"`, `id="stage-own" class="play"`, "Sing it, brass.")
	_, page = testsite.Mark(v, b, url.Values{"result": {"clean"}, "stage": {"name"}, "chunk": {"1-2"}})
	testsite.Wants(t, page, "Name is clean: on to Play.")
	if status, _ := v.Post("/routines/drop", url.Values{"id": {own}}); status != http.StatusSeeOther {
		t.Fatalf("taking it away gives %d", status)
	}
	_, page = v.Get(bench)
	testsite.Wants(t, page, `id="stage-count"`, "1 of 2 clean in a row, then on to Finger.")
	for path, form := range map[string]url.Values{
		"/routines/choose": {"routine": {"own-999"}}, "/routines/drop": {"id": {"count-first"}}, "/routines/choose?": {"instrument": {"kazoo"}, "routine": {"name-first"}},
	} {
		if status, _ := v.Post(path, form); status != http.StatusNotFound {
			t.Errorf("%s with %v gives %d", path, form, status)
		}
	}
	if status, _ := v.Get("/routines/edit?id=own-999"); status != http.StatusNotFound {
		t.Errorf("changing a routine that is not there gives %d", status)
	}
}

// What a teacher settles for a student holds against the routine: a chunk is put at a
// stage, and they go on, and stay, as was settled.
func TestOtherwiseForOneStudent(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	at := fmt.Sprintf("/bench/%d", b.Exercise)
	form := url.Values{"student": {fmt.Sprint(b.Student)}, "chunk": {"1-2"}, "instrument": {"trombone"}, "stage": {"play"}, "tempo": {"60"}}
	_, page := v.Script(at+"/move", form)
	testsite.Wants(t, page, "m. 1–2 is at Play now.", "Put at Play by you", "Play, m. 1–2: put here by hand", `aria-current="step"`)
	form.Set("stage", "done")
	_, page = v.Script(at+"/move", form)
	testsite.Wants(t, page, "m. 1–2 is at Done now.")
	form.Set("stage", "juggle")
	if status, page := v.Script(at+"/move", form); status != http.StatusUnprocessableEntity || !strings.Contains(page, "not here any more") {
		t.Errorf("a stage that is not there gives %d, %s", status, page)
	}
	if status, _ := v.Post(fmt.Sprintf("/students/%d/rule", b.Student), url.Values{"clean": {"1"}, "stay": {"true"}, "back": {at}}); status != http.StatusSeeOther {
		t.Fatalf("a rule gives %d", status)
	}
	_, page = v.Get(fmt.Sprintf("%s?student=%d", at, b.Student))
	testsite.Wants(t, page, "Ines goes on after one clean try, and stays after two stumbles, and takes it slower.")
	_, page = testsite.Mark(v, b, url.Values{"result": {"clean"}, "stage": {"count"}, "chunk": {"3-4"}})
	testsite.Wants(t, page, "Count is clean: on to Name.")
	for range 2 {
		_, page = testsite.Mark(v, b, url.Values{"cause": {"rhythm"}, "stage": {"name"}, "chunk": {"3-4"}})
	}
	testsite.Wants(t, page, "Two stumbles: the same again, one step slower.", "Clap it once, counting aloud", "An early or late entry? Count the rest aloud; breathe in")
	for range 2 {
		_, page = testsite.Mark(v, b, url.Values{"cause": {"rhythm"}, "stage": {"name"}, "chunk": {"3-4"}})
	}
	testsite.Wants(t, page, "fewer notes", "line=add-a-note", "of=3-4")
	if _, page := v.Get(fmt.Sprintf("%s?student=%d&line=add-a-note&of=3-4", at, b.Student)); !strings.Contains(page, "One note more each time") {
		t.Error("the way to fewer notes leads nowhere")
	}
	v.Post(fmt.Sprintf("/students/%d/rule", b.Student), url.Values{"clean": {"7"}})
	if _, page := v.Get("/people"); !strings.Contains(page, "Choose how many clean tries in a row go on: 1 to 5.") {
		t.Error("seven clean in a row are taken")
	}
}

// A class that is marked together goes on by each one's own routine.
func TestEverybodyByTheirOwnRoutine(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	desk := s.Store.For(account.ID)
	violin, err := desk.AddStudent(ctx, store.Student{ClassID: b.Class, FirstName: "Alma", Instrument: "violin"})
	if err != nil {
		t.Fatal(err)
	}
	for i, id := range map[string]string{"trombone": "air-first", "violin": "name-first"} {
		if err := desk.ChooseRoutine(ctx, store.Chooser{Instrument: i}, id); err != nil {
			t.Fatal(err)
		}
	}
	_, page := v.Script(fmt.Sprintf("/bench/%d/everybody", b.Exercise), url.Values{"class": {fmt.Sprint(b.Class)}, "instrument": {"oboe"}, "chunk": {"1-2"}, "stage": {"count"}, "tempo": {"60"}})
	testsite.Wants(t, page, "Count, m. 1–2: one clean.", "one whose routine has no such stage.")
	standings, err := desk.ClassStandings(ctx, b.Class)
	if err != nil {
		t.Fatal(err)
	}
	at := standings[store.Task{Student: b.Student, Exercise: b.Exercise}].State(routine.Standard(), breakdown.ChunkKey{First: 1, Last: 2})
	if at.Stage != "air" || at.Clean != 1 {
		t.Errorf("the trombone is at %s with %d clean", at.Stage, at.Clean)
	}
	if standings[store.Task{Student: violin, Exercise: b.Exercise}] != nil {
		t.Error("the violin was marked at a stage it does not have")
	}
}
