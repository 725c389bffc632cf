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
		r.Get("/removed", s.removed)
		r.Post("/removed/{what}/{id}/back", s.putBack)
		r.Post("/removed/{what}/{id}/erase", s.eraseNow)
		r.Post("/removed/overdue", s.eraseOverdue)
		r.Post("/books/{id}/remove", s.takeAway(store.ABook, "/"))
		r.Post("/sections/{id}/remove", s.takeAway(store.ASection, "/people"))
		r.Post("/students/{id}/remove", s.takeAway(store.AStudent, "/people"))
		r.Post("/students/{id}/left", s.studentLeft)
		r.Post("/students/{id}/return", s.studentBack)
		r.Get("/people", s.people)
		r.Get("/people/table", s.peopleTable)
		r.Get("/people/students.csv", s.takeTable)
		r.Post("/students/{id}/note", s.keepNote)
		r.Post("/students/{id}/second", s.addSecond)
		r.Get("/sections/{id}/seats", s.seats)
		r.Post("/sections/{id}/seats", s.keepSeats)
		r.Post("/sections", s.addSection)
		r.Post("/sections/{id}/list", s.addRoster)
		r.Post("/sections/{id}/year", s.keepYear)
		r.Post("/sections/{id}/give", s.giveSection)
		r.Post("/sections/{id}/take", s.takeSectionBack)
		r.Post("/students", s.addStudent)
		r.Post("/students/{id}", s.changeStudent)
	})
	s.Uploads(r, func(r chi.Router) {
		r.Post("/people/table", s.bringTable)
	})
}
