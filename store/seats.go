package store

import "context"

// Bounds of a seating.
const (
	MostRows   = 12
	MostPlaces = 40 // in a row
)

// SaveSeats seats a class: rows of students, the front one first, each from the left as the
// teacher sees it. Who is in none of them has no seat. The error is ErrNotFound where somebody
// is not of the class.
func (d *Desk) SaveSeats(ctx context.Context, class ClassID, rows [][]StudentID) error {
	return d.inTransaction(ctx, "keep the seats", func(tx deskTx) error {
		if err := tx.clear(ctx, `UPDATE students SET seat_row = 0, seat_place = 0
			WHERE teacher_id = $1 AND class_id = $2`, class); err != nil {
			return err
		}
		for k, row := range rows {
			for n, id := range row {
				if err := tx.change(ctx, `UPDATE students SET seat_row = $4, seat_place = $5
					WHERE teacher_id = $1 AND class_id = $2 AND id = $3`, class, id, k+1, n+1); err != nil {
					return err
				}
			}
		}
		return nil
	})
}
