package site

import (
	"context"
	"errors"
	"net/http"
	"net/url"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// logRequests logs the route's pattern, not the path, which may name a student.
func (s *Site) logRequests(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		start := time.Now()
		s.metrics.under.Inc()
		defer s.metrics.under.Dec()
		seen := middleware.NewWrapResponseWriter(w, r.ProtoMajor)
		next.ServeHTTP(seen, r)
		route, took := chi.RouteContext(r.Context()).RoutePattern(), time.Since(start)
		s.metrics.observe(r.Method, route, seen.Status(), took)
		s.Log.Info("request", "method", r.Method, "route", route, "status", seen.Status(), "took",
			took.Round(time.Microsecond))
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

// What a request carries.
const (
	actorKey     contextKey = iota // who asks
	formErrorKey                   // what is wrong with its form
)

// Actor is who asks, and the desk that is theirs: a teacher now.
type Actor struct {
	Teacher store.Teacher
	Class   *teach.Class
}

// WithActor is a request that somebody asks.
func WithActor(r *http.Request, a Actor) *http.Request {
	return r.WithContext(context.WithValue(r.Context(), actorKey, a))
}

// ActorOf is who asks; handlers behind requireTeacher have somebody.
func ActorOf(r *http.Request) Actor {
	a, _ := r.Context().Value(actorKey).(Actor)
	return a
}

// ClassOf is the desk of anyone who asks.
func ClassOf(r *http.Request) *teach.Class { return ActorOf(r).Class }

func (s *Site) requireTeacher(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		a, err := s.SignedIn(r)
		if err != nil {
			s.unavailable(w, r, err)
			return
		}
		if a.Class == nil {
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
		next.ServeHTTP(w, WithActor(r, a))
	})
}

// SignedIn finds who the session is for: nobody, without a desk, where it is for none.
func (s *Site) SignedIn(r *http.Request) (Actor, error) {
	id := store.TeacherID(s.Sessions.GetInt64(r.Context(), "teacher"))
	if id == 0 {
		return Actor{}, nil
	}
	t, policy, err := s.Store.SignedIn(r.Context(), id)
	if errors.Is(err, store.ErrNotFound) {
		return Actor{}, nil
	}
	if err != nil {
		return Actor{}, err
	}
	if !s.holds(r, t, policy) {
		return Actor{}, nil
	}
	desk := teach.New(s.Store.For(id), s.Reader)
	desk.Clock = s.Now
	desk.Last = lastChosen{r.Context(), s.Sessions}
	return Actor{t, desk}, nil
}

// unavailable answers while the records cannot be reached.
func (s *Site) unavailable(w http.ResponseWriter, _ *http.Request, err error) {
	s.Log.Error("records away", "error", err)
	const heading = "The records cannot be reached"
	w.Header().Set("Retry-After", "5")
	s.Render(w, http.StatusServiceUnavailable, "message", "layout", LayoutData{Title: heading,
		Content: Message{heading, "Nothing is lost: what was saved is safe, and marks on an open Bench wait in its page. Try again in a moment; if it stays so, tell the administrator."}})
}

// lastChosen is what was chosen last in a session.
type lastChosen struct {
	ctx      context.Context
	sessions *scs.SessionManager
}

// Its keys.
const (
	lastClass      = "class"
	lastInstrument = "instrument"
)

// Class is the class chosen last.
func (l lastChosen) Class() store.ClassID {
	return store.ClassID(l.sessions.GetInt64(l.ctx, lastClass))
}

// Instrument is the instrument seen last.
func (l lastChosen) Instrument() string { return l.sessions.GetString(l.ctx, lastInstrument) }

// ChooseClass remembers a class.
func (l lastChosen) ChooseClass(id store.ClassID) { l.sessions.Put(l.ctx, lastClass, int64(id)) }

// ChooseInstrument remembers an instrument.
func (l lastChosen) ChooseInstrument(id string) { l.sessions.Put(l.ctx, lastInstrument, id) }

// BaseAddress is the address of this site as the request has it.
func (s *Site) BaseAddress(r *http.Request) string {
	if s.https || r.TLS != nil {
		return "https://" + r.Host
	}
	return "http://" + r.Host
}
