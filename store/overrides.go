package store

import "context"

// Override is a part of an exercise that the teacher wrote or brought in for one
// instrument.
type Override struct {
	Instrument string
	Format     string
	Source     string
	Part       int // which part of the source, from 0
}

// KeepOverride keeps an instrument's own part, in place of an earlier one.
func (s *Store) KeepOverride(ctx context.Context, teacher, exercise int64, o Override) error {
	return s.change(ctx, "keep the part", `
		INSERT INTO overrides (teacher_id, exercise_id, instrument, format, source, part) VALUES ($1, $2, $3, $4, $5, $6)
		ON CONFLICT (exercise_id, instrument) DO UPDATE SET format = $4, source = $5, part = $6 WHERE overrides.teacher_id = $1`,
		teacher, exercise, o.Instrument, o.Format, o.Source, o.Part)
}

// DropOverride links an instrument's part to the exercise's source again.
func (s *Store) DropOverride(ctx context.Context, teacher, exercise int64, instrument string) error {
	return s.change(ctx, "drop the part", `
		DELETE FROM overrides WHERE teacher_id = $1 AND exercise_id = $2 AND instrument = $3`, teacher, exercise, instrument)
}

// Overrides lists an exercise's own parts by instrument.
func (s *Store) Overrides(ctx context.Context, teacher, exercise int64) ([]Override, error) {
	var list []Override
	err := s.all(ctx, &list, "list the parts", `
		SELECT instrument, format, source, part FROM overrides WHERE teacher_id = $1 AND exercise_id = $2 ORDER BY instrument`,
		teacher, exercise)
	return list, err
}

// InstrumentOverrides lists an instrument's own parts by exercise.
func (s *Store) InstrumentOverrides(ctx context.Context, teacher int64, instrument string) (map[int64]*Override, error) {
	var list []struct {
		ExerciseID int64 `db:"exercise_id"`
		Override
	}
	err := s.all(ctx, &list, "list the parts", `
		SELECT exercise_id, instrument, format, source, part FROM overrides WHERE teacher_id = $1 AND instrument = $2`, teacher, instrument)
	own := map[int64]*Override{}
	for i := range list {
		own[list[i].ExerciseID] = &list[i].Override
	}
	return own, err
}
