package account_test

import (
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
)

var joinLink = regexp.MustCompile(`<code>https?://[^/]+(/join/[A-Z2-7]+)</code>`)

// The first teacher invites others and lets them choose another password, by links that
// are good once; nobody else can.
func TestInvitations(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	first := s.Visitor(t)
	if status, to := first.Post("/welcome", url.Values{"name": {"Wren"}, "email": {"wren@school.example"}, "password": {"ferry lamp tide"}}); status != http.StatusSeeOther || to != "/" {
		t.Fatalf("the first account gives %d %s", status, to)
	}
	handed := func(path string) string {
		t.Helper()
		if status, to := first.Post(path, nil); status != http.StatusSeeOther || to != "/account" {
			t.Fatalf("%s gives %d %s", path, status, to)
		}
		_, page := first.Get("/account")
		found := joinLink.FindStringSubmatch(page)
		if found == nil {
			t.Fatalf("no link is shown: %.2000s", page)
		}
		if _, again := first.Get("/account"); joinLink.MatchString(again) {
			t.Error("a link is shown twice")
		}
		return found[1]
	}
	link := handed("/account/invite")
	second := s.Visitor(t)
	_, page := second.Get(link)
	testsite.Wants(t, page, "You are invited", `name="email"`)
	form := url.Values{"name": {"Ida"}, "email": {"wren@school.example"}, "password": {"harbor bell song"}}
	for _, tt := range []struct{ field, value, says string }{
		{"email", "wren@school.example", "There is an account with this address already"},
		{"email", "no address", "has no @"},
		{"name", "", "Your name is missing"},
		{"password", "short", "too short"},
	} {
		bad := url.Values{"name": form["name"], "email": {"ida@school.example"}, "password": form["password"]}
		bad.Set(tt.field, tt.value)
		if status, page := second.Post(link, bad); status != http.StatusUnprocessableEntity || !strings.Contains(page, tt.says) {
			t.Errorf("joining with %s %q gives %d", tt.field, tt.value, status)
		}
	}
	form.Set("email", "ida@school.example")
	if status, to := second.Post(link, form); status != http.StatusSeeOther || to != "/" {
		t.Fatalf("joining gives %d %s", status, to)
	}
	_, page = second.Get("/account")
	testsite.Wants(t, page, "ida@school.example")
	if strings.Contains(page, "Invite a teacher") || strings.Contains(page, "wren@school.example") {
		t.Error("who was invited sees the others")
	}
	form.Set("email", "third@school.example")
	if status, page := s.Visitor(t).Post(link, form); status != http.StatusNotFound || !strings.Contains(page, "This link is used, or too old") {
		t.Errorf("a link that was used gives %d", status)
	}
	if status, _ := s.Visitor(t).Get("/join/NOTALINK"); status != http.StatusNotFound {
		t.Errorf("a link that never was gives %d", status)
	}
	for _, path := range []string{"/account/invite", "/account/reset/1"} {
		if status, _ := second.Post(path, nil); status != http.StatusNotFound {
			t.Errorf("%s by another gives %d", path, status)
		}
	}

	ida, err := s.Store.TeacherByEmail(t.Context(), "ida@school.example")
	if err != nil {
		t.Fatal(err)
	}
	reset := fmt.Sprintf("/account/reset/%d", ida.ID)
	older := handed(reset)
	link = handed(reset)
	if status, _ := s.Visitor(t).Get(older); status != http.StatusNotFound {
		t.Error("an older link for the same teacher still holds")
	}
	fresh := s.Visitor(t)
	_, page = fresh.Get(link)
	testsite.Wants(t, page, "Ida, choose another password")
	if strings.Contains(page, `name="email"`) {
		t.Error("a new password asks for an address")
	}
	if status, page := fresh.Post(link, url.Values{"password": {"ida@school.example"}}); status != http.StatusUnprocessableEntity || !strings.Contains(page, "your own name") {
		t.Errorf("a password of one's own address gives %d", status)
	}
	if status, to := fresh.Post(link, url.Values{"password": {"three quiet oars"}}); status != http.StatusSeeOther || to != "/" {
		t.Fatalf("choosing another password gives %d %s", status, to)
	}
	if second.Here() || !fresh.Here() {
		t.Error("a session from before the new password goes on")
	}
	if _, err := s.Store.CheckPassword(t.Context(), "ida@school.example", "three quiet oars"); err != nil {
		t.Error(err)
	}
	if _, err := s.Store.DB().Exec(`UPDATE invitations SET until = now() - interval '1 minute'`); err != nil {
		t.Fatal(err)
	}
	link = handed("/account/invite")
	if _, err := s.Store.DB().Exec(`UPDATE invitations SET until = now() - interval '1 minute'`); err != nil {
		t.Fatal(err)
	}
	if status, _ := s.Visitor(t).Get(link); status != http.StatusNotFound {
		t.Error("a link holds for ever")
	}
	if text := s.Log.String(); strings.Contains(text, strings.TrimPrefix(link, "/join/")) {
		t.Error("a link stands in the log")
	}
}
