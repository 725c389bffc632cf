package web

import (
	"context"
	"fmt"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/store"
)

// Signing in returns to the address that was asked for, and to no other site.
func TestSigningInReturnsToWhatWasAskedFor(t *testing.T) {
	s := open(t)
	_, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	v := s.visitor(t)
	asked := fmt.Sprintf("/bench/%d?instrument=oboe&stage=name", b.exercise)
	_, door := v.get(asked)
	if door != "/sign-in?to="+url.QueryEscape(asked) {
		t.Fatalf("without signing in it leads to %s", door)
	}
	_, page := v.get(door)
	wants(t, page, `name="to" value="`+strings.ReplaceAll(asked, "&", "&amp;")+`"`)
	form := url.Values{"email": {"a@school.example"}, "password": {"wrong"}, "to": {asked}}
	_, page = v.post("/sign-in", form)
	wants(t, page, strings.ReplaceAll(asked, "&", "&amp;")) // it is not lost over a wrong password
	form.Set("password", password)
	if _, to := v.post("/sign-in", form); to != asked {
		t.Errorf("signing in leads to %s, want %s", to, asked)
	}
	for _, elsewhere := range []string{"https://evil.example/", "//evil.example/", "/\\evil.example", "javascript:alert(1)", "bench/1", "/sign-out"} {
		form.Set("to", elsewhere)
		if _, to := s.visitor(t).post("/sign-in", form); to != "/" {
			t.Errorf("asked for %s signing in leads to %s", elsewhere, to)
		}
	}
}

// The section chosen last holds on every screen until another is, and the title of the
// Bench names the exercise and the instrument.
func TestTheSectionHolds(t *testing.T) {
	s, ctx := open(t), context.Background()
	v, account := s.teacher(t, "a@school.example")
	b, desk := furnish(t, s.store, account.ID), s.store.For(account.ID)
	second, err := desk.AddSection(ctx, "Wednesday strings", store.Student{FirstName: "Nour", Instrument: "viola"})
	if err != nil {
		t.Fatal(err)
	}
	bench := fmt.Sprintf("/bench/%d", b.exercise)
	_, page := v.get(bench)
	wants(t, page, "<title>1 · First Lamp, trombone", "Ines P.")
	v.get(fmt.Sprintf("/board?section=%d", second))
	_, page = v.get(bench)
	wants(t, page, "Nour", "<title>1 · First Lamp, viola")
	_, page = v.get("/board")
	wants(t, page, "Nour")
	v.get(fmt.Sprintf("%s?student=%d", bench, b.student)) // a student's is their own
	_, page = v.get("/board")
	wants(t, page, "Ines P.")
}

// A new exercise says that it is saved, and opens for the instrument it is written for.
func TestANewExerciseOpensForItsInstrument(t *testing.T) {
	s := open(t)
	v, _ := s.teacher(t, "a@school.example")
	form := map[string]string{"book": "Book", "number": "1", "title": "Mine", "written_for": "trombone", "abc": "M:4/4\nL:1/4\nK:Bb clef=bass\nB, C D E|F4|]\n"}
	status, to := v.send("/exercises", form, "", nil)
	if status != 303 || !strings.HasSuffix(to, "?instrument=trombone") {
		t.Fatalf("saving gives %d to %s", status, to)
	}
	_, page := v.get(to)
	wants(t, page, "Saved: 1 · Mine in Book.", "<title>1 · Mine, trombone")
}
