package site

import (
	"errors"
	"net/http"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// inGiven lets a colleague into a class they were given, where a request is about one:
// the desk is then that class's.
func (s *Site) inGiven(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		named := namedIn(r)
		if named == (store.Named{}) {
			next.ServeHTTP(w, r)
			return
		}
		a := ActorOf(r)
		own, err := isOwn(r, named)
		if err != nil {
			s.Failed(w, r, err)
			return
		}
		if own {
			next.ServeHTTP(w, r)
			return
		}
		desk, err := s.Store.InGiven(r.Context(), a.Teacher.ID, named)
		switch {
		case errors.Is(err, store.ErrNotFound): // at their own desk
		case err != nil:
			s.Failed(w, r, err)
			return
		default:
			given := teach.New(desk, s.Reader)
			given.Clock = s.Now
			given.Last = a.Class.Last
			a.Class = given
		}
		next.ServeHTTP(w, WithActor(r, a))
	})
}

// isOwn says whether what is named is at the teacher's own desk.
func isOwn(r *http.Request, named store.Named) (bool, error) {
	ctx, desk := r.Context(), ClassOf(r)
	var err error
	switch {
	case named.Student != 0:
		_, err = desk.StudentByID(ctx, named.Student)
	case named.Class != 0:
		_, err = desk.Class(ctx, named.Class)
	default:
		return false, nil
	}
	if errors.Is(err, store.ErrNotFound) {
		return false, nil
	}
	return err == nil, err
}

// namedIn is whom or what a request is about.
func namedIn(r *http.Request) store.Named {
	n := store.Named{Class: store.ClassID(Number(r, "class")), Student: store.StudentID(Number(r, "student"))}
	switch chi.RouteContext(r.Context()).RoutePattern() {
	case "/students/{id}", "/students/{id}/undo", "/students/{id}/plan", "/students/{id}/plan/day",
		"/students/{id}/plan/drop", "/students/{id}/plan.ics", "/students/{id}/family":
		n.Student = ID[store.StudentID](r)
	case "/attempts/{id}/undo":
		n.Attempt = ID[store.AttemptID](r)
	}
	return n
}
