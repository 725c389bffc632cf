package web_test

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

func TestSignIn(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v := s.Visitor(t)
	if status, to := v.Get("/sign-in"); status != http.StatusSeeOther || to != "/welcome" {
		t.Errorf("with no teacher, signing in leads to %s", to)
	}
	status, page := v.Post("/welcome", url.Values{"name": {"Wren"}, "email": {"wren@school.example"}, "password": {"short"}})
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a short password gives %d", status)
	}
	testsite.Wants(t, page, "at least 12 characters", `value="wren@school.example"`, `value="Wren"`)
	status, to := v.Post("/welcome", url.Values{"name": {"Wren"}, "email": {"wren@school.example"}, "password": {testsite.Password}})
	if status != http.StatusSeeOther || to != "/" {
		t.Errorf("making the first account gives %d to %s", status, to)
	}
	_, page = v.Get("/")
	testsite.Wants(t, page, "An empty shelf", "Wren")
	v.Post("/sign-out", nil)
	if _, to := v.Get("/"); to != "/sign-in" {
		t.Errorf("after signing out the Shelf leads to %s", to)
	}
	if _, to := s.Visitor(t).Post("/welcome", url.Values{"name": {"Eve"}, "email": {"eve@x.example"}, "password": {testsite.Password}}); to != "/sign-in" {
		t.Errorf("a second first teacher is sent to %s", to)
	}
	status, page = s.Visitor(t).Post("/sign-in", url.Values{"email": {"wren@school.example"}, "password": {"wrong"}})
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a wrong password gives %d", status)
	}
	testsite.Wants(t, page, "do not belong together", `value="wren@school.example"`)
}

// A session's token is another one after signing in, and the one before is worth
// nothing: who knew it is not signed in.
func TestSigningInRenewsTheToken(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, first := s.Teacher(t, "a@school.example")
	second, err := s.Store.AddTeacher(context.Background(), "b@school.example", "Tomo", "Lantern Hall", testsite.Password)
	if err != nil {
		t.Fatal(err)
	}
	address, err := url.Parse(s.URL)
	if err != nil {
		t.Fatal(err)
	}
	known := v.Client.Jar.Cookies(address)
	if _, page := v.Get("/"); len(known) != 1 || !strings.Contains(page, first.Name) {
		t.Fatalf("the cookies are %v", known)
	}
	v.Post("/sign-in", url.Values{"email": {second.Email}, "password": {testsite.Password}})
	if now := v.Client.Jar.Cookies(address); len(now) != 1 || now[0].Value == known[0].Value {
		t.Errorf("after signing in the token is %v, before it was %v", now, known)
	}
	if _, page := v.Get("/"); !strings.Contains(page, second.Name) {
		t.Error("the second teacher is not signed in")
	}
	thief := s.Visitor(t)
	thief.Client.Jar.SetCookies(address, known)
	if status, to := thief.Get("/"); status != http.StatusSeeOther || to != "/sign-in" {
		t.Errorf("with the token from before the Shelf gives %d to %s", status, to)
	}
	v.Post("/sign-out", nil)
	thief.Client.Jar.SetCookies(address, v.Client.Jar.Cookies(address))
	if _, to := thief.Get("/"); to != "/sign-in" {
		t.Errorf("with the token of a session that has ended the Shelf leads to %s", to)
	}
}

func TestGuessingPasswordsIsSlowedDown(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	last := 0
	for range site.SignInsPerMinute + 1 {
		last, _ = v.Post("/sign-in", url.Values{"email": {"a@school.example"}, "password": {"guess"}})
	}
	if last != http.StatusTooManyRequests {
		t.Errorf("after many guesses the answer is %d", last)
	}
}

