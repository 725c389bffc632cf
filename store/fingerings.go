package store

import (
	"context"
	"errors"
)

// Fingering is what a teacher chose for one place of an instrument's part: the event
// of a measure, both counted from 0, and the written pitch it was chosen for.
type Fingering struct {
	Measure   int
	Event     int
	Pitch     int
	Fingering string
}

// KeepFingering keeps the fingering chosen for one place, in place of an earlier one.
func (s *Store) KeepFingering(ctx context.Context, teacher, exercise int64, instrument string, f Fingering) error {
	return s.change(ctx, "keep the fingering", `
		INSERT INTO fingerings (teacher_id, exercise_id, instrument, measure, event, pitch, fingering) VALUES ($1, $2, $3, $4, $5, $6, $7)
		ON CONFLICT (exercise_id, instrument, measure, event) DO UPDATE SET pitch = $6, fingering = $7 WHERE fingerings.teacher_id = $1`,
		teacher, exercise, instrument, f.Measure, f.Event, f.Pitch, f.Fingering)
}

// DropFingerings leaves every place of a pitch in an instrument's part to the teacher's
// choice for the note again.
func (s *Store) DropFingerings(ctx context.Context, teacher, exercise int64, instrument string, pitch int) error {
	err := s.change(ctx, "drop the fingerings", `
		DELETE FROM fingerings WHERE teacher_id = $1 AND exercise_id = $2 AND instrument = $3 AND pitch = $4`, teacher, exercise, instrument, pitch)
	if errors.Is(err, ErrNotFound) {
		return nil // none was chosen
	}
	return err
}

// Fingerings lists what was chosen in an instrument's part of an exercise.
func (s *Store) Fingerings(ctx context.Context, teacher, exercise int64, instrument string) ([]Fingering, error) {
	var list []Fingering
	err := s.all(ctx, &list, "list the fingerings", `
		SELECT measure, event, pitch, fingering FROM fingerings
		WHERE teacher_id = $1 AND exercise_id = $2 AND instrument = $3 ORDER BY measure, event`, teacher, exercise, instrument)
	return list, err
}
