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
		r.Post("/removed/{what}/{id}/back", s.Handle(s.restored))
		r.Post("/removed/{what}/{id}/erase", s.Handle(s.eraseNow))
		r.Post("/removed/overdue", s.Handle(s.eraseOverdue))
		r.Post("/books/{id}/remove", s.moveToTrash(store.TrashBook, "/"))
		r.Post("/classes/{id}/remove", s.moveToTrash(store.TrashClass, "/people"))
		r.Post("/students/{id}/remove", s.moveToTrash(store.TrashStudent, "/people"))
		r.Post("/students/{id}/left", s.Handle(s.studentLeft))
		r.Post("/students/{id}/return", s.Handle(s.studentBack))
		r.Get("/people", s.Handle(s.people))
		r.Get("/people/table", s.Handle(s.peopleTable))
		r.Get("/people/students.csv", s.Handle(s.takeTable))
		r.Post("/students/{id}/note", s.Handle(s.saveNote))
		r.Post("/students/{id}/second", s.Handle(s.addSecond))
		r.Get("/classes/{id}/seats", s.Handle(s.seats))
		r.Post("/classes/{id}/seats", s.Handle(s.saveSeats))
		r.Post("/classes", s.Handle(s.addClass))
		r.Post("/classes/{id}/groups", s.Handle(s.addGroup))
		r.Post("/groups/{id}", s.Handle(s.changeGroup))
		r.Post("/classes/{id}/list", s.Handle(s.addRoster))
		r.Post("/classes/{id}/year", s.Handle(s.saveYear))
		r.Post("/classes/{id}/give", s.Handle(s.shareClass))
		r.Post("/classes/{id}/take", s.Handle(s.takeClassBack))
		r.Post("/students", s.Handle(s.addStudent))
		r.Post("/students/{id}", s.Handle(s.changeStudent))
	})
	s.Uploads(r, func(r chi.Router) {
		r.Post("/people/table", s.Handle(s.importTable))
	})
}
