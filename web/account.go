package web

import (
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

	Colleagues []store.Teacher // of the owner
	Link       string          // just made, to be handed over
}

func (s *Server) account(w http.ResponseWriter, r *http.Request) {
	s.showAccount(w, r, http.StatusOK, "")
}

func (s *Server) showAccount(w http.ResponseWriter, r *http.Request, status int, problem string) {
	v := accountView{
		Teacher: asking(r).Teacher, Shared: s.sessions.GetBool(r.Context(), onSharedComputer), Problem: problem,
		Link: s.sessions.PopString(r.Context(), handedOver),
	}
	if v.Teacher.Owner {
		var err error
		if v.Colleagues, err = s.store.Colleagues(r.Context()); err != nil {
			s.failed(w, r, err)
			return
		}
	}
	s.page(w, r, status, "account", "Your account", v)
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
	t, err := s.store.SetPassword(r.Context(), t.ID, wanted)
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

// The session's keys for the number it was begun under, whether its computer is shared,
// and, there, when it was used last.
const (
	sessionNumber    = "number"
	onSharedComputer = "shared"
	usedLast         = "used"
)

// How long a session holds on a shared computer that is left alone, and how often its
// use is written down.
const (
	idleOnShared = 30 * time.Minute
	usedAgain    = time.Minute
)

// holds says whether a session of a teacher still does.
func (s *Server) holds(r *http.Request, t store.Teacher) bool {
	ctx := r.Context()
	if s.sessions.GetInt(ctx, sessionNumber) != t.Sessions {
		return false
	}
	if !s.sessions.GetBool(ctx, onSharedComputer) {
		return true
	}
	idle := time.Since(time.Unix(s.sessions.GetInt64(ctx, usedLast), 0))
	if idle > idleOnShared {
		return false
	}
	if idle > usedAgain {
		s.sessions.Put(ctx, usedLast, time.Now().Unix())
	}
	return true
}
