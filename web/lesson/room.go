// Package lesson is lessons, check-ins and cards before a class.
package lesson

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
		r.Post("/cards", s.keepCards)
	})
	s.Guests(r, func(r chi.Router) {
		r.Get("/lessons", s.lessons)
		r.Post("/lessons", s.planLesson)
		r.Get("/lessons/{id}", s.lesson)
		r.Post("/lessons/{id}/plan", s.changePlan)
		r.Post("/lessons/{id}/drop", s.dropLesson)
		r.Post("/lessons/{id}/begin", s.beginLesson)
		r.Post("/lessons/{id}/end", s.endLesson)
		r.Get("/lessons/{id}/run", s.runLesson)
		r.Post("/lessons/{id}/at", s.lessonAt)
		r.Post("/lessons/{id}/mark", s.markLesson)
		r.Post("/lessons/{id}/undo", s.undoLesson)
		r.Get("/check-ins", s.checkins)
		r.Post("/check-ins", s.setCheckins)
		r.Get("/check-ins/queue", s.startQueue)
		r.Get("/check-ins/{id}", s.checkin)
		r.Post("/check-ins/{id}/mark", s.markCheckin)
		r.Post("/check-ins/{id}/undo", s.undoCheckin)
		r.Post("/check-ins/{id}/due", s.changeDue)
		r.Post("/check-ins/{id}/end", s.endCheckin)
		r.Post("/check-ins/{id}/drop", s.dropCheckin)
		r.Get("/cards", s.classCards)
	})
}
