package teach

import (
	"cmp"
	"context"
	"errors"
	"slices"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/store"
)

// PlayedBy lists the instruments of some students, in score order.
func PlayedBy(students []store.Student) []instrument.Instrument {
	return slices.DeleteFunc(instrument.All(), func(i instrument.Instrument) bool {
		return !slices.ContainsFunc(students, func(s store.Student) bool { return s.Instrument == i.ID })
	})
}

// SeatRows parts students by the row they sit in, the back one first, each from the left; who
// has no seat comes last, in score order.
func SeatRows(students []store.Student) [][]store.Student {
	sorted := InScoreOrder(students)
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

// InScoreOrder lists students by instrument in score order, those of one instrument as given.
func InScoreOrder(students []store.Student) []store.Student {
	order := map[string]int{}
	for k, i := range instrument.All() {
		order[i.ID] = k
	}
	sorted := slices.Clone(students)
	slices.SortStableFunc(sorted, func(a, b store.Student) int { return order[a.Instrument] - order[b.Instrument] })
	return sorted
}

// ProposeSeats seats students by instrument.
func ProposeSeats(students []store.Student, across int) []store.Student {
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

// Playing leaves of a class those who are marked in it: a second instrument waits while the
// first is in the same class.
func Playing(students []store.Student) []store.Student {
	return slices.DeleteFunc(slices.Clone(students), func(s store.Student) bool { return s.Aside })
}

// otherInstrument is the row of a student's other instrument, and what it is; nil for none.
func otherInstrument(ctx context.Context, desk *Class, student store.Student) (*playedToo, error) {
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
