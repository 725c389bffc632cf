// Package stress tests what the program lives through as it is run: it and its database
// are killed, run out of room and of connections, and many work at once.
package stress

import (
	"bytes"
	"context"
	"database/sql"
	"flag"
	"fmt"
	"io"
	"math/rand/v2"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	_ "github.com/jackc/pgx/v5/stdlib" // the database/sql driver "pgx"
)

// program is the built program, made by TestMain.
var program string

func TestMain(m *testing.M) {
	if flag.Parse(); testing.Short() {
		fmt.Println("these are for bin/test --all")
		return
	}
	folder, err := os.MkdirTemp("", "stress")
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	program = filepath.Join(folder, "unhurried")
	build := exec.Command("go", "build", "-o", program, "../cmd/unhurried")
	build.Stderr = os.Stderr
	code := 1
	if err := build.Run(); err == nil && os.Chmod(folder, 0o755) == nil {
		code = m.Run()
	}
	_ = os.RemoveAll(folder) // what is left in /tmp does no harm
	os.Exit(code)
}

// cluster is a PostgreSQL of a test's own, that may be killed.
type cluster struct {
	t      testing.TB
	folder string
	port   int
	more   string // options
}

// newCluster makes and starts one, with options of its own such as -c max_connections=20.
func newCluster(t testing.TB, more string) *cluster {
	t.Helper()
	folder, err := os.MkdirTemp("", "stress-data")
	if err != nil {
		t.Fatal(err)
	}
	if err := os.Chmod(folder, 0o711); err != nil {
		t.Fatal(err)
	}
	c := &cluster{t, folder, freePort(t), more}
	t.Cleanup(func() {
		_ = c.shell(`as_postgres "$PG_BIN/pg_ctl" stop -m immediate -D "$FOLDER/data"`) // it may be killed already
		if err := os.RemoveAll(folder); err != nil {
			t.Error(err)
		}
	})
	if err := c.shell(`start_postgres "$FOLDER" && as_postgres "$PG_BIN/pg_ctl" stop -m fast -w -D "$FOLDER/data"`); err != nil {
		t.Fatal(err)
	}
	c.start()
	return c
}

// shell runs a script with what bin/setup.sh has.
func (c *cluster) shell(script string) error {
	run := exec.Command("bash", "-c", "set -e; . bin/setup.sh; need_postgres >/dev/null; "+script)
	run.Dir = ".."
	run.Env = append(os.Environ(), "FOLDER="+c.folder, fmt.Sprint("PORT=", c.port), "MORE="+c.more)
	var said bytes.Buffer
	run.Stdout, run.Stderr = &said, &said
	if err := run.Run(); err != nil {
		return fmt.Errorf("%w: %s", err, said.String())
	}
	return nil
}

// start starts it again. After it was killed its children take a moment to notice.
func (c *cluster) start() {
	c.t.Helper()
	var err error
	for end := time.Now().Add(patience); time.Now().Before(end); {
		err = c.shell(`as_postgres "$PG_BIN/pg_ctl" start -w -t 60 -D "$FOLDER/data" -l "$FOLDER/data/server.log" ` +
			`-o "-c listen_addresses=127.0.0.1 -c port=$PORT -c unix_socket_directories=$FOLDER/run $MORE" >/dev/null`)
		if err == nil {
			return
		}
		time.Sleep(100 * time.Millisecond)
	}
	c.t.Fatal(err)
}

// kill ends PostgreSQL with no time to write anything.
func (c *cluster) kill() {
	c.t.Helper()
	text, err := os.ReadFile(filepath.Join(c.folder, "data", "postmaster.pid"))
	if err != nil {
		c.t.Fatal(err)
	}
	pid, err := strconv.Atoi(strings.Fields(string(text))[0])
	if err != nil {
		c.t.Fatal(err)
	}
	if err := syscall.Kill(pid, syscall.SIGKILL); err != nil {
		c.t.Fatal(err)
	}
}

// url is the address of a database of it.
func (c *cluster) url(name string) string {
	c.t.Helper()
	password, err := os.ReadFile(filepath.Join(c.folder, "password"))
	if err != nil {
		c.t.Fatal(err)
	}
	return fmt.Sprintf("postgres://bench:%s@127.0.0.1:%d/%s", password, c.port, name)
}

func (c *cluster) open(name string) *sql.DB {
	c.t.Helper()
	db, err := sql.Open("pgx", c.url(name))
	if err != nil {
		c.t.Fatal(err)
	}
	c.t.Cleanup(func() { _ = db.Close() }) // the database may be gone
	return db
}

// do runs a statement.
func (c *cluster) do(db *sql.DB, statement string) {
	c.t.Helper()
	if _, err := db.Exec(statement); err != nil {
		c.t.Fatalf("%s: %v", statement, err)
	}
}

func freePort(t testing.TB) int {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port
}

// server is the program, serving.
type server struct {
	t        testing.TB
	database string
	port     int
	run      *exec.Cmd
	said     *bytes.Buffer
}

func newServer(t testing.TB, database string) *server {
	t.Helper()
	s := &server{t: t, database: database, port: freePort(t)}
	s.start()
	t.Cleanup(s.kill)
	return s
}

