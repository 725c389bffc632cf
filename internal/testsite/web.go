package testsite

import (
	"bytes"
	"context"
	"encoding/json"
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
	"unhurriedbench/web"
)

// Site is a running server with its database and what it logged.
type Site struct {
	*httptest.Server
	Whole  *web.Server
	Store  *store.Store
	Routes chi.Router
	Log    *bytes.Buffer
}

// Open serves an empty site.
func Open(t testing.TB) *Site {
	t.Helper()
	return OpenOn(t, testdb.Open(t))
}

// OpenOn serves a store.
func OpenOn(t testing.TB, s *store.Store) *Site {
	t.Helper()
	var log bytes.Buffer
	server, err := web.New(s, slog.New(slog.NewTextHandler(&log, nil)))
	if err != nil {
		t.Fatal(err)
	}
	routes := server.Routes()
	running := httptest.NewServer(routes)
	t.Cleanup(running.Close)
	return &Site{running, server, s, routes, &log}
}

// Visitor is a browser without scripts; it does not follow redirects.
type Visitor struct {
	T      testing.TB
	site   *Site
	Client *http.Client
}

// Visitor is a new browser.
func (s *Site) Visitor(t testing.TB) *Visitor {
	t.Helper()
	jar, err := cookiejar.New(nil)
	if err != nil {
		t.Fatal(err)
	}
	return &Visitor{t, s, &http.Client{Jar: jar, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}}
}

// Password is everybody's.
const Password = "a long password"

// Teacher makes an account and signs in.
func (s *Site) Teacher(t testing.TB, email string) (*Visitor, store.Teacher) {
	t.Helper()
	account, err := s.Store.AddTeacher(context.Background(), email, "Wren", "Lantern Hall", Password)
	if err != nil {
		t.Fatal(err)
	}
	v := s.Visitor(t)
	if status, _ := v.Post("/sign-in", url.Values{"email": {email}, "password": {Password}}); status != http.StatusSeeOther {
		t.Fatalf("signing in gives %d", status)
	}
	return v, account
}

// Do sends a request, and gives the status with the page or where it leads.
func (v *Visitor) Do(r *http.Request) (int, string) {
	v.T.Helper()
	answer, err := v.Client.Do(r)
	if err != nil {
		v.T.Fatal(err)
	}
	defer answer.Body.Close()
	body, err := io.ReadAll(answer.Body)
	if err != nil {
		v.T.Fatal(err)
	}
	if to := answer.Header.Get("Location"); to != "" {
		return answer.StatusCode, to
	}
	return answer.StatusCode, string(body)
}

// Request makes a request to the site.
func (v *Visitor) Request(method, path string, body io.Reader) *http.Request {
	v.T.Helper()
	r, err := http.NewRequest(method, v.site.URL+path, body)
	if err != nil {
		v.T.Fatal(err)
	}
	return r
}

// Get returns the status and the page, or where it redirects to.
func (v *Visitor) Get(path string) (int, string) {
	v.T.Helper()
	return v.Do(v.Request("GET", path, nil))
}

// Post sends a form, and gives the status with the page or where it leads.
func (v *Visitor) Post(path string, form url.Values) (int, string) {
	v.T.Helper()
	r := v.Request("POST", path, strings.NewReader(form.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	return v.Do(r)
}

// Send posts a form with a file, as the entry page does.
func (v *Visitor) Send(path string, form map[string]string, name string, data []byte) (int, string) {
	v.T.Helper()
	if name == "" {
		return v.SendAs("", path, form)
	}
	return v.SendAs("file", path, form, [2]string{name, string(data)})
}

// SendAs posts a form with files, each a name and what is in it, in a field.
func (v *Visitor) SendAs(field, path string, form map[string]string, files ...[2]string) (int, string) {
	v.T.Helper()
	var b bytes.Buffer
	w := multipart.NewWriter(&b)
	for key, value := range form {
		if err := w.WriteField(key, value); err != nil {
			v.T.Fatal(err)
		}
	}
	for _, file := range files {
		f, err := w.CreateFormFile(field, file[0])
		if err != nil {
			v.T.Fatal(err)
		}
		if _, err := f.Write([]byte(file[1])); err != nil {
			v.T.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		v.T.Fatal(err)
	}
	r := v.Request("POST", path, &b)
	r.Header.Set("Content-Type", w.FormDataContentType())
	return v.Do(r)
}

// Wants fails where the page lacks a text.
func Wants(t testing.TB, page string, texts ...string) {
	t.Helper()
	for _, text := range texts {
		if !strings.Contains(page, text) {
			shown := page[max(0, strings.Index(page, "<main")):]
			t.Errorf("the page lacks %q:\n%s", text, shown[:min(len(shown), 1500)])
		}
	}
}

// Belongings is one of everything a teacher has.
type Belongings struct {
	Exercise store.ExerciseID
	Class    store.ClassID
	Student  store.StudentID
	Attempt  store.AttemptID
	Book     store.BookID
	Teacher  store.TeacherID
	Lesson   store.LessonID
}

// Exercise adds an exercise in ABC to the book B and gives its id.
func (s *Site) Exercise(t testing.TB, teacher store.TeacherID, number int, title, writtenFor, source string) store.ExerciseID {
	t.Helper()
	id, err := s.Store.For(teacher).AddExercise(context.Background(),
		store.Exercise{Book: "B", Number: number, Title: title, WrittenFor: writtenFor}, store.Source{Format: "abc", Content: source})
	if err != nil {
		t.Fatal(err)
	}
	return id
}

// Lamp is an exercise of four measures in ABC.
const Lamp = "T:First Lamp\nM:4/4\nL:1/4\nK:Bb\nB c d e|f4|e d c B|B4|]\n"

// Furnish gives a teacher one of everything.
func Furnish(t testing.TB, s *store.Store, teacher store.TeacherID) Belongings {
	t.Helper()
	ctx, desk := context.Background(), s.For(teacher)
	b := Belongings{Teacher: teacher}
	fail := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	var err error
	b.Exercise, err = desk.AddExercise(
		ctx,
		store.Exercise{Book: "The Ferry Book", Number: 1, Title: "First Lamp"},
		store.Source{Format: "abc", Content: Lamp},
	)
	fail(err)
	x, err := desk.ExerciseByID(ctx, b.Exercise)
	fail(err)
	b.Book = x.BookID
	b.Class, err = desk.AddClass(ctx, "Tuesday brass")
	fail(err)
	b.Student, err = desk.AddStudent(ctx, store.Student{ClassID: b.Class, FirstName: "Ines", Initial: "P", Instrument: "trombone"})
	fail(err)
	fail(desk.AddAttempts(ctx, store.Attempt{StudentID: b.Student, ExerciseID: b.Exercise, Chunk: breakdown.ChunkKey{First: 1, Last: 2},
		Try: routine.Try{Stage: routine.Count, Clean: true}, Tempo: 60}))
	log, err := desk.StudentAttempts(ctx, b.Student)
	fail(err)
	b.Attempt = log[0].ID
	return b
}

// Asks posts a form as a page's script does, and reads the answer.
func (v *Visitor) Asks(path string, form url.Values, into any) {
	v.T.Helper()
	r := v.Request("POST", path, strings.NewReader(form.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r.Header.Set("Accept", "application/json")
	status, body := v.Do(r)
	if err := json.Unmarshal([]byte(body), into); status != http.StatusOK || err != nil {
		v.T.Fatalf("%s gives %d, %s, %v", path, status, body, err)
	}
}
