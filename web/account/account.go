package account

import (
	"context"
	"net/http"

	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// accountView is the teacher's own page.
type accountView struct {
	Teacher store.Teacher
	Shared  bool // this session is on a shared computer
	Problem string

	Colleagues []store.Teacher        // of the owner
	Removed    []store.RemovedTeacher // whose accounts the owner can put back
	Policy     store.Policy
	Link       string // just made, to be handed over
	Backups    string // what is to be said of them
}

func (s *handlers) account(w http.ResponseWriter, r *http.Request) error {
	return s.showAccount(w, r, http.StatusOK, "")
}

func (s *handlers) showAccount(w http.ResponseWriter, r *http.Request, status int, problem string) error {
	v := accountView{
		Teacher: site.ActorOf(r).Teacher, Shared: s.Sessions.GetBool(r.Context(), site.OnSharedComputer), Problem: problem,
		Link: s.Sessions.PopString(r.Context(), handedOver), Backups: s.BackupWords(),
	}
	if err := s.fillAccount(r.Context(), &v); err != nil {
		return err
	}
	s.Page(w, r, status, "account", "Your account", v)
	return nil
}

// fillAccount finds what the page shows of the installation.
func (s *handlers) fillAccount(ctx context.Context, v *accountView) error {
	var err error
	if v.Policy, err = s.Store.Policy(ctx); err != nil || !v.Teacher.Owner {
		return err
	}
	if v.Colleagues, err = s.Store.Colleagues(ctx); err != nil {
		return err
	}
	v.Removed, err = s.Store.RemovedTeachers(ctx)
	return err
}

// changePassword asks for the present password, and ends all other sessions.
func (s *handlers) changePassword(w http.ResponseWriter, r *http.Request) error {
	t := site.ActorOf(r).Teacher
	desired := r.FormValue("password")
	problem := site.UnfitPassword(desired, t)
	switch {
	case t.Demo:
		problem = "The demo has no password: everybody may enter it."
	case problem == "" && desired != r.FormValue("again"):
		problem = "The new password was typed in two ways. Type the same twice."
	}
	if problem == "" {
		if _, err := s.Store.CheckPassword(r.Context(), t.Email, r.FormValue("present")); err != nil {
			problem = "The present password is another one. Nothing was changed."
		}
	}
	if problem != "" {
		return s.showAccount(w, r, http.StatusUnprocessableEntity, problem)
	}
	t, err := s.Store.SetPassword(r.Context(), t.ID, t.ID, desired)
	if err != nil {
		return err
	}
	return s.stay(w, r, t, "The password is changed. Everywhere else you are signed out.")
}

// endSessions signs the teacher out everywhere but here.
func (s *handlers) endSessions(w http.ResponseWriter, r *http.Request) error {
	t, err := s.Store.EndSessions(r.Context(), site.ActorOf(r).Teacher.ID)
	if err != nil {
		return err
	}
	return s.stay(w, r, t, "You are signed out everywhere but here.")
}

// stay goes on in this session, under a token of its own, when all others have ended.
func (s *handlers) stay(w http.ResponseWriter, r *http.Request, t store.Teacher, said string) error {
	if err := s.Sessions.RenewToken(r.Context()); err != nil {
		return err
	}
	s.Sessions.Put(r.Context(), site.SessionNumber, t.Sessions)
	s.Flash(r, said)
	http.Redirect(w, r, "/account", http.StatusSeeOther)
	return nil
}
