package students

import (
	"cmp"
	"fmt"
	"net/http"
	"slices"
	"strconv"

	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// seatsView is where a class sits, as the teacher sees it.
type seatsView struct {
	Class   store.Class
	Rows    []seatRow // the back one first
	Without []seated
	Across  int // of a proposal, 0 where it shows what is kept
	Problem string
}

type seatRow struct {
	Number int // from 1 at the front
	Seats  []seated
}

type seated struct {
	store.Student
	Title string // of the instrument
}

// Acrosses lists how many may sit in a row of a proposal.
func (seatsView) Acrosses() []int { return teach.UpTo(12)[2:] }

// seats shows where a class sits, or, asked with how many across, a proposal.
func (s *handlers) seats(w http.ResponseWriter, r *http.Request) error {
	_, class, err := site.ClassOf(r).ChooseClass(r.Context(), site.ID[store.ClassID](r))
	if err != nil {
		return err
	}
	students, err := site.ClassOf(r).Students(r.Context(), class.ID)
	if err != nil {
		return err
	}
	v := seatsView{Class: class, Across: int(site.Number(r, "across"))}
	if v.Across > 0 {
		v.Across = max(3, min(v.Across, 12))
		students = teach.ProposeSeats(students, v.Across)
	}
	v.fill(students)
	s.Page(w, r, http.StatusOK, "seats", "Seating: "+class.Name, v)
	return nil
}

func (v *seatsView) fill(students []store.Student) {
	v.Rows = nil
	for _, row := range teach.SeatRows(students) {
		shown := seatRow{Number: row[0].Row}
		for _, student := range row {
			shown.Seats = append(shown.Seats, seated{student, teach.InstrumentTitle(student.Instrument)})
		}
		if shown.Number == 0 {
			v.Without = shown.Seats
			continue
		}
		v.Rows = append(v.Rows, shown)
	}
}

// saveSeats seats a class as the form says: the row and the place of each student.
func (s *handlers) saveSeats(w http.ResponseWriter, r *http.Request) error {
	_, class, err := site.ClassOf(r).ChooseClass(r.Context(), site.ID[store.ClassID](r))
	if err != nil {
		return err
	}
	students, err := site.ClassOf(r).Students(r.Context(), class.ID)
	if err != nil {
		return err
	}
	v := seatsView{Class: class}
	for k := range students {
		student := &students[k]
		for _, field := range []struct {
			name string
			into *int
			most int
		}{{"row", &student.Row, store.MostRows}, {"place", &student.Place, store.MostPlaces}} {
			typed := site.Text(r, fmt.Sprintf("%s-%d", field.name, student.ID))
			n, err := strconv.Atoi(cmp.Or(typed, "0"))
			if (err != nil || n < 0 || n > field.most) && v.Problem == "" {
				v.Problem = fmt.Sprintf("The %s of %s, “%s”, is none: there are 1 to %d, and 0 for no seat. Nothing was changed.", field.name, student.Name(), typed, field.most)
			}
			*field.into = n
		}
	}
	if v.Problem != "" {
		v.fill(students)
		s.Page(w, r, http.StatusUnprocessableEntity, "seats", "Seating: "+class.Name, v)
		return nil
	}
	var rows [][]store.StudentID
	for _, row := range slices.Backward(teach.SeatRows(students)) {
		if row[0].Row == 0 {
			continue
		}
		ids := make([]store.StudentID, len(row))
		for k, student := range row {
			ids[k] = student.ID
		}
		rows = append(rows, ids)
	}
	if err := site.ClassOf(r).SaveSeats(r.Context(), class.ID, rows); err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("The seating of %s is saved. The Lesson uses it too.", class.Name))
	http.Redirect(w, r, fmt.Sprintf("/classes/%d/seats", class.ID), http.StatusSeeOther)
	return nil
}
