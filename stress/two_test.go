package stress

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync/atomic"
	"syscall"
	"testing"
	"time"
)

// balancer hands requests to servers in turn, and to another where one is not there.
func balancer(t *testing.T, servers ...*server) string {
	t.Helper()
	var turn atomic.Int64
	running := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		body, err := io.ReadAll(r.Body)
		if err != nil {
			http.Error(w, "did not arrive", http.StatusBadGateway)
			return
		}
		for range servers {
			to := servers[int(turn.Add(1))%len(servers)]
			ask, err := http.NewRequestWithContext(r.Context(), r.Method, to.address()+r.URL.RequestURI(), bytes.NewReader(body))
			if err != nil {
				break
			}
			ask.Header, ask.Host = r.Header.Clone(), r.Host
			answer, err := http.DefaultTransport.RoundTrip(ask)
			if errors.Is(err, syscall.ECONNREFUSED) {
				continue
			}
			if err != nil {
				break // it may have been done: not for the balancer to do again
			}
			defer answer.Body.Close()
			for name, values := range answer.Header {
				w.Header()[name] = values
			}
			w.WriteHeader(answer.StatusCode)
			_, _ = io.Copy(w, answer.Body) // the asker has gone when this fails
			return
		}
		http.Error(w, "no server answers", http.StatusBadGateway)
	}))
	t.Cleanup(running.Close)
	return running.URL
}

// Two servers on one database serve the same users: who signs in at one is known to the
// other, what is marked at one is shown by the other, and when one is killed under load the
// other goes on, with nothing lost and nothing doubled.
func TestTwoServers(t *testing.T) {
	c := newCluster(t, "")
	c.do(c.open("postgres"), "CREATE DATABASE records")
	one := newServer(t, c.url("records"))
	two := newServer(t, c.url("records"))
	u := furnish(t, balancer(t, one, two), 4)
	for n := range 10 { // in turn
		if status, page, err := u.get("/people"); err != nil || status != http.StatusOK || !strings.Contains(page, "Student4") {
			t.Fatalf("request %d gives %d, %v", n, status, err)
		}
	}
	m := begin(u, "both", 4)
	time.Sleep(700 * time.Millisecond)
	one.kill()
	time.Sleep(100 * time.Millisecond) // what was under way is over
	before := m.answered()
	time.Sleep(700 * time.Millisecond)
	onOne := m.answered() - before
	one.start()
	time.Sleep(400 * time.Millisecond)
	two.kill()
	time.Sleep(400 * time.Millisecond)
	m.end()
	interrupted := len(m.waiting)
	m.sendAgain(t, u)
	found := marksOf(t, c.open("records"))
	for press := range m.taken {
		if found[press] != 1 {
			t.Errorf("a mark is there %d times", found[press])
		}
	}
	t.Logf("%d marks, %d of them interrupted", len(m.taken), interrupted)
	if len(m.taken) < 50 {
		t.Errorf("only %d marks were made: this has shown nothing", len(m.taken))
	}
	if onOne < 10 {
		t.Errorf("while one was down %d marks were answered", onOne)
	}
	was := standingsOf(t, c.open("records"))
	foldAgain(t, c.url("records"))
	if is := standingsOf(t, c.open("records")); was != is {
		t.Errorf("the standings are\n%s\nand the log adds up to\n%s", was, is)
	}
	if status, page, err := u.get(fmt.Sprintf("/students/%d", 1)); err != nil || status != http.StatusOK || !strings.Contains(page, "Student1") {
		t.Errorf("afterwards a history gives %d, %v", status, err)
	}
}
