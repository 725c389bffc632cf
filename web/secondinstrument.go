package web

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"

	"unhurriedbench/core/instrument"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// addSecond gives a student a second instrument, with a log of its own.
func (s *Server) addSecond(w http.ResponseWriter, r *http.Request) {
	id := idOf[store.StudentID](r)
	student, err := deskOf(r).StudentByID(r.Context(), id)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	var f secondForm
	problem := first(s.forms.read(r, &f))
	if problem == "" {
		_, err := deskOf(r).AddSecond(r.Context(), id, store.SectionID(f.Section), f.Instrument)
		switch {
		case errors.Is(err, store.ErrTaken):
			problem = fmt.Sprintf("%s plays that already, or two instruments; nothing was changed.", student.Name())
		case err != nil:
			s.failed(w, r, err)
			return
		}
	}
	if problem != "" {
		s.showPeople(w, r, http.StatusUnprocessableEntity, peopleView{Problem: problem})
		return
	}
	s.flash(r, fmt.Sprintf("%s plays the %s too, with a log of its own.", student.Name(), instrumentName(f.Instrument)))
	http.Redirect(w, r, "/people", http.StatusSeeOther)
}

// playing leaves of a section those who are marked in it: a second instrument waits while the
// first is in the same section.
func playing(students []store.Student) []store.Student {
	return slices.DeleteFunc(slices.Clone(students), func(s store.Student) bool { return s.Aside })
}

// otherInstrument is the row of a student's other instrument, and what it is; nil for none.
func otherInstrument(ctx context.Context, desk *teach.Class, student store.Student) (*playedToo, error) {
	other, err := desk.OtherInstrument(ctx, student)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	i, _ := instrument.ByID(other.Instrument)
	return &playedToo{other, i}, nil
}

// playedToo is what a student plays beside the instrument at hand.
type playedToo struct {
	store.Student
	Instrument instrument.Instrument
}
