package web

import (
	"context"
	"net/http"
	"strings"
	"time"

	"unhurriedbench/store"
)

// accountView is the teacher's own page.
type accountView struct {
	Teacher store.Teacher
	Shared  bool // this session is on a shared computer
	Problem string

	Colleagues []store.Teacher        // of the owner
	Removed    []store.RemovedTeacher // whose accounts the owner can put back
	House      store.House
	Link       string // just made, to be handed over
	Backups    string // what is to be said of them
}

func (s *Server) account(w http.ResponseWriter, r *http.Request) {
	s.showAccount(w, r, http.StatusOK, "")
}

func (s *Server) showAccount(w http.ResponseWriter, r *http.Request, status int, problem string) {
	v := accountView{
		Teacher: asking(r).Teacher, Shared: s.sessions.GetBool(r.Context(), onSharedComputer), Problem: problem,
		Link: s.sessions.PopString(r.Context(), handedOver), Backups: s.backupWords(),
	}
	if err := s.fillAccount(r.Context(), &v); err != nil {
		s.failed(w, r, err)
		return
	}
	s.page(w, r, status, "account", "Your account", v)
}

// fillAccount finds what the page shows of the installation.
func (s *Server) fillAccount(ctx context.Context, v *accountView) error {
	var err error
	if v.House, err = s.store.House(ctx); err != nil || !v.Teacher.Owner {
		return err
	}
	if v.Colleagues, err = s.store.Colleagues(ctx); err != nil {
		return err
	}
	v.Removed, err = s.store.RemovedTeachers(ctx)
	return err
}

// changePassword asks for the present password, and ends all other sessions.
func (s *Server) changePassword(w http.ResponseWriter, r *http.Request) {
	t := asking(r).Teacher
	wanted := r.FormValue("password")
	problem := UnfitPassword(wanted, t)
	switch {
	case t.Demo:
		problem = "The demo has no password: everybody may enter it."
	case problem == "" && wanted != r.FormValue("again"):
		problem = "The new password was typed in two ways. Type the same twice."
	}
	if problem == "" {
		if _, err := s.store.CheckPassword(r.Context(), t.Email, r.FormValue("present")); err != nil {
			problem = "The present password is another one. Nothing was changed."
		}
	}
	if problem != "" {
		s.showAccount(w, r, http.StatusUnprocessableEntity, problem)
		return
	}
	t, err := s.store.SetPassword(r.Context(), t.ID, t.ID, wanted)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.stay(w, r, t, "The password is changed. Everywhere else you are signed out.")
}

// endSessions signs the teacher out everywhere but here.
func (s *Server) endSessions(w http.ResponseWriter, r *http.Request) {
	t, err := s.store.EndSessions(r.Context(), asking(r).Teacher.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.stay(w, r, t, "You are signed out everywhere but here.")
}

// stay goes on in this session, under a token of its own, when all others have ended.
func (s *Server) stay(w http.ResponseWriter, r *http.Request, t store.Teacher, said string) {
	if err := s.sessions.RenewToken(r.Context()); err != nil {
		s.failed(w, r, err)
		return
	}
	s.sessions.Put(r.Context(), sessionNumber, t.Sessions)
	s.flash(r, said)
	http.Redirect(w, r, "/account", http.StatusSeeOther)
}

func before(text, sign string) string {
	first, _, _ := strings.Cut(text, sign)
	return first
}

// The session's keys for the number it was begun under, when that was, whether its
// computer is shared, and when it was used last; times in Unix seconds.
const (
	sessionNumber    = "number"
	sessionBegun     = "begun"
	onSharedComputer = "shared"
	usedLast         = "used"
)

// usedAgain is how often a session's use is written down.
const usedAgain = time.Minute

// longestSession bounds what an owner may choose.
const longestSession = 90 * 24 * time.Hour

// begin starts a session of a teacher.
func (s *Server) begin(ctx context.Context, t store.Teacher, shared bool) {
	now := time.Now().Unix()
	s.sessions.RememberMe(ctx, !shared)
	s.sessions.Put(ctx, "teacher", int64(t.ID))
	s.sessions.Put(ctx, sessionNumber, t.Sessions)
	s.sessions.Put(ctx, sessionBegun, now)
	s.sessions.Put(ctx, onSharedComputer, shared)
	s.sessions.Put(ctx, usedLast, now)
}

// holds says whether a session of a teacher still does, by the limits that the owner has
// chosen. One from before there were limits begins now.
func (s *Server) holds(r *http.Request, t store.Teacher, house store.House) bool {
	ctx := r.Context()
	if s.sessions.GetInt(ctx, sessionNumber) != t.Sessions {
		return false
	}
	if s.sessions.GetInt64(ctx, sessionBegun) == 0 {
		s.begin(ctx, t, s.sessions.GetBool(ctx, onSharedComputer))
	}
	since := func(key string) time.Duration { return time.Since(time.Unix(s.sessions.GetInt64(ctx, key), 0)) }
	longestIdle := time.Duration(house.IdleDays) * 24 * time.Hour
	if s.sessions.GetBool(ctx, onSharedComputer) {
		longestIdle = time.Duration(house.IdleMinutes) * time.Minute
	}
	idle := since(usedLast)
	if idle > longestIdle || since(sessionBegun) > time.Duration(house.LongestDays)*24*time.Hour {
		return false
	}
	if idle > usedAgain || idle < 0 { // the clock may have been set back
		s.sessions.Put(ctx, usedLast, time.Now().Unix())
	}
	return true
}
