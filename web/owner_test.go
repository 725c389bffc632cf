package web

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/store"
)

// ownerAnd is an installation with its owner and another teacher.
func ownerAnd(t *testing.T, s *site) (owner, other *visitor, ownerID, otherID store.TeacherID) {
	t.Helper()
	first, err := s.store.AddFirstTeacher(context.Background(), "owner@school.example", "Maya", "Lantern Hall", password)
	if err != nil {
		t.Fatal(err)
	}
	other, account := s.teacher(t, "other@school.example")
	return s.signedInAs(t, "owner@school.example", password), other, first.ID, account.ID
}

func TestTheOwnersPage(t *testing.T) {
	t.Parallel()
	s := open(t)
	owner, other, _, _ := ownerAnd(t, s)
	_, page := owner.get("/account")
	wants(t, page, "Limits for everybody", "looks after this installation", `name="longest_days" inputmode="numeric" value="14"`)
	if _, page := other.get("/account"); strings.Contains(page, "Limits for everybody") || strings.Contains(page, "owner@school.example") {
		t.Error("another teacher sees the owner's page")
	}
	good := url.Values{"longest_days": {"30"}, "idle_days": {"7"}, "idle_minutes": {"20"}, "retain_months": {"12"}}
	for field, value := range map[string]string{"longest_days": "91", "idle_days": "0", "idle_minutes": "4", "retain_months": "-1"} {
		bad := url.Values{}
		for k, v := range good {
			bad[k] = v
		}
		bad.Set(field, value)
		if status, page := owner.post("/account/house", bad); status != http.StatusUnprocessableEntity || !strings.Contains(page, "a number") {
			t.Errorf("%s=%s gives %d", field, value, status)
		}
		bad.Del(field)
		if status, _ := owner.post("/account/house", bad); status != http.StatusUnprocessableEntity {
			t.Errorf("without %s it gives %d", field, status)
		}
	}
	owner.post("/account/house", good)
	_, page = other.get("/account")
	wants(t, page, "signed out after 7 days, and in any case after 30")
	_, page = owner.get("/account/log")
	wants(t, page, "Maya made an account", "Maya changed the limits of the installation")
	if _, page := other.get("/account/log"); strings.Contains(page, "Maya") {
		t.Error("another teacher reads of the accounts")
	}
}

func TestTakingAccountsAway(t *testing.T) {
	t.Parallel()
	s := open(t)
	owner, other, ownerID, otherID := ownerAnd(t, s)
	furnish(t, s.store, otherID)
	take := func(v *visitor, id store.TeacherID, form url.Values) (int, string) {
		return v.post(fmt.Sprintf("/account/remove/%d", id), form)
	}
	for what, try := range map[string]func() (int, string){
		"the owner's own":                 func() (int, string) { return take(owner, ownerID, url.Values{"present": {password}}) },
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
	if status, page := take(other, otherID, url.Values{"present": {password}}); status != http.StatusOK || !strings.Contains(page, "Your account is taken away") {
		t.Errorf("one's own gives %d", status)
	}
	if other.here() {
		t.Error("who has taken their account away is signed in")
	}
	_, page := owner.get("/account")
	wants(t, page, "Taken away", "other@school.example", fmt.Sprintf("/account/erase/%d", otherID))
	owner.post(fmt.Sprintf("/account/back/%d", otherID), nil)
	other = s.signedInAs(t, "other@school.example", password)
	if _, page := other.get("/people"); !strings.Contains(page, "Ines P.") {
		t.Error("an account that is back has lost its students")
	}
	take(owner, otherID, url.Values{"sure": {"yes"}})
	if other.here() {
		t.Error("whose account was taken away is signed in")
	}
	if status, _ := owner.post(fmt.Sprintf("/account/erase/%d", otherID), nil); status != http.StatusUnprocessableEntity {
		t.Errorf("erasing without the tick gives %d", status)
	}
	owner.post(fmt.Sprintf("/account/erase/%d", otherID), url.Values{"sure": {"yes"}})
	_, page = owner.get("/account/log")
	wants(t, page, fmt.Sprintf("The account of teacher %d was erased", otherID))
	if strings.Contains(page, "other@school.example") {
		t.Error("the log keeps the address of an erased account")
	}
}

func TestHandingTheInstallationOver(t *testing.T) {
	t.Parallel()
	s := open(t)
	owner, other, _, otherID := ownerAnd(t, s)
	over := fmt.Sprintf("/account/owner/%d", otherID)
	owner.post(over, nil) // without the tick
	if _, page := other.get("/account"); strings.Contains(page, "Limits for everybody") {
		t.Error("it is handed over without the tick")
	}
	owner.post(over, url.Values{"sure": {"yes"}})
	_, page := other.get("/account")
	wants(t, page, "Limits for everybody")
	if _, page := owner.get("/account"); strings.Contains(page, "Limits for everybody") {
		t.Error("who has handed over still looks after it")
	}
}

// Guesses at one account are bounded, also from many addresses.
func TestGuessesAtOneAccount(t *testing.T) {
	t.Parallel()
	s := open(t)
	signIn := s.behindProxy(t)
	guess := func(email string, from int) int {
		return signIn(email, fmt.Sprintf("192.0.2.%d", from), "wrong").StatusCode
	}
	for n := 1; n <= guessesPerMinute; n++ {
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
