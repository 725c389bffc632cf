package web

import (
	"context"
	"net/http"
	"net/url"
	"time"

	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"unhurriedbench/store"
)

// logRequests logs the route's pattern, not the path, which may name a student.
func (s *Server) logRequests(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		start := time.Now()
		seen := middleware.NewWrapResponseWriter(w, r.ProtoMajor)
		next.ServeHTTP(seen, r)
		s.log.Info("request", "method", r.Method, "route", chi.RouteContext(r.Context()).RoutePattern(),
			"status", seen.Status(), "took", time.Since(start).Round(time.Microsecond))
	})
}

// securityHeaders keeps pages to our own files. The engraver is WebAssembly,
// and engraved music carries inline styles.
func securityHeaders(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; "+
			"style-src 'self' 'unsafe-inline'; connect-src 'self'; img-src 'self' data:; worker-src 'self' blob:; "+
			"frame-ancestors 'none'; form-action 'self'; base-uri 'self'")
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "same-origin")
		next.ServeHTTP(w, r)
	})
}

type contextKey int

const actorKey contextKey = 0

// actor is who asks, and the desk that is theirs: a teacher now.
type actor struct {
	Teacher store.Teacher
	desk    *store.Desk
}

// asking is who asks; handlers behind requireTeacher have somebody.
func asking(r *http.Request) actor {
	a, _ := r.Context().Value(actorKey).(actor)
	return a
}

// deskOf is the desk of whoever asks.
func deskOf(r *http.Request) *store.Desk { return asking(r).desk }

func (s *Server) requireTeacher(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		a, ok := s.signedIn(r)
		if !ok {
			if r.Header.Get("HX-Request") == "true" {
				w.Header().Set("HX-Redirect", "/sign-in")
				w.WriteHeader(http.StatusUnauthorized)
				return
			}
			to := "/sign-in"
			if r.Method == http.MethodGet && r.URL.Path != "/" {
				to += "?to=" + url.QueryEscape(r.URL.RequestURI())
			}
			http.Redirect(w, r, to, http.StatusSeeOther)
			return
		}
		w.Header().Set("Cache-Control", "no-store")
		next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), actorKey, a)))
	})
}

// signedIn finds who the session is for.
func (s *Server) signedIn(r *http.Request) (actor, bool) {
	id := store.TeacherID(s.sessions.GetInt64(r.Context(), "teacher"))
	if id == 0 {
		return actor{}, false
	}
	t, err := s.store.TeacherByID(r.Context(), id)
	return actor{t, s.store.For(id)}, err == nil
}
