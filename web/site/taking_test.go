package site_test

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"mime/multipart"
	"net/http"
	"net/url"
	"os"
	"strings"
	"testing"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// tooMuch is a multipart form whose file goes on for a given number of bytes.
func tooMuch(t *testing.T, size int) (body io.Reader, contentType string) {
	t.Helper()
	var b bytes.Buffer
	w := multipart.NewWriter(&b)
	part, err := w.CreateFormFile("file", "large.abc")
	if err != nil {
		t.Fatal(err)
	}
	head := b.String()
	_ = part
	return io.MultiReader(strings.NewReader(head), io.LimitReader(endless{}, int64(size))), w.FormDataContentType()
}

type endless struct{}

func (endless) Read(p []byte) (int, error) {
	for k := range p {
		p[k] = 'x'
	}
	return len(p), nil
}

// Every route that takes a form refuses one that is too large, from any sender, and
// leaves nothing on the disk.
func TestNoRouteTakesTooMuch(t *testing.T) {
	aside := t.TempDir()
	t.Setenv("TMPDIR", aside)
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	anonymous := s.Visitor(t)
	walked := 0
	err := chi.Walk(s.Routes, func(method, route string, _ http.Handler, _ ...func(http.Handler) http.Handler) error {
		if method != http.MethodPost || route == "/static/*" {
			return nil
		}
		walked++
		path := b.Path(route)
		for name, who := range map[string]*testsite.Visitor{"a teacher": v, "nobody": anonymous} {
			body, contentType := tooMuch(t, site.LargestForm+1<<20)
			r := who.Request(method, path, body)
			r.Header.Set("Content-Type", contentType)
			answer, err := who.Client.Do(r)
			if err != nil {
				continue // the server has hung up on what went on too long
			}
			page, _ := io.ReadAll(answer.Body)
			answer.Body.Close()
			signedOut := answer.StatusCode == http.StatusSeeOther && strings.HasPrefix(answer.Header.Get("Location"), "/sign-in")
			if answer.StatusCode != http.StatusRequestEntityTooLarge && answer.StatusCode != http.StatusTooManyRequests && !signedOut &&
				!strings.Contains(string(page), "larger than 5 MB") && !strings.Contains(string(page), "There is no exercise yet") && !strings.Contains(string(page), "The archive is larger than 30 MB") {
				t.Errorf("%s of %s by %s gives %d: %.300s", method, route, name, answer.StatusCode, page)
			}
		}
		left, err := os.ReadDir(aside)
		if err != nil {
			t.Fatal(err)
		}
		if len(left) > 0 {
			t.Errorf("%s leaves %d files on the disk", route, len(left))
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	if walked < 25 {
		t.Errorf("only %d routes were walked", walked)
	}
	if exercises, err := s.Store.For(account.ID).Exercises(context.Background()); err != nil || len(exercises) != 1 {
		t.Errorf("there are %d exercises, %v", len(exercises), err)
	}
}

// A file between what is kept in memory and what a form may hold is put aside on disk,
// refused with its form kept, and taken away.
func TestAFilePutAsideIsDeleted(t *testing.T) {
	aside := t.TempDir()
	t.Setenv("TMPDIR", aside)
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	form := map[string]string{"book": "Kept Book", "number": "4", "title": "Kept"}
	status, page := v.Send("/exercises", form, "large.abc", bytes.Repeat([]byte("C"), 12<<20))
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a file of 12 MB gives %d", status)
	}
	testsite.Wants(t, page, "The file is larger than 5 MB", `value="Kept Book"`, `value="Kept"`)
	if left, err := os.ReadDir(aside); err != nil || len(left) > 0 {
		t.Errorf("%d files are left on the disk, %v", len(left), err)
	}
	abc := strings.Repeat("C", 6<<20)
	status, page = v.Send("/exercises", map[string]string{"book": "B", "number": "1", "abc": abc}, "", nil)
	if status != http.StatusUnprocessableEntity || !strings.Contains(page, "larger than 5 MB") {
		t.Errorf("6 MB typed give %d", status)
	}
}

// formFields are the names of what forms of the site have.
var formFields = strings.Fields("name list first_name initial instrument book title number abc school back to email password chunk stage cause press " +
	"tempo fingering note kind octaves cue-1 cue-2 two three word pattern one as keys class student a b naming naturals rests beat values meter written_for colour-D")

// everyField sends a value in every field to every route, and gives what is answered.
func everyField(t *testing.T, s *testsite.Site, v *testsite.Visitor, b testsite.Belongings, value string, check func(route string, status int, page string)) {
	t.Helper()
	err := chi.Walk(s.Routes, func(method, route string, _ http.Handler, _ ...func(http.Handler) http.Handler) error {
		if route == "/static/*" || strings.HasSuffix(route, "/remove") || strings.HasSuffix(route, "/left") {
			return nil
		}
		path := b.Path(route)
		form := url.Values{}
		for _, name := range formFields {
			form.Add(name, value)
		}
		form.Set("class", fmt.Sprint(b.Class))
		var status int
		var page string
		if method == http.MethodPost {
			status, page = v.Post(path, form)
		} else {
			form.Del("list")
			form.Del("abc")
			status, page = v.Get(path + "?" + form.Encode())
		}
		check(method+" "+route, status, page)
		if strings.HasSuffix(route, "sign-out") {
			if _, again := v.Post("/sign-in", url.Values{"email": {"a@school.example"}, "password": {testsite.Password}}); again != "/" {
				t.Fatalf("signing in again leads to %s", again)
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
}

// Zero bytes and what is no UTF-8 lose no form and reach no table.
func TestBytesThatAreNoText(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	everyField(t, s, v, b, "Te\x00s\xff\xfet", func(route string, status int, page string) {
		if status >= http.StatusInternalServerError {
			t.Errorf("%s gives %d", route, status)
		}
		for _, word := range []string{"strconv", "pq:", "SQLSTATE", "invalid byte"} {
			if strings.Contains(page, word) {
				t.Errorf("%s says %q", route, word)
			}
		}
	})
	_, page := v.Post("/classes", url.Values{"name": {"Te\x00st\xff"}, "list": {"Alma R kazoo"}})
	testsite.Wants(t, page, "Test", "Alma R kazoo")
}

// What is far too long for its field is refused in a sentence and kept nowhere.
func TestTooLongForItsField(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	everyField(t, s, v, b, strings.Repeat("long ", 500), func(route string, status int, page string) {
		if status >= http.StatusInternalServerError {
			t.Errorf("%s gives %d", route, status)
		}
		if strings.Contains(page, "SQLSTATE") || strings.Contains(page, "value too long") {
			t.Errorf("%s shows the database's words", route)
		}
	})
	for _, field := range []string{"rests", "naming", "naturals", "cue-1", "two", "colour-D"} {
		if status, page := v.Post("/settings", url.Values{field: {strings.Repeat("long ", 500)}}); status != http.StatusUnprocessableEntity || !strings.Contains(page, "Not saved: ") {
			t.Errorf("a long %s gives %d", field, status)
		}
	}
	for _, column := range []string{"teachers.name", "classes.name", "students.first_name", "students.initial", "books.title", "exercises.title", "settings.value",
		"preferred.fingering"} {
		table, name, _ := strings.Cut(column, ".")
		var longest int
		if err := s.Store.DB().QueryRow(`SELECT coalesce(max(length(` + name + `)), 0) FROM ` + table).Scan(&longest); err != nil {
			t.Errorf("%s: %v", column, err)
		}
		if longest > 200 {
			t.Errorf("%s keeps %d letters", column, longest)
		}
	}
}

// A mark sent again, because its answer did not arrive, changes nothing and asks nothing,
// though the student has gone on; so does one for everybody.
func TestAMarkSentAgain(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID) // Ines has one clean count
	desk := s.Store.For(account.ID)
	tries := func() int {
		t.Helper()
		log, err := desk.StudentAttempts(context.Background(), b.Student)
		if err != nil {
			t.Fatal(err)
		}
		return len(log)
	}
	form := url.Values{"instrument": {"trombone"}, "class": {fmt.Sprint(b.Class)}, "student": {fmt.Sprint(b.Student)}, "chunk": {"1-2"},
		"stage": {"count"}, "seen": {"1"}, "result": {"clean"}, "tempo": {"66"}, "request_key": {"first"}}
	for range 3 {
		status, page := v.Script(fmt.Sprintf("/bench/%d/attempts", b.Exercise), form)
		if status != http.StatusOK {
			t.Fatalf("the mark gives %d", status)
		}
		testsite.Wants(t, page, "Count, m. 1–2: clean.", "on to Name")
		if strings.Contains(page, "Since this page was opened") {
			t.Error("a mark that is sent again is asked about")
		}
	}
	if n := tries(); n != 2 {
		t.Errorf("%d tries are logged, want 2", n)
	}
	form.Del("student")
	form.Set("stage", string(routine.Name))
	form.Set("request_key", "all")
	for range 2 {
		_, page := v.Script(fmt.Sprintf("/bench/%d/everybody", b.Exercise), form)
		testsite.Wants(t, page, "Undo for everybody")
	}
	if n := tries(); n != 3 {
		t.Errorf("%d tries are logged, want 3", n)
	}
	form.Set("request_key", strings.Repeat("x", store.LongestKey+1)) // is too long to be ours
	if status, _ := v.Script(fmt.Sprintf("/bench/%d/everybody", b.Exercise), form); status != http.StatusOK {
		t.Errorf("a press that is too long gives %d", status)
	}
	_, page := v.Get(fmt.Sprintf("/bench/%d?student=%d", b.Exercise, b.Student))
	if n := strings.Count(page, `name="request_key" value="`); n < 2 {
		t.Errorf("the Bench has %d presses, want one for the student and one for everybody", n)
	}
}

// HEAD is answered as GET is, without the page; signing in too often gets a page.
func TestHeadAndTooOften(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	for _, path := range []string{"/", "/board", "/sign-in", testsite.AddressOf(t, "bench.css")} {
		if status, page := v.Do(v.Request(http.MethodHead, path, nil)); status != http.StatusOK && status != http.StatusSeeOther || page != "" && !strings.HasPrefix(page, "/") {
			t.Errorf("HEAD of %s gives %d, %.100s", path, status, page)
		}
	}
	status, page := 0, ""
	for range site.SignInsPerMinute + 1 {
		status, page = s.Visitor(t).Post("/sign-in", url.Values{"email": {"a@school.example"}, "password": {"wrong"}})
	}
	if status != http.StatusTooManyRequests {
		t.Errorf("signing in too often gives %d", status)
	}
	testsite.Wants(t, page, "<h1>", "Wait a minute, then try again.")
}

// While the records are away a teacher gets a page that says so, and is not sent to sign in.
func TestTheRecordsAway(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	watched := func(health, ready int) {
		t.Helper()
		for path, want := range map[string]int{"/health": health, "/ready": ready} {
			if status, _ := s.Visitor(t).Get(path); status != want {
				t.Errorf("%s gives %d, want %d", path, status, want)
			}
		}
	}
	watched(http.StatusOK, http.StatusOK)
	if err := s.Store.DB().Close(); err != nil {
		t.Fatal(err)
	}
	watched(http.StatusOK, http.StatusServiceUnavailable)
	for _, path := range []string{"/", "/board", fmt.Sprintf("/bench/%d", b.Exercise), "/nowhere"} {
		status, page := v.Get(path)
		if status != http.StatusServiceUnavailable {
			t.Errorf("%s gives %d", path, status)
		}
		testsite.Wants(t, page, "<h1>The records cannot be reached</h1>", "Nothing is lost")
	}
	if status, _ := v.Script(fmt.Sprintf("/bench/%d/attempts", b.Exercise), url.Values{"result": {"clean"}}); status != http.StatusServiceUnavailable {
		t.Errorf("a mark gives %d", status)
	}
}

// A file in older letters, and one whose measures do not come out, are read at a press, and
// kept so.
func TestReadAsItIsMeant(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	testsite.Furnish(t, s.Store, account.ID)
	latin := map[string]string{"way": "file", "book": "The Ferry Book", "number": "21", "title": ""}
	old := "X:1\nT:F\xe4hre\nM:4/4\nL:1/4\nK:C\nC D E F|G4|]\n"
	status, _ := v.Send("/exercises", latin, "old.abc", []byte(old))
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a file in Latin-1 gives %d", status)
	}
	latin["encoding"] = "latin-1"
	status, to := v.Send("/exercises", latin, "old.abc", []byte(old))
	if status != http.StatusSeeOther {
		t.Fatalf("a file read as Latin-1 gives %d: %s", status, to)
	}
	_, page := v.Get(to)
	testsite.Wants(t, page, "21 · Fähre")

	uneven := map[string]string{"way": "abc", "book": "The Ferry Book", "number": "22", "title": "Uneven", "abc": "M:4/4\nL:1/4\nK:C\nC D E F|G A B|c4|]"}
	_, part := v.Script("/exercises/preview", url.Values{"way": {"abc"}, "abc": {uneven["abc"]}})
	testsite.Wants(t, part, "Measure 2", "Read these measures by their bar lines")
	_, part = v.Script("/exercises/preview", url.Values{"way": {"abc"}, "abc": {uneven["abc"]}, "bars": {"yes"}})
	testsite.Wants(t, part, "read by their bar lines: m. 2", `name="bars" value="yes" checked`)
	uneven["bars"] = "yes"
	if status, to = v.Send("/exercises", uneven, "", nil); status != http.StatusSeeOther {
		t.Fatalf("uneven measures read by their bar lines give %d", status)
	}
	_, page = v.Get(to)
	testsite.Wants(t, page, "22 · Uneven", "read by their bar lines: m. 2")
}
