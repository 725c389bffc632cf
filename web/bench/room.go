// Package bench is the Bench: one exercise for one instrument, its sheets, its chart and what is compared with it.
package bench

import (
	"embed"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// Templates are the pages of this room.
//
//go:embed templates/*.html
var Templates embed.FS

// Routes adds the routes of this room.
func Routes(r chi.Router, of *site.Site, recordings music.Recordings) {
	s := &handlers{of, recordings}
	s.Teachers(r, func(r chi.Router) {
		r.Get("/exercises/{id}/export", s.exportExercise)
		r.Post("/sheets/recipes", s.keepRecipe)
		r.Get("/tune", s.tune)
		r.Get("/compare", s.compare)
		r.Get("/fingerings/{instrument}", s.chart)
		r.Get("/fingerings/{instrument}/near", s.near)
		r.Post("/fingerings/{instrument}", s.prefer)
		r.Post("/fingerings/{instrument}/kind", s.keepKind)
		r.Post("/bench/{id}/line", s.keepLine)
		r.Post("/bench/{id}/fingering", s.keepFingering)
		r.Post("/bench/{id}/pencil", s.pencil)
		r.Post("/bench/{id}/pieces", s.cutPieces)
		r.Post("/students/{id}/rule", s.keepRule)
	})
	s.Guests(r, func(r chi.Router) {
		r.Get("/bench/{id}", s.bench)
		r.Get("/bench/{id}/hardest", s.hardest)
		r.Get("/bench/{id}/sheets", s.sheets)
		r.Get("/bench/{id}/first-notes", s.firstNotes)
		r.Post("/bench/{id}/attempts", s.addAttempt)
		r.Post("/bench/{id}/everybody", s.everybodyClean)
		r.Post("/bench/{id}/move", s.moveStudent)
		r.Post("/attempts/{id}/undo", s.undoAttempt)
		r.Post("/batches/{id}/undo", s.undoBatch)
	})
}
