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
		r.Get("/exercises/{id}/export", s.Handle(s.exportExercise))
		r.Post("/sheets/recipes", s.Handle(s.saveRecipe))
		r.Get("/tune", s.Handle(s.tune))
		r.Get("/technique", s.Handle(s.technique))
		r.Post("/technique", s.Handle(s.keepTechnique))
		r.Get("/compare", s.Handle(s.compare))
		r.Get("/fingerings/{instrument}", s.Handle(s.chart))
		r.Get("/fingerings/{instrument}/near", s.Handle(s.near))
		r.Post("/fingerings/{instrument}", s.Handle(s.prefer))
		r.Post("/fingerings/{instrument}/kind", s.Handle(s.saveKind))
		r.Post("/bench/{id}/line", s.Handle(s.saveLine))
		r.Post("/bench/{id}/fingering", s.Handle(s.saveFingering))
		r.Post("/bench/{id}/pencil", s.Handle(s.annotation))
		r.Post("/bench/{id}/chunks", s.Handle(s.editChunks))
		r.Post("/students/{id}/rule", s.Handle(s.saveRule))
	})
	s.Guests(r, func(r chi.Router) {
		r.Get("/voice/own.wav", s.Handle(music.ServeWords))
		r.Get("/voice/own.json", s.Handle(music.ServeWords))
		r.Get("/bench/{id}", s.Handle(s.bench))
		r.Get("/bench/{id}/ear", s.Handle(s.byEar))
		r.Get("/bench/{id}/write", s.Handle(s.writeNotes))
		r.Get("/bench/{id}/before", s.Handle(s.beforeLine))
		r.Get("/bench/{id}/walk", s.Handle(s.walkThrough))
		r.Get("/bench/{id}/walk/data", s.Handle(s.walkFile))
		r.Get("/bench/{id}/hardest", s.Handle(s.hardest))
		r.Get("/bench/{id}/sheets", s.Handle(s.sheets))
		r.Get("/bench/{id}/first-notes", s.Handle(s.firstNotes))
		r.Post("/bench/{id}/attempts", s.Handle(s.addAttempt))
		r.Post("/bench/{id}/everybody", s.Handle(s.everybodyClean))
		r.Post("/bench/{id}/move", s.Handle(s.moveStudent))
		r.Post("/attempts/{id}/undo", s.Handle(s.undoAttempt))
		r.Post("/batches/{id}/undo", s.Handle(s.undoBatch))
	})
}
