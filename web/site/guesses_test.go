package site_test

import (
	"net/http"
	"net/http/httptest"
	"testing"

	"unhurriedbench/web/site"
)

// Who guesses is known by their address, or by the network of a long one; anyone who names no
// account is not counted twice at one key.
func TestWhoGuesses(t *testing.T) {
	t.Parallel()
	for from, want := range map[string]string{
		"192.0.2.1:55": "192.0.2.1", "[2001:db8:1:2:3:4:5:6]:55": "2001:db8:1:2::/64", "[2001:db8:1:2::9]:7": "2001:db8:1:2::/64", "[::ffff:192.0.2.1]:55": "::ffff:192.0.2.1",
	} {
		r := httptest.NewRequest(http.MethodPost, "/join/x", http.NoBody)
		r.RemoteAddr = from
		got, err := site.CallerNetwork(r)
		if err != nil || got != want {
			t.Errorf("%s is %s, %v, want %s", from, got, err, want)
		}
		account, err := site.GuessedAccount(r)
		if err != nil || account == got {
			t.Errorf("%s guesses at %q, %v", from, account, err)
		}
	}
}
