package account

import (
	"cmp"
	"errors"
	"net/http"

	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
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

func (s *handlers) signInPage(w http.ResponseWriter, r *http.Request) error {
	if a, err := s.SignedIn(r); err == nil && a.Class != nil {
		http.Redirect(w, r, "/", http.StatusSeeOther)
		return nil
	}
	some, err := s.Store.HasTeachers(r.Context())
	if err != nil {
		return err
	}
	if !some {
		http.Redirect(w, r, "/welcome", http.StatusSeeOther)
		return nil
	}
	return s.showSignIn(w, r, http.StatusOK, account{To: site.ReturnTo(r)})
}

func (s *handlers) showSignIn(w http.ResponseWriter, r *http.Request, status int, a account) error {
	demo, err := s.Store.DemoTeacher(r.Context())
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return err
	}
	a.Demo, a.Routine = demo.Name, s.Store.Routine()
	s.Page(w, r, status, "sign-in", "Sign in", a)
	return nil
}

func (s *handlers) signIn(w http.ResponseWriter, r *http.Request) error {
	email := site.Text(r, "email")
	t, err := s.Store.CheckPassword(r.Context(), email, r.FormValue("password"))
	if errors.Is(err, store.ErrWrongPassword) {
		return s.showSignIn(w, r, http.StatusUnprocessableEntity, account{Email: email, To: site.ReturnTo(r),
			Shared:  site.Text(r, "shared") == "yes",
			Problem: "That address and password do not belong together. Check both and try again."})
	}
	if err != nil {
		return err
	}
	return s.enter(w, r, t)
}

func (s *handlers) signInDemo(w http.ResponseWriter, r *http.Request) error {
	t, err := s.Store.DemoTeacher(r.Context())
	if err != nil {
		return err
	}
	return s.enter(w, r, t)
}

// enter starts a fresh session for a teacher.
func (s *handlers) enter(w http.ResponseWriter, r *http.Request, t store.Teacher) error {
	if zone := site.Text(r, "zone"); zone != "" && teach.ValidZone(zone) { // the first browser says where the school is
		if err := s.Store.FirstZone(r.Context(), zone); err != nil {
			return err
		}
	}
	if err := s.Sessions.RenewToken(r.Context()); err != nil {
		return err
	}
	s.Begin(r.Context(), t, site.Text(r, "shared") == "yes")
	http.Redirect(w, r, cmp.Or(site.ReturnTo(r), "/"), http.StatusSeeOther)
	return nil
}

func (s *handlers) signOut(w http.ResponseWriter, r *http.Request) error {
	if err := s.Sessions.Destroy(r.Context()); err != nil {
		return err
	}
	http.Redirect(w, r, "/sign-in", http.StatusSeeOther)
	return nil
}

func (s *handlers) welcomePage(w http.ResponseWriter, r *http.Request) error {
	if refused, err := s.refuseSecond(w, r); err != nil || refused {
		return err
	}
	s.Page(w, r, http.StatusOK, "welcome", "Welcome", account{})
	return nil
}

// refuseSecond sends everybody but the very first teacher to sign in.
func (s *handlers) refuseSecond(w http.ResponseWriter, r *http.Request) (refused bool, err error) {
	some, err := s.Store.HasTeachers(r.Context())
	if err == nil && some {
		http.Redirect(w, r, "/sign-in", http.StatusSeeOther)
	}
	return some, err
}

// readAccount reads the form of a new account, with what is wrong with it.
func (s *handlers) readAccount(r *http.Request) account {
	var f teacherForm
	problem := site.First(s.Forms.Read(r, &f))
	return account{Email: f.Email, Name: f.Name, School: f.School, Problem: problem}
}

func (s *handlers) welcome(w http.ResponseWriter, r *http.Request) error {
	if refused, err := s.refuseSecond(w, r); err != nil || refused {
		return err
	}
	a := s.readAccount(r)
	password := r.FormValue("password")
	requested := store.Teacher{Name: a.Name, Email: a.Email, School: a.School}
	a.Problem = cmp.Or(a.Problem, site.UnfitPassword(password, requested))
	if a.Problem != "" {
		s.Page(w, r, http.StatusUnprocessableEntity, "welcome", "Welcome", a)
		return nil
	}
	t, err := s.Store.AddFirstTeacher(r.Context(), a.Email, a.Name, a.School, password)
	if errors.Is(err, store.ErrTaken) { // somebody was first
		http.Redirect(w, r, "/sign-in", http.StatusSeeOther)
		return nil
	}
	if err != nil {
		return err
	}
	return s.enter(w, r, t)
}
