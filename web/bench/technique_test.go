package bench_test

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
)

// Technique is shown as everybody in the class reads it, and becomes an exercise of its own book.
func TestTechnique(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	line := s.Exercise(t, account.ID, 7, "Two Ways", "", "T:Two Ways\nM:4/4\nL:1/4\nK:C\nc d e f|g4|e2 d c|c4|]\n")
	at := fmt.Sprintf("/technique?class=%d", b.Class)
	_, page := v.Get(at + "&kind=scale&key=-2")
	testsite.Wants(t, page, "The scale, concert B flat major", "Trombone", "Make it an exercise")
	_, page = v.Get(at + "&kind=lip-slurs")
	testsite.Wants(t, page, "Lip slurs, trombone")
	_, page = v.Get(at + "&kind=rhythm")
	testsite.Wants(t, page, "Choose the line whose rhythms are wanted.")
	if status, page := v.Post("/technique", url.Values{"class": {fmt.Sprint(b.Class)}, "kind": {"rhythm"}}); status != http.StatusUnprocessableEntity {
		t.Errorf("a rhythm line of nothing gives %d: %.200s", status, page)
	}
	_, made := v.Post("/technique", url.Values{"class": {fmt.Sprint(b.Class)}, "kind": {"rhythm"}, "key": {"-2"}, "exercise": {fmt.Sprint(line)}})
	_, page = v.Get(made)
	testsite.Wants(t, page, "Rhythm line, concert B flat major", "is exercise 1 of Technique")
	if _, page = v.Get("/"); !strings.Contains(page, "Technique") {
		t.Error("its book is not on the Shelf")
	}
}

// A led run is laid out for whoever is at the Bench and for a class, keeps to the minutes asked
// for, and says what it is without scripts.
func TestWalkPage(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	line := s.Exercise(t, account.ID, 7, "Two Ways", "", "T:Two Ways\nM:4/4\nL:1/4\nK:C\nc d e f|g4|e2 d c|c4|]\n")
	at := fmt.Sprintf("/bench/%d/walk?class=%d&instrument=trombone", line, b.Class)
	_, page := v.Get(at)
	testsite.Wants(t, page, "What we do with this line", "Clap and count the line with me.", "Trombone starts on", "Walk me through it")
	_, page = v.Get(at + "&lead=yes&unit=chunk")
	testsite.Wants(t, page, "Lead the class", "without me.", "A video for each instrument")
	_, page = v.Get(at + "&minutes=1&unit=chunk")
	testsite.Wants(t, page, "are left out to keep to the minutes")
	for _, bad := range []string{"&minutes=-4", "&minutes=9999", "&unit=page", "&tempo=9999", "&student=999999"} {
		if status, page := v.Get(at + bad); status != http.StatusOK && status != http.StatusNotFound {
			t.Errorf("%s gives %d: %.200s", bad, status, page)
		}
	}
	_, data := v.Get(strings.Replace(at, "/walk?", "/walk/data?", 1))
	testsite.Wants(t, data, `"file":"`, `07 trombone"`, `"moves":`)
}

// Before a line it is said what of it nobody has earned, by instrument, where that is first met,
// and how to get there in two minutes.
func TestBeforeALine(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	first := s.Exercise(t, account.ID, 7, "Dotted", "", "T:Dotted\nM:4/4\nL:1/4\nK:C\nc3/2 d/ c2|c4|]\n")
	line := s.Exercise(t, account.ID, 8, "After It", "", "T:After It\nM:4/4\nL:1/4\nK:C\nc3/2 d/ c2|_e4|]\n")
	_, page := v.Get(fmt.Sprintf("/bench/%d/before?class=%d", line, b.Class))
	testsite.Wants(t, page, "dotted quarter note", "7 · Dotted", fmt.Sprintf("/bench/%d/walk?", first), "two minutes", "everybody", "new here")
}

// By ear nothing of a line is shown but what is asked for, and its beginning is what is heard.
func TestByEar(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	line := s.Exercise(t, account.ID, 7, "Two Ways", "", "T:Two Ways\nM:4/4\nL:1/4\nK:C\nc d e f|g4|e2 d c|c4|]\n")
	at := fmt.Sprintf("/bench/%d/ear?class=%d&instrument=trombone", line, b.Class)
	_, page := v.Get(at)
	testsite.Wants(t, page, "Hear the first 5 notes", `data-first="C"`, `data-all="C, D, E natural, F, G"`)
	_, page = v.Get(at + "&notes=999")
	testsite.Wants(t, page, "Hear the first 9 notes")
	_, page = v.Get(strings.Replace(at, "trombone", "snare", 1))
	testsite.Wants(t, page, "Nothing to find by ear")
}
