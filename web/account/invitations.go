package account

import (
	"cmp"
	"errors"
	"net/http"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// handedOver is the session's key for a link that was just made, shown once.
const handedOver = "link"

// invite makes a link for a new teacher.
func (s *handlers) invite(w http.ResponseWriter, r *http.Request) error {
	return s.handOver(w, r, func() (string, error) { return s.Store.Invite(r.Context(), site.ActorOf(r).Teacher.ID) })
}

// inviteToReset makes a link with which a teacher chooses another password.
func (s *handlers) inviteToReset(w http.ResponseWriter, r *http.Request) error {
	return s.handOver(w, r, func() (string, error) {
		return s.Store.InviteToReset(r.Context(), site.ActorOf(r).Teacher.ID, site.ID[store.TeacherID](r))
	})
}

// handOver shows the owner a link; for anybody else there is none.
func (s *handlers) handOver(w http.ResponseWriter, r *http.Request, made func() (string, error)) error {
	if !site.ActorOf(r).Teacher.Owner {
		s.NotFound(w, r)
		return nil
	}
	link, err := made()
	if err != nil {
		return err
	}
	s.Sessions.Put(r.Context(), handedOver, s.BaseAddress(r)+"/join/"+link)
	http.Redirect(w, r, "/account", http.StatusSeeOther)
	return nil
}

// joining is the page a link leads to.
type joining struct {
	For     store.Invitation
	Link    string
	Account account // that is typed
}

func (s *handlers) joinPage(w http.ResponseWriter, r *http.Request) error {
	j, open, err := s.invited(w, r)
	if err == nil && open {
		s.Page(w, r, http.StatusOK, "join", "Welcome", j)
	}
	return err
}

// invited finds what the link of a request is for, or fails.
func (s *handlers) invited(w http.ResponseWriter, r *http.Request) (j joining, open bool, err error) {
	j = joining{Link: chi.URLParam(r, "link")}
	found, err := s.Store.Invitation(r.Context(), j.Link)
	if errors.Is(err, store.ErrNotFound) {
		s.Render(w, http.StatusNotFound, "message", "layout", site.LayoutData{Title: "Used, or too old",
			Content: site.Message{
				Heading: "This link is used, or too old", Text: "Ask the person who gave it to you for another. A link is good once, and for a week.",
			}})
		return j, false, nil
	}
	j.For = found
	return j, err == nil, err
}

// join makes the account, or changes the password, that the link is for.
func (s *handlers) join(w http.ResponseWriter, r *http.Request) error {
	j, open, err := s.invited(w, r)
	if err != nil || !open {
		return err
	}
	password := r.FormValue("password")
	t := store.Teacher{ID: j.For.Teacher, Name: j.For.Name, Email: j.For.Email}
	if t.ID == 0 {
		j.Account = s.readAccount(r)
		t.Name, t.Email, t.School = j.Account.Name, j.Account.Email, j.Account.School
	}
	j.Account.Problem = cmp.Or(j.Account.Problem, site.UnfitPassword(password, t))
	if j.Account.Problem == "" {
		var err error
		if t.ID == 0 {
			t, err = s.Store.Join(r.Context(), j.Link, t.Email, t.Name, t.School, password)
		} else {
			t, err = s.Store.Reset(r.Context(), j.Link, t.ID, password)
		}
		switch {
		case err == nil:
			return s.enter(w, r, t)
		case errors.Is(err, store.ErrTaken):
			j.Account.Problem = "There is an account with this address already. Sign in with it, or choose another address."
		default:
			return err
		}
	}
	s.Page(w, r, http.StatusUnprocessableEntity, "join", "Welcome", j)
	return nil
}
