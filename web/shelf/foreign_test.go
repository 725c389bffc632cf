package shelf_test

import (
	"fmt"
	"io"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/internal/testsite"
)

// A form that another site has a teacher's browser send is refused on every route, in a
// page of our own, and changes nothing.
func TestFormsOfAnotherSite(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	testsite.Everything(v, b)
	before := testsite.Everything(v, b)
	walked := 0
	err := chi.Walk(s.Routes, func(method, route string, _ http.Handler, _ ...func(http.Handler) http.Handler) error {
		if method != http.MethodPost || route == "/static/*" || strings.HasPrefix(route, "/my/{key}/") { // which wants a key that no other site knows
			return nil
		}
		walked++
		form := url.Values{"sure": {"yes"}, "student": {fmt.Sprint(b.Student)}, "class": {fmt.Sprint(b.Class)}, "chunk": {"1-2"}, "stage": {"count"}, "result": {"clean"},
			"first_name": {"Mallory"}, "instrument": {"oboe"}, "year": {"3"}, "present": {testsite.Password}, "password": {"another long one"}, "again": {"another long one"}, "email": {"a@school.example"}}
		for name, value := range map[string]string{"Origin": "https://elsewhere.example", "Sec-Fetch-Site": "cross-site"} {
			r := v.Request(method, b.Path(route), strings.NewReader(form.Encode()))
			r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
			r.Header.Set(name, value)
			answer, err := v.Client.Do(r)
			if err != nil {
				t.Fatal(err)
			}
			page, err := io.ReadAll(answer.Body)
			answer.Body.Close()
			if err != nil || answer.StatusCode != http.StatusForbidden || !strings.Contains(string(page), "came from another site") {
				t.Errorf("%s with %s: %s gives %d, %v", route, name, value, answer.StatusCode, err)
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	if walked < 40 {
		t.Errorf("only %d routes were walked", walked)
	}
	for path, page := range testsite.Everything(v, b) {
		if page != before[path] {
			t.Errorf("a form of another site has changed %s", path)
		}
	}
}