// Every page and file comes with what keeps browsers to this site; pages are kept nowhere,
// no folder is listed, no program and no version is named.
func TestSecurityHeaders(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	for _, path := range []string{"/sign-in", "/", "/people", "/nowhere", testsite.AddressOf(t, "lib/verovio.js")} {
		answer, err := v.Client.Do(v.Request(http.MethodGet, path, nil))
		if err != nil {
			t.Fatal(err)
		}
		answer.Body.Close()
		h := answer.Header
		policy := h.Get("Content-Security-Policy")
		if !strings.Contains(policy, "default-src 'self'") || !strings.Contains(policy, "frame-ancestors 'none'") || strings.Contains(policy, "script-src 'self' 'unsafe-inline'") ||
			h.Get("X-Content-Type-Options") != "nosniff" || h.Get("Referrer-Policy") != "same-origin" || h.Get("Server") != "" || h.Get("X-Powered-By") != "" ||
			h.Get("Access-Control-Allow-Origin") != "" {
			t.Errorf("the headers of %s are %v", path, h)
		}
		if strings.HasPrefix(path, "/static") {
			continue
		}
		if answer.StatusCode == http.StatusOK && (h.Get("Content-Type") != "text/html; charset=utf-8" || h.Get("Cache-Control") != "no-store") {
			t.Errorf("%s is %s, kept %q", path, h.Get("Content-Type"), h.Get("Cache-Control"))
		}
	}
	for _, folder := range []string{"/static/", "/static/lib/", "/static/fonts"} {
		if status, page := v.Get(folder); status != http.StatusNotFound || strings.Contains(page, "verovio") {
			t.Errorf("%s gives %d", folder, status)
		}
	}
}

// What is typed, in whatever field, is shown as it was typed and does not run.
func TestNothingTypedRuns(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	ctx, desk := context.Background(), s.Store.For(account.ID)
	const typed = `"><script>x()</script><img src=x onerror='x()'>{{.}}`
	class, err := desk.AddClass(ctx, typed)
	if err != nil {
		t.Fatal(err)
	}
	student, err := desk.AddStudent(ctx, store.Student{ClassID: class, FirstName: typed[:40], Initial: "<", Instrument: "trombone"})
	if err != nil {
		t.Fatal(err)
	}
	exercise, err := desk.AddExercise(ctx, store.Exercise{Book: typed, Number: 1, Title: typed, WrittenFor: "trombone"}, store.Source{Format: "abc", Content: strings.Replace(testsite.Lamp, "First Lamp", typed, 1)})
	if err != nil {
		t.Fatal(err)
	}
	x, err := desk.ExerciseByID(ctx, exercise)
	if err != nil {
		t.Fatal(err)
	}
	stumble := store.Attempt{StudentID: student, ExerciseID: exercise, Chunk: breakdown.ChunkKey{First: 1, Last: 2}, Try: routine.Try{Stage: routine.Count, Cause: routine.Rhythm}, Tempo: 60}
	if err := errors.Join(desk.AddAttempts(ctx, stumble, stumble, stumble), desk.SaveSettings(ctx, store.Settings{"cue-1": `<script>x`, "two": `"><img `})); err != nil {
		t.Fatal(err)
	}
	v.Post("/account/invite", nil)
	for path, page := range testsite.Everything(v, testsite.Belongings{Exercise: exercise, Class: class, Student: student, Book: x.BookID, Teacher: account.ID}) {
		if strings.HasSuffix(path, "as=abc") {
			continue // a file, of music alone
		}
		for _, raw := range []string{"<script>x", "<img ", "onerror='x"} {
			if strings.Contains(page, raw) {
				t.Errorf("%s has %s as it was typed", path, raw)
			}
		}
		if path == "/people" || path == "/board" || path == "/" {
			testsite.Wants(t, page, "&lt;script&gt;x()")
		}
	}
	_, page := v.Get("/account/log")
	if strings.Contains(page, "<script>x") {
		t.Error("the log has a script as it was typed")
	}
}

func TestNothingAboutStudentsIsLogged(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	v.Get(fmt.Sprintf("/students/%d?exercise=%d", b.Student, b.Exercise))
	v.Get(fmt.Sprintf("/bench/%d?student=%d", b.Exercise, b.Student))
	if text := s.Log.String(); strings.Contains(text, "Ines") || strings.Contains(text, "student=") ||
		!strings.Contains(text, "/students/{id}") {
		t.Errorf("the log is\n%s", text)
	}
}
