package web

import (
	"context"
	"fmt"
	"net"
	"net/http"
	"strings"
	"time"

	"github.com/go-chi/httprate"

	"unhurriedbench/store"
)

// How many guesses at passwords a minute takes: from one address, and at one account, more,
// so that who guesses from one address does not lock out whose account it is.
const (
	signInsPerMinute = 10
	guessesPerMinute = 20
)

// limitSignIns answers who has tried too often with a page. It stands behind what reads
// the form.
func (s *Server) limitSignIns(next http.Handler) http.Handler {
	limited := func(most int, by httprate.KeyFunc) func(http.Handler) http.Handler {
		return httprate.LimitBy(most, time.Minute, by, httprate.WithLimitCounter(guesses{s.store}), httprate.WithLimitHandler(s.tooOften), httprate.WithErrorHandler(s.away))
	}
	return limited(signInsPerMinute, callerAddress)(limited(guessesPerMinute, guessedAccount)(next))
}

// guessedAccount is the account that a request tries the password of; where it is of none,
// the caller's address.
func guessedAccount(r *http.Request) (string, error) {
	if id := asking(r).Teacher.ID; id != 0 {
		return fmt.Sprint("teacher ", id), nil
	}
	if email := strings.ToLower(text(r, "email")); email != "" {
		return "account " + email, nil
	}
	return callerAddress(r)
}

func (s *Server) tooOften(w http.ResponseWriter, _ *http.Request) {
	const heading = "A minute’s rest"
	s.render(w, http.StatusTooManyRequests, "message", "layout", layoutData{Title: heading,
		Content: message{heading, "Signing in was tried too often in a minute, from this address or for this account. Wait a minute, then try again."}})
}

// callerAddress is the address a request comes from, without its port; see Behind.
func callerAddress(r *http.Request) (string, error) {
	host, _, err := net.SplitHostPort(r.RemoteAddr)
	return host, err
}

// guesses counts them in the records, so that all servers count together.
type guesses struct{ store *store.Store }

// Config is told the limit, which is the same at every server.
func (guesses) Config(int, time.Duration) {}

func (g guesses) Increment(key string, window time.Time) error { return g.IncrementBy(key, window, 1) }

func (g guesses) IncrementBy(key string, window time.Time, more int) error {
	return g.store.CountGuesses(context.Background(), key, window, more)
}

// Get is how many there were in this window and in the one before.
func (g guesses) Get(key string, window, before time.Time) (now, then int, err error) {
	return g.store.Guesses(context.Background(), key, window, before)
}