func (s *server) start() {
	s.t.Helper()
	s.said = &bytes.Buffer{}
	s.run = exec.Command(program, "serve", "--address", fmt.Sprint("127.0.0.1:", s.port))
	s.run.Env = append(os.Environ(), "UNHURRIED_DATABASE="+s.database)
	s.run.Stderr = s.said
	if err := s.run.Start(); err != nil {
		s.t.Fatal(err)
	}
	s.waitReady()
}

// patience is how long a machine that is busy with other things may take to start a server, or
// to answer.
const patience = 3 * time.Minute

func (s *server) waitReady() {
	s.t.Helper()
	for end := time.Now().Add(patience); time.Now().Before(end); {
		if answer, err := http.Get(s.address() + "/ready"); err == nil {
			answer.Body.Close()
			if answer.StatusCode == http.StatusOK {
				return
			}
		}
		time.Sleep(50 * time.Millisecond)
	}
	s.t.Fatalf("the server is not ready: %s", s.said)
}

// kill ends the server with no time to finish anything.
func (s *server) kill() {
	_ = s.run.Process.Kill() // it may be dead
	_ = s.run.Wait()         // says that it was killed
}

func (s *server) address() string { return fmt.Sprint("http://127.0.0.1:", s.port) }

// user is a browser at an address.
type user struct {
	t      testing.TB
	site   string
	client *http.Client
}

func newUser(t testing.TB, site string) *user {
	t.Helper()
	jar, err := cookiejar.New(nil)
	if err != nil {
		t.Fatal(err)
	}
	return &user{t, site, &http.Client{Jar: jar, Timeout: patience,
		Transport:     &http.Transport{MaxIdleConnsPerHost: 64},
		CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}}
}

// post sends a form; the error is of the line, not of the answer.
func (u *user) post(path string, form url.Values) (status int, page string, err error) {
	return answered(u.client.PostForm(u.site+path, form))
}

func (u *user) get(path string) (status int, page string, err error) {
	return answered(u.client.Get(u.site + path))
}

func answered(answer *http.Response, err error) (int, string, error) {
	if err != nil {
		return 0, "", err
	}
	defer answer.Body.Close()
	page, err := io.ReadAll(answer.Body)
	return answer.StatusCode, string(page), err
}

// must posts a form that has to be taken.
func (u *user) must(path string, form url.Values) {
	u.t.Helper()
	if status, page, err := u.post(path, form); err != nil || status != http.StatusSeeOther {
		u.t.Fatalf("%s gives %d, %v: %.300s", path, status, err, page)
	}
}

const password = "three ferry lamps"

// furnish makes the first account with an exercise and a class of a given number of students, and
// gives a signed-in user.
func furnish(t testing.TB, site string, students int) *user {
	t.Helper()
	u := newUser(t, site)
	u.must("/welcome", url.Values{"email": {"a@school.example"}, "name": {"Wren"}, "school": {"Hall"}, "password": {password}})
	u.must("/exercises", url.Values{"book": {"Book"}, "number": {"1"}, "title": {"Lamp"}, "abc": {"T:Lamp\nM:4/4\nL:1/4\nK:Bb\nB c d e|f4|e d c B|B4|]\n"}})
	u.must("/classes", url.Values{"name": {"Class"}})
	for n := range students {
		u.must("/students", url.Values{"class": {"1"}, "first_name": {fmt.Sprint("Student", n+1)}, "instrument": {"trombone"}})
	}
	return u
}

// mark is a mark for a student, by its key.
func mark(student int, press string) url.Values {
	form := url.Values{"class": {"1"}, "student": {fmt.Sprint(student)}, "instrument": {"trombone"}, "chunk": {"1-2"}, "stage": {"count"}, "tempo": {"60"}, "request_key": {press}}
	if rand.IntN(3) == 0 {
		form.Set("cause", "rhythm")
	} else {
		form.Set("result", "clean")
	}
	return form
}

// marksOf counts the rows of the log by their key.
func marksOf(t testing.TB, db *sql.DB) map[string]int {
	t.Helper()
	rows, err := db.QueryContext(context.Background(), `SELECT request_key, count(*) FROM attempts WHERE request_key IS NOT NULL GROUP BY request_key`)
	if err != nil {
		t.Fatal(err)
	}
	defer rows.Close()
	found := map[string]int{}
	for rows.Next() {
		var press string
		var n int
		if err := rows.Scan(&press, &n); err != nil {
			t.Fatal(err)
		}
		found[press] = n
	}
	if err := rows.Err(); err != nil {
		t.Fatal(err)
	}
	return found
}

// standingsOf is all standings, as text.
func standingsOf(t testing.TB, db *sql.DB) string {
	t.Helper()
	var all sql.NullString
	if err := db.QueryRow(`SELECT string_agg(s::text, E'\n' ORDER BY s::text) FROM standings s`).Scan(&all); err != nil {
		t.Fatal(err)
	}
	return all.String
}

// foldAgain has the program add up the whole log again.
func foldAgain(t testing.TB, database string) {
	t.Helper()
	run := exec.Command(program, "reread", "--all")
	run.Env = append(os.Environ(), "UNHURRIED_DATABASE="+database)
	if said, err := run.CombinedOutput(); err != nil {
		t.Fatalf("%v: %s", err, said)
	}
}
