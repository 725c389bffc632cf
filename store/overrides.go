package store

import "context"

// Override is a part of an exercise that the teacher wrote or brought in for one
// instrument.
type Override struct {
	Instrument string
	Hash       string // of its source
	Part       int    // which part of the source, from 0
}

// OwnPart is an override with its source, to be kept.
type OwnPart struct {
	Instrument string
	Source     Source
	Part       int // which part of the source, from 0
}

// SaveOverrides keeps instruments' own parts, in place of earlier ones, all or none.
func (d *Desk) SaveOverrides(ctx context.Context, exercise ExerciseID, parts ...OwnPart) error {
	return d.inTransaction(ctx, "keep the part", func(tx deskTx) error {
		if err := tx.revise(ctx, exercise); err != nil {
			return err
		}
		for _, p := range parts {
			hash, err := tx.saveSource(ctx, p.Source)
			if err != nil {
				return err
			}
			if err := tx.change(ctx, `
				INSERT INTO overrides (teacher_id, exercise_id, instrument, hash, part) VALUES ($1, $2, $3, $4, $5)
				ON CONFLICT (exercise_id, instrument) DO UPDATE SET hash = $4, part = $5`,
				exercise, p.Instrument, hash, p.Part); err != nil {
				return err
			}
		}
		return tx.deleteUnusedSources(ctx)
	})
}

// DeleteOverride links an instrument's part to the exercise's source again.
func (d *Desk) DeleteOverride(ctx context.Context, exercise ExerciseID, instrument string) error {
	return d.inTransaction(ctx, "drop the part", func(tx deskTx) error {
		if err := tx.revise(ctx, exercise); err != nil {
			return err
		}
		if err := tx.change(ctx, `
			DELETE FROM overrides WHERE teacher_id = $1 AND exercise_id = $2 AND instrument = $3`, exercise,
			instrument); err != nil {
			return err
		}
		return tx.deleteUnusedSources(ctx)
	})
}

// revise counts a change to an exercise, which makes others wait for this one.
func (tx deskTx) revise(ctx context.Context, exercise ExerciseID) error {
	return tx.change(ctx, `UPDATE exercises SET revision = revision + 1 WHERE teacher_id = $1 AND id = $2`, exercise)
}
