package web

import (
	"cmp"
	"errors"
	"net/http"
	"net/url"
	"strings"

	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// account is the sign-in and first-teacher form.
type account struct {
	Email, Name, School string
	Demo                string // the demo teacher's name, where there is one
	Problem             string
	Routine             routine.Routine
	To                  string // the address that was asked for
	Shared              bool
}

func (s *Server) signInPage(w http.ResponseWriter, r *http.Request) {
	if a, err := s.signedIn(r); err == nil && a.desk != nil {
		http.Redirect(w, r, "/", http.StatusSeeOther)
		return
	}
	some, err := s.store.HasTeachers(r.Context())
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if !some {
		http.Redirect(w, r, "/welcome", http.StatusSeeOther)
		return
	}
	s.showSignIn(w, r, http.StatusOK, account{To: returnTo(r)})
}

func (s *Server) showSignIn(w http.ResponseWriter, r *http.Request, status int, a account) {
	demo, err := s.store.DemoTeacher(r.Context())
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		s.failed(w, r, err)
		return
	}
	a.Demo, a.Routine = demo.Name, s.store.Routine()
	s.page(w, r, status, "sign-in", "Sign in", a)
}

func (s *Server) signIn(w http.ResponseWriter, r *http.Request) {
	email := text(r, "email")
	t, err := s.store.CheckPassword(r.Context(), email, r.FormValue("password"))
	if errors.Is(err, store.ErrWrongPassword) {
		s.showSignIn(w, r, http.StatusUnprocessableEntity, account{Email: email, To: returnTo(r), Shared: text(r, "shared") == "yes",
			Problem: "That address and password do not belong together. Check both and try again."})
		return
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.enter(w, r, t)
}

func (s *Server) signInDemo(w http.ResponseWriter, r *http.Request) {
	t, err := s.store.DemoTeacher(r.Context())
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.enter(w, r, t)
}

// returnTo is the address of this site that was asked for before signing in, "" for
// none.
func returnTo(r *http.Request) string {
	to, err := url.Parse(text(r, "to"))
	if err != nil || to.IsAbs() || to.Host != "" || !strings.HasPrefix(to.Path, "/") || strings.HasPrefix(to.Path, "//") ||
		strings.Contains(to.Path, "\\") || strings.HasPrefix(to.Path, "/sign-") {
		return ""
	}
	return to.RequestURI()
}

// enter starts a fresh session for a teacher.
func (s *Server) enter(w http.ResponseWriter, r *http.Request, t store.Teacher) {
	if err := s.sessions.RenewToken(r.Context()); err != nil {
		s.failed(w, r, err)
		return
	}
	s.begin(r.Context(), t, text(r, "shared") == "yes")
	http.Redirect(w, r, cmp.Or(returnTo(r), "/"), http.StatusSeeOther)
}

func (s *Server) signOut(w http.ResponseWriter, r *http.Request) {
	if err := s.sessions.Destroy(r.Context()); err != nil {
		s.failed(w, r, err)
		return
	}
	http.Redirect(w, r, "/sign-in", http.StatusSeeOther)
}

func (s *Server) welcomePage(w http.ResponseWriter, r *http.Request) {
	if s.refuseSecond(w, r) {
		return
	}
	s.page(w, r, http.StatusOK, "welcome", "Welcome", account{})
}

// refuseSecond sends everybody but the very first teacher to sign in.
func (s *Server) refuseSecond(w http.ResponseWriter, r *http.Request) bool {
	some, err := s.store.HasTeachers(r.Context())
	if err != nil {
		s.failed(w, r, err)
		return true
	}
	if some {
		http.Redirect(w, r, "/sign-in", http.StatusSeeOther)
	}
	return some
}

// readAccount reads the form of a new account, with what is wrong with it.
func (s *Server) readAccount(r *http.Request) account {
	var f teacherForm
	problem := first(s.forms.read(r, &f))
	return account{Email: f.Email, Name: f.Name, School: f.School, Problem: problem}
}

func (s *Server) welcome(w http.ResponseWriter, r *http.Request) {
	if s.refuseSecond(w, r) {
		return
	}
	a := s.readAccount(r)
	password := r.FormValue("password")
	asked := store.Teacher{Name: a.Name, Email: a.Email, School: a.School}
	a.Problem = cmp.Or(a.Problem, UnfitPassword(password, asked))
	if a.Problem != "" {
		s.page(w, r, http.StatusUnprocessableEntity, "welcome", "Welcome", a)
		return
	}
	t, err := s.store.AddFirstTeacher(r.Context(), a.Email, a.Name, a.School, password)
	if errors.Is(err, store.ErrTaken) { // somebody was first
		http.Redirect(w, r, "/sign-in", http.StatusSeeOther)
		return
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.enter(w, r, t)
}
