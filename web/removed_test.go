package web

import (
	"fmt"
	"net/http"
	"strings"
	"testing"
)

// What was taken off the Shelf is listed with what is logged at it, and put back; where
// its number is taken since, it is said.
func TestTakenOffTheShelf(t *testing.T) {
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	_, page := v.get("/exercises/removed")
	wants(t, page, "Nothing is off the Shelf")
	v.post(fmt.Sprintf("/exercises/%d/remove", b.exercise), nil)
	_, page = v.get("/")
	wants(t, page, "Taken off the Shelf: 1")
	_, page = v.get("/exercises/removed")
	wants(t, page, "1 · First Lamp", "The Ferry Book", "one try logged")
	if status, to := v.post(fmt.Sprintf("/exercises/%d/restore", b.exercise), nil); status != http.StatusSeeOther || to != "/" {
		t.Fatalf("putting it back gives %d %s", status, to)
	}
	_, page = v.get("/")
	wants(t, page, "First Lamp", "It is back on the Shelf")
	if strings.Contains(page, "Taken off the Shelf") {
		t.Error("what was put back is still off the Shelf")
	}
	v.post(fmt.Sprintf("/exercises/%d/remove", b.exercise), nil)
	v.send("/exercises", map[string]string{"book": "The Ferry Book", "number": "1", "title": "Another", "abc": lamp}, "", nil)
	v.post(fmt.Sprintf("/exercises/%d/restore", b.exercise), nil)
	_, page = v.get("/")
	wants(t, page, "another exercise has its number now", "Taken off the Shelf: 1")
}
