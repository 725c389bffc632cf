package store_test

import (
	"context"
	"errors"
	"fmt"
	"testing"

	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// A table adds students, moves them, brings them back and makes classes, all of it or
// nothing; logs stay.
func TestBringRoster(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	gone, err := f.AddStudent(ctx, store.Student{ClassID: f.class, FirstName: "Wim", Instrument: "flute"})
	if err == nil {
		err = f.HasLeft(ctx, gone)
	}
	if err != nil {
		t.Fatal(err)
	}
	who := func() string {
		t.Helper()
		classes, err := f.Classes(ctx)
		if err != nil {
			t.Fatal(err)
		}
		said := ""
		for _, class := range classes {
			students, err := f.Students(ctx, class.ID)
			if err != nil {
				t.Fatal(err)
			}
			said += class.Name + ":"
			for _, student := range students {
				said += fmt.Sprintf(" %s %s%s%s", student.FirstName, student.Instrument, student.DuetPart, student.Note)
			}
			said += "; "
		}
		return said
	}
	before := who()
	changes := []store.RosterChange{
		{Student: store.Student{FirstName: "Nour", Initial: "A", Instrument: "oboe", DuetPart: "B", Note: "!"}, NewClass: "Friday"},
		{Student: store.Student{FirstName: "Pim", Instrument: "tuba-bb"}, NewClass: "Friday"},
		{Student: store.Student{ID: f.student, FirstName: "Ines", Initial: "P", Instrument: "euphonium-bc"}, NewClass: "Friday"},
		{Student: store.Student{ID: gone, ClassID: f.class, FirstName: "Wim", Instrument: "flute"}, Back: true},
	}
	bad := append(changes[:3:3], store.RosterChange{Student: store.Student{ID: 999, ClassID: f.class, FirstName: "x", Instrument: "flute"}})
	if err := f.BringRoster(ctx, bad); !errors.Is(err, store.ErrNotFound) || who() != before {
		t.Errorf("a table with somebody who is not there gives %v, and leaves %s", err, who())
	}
	if err := f.BringRoster(ctx, changes); err != nil {
		t.Fatal(err)
	}
	if got, want := who(), "Friday: Ines euphonium-bc Nour oboeB! Pim tuba-bb; Tuesday of a: Wim flute; Tuesday of a: Low of a:; "; got != want {
		t.Errorf("then there are %s, want %s", got, want)
	}
	if log, err := f.StudentAttempts(ctx, f.student); err != nil || len(log) != 1 {
		t.Errorf("the log of who moved has %d tries, %v", len(log), err)
	}
	if err := f.BringRoster(ctx, changes[:1]); !errors.Is(err, store.ErrTaken) {
		t.Errorf("a second class of one name gives %v", err)
	}
}
