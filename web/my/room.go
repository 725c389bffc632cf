// Package my is a student's own page, opened by a key.
package my

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
	r.Route("/my/{key}", s.ownRoutes)
}
