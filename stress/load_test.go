package stress

import (
	"cmp"
	"fmt"
	"math/rand/v2"
	"net/http"
	"net/url"
	"os"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"
)

// load is how the load is chosen: UNHURRIED_LOAD="users seconds", such as "200 3600".
func load(t *testing.T) (users int, lasts time.Duration) {
	t.Helper()
	return howMuch(t, "UNHURRIED_LOAD", "20 8")
}

// howMuch reads users and seconds from a variable of the environment.
func howMuch(t *testing.T, variable, usual string) (users int, lasts time.Duration) {
	t.Helper()
	words := strings.Fields(cmp.Or(os.Getenv(variable), usual))
	var err1, err2 error
	users, err1 = strconv.Atoi(words[0])
	seconds, err2 := strconv.Atoi(words[len(words)-1])
	if err1 != nil || err2 != nil || users < 1 || seconds < 1 {
		t.Fatalf(`%s is "users seconds", such as "200 3600"`, variable)
	}
	return users, time.Duration(seconds) * time.Second
}

// history gives a school of 60 students by 40 exercises a log of 50,000 tries.
const history = `
INSERT INTO sources (teacher_id, hash, format, content)
	SELECT 1, encode(sha256(convert_to('abc' || E'\n' || c, 'UTF8')), 'hex'), 'abc', c FROM (SELECT replace(content, 'T:Lamp', 'T:Lamp ' || n) c FROM sources, generate_series(2, 40) n) more;
INSERT INTO exercises (teacher_id, book_id, number, title, hash)
	SELECT 1, 1, substring(content from 'T:Lamp (\d+)')::integer, 'Lamp', hash FROM sources WHERE content LIKE 'T:Lamp %' ORDER BY 3;
INSERT INTO attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, at)
	SELECT 1, 1 + n % 60, 1 + (n * 7) % 40, 1, 2, (ARRAY['count', 'name', 'finger', 'play'])[1 + (n / 60) % 4], n % 3 > 0, CASE WHEN n % 3 > 0 THEN '' ELSE 'rhythm' END, 60, now() - (50000 - n) * interval '1 minute'
	FROM generate_series(1, 50000) n;
ANALYZE;`

// Students with time to think, 0.5 to 2.5 seconds between a page and the next, mark and look
// at the Bench, the Board and histories. Nothing fails and memory stays where it is. The
// figures are for the paper on how far one machine goes, see docs/scale.md.
func TestLoad(t *testing.T) {
	users, lasts := load(t)
	c := newCluster(t, "")
	db := c.open("postgres")
	c.do(db, "CREATE DATABASE records")
	s := newServer(t, c.url("records"))
	first := furnish(t, s.address(), 60)
	c.do(c.open("records"), history)
	foldAgain(t, c.url("records"))
	for _, path := range []string{"/", "/board"} { // which read the exercises
		if status, _, err := first.get(path); err != nil || status != http.StatusOK {
			t.Fatalf("%s gives %d, %v", path, status, err)
		}
	}
	c.do(c.open("records"), fmt.Sprintf("INSERT INTO sessions SELECT token || '-' || n, data, expiry FROM sessions, generate_series(0, %d) n", users))
	var mu sync.Mutex
	took := map[string][]time.Duration{}
	failed := map[string]int{}
	end := time.Now().Add(lasts)
	early, late := 0, 0
	var working sync.WaitGroup
	for n := range users {
		working.Go(func() {
			u := first.again(n) // one account, a browser and a session for each
			chance := rand.New(rand.NewPCG(uint64(n), 7))
			time.Sleep(time.Duration(chance.IntN(2000)) * time.Millisecond)
			for k := 0; time.Now().Before(end); k++ {
				student, exercise := 1+chance.IntN(60), 1+chance.IntN(40)
				what, path := "Bench", fmt.Sprintf("/bench/%d?class=1&student=%d", exercise, student)
				switch k := chance.IntN(100); { // a class marks more than it looks
				case k < 55:
					what = "mark"
				case k < 60:
					what, path = "Board", "/board?class=1"
				case k < 63:
					what, path = "history", fmt.Sprintf("/students/%d", student)
				}
				start := time.Now()
				var status int
				var err error
				if what == "mark" {
					status, _, err = u.post(fmt.Sprintf("/bench/%d/attempts", exercise), mark(student, fmt.Sprintf("load-%d-%d", n, k)))
				} else {
					status, _, err = u.get(path)
				}
				spent := time.Since(start)
				mu.Lock()
				took[what] = append(took[what], spent)
				if err != nil || status != http.StatusOK && status != http.StatusSeeOther {
					failed[fmt.Sprint(what, " ", status, " ", err)]++
				}
				mu.Unlock()
				time.Sleep(500*time.Millisecond + time.Duration(chance.IntN(2000))*time.Millisecond)
			}
		})
	}
	time.Sleep(lasts / 3)
	early = memoryOf(t, s)
	working.Wait()
	late = memoryOf(t, s)
	for what, n := range failed {
		t.Errorf("%d times %s", n, what)
	}
	for _, what := range []string{"mark", "Bench", "Board", "history"} {
		list := took[what]
		if len(list) == 0 {
			t.Errorf("nobody has asked for %s", what)
			continue
		}
		slices.Sort(list)
		at := func(share float64) time.Duration {
			return list[int(share*float64(len(list)-1))].Round(time.Millisecond)
		}
		t.Logf("%d users: %s %d times, half in %v, 95 of 100 in %v, the longest %v", users, what, len(list), at(.5), at(.95), at(1))
	}
	t.Logf("memory: %d MB early, %d MB late", early>>10, late>>10)
	if late > 2*early+64<<10 {
		t.Errorf("memory has grown from %d to %d MB", early>>10, late>>10)
	}
}

// again is another browser of a user with a session of its own.
func (u *user) again(n int) *user {
	other := newUser(u.t, u.site)
	other.client.Transport = u.client.Transport
	at, err := url.Parse(u.site)
	if err != nil {
		u.t.Fatal(err)
	}
	cookie := *u.client.Jar.Cookies(at)[0]
	cookie.Value = fmt.Sprint(cookie.Value, "-", n)
	other.client.Jar.SetCookies(at, []*http.Cookie{&cookie})
	return other
}

// memoryOf is what the server holds in memory, in KB.
func memoryOf(t *testing.T, s *server) int {
	t.Helper()
	text, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", s.run.Process.Pid))
	if err != nil {
		t.Fatal(err)
	}
	for line := range strings.Lines(string(text)) {
		if fields := strings.Fields(line); fields[0] == "VmRSS:" {
			kb, err := strconv.Atoi(fields[1])
			if err != nil {
				t.Fatal(err)
			}
			return kb
		}
	}
	t.Fatal("the server's memory is not told")
	return 0
}
