package account

import (
	"errors"
	"fmt"
	"net/http"
	"strings"

	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// removeTeacher takes an account away: one's own, with the password, or, by the owner,
// another's.
func (s *handlers) removeTeacher(w http.ResponseWriter, r *http.Request) error {
	ctx, me, id := r.Context(), site.ActorOf(r).Teacher, site.ID[store.TeacherID](r)
	problem := ""
	switch {
	case me.Demo:
		problem = "The demo’s account belongs to everybody and stays."
	case id == me.ID:
		if _, err := s.Store.CheckPassword(ctx, me.Email, r.FormValue("present")); err != nil {
			problem = "The password is another one. Nothing was taken away."
		}
	case site.Text(r, "sure") != "yes":
		problem = "Nothing was taken away: tick the box beside the button to say that the account may go."
	}
	if problem != "" {
		return s.showAccount(w, r, http.StatusUnprocessableEntity, problem)
	}
	err := s.Store.RemoveTeacher(ctx, me.ID, id)
	if errors.Is(err, store.ErrNotFound) && id == me.ID {
		return s.showAccount(w, r, http.StatusUnprocessableEntity,
			"You look after this installation. Hand it over to a colleague first; then your account can go.")
	}
	if err != nil {
		return err
	}
	if id != me.ID {
		s.Flash(r, "The account is deleted. For 30 days you can restore it; then it is gone with all that is in it.")
		http.Redirect(w, r, "/account", http.StatusSeeOther)
		return nil
	}
	if err := s.Sessions.Destroy(ctx); err != nil {
		return err
	}
	s.Render(w, http.StatusOK, "message", "layout", site.LayoutData{Title: "Your account is taken away",
		Content: site.Message{Heading: "Your account is taken away",
			Text: "Your books, classes and students are erased after 30 days. Until then the administrator can restore your account, or delete it at once. " + s.BackupWords()}})
	return nil
}

// asOwner does what the owner alone may, says so, and shows the account page again.
func (s *handlers) asOwner(w http.ResponseWriter, r *http.Request, did string,
	do func(owner store.TeacherID) error) error {
	if err := do(site.ActorOf(r).Teacher.ID); err != nil {
		return err
	}
	s.Flash(r, did)
	http.Redirect(w, r, "/account", http.StatusSeeOther)
	return nil
}

func (s *handlers) putTeacherBack(w http.ResponseWriter, r *http.Request) error {
	return s.asOwner(w, r, "The account is back, with all that was in it.", func(owner store.TeacherID) error {
		return s.Store.PutTeacherBack(r.Context(), owner, site.ID[store.TeacherID](r))
	})
}

// eraseTeacher deletes for good an account that was taken away.
func (s *handlers) eraseTeacher(w http.ResponseWriter, r *http.Request) error {
	if site.Text(r, "sure") != "yes" {
		return s.showAccount(w, r, http.StatusUnprocessableEntity, site.NotErased)
	}
	return s.asOwner(w, r, "The account is erased, with all that was in it. "+s.BackupWords(),
		func(owner store.TeacherID) error {
			return s.Store.EraseTeacher(r.Context(), owner, site.ID[store.TeacherID](r))
		})
}

// handInstallationOver makes another teacher the owner.
func (s *handlers) handInstallationOver(w http.ResponseWriter, r *http.Request) error {
	if site.Text(r, "sure") != "yes" {
		return s.showAccount(w, r, http.StatusUnprocessableEntity,
			"Nothing was handed over: tick the box to say that your colleague looks after this installation from now on.")
	}
	return s.asOwner(w, r, "Your colleague looks after this installation now.", func(owner store.TeacherID) error {
		return s.Store.HandOver(r.Context(), owner, site.ID[store.TeacherID](r))
	})
}

// savePolicy keeps the owner's limits.
func (s *handlers) savePolicy(w http.ResponseWriter, r *http.Request) error {
	if !site.ActorOf(r).Teacher.Owner {
		s.NotFound(w, r)
		return nil
	}
	var f policyForm
	if problem := site.First(s.Forms.Read(r, &f)); problem != "" {
		return s.showAccount(w, r, http.StatusUnprocessableEntity, problem)
	}
	if f.Zone = strings.TrimSpace(f.Zone); !teach.ValidZone(f.Zone) {
		return s.showAccount(w, r, http.StatusUnprocessableEntity,
			fmt.Sprintf("Nothing was changed: the time zone, “%s”, is none. Write it as Europe/Berlin or America/Chicago.", f.Zone))
	}
	return s.asOwner(w, r, "The limits are kept.", func(owner store.TeacherID) error {
		return s.Store.SavePolicy(r.Context(), owner, store.Policy{LongestDays: f.LongestDays, IdleDays: f.IdleDays,
			IdleMinutes: f.IdleMinutes, RetainMonths: *f.RetainMonths, Zone: f.Zone})
	})
}
