// Package students is who is in a class, and where they sit.
package students

import (
	"embed"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// Templates are the pages of this room.
//
//go:embed templates/*.html
var Templates embed.FS

// Routes adds the routes of this room.
func Routes(r chi.Router, of *site.Site) {
	s := &handlers{of}
	s.Teachers(r, func(r chi.Router) {
		r.Get("/removed", s.Handle(s.removed))
		r.Post("/removed/{what}/{id}/back", s.Handle(s.putBack))
		r.Post("/removed/{what}/{id}/erase", s.Handle(s.eraseNow))
		r.Post("/removed/overdue", s.Handle(s.eraseOverdue))
		r.Post("/books/{id}/remove", s.takeAway(store.ABook, "/"))
		r.Post("/sections/{id}/remove", s.takeAway(store.ASection, "/people"))
		r.Post("/students/{id}/remove", s.takeAway(store.AStudent, "/people"))
		r.Post("/students/{id}/left", s.Handle(s.studentLeft))
		r.Post("/students/{id}/return", s.Handle(s.studentBack))
		r.Get("/people", s.Handle(s.people))
		r.Get("/people/table", s.Handle(s.peopleTable))
		r.Get("/people/students.csv", s.Handle(s.takeTable))
		r.Post("/students/{id}/note", s.Handle(s.keepNote))
		r.Post("/students/{id}/second", s.Handle(s.addSecond))
		r.Get("/sections/{id}/seats", s.Handle(s.seats))
		r.Post("/sections/{id}/seats", s.Handle(s.keepSeats))
		r.Post("/sections", s.Handle(s.addSection))
		r.Post("/sections/{id}/list", s.Handle(s.addRoster))
		r.Post("/sections/{id}/year", s.Handle(s.keepYear))
		r.Post("/sections/{id}/give", s.Handle(s.giveSection))
		r.Post("/sections/{id}/take", s.Handle(s.takeSectionBack))
		r.Post("/students", s.Handle(s.addStudent))
		r.Post("/students/{id}", s.Handle(s.changeStudent))
	})
	s.Uploads(r, func(r chi.Router) {
		r.Post("/people/table", s.Handle(s.bringTable))
	})
}
