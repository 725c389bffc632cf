// Package account is accounts, sign-ins and what an owner does.
package account

import (
	"embed"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/web/site"
)

// Templates are the pages of this room.
//
//go:embed templates/*.html
var Templates embed.FS

// Routes adds the routes of this room.
func Routes(r chi.Router, of *site.Site) {
	s := &handlers{of}
	s.Public(r, func(r chi.Router) {
		r.Get("/sign-in", s.signInPage)
		r.Get("/welcome", s.welcomePage)
		r.With(s.LimitSignIns).Post("/sign-in", s.signIn)
		r.With(s.LimitSignIns).Post("/welcome", s.welcome)
		r.Get("/join/{link}", s.joinPage)
		r.With(s.LimitSignIns).Post("/join/{link}", s.join)
		r.Post("/sign-in/demo", s.signInDemo)
		r.Post("/sign-out", s.signOut)
	})
	s.Teachers(r, func(r chi.Router) {
		r.Get("/account", s.account)
		r.With(s.LimitSignIns).Post("/account/password", s.changePassword)
		r.Post("/account/sessions", s.endSessions)
		r.Post("/account/invite", s.invite)
		r.Post("/account/reset/{id}", s.inviteToReset)
		r.With(s.LimitSignIns).Post("/account/remove/{id}", s.removeTeacher)
		r.Post("/account/back/{id}", s.putTeacherBack)
		r.Post("/account/erase/{id}", s.eraseTeacher)
		r.Post("/account/owner/{id}", s.handInstallationOver)
		r.Post("/account/house", s.keepHouse)
		r.Get("/account/log", s.deeds)
		r.Get("/account/archive", s.takeArchive)
	})
	s.Uploads(r, func(r chi.Router) {
		r.Post("/account/archive", s.bringArchive)
	})
}
