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
		r.Get("/sign-in", s.Handle(s.signInPage))
		r.Get("/welcome", s.Handle(s.welcomePage))
		r.With(s.LimitSignIns).Post("/sign-in", s.Handle(s.signIn))
		r.With(s.LimitSignIns).Post("/welcome", s.Handle(s.welcome))
		r.Get("/join/{link}", s.Handle(s.joinPage))
		r.With(s.LimitSignIns).Post("/join/{link}", s.Handle(s.join))
		r.Post("/sign-in/demo", s.Handle(s.signInDemo))
		r.Post("/sign-out", s.Handle(s.signOut))
	})
	s.Teachers(r, func(r chi.Router) {
		r.Get("/account", s.Handle(s.account))
		r.With(s.LimitSignIns).Post("/account/password", s.Handle(s.changePassword))
		r.Post("/account/sessions", s.Handle(s.endSessions))
		r.Post("/account/invite", s.Handle(s.invite))
		r.Post("/account/reset/{id}", s.Handle(s.inviteToReset))
		r.With(s.LimitSignIns).Post("/account/remove/{id}", s.Handle(s.removeTeacher))
		r.Post("/account/back/{id}", s.Handle(s.putTeacherBack))
		r.Post("/account/erase/{id}", s.Handle(s.eraseTeacher))
		r.Post("/account/owner/{id}", s.Handle(s.handInstallationOver))
		r.Post("/account/house", s.Handle(s.savePolicy))
		r.Get("/account/log", s.Handle(s.activity))
		r.Get("/account/archive", s.Handle(s.takeArchive))
	})
	s.Uploads(r, func(r chi.Router) {
		r.Post("/account/archive", s.Handle(s.importArchive))
	})
}
