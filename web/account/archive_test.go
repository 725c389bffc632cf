package account_test

import (
	"archive/zip"
	"bytes"
	"context"
	"fmt"
	"io"
	"net/http"
	"strings"
	"testing"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// A teacher takes everything along and brings it into another account, where the pages
// show it; what is no such file is refused in a sentence.
func TestTakingEverythingAlong(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	desk := s.Store.For(account.ID)
	for _, err := range []error{
		desk.SaveSettings(context.Background(), store.Settings{"school": "takadimi", "cue-1": "one more"}),
		desk.SaveFingering(context.Background(), b.Exercise, "oboe", score.Place{Event: 1}, finger.Spot{Pitch: 60, Text: "no fingering at all"}),
	} {
		if err != nil {
			t.Fatal(err)
		}
	}
	status, file := v.Get("/account/archive")
	if status != http.StatusOK {
		t.Fatalf("the archive gives %d", status)
	}
	other, _ := s.Teacher(t, "b@school.example")
	importArchiveRows := func(name string, data []byte) (int, string) {
		return other.Send("/account/archive", nil, name, data)
	}
	if status, to := importArchiveRows("all.zip", []byte(file)); status != http.StatusSeeOther {
		t.Fatalf("bringing it in gives %d %s", status, to)
	}
	_, page := other.Get("/account")
	testsite.Wants(t, page, "Imported: 1 books with 1 exercises, 1 classes with 1 students, 1 tries.")
	for path, words := range map[string][]string{"/": {"First Lamp"}, "/people": {"Ines P.", "Tuesday brass"}, "/settings": {"one more"}, "/board": {"Ines P."}} {
		_, page := other.Get(path)
		testsite.Wants(t, page, words...)
	}
	exercises, err := s.Store.For(testsite.TeacherID(t, s, "b@school.example")).Exercises(context.Background())
	if err != nil || len(exercises) != 1 {
		t.Fatalf("there are %d exercises, %v", len(exercises), err)
	}
	for _, instrument := range []string{"trombone", "oboe"} { // with a fingering that is none
		if status, _ := other.Get(fmt.Sprintf("/bench/%d?instrument=%s", exercises[0].ID, instrument)); status != http.StatusOK {
			t.Errorf("the Bench for %s gives %d", instrument, status)
		}
	}
	for says, data := range map[string][]byte{
		"no archive":           []byte("T:not a zip"),
		"Choose the file":      nil,
		"which is not known":   withOwned(t, file, `"cue-1"`, `"cue-9"`),
		"a way of counting":    withOwned(t, file, `"takadimi"`, `"abacus"`),
		"longer than 12":       withOwned(t, file, `"one more"`, `"one more and one more"`),
		"made from part 99999": withOwned(t, file, `"part": 0`, `"part": 99999`),
	} {
		name := "all.zip"
		if data == nil {
			name = ""
		}
		status, page := importArchiveRows(name, data)
		if status != http.StatusUnprocessableEntity || !strings.Contains(page, "Nothing was brought in") || !strings.Contains(page, says) {
			t.Errorf("%s: %d", says, status)
		}
	}
	if books, err := s.Store.For(testsite.TeacherID(t, s, "b@school.example")).Books(context.Background()); err != nil || len(books) != 1 {
		t.Errorf("what was refused leaves %d books, %v", len(books), err)
	}
}

// withOwned is an archive with a text replaced in owned.json.
func withOwned(t *testing.T, file, old, by string) []byte {
	t.Helper()
	z, err := zip.NewReader(strings.NewReader(file), int64(len(file)))
	if err != nil {
		t.Fatal(err)
	}
	var b bytes.Buffer
	out := zip.NewWriter(&b)
	for _, f := range z.File {
		in, err := f.Open()
		if err != nil {
			t.Fatal(err)
		}
		content, err := io.ReadAll(in)
		if err != nil {
			t.Fatal(err)
		}
		w, err := out.Create(f.Name)
		if err != nil {
			t.Fatal(err)
		}
		if f.Name == "owned.json" {
			if !bytes.Contains(content, []byte(old)) {
				t.Errorf("there is no %s", old)
			}
			content = bytes.Replace(content, []byte(old), []byte(by), 1)
		}
		if _, err := w.Write(content); err != nil {
			t.Fatal(err)
		}
	}
	if err := out.Close(); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}
