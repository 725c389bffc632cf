package web

import (
	"fmt"
	"io"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/go-chi/chi/v5"
)

// A form that another site has a teacher's browser send is refused on every route, in a
// page of our own, and changes nothing.
func TestFormsOfAnotherSite(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	everything(v, b)
	before := everything(v, b)
	walked := 0
	err := chi.Walk(s.routes, func(method, route string, _ http.Handler, _ ...func(http.Handler) http.Handler) error {
		if method != http.MethodPost || route == "/static/*" || strings.HasPrefix(route, "/my/{key}/") { // which wants a key that no other site knows
			return nil
		}
		walked++
		form := url.Values{"sure": {"yes"}, "student": {fmt.Sprint(b.student)}, "section": {fmt.Sprint(b.section)}, "piece": {"1-2"}, "stage": {"count"}, "result": {"clean"},
			"first_name": {"Mallory"}, "instrument": {"oboe"}, "year": {"3"}, "present": {password}, "password": {"another long one"}, "again": {"another long one"}, "email": {"a@school.example"}}
		for name, value := range map[string]string{"Origin": "https://elsewhere.example", "Sec-Fetch-Site": "cross-site"} {
			r := v.request(method, b.path(route), strings.NewReader(form.Encode()))
			r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
			r.Header.Set(name, value)
			answer, err := v.client.Do(r)
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
	for path, page := range everything(v, b) {
		if page != before[path] {
			t.Errorf("a form of another site has changed %s", path)
		}
	}
}
