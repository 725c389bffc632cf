package web

import (
	"cmp"
	"errors"
	"net/http"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/store"
)

// handedOver is the session's key for a link that was just made, shown once.
const handedOver = "link"

// invite makes a link for a new teacher.
func (s *Server) invite(w http.ResponseWriter, r *http.Request) {
	s.handOver(w, r, func() (string, error) { return s.store.Invite(r.Context(), asking(r).Teacher.ID) })
}

// inviteToReset makes a link with which a teacher chooses another password.
func (s *Server) inviteToReset(w http.ResponseWriter, r *http.Request) {
	s.handOver(w, r, func() (string, error) {
		return s.store.InviteToReset(r.Context(), asking(r).Teacher.ID, idOf[store.TeacherID](r))
	})
}

// handOver shows the owner a link; for anybody else there is none.
func (s *Server) handOver(w http.ResponseWriter, r *http.Request, made func() (string, error)) {
	if !asking(r).Teacher.Owner {
		s.notFound(w, r)
		return
	}
	link, err := made()
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.sessions.Put(r.Context(), handedOver, s.site(r)+"/join/"+link)
	http.Redirect(w, r, "/account", http.StatusSeeOther)
}

// joining is the page a link leads to.
type joining struct {
	For     store.Invitation
	Link    string
	Account account // that is typed
}

func (s *Server) joinPage(w http.ResponseWriter, r *http.Request) {
	if j, ok := s.invited(w, r); ok {
		s.page(w, r, http.StatusOK, "join", "Welcome", j)
	}
}

// invited finds what the link of a request is for, or says that it is none.
func (s *Server) invited(w http.ResponseWriter, r *http.Request) (joining, bool) {
	j := joining{Link: chi.URLParam(r, "link")}
	found, err := s.store.Invitation(r.Context(), j.Link)
	if errors.Is(err, store.ErrNotFound) {
		s.render(w, http.StatusNotFound, "message", "layout", layoutData{Title: "Used, or too old", Content: message{
			"This link is used, or too old", "Ask whoever gave it to you for another. A link is good once, and for a week.",
		}})
		return j, false
	}
	if err != nil {
		s.failed(w, r, err)
		return j, false
	}
	j.For = found
	return j, true
}

// join makes the account, or changes the password, that the link is for.
func (s *Server) join(w http.ResponseWriter, r *http.Request) {
	j, ok := s.invited(w, r)
	if !ok {
		return
	}
	password := r.FormValue("password")
	t := store.Teacher{ID: j.For.Teacher, Name: j.For.Name, Email: j.For.Email}
	if t.ID == 0 {
		j.Account = s.readAccount(r)
		t.Name, t.Email, t.School = j.Account.Name, j.Account.Email, j.Account.School
	}
	j.Account.Problem = cmp.Or(j.Account.Problem, UnfitPassword(password, t))
	if j.Account.Problem == "" {
		var err error
		if t.ID == 0 {
			t, err = s.store.Join(r.Context(), j.Link, t.Email, t.Name, t.School, password)
		} else {
			t, err = s.store.Reset(r.Context(), j.Link, t.ID, password)
		}
		switch {
		case err == nil:
			s.enter(w, r, t)
			return
		case errors.Is(err, store.ErrTaken):
			j.Account.Problem = "There is an account with this address already. Sign in with it, or choose another address."
		default:
			s.failed(w, r, err)
			return
		}
	}
	s.page(w, r, http.StatusUnprocessableEntity, "join", "Welcome", j)
}
