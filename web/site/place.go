package site

import (
	"net/http"
	"net/url"
	"strconv"
	"strings"
)

// lastPlace is the session's key for the address of the Bench as it was left.
const lastPlace = "place"

// RememberBench remembers the Bench as it stands, but for one in a class of a colleague's.
func (s *Site) RememberBench(r *http.Request, address string) {
	if ClassOf(r).Guest().Own() && s.Sessions.GetString(r.Context(), lastPlace) != address {
		s.Sessions.Put(r.Context(), lastPlace, address)
	}
}

// LastBench is the address of the Bench as it was left, with the class that has been
// chosen elsewhere since; "" before the Bench was opened.
func (s *Site) LastBench(r *http.Request) string {
	place, err := url.Parse(s.Sessions.GetString(r.Context(), lastPlace))
	if err != nil || place.Path == "" {
		return ""
	}
	q := place.Query()
	chosen := s.Sessions.GetInt64(r.Context(), lastClass)
	if chosen == 0 || q.Get("class") == strconv.FormatInt(chosen, 10) {
		return place.String()
	}
	q.Set("class", strconv.FormatInt(chosen, 10))
	q.Del("student")
	place.RawQuery = q.Encode()
	return place.String()
}

// BackToBench is the Bench's address that a form on it was sent from.
func BackToBench(r *http.Request, otherwise string) string {
	if back := Text(r, "back"); strings.HasPrefix(back, "/bench/") {
		return back
	}
	return otherwise
}
