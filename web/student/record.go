package student

import (
	"errors"
	"net/http"

	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

func (s *handlers) history(w http.ResponseWriter, r *http.Request) error {
	return s.showHistory(w, r, site.ID[store.StudentID](r))
}

// undoTry takes a try back, by adding to the log, and shows the student's log again.
func (s *handlers) undoTry(w http.ResponseWriter, r *http.Request) error {
	a, err := site.ClassOf(r).UndoAttempt(r.Context(), store.AttemptID(site.Number(r, "attempt")))
	if err != nil && !errors.Is(err, store.ErrTaken) { // taken back already is what was wanted
		return err
	}
	return s.showHistory(w, r, a.StudentID)
}

func (s *handlers) showHistory(w http.ResponseWriter, r *http.Request, student store.StudentID) error {
	v, err := teach.LoadRecord(r.Context(), site.ClassOf(r), student, store.ExerciseID(site.Number(r, "exercise")))
	if err != nil {
		return err
	}
	if v.Only == 0 && !site.IsHTMX(r) {
		if v.InBook, err = teach.NextFor(r.Context(), site.ClassOf(r), v.Student); err != nil {
			return err
		}
	}
	v.Open, v.Page = r.Method == http.MethodPost, !site.IsHTMX(r)
	if site.IsHTMX(r) {
		s.Fragment(w, "history", "history", v)
		return nil
	}
	s.Page(w, r, http.StatusOK, "history", v.Student.Name(), v)
	return nil
}
