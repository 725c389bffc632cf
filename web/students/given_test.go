package students_test

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// shared is a teacher who has given their class to a colleague, with another class
// that was not given.
func shared(t *testing.T, s *testsite.Site, may string) (owner, colleague *testsite.Visitor, b testsite.Belongings, hidden store.StudentID) {
	t.Helper()
	ctx := context.Background()
	owner, account := s.Teacher(t, "a@school.example")
	b = testsite.Furnish(t, s.Store, account.ID)
	colleague, other := s.Teacher(t, "b@school.example")
	desk := s.Store.For(account.ID)
	class, err := desk.AddClass(ctx, "Not given")
	if err != nil {
		t.Fatal(err)
	}
	if hidden, err = desk.AddStudent(ctx, store.Student{ClassID: class, FirstName: "Hidden", Instrument: "violin"}); err != nil {
		t.Fatal(err)
	}
	form := url.Values{"colleague": {fmt.Sprint(other.ID)}, "may": {may}}
	if status, page := owner.Post(fmt.Sprintf("/classes/%d/give", b.Class), form); status != http.StatusSeeOther {
		t.Fatalf("giving the class gives %d %s", status, page)
	}
	return owner, colleague, b, hidden
}

// A colleague finds the class, sees all of it and nothing else, marks where they may,
// and no longer once it is taken back.
func TestAClassIsShared(t *testing.T) {
	t.Parallel()
	for _, may := range []string{"look", "teach"} {
		s := testsite.Open(t)
		owner, colleague, b, hidden := shared(t, s, may)
		bench := fmt.Sprintf("/bench/%d?class=%d&student=%d", b.Exercise, b.Class, b.Student)
		pages := map[string][]string{
			"/people":                               {"Shared with you", "Tuesday brass", "of Wren"},
			"/board":                                {fmt.Sprintf("/board?class=%d", b.Class)},
			fmt.Sprintf("/board?class=%d", b.Class): {"Ines P.", "First Lamp"},
			bench:                                   {"Tuesday brass, of Wren", "Ines P."},
			fmt.Sprintf("/students/%d", b.Student):  {"Ines P.", "Count"},
		}
		for path, words := range pages {
			status, page := colleague.Get(path)
			if status != http.StatusOK || strings.Contains(page, "Hidden") || strings.Contains(page, "Not given") {
				t.Errorf("%s of a class to %s gives %d", path, may, status)
			}
			testsite.Wants(t, page, words...)
		}
		if _, page := owner.Get("/people"); !strings.Contains(page, "Tuesday brass is shared. Your colleague finds it in Students and on the Board.") {
			t.Errorf("that a class was given to %s is not said", may)
		}
		_, page := colleague.Get(bench)
		if got := strings.Contains(page, `id="mark-clean"`) && strings.Contains(page, `id="all-clean"`) && strings.Contains(page, "/undo"); got != (may == "teach") {
			t.Errorf("to %s, the Bench offers marks: %v", may, got)
		}
		for _, word := range []string{"/edit", "/octave", "/school", "/export", "/fingerings/", "/pencil", "/chunks"} {
			if strings.Contains(page, word) {
				t.Errorf("a colleague's Bench offers %s", word)
			}
		}
		mark := url.Values{"class": {fmt.Sprint(b.Class)}, "student": {fmt.Sprint(b.Student)}, "chunk": {"1-2"}, "stage": {"count"}, "result": {"clean"}, "instrument": {"trombone"}}
		status, page := colleague.Post(fmt.Sprintf("/bench/%d/attempts", b.Exercise), mark)
		if want := map[string]int{"look": http.StatusForbidden, "teach": http.StatusSeeOther}[may]; status != want {
			t.Errorf("a mark where they may %s gives %d %s", may, status, page)
		}
		_, page = owner.Get(fmt.Sprintf("/students/%d?exercise=%d", b.Student, b.Exercise))
		if strings.Contains(page, "by Wren") != (may == "teach") {
			t.Errorf("to %s, the owner's history tells who marked: %v", may, strings.Contains(page, "by Wren"))
		}
		_, page = colleague.Get(fmt.Sprintf("/students/%d?exercise=%d", b.Student, b.Exercise))
		if strings.Contains(page, "/undo") != (may == "teach") {
			t.Errorf("to %s, the history offers to take tries back: %v", may, strings.Contains(page, "/undo"))
		}
		if status, _ := colleague.Post(fmt.Sprintf("/attempts/%d/undo", b.Attempt), url.Values{"instrument": {"trombone"}}); status != map[string]int{"look": http.StatusForbidden, "teach": http.StatusSeeOther}[may] {
			t.Errorf("taking a try back where they may %s gives %d", may, status)
		}
		// What was not given, and what is no mark.
		for _, path := range []string{fmt.Sprintf("/students/%d", hidden), fmt.Sprintf("/bench/%d", b.Exercise), fmt.Sprintf("/bench/%d?student=%d", b.Exercise, hidden)} {
			if status, _ := colleague.Get(path); status != http.StatusNotFound {
				t.Errorf("%s by a colleague gives %d", path, status)
			}
		}
		for _, path := range []string{"/classes/%d/year", "/classes/%d/school", "/classes/%d/remove", "/classes/%d/give", "/classes/%d/list"} {
			if status, _ := colleague.Post(fmt.Sprintf(path, b.Class), url.Values{"year": {"2"}, "school": {"numbers"}, "list": {"A B oboe"}, "class": {fmt.Sprint(b.Class)}}); status != http.StatusNotFound {
				t.Errorf("%s by a colleague gives %d", path, status)
			}
		}
		for _, path := range []string{"/students/%d", "/students/%d/left", "/students/%d/remove"} {
			form := url.Values{"class": {fmt.Sprint(b.Class)}, "first_name": {"Other"}, "instrument": {"oboe"}}
			if status, _ := colleague.Post(fmt.Sprintf(path, b.Student), form); status != http.StatusNotFound {
				t.Errorf("%s by a colleague gives %d", path, status)
			}
		}
		// The colleague's own Bench is where they left it.
		_, page = colleague.Get("/people")
		if strings.Contains(page, fmt.Sprintf("/bench/%d", b.Exercise)) {
			t.Error("a colleague's Bench is remembered as one's own")
		}
		form := url.Values{"colleague": {fmt.Sprint(testsite.TeacherID(t, s, "b@school.example"))}}
		owner.Post(fmt.Sprintf("/classes/%d/take", b.Class), form)
		for path := range pages {
			if path == "/people" || path == "/board" {
				continue
			}
			if status, _ := colleague.Get(path); status != http.StatusNotFound {
				t.Errorf("%s of a class taken back gives %d", path, status)
			}
		}
		_, page = owner.Get("/account/log")
		testsite.Wants(t, page, "shared Tuesday brass with Wren", "stopped sharing Tuesday brass with Wren")
	}
}

func TestAClassIsNotGivenByMistake(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	owner, _, b, _ := shared(t, s, "look")
	for _, form := range []url.Values{{}, {"colleague": {"999"}, "may": {"look"}}, {"colleague": {fmt.Sprint(b.Teacher)}, "may": {"teach"}}, {"colleague": {"2"}, "may": {"own"}}} {
		if status, _ := owner.Post(fmt.Sprintf("/classes/%d/give", b.Class), form); status != http.StatusUnprocessableEntity && status != http.StatusNotFound {
			t.Errorf("%v gives %d", form, status)
		}
	}
}
