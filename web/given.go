package web

import (
	"context"
	"errors"
	"fmt"
	"net/http"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// inGiven lets a colleague into a section they were given, where a request is about one:
// the desk is then that section's.
func (s *Server) inGiven(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		named := namedIn(r)
		if named == (store.Named{}) {
			next.ServeHTTP(w, r)
			return
		}
		a := asking(r)
		own, err := isOwn(r, named)
		if err != nil {
			s.failed(w, r, err)
			return
		}
		if own {
			next.ServeHTTP(w, r)
			return
		}
		desk, err := s.store.InGiven(r.Context(), a.Teacher.ID, named)
		switch {
		case errors.Is(err, store.ErrNotFound): // at their own desk
		case err != nil:
			s.failed(w, r, err)
			return
		default:
			given := teach.New(desk, s.reader)
			given.Last = a.desk.Last
			a.desk = given
		}
		next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), actorKey, a)))
	})
}

// isOwn says whether what is named is at the teacher's own desk.
func isOwn(r *http.Request, named store.Named) (bool, error) {
	ctx, desk := r.Context(), deskOf(r)
	var err error
	switch {
	case named.Student != 0:
		_, err = desk.StudentByID(ctx, named.Student)
	case named.Section != 0:
		_, err = desk.Section(ctx, named.Section)
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
	n := store.Named{Section: store.SectionID(number(r, "section")), Student: store.StudentID(number(r, "student"))}
	switch chi.RouteContext(r.Context()).RoutePattern() {
	case "/students/{id}", "/students/{id}/undo", "/students/{id}/plan", "/students/{id}/plan/day", "/students/{id}/plan/drop", "/students/{id}/plan.ics", "/students/{id}/family":
		n.Student = idOf[store.StudentID](r)
	case "/attempts/{id}/undo":
		n.Attempt = idOf[store.AttemptID](r)
	}
	return n
}

// giveSection gives a section to a colleague, to teach or to look at.
func (s *Server) giveSection(w http.ResponseWriter, r *http.Request) {
	_, section, err := deskOf(r).ChooseSection(r.Context(), idOf[store.SectionID](r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	var f givingForm
	problem := first(s.forms.read(r, &f))
	if asking(r).Teacher.Demo {
		problem = "The demo’s sections are everybody’s already: who opens it works in them."
	}
	if problem != "" {
		s.showPeople(w, r, http.StatusUnprocessableEntity, peopleView{Problem: problem})
		return
	}
	if err := deskOf(r).GiveSection(r.Context(), section.ID, store.TeacherID(f.Colleague), f.May == "teach"); err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, fmt.Sprintf("%s is given. Your colleague finds it in People and on the Board.", section.Name))
	http.Redirect(w, r, "/people", http.StatusSeeOther)
}

// takeSectionBack ends what a colleague had of a section.
func (s *Server) takeSectionBack(w http.ResponseWriter, r *http.Request) {
	if err := deskOf(r).TakeSectionBack(r.Context(), idOf[store.SectionID](r), store.TeacherID(number(r, "colleague"))); err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, "It is yours alone again. What your colleague marked is kept.")
	http.Redirect(w, r, "/people", http.StatusSeeOther)
}

// Own says whether the bench is at the teacher's own desk, not in a section they were
// given.
func (c choice) Own() bool { return c.Guest.Own() }

// MayMark says whether who looks may mark.
func (c choice) MayMark() bool { return c.Guest.MayMark() }
