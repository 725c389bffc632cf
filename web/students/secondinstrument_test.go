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

// A student takes up a second instrument: it has a page and a log of its own, the table has
// it, the class is not marked on it, and in a lesson it waits.
func TestASecondInstrument(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	b, desk := testsite.Furnish(t, s.Store, account.ID), s.Store.For(account.ID) // Ines P., trombone
	at := fmt.Sprintf("/students/%d", b.Student)
	_, page := v.Get("/people")
	testsite.Wants(t, page, "Second instrument", "It gets a log of its own.")
	class := fmt.Sprint(b.Class)
	for _, bad := range []url.Values{{"class": {class}}, {"class": {class}, "instrument": {"kazoo"}}, {"class": {class}, "instrument": {"trombone"}}} {
		if status, page := v.Post(at+"/second", bad); status != http.StatusUnprocessableEntity || !strings.Contains(page, `role="alert"`) {
			t.Errorf("%v gives %d", bad, status)
		}
	}
	if status, _ := v.Post(at+"/second", url.Values{"class": {class}, "instrument": {"cello"}}); status != http.StatusSeeOther {
		t.Fatalf("a second instrument gives %d", status)
	}
	_, page = v.Get("/people")
	testsite.Wants(t, page, "Ines P. plays the cello too, with a log of its own.", "also cello", "Delete the second instrument", "1 student<")
	second, err := desk.OtherInstrument(ctx, store.Student{ID: b.Student})
	if err != nil {
		t.Fatal(err)
	}
	_, page = v.Get(at)
	testsite.Wants(t, page, fmt.Sprintf(`<a href="/students/%d">cello</a>`, second.ID))
	_, page = v.Get(fmt.Sprintf("/students/%d", second.ID))
	testsite.Wants(t, page, fmt.Sprintf(`<a href="%s">trombone</a>`, at), "No tries yet.")
	_, text := v.Get("/people/students.csv")
	testsite.Wants(t, text, "Ines,P,cello,Tuesday brass,,,yes")
	_, page = v.Get(fmt.Sprintf("/bench/%d?instrument=trombone", b.Exercise))
	testsite.Wants(t, page, fmt.Sprintf(`name="except" value="%d" checked`, second.ID), fmt.Sprintf(`name="except" value="%d">`, b.Student))
	_, to := v.Post("/lessons", url.Values{"class": {class}, "minutes": {"20"}, "begun": {"yes"}})
	v.Post(strings.Replace(to, "?", "/begin?", 1), nil)
	_, page = v.Get(strings.Replace(to, "?", "/run?", 1))
	testsite.Wants(t, page, fmt.Sprintf(`data-student="%d" data-name="Ines P." title="Cello" data-absent data-with="%d">Ines P., Cello<`, second.ID, b.Student))
	_, page = v.Get(fmt.Sprintf("/board/groups?class=%d", b.Class))
	if n := strings.Count(page, ">Ines P.<"); n != 1 {
		t.Errorf("in groups Ines stands %d times", n)
	}
}

// A class is seated by instrument, by the form, and in the lesson as it sits.
func TestSeats(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	b, desk := testsite.Furnish(t, s.Store, account.ID), s.Store.For(account.ID) // Ines P., trombone
	ids := map[string]store.StudentID{"Ines": b.Student}
	for name, instrument := range map[string]string{"Bea": "violin", "Tomo": "snare", "Kofi": "clarinet"} {
		id, err := desk.AddStudent(ctx, store.Student{ClassID: b.Class, FirstName: name, Instrument: instrument})
		if err != nil {
			t.Fatal(err)
		}
		ids[name] = id
	}
	at := fmt.Sprintf("/classes/%d/seats", b.Class)
	order := func(page string) string {
		var words []string
		for _, part := range strings.Split(page, `class="seat-label">`)[1:] {
			label, rest, _ := strings.Cut(part, "<")
			words = append(words, label+":")
			for _, name := range strings.Split(rest, `aria-describedby="seats-how">`)[1:] {
				first, _, _ := strings.Cut(name, " ")
				words = append(words, first)
			}
		}
		return strings.Join(words, " ")
	}
	_, page := v.Get(at)
	if got := order(page); got != "No seat yet: Kofi Ines Bea Tomo" {
		t.Errorf("at first they sit %s", got)
	}
	_, page = v.Get(at + "?across=3")
	if got := order(page); got != "Row 2: Tomo Row 1: Bea Kofi Ines No seat yet:" {
		t.Errorf("by instrument they sit %s", got)
	}
	form := url.Values{}
	for name, seat := range map[string][2]string{"Ines": {"2", "2"}, "Kofi": {"2", "1"}, "Bea": {"5", "1"}, "Tomo": {"", ""}} {
		form.Set(fmt.Sprintf("row-%d", ids[name]), seat[0])
		form.Set(fmt.Sprintf("place-%d", ids[name]), seat[1])
	}
	if status, _ := v.Post(at, form); status != http.StatusSeeOther {
		t.Fatalf("keeping seats gives %d", status)
	}
	_, page = v.Get(at)
	if got := order(page); got != "Row 2: Bea Row 1: Kofi Ines No seat yet: Tomo" {
		t.Errorf("kept, they sit %s", got)
	}
	_, to := v.Post("/lessons", url.Values{"class": {fmt.Sprint(b.Class)}, "minutes": {"20"}, "begun": {"yes"}})
	v.Post(strings.Replace(to, "?", "/begin?", 1), nil)
	_, page = v.Get(strings.Replace(to, "?", "/run?", 1))
	at2 := func(words string) int { return strings.Index(page, words) }
	if rows := []int{at2(`aria-label="Row 2"`), at2(`data-name="Bea"`), at2(`aria-label="Row 1"`), at2(`data-name="Kofi"`), at2(`data-name="Ines P."`), at2(`data-name="Tomo"`)}; !isRising(rows) {
		t.Errorf("in the lesson they stand at %v", rows)
	}
	form.Set(fmt.Sprintf("row-%d", ids["Bea"]), "13")
	if status, page := v.Post(at, form); status != http.StatusUnprocessableEntity || !strings.Contains(page, "The row of Bea, “13”, is none: there are 1 to 12") {
		t.Errorf("row 13 gives %d", status)
	}
}

// isRising says whether numbers rise from 0.
func isRising(list []int) bool {
	for k, n := range list {
		if n < 0 || k > 0 && n <= list[k-1] {
			return false
		}
	}
	return true
}
