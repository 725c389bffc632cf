package testsite

import (
	"net/http"
	"net/url"
	"testing"
)

// SignedInAs signs a fresh browser in.
func (s *Site) SignedInAs(t *testing.T, email, password string) *Visitor {
	t.Helper()
	v := s.Visitor(t)
	if _, to := v.Post("/sign-in", url.Values{"email": {email}, "password": {password}}); to != "/" {
		t.Fatalf("signing in leads to %s", to)
	}
	return v
}

// Here says whether a browser is still signed in.
func (v *Visitor) Here() bool {
	status, _ := v.Get("/account")
	return status == http.StatusOK
}
