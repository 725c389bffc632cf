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
		r.Get("/", s.shelf)
		r.Get("/exercises/new", s.newExercise)
		r.Get("/exercises/many", s.chooseMany)
		r.Post("/exercises/many/read", s.readMany)
		r.Post("/exercises/many/undo", s.undoMany)
		r.Get("/books/{id}/export", s.exportBook)
		r.Get("/exercises/{id}/edit", s.editExercise)
		r.Post("/exercises/{id}/remove", s.removeExercise)
		r.Get("/exercises/{id}/parts", s.parts)
		r.Post("/exercises/{id}/parts", s.dealParts)
		r.Post("/exercises/{id}/parts/drop", s.dropPart)
		r.Post("/exercises/{id}/second", s.keepSecond)
		r.Post("/lines/give", s.giveLine)
		r.Post("/exercises/{id}/octave", s.keepOctave)
		r.Post("/exercises/{id}/move", s.moveExercise)
		r.Post("/books/{id}/order", s.orderByNumber)
		r.Post("/books/ferry", s.addFerryBook)
	})
	s.Uploads(r, func(r chi.Router) {
		r.Post("/exercises", s.addExercise)
		r.Post("/exercises/preview", s.previewExercise)
		r.Post("/exercises/turn", s.turnExercise)
		r.Post("/exercises/many", s.lookAtMany)
		r.Post("/exercises/many/keep", s.keepMany)
		r.Post("/exercises/{id}", s.changeExercise)
		r.Post("/exercises/{id}/parts/own", s.keepPart)
	})
}
