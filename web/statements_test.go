package web_test

import (
	"context"
	"net/http"
	"net/url"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-chi/chi/v5"
	"github.com/jackc/pgx/v5"

	"unhurriedbench/demo"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// statements counts what is asked of the database, by the text of the statement.
type statements struct {
	mu    sync.Mutex
	count map[string]int
}

func (s *statements) TraceQueryStart(ctx context.Context, _ *pgx.Conn, q pgx.TraceQueryStartData) context.Context {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.count[strings.Join(strings.Fields(q.SQL), " ")]++
	return ctx
}

func (*statements) TraceQueryEnd(context.Context, *pgx.Conn, pgx.TraceQueryEndData) {}

// taken is what was counted since it was last asked.
func (s *statements) taken() map[string]int {
	s.mu.Lock()
	defer s.mu.Unlock()
	was := s.count
	s.count = map[string]int{}
	return was
}

// No page asks the database the same thing over and over: no text of a statement more than
// twice, and no page more statements than it is given here, with the demo's eighteen
// students.
func TestStatements(t *testing.T) {
	t.Parallel()
	template, err := testdb.NewTemplate(func(s *store.Store) error { return demo.Load(context.Background(), s) })
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = template.Delete() })
	counted := &statements{count: map[string]int{}}
	s := testsite.OpenOn(t, template.OpenTraced(t, counted))
	v := s.Visitor(t)
	v.Post("/sign-in/demo", nil)
	v.Get("/")              // the session has its class
	most := map[string]int{ // of other routes 20
		"POST /lessons": 45, "POST /plans": 60, "GET /plans": 12, "POST /bench/{id}/attempts": 15, "GET /my/{key}/": 15, "GET /my/{key}/music": 15,
	}
	count := func(method, path string, form url.Values) string {
		t.Helper()
		counted.taken()
		var status int
		var page string
		if method == http.MethodGet {
			status, page = v.Get(path)
		} else {
			status, page = v.Post(path, form)
		}
		requested := counted.taken()
		if want := map[string]int{"GET": http.StatusOK, "POST": http.StatusSeeOther}[method]; status != want {
			t.Errorf("%s %s gives %d", method, path, status)
		}
		n := 0
		for text, times := range requested {
			n += times
			if times > 2 && !strings.HasPrefix(text, "SELECT format, content FROM sources") { // a source is read once and kept
				t.Errorf("%s %s asks %d times: %.200s", method, path, times, text)
			}
		}
		n -= requested["SELECT format, content FROM sources WHERE teacher_id = $1 AND hash = $2"]
		limit, known := most[method+" "+pattern(s, method, path)]
		if !known {
			limit = 20
		}
		if n > limit {
			t.Errorf("%s %s asks %d statements, at most %d are right", method, path, n, limit)
		}
		if len(page) > 60<<10 && strings.HasPrefix(path, "/my/") && !strings.HasSuffix(path, "/music") {
			t.Errorf("%s has %d bytes, which a telephone waits for", path, len(page))
		}
		t.Logf("%4d %s %s, %d bytes", n, method, path, len(page))
		return page
	}
	lesson := count("POST", "/lessons", url.Values{"minutes": {"30"}, "begun": {"yes"}, "next": {"yes"}, "left": {"yes"}})
	lesson, _, _ = strings.Cut(lesson, "?")
	count("POST", "/plans", url.Values{"minutes": {"15"}, "day": {"1", "2", "4"}, "until": {time.Now().AddDate(0, 0, 14).Format(time.DateOnly)}})
	count("POST", "/bench/6/attempts", url.Values{"student": {"3"}, "chunk": {"1-2"}, "stage": {"count"}, "result": {"clean"}, "instrument": {"flute"}, "tempo": {"60"}})
	v.Post("/plans/own-pages", url.Values{"class": {"1"}})
	for _, path := range append(demoPaths, append(studentsPaths(t, s, 3), lesson)...) {
		count("GET", path, nil)
	}
}

// pattern is the route that serves a path.
func pattern(s *testsite.Site, method, path string) string {
	path, _, _ = strings.Cut(path, "?")
	return s.Routes.Find(chi.NewRouteContext(), method, path)
}

// demoPaths are every screen of the demo, for its teacher.
var demoPaths = []string{
	"/", "/?query=lamp", "/bench/6", "/bench/6?student=3", "/bench/6/hardest", "/bench/6/sheets", "/bench/6/first-notes", "/exercises/new", "/exercises/6/edit", "/exercises/6/parts",
	"/exercises/many", "/books/1/export", "/exercises/6/export?as=musicxml&instrument=flute", "/board", "/board/pulse?class=1", "/board/heat", "/board/weeks",
	"/board/groups?exercise=6", "/board/grades", "/students/3", "/students/3/family", "/students/3/plan", "/plans", "/lessons", "/check-ins", "/cards",
	"/tune", "/technique", "/bench/6/walk", "/bench/6/walk?lead=yes", "/bench/6/write", "/compare?exercise=6", "/fingerings/clarinet", "/routines", "/settings", "/settings/voice", "/care/reeds", "/people", "/people/table", "/classes/1/seats", "/removed", "/account", "/account/log",
}

// studentsPaths are the pages of a student who has a link.
func studentsPaths(t *testing.T, s *testsite.Site, student store.StudentID) []string {
	t.Helper()
	teacher, err := s.Store.DemoTeacher(context.Background())
	if err != nil {
		t.Fatal(err)
	}
	page, err := s.Store.For(teacher.ID).OwnPageOf(context.Background(), student)
	if err != nil {
		t.Fatal(err)
	}
	own := "/my/" + page.Key + "/"
	return []string{own, own + "music", own + "cards", own + "notes"}
}
