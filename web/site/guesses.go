package site

import (
	"context"
	"fmt"
	"net"
	"net/http"
	"net/netip"
	"strings"
	"time"

	"github.com/go-chi/httprate"

	"unhurriedbench/store"
)

// How many guesses at passwords a minute takes: from one address, and at one account, more,
// so that who guesses from one address does not lock out whose account it is.
const (
	SignInsPerMinute = 10
	GuessesPerMinute = 20
)

// LimitSignIns answers who has tried too often with a page. It stands behind what reads
// the form.
func (s *Site) LimitSignIns(next http.Handler) http.Handler {
	limited := func(most int, by httprate.KeyFunc) func(http.Handler) http.Handler {
		return httprate.LimitBy(most, time.Minute, by, httprate.WithLimitCounter(guesses{s.Store}),
			httprate.WithLimitHandler(s.tooOften), httprate.WithErrorHandler(s.unavailable))
	}
	return limited(SignInsPerMinute, CallerNetwork)(limited(GuessesPerMinute, guessedAccount)(next))
}

// CallerNetwork is the address a request comes from; of the long ones, of which a caller
// has many, the network.
func CallerNetwork(r *http.Request) (string, error) {
	address, err := callerAddress(r)
	if at, wrong := netip.ParseAddr(address); wrong == nil && at.Is6() && !at.Is4In6() {
		network, _ := at.WithZone("").Prefix(64) // there are that many bits
		return network.String(), err
	}
	return address, err
}

// guessedAccount is the account that a request tries the password of; where it names none,
// one of the caller's own.
func guessedAccount(r *http.Request) (string, error) {
	if id := ActorOf(r).Teacher.ID; id != 0 {
		return fmt.Sprint("teacher ", id), nil
	}
	if email := strings.ToLower(Text(r, "email")); email != "" {
		return "account " + email, nil
	}
	network, err := CallerNetwork(r)
	return "nobody " + network, err
}

func (s *Site) tooOften(w http.ResponseWriter, _ *http.Request) {
	const heading = "A minute’s rest"
	s.Render(w, http.StatusTooManyRequests, "message", "layout", LayoutData{Title: heading,
		Content: Message{heading, "Signing in was tried too often in a minute, from this address or for this account. Wait a minute, then try again."}})
}

// callerAddress is the address a request comes from, without its port; see Behind.
func callerAddress(r *http.Request) (string, error) {
	host, _, err := net.SplitHostPort(r.RemoteAddr)
	return host, err
}

// guesses counts them in the records, so that all servers count together.
type guesses struct{ store *store.Store }

// Config holds the limit, which is the same at every server.
func (guesses) Config(int, time.Duration) {}

// Increment counts one more guess.
func (g guesses) Increment(key string, window time.Time) error { return g.IncrementBy(key, window, 1) }

// IncrementBy counts more guesses in a window of time.
func (g guesses) IncrementBy(key string, window time.Time, more int) error {
	return g.store.CountGuesses(context.Background(), key, window, more)
}

// Get is how many there were in this window and in the one before.
func (g guesses) Get(key string, window, before time.Time) (now, then int, err error) {
	return g.store.Guesses(context.Background(), key, window, before)
}
