package account_test

import (
	"context"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/web/site"
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
		said := site.UnfitPassword(password, wren)
		if says == "" && said != "" || !strings.Contains(said, says) {
			t.Errorf("%q: %q, want %q", password, said, says)
		}
	}
}

// A changed password ends every session but the one it was changed in; what is refused
// changes nothing.
func TestChangingThePassword(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	other := s.SignedInAs(t, "a@school.example", testsite.Password)
	change := func(present, desired, again string) (int, string) {
		t.Helper()
		return v.Post("/account/password", url.Values{"present": {present}, "password": {desired}, "again": {again}})
	}
	const fresh = "ferry lamp tide"
	for _, tt := range []struct{ present, desired, again, says string }{
		{"not it at all", fresh, fresh, "The present password is another one"},
		{testsite.Password, fresh, "ferry lamp tied", "typed in two ways"},
		{testsite.Password, "password1234", "password1234", "commonest"},
		{testsite.Password, "short", "short", "too short"},
	} {
		if status, page := change(tt.present, tt.desired, tt.again); status != http.StatusUnprocessableEntity || !strings.Contains(page, tt.says) {
			t.Errorf("%+v gives %d", tt, status)
		}
	}
	if !other.Here() {
		t.Error("a refused change has ended a session")
	}
	if status, to := change(testsite.Password, fresh, fresh); status != http.StatusSeeOther || to != "/account" {
		t.Fatalf("changing the password gives %d %s", status, to)
	}
	_, page := v.Get("/account")
	testsite.Wants(t, page, "The password is changed. Everywhere else you are signed out.")
	if other.Here() {
		t.Error("another session goes on after the password was changed")
	}
	if _, err := s.Store.CheckPassword(context.Background(), "a@school.example", testsite.Password); err == nil {
		t.Error("the old password still holds")
	}
	again := s.SignedInAs(t, "a@school.example", fresh)
	v.Post("/account/sessions", nil)
	if again.Here() || !v.Here() {
		t.Errorf("signed out everywhere else: there %v, here %v", again.Here(), v.Here())
	}
}
