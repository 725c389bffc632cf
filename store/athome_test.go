package store_test

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"

	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// Who opens a page sees one student, writes for that one alone, and changes nothing that the
// teacher has marked.
func TestAStudentSeesThemselvesAlone(t *testing.T) {
	t.Parallel()
	ctx, s := context.Background(), testdb.Open(t)
	f, other := add(t, s, "first"), add(t, s, "second")
	home, theirs := f.openOwnPage(t, s), other.openOwnPage(t, s)
	classmate, err := f.AddStudent(ctx, store.Student{ClassID: f.class, FirstName: "Classmate", Initial: "C", Instrument: "oboe"})
	if err != nil {
		t.Fatal(err)
	}
	d := home.Desk()
	for what, id := range map[string]store.StudentID{"a classmate": classmate, "another teacher's": other.student} {
		if _, err := d.StudentByID(ctx, id); !errors.Is(err, store.ErrNotFound) {
			t.Errorf("%s is seen: %v", what, err)
		}
		if log, err := d.StudentAttempts(ctx, id); err != nil || len(log) > 0 {
			t.Errorf("%s's log is seen: %v, %v", what, log, err)
		}
	}
	if students, err := d.Students(ctx, f.class); err != nil || len(students) != 1 || students[0].ID != f.student {
		t.Errorf("the class as a student sees it is %v, %v", students, err)
	}
	if standings, err := d.ClassStandings(ctx, f.class); err != nil || len(standings) > 1 {
		t.Errorf("where the class stands is seen: %v, %v", standings, err)
	}
	for what, err := range map[string]error{
		"marks":         d.AddAttempts(ctx, f.try(true, "")),
		"a plan":        d.DeleteHomePlan(ctx, f.student),
		"a page":        d.MakeOwnPages(ctx, f.student),
		"their own PIN": d.SetPIN(ctx, f.student, ""),
	} {
		if err == nil {
			t.Errorf("a student changes %s", what)
		}
	}
	if err := theirs.Say(ctx, f.homeTry("stolen")); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a try at another teacher's exercise: %v", err)
	}
	if page, err := d.OwnPageOf(ctx, f.student); err == nil {
		t.Errorf("a student's desk tells keys: %v", page)
	}
	before, _ := f.StudentAttempts(ctx, f.student)
	tries, err := f.HomeTries(ctx, 0, f.student, time.Time{})
	if err != nil || len(tries[f.student]) != 1 || len(before) != 1 {
		t.Errorf("%d tries at home and %d of the log, %v", len(tries[f.student]), len(before), err)
	}
}

// What is sent twice counts once, and a day has an end.
func TestSentTwiceCountsOnce(t *testing.T) {
	t.Parallel()
	ctx, s := context.Background(), testdb.Open(t)
	f := add(t, s, "first")
	home := f.openOwnPage(t, s)
	for range 3 {
		for _, err := range []error{home.Say(ctx, f.homeTry("a")), home.AnswerCards(ctx, f.cardAnswer("a"), f.cardAnswer("b")), home.Tick(ctx, store.HomeTick{On: time.Now(), Line: "warm"})} {
			if err != nil {
				t.Fatal(err)
			}
		}
	}
	tries, _ := f.HomeTries(ctx, f.class, 0, time.Time{})
	answers, _ := f.CardAnswers(ctx, f.student, "flute")
	ticks, err := f.HomeTicks(ctx, f.class, 0, time.Time{})
	if err != nil || len(tries[f.student]) != 2 || len(answers) != 3 || len(ticks[f.student]) != 2 {
		t.Errorf("%d tries, %d answers, %d lines, %v; want 2, 3 and 2", len(tries[f.student]), len(answers), len(ticks[f.student]), err)
	}
	if other, _ := f.CardAnswers(ctx, f.student, "violin"); len(other) > 0 {
		t.Errorf("on another instrument there are %v", other)
	}
	many := make([]store.CardAnswer, 601)
	for k := range many {
		many[k] = f.cardAnswer(fmt.Sprint("many ", k))
	}
	if err := home.AnswerCards(ctx, many...); !errors.Is(err, store.ErrTooMuch) {
		t.Errorf("601 answers in a day: %v", err)
	}
	if answers, _ := f.CardAnswers(ctx, f.student, "flute"); len(answers) != 3 {
		t.Errorf("some of too many were kept: %d", len(answers))
	}
}

