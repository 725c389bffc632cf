package store

import (
	"context"

	"unhurriedbench/core/instrument"
)

// SaveOctaveChoice keeps the octave chosen for an instrument's part, and what becomes of notes
// beyond the instrument; the zero value leaves both to the program again.
func (d *Desk) SaveOctaveChoice(ctx context.Context, exercise ExerciseID, id string, p instrument.OctaveChoice) error {
	if p == (instrument.OctaveChoice{}) {
		return d.clear(ctx, "drop the octave", `
			DELETE FROM octave_choices WHERE teacher_id = $1 AND exercise_id = $2 AND instrument = $3`, exercise, id)
	}
	var octaves *int
	if p.Chosen {
		octaves = &p.Octaves
	}
	return d.change(ctx, "keep the octave", `
		INSERT INTO octave_choices (teacher_id, exercise_id, instrument, octaves, folded)
		SELECT $1, id, $3, $4, $5 FROM exercises WHERE teacher_id = $1 AND id = $2
		ON CONFLICT (exercise_id, instrument) DO UPDATE SET octaves = $4, folded = $5`, exercise, id, octaves, p.Folded)
}
