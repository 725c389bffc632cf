package web

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"log/slog"
	"mime/multipart"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// site is a running server with its database and what it logged.
type site struct {
	*httptest.Server
	store  *store.Store
	routes chi.Router
	log    *bytes.Buffer
}

func open(t testing.TB) *site {
	t.Helper()
	s := testdb.Open(t)
	var log bytes.Buffer
	server, err := New(s, slog.New(slog.NewTextHandler(&log, nil)))
	if err != nil {
		t.Fatal(err)
	}
	routes := server.Routes()
	running := httptest.NewServer(routes)
	t.Cleanup(running.Close)
	return &site{running, s, routes, &log}
}

// visitor is a browser without scripts; it does not follow redirects.
type visitor struct {
	t      testing.TB
	site   *site
	client *http.Client
}

func (s *site) visitor(t testing.TB) *visitor {
	t.Helper()
	jar, err := cookiejar.New(nil)
	if err != nil {
		t.Fatal(err)
	}
	return &visitor{t, s, &http.Client{Jar: jar, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}}
}

const password = "a long password"

// teacher makes an account and signs in.
func (s *site) teacher(t testing.TB, email string) (*visitor, store.Teacher) {
	t.Helper()
	account, err := s.store.AddTeacher(context.Background(), email, "Wren", "Lantern Hall", password)
	if err != nil {
		t.Fatal(err)
	}
	v := s.visitor(t)
	if status, _ := v.post("/sign-in", url.Values{"email": {email}, "password": {password}}); status != http.StatusSeeOther {
		t.Fatalf("signing in gives %d", status)
	}
	return v, account
}

func (v *visitor) do(r *http.Request) (int, string) {
	v.t.Helper()
	answer, err := v.client.Do(r)
	if err != nil {
		v.t.Fatal(err)
	}
	defer answer.Body.Close()
	body, err := io.ReadAll(answer.Body)
	if err != nil {
		v.t.Fatal(err)
	}
	if to := answer.Header.Get("Location"); to != "" {
		return answer.StatusCode, to
	}
	return answer.StatusCode, string(body)
}

func (v *visitor) request(method, path string, body io.Reader) *http.Request {
	v.t.Helper()
	r, err := http.NewRequest(method, v.site.URL+path, body)
	if err != nil {
		v.t.Fatal(err)
	}
	return r
}

// get returns the status and the page, or where it redirects to.
func (v *visitor) get(path string) (int, string) {
	v.t.Helper()
	return v.do(v.request("GET", path, nil))
}

