package stress

import (
	"cmp"
	"fmt"
	"math/rand/v2"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"
)

// Students open their own pages, each once, spread over a time: by themselves 40 in 8 seconds,
// which is the pace of 300 in a minute; UNHURRIED_PAGES="300 60" asks for that. Each page
// brings what its worker keeps along with it. Nothing fails; the figures are for docs/scale.md.
func TestStudentsOpenTheirPages(t *testing.T) {
	users, lasts := howMuch(t, "UNHURRIED_PAGES", "40 8")
	c := newCluster(t, "")
	db := c.open("postgres")
	c.do(db, "CREATE DATABASE records")
	s := newServer(t, c.url("records"))
	teacher := furnish(t, s.address(), users)
	records := c.open("records")
	c.do(records, strings.ReplaceAll(history, "n % 60", fmt.Sprint("n % ", users)))
	foldAgain(t, c.url("records"))
	teacher.must("/plans?class=1", url.Values{"day": {"0", "1", "2", "3", "4", "5", "6"}, "minutes": {"15"}, "until": {time.Now().AddDate(0, 0, 7).Format(time.DateOnly)}})
	teacher.must("/plans/own-pages?class=1", nil)
	var keys []string
	rows, err := records.Query(`SELECT key FROM own_pages ORDER BY student_id`)
	if err != nil {
		t.Fatal(err)
	}
	defer rows.Close()
	for rows.Next() {
		var key string
		if err := rows.Scan(&key); err != nil {
			t.Fatal(err)
		}
		keys = append(keys, key)
	}
	if err := rows.Err(); err != nil || len(keys) != users {
		t.Fatalf("%d pages, %v, want %d", len(keys), err, users)
	}
	var mu sync.Mutex
	took := map[string][]time.Duration{}
	failed := map[string]int{}
	var working sync.WaitGroup
	for n, key := range keys {
		working.Go(func() {
			u := newUser(t, s.address())
			u.client.Transport = teacher.client.Transport
			chance := rand.New(rand.NewPCG(uint64(n), 11))
			time.Sleep(time.Duration(chance.Int64N(int64(lasts))))
			for _, page := range []string{"", "worker.js", "cards", "notes", "care"} {
				start := time.Now()
				status, text, err := u.get("/my/" + key + "/" + page)
				spent := time.Since(start)
				mu.Lock()
				took[page] = append(took[page], spent)
				if err != nil || status != http.StatusOK || page == "" && !strings.Contains(text, "own-step") {
					failed[fmt.Sprint(page, " ", status, " ", err)]++
				}
				mu.Unlock()
			}
		})
	}
	working.Wait()
	for what, n := range failed {
		t.Errorf("%d times %s", n, what)
	}
	for _, page := range []string{"", "cards", "notes", "care"} {
		list := took[page]
		slices.Sort(list)
		at := func(share float64) time.Duration {
			return list[int(share*float64(len(list)-1))].Round(time.Millisecond)
		}
		t.Logf("%d students in %v: %s half in %v, 95 of 100 in %v, the longest %v", users, lasts, cmp.Or(page, "the day"), at(.5), at(.95), at(1))
	}
}
