package web

import (
	"cmp"
	"fmt"
	"net/http"
	"slices"
	"strconv"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/store"
)

// seatsView is where a section sits, as the teacher sees it.
type seatsView struct {
	Section store.Section
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
func (seatsView) Acrosses() []int { return upTo(12)[2:] }

// seats shows where a section sits, or, asked with how many across, a proposal.
func (s *Server) seats(w http.ResponseWriter, r *http.Request) {
	_, section, err := deskOf(r).ChooseSection(r.Context(), idOf[store.SectionID](r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	students, err := deskOf(r).Students(r.Context(), section.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	v := seatsView{Section: section, Across: int(number(r, "across"))}
	if v.Across > 0 {
		v.Across = max(3, min(v.Across, 12))
		students = proposeSeats(students, v.Across)
	}
	v.fill(students)
	s.page(w, r, http.StatusOK, "seats", "Seats of "+section.Name, v)
}

func (v *seatsView) fill(students []store.Student) {
	v.Rows = nil
	for _, row := range seatRows(students) {
		shown := seatRow{Number: row[0].Row}
		for _, student := range row {
			shown.Seats = append(shown.Seats, seated{student, instrumentTitle(student.Instrument)})
		}
		if shown.Number == 0 {
			v.Without = shown.Seats
			continue
		}
		v.Rows = append(v.Rows, shown)
	}
}

// seatRows parts students by the row they sit in, the back one first, each from the left; who
// has no seat comes last, in score order.
func seatRows(students []store.Student) [][]store.Student {
	sorted := inScoreOrder(students)
	slices.SortStableFunc(sorted, func(a, b store.Student) int {
		if (a.Row == 0) != (b.Row == 0) {
			return boolOrder(a.Row == 0) - boolOrder(b.Row == 0)
		}
		return cmp.Or(b.Row-a.Row, a.Place-b.Place)
	})
	var rows [][]store.Student
	for k, student := range sorted {
		if k == 0 || student.Row != sorted[k-1].Row {
			rows = append(rows, nil)
		}
		rows[len(rows)-1] = append(rows[len(rows)-1], student)
	}
	return rows
}

// inScoreOrder lists students by instrument in score order, those of one instrument as given.
func inScoreOrder(students []store.Student) []store.Student {
	order := map[string]int{}
	for k, i := range instrument.All() {
		order[i.ID] = k
	}
	sorted := slices.Clone(students)
	slices.SortStableFunc(sorted, func(a, b store.Student) int { return order[a.Instrument] - order[b.Instrument] })
	return sorted
}

// proposeSeats seats students by instrument.
func proposeSeats(students []store.Student, across int) []store.Student {
	seated, plays := slices.Clone(students), make([]string, len(students))
	for k := range seated {
		plays[k] = seated[k].Instrument
		seated[k].Row, seated[k].Place = 0, 0
	}
	for k, row := range lesson.Seats(plays, across) {
		for n, player := range row {
			if k < store.MostRows {
				seated[player].Row, seated[player].Place = k+1, n+1
			}
		}
	}
	return seated
}

// keepSeats seats a section as the form says: the row and the place of each student.
func (s *Server) keepSeats(w http.ResponseWriter, r *http.Request) {
	_, section, err := deskOf(r).ChooseSection(r.Context(), idOf[store.SectionID](r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	students, err := deskOf(r).Students(r.Context(), section.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	v := seatsView{Section: section}
	for k := range students {
		student := &students[k]
		for _, field := range []struct {
			name string
			into *int
			most int
		}{{"row", &student.Row, store.MostRows}, {"place", &student.Place, store.MostPlaces}} {
			typed := text(r, fmt.Sprintf("%s-%d", field.name, student.ID))
			n, err := strconv.Atoi(cmp.Or(typed, "0"))
			if (err != nil || n < 0 || n > field.most) && v.Problem == "" {
				v.Problem = fmt.Sprintf("The %s of %s, “%s”, is none: there are 1 to %d, and 0 for no seat. Nothing was changed.", field.name, student.Name(), typed, field.most)
			}
			*field.into = n
		}
	}
	if v.Problem != "" {
		v.fill(students)
		s.page(w, r, http.StatusUnprocessableEntity, "seats", "Seats of "+section.Name, v)
		return
	}
	var rows [][]store.StudentID
	for _, row := range slices.Backward(seatRows(students)) {
		if row[0].Row == 0 {
			continue
		}
		ids := make([]store.StudentID, len(row))
		for k, student := range row {
			ids[k] = student.ID
		}
		rows = append(rows, ids)
	}
	if err := deskOf(r).KeepSeats(r.Context(), section.ID, rows); err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, fmt.Sprintf("%s sits so from now on, in the Lesson too.", section.Name))
	http.Redirect(w, r, fmt.Sprintf("/sections/%d/seats", section.ID), http.StatusSeeOther)
}
