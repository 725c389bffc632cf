package site

import (
	"context"
	"net/http"
	"net/url"
	"strings"
	"time"

	"unhurriedbench/store"
)

func before(text, sign string) string {
	first, _, _ := strings.Cut(text, sign)
	return first
}

// The session's keys for the number it was begun under, when that was, whether its
// computer is shared, and when it was used last; times in Unix seconds.
const (
	SessionNumber    = "number"
	sessionBegun     = "begun"
	OnSharedComputer = "shared"
	usedLast         = "used"
)

// usedAgain is how often a session's use is written down.
const usedAgain = time.Minute

// longestSession bounds what an owner may choose.
const longestSession = 90 * 24 * time.Hour

// Begin starts a session of a teacher.
func (s *Site) Begin(ctx context.Context, t store.Teacher, shared bool) {
	now := s.Now().Unix()
	s.Sessions.RememberMe(ctx, !shared)
	s.Sessions.Put(ctx, "teacher", int64(t.ID))
	s.Sessions.Put(ctx, SessionNumber, t.Sessions)
	s.Sessions.Put(ctx, sessionBegun, now)
	s.Sessions.Put(ctx, OnSharedComputer, shared)
	s.Sessions.Put(ctx, usedLast, now)
}

// holds says whether a session of a teacher still does, by the limits that the owner has
// chosen. One from before there were limits begins now.
func (s *Site) holds(r *http.Request, t store.Teacher, policy store.Policy) bool {
	ctx := r.Context()
	if s.Sessions.GetInt(ctx, SessionNumber) != t.Sessions {
		return false
	}
	if s.Sessions.GetInt64(ctx, sessionBegun) == 0 {
		s.Begin(ctx, t, s.Sessions.GetBool(ctx, OnSharedComputer))
	}
	since := func(key string) time.Duration { return time.Since(time.Unix(s.Sessions.GetInt64(ctx, key), 0)) }
	longestIdle := time.Duration(policy.IdleDays) * 24 * time.Hour
	if s.Sessions.GetBool(ctx, OnSharedComputer) {
		longestIdle = time.Duration(policy.IdleMinutes) * time.Minute
	}
	idle := since(usedLast)
	if idle > longestIdle || since(sessionBegun) > time.Duration(policy.LongestDays)*24*time.Hour {
		return false
	}
	if idle > usedAgain || idle < 0 { // the clock may have been set back
		s.Sessions.Put(ctx, usedLast, s.Now().Unix())
	}
	return true
}

// ReturnTo is the address of this site that was asked for before signing in, "" for
// none.
func ReturnTo(r *http.Request) string {
	to, err := url.Parse(Text(r, "to"))
	if err != nil || to.IsAbs() || to.Host != "" || !strings.HasPrefix(to.Path, "/") || strings.HasPrefix(to.Path, "//") ||
		strings.Contains(to.Path, "\\") || strings.HasPrefix(to.Path, "/sign-") {
		return ""
	}
	return to.RequestURI()
}
