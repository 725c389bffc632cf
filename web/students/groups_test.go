package students_test

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
)

// Low brass meets apart: made, changed and deleted among the people, and a class of its own
// wherever a class is chosen for a lesson; what is wrong stays in the form.
func TestAGroupOfAClass(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID) // Ines P., trombone, in Tuesday brass
	at, member := fmt.Sprintf("/classes/%d/groups", b.Class), fmt.Sprint(b.Student)
	for what, bad := range map[string]url.Values{
		"The group has no name": {"member": {member}}, "Nobody is in the group": {"name": {"Low brass"}},
		"longer than 40 letters": {"name": {strings.Repeat("low ", 11)}, "member": {member}},
	} {
		status, page := v.Post(at, bad)
		testsite.Wants(t, page, what, `role="alert"`, "groups-of\" open", strings.TrimSpace(bad.Get("name")))
		if status != http.StatusUnprocessableEntity {
			t.Errorf("%v gives %d", bad, status)
		}
	}
	if status, _ := v.Post(at, url.Values{"name": {"Low brass"}, "member": {member, "999999"}}); status != http.StatusSeeOther {
		t.Fatalf("a group gives %d", status)
	}
	if status, page := v.Post(at, url.Values{"name": {"Low brass"}, "member": {member}}); status != http.StatusUnprocessableEntity {
		t.Errorf("a second one of the name gives %d", status)
	} else {
		testsite.Wants(t, page, "Tuesday brass has a group called Low brass already.")
	}
	_, page := v.Get("/people")
	testsite.Wants(t, page, "Groups: Low brass", "Lessons of Low brass")
	if strings.Contains(page, `<option value="">Tuesday brass: Low brass`) || strings.Count(page, `class="people-class"`) != 1 {
		t.Error("the group stands among the classes that students are in")
	}
	id := strings.Split(strings.SplitAfter(page, `action="/groups/`)[1], `"`)[0]
	_, page = v.Get("/lessons?class=" + id)
	testsite.Wants(t, page, "Tuesday brass: Low brass")
	status, to := v.Post("/lessons", url.Values{"class": {id}, "minutes": {"15"}, "begun": {"yes"}})
	if status != http.StatusSeeOther {
		t.Fatalf("a lesson of the group gives %d", status)
	}
	if status, _ := v.Post(strings.Replace(to, "?", "/begin?", 1), nil); status != http.StatusSeeOther {
		t.Errorf("beginning it gives %d", status)
	}
	for _, page := range []string{"/board", "/check-ins", "/plans", "/cards", "/board/weeks"} {
		status, text := v.Get(page + "?class=" + id)
		if status != http.StatusOK || !strings.Contains(text, "Low brass") || strings.Contains(page, "board") && !strings.Contains(text, "Ines P.") {
			t.Errorf("%s of the group gives %d", page, status)
		}
	}
	v.Post("/groups/"+id, url.Values{"name": {"Deep brass"}, "member": {member}})
	_, page = v.Get("/people")
	testsite.Wants(t, page, "Groups: Deep brass")
	v.Post("/classes/"+id+"/remove", nil)
	if _, page = v.Get("/people"); strings.Contains(page, `action="/groups/`) {
		t.Error("a deleted group is still among the people")
	}

	w, _ := s.Teacher(t, "b@school.example")
	for _, of := range []string{at, "/groups/" + id} {
		if status, _ := w.Post(of, url.Values{"name": {"Low"}, "member": {member}}); status != http.StatusNotFound {
			t.Errorf("%s by another teacher gives %d", of, status)
		}
	}
}
