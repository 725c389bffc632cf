// Package shelf is the Shelf: books, exercises, and how they come in.
package shelf

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
	s.Teachers(r, func(r chi.Router) {
		r.Get("/", s.Handle(s.shelf))
		r.Get("/exercises/new", s.Handle(s.newExercise))
		r.Get("/exercises/many", s.Handle(s.chooseMany))
		r.Post("/exercises/many/read", s.Handle(s.readMany))
		r.Post("/exercises/many/undo", s.Handle(s.undoMany))
		r.Get("/books/{id}/export", s.Handle(s.exportBook))
		r.Get("/exercises/{id}/edit", s.Handle(s.editExercise))
		r.Post("/exercises/{id}/remove", s.Handle(s.removeExercise))
		r.Get("/exercises/{id}/parts", s.Handle(s.parts))
		r.Post("/exercises/{id}/parts", s.Handle(s.dealParts))
		r.Post("/exercises/{id}/parts/drop", s.Handle(s.deletePart))
		r.Post("/exercises/{id}/second", s.Handle(s.saveSecond))
		r.Post("/lines/give", s.Handle(s.giveLine))
		r.Post("/exercises/{id}/octave", s.Handle(s.saveOctave))
		r.Post("/exercises/{id}/audience", s.Handle(s.saveAudience))
		r.Post("/exercises/{id}/move", s.Handle(s.moveExercise))
		r.Post("/books/{id}/order", s.Handle(s.orderByNumber))
		r.Post("/books/ferry", s.Handle(s.addFerryBook))
	})
	s.Uploads(r, func(r chi.Router) {
		r.Post("/exercises", s.Handle(s.addExercise))
		r.Post("/exercises/preview", s.Handle(s.previewExercise))
		r.Post("/exercises/turn", s.Handle(s.turnExercise))
		r.Post("/exercises/many", s.Handle(s.lookAtMany))
		r.Post("/exercises/many/keep", s.Handle(s.saveMany))
		r.Post("/exercises/{id}", s.Handle(s.changeExercise))
		r.Post("/exercises/{id}/parts/own", s.Handle(s.savePart))
	})
}
