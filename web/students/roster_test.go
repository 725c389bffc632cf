package students_test

import (
	"context"
	"fmt"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/web/students"
)

// Lists as teachers have them: from a table, from a register, typed.
func TestReadingARoster(t *testing.T) {
	t.Parallel()
	for line, want := range map[string]string{
		"Ines P trombone":                      "Ines|P|trombone|",
		"Ines, P., Trombone":                   "Ines|P|trombone|",
		"Tomo\tK\tclarinet":                    "Tomo|K|clarinet|",
		"Amara N. violin":                      "Amara|N|violin|",
		"Mary Ann B bass clarinet":             "Mary Ann|B|bass-clarinet|",
		"Kofi Boateng alto sax":                "Kofi|B|alto-sax|family names",
		"Lena; S; horn":                        "Lena|S|horn-f|",
		"Oscar snare drum":                     "Oscar||snare|",
		"Émile Ö double bass":                  "Émile|Ö|bass|",
		"Rose T E flat clarinet":               "Rose|T|eb-clarinet|",
		"Ines P B. Cl.":                        "Ines|P|bass-clarinet|",
		"Nour A Tpt. 2":                        "Nour|A|trumpet|",
		"Lou A. Sax":                           "Lou||alto-sax|",
		"Tom B Cl":                             "!may be bass clarinet or clarinet",
		"Tom Bass":                             "!may be bass clarinet, tuba in B flat or double bass",
		"Ana P Percussion":                     "!Write which",
		"Theo G":                               "!No instrument",
		"Piet":                                 "!A line is",
		"trombone Piet":                        "!first name is missing",
		strings.Repeat("a", 41) + " B trumpet": "!longer than 40",
	} {
		got := students.ReadRosterLine(line, nil)
		if problem, wrong := strings.CutPrefix(want, "!"); wrong {
			if !strings.Contains(got.Problem, problem) {
				t.Errorf("%q says %q and is %+v", line, got.Problem, got.Student)
			}
			continue
		}
		parts := strings.Split(want, "|")
		s := got.Student
		if got.Problem != "" || s.FirstName != parts[0] || s.Initial != parts[1] || s.Instrument != parts[2] ||
			(parts[3] == "") != (got.Note == "") || !strings.Contains(got.Note, parts[3]) {
			t.Errorf("%q is read as %+v, %q, %q", line, s, got.Note, got.Problem)
		}
	}
}

// What may be several instruments is read by what else is in the list.
func TestDoubtfulInstruments(t *testing.T) {
	t.Parallel()
	for list, want := range map[string]string{
		"Ana P alto\nBo K violin\nCy L cello":   "viola violin cello",
		"Ana P alto\nBo K trumpet\nCy L tbn":    "alto-sax trumpet trombone",
		"Ana P bass\nBo K violin\nCy L vla":     "bass violin viola",
		"Ana P bass\nBo K trumpet\nCy L flute":  "? trumpet flute",
		"Ana P alto\nBo K violin\nCy L trumpet": "? violin trumpet",
	} {
		var got []string
		for n, line := range students.ReadRoster(list) {
			id := line.Student.Instrument
			if line.Problem != "" {
				id = "?"
			}
			if got = append(got, id); line.Number != n+1 {
				t.Errorf("line %d is numbered %d", n+1, line.Number)
			}
		}
		if strings.Join(got, " ") != want {
			t.Errorf("%q is read as %v, want %s", list, got, want)
		}
	}
}

// A list is seen before it is kept, keeps what was typed when it is not understood, and
// is kept whole.
func TestARosterIsSeenBeforeItIsKept(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	desk := s.Store.For(account.ID)
	form := url.Values{"name": {"Tuesday"}, "list": {"Ines P trombone\n\nTomo K kazoo\nBea L clarinet\n"}}
	status, page := v.Post("/classes", form)
	if status != 422 {
		t.Errorf("a line that is not understood gives %d", status)
	}
	testsite.Wants(t, page, "1 line was not understood", "<td>3</td>", "Tomo K kazoo", "Bea L clarinet", `value="Tuesday"`)
	if classes, err := desk.Classes(context.Background()); err != nil || len(classes) != 0 {
		t.Errorf("a class was made: %+v, %v", classes, err)
	}
	form.Set("list", "Ines P trombone\nTomo Kowalski violin\n")
	_, page = v.Post("/classes", form)
	testsite.Wants(t, page, "Nothing is kept yet", "Keep 2 students", "“Kowalski” is kept as K")
	form.Set("seen", "yes")
	if status, page = v.Post("/classes", form); status != 303 || page != "/people" {
		t.Fatalf("keeping it gives %d to %s", status, page)
	}
	classes, err := desk.Classes(context.Background())
	if err != nil || len(classes) != 1 || classes[0].Students != 2 {
		t.Fatalf("the classes are %+v, %v", classes, err)
	}
	_, page = v.Get("/people")
	testsite.Wants(t, page, "2 students are now in Tuesday.", "Tomo K.", "violin")
	if strings.Contains(page, "Kowalski") {
		t.Error("a family name was kept")
	}
	if status, page = v.Post("/classes", form); status != 409 || !strings.Contains(page, "There is a class called Tuesday already") {
		t.Errorf("the same class again gives %d", status)
	}
	more := url.Values{"list": {"Rosa T cello"}, "seen": {"yes"}}
	if status, _ = v.Post(fmt.Sprintf("/classes/%d/list", classes[0].ID), more); status != 303 {
		t.Errorf("one more gives %d", status)
	}
	long := strings.Repeat("Rosa T cello\n", students.LongestRoster)
	for list, want := range map[string]int{long: 303, long + "Emil F cello\n": 422} {
		status, page = v.Post(fmt.Sprintf("/classes/%d/list", classes[0].ID), url.Values{"list": {list}, "seen": {"yes"}})
		if status != want || want == 422 && !strings.Contains(page, "A list holds at most 200 students") {
			t.Errorf("a list of %d lines gives %d", strings.Count(list, "\n"), status)
		}
	}
	if status, page = v.Post(fmt.Sprintf("/classes/%d/list", classes[0].ID), url.Values{"list": {"  \n"}}); status != 422 || !strings.Contains(page, "The list is empty") {
		t.Errorf("an empty list gives %d", status)
	}
}
