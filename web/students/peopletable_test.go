package students_test

import (
	"context"
	"encoding/csv"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/table"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/web/students"
)

// Each line of a table says what it will do, whatever its columns are called and in
// whatever order they stand.
func TestWhatATableWillDo(t *testing.T) {
	t.Parallel()
	known := students.Known(
		[]store.Class{{ID: 1, Name: "Tuesday brass"}, {ID: 2, Name: "Friday"}},
		[]store.Student{
			{ID: 1, ClassID: 1, FirstName: "Ines", Initial: "P", Instrument: "trombone", Note: "window", DuetPart: "A"},
			{ID: 2, ClassID: 1, FirstName: "Sam", Initial: "K", Instrument: "flute"}, {ID: 3, ClassID: 2, FirstName: "Sam", Initial: "K", Instrument: "violin"},
			{ID: 7, ClassID: 1, FirstName: "Ada", Initial: "B", Instrument: "flute"}, {ID: 8, ClassID: 2, FirstName: "Ada", Initial: "B", Instrument: "cello", AlsoOf: 7},
			{ID: 4, ClassID: 1, FirstName: "Kim", Instrument: "oboe"}, {ID: 5, ClassID: 1, FirstName: "Kim", Instrument: "oboe"},
		},
		[]store.Student{{ID: 6, ClassID: 2, FirstName: "Wim", Initial: "L", Instrument: "tuba-bb"}})
	for _, tt := range []struct{ text, want string }{
		{"Nour,A,trombone,Tuesday brass", "is new in Tuesday brass"},
		{"Nour,Almasi,trombone,tuesday BRASS", "is new in Tuesday brass"},
		{"Nour,A,trombone,Period 5", "is new in Period 5, a new class"},
		{"Class;Instrument;First name\nFriday;horn in F;Nour", "is new in Friday"},
		{"Ines\tP\ttrombone\tTuesday brass", "is there already"},
		{"ines,p.,trombone,Tuesday brass", "is there already"},
		{"Ines,P,trombone,Friday", "moves from Tuesday brass to Friday"},
		{"Ines,P,trombone", "is there already"},
		{"Ines,P,euphonium in bass clef,Friday", "moves from Tuesday brass to Friday, plays the euphonium in bass clef instead of the trombone"},
		{"First name,Initial,Instrument,Note\nInes,P,trombone,door", "has another note"},
		{"First name,Initial,Instrument,Line\nInes,P,trombone,b", "has part B"},
		{"Sam,K,violin,Tuesday brass", "moves from Friday to Tuesday brass"},
		{"Sam,K,cello,Friday", "plays the cello instead of the violin"},
		{"Wim,L,tuba in B flat,Tuesday brass", "comes back to Tuesday brass"},
		{"Kim,,oboe,Tuesday brass", "! 2 students are called Kim."},
		{"Nour,A,kazoo,Friday", "! No instrument is called “kazoo” here."},
		{"Nour,A,,Friday", "! The instrument is missing."},
		{",A,oboe,Friday", "! The first name is missing."},
		{"Nour,A,oboe", "! The class is missing."},
		{"Nour,A,oboe,Friday,C", "! The duet part is A, B or nothing."},
		{strings.Repeat("n", 41) + ",A,oboe,Friday", "! The first name is longer than 40 letters."},
		{"Ada,B,flute,Tuesday brass\nAda,B,cello,Friday,,,yes", "is there already|is there already"},
		{"Ada,B,cello,Friday", "is there already"},
		{"Ada,B,oboe,Tuesday brass", "plays the oboe instead of the flute"},
		{"Ada,B,viola,Friday,,,yes", "plays the viola instead of the cello"},
		{"Ines,P,viola,,,,yes", "takes up the viola too, in Tuesday brass"},
		{"Ines,P,viola,Strings,,,x", "takes up the viola too, in Strings"},
		{"Nour,A,trombone,Period 5\nNour,A,viola,,,,yes", "is new in Period 5, a new class|takes up the viola too, in Period 5"},
		{"Nour,A,viola,Friday,,,yes", "! Nobody called Nour A. has a first instrument here. Give that a line above this one."},
		{"Wim,L,viola,Friday,,,yes", "! Nobody called Wim L. has a first instrument here. Give that a line above this one."},
		{"Sam,K,viola,Friday,,,yes", "! 2 students are called Sam K. Add the instrument to the one you mean in Students."},
		{"Ines,P,trombone,Friday,,,yes", "! Ines P. plays that already."},
		{"Ines,P,viola,Friday,,,maybe", "! Under “second instrument” stands yes or nothing."},
		{"Ines,P,trombone,Friday\nInes,P,trombone,Tuesday brass", "moves from Tuesday brass to Friday|! Line 1 is about the same student."},
		{"Ines,P,trombone,Friday\nInes,P,oboe,Friday", "moves from Tuesday brass to Friday|! Line 1 is about the same student."},
	} {
		rows, err := table.Read(tt.text)
		if err != nil {
			t.Fatal(err)
		}
		var does []string
		for _, line := range students.ReadTable(rows, known) {
			if line.Problem != "" {
				line.Does = "! " + line.Problem
			}
			does = append(does, line.Does)
		}
		got := strings.Join(does, "|")
		if got != tt.want && !(strings.HasPrefix(tt.want, "! 2") && strings.HasPrefix(got, tt.want)) {
			t.Errorf("%q: %q, want %q", tt.text, got, tt.want)
		}
	}
}

