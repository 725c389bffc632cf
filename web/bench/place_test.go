package bench_test

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// Signing in returns to the address that was asked for, and to no other site.
func TestSigningInReturnsToWhatWasAskedFor(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	_, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	v := s.Visitor(t)
	requested := fmt.Sprintf("/bench/%d?instrument=oboe&stage=name", b.Exercise)
	_, door := v.Get(requested)
	if door != "/sign-in?to="+url.QueryEscape(requested) {
		t.Fatalf("without signing in it leads to %s", door)
	}
	_, page := v.Get(door)
	testsite.Wants(t, page, `name="to" value="`+strings.ReplaceAll(requested, "&", "&amp;")+`"`)
	form := url.Values{"email": {"a@school.example"}, "password": {"wrong"}, "to": {requested}}
	_, page = v.Post("/sign-in", form)
	testsite.Wants(t, page, strings.ReplaceAll(requested, "&", "&amp;")) // it is not lost over a wrong password
	form.Set("password", testsite.Password)
	if _, to := v.Post("/sign-in", form); to != requested {
		t.Errorf("signing in leads to %s, want %s", to, requested)
	}
	for _, elsewhere := range []string{"https://evil.example/", "//evil.example/", "/\\evil.example", "javascript:alert(1)", "bench/1", "/sign-out"} {
		form.Set("to", elsewhere)
		if _, to := s.Visitor(t).Post("/sign-in", form); to != "/" {
			t.Errorf("asked for %s signing in leads to %s", elsewhere, to)
		}
	}
}

// The class chosen last holds on every screen until another is, and the title of the
// Bench names the exercise and the instrument.
func TestTheClassHolds(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	v, account := s.Teacher(t, "a@school.example")
	b, desk := testsite.Furnish(t, s.Store, account.ID), s.Store.For(account.ID)
	second, err := desk.AddClass(ctx, "Wednesday strings", store.Student{FirstName: "Nour", Instrument: "viola"})
	if err != nil {
		t.Fatal(err)
	}
	bench := fmt.Sprintf("/bench/%d", b.Exercise)
	_, page := v.Get(bench)
	testsite.Wants(t, page, "<title>1 · First Lamp, trombone", "Ines P.")
	v.Get(fmt.Sprintf("/board?class=%d", second))
	_, page = v.Get(bench)
	testsite.Wants(t, page, "Nour", "<title>1 · First Lamp, viola")
	_, page = v.Get("/board")
	testsite.Wants(t, page, "Nour")
	v.Get(fmt.Sprintf("%s?student=%d", bench, b.Student)) // a student's is their own
	_, page = v.Get("/board")
	testsite.Wants(t, page, "Ines P.")
}

// A new exercise says that it is saved, and opens for the instrument it is written for.
func TestANewExerciseOpensForItsInstrument(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	form := map[string]string{"book": "Book", "number": "1", "title": "Mine", "written_for": "trombone", "abc": "M:4/4\nL:1/4\nK:Bb clef=bass\nB, C D E|F4|]\n"}
	status, to := v.Send("/exercises", form, "", nil)
	if status != 303 || !strings.HasSuffix(to, "?instrument=trombone") {
		t.Fatalf("saving gives %d to %s", status, to)
	}
	_, page := v.Get(to)
	testsite.Wants(t, page, "Saved: 1 · Mine in Book.", "<title>1 · Mine, trombone")
}

