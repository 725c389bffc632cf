// Package student is one student: their record, plans and page.
package student

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
		r.Post("/students/{id}/own-page", s.Handle(s.makeOwnPage))
		r.Post("/students/{id}/own-page/end", s.Handle(s.endOwnPage))
		r.Post("/students/{id}/own-page/pin", s.Handle(s.setPIN))
		r.Post("/plans/own-pages", s.Handle(s.makeOwnPages))
	})
	s.Guests(r, func(r chi.Router) {
		r.Get("/plans", s.Handle(s.plans))
		r.Post("/plans", s.Handle(s.makePlans))
		r.Get("/students/{id}/plan", s.Handle(s.homePlan))
		r.Post("/students/{id}/plan", s.Handle(s.makeHomePlan))
		r.Post("/students/{id}/catch-up", s.Handle(s.catchUp))
		r.Post("/students/{id}/plan/day", s.Handle(s.changeHomeDay))
		r.Post("/students/{id}/plan/drop", s.Handle(s.deleteHomePlan))
		r.Get("/students/{id}/plan.ics", s.Handle(s.homeCalendar))
		r.Get("/students/{id}/family", s.Handle(s.family))
		r.Get("/students/{id}", s.Handle(s.history))
		r.Post("/students/{id}/undo", s.Handle(s.undoTry))
	})
}
