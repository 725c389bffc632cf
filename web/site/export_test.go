package site

import (
	"net/http"

	"unhurriedbench/store"
)

// What tests of the pages know of this package.
const (
	UsedLast     = usedLast
	SessionBegun = sessionBegun
	Year         = year
	LargestForm  = largestForm
)

var (
	CallerAddress  = callerAddress
	GuessedAccount = guessedAccount
)

// Hashed are the names of all files, with the hashes in them.
func (a *Assets) Hashed() map[string]string { return a.hashed }

// Holds says whether a session still does.
func (s *Site) Holds(r *http.Request, t store.Teacher, policy store.Policy) bool {
	return s.holds(r, t, policy)
}

// FromProxies believes proxies.
func (s *Site) FromProxies(next http.Handler) http.Handler { return s.fromProxies(next) }
