package store

import (
	"context"
	"errors"
)

// KeepPlacement keeps the octave chosen for an instrument's part.
func (s *Store) KeepPlacement(ctx context.Context, teacher, exercise int64, instrument string, octaves int) error {
	return s.change(ctx, "keep the octave", `
		INSERT INTO placements (teacher_id, exercise_id, instrument, octaves) VALUES ($1, $2, $3, $4)
		ON CONFLICT (exercise_id, instrument) DO UPDATE SET octaves = $4 WHERE placements.teacher_id = $1`,
		teacher, exercise, instrument, octaves)
}

// DropPlacement leaves the octave to the program again.
func (s *Store) DropPlacement(ctx context.Context, teacher, exercise int64, instrument string) error {
	err := s.change(ctx, "drop the octave", `
		DELETE FROM placements WHERE teacher_id = $1 AND exercise_id = $2 AND instrument = $3`, teacher, exercise, instrument)
	if errors.Is(err, ErrNotFound) {
		return nil // it was left to the program before
	}
	return err
}

// Placement is the octave chosen for an instrument's part; chosen is false where
// it is left to the program.
func (s *Store) Placement(ctx context.Context, teacher, exercise int64, instrument string) (octaves int, chosen bool, err error) {
	err = s.one(ctx, &octaves, "find the octave", `
		SELECT octaves FROM placements WHERE teacher_id = $1 AND exercise_id = $2 AND instrument = $3`, teacher, exercise, instrument)
	if errors.Is(err, ErrNotFound) {
		return 0, false, nil
	}
	return octaves, err == nil, err
}
