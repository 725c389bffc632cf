package site

import (
	"net/http"

	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
)

// Public adds routes that are open to anybody.
func (s *Site) Public(r chi.Router, add func(chi.Router)) {
	r.Group(func(r chi.Router) {
		r.Use(s.TakesForms)
		add(r)
	})
}

// Teachers adds routes for teachers who are signed in.
func (s *Site) Teachers(r chi.Router, add func(chi.Router)) {
	r.Group(func(r chi.Router) {
		r.Use(s.requireTeacher, s.TakesForms, middleware.Compress(2))
		add(r)
	})
}

// Uploads adds routes to which teachers send files.
func (s *Site) Uploads(r chi.Router, add func(chi.Router)) {
	r.Group(func(r chi.Router) {
		r.Use(s.requireTeacher, s.TakesFiles, middleware.Compress(2))
		add(r)
	})
}

// Guests adds routes for teachers, and for colleagues who were given a class, where a
// request is about one.
func (s *Site) Guests(r chi.Router, add func(chi.Router)) {
	s.Teachers(r, func(r chi.Router) {
		r.Use(s.inGiven)
		add(r)
	})
}

// Routes is a router with what all routes share, and those that are no room's: files, and
// what a watch asks. Rooms add theirs behind the sessions.
func (s *Site) Routes(rooms func(chi.Router)) chi.Router {
	r := chi.NewRouter()
	sameSite := http.NewCrossOriginProtection()
	sameSite.SetDenyHandler(http.HandlerFunc(s.fromAnotherSite))
	sameSite.AddInsecureBypassPattern("/my/{key}/") // a student's key is in the address, which another site does not know
	r.Use(s.fromProxies, s.logRequests, middleware.Recoverer, securityHeaders, sameSite.Handler, middleware.GetHead)
	r.Handle("/static/*", s.Assets)
	r.Get("/health", s.health)
	r.Get("/ready", s.ready)
	r.Group(func(r chi.Router) {
		r.Use(s.Sessions.LoadAndSave)
		r.NotFound(s.NotFound)
		rooms(r)
	})
	return r
}
