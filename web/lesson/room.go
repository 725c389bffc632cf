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
		r.Post("/cards", s.Handle(s.saveCards))
		r.Post("/lessons/{id}/shape", s.Handle(s.saveShape))
	})
	s.Guests(r, func(r chi.Router) {
		r.Get("/lessons", s.Handle(s.lessons))
		r.Post("/lessons", s.Handle(s.planLesson))
		r.Get("/lessons/{id}", s.Handle(s.lesson))
		r.Post("/lessons/{id}/plan", s.Handle(s.changePlan))
		r.Post("/lessons/{id}/drop", s.Handle(s.deleteLesson))
		r.Post("/lessons/{id}/begin", s.Handle(s.beginLesson))
		r.Post("/lessons/{id}/end", s.Handle(s.endLesson))
		r.Get("/lessons/{id}/run", s.Handle(s.runLesson))
		r.Get("/lessons/{id}/pulse", s.Handle(s.lessonPulse))
		r.Post("/lessons/{id}/at", s.Handle(s.lessonAt))
		r.Post("/lessons/{id}/mark", s.Handle(s.markLesson))
		r.Post("/lessons/{id}/undo", s.Handle(s.undoLesson))
		r.Get("/check-ins", s.Handle(s.checkins))
		r.Post("/check-ins", s.Handle(s.setCheckins))
		r.Get("/check-ins/queue", s.Handle(s.startQueue))
		r.Get("/check-ins/{id}", s.Handle(s.checkin))
		r.Post("/check-ins/{id}/mark", s.Handle(s.markCheckin))
		r.Post("/check-ins/{id}/undo", s.Handle(s.undoCheckin))
		r.Post("/check-ins/{id}/due", s.Handle(s.changeDue))
		r.Post("/check-ins/{id}/end", s.Handle(s.endCheckin))
		r.Post("/check-ins/{id}/drop", s.Handle(s.deleteCheckin))
		r.Get("/cards", s.Handle(s.classCards))
	})
}