func (v *visitor) post(path string, form url.Values) (int, string) {
	v.t.Helper()
	r := v.request("POST", path, strings.NewReader(form.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	return v.do(r)
}

// send posts a form with a file, as the entry page does.
func (v *visitor) send(path string, form map[string]string, name string, data []byte) (int, string) {
	v.t.Helper()
	var b bytes.Buffer
	w := multipart.NewWriter(&b)
	for key, value := range form {
		if err := w.WriteField(key, value); err != nil {
			v.t.Fatal(err)
		}
	}
	if name != "" {
		f, err := w.CreateFormFile("file", name)
		if err != nil {
			v.t.Fatal(err)
		}
		if _, err := f.Write(data); err != nil {
			v.t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		v.t.Fatal(err)
	}
	r := v.request("POST", path, &b)
	r.Header.Set("Content-Type", w.FormDataContentType())
	return v.do(r)
}

// wants fails where the page lacks a text.
func wants(t testing.TB, page string, texts ...string) {
	t.Helper()
	for _, text := range texts {
		if !strings.Contains(page, text) {
			t.Errorf("the page lacks %q:\n%s", text, page[:min(len(page), 3000)])
		}
	}
}

// belongings is one of everything a teacher has.
type belongings struct {
	exercise, section, student, attempt int64
}

// exercise adds an exercise in ABC to the book B and gives its id.
func (s *site) exercise(t testing.TB, teacher int64, x store.Exercise) int64 {
	t.Helper()
	x.Book, x.Format = "B", "abc"
	id, err := s.store.AddExercise(context.Background(), teacher, x)
	if err != nil {
		t.Fatal(err)
	}
	return id
}

const lamp = "T:First Lamp\nM:4/4\nL:1/4\nK:Bb\nB c d e|f4|e d c B|B4|]\n"

func furnish(t testing.TB, s *store.Store, teacher int64) belongings {
	t.Helper()
	ctx := context.Background()
	var b belongings
	fail := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	var err error
	b.exercise, err = s.AddExercise(ctx, teacher, store.Exercise{Book: "The Ferry Book", Number: 1, Title: "First Lamp", Format: "abc", Source: lamp})
	fail(err)
	b.section, err = s.AddSection(ctx, teacher, "Tuesday brass")
	fail(err)
	b.student, err = s.AddStudent(ctx, teacher, store.Student{SectionID: b.section, FirstName: "Ines", Initial: "P", Instrument: "trombone"})
	fail(err)
	fail(s.AddAttempt(ctx, teacher, store.Attempt{StudentID: b.student, ExerciseID: b.exercise, FirstMeasure: 1, LastMeasure: 2, Clean: true, Tempo: 60}))
	log, err := s.StudentAttempts(ctx, teacher, b.student)
	fail(err)
	b.attempt = log[0].ID
	return b
}

// idFor is whose id a route's {id} stands for.
func (b belongings) idFor(route string) int64 {
	switch {
	case strings.HasPrefix(route, "/students"):
		return b.student
	case strings.HasPrefix(route, "/attempts"):
		return b.attempt
	case strings.HasPrefix(route, "/sections"):
		return b.section
	}
	return b.exercise
}

// Every route is walked, so that a new one cannot be forgotten.
func TestAnotherTeacherIsRefusedOnEveryRoute(t *testing.T) {
	s := open(t)
	_, owner := s.teacher(t, "owner@school.example")
	mine := furnish(t, s.store, owner.ID)
	stranger, other := s.teacher(t, "stranger@school.example")
	theirs := furnish(t, s.store, other.ID)
	if err := s.store.ChangeStudent(context.Background(), other.ID,
		store.Student{ID: theirs.student, SectionID: theirs.section, FirstName: "Tomo", Instrument: "violin"}); err != nil {
		t.Fatal(err)
	}
	anonymous := s.visitor(t)

	// Ids of the owner's that a stranger may put into forms and addresses.
	form := url.Values{
		"student": {fmt.Sprint(mine.student)}, "section": {fmt.Sprint(mine.section)}, "exercise": {fmt.Sprint(mine.exercise)},
		"first_name": {"Mallory"}, "instrument": {"violin"}, "sure": {"yes"}, "result": {"clean"},
		"book": {"Stolen"}, "number": {"5"}, "abc": {lamp},
	}
	open := map[string]bool{"/sign-in": true, "/welcome": true, "/sign-in/demo": true, "/sign-out": true, "/static/*": true}
	walked := 0
	err := chi.Walk(s.routes, func(method, route string, _ http.Handler, _ ...func(http.Handler) http.Handler) error {
		if open[route] {
			return nil
		}
		walked++
		path := strings.Replace(route, "{id}", fmt.Sprint(mine.idFor(route)), 1)
		var status int
		var page string
		if method == "GET" {
			status, page = anonymous.get(path)
		} else {
			status, page = anonymous.post(path, form)
		}
		if status != http.StatusSeeOther || page != "/sign-in" {
			t.Errorf("without signing in, %s %s gives %d", method, route, status)
		}
		if method == "GET" {
			status, page = stranger.get(path + "?" + form.Encode())
		} else {
			status, page = stranger.post(path, form)
		}
		owned := strings.Contains(route, "{id}") || strings.HasPrefix(route, "/board") || route == "/students"
		if owned && status != http.StatusNotFound {
			t.Errorf("%s %s of another teacher's gives %d, want 404", method, route, status)
		}
		if strings.Contains(page, "Ines") {
			t.Errorf("%s %s shows a student", method, route)
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	if walked < 18 {
		t.Errorf("only %d routes were walked", walked)
	}
	// A stranger's own bench with the owner's student or section.
	for _, ask := range []string{fmt.Sprintf("student=%d", mine.student), fmt.Sprintf("section=%d", mine.section)} {
		if status, _ := stranger.get(fmt.Sprintf("/bench/%d?%s", theirs.exercise, ask)); status != http.StatusNotFound {
			t.Errorf("a bench with another teacher's %s gives %d", ask, status)
		}
	}
	log, err := s.store.StudentAttempts(context.Background(), owner.ID, mine.student)
	if err != nil || len(log) != 1 || log[0].Undone {
		t.Errorf("the owner's log is now %+v, %v", log, err)
	}
}

func TestSignIn(t *testing.T) {
	s := open(t)
	v := s.visitor(t)
	if status, to := v.get("/sign-in"); status != http.StatusSeeOther || to != "/welcome" {
		t.Errorf("with no teacher, signing in leads to %s", to)
	}
	status, page := v.post("/welcome", url.Values{"name": {"Wren"}, "email": {"wren@school.example"}, "password": {"short"}})
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a short password gives %d", status)
	}
	wants(t, page, "at least 10 characters", `value="wren@school.example"`, `value="Wren"`)
	status, to := v.post("/welcome", url.Values{"name": {"Wren"}, "email": {"wren@school.example"}, "password": {password}})
	if status != http.StatusSeeOther || to != "/" {
		t.Errorf("making the first account gives %d to %s", status, to)
	}
	_, page = v.get("/")
	wants(t, page, "An empty shelf", "Wren")
	v.post("/sign-out", nil)
	if _, to := v.get("/"); to != "/sign-in" {
		t.Errorf("after signing out the Shelf leads to %s", to)
	}
	if _, to := s.visitor(t).post("/welcome", url.Values{"name": {"Eve"}, "email": {"eve@x.example"}, "password": {password}}); to != "/sign-in" {
		t.Errorf("a second first teacher is sent to %s", to)
	}
	status, page = s.visitor(t).post("/sign-in", url.Values{"email": {"wren@school.example"}, "password": {"wrong"}})
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a wrong password gives %d", status)
	}
	wants(t, page, "do not belong together", `value="wren@school.example"`)
}

func TestGuessingPasswordsIsSlowedDown(t *testing.T) {
	s := open(t)
	v, _ := s.teacher(t, "a@school.example")
	last := 0
	for range signInsPerMinute + 1 {
		last, _ = v.post("/sign-in", url.Values{"email": {"a@school.example"}, "password": {"guess"}})
	}
	if last != http.StatusTooManyRequests {
		t.Errorf("after many guesses the answer is %d", last)
	}
}

func TestPostsFromOtherSitesAreRefused(t *testing.T) {
	s := open(t)
	v, _ := s.teacher(t, "a@school.example")
	r := v.request("POST", "/sections", strings.NewReader("name=Evil"))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r.Header.Set("Sec-Fetch-Site", "cross-site")
	if status, _ := v.do(r); status != http.StatusForbidden {
		t.Errorf("a post from another site gives %d", status)
	}
}

func TestHeadersAndStatic(t *testing.T) {
	s := open(t)
	v := s.visitor(t)
	answer, err := v.client.Get(s.URL + "/static/lib/verovio.js")
	if err != nil {
		t.Fatal(err)
	}
	defer answer.Body.Close()
	start := make([]byte, 12)
	if _, err := io.ReadFull(answer.Body, start); err != nil {
		t.Fatal(err)
	}
	if string(start) != "(function (g" {
		t.Errorf("the engraver starts with %q", start)
	}
	if answer.Header.Get("Content-Security-Policy") == "" || !strings.Contains(answer.Header.Get("Cache-Control"), "max-age") {
		t.Errorf("headers are %v", answer.Header)
	}
	if status, _ := v.get("/static/none.css"); status != http.StatusNotFound {
		t.Errorf("a missing file gives %d", status)
	}
}

func TestNothingAboutStudentsIsLogged(t *testing.T) {
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	v.get(fmt.Sprintf("/students/%d?exercise=%d", b.student, b.exercise))
	v.get(fmt.Sprintf("/bench/%d?student=%d", b.exercise, b.student))
	if text := s.log.String(); strings.Contains(text, "Ines") || strings.Contains(text, "student=") || !strings.Contains(text, "/students/{id}") {
		t.Errorf("the log is\n%s", text)
	}
}
