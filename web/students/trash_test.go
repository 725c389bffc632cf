package students_test

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
)

// What is taken away leaves its page, is listed with what is logged, and is put back,
// also by Undo; where its name is taken since, it is said.
func TestDeleted(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	_, page := v.Get("/removed")
	testsite.Wants(t, page, "The Trash is empty")
	for _, tt := range []struct{ path, what, page, name, listed string }{
		{"/exercises", "exercises", "/", "First Lamp", "1 · First Lamp"},
		{"/books", "books", "/", "First Lamp", "The Ferry Book"},
		{"/classes", "classes", "/people", "Ines P.", "Tuesday brass"},
		{"/students", "students", "/people", "Ines P.", "Ines P."},
	} {
		id := b.IdFor(tt.path)
		v.Post(fmt.Sprintf("%s/%d/remove", tt.path, id), nil)
		_, page = v.Get(tt.page)
		if strings.Contains(page, tt.name) && tt.what != "exercises" {
			t.Errorf("%s: what was taken away is on its page", tt.what)
		}
		back := fmt.Sprintf("/removed/%s/%d/back", tt.what, id)
		testsite.Wants(t, page, back) // Undo
		_, page = v.Get("/removed")
		testsite.Wants(t, page, "<b>"+tt.listed+"</b>", "one try logged", "Backups written before still hold it")
		if status, to := v.Post(back, nil); status != http.StatusSeeOther || to != tt.page {
			t.Errorf("%s: putting it back gives %d %s", tt.what, status, to)
		}
		_, page = v.Get(tt.page)
		testsite.Wants(t, page, tt.name, "is restored")
		v.Post(fmt.Sprintf("%s/%d/remove", tt.path, id), nil)
		erase := fmt.Sprintf("/removed/%s/%d/erase", tt.what, id)
		if status, page := v.Post(erase, nil); status != http.StatusUnprocessableEntity || !strings.Contains(page, "Nothing was erased") {
			t.Errorf("%s: erasing without the tick gives %d", tt.what, status)
		}
		if tt.what == "students" {
			v.Post(erase, url.Values{"sure": {"yes"}})
			_, page = v.Get("/removed")
			testsite.Wants(t, page, "The student is deleted for good", "The Trash is empty")
			continue
		}
		v.Post(back, nil)
	}
	v.Post(fmt.Sprintf("/exercises/%d/remove", b.Exercise), nil)
	v.Send("/exercises", map[string]string{"book": "The Ferry Book", "number": "1", "title": "Another", "abc": testsite.Lamp}, "", nil)
	_, page = v.Post(fmt.Sprintf("/removed/exercises/%d/back", b.Exercise), nil)
	testsite.Wants(t, page, "another exercise has its number now")
	if status, _ := v.Post("/removed/teachers/1/back", nil); status != http.StatusNotFound {
		t.Errorf("putting a teacher back as if they were a book gives %d", status)
	}
}

func TestWhoHasLeft(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	if _, err := s.Store.DB().Exec(`UPDATE teachers SET owner = true`); err != nil {
		t.Fatal(err)
	}
	one := fmt.Sprintf("/students/%d", b.Student)
	v.Post(one+"/left", nil)
	for _, path := range []string{one, fmt.Sprintf("/bench/%d?student=%d", b.Exercise, b.Student)} {
		if status, _ := v.Get(path); status != http.StatusNotFound {
			t.Errorf("%s of who has left gives %d", path, status)
		}
	}
	_, page := v.Get("/removed")
	testsite.Wants(t, page, "Ines P.", "Tuesday brass")
	v.Post(one+"/return", nil)
	_, page = v.Get("/people")
	testsite.Wants(t, page, "Ines P.")
	v.Post(one+"/left", nil)
	if _, err := s.Store.DB().Exec(`UPDATE students SET left_at = now() - interval '2 years'`); err != nil {
		t.Fatal(err)
	}
	if strings.Contains(func() string { _, page := v.Get("/removed"); return page }(), "months ago") {
		t.Error("without a limit somebody is to be erased")
	}
	limits := url.Values{"longest_days": {"30"}, "idle_days": {"7"}, "idle_minutes": {"20"}, "retain_months": {"12"}}
	v.Post("/account/house", limits)
	_, page = v.Get("/removed")
	testsite.Wants(t, page, "One student left more than 12 months ago")
	_, page = v.Get("/people")
	testsite.Wants(t, page, "Records of students who left long ago should be deleted: 1.")
	if status, _ := v.Post("/removed/overdue", nil); status != http.StatusUnprocessableEntity {
		t.Errorf("erasing without the tick gives %d", status)
	}
	v.Post("/removed/overdue", url.Values{"sure": {"yes"}})
	_, page = v.Get("/removed")
	testsite.Wants(t, page, "Former students deleted for good: 1.", "No former students yet.")
}