func TestThePIN(t *testing.T) {
	t.Parallel()
	ctx, s := context.Background(), testdb.Open(t)
	f := add(t, s, "first")
	home := f.openOwnPage(t, s)
	if home.PIN || home.Stamp != "" {
		t.Error("a PIN is asked for that nobody has set")
	}
	if err := f.SetPIN(ctx, f.student, "0417"); err != nil {
		t.Fatal(err)
	}
	try := func(pin string, want store.Tried) {
		t.Helper()
		if got, err := home.TryPIN(ctx, pin); got != want || err != nil {
			t.Fatalf("%s: %d, %v, want %d", pin, got, err, want)
		}
	}
	later := func() {
		if _, err := s.DB().ExecContext(ctx, `UPDATE own_pages SET wrong_at = wrong_at - interval '16 minutes'`); err != nil {
			t.Fatal(err)
		}
	}
	for range store.WrongBeforeWait - 1 {
		try("1111", store.PINWrong)
	}
	try("0417", store.PINRight) // which forgets the wrong ones
	for range store.WrongBeforeWait - 1 {
		try("1111", store.PINWrong)
	}
	try("1111", store.PINWaits)
	try("0417", store.PINWaits) // even the right one
	for range store.WrongBeforeClose - store.WrongBeforeWait - 1 {
		later()
		try("1111", store.PINWaits)
	}
	later()
	try("1111", store.PINClosed)
	later()
	try("0417", store.PINClosed)
	page, err := f.OwnPageOf(ctx, f.student)
	if err != nil || !page.Locked || !page.PIN {
		t.Errorf("the teacher sees %+v, %v", page, err)
	}
	first, _ := s.AtHome(ctx, home.Key)
	if err := f.SetPIN(ctx, f.student, "2605"); err != nil {
		t.Fatal(err)
	}
	try("2605", store.PINRight)
	if again, err := s.AtHome(ctx, home.Key); err != nil || again.Stamp == first.Stamp || !again.PIN {
		t.Errorf("with another PIN nobody has to type it: %v", err)
	}
}

// A link leads nowhere once it is ended or made again, or the student, their class or their
// teacher is gone.
func TestALinkThatEnds(t *testing.T) {
	t.Parallel()
	ctx := context.Background()
	for what, end := range map[string]func(s *store.Store, f fixture) error{
		"the teacher's account is gone": func(s *store.Store, f fixture) error { return s.RemoveTeacher(ctx, f.teacher, f.teacher) },
		"ended":                         func(_ *store.Store, f fixture) error { return f.EndOwnPage(ctx, f.student) },
		"made anew":                     func(_ *store.Store, f fixture) error { return f.MakeOwnPages(ctx, f.student) },
		"the student has left":          func(_ *store.Store, f fixture) error { return f.HasLeft(ctx, f.student) },
		"the student is removed":        func(_ *store.Store, f fixture) error { return f.MoveToTrash(ctx, store.TrashStudent, int64(f.student)) },
		"the class is taken off":        func(_ *store.Store, f fixture) error { return f.MoveToTrash(ctx, store.TrashClass, int64(f.class)) },
	} {
		s := testdb.Open(t)
		f := add(t, s, "first")
		home := f.openOwnPage(t, s)
		if len(home.Key) < 26 || strings.Contains(home.Key, fmt.Sprint(int64(f.student))+"-") {
			t.Errorf("the key is %q", home.Key)
		}
		if err := end(s, f); err != nil {
			t.Fatalf("%s: %v", what, err)
		}
		if _, err := s.AtHome(ctx, home.Key); !errors.Is(err, store.ErrNotFound) {
			t.Errorf("%s, and the link opens the page: %v", what, err)
		}
	}
	if _, err := testdb.Open(t).AtHome(ctx, ""); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("no key opens a page: %v", err)
	}
}