// The address says what is at hand after every step, and the menu leads back to it: a
// chunk is a step that Back undoes, a stage and a mark are not.
func TestTheAddressKeepsThePlace(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	bench := fmt.Sprintf("/bench/%d", b.Exercise)
	all := func(stage, chunk string) string {
		return fmt.Sprintf("%s?chunk=%s&class=%d&instrument=trombone&stage=%s&student=%d&tempo=", bench, chunk, b.Class, stage, b.Student)
	}
	step := func(trigger, query string) (pushed, replaced string) {
		t.Helper()
		r := v.Request("GET", bench+query, nil)
		r.Header.Set("HX-Request", "true")
		r.Header.Set("HX-Target", "side")
		r.Header.Set("HX-Trigger", trigger)
		answer, err := v.Client.Do(r)
		if err != nil {
			t.Fatal(err)
		}
		answer.Body.Close()
		return answer.Header.Get("HX-Push-Url"), answer.Header.Get("HX-Replace-Url")
	}
	student := fmt.Sprintf("&student=%d", b.Student)
	if pushed, _ := step("", "?chunk=3-4"+student+"&tempo=80"); pushed != all("count", "3-4")+"80" {
		t.Errorf("a chunk leaves the address %s", pushed)
	}
	pushed, replaced := step("stage-name", "?chunk=3-4&stage=name"+student+"&tempo=72")
	if pushed != "" || replaced != all("name", "3-4")+"72" {
		t.Errorf("a stage leaves the addresses %q, %q", pushed, replaced)
	}
	_, page := v.Get("/people")
	testsite.Wants(t, page, `<a href="`+strings.ReplaceAll(all("name", "3-4"), "&", "&amp;")+`72"`)
	_, page = v.Get(all("name", "3-4") + "72") // a bookmark
	testsite.Wants(t, page, `aria-current="true"`, `id="stage-name" class="name"`, "Name it in time", `id="tempo-now">72<`)

	r := v.Request("POST", bench+"/attempts", strings.NewReader(url.Values{"instrument": {"trombone"}, "student": {fmt.Sprint(b.Student)},
		"class": {fmt.Sprint(b.Class)}, "chunk": {"1-2"}, "stage": {"count"}, "result": {"clean"}, "tempo": {"60"}}.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r.Header.Set("HX-Request", "true")
	answer, err := v.Client.Do(r)
	if err != nil {
		t.Fatal(err)
	}
	answer.Body.Close()
	if got := answer.Header.Get("HX-Replace-Url"); !strings.HasPrefix(got, all("name", "1-2")) { // two clean have gone on
		t.Errorf("a mark leaves the address %s", got)
	}

	second, err := s.Store.For(account.ID).AddClass(context.Background(), "Wednesday strings", store.Student{FirstName: "Nour", Instrument: "viola"})
	if err != nil {
		t.Fatal(err)
	}
	_, page = v.Get(fmt.Sprintf("/board?class=%d", second)) // chosen elsewhere since
	again := regexp.MustCompile(`<a href="(/bench/[^"]*)"[^>]*>Bench</a>`).FindStringSubmatch(page)[1]
	if !strings.Contains(again, fmt.Sprintf("class=%d", second)) || strings.Contains(again, "student=") || !strings.Contains(again, "chunk=1-2") {
		t.Errorf("with another class chosen the menu leads to %s", again)
	}
}

// Choosing an octave and a way of counting on the Bench leaves the place as it was.
func TestChoicesOnTheBenchSaveThePlace(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	here := fmt.Sprintf("/bench/%d?instrument=clarinet&chunk=3-4&stage=name", b.Exercise)
	if _, to := v.Post(fmt.Sprintf("/exercises/%d/octave", b.Exercise), url.Values{"instrument": {"clarinet"}, "octaves": {"0"}, "back": {here}}); to != here {
		t.Errorf("choosing an octave leads to %s", to)
	}
	if _, to := v.Post(fmt.Sprintf("/classes/%d/school", b.Class), url.Values{"school": {"pulsed"}, "back": {here}}); to != here {
		t.Errorf("choosing a way of counting leads to %s", to)
	}
	if _, to := v.Post(fmt.Sprintf("/classes/%d/school", b.Class), url.Values{"school": {"pulsed"}, "back": {"//evil.example/bench/"}}); to != "/" {
		t.Errorf("a way back elsewhere leads to %s", to)
	}
}

// A script that takes another bench into the page gets the bench alone; a browser gets the page.
func TestAnotherBenchIntoThePage(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	for target, want := range map[string]bool{"bench": false, "side": false, "elsewhere": true, "": true} {
		r := v.Request(http.MethodGet, fmt.Sprintf("/bench/%d?instrument=trombone", b.Exercise), http.NoBody)
		if target != "" {
			r.Header.Set("HX-Request", "true")
			r.Header.Set("HX-Target", target)
		}
		status, page := v.Do(r)
		if whole := strings.Contains(page, "<!doctype html>"); status != http.StatusOK || whole != want {
			t.Errorf("into %q: %d, the whole page: %v", target, status, whole)
		}
		if target != "side" && !strings.Contains(page, `id="bench"`) {
			t.Errorf("into %q there is no bench", target)
		}
	}
}
