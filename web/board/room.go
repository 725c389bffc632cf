// Package board is the Board: where everybody in a class is.
package board

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
	s.Guests(r, func(r chi.Router) {
		r.Post("/lessons/group", s.Handle(s.takeGroup))
		r.Get("/board", s.Handle(s.board))
		r.Get("/board/pulse", s.Handle(s.pulse))
		r.Get("/board/where", s.Handle(s.where))
		r.Get("/board/heat", s.Handle(s.heat))
		r.Get("/board/weeks", s.Handle(s.weeks))
		r.Get("/board/groups", s.Handle(s.groups))
		r.Get("/board/grades", s.Handle(s.grades))
	})
}
