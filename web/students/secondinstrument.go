package students

import (
	"errors"
	"fmt"
	"net/http"

	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// addSecond gives a student a second instrument, with a log of its own.
func (s *handlers) addSecond(w http.ResponseWriter, r *http.Request) error {
	id := site.ID[store.StudentID](r)
	student, err := site.ClassOf(r).StudentByID(r.Context(), id)
	if err != nil {
		return err
	}
	var f secondForm
	problem := site.First(s.Forms.Read(r, &f))
	if problem == "" {
		_, err := site.ClassOf(r).AddSecondInstrument(r.Context(), id, store.ClassID(f.Class), f.Instrument)
		switch {
		case errors.Is(err, store.ErrTaken):
			problem = fmt.Sprintf("%s plays that already, or two instruments; nothing was changed.", student.Name())
		case err != nil:
			return err
		}
	}
	if problem != "" {
		return s.showPeople(w, r, http.StatusUnprocessableEntity, peopleView{Problem: problem})
	}
	s.Flash(r, fmt.Sprintf("%s plays the %s too, with a log of its own.", student.Name(),
		teach.InstrumentName(f.Instrument)))
	http.Redirect(w, r, "/people", http.StatusSeeOther)
	return nil
}
