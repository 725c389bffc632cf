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
		r.Get("/settings", s.settings)
		r.Post("/settings", s.keepSettings)
		r.Get("/care/{kind}", s.care)
		r.Post("/care/{kind}", s.keepCare)
		r.Get("/routines", s.routines)
		r.Get("/routines/edit", s.editRoutine)
		r.Post("/routines", s.keepRoutine)
		r.Post("/routines/choose", s.chooseRoutine)
		r.Post("/routines/drop", s.dropRoutine)
		r.Post("/sections/{id}/school", s.keepSchool)
	})
}
