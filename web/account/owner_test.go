package account_test

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// ownerAnd is an installation with its owner and another teacher.
func ownerAnd(t *testing.T, s *testsite.Site) (owner, other *testsite.Visitor, ownerID, otherID store.TeacherID) {
	t.Helper()
	first, err := s.Store.AddFirstTeacher(context.Background(), "owner@school.example", "Maya", "Lantern Hall", testsite.Password)
	if err != nil {
		t.Fatal(err)
	}
	other, account := s.Teacher(t, "other@school.example")
	return s.SignedInAs(t, "owner@school.example", testsite.Password), other, first.ID, account.ID
}

func TestTheOwnersPage(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	owner, other, _, _ := ownerAnd(t, s)
	_, page := owner.Get("/account")
	testsite.Wants(t, page, "Limits for everybody", "looks after this installation", `name="longest_days" inputmode="numeric" value="14"`)
	if _, page := other.Get("/account"); strings.Contains(page, "Limits for everybody") || strings.Contains(page, "owner@school.example") {
		t.Error("another teacher sees the owner's page")
	}
	good := url.Values{"longest_days": {"30"}, "idle_days": {"7"}, "idle_minutes": {"20"}, "retain_months": {"12"}}
	for field, value := range map[string]string{"longest_days": "91", "idle_days": "0", "idle_minutes": "4", "retain_months": "-1"} {
		bad := url.Values{}
		for k, v := range good {
			bad[k] = v
		}
		bad.Set(field, value)
		if status, page := owner.Post("/account/house", bad); status != http.StatusUnprocessableEntity || !strings.Contains(page, "a number") {
			t.Errorf("%s=%s gives %d", field, value, status)
		}
		bad.Del(field)
		if status, _ := owner.Post("/account/house", bad); status != http.StatusUnprocessableEntity {
			t.Errorf("without %s it gives %d", field, status)
		}
	}
	owner.Post("/account/house", good)
	_, page = other.Get("/account")
	testsite.Wants(t, page, "signed out after 7 days, and in any case after 30")
	_, page = owner.Get("/account/log")
	testsite.Wants(t, page, "Maya made an account", "Maya changed the limits of the installation")
	if _, page := other.Get("/account/log"); strings.Contains(page, "Maya") {
		t.Error("another teacher reads of the accounts")
	}
}

func TestTakingAccountsAway(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	owner, other, ownerID, otherID := ownerAnd(t, s)
	testsite.Furnish(t, s.Store, otherID)
	take := func(v *testsite.Visitor, id store.TeacherID, form url.Values) (int, string) {
		return v.Post(fmt.Sprintf("/account/remove/%d", id), form)
	}
	for what, try := range map[string]func() (int, string){
		"the owner's own":                 func() (int, string) { return take(owner, ownerID, url.Values{"present": {testsite.Password}}) },
		"another's without the tick":      func() (int, string) { return take(owner, otherID, nil) },
		"one's own with another password": func() (int, string) { return take(other, otherID, url.Values{"present": {"wrong"}}) },
	} {
		if status, page := try(); status != http.StatusUnprocessableEntity || !strings.Contains(page, `role="alert"`) {
			t.Errorf("%s gives %d", what, status)
		}
	}
	if status, _ := take(other, ownerID, url.Values{"sure": {"yes"}}); status != http.StatusNotFound {
		t.Errorf("the owner's by another gives %d", status)
	}
	if status, page := take(other, otherID, url.Values{"present": {testsite.Password}}); status != http.StatusOK || !strings.Contains(page, "Your account is taken away") {
		t.Errorf("one's own gives %d", status)
	}
	if other.Here() {
		t.Error("who has taken their account away is signed in")
	}
	_, page := owner.Get("/account")
	testsite.Wants(t, page, "Trash", "other@school.example", fmt.Sprintf("/account/erase/%d", otherID))
	owner.Post(fmt.Sprintf("/account/back/%d", otherID), nil)
	other = s.SignedInAs(t, "other@school.example", testsite.Password)
	if _, page := other.Get("/people"); !strings.Contains(page, "Ines P.") {
		t.Error("an account that is back has lost its students")
	}
	take(owner, otherID, url.Values{"sure": {"yes"}})
	if other.Here() {
		t.Error("whose account was taken away is signed in")
	}
	if status, _ := owner.Post(fmt.Sprintf("/account/erase/%d", otherID), nil); status != http.StatusUnprocessableEntity {
		t.Errorf("erasing without the tick gives %d", status)
	}
	owner.Post(fmt.Sprintf("/account/erase/%d", otherID), url.Values{"sure": {"yes"}})
	_, page = owner.Get("/account/log")
	testsite.Wants(t, page, fmt.Sprintf("The account of teacher %d was erased", otherID))
	if strings.Contains(page, "other@school.example") {
		t.Error("the log keeps the address of an erased account")
	}
}

func TestHandingTheInstallationOver(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	owner, other, _, otherID := ownerAnd(t, s)
	over := fmt.Sprintf("/account/owner/%d", otherID)
	owner.Post(over, nil) // without the tick
	if _, page := other.Get("/account"); strings.Contains(page, "Limits for everybody") {
		t.Error("it is handed over without the tick")
	}
	owner.Post(over, url.Values{"sure": {"yes"}})
	_, page := other.Get("/account")
	testsite.Wants(t, page, "Limits for everybody")
	if _, page := owner.Get("/account"); strings.Contains(page, "Limits for everybody") {
		t.Error("who has handed over still looks after it")
	}
}

// Guesses at one account are bounded, also from many addresses.
func TestGuessesAtOneAccount(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	signIn := s.BehindProxy(t)
	guess := func(email string, from int) int {
		return signIn(email, fmt.Sprintf("192.0.2.%d", from), "wrong").StatusCode
	}
	for n := 1; n <= site.GuessesPerMinute; n++ {
		if status := guess("A@school.example", n); status != http.StatusUnprocessableEntity {
			t.Fatalf("guess %d gives %d", n, status)
		}
	}
	if status := guess("a@school.example", 100); status != http.StatusTooManyRequests {
		t.Errorf("one guess more gives %d", status)
	}
	if status := guess("b@school.example", 101); status != http.StatusUnprocessableEntity {
		t.Errorf("another account is refused with it: %d", status)
	}
}
