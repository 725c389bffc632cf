package site_test

import (
	"net/http"
	"net/http/httptest"
	"net/netip"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/web/site"
)

// Whom a request comes from: a trusted proxy is believed, and only for what it added.
func TestBehindAProxy(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	s.Whole.Behind([]netip.Prefix{netip.MustParsePrefix("10.0.0.0/8"), netip.MustParsePrefix("127.0.0.1/32")}, true)
	var seen string
	handler := s.Whole.Site().FromProxies(http.HandlerFunc(func(_ http.ResponseWriter, r *http.Request) { seen, _ = site.CallerAddress(r) }))
	for _, tt := range []struct{ peer, forwarded, want string }{
		{"10.1.2.3:55", "203.0.113.9", "203.0.113.9"},
		{"10.1.2.3:55", "198.51.100.1, 203.0.113.9, 10.9.9.9", "203.0.113.9"}, // the first is made up
		{"10.1.2.3:55", "", "10.1.2.3"},
		{"10.1.2.3:55", "nonsense", "10.1.2.3"},
		{"10.1.2.3:55", "10.4.4.4", "10.1.2.3"},
		{"203.0.113.7:55", "198.51.100.1", "203.0.113.7"}, // is no proxy of ours
		{"[::ffff:10.1.2.3]:55", "2001:db8::7", "2001:db8::7"},
	} {
		r := httptest.NewRequest(http.MethodGet, "/", http.NoBody)
		r.RemoteAddr = tt.peer
		if tt.forwarded != "" {
			r.Header.Set("X-Forwarded-For", tt.forwarded)
		}
		w := httptest.NewRecorder()
		handler.ServeHTTP(w, r)
		if seen != tt.want {
			t.Errorf("%s, forwarded for %q, is %s, want %s", tt.peer, tt.forwarded, seen, tt.want)
		}
		if !strings.Contains(w.Header().Get("Strict-Transport-Security"), "max-age=") {
			t.Error("browsers are not told to stay with HTTPS")
		}
	}
}

// Two users behind one proxy do not share one limit of signing in, and the cookie is kept
// from plain HTTP.
func TestTwoUsersBehindAProxy(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	signIn := s.BehindProxy(t)
	from := func(address, word string) *http.Response { return signIn("a@school.example", address, word) }
	for range site.SignInsPerMinute + 1 {
		from("203.0.113.1", "wrong")
	}
	if status := from("203.0.113.1", testsite.Password).StatusCode; status != http.StatusTooManyRequests {
		t.Errorf("one who has tried too often gets %d", status)
	}
	answer := from("203.0.113.2", testsite.Password)
	if answer.StatusCode != http.StatusSeeOther {
		t.Fatalf("another behind the same proxy gets %d", answer.StatusCode)
	}
	for _, cookie := range answer.Cookies() {
		if !cookie.Secure || !cookie.HttpOnly || cookie.Name != "__Host-bench" || cookie.Path != "/" || cookie.Domain != "" {
			t.Errorf("the cookie is %+v", cookie)
		}
	}
}

// Links that are handed out lead to the site as it is reached: over HTTPS behind a proxy that says so.
func TestTheAddressOfTheSite(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	r := httptest.NewRequest(http.MethodGet, "http://bench.example/", http.NoBody)
	if got := s.Whole.Site().BaseAddress(r); got != "http://bench.example" {
		t.Errorf("over HTTP it is %s", got)
	}
	s.Whole.Behind(nil, true)
	if got := s.Whole.Site().BaseAddress(r); got != "https://bench.example" {
		t.Errorf("behind a proxy it is %s", got)
	}
}
