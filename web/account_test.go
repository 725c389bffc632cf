package web

import (
	"context"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"
	"time"

	"unhurriedbench/store"
)

func TestUnfitPasswords(t *testing.T) {
	t.Parallel()
	wren := store.Teacher{Name: "Wren Okafor", Email: "wren.okafor@school.example", School: "Lantern Hall"}
	for password, says := range map[string]string{
		"short":                         "too short",
		strings.Repeat("long ", 50):     "too long",
		"Password1234":                  "commonest",
		"  Administrator ":              "commonest",
		"1qaz2wsx3edc":                  "commonest",
		"aaaaaaaaaaaa":                  "commonest",
		"Wren Okafor 1":                 "your own name",
		"sunshine-2026":                 "commonest",
		strings.Repeat(" ", 14):         "commonest",
		"wren.okafor2026!":              "your own name",
		"lantern hall 7":                "your own name",
		"ferry lamp tide":               "",
		"Lantern Hall by the sea":       "",
		"ünïcödé wörds":                 "",
		strings.Repeat("three wor", 20): "",
	} {
		said := UnfitPassword(password, wren)
		if says == "" && said != "" || !strings.Contains(said, says) {
			t.Errorf("%q: %q, want %q", password, said, says)
		}
	}
}

// signedInAs signs a fresh browser in.
func (s *site) signedInAs(t *testing.T, email, password string) *visitor {
	t.Helper()
	v := s.visitor(t)
	if _, to := v.post("/sign-in", url.Values{"email": {email}, "password": {password}}); to != "/" {
		t.Fatalf("signing in leads to %s", to)
	}
	return v
}

// here says whether a browser is still signed in.
func (v *visitor) here() bool {
	status, _ := v.get("/account")
	return status == http.StatusOK
}

// A changed password ends every session but the one it was changed in; what is refused
// changes nothing.
func TestChangingThePassword(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, _ := s.teacher(t, "a@school.example")
	other := s.signedInAs(t, "a@school.example", password)
	change := func(present, wanted, again string) (int, string) {
		t.Helper()
		return v.post("/account/password", url.Values{"present": {present}, "password": {wanted}, "again": {again}})
	}
	const fresh = "ferry lamp tide"
	for _, tt := range []struct{ present, wanted, again, says string }{
		{"not it at all", fresh, fresh, "The present password is another one"},
		{password, fresh, "ferry lamp tied", "typed in two ways"},
		{password, "password1234", "password1234", "commonest"},
		{password, "short", "short", "too short"},
	} {
		if status, page := change(tt.present, tt.wanted, tt.again); status != http.StatusUnprocessableEntity || !strings.Contains(page, tt.says) {
			t.Errorf("%+v gives %d", tt, status)
		}
	}
	if !other.here() {
		t.Error("a refused change has ended a session")
	}
	if status, to := change(password, fresh, fresh); status != http.StatusSeeOther || to != "/account" {
		t.Fatalf("changing the password gives %d %s", status, to)
	}
	_, page := v.get("/account")
	wants(t, page, "The password is changed. Everywhere else you are signed out.")
	if other.here() {
		t.Error("another session goes on after the password was changed")
	}
	if _, err := s.store.CheckPassword(context.Background(), "a@school.example", password); err == nil {
		t.Error("the old password still holds")
	}
	again := s.signedInAs(t, "a@school.example", fresh)
	v.post("/account/sessions", nil)
	if again.here() || !v.here() {
		t.Errorf("signed out everywhere else: there %v, here %v", again.here(), v.here())
	}
}

// On a shared computer the session ends with the browser, and after half an hour without
// use; elsewhere neither.
func TestASharedComputer(t *testing.T) {
	t.Parallel()
	s := open(t)
	_, account := s.teacher(t, "a@school.example")
	for shared, want := range map[string]bool{"": true, "yes": false} {
		v := s.visitor(t)
		r := v.request("POST", "/sign-in", strings.NewReader(url.Values{"email": {"a@school.example"}, "password": {password}, "shared": {shared}}.Encode()))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		answer, err := v.client.Do(r)
		if err != nil {
			t.Fatal(err)
		}
		answer.Body.Close()
		stays := false
		for _, cookie := range answer.Cookies() {
			stays = stays || cookie.MaxAge > 0 || !cookie.Expires.IsZero()
		}
		if stays != want {
			t.Errorf("shared %q: the cookie outlives the browser: %v", shared, stays)
		}
	}
	for _, tt := range []struct {
		shared bool
		idle   time.Duration
		number int
		want   bool
		age    time.Duration
	}{
		{false, 100 * time.Hour, 0, true, 0},
		{false, 14*24*time.Hour + time.Minute, 0, false, 0},
		{true, -time.Hour, 0, true, 0}, // the clock was set back
		{true, 29 * time.Minute, 0, true, 0},
		{true, 31 * time.Minute, 0, false, 0},
		{false, time.Hour, 0, true, 14*24*time.Hour - time.Minute},
		{false, time.Hour, 0, false, 14*24*time.Hour + time.Minute},
		{false, 0, 1, false, 0}, // begun under a number that has ended
		{true, 6 * time.Minute, 0, true, 0},
		{true, 6 * time.Minute, 0, false, 0}, // by the owner's limits, from here on
		{false, 2*24*time.Hour - time.Minute, 0, true, 0},
		{false, 2*24*time.Hour + time.Minute, 0, false, 0},
	} {
		if !tt.want && tt.idle == 6*time.Minute {
			if _, err := s.store.DB().Exec(`INSERT INTO house (longest_days, idle_days, idle_minutes, retain_months) VALUES (9, 2, 5, 0)`); err != nil {
				t.Fatal(err)
			}
		}
		ctx, err := s.server.sessions.Load(context.Background(), "")
		if err != nil {
			t.Fatal(err)
		}
		s.server.sessions.Put(ctx, onSharedComputer, tt.shared)
		s.server.sessions.Put(ctx, usedLast, time.Now().Add(-tt.idle).Unix())
		s.server.sessions.Put(ctx, sessionNumber, tt.number)
		s.server.sessions.Put(ctx, sessionBegun, time.Now().Add(-tt.age).Unix())
		r := httptest.NewRequest(http.MethodGet, "/", http.NoBody).WithContext(ctx)
		_, house, err := s.store.SignedIn(context.Background(), account.ID)
		if err != nil {
			t.Fatal(err)
		}
		if got := s.server.holds(r, account, house); got != tt.want {
			t.Errorf("%+v: the session holds: %v", tt, got)
		}
		if used := s.server.sessions.GetInt64(ctx, usedLast); tt.shared && tt.want && time.Since(time.Unix(used, 0)) > time.Minute {
			t.Error("the use of a session is not written down")
		}
	}
}
