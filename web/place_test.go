package web

import (
	"context"
	"fmt"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"unhurriedbench/store"
)

// Signing in returns to the address that was asked for, and to no other site.
func TestSigningInReturnsToWhatWasAskedFor(t *testing.T) {
	t.Parallel()
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
	t.Parallel()
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
	t.Parallel()
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

// The address says what is at hand after every step, and the menu leads back to it: a
// piece is a step that Back undoes, a stage and a mark are not.
func TestTheAddressKeepsThePlace(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	bench := fmt.Sprintf("/bench/%d", b.exercise)
	all := func(stage, piece string) string {
		return fmt.Sprintf("%s?instrument=trombone&piece=%s&section=%d&stage=%s&student=%d&tempo=", bench, piece, b.section, stage, b.student)
	}
	step := func(trigger, query string) (pushed, replaced string) {
		t.Helper()
		r := v.request("GET", bench+query, nil)
		r.Header.Set("HX-Request", "true")
		r.Header.Set("HX-Target", "side")
		r.Header.Set("HX-Trigger", trigger)
		answer, err := v.client.Do(r)
		if err != nil {
			t.Fatal(err)
		}
		answer.Body.Close()
		return answer.Header.Get("HX-Push-Url"), answer.Header.Get("HX-Replace-Url")
	}
	student := fmt.Sprintf("&student=%d", b.student)
	if pushed, _ := step("", "?piece=3-4"+student+"&tempo=80"); pushed != all("count", "3-4")+"80" {
		t.Errorf("a piece leaves the address %s", pushed)
	}
	pushed, replaced := step("stage-name", "?piece=3-4&stage=name"+student+"&tempo=72")
	if pushed != "" || replaced != all("name", "3-4")+"72" {
		t.Errorf("a stage leaves the addresses %q, %q", pushed, replaced)
	}
	_, page := v.get("/people")
	wants(t, page, `<a href="`+strings.ReplaceAll(all("name", "3-4"), "&", "&amp;")+`72"`)
	_, page = v.get(all("name", "3-4") + "72") // a bookmark
	wants(t, page, `aria-current="true"`, `id="stage-name" class="name"`, "Name it in time", `id="tempo-now">72<`)

	r := v.request("POST", bench+"/attempts", strings.NewReader(url.Values{"instrument": {"trombone"}, "student": {fmt.Sprint(b.student)},
		"section": {fmt.Sprint(b.section)}, "piece": {"1-2"}, "stage": {"count"}, "result": {"clean"}, "tempo": {"60"}}.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r.Header.Set("HX-Request", "true")
	answer, err := v.client.Do(r)
	if err != nil {
		t.Fatal(err)
	}
	answer.Body.Close()
	if got := answer.Header.Get("HX-Replace-Url"); !strings.HasPrefix(got, all("name", "1-2")) { // two clean have gone on
		t.Errorf("a mark leaves the address %s", got)
	}

	second, err := s.store.For(account.ID).AddSection(context.Background(), "Wednesday strings", store.Student{FirstName: "Nour", Instrument: "viola"})
	if err != nil {
		t.Fatal(err)
	}
	_, page = v.get(fmt.Sprintf("/board?section=%d", second)) // chosen elsewhere since
	again := regexp.MustCompile(`<a href="(/bench/[^"]*)"[^>]*>Bench</a>`).FindStringSubmatch(page)[1]
	if !strings.Contains(again, fmt.Sprintf("section=%d", second)) || strings.Contains(again, "student=") || !strings.Contains(again, "piece=1-2") {
		t.Errorf("with another section chosen the menu leads to %s", again)
	}
}

// Choosing an octave and a way of counting on the Bench leaves the place as it was.
func TestChoicesOnTheBenchKeepThePlace(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	here := fmt.Sprintf("/bench/%d?instrument=clarinet&piece=3-4&stage=name", b.exercise)
	if _, to := v.post(fmt.Sprintf("/exercises/%d/octave", b.exercise), url.Values{"instrument": {"clarinet"}, "octaves": {"0"}, "back": {here}}); to != here {
		t.Errorf("choosing an octave leads to %s", to)
	}
	if _, to := v.post(fmt.Sprintf("/sections/%d/school", b.section), url.Values{"school": {"pulsed"}, "back": {here}}); to != here {
		t.Errorf("choosing a way of counting leads to %s", to)
	}
	if _, to := v.post(fmt.Sprintf("/sections/%d/school", b.section), url.Values{"school": {"pulsed"}, "back": {"//evil.example/bench/"}}); to != "/" {
		t.Errorf("a way back elsewhere leads to %s", to)
	}
}
