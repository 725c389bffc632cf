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
		r.Post("/students/{id}/own-page", s.makeOwnPage)
		r.Post("/students/{id}/own-page/end", s.endOwnPage)
		r.Post("/students/{id}/own-page/pin", s.setPIN)
		r.Post("/plans/own-pages", s.makeOwnPages)
	})
	s.Guests(r, func(r chi.Router) {
		r.Get("/plans", s.plans)
		r.Post("/plans", s.makePlans)
		r.Get("/students/{id}/plan", s.homePlan)
		r.Post("/students/{id}/plan", s.makeHomePlan)
		r.Post("/students/{id}/plan/day", s.changeHomeDay)
		r.Post("/students/{id}/plan/drop", s.dropHomePlan)
		r.Get("/students/{id}/plan.ics", s.homeCalendar)
		r.Get("/students/{id}/family", s.family)
		r.Get("/students/{id}", s.history)
		r.Post("/students/{id}/undo", s.undoTry)
	})
}
