// Package settings is how a teacher counts, names, fingers and goes from stage to stage.
package settings

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
		r.Get("/settings", s.Handle(s.settings))
		r.Post("/settings", s.Handle(s.saveSettings))
		r.Get("/settings/voice", s.Handle(s.voice))
		r.Get("/settings/voice/word", s.Handle(s.wordSound))
		r.Post("/settings/voice/drop", s.Handle(s.dropWords))
		r.Get("/care/{kind}", s.Handle(s.care))
		r.Post("/care/{kind}", s.Handle(s.saveCare))
		r.Get("/routines", s.Handle(s.routines))
		r.Get("/routines/edit", s.Handle(s.editRoutine))
		r.Post("/routines", s.Handle(s.saveRoutine))
		r.Post("/routines/choose", s.Handle(s.chooseRoutine))
		r.Post("/routines/drop", s.Handle(s.deleteRoutine))
		r.Post("/classes/{id}/school", s.Handle(s.saveSchool))
	})
	s.Uploads(r, func(r chi.Router) { r.Post("/settings/voice", s.Handle(s.saveTake)) })
}
