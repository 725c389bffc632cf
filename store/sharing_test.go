package store_test

import (
	"context"
	"encoding/json"
	"errors"
	"reflect"
	"strings"
	"testing"

	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// given is a teacher whose class is given to a colleague, beside another class with a
// student named Hidden.
func given(t *testing.T, s *store.Store, teach bool) (f fixture, hidden store.Student, colleague *store.Desk) {
	t.Helper()
	ctx := context.Background()
	f = addMore(t, s, "owner")
	other, err := s.AddTeacher(ctx, "colleague@school.example", "Sam", "", "a long password")
	if err != nil {
		t.Fatal(err)
	}
	f.colleague = other.ID
	hidden = store.Student{FirstName: "Hidden", Instrument: "oboe"}
	if hidden.ClassID, err = f.AddClass(ctx, "Hidden class"); err != nil {
		t.Fatal(err)
	}
	if hidden.ID, err = f.AddStudent(ctx, hidden); err != nil {
		t.Fatal(err)
	}
	left, err := f.AddStudent(ctx, store.Student{ClassID: f.class, FirstName: "Hidden who left", Instrument: "oboe"})
	if err != nil {
		t.Fatal(err)
	}
	third := f.try(true, routine.None)
	third.StudentID = hidden.ID
	together := f.try(true, routine.None)
	if f.batch, err = f.AddTogether(ctx, "press of owner", together); err != nil {
		t.Fatal(err)
	}
	if err := errors.Join(f.HasLeft(ctx, left), f.AddAttempts(ctx, third), f.ShareClass(ctx, f.class, other.ID, teach)); err != nil {
		t.Fatal(err)
	}
	if colleague, err = s.InGiven(ctx, other.ID, store.Named{Class: f.class}); err != nil {
		t.Fatal(err)
	}
	return f, hidden, colleague
}

// guestWrites are the writes that a colleague may do who teaches a class.
var guestWrites = map[string]bool{"AddAttempts": true, "AddOnce": true, "AddTogether": true, "UndoAttempt": true, "UndoTogether": true, "SetCheckins": true, "SaveHomePlans": true, "DeleteHomePlan": true}

// A colleague who was given a class sees its students and the exercises, and of
// everything a desk can do nothing passes but, if they teach it, marks.
func TestAGivenClass(t *testing.T) {
	t.Parallel()
	for _, teach := range []bool{false, true} {
		s := testdb.Open(t)
		f, hidden, guest := given(t, s, teach)
		if want := (store.Guest{Class: f.class, Name: "Tuesday of owner", Teacher: "owner", Teach: teach}); guest.Guest() != want {
			t.Errorf("the guest is %+v", guest.Guest())
		}
		for name, read := range reads(guest, f) {
			got, err := read()
			text, _ := json.Marshal(got)
			if err != nil && !errors.Is(err, store.ErrNotFound) || strings.Contains(string(text), "Hidden") {
				t.Errorf("%s by a guest finds %s, %v", name, text, err)
			}
		}
		for name, read := range map[string]func() (any, error){
			"StudentByID":      func() (any, error) { return guest.StudentByID(t.Context(), hidden.ID) },
			"Students":         func() (any, error) { return guest.Students(t.Context(), hidden.ClassID) },
			"StudentAttempts":  func() (any, error) { return guest.StudentAttempts(t.Context(), hidden.ID) },
			"LatestAttempts":   func() (any, error) { return guest.LatestAttempts(t.Context(), hidden.ID, f.exercise, 9) },
			"StudentStandings": func() (any, error) { return spelled(guest.StudentStandings(t.Context(), hidden.ID)) },
			"ClassStandings":   func() (any, error) { return spelled(guest.ClassStandings(t.Context(), hidden.ClassID)) },
			"StudentCheckins":  func() (any, error) { return guest.StudentCheckins(t.Context(), hidden.ID, 9) },
			"ClassCheckins":    func() (any, error) { return guest.ClassCheckins(t.Context(), hidden.ClassID) },
			"OtherInstrument":  func() (any, error) { return guest.OtherInstrument(t.Context(), hidden) },
			"Activity":         func() (any, error) { return guest.Activity(t.Context()) },
			"Shares":           func() (any, error) { return guest.Shares(t.Context()) },
		} {
			if got, err := read(); !errors.Is(err, store.ErrNotFound) && (err != nil || reflect.ValueOf(got).Len() > 0) {
				t.Errorf("%s of another class finds %v, %v", name, got, err)
			}
		}
		before := picture(t, f)
		for name, write := range writes(guest, f) {
			if name == "SaveReading" { // which holds what the source says
				continue
			}
			err := write()
			switch {
			case teach && guestWrites[name]:
				if err != nil {
					t.Errorf("%s by a colleague who teaches gives %v", name, err)
				}
				continue
			case teach && strings.HasSuffix(name, "Lesson") || teach && (name == "SavePlan" || name == "AtStep" || strings.HasSuffix(name, "Checkin") || name == "SaveDue"):
				if err != nil && !errors.Is(err, store.ErrNotFound) { // it has ended, or begun, or gone meanwhile
					t.Errorf("%s by a colleague who teaches gives %v", name, err)
				}
			case !errors.Is(err, store.ErrNotFound) && !errors.Is(err, store.ErrOnlyLooking):
				t.Errorf("%s by a guest gives %v", name, err)
			}
			if teach {
				continue // marks have changed the picture
			}
			for read, text := range picture(t, f) {
				if text != before[read] {
					t.Errorf("%s by a guest changes what %s finds:\nfrom %s\nto   %s", name, read, before[read], text)
					before[read] = text
				}
			}
		}
		elsewhere := f.try(true, routine.None)
		elsewhere.StudentID = hidden.ID
		if err := guest.AddAttempts(t.Context(), elsewhere); !errors.Is(err, store.ErrNotFound) && !errors.Is(err, store.ErrOnlyLooking) {
			t.Errorf("a mark for a student of another class gives %v", err)
		}
	}
}

func TestMarksOfAColleagueBearTheirName(t *testing.T) {
	t.Parallel()
	s := testdb.Open(t)
	f, _, guest := given(t, s, true)
	if err := guest.AddAttempts(t.Context(), f.try(false, routine.Rhythm)); err != nil {
		t.Fatal(err)
	}
	log, err := f.StudentAttempts(t.Context(), f.student)
	if err != nil || log[0].By != "Sam" || log[1].By != "" {
		t.Errorf("the log is by %q and %q, %v", log[0].By, log[1].By, err)
	}
}

// A class is found by whatever is named of it, and no longer once it is taken back,
// taken away, or its teacher is gone.
func TestAClassTakenBack(t *testing.T) {
	t.Parallel()
	ctx := context.Background()
	for what, end := range map[string]func(*store.Store, fixture) error{
		"taken back":       func(_ *store.Store, f fixture) error { return f.StopSharing(ctx, f.class, f.colleague) },
		"taken away":       func(_ *store.Store, f fixture) error { return f.MoveToTrash(ctx, store.TrashClass, int64(f.class)) },
		"its teacher gone": func(s *store.Store, f fixture) error { return s.RemoveTeacher(ctx, f.teacher, f.teacher) },
	} {
		s := testdb.Open(t)
		f, hidden, _ := given(t, s, true)
		named := []store.Named{{Class: f.class}, {Student: f.student}, {Attempt: f.attempt}}
		for _, n := range named {
			if _, err := s.InGiven(ctx, f.colleague, n); err != nil {
				t.Errorf("by %+v: %v", n, err)
			}
			if _, err := s.InGiven(ctx, f.teacher, n); !errors.Is(err, store.ErrNotFound) {
				t.Errorf("its own teacher is a guest by %+v: %v", n, err)
			}
		}
		for _, n := range []store.Named{{}, {Class: hidden.ClassID}, {Student: hidden.ID}} {
			if _, err := s.InGiven(ctx, f.colleague, n); !errors.Is(err, store.ErrNotFound) {
				t.Errorf("by %+v, which was not given: %v", n, err)
			}
		}
		if list, err := s.Given(ctx, f.colleague); err != nil || len(list) != 1 {
			t.Errorf("given are %v, %v", list, err)
		}
		if err := end(s, f); err != nil {
			t.Fatal(err)
		}
		for _, n := range named {
			if _, err := s.InGiven(ctx, f.colleague, n); !errors.Is(err, store.ErrNotFound) {
				t.Errorf("%s, by %+v: %v", what, n, err)
			}
		}
		if list, err := s.Given(ctx, f.colleague); err != nil || len(list) != 0 {
			t.Errorf("%s, given are %v, %v", what, list, err)
		}
	}
}