// A file of an older spreadsheet is looked at, mended, kept as a whole, and comes out again
// as a table that changes nothing.
func TestATableOfStudents(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	b, desk := testsite.Furnish(t, s.Store, account.ID), s.Store.For(account.ID) // Ines P., trombone, in Tuesday brass
	_, page := v.Get("/people/table")
	testsite.Wants(t, page, "Columns: first name, initial, instrument, class")
	old := "First name;Last name;Instrument;Class;Notes\r\nZo\xeb;Quist;oboe;Period 5;\"sits; by the \"\"door\"\"\"\r\nInes;P;kazoo;Period 5;\r\n"
	status, page := v.SendAs("file", "/people/table", nil, [2]string{"students.csv", old})
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a table with a fault gives %d", status)
	}
	testsite.Wants(t, page, "1 line was not understood; nothing is kept.", "No instrument is called “kazoo” here.", "Zoë Q.", "is new in Period 5, a new class", "Zoë;Quist;oboe")
	mended := "First name;Last name;Instrument;Class;Notes\nZoë;Quist;oboe;Period 5;\"sits; by the \"\"door\"\"\"\nInes;P;trombone;Period 5;=1+1\n"
	status, page = v.Post("/people/table", url.Values{"table": {mended}})
	testsite.Wants(t, page, "1 is new · 1 moves", "moves from Tuesday brass to Period 5, has another note", "Do it, all 2")
	if students, err := desk.Students(ctx, b.Class); status != http.StatusOK || err != nil || len(students) != 1 {
		t.Errorf("looking at it gives %d, and leaves %d students, %v", status, len(students), err)
	}
	if status, _ := v.Post("/people/table", url.Values{"table": {mended}, "seen": {"yes"}}); status != http.StatusSeeOther {
		t.Fatalf("keeping it gives %d", status)
	}
	_, page = v.Get("/people")
	testsite.Wants(t, page, "The table is in: 1 is new, 1 moves.", "Period 5", "Zoë Q.")
	_, text := v.Get("/people/students.csv")
	rows, err := csv.NewReader(strings.NewReader(text)).ReadAll()
	if err != nil || fmt.Sprint(rows) != `[[First name Initial Instrument Class Line Note Second instrument] [Ines P trombone Period 5  '=1+1 ] [Zoë Q oboe Period 5  sits; by the "door" ]]` {
		t.Errorf("it comes out as %v, %v", rows, err)
	}
	_, page = v.Post("/people/table", url.Values{"table": {text}})
	testsite.Wants(t, page, "2 are there already", "Everybody in it is there already")
	for _, bad := range []string{"", "a,b\nc\"d,e\n", strings.Repeat("x,y\n", table.MostRows+1)} {
		if status, _ := v.Post("/people/table", url.Values{"table": {bad}}); status != http.StatusUnprocessableEntity {
			t.Errorf("a table of %d letters gives %d", len(bad), status)
		}
	}
}

// A note stays with the student, and is bounded.
func TestANoteAboutAStudent(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	at := fmt.Sprintf("/students/%d", b.Student)
	v.Post(at+"/note", url.Values{"note": {" Braces since May. "}})
	_, page := v.Get(at)
	testsite.Wants(t, page, "The note is saved.", ">Braces since May.</textarea>")
	v.Post(at+"/note", url.Values{"note": {strings.Repeat("é", store.LongestNote+1)}})
	_, page = v.Get(at)
	testsite.Wants(t, page, "The note is longer than 1000 letters.", ">Braces since May.</textarea>")
	if text := s.Log.String(); strings.Contains(text, "Braces") {
		t.Error("the note is in the log")
	}
}
