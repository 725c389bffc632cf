package web

import (
	"errors"
	"net/http"

	"unhurriedbench/store"
)

// removeTeacher takes an account away: one's own, with the password, or, by the owner,
// another's.
func (s *Server) removeTeacher(w http.ResponseWriter, r *http.Request) {
	ctx, me, id := r.Context(), asking(r).Teacher, idOf[store.TeacherID](r)
	problem := ""
	switch {
	case me.Demo:
		problem = "The demo’s account belongs to everybody and stays."
	case id == me.ID:
		if _, err := s.store.CheckPassword(ctx, me.Email, r.FormValue("present")); err != nil {
			problem = "The password is another one. Nothing was taken away."
		}
	case text(r, "sure") != "yes":
		problem = "Nothing was taken away: tick the box beside the button to say that the account may go."
	}
	if problem != "" {
		s.showAccount(w, r, http.StatusUnprocessableEntity, problem)
		return
	}
	err := s.store.RemoveTeacher(ctx, me.ID, id)
	if errors.Is(err, store.ErrNotFound) && id == me.ID {
		s.showAccount(w, r, http.StatusUnprocessableEntity, "You look after this installation. Hand it over to a colleague first; then your account can go.")
		return
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if id != me.ID {
		s.flash(r, "The account is taken away. For 30 days you can put it back; then it is erased with all that is in it.")
		http.Redirect(w, r, "/account", http.StatusSeeOther)
		return
	}
	if err := s.sessions.Destroy(ctx); err != nil {
		s.failed(w, r, err)
		return
	}
	s.render(w, http.StatusOK, "message", "layout", layoutData{Title: "Your account is taken away", Content: message{"Your account is taken away",
		"Your books, sections and students are erased after 30 days. Until then whoever looks after this installation can put your account back, or erase it at once. " + s.backupWords()}})
}

// asOwner does what the owner alone may, says so, and shows the account page again.
func (s *Server) asOwner(w http.ResponseWriter, r *http.Request, did string, do func(owner store.TeacherID) error) {
	if err := do(asking(r).Teacher.ID); err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, did)
	http.Redirect(w, r, "/account", http.StatusSeeOther)
}

func (s *Server) putTeacherBack(w http.ResponseWriter, r *http.Request) {
	s.asOwner(w, r, "The account is back, with all that was in it.", func(owner store.TeacherID) error {
		return s.store.PutTeacherBack(r.Context(), owner, idOf[store.TeacherID](r))
	})
}

// eraseTeacher deletes for good an account that was taken away.
func (s *Server) eraseTeacher(w http.ResponseWriter, r *http.Request) {
	if text(r, "sure") != "yes" {
		s.showAccount(w, r, http.StatusUnprocessableEntity, notErased)
		return
	}
	s.asOwner(w, r, "The account is erased, with all that was in it. "+s.backupWords(), func(owner store.TeacherID) error {
		return s.store.EraseTeacher(r.Context(), owner, idOf[store.TeacherID](r))
	})
}

// handInstallationOver makes another teacher the owner.
func (s *Server) handInstallationOver(w http.ResponseWriter, r *http.Request) {
	if text(r, "sure") != "yes" {
		s.showAccount(w, r, http.StatusUnprocessableEntity, "Nothing was handed over: tick the box to say that your colleague looks after this installation from now on.")
		return
	}
	s.asOwner(w, r, "Your colleague looks after this installation now.", func(owner store.TeacherID) error {
		return s.store.HandOver(r.Context(), owner, idOf[store.TeacherID](r))
	})
}

// keepHouse keeps the owner's limits.
func (s *Server) keepHouse(w http.ResponseWriter, r *http.Request) {
	if !asking(r).Teacher.Owner {
		s.notFound(w, r)
		return
	}
	var f houseForm
	if problem := first(s.forms.read(r, &f)); problem != "" {
		s.showAccount(w, r, http.StatusUnprocessableEntity, problem)
		return
	}
	s.asOwner(w, r, "The limits are kept.", func(owner store.TeacherID) error {
		return s.store.KeepHouse(r.Context(), owner, store.House{LongestDays: f.LongestDays, IdleDays: f.IdleDays, IdleMinutes: f.IdleMinutes, RetainMonths: *f.RetainMonths})
	})
}
