package store

import (
	"context"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/score"
)

// SaveFingering keeps the fingering chosen for one place of an instrument's part, in
// place of an earlier one.
func (d *Desk) SaveFingering(ctx context.Context, exercise ExerciseID, instrument string, at score.Place,
	f finger.Spot) error {
	return d.change(ctx, "keep the fingering", `
		INSERT INTO fingerings (teacher_id, exercise_id, instrument, measure, event, pitch, fingering)
		SELECT $1, id, $3, $4, $5, $6, $7 FROM exercises WHERE teacher_id = $1 AND id = $2
		ON CONFLICT (exercise_id, instrument, measure, event) DO UPDATE SET pitch = $6, fingering = $7`,
		exercise, instrument, at.Measure, at.Event, f.Pitch, f.Text)
}

// DeleteFingerings leaves every place of a pitch in an instrument's part to the teacher's
// choice for the note again.
func (d *Desk) DeleteFingerings(ctx context.Context, exercise ExerciseID, instrument string, pitch int) error {
	return d.clear(ctx, "drop the fingerings", `
		DELETE FROM fingerings WHERE teacher_id = $1 AND exercise_id = $2 AND instrument = $3 AND pitch = $4`,
		exercise, instrument, pitch)
}

// Prefer keeps the fingering wanted for a written note, a MIDI number, wherever an
// instrument plays it; "" leaves it to the usual one again.
func (d *Desk) Prefer(ctx context.Context, instrument string, pitch int, fingering string) error {
	if fingering == "" {
		return d.clear(ctx, "leave the fingering of a note", `
			DELETE FROM preferred WHERE teacher_id = $1 AND instrument = $2 AND pitch = $3`, instrument, pitch)
	}
	return d.change(ctx, "keep the fingering of a note", `
		INSERT INTO preferred (teacher_id, instrument, pitch, fingering) VALUES ($1, $2, $3, $4)
		ON CONFLICT (teacher_id, instrument, pitch) DO UPDATE SET fingering = $4`, instrument, pitch, fingering)
}

// Preferred are the fingerings wanted for an instrument's notes.
func (d *Desk) Preferred(ctx context.Context, instrument string) (finger.Preferred, error) {
	w, err := d.Ways(ctx)
	return w.Preferred[instrument], err
}
