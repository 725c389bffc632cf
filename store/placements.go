package store

import (
	"context"
	"errors"

	"unhurriedbench/core/instrument"
)

// KeepPlacement keeps the octave chosen for an instrument's part.
func (d *Desk) KeepPlacement(ctx context.Context, exercise ExerciseID, instrument string, octaves int) error {
	return d.change(ctx, "keep the octave", `
		INSERT INTO placements (teacher_id, exercise_id, instrument, octaves)
		SELECT $1, id, $3, $4 FROM exercises WHERE teacher_id = $1 AND id = $2
		ON CONFLICT (exercise_id, instrument) DO UPDATE SET octaves = $4`, exercise, instrument, octaves)
}

// DropPlacement leaves the octave to the program again.
func (d *Desk) DropPlacement(ctx context.Context, exercise ExerciseID, instrument string) error {
	return d.clear(ctx, "drop the octave", `
		DELETE FROM placements WHERE teacher_id = $1 AND exercise_id = $2 AND instrument = $3`, exercise, instrument)
}

// Placement is the octave chosen for an instrument's part, if any.
func (d *Desk) Placement(ctx context.Context, exercise ExerciseID, id string) (instrument.Placement, error) {
	var octaves int
	err := d.one(ctx, &octaves, "find the octave", `
		SELECT octaves FROM placements WHERE teacher_id = $1 AND exercise_id = $2 AND instrument = $3`, exercise, id)
	if errors.Is(err, ErrNotFound) {
		return instrument.Placement{}, nil
	}
	return instrument.Placement{Chosen: err == nil, Octaves: octaves}, err
}
