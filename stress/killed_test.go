package stress

import (
	"fmt"
	"math/rand/v2"
	"net/http"
	"sync"
	"testing"
	"time"
)

// marking is several who mark at once, each with keys of their own, and what became of
// them.
type marking struct {
	mu       sync.Mutex
	taken    map[string]bool // keys that were answered
	waiting  map[string]int  // keys without an answer, with their student
	stop     chan struct{}
	finished sync.WaitGroup
}

// begin has n users mark until end is called.
func begin(u *user, name string, workers int) *marking {
	m := &marking{taken: map[string]bool{}, waiting: map[string]int{}, stop: make(chan struct{})}
	for w := range workers {
		m.finished.Go(func() {
			for n := 0; ; n++ {
				select {
				case <-m.stop:
					return
				default:
				}
				key, student := fmt.Sprintf("%s-%d-%d", name, w, n), 1+rand.IntN(4)
				status, _, err := u.post("/bench/1/attempts", mark(student, key))
				m.mu.Lock()
				if err == nil && status == http.StatusSeeOther {
					m.taken[key] = true
				} else {
					m.waiting[key] = student
				}
				m.mu.Unlock()
				if err != nil || status != http.StatusSeeOther {
					time.Sleep(150 * time.Millisecond)
				}
			}
		})
	}
	return m
}

func (m *marking) answered() int {
	m.mu.Lock()
	defer m.mu.Unlock()
	return len(m.taken)
}

func (m *marking) end() {
	close(m.stop)
	m.finished.Wait()
}

// sendAgain sends what had no answer, as a page does, until it has one.
func (m *marking) sendAgain(t *testing.T, u *user) {
	t.Helper()
	for key, student := range m.waiting {
		if status, page, err := u.post("/bench/1/attempts", mark(student, key)); err != nil || status != http.StatusSeeOther {
			t.Fatalf("sent again, a mark gives %d, %v: %.300s", status, err, page)
		}
		m.taken[key] = true
	}
	m.waiting = map[string]int{}
}

// The server and its database are killed twenty times while four mark at once: no mark
// that was answered is lost, none counts twice, also those that had to be sent again, and
// the standings are what the log adds up to.
func TestKilledUnderMarks(t *testing.T) {
	c := newCluster(t, "")
	c.do(c.open("postgres"), "CREATE DATABASE records")
	s := newServer(t, c.url("records"))
	u := furnish(t, s.address(), 4)
	answered, unanswered := 0, 0
	for round := range 20 {
		m := begin(u, fmt.Sprint("round", round), 4)
		time.Sleep(time.Duration(100+rand.IntN(300)) * time.Millisecond)
		if round%2 == 0 {
			s.kill()
			time.Sleep(50 * time.Millisecond)
			s.start()
		} else {
			c.kill()
			time.Sleep(50 * time.Millisecond)
			c.start()
			s.waitReady()
		}
		time.Sleep(100 * time.Millisecond)
		m.end()
		found := marksOf(t, c.open("records"))
		for key := range m.taken {
			if found[key] != 1 {
				t.Errorf("round %d: a mark that was answered is there %d times", round, found[key])
			}
		}
		for key := range m.waiting {
			if found[key] > 1 {
				t.Errorf("round %d: a mark without an answer is there %d times", round, found[key])
			}
		}
		answered, unanswered = answered+len(m.taken), unanswered+len(m.waiting)
		m.sendAgain(t, u)
		found = marksOf(t, c.open("records"))
		for key := range m.taken {
			if found[key] != 1 {
				t.Errorf("round %d: sent again, a mark is there %d times", round, found[key])
			}
		}
	}
	t.Logf("%d marks were answered, %d had to be sent again", answered, unanswered)
	if answered < 200 || unanswered < 20 {
		t.Errorf("only %d marks were answered and %d interrupted: this has shown nothing", answered, unanswered)
	}
	was := standingsOf(t, c.open("records"))
	foldAgain(t, c.url("records"))
	if is := standingsOf(t, c.open("records")); was != is || was == "" {
		t.Errorf("the standings are\n%s\nand the log adds up to\n%s", was, is)
	}
}
