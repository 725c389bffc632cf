package web

import (
	"bytes"
	"context"
	"errors"
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

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// site is a running server with its database and what it logged.
type site struct {
	*httptest.Server
	server *Server
	store  *store.Store
	routes chi.Router
	log    *bytes.Buffer
}

func open(t testing.TB) *site {
	t.Helper()
	return openOn(t, testdb.Open(t))
}

// openOn serves a store.
func openOn(t testing.TB, s *store.Store) *site {
	t.Helper()
	var log bytes.Buffer
	server, err := New(s, slog.New(slog.NewTextHandler(&log, nil)))
	if err != nil {
		t.Fatal(err)
	}
	routes := server.Routes()
	running := httptest.NewServer(routes)
	t.Cleanup(running.Close)
	return &site{running, server, s, routes, &log}
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
	if name == "" {
		return v.sendAs("", path, form)
	}
	return v.sendAs("file", path, form, [2]string{name, string(data)})
}

// sendAs posts a form with files, each a name and what is in it, in a field.
func (v *visitor) sendAs(field, path string, form map[string]string, files ...[2]string) (int, string) {
	v.t.Helper()
	var b bytes.Buffer
	w := multipart.NewWriter(&b)
	for key, value := range form {
		if err := w.WriteField(key, value); err != nil {
			v.t.Fatal(err)
		}
	}
	for _, file := range files {
		f, err := w.CreateFormFile(field, file[0])
		if err != nil {
			v.t.Fatal(err)
		}
		if _, err := f.Write([]byte(file[1])); err != nil {
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
			shown := page[max(0, strings.Index(page, "<main")):]
			t.Errorf("the page lacks %q:\n%s", text, shown[:min(len(shown), 1500)])
		}
	}
}

// belongings is one of everything a teacher has.
type belongings struct {
	exercise store.ExerciseID
	section  store.SectionID
	student  store.StudentID
	attempt  store.AttemptID
	book     store.BookID
	teacher  store.TeacherID
	lesson   store.LessonID
}

// exercise adds an exercise in ABC to the book B and gives its id.
func (s *site) exercise(t testing.TB, teacher store.TeacherID, number int, title, writtenFor, source string) store.ExerciseID {
	t.Helper()
	id, err := s.store.For(teacher).AddExercise(context.Background(),
		store.Exercise{Book: "B", Number: number, Title: title, WrittenFor: writtenFor}, store.Source{Format: "abc", Content: source})
	if err != nil {
		t.Fatal(err)
	}
	return id
}

const lamp = "T:First Lamp\nM:4/4\nL:1/4\nK:Bb\nB c d e|f4|e d c B|B4|]\n"

func furnish(t testing.TB, s *store.Store, teacher store.TeacherID) belongings {
	t.Helper()
	ctx, desk := context.Background(), s.For(teacher)
	b := belongings{teacher: teacher}
	fail := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	var err error
	b.exercise, err = desk.AddExercise(
		ctx,
		store.Exercise{Book: "The Ferry Book", Number: 1, Title: "First Lamp"},
		store.Source{Format: "abc", Content: lamp},
	)
	fail(err)
	x, err := desk.ExerciseByID(ctx, b.exercise)
	fail(err)
	b.book = x.BookID
	b.section, err = desk.AddSection(ctx, "Tuesday brass")
	fail(err)
	b.student, err = desk.AddStudent(ctx, store.Student{SectionID: b.section, FirstName: "Ines", Initial: "P", Instrument: "trombone"})
	fail(err)
	fail(desk.AddAttempts(ctx, store.Attempt{StudentID: b.student, ExerciseID: b.exercise, Piece: breakdown.PieceKey{First: 1, Last: 2},
		Try: routine.Try{Stage: routine.Count, Clean: true}, Tempo: 60}))
	log, err := desk.StudentAttempts(ctx, b.student)
	fail(err)
	b.attempt = log[0].ID
	return b
}

func TestSignIn(t *testing.T) {
	t.Parallel()
	s := open(t)
	v := s.visitor(t)
	if status, to := v.get("/sign-in"); status != http.StatusSeeOther || to != "/welcome" {
		t.Errorf("with no teacher, signing in leads to %s", to)
	}
	status, page := v.post("/welcome", url.Values{"name": {"Wren"}, "email": {"wren@school.example"}, "password": {"short"}})
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a short password gives %d", status)
	}
	wants(t, page, "at least 12 characters", `value="wren@school.example"`, `value="Wren"`)
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

// A session's token is another one after signing in, and the one before is worth
// nothing: who knew it is not signed in.
func TestSigningInRenewsTheToken(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, first := s.teacher(t, "a@school.example")
	second, err := s.store.AddTeacher(context.Background(), "b@school.example", "Tomo", "Lantern Hall", password)
	if err != nil {
		t.Fatal(err)
	}
	address, err := url.Parse(s.URL)
	if err != nil {
		t.Fatal(err)
	}
	known := v.client.Jar.Cookies(address)
	if _, page := v.get("/"); len(known) != 1 || !strings.Contains(page, first.Name) {
		t.Fatalf("the cookies are %v", known)
	}
	v.post("/sign-in", url.Values{"email": {second.Email}, "password": {password}})
	if now := v.client.Jar.Cookies(address); len(now) != 1 || now[0].Value == known[0].Value {
		t.Errorf("after signing in the token is %v, before it was %v", now, known)
	}
	if _, page := v.get("/"); !strings.Contains(page, second.Name) {
		t.Error("the second teacher is not signed in")
	}
	thief := s.visitor(t)
	thief.client.Jar.SetCookies(address, known)
	if status, to := thief.get("/"); status != http.StatusSeeOther || to != "/sign-in" {
		t.Errorf("with the token from before the Shelf gives %d to %s", status, to)
	}
	v.post("/sign-out", nil)
	thief.client.Jar.SetCookies(address, v.client.Jar.Cookies(address))
	if _, to := thief.get("/"); to != "/sign-in" {
		t.Errorf("with the token of a session that has ended the Shelf leads to %s", to)
	}
}

func TestGuessingPasswordsIsSlowedDown(t *testing.T) {
	t.Parallel()
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

// Every page and file comes with what keeps browsers to this site; pages are kept nowhere,
// no folder is listed, no program and no version is named.
func TestSecurityHeaders(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, _ := s.teacher(t, "a@school.example")
	for _, path := range []string{"/sign-in", "/", "/people", "/nowhere", addressOf(t, "lib/verovio.js")} {
		answer, err := v.client.Do(v.request(http.MethodGet, path, nil))
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
		if status, page := v.get(folder); status != http.StatusNotFound || strings.Contains(page, "verovio") {
			t.Errorf("%s gives %d", folder, status)
		}
	}
}

// What is typed, in whatever field, is shown as it was typed and does not run.
func TestNothingTypedRuns(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	ctx, desk := context.Background(), s.store.For(account.ID)
	const typed = `"><script>x()</script><img src=x onerror='x()'>{{.}}`
	section, err := desk.AddSection(ctx, typed)
	if err != nil {
		t.Fatal(err)
	}
	student, err := desk.AddStudent(ctx, store.Student{SectionID: section, FirstName: typed[:40], Initial: "<", Instrument: "trombone"})
	if err != nil {
		t.Fatal(err)
	}
	exercise, err := desk.AddExercise(ctx, store.Exercise{Book: typed, Number: 1, Title: typed, WrittenFor: "trombone"}, store.Source{Format: "abc", Content: strings.Replace(lamp, "First Lamp", typed, 1)})
	if err != nil {
		t.Fatal(err)
	}
	x, err := desk.ExerciseByID(ctx, exercise)
	if err != nil {
		t.Fatal(err)
	}
	stumble := store.Attempt{StudentID: student, ExerciseID: exercise, Piece: breakdown.PieceKey{First: 1, Last: 2}, Try: routine.Try{Stage: routine.Count, Cause: routine.Rhythm}, Tempo: 60}
	if err := errors.Join(desk.AddAttempts(ctx, stumble, stumble, stumble), desk.KeepSettings(ctx, store.Settings{"cue-1": `<script>x`, "two": `"><img `})); err != nil {
		t.Fatal(err)
	}
	v.post("/account/invite", nil)
	for path, page := range everything(v, belongings{exercise: exercise, section: section, student: student, book: x.BookID, teacher: account.ID}) {
		if strings.HasSuffix(path, "as=abc") {
			continue // a file, of music alone
		}
		for _, raw := range []string{"<script>x", "<img ", "onerror='x"} {
			if strings.Contains(page, raw) {
				t.Errorf("%s has %s as it was typed", path, raw)
			}
		}
		if path == "/people" || path == "/board" || path == "/" {
			wants(t, page, "&lt;script&gt;x()")
		}
	}
	_, page := v.get("/account/log")
	if strings.Contains(page, "<script>x") {
		t.Error("the log has a script as it was typed")
	}
}

func TestNothingAboutStudentsIsLogged(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	v.get(fmt.Sprintf("/students/%d?exercise=%d", b.student, b.exercise))
	v.get(fmt.Sprintf("/bench/%d?student=%d", b.exercise, b.student))
	if text := s.log.String(); strings.Contains(text, "Ines") || strings.Contains(text, "student=") ||
		!strings.Contains(text, "/students/{id}") {
		t.Errorf("the log is\n%s", text)
	}
}
