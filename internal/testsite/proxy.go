package testsite

import (
	"net/http"
	"net/http/httptest"
	"net/netip"
	"net/url"
	"strings"
	"testing"
)

// BehindProxy makes the accounts a@ and b@school.example, serves behind a proxy, and gives
// what signs in from an address.
func (s *Site) BehindProxy(t *testing.T) func(email, address, word string) *http.Response {
	t.Helper()
	for _, email := range []string{"a@school.example", "b@school.example"} {
		if _, err := s.Store.AddTeacher(t.Context(), email, "Wren", "", Password); err != nil {
			t.Fatal(err)
		}
	}
	s.Whole.Behind([]netip.Prefix{netip.MustParsePrefix("127.0.0.1/32")}, true)
	running := httptest.NewServer(s.Whole.Routes())
	t.Cleanup(running.Close)
	return func(email, address, word string) *http.Response {
		t.Helper()
		r, err := http.NewRequest(http.MethodPost, running.URL+"/sign-in", strings.NewReader(url.Values{"email": {email}, "password": {word}}.Encode()))
		if err != nil {
			t.Fatal(err)
		}
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("X-Forwarded-For", address)
		answer, err := s.Visitor(t).Client.Do(r)
		if err != nil {
			t.Fatal(err)
		}
		answer.Body.Close()
		return answer
	}
}
