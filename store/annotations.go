package store

import (
	"context"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/score"
)

// MostAnnotations is the most marks an instrument's part of an exercise takes.
const MostAnnotations = 500

// SaveAnnotation writes a mark over a note of an instrument's part, in place of those that
// cannot stand beside it. The error is ErrTaken where the part is full.
func (d *Desk) SaveAnnotation(ctx context.Context, exercise ExerciseID, instrument string, at score.Place,
	p breakdown.Annotation) error {
	return d.SaveAnnotations(ctx, exercise, instrument, map[score.Place]breakdown.Annotation{at: p})
}

// SaveAnnotations keeps a mark at each of some notes, all or none.
func (d *Desk) SaveAnnotations(ctx context.Context, exercise ExerciseID, instrument string,
	marks map[score.Place]breakdown.Annotation) error {
	return d.inTransaction(ctx, "keep the mark", func(tx deskTx) error {
		for at, p := range marks {
			if err := tx.saveAnnotation(ctx, exercise, instrument, at, p); err != nil {
				return err
			}
		}
		return nil
	})
}

func (tx deskTx) saveAnnotation(ctx context.Context, exercise ExerciseID, instrument string, at score.Place,
	p breakdown.Annotation) error {
	var n int
	if err := tx.one(ctx, &n, `SELECT count(*) FROM annotations WHERE teacher_id = $1 AND exercise_id = $2
			AND instrument = $3`, exercise, instrument); err != nil {
		return err
	}
	if n >= MostAnnotations {
		return ErrTaken
	}
	for _, kind := range breakdown.AnnotationKinds() {
		if !p.Against(breakdown.Annotation{Kind: kind}) {
			continue
		}
		if err := tx.clear(ctx, `
				DELETE FROM annotations WHERE teacher_id = $1 AND exercise_id = $2 AND instrument = $3 AND measure = $4
					AND event = $5 AND kind = $6`,
			exercise, instrument, at.Measure, at.Event, kind); err != nil {
			return err
		}
	}
	return tx.change(ctx, `
			INSERT INTO annotations (teacher_id, exercise_id, instrument, measure, event, pitch, kind, word)
			SELECT $1, id, $3, $4, $5, $6, $7, $8 FROM exercises WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL
			ON CONFLICT (exercise_id, instrument, measure, event, kind, word) DO UPDATE SET pitch = $6`,
		exercise, instrument, at.Measure, at.Event, p.Pitch, p.Kind, p.Word)
}

// DeleteAnnotation rubs a mark out.
func (d *Desk) DeleteAnnotation(ctx context.Context, exercise ExerciseID, instrument string, at score.Place,
	p breakdown.Annotation) error {
	return d.change(ctx, "rub the mark out", `
		DELETE FROM annotations WHERE teacher_id = $1 AND exercise_id = $2 AND instrument = $3 AND measure = $4
			AND event = $5 AND kind = $6 AND word = $7`,
		exercise, instrument, at.Measure, at.Event, p.Kind, p.Word)
}

// DeleteAnnotations rubs a mark out at each of some notes that has it. The error is ErrNotFound
// where the exercise is not there.
func (d *Desk) DeleteAnnotations(ctx context.Context, exercise ExerciseID, instrument string,
	marks map[score.Place]breakdown.Annotation) error {
	return d.inTransaction(ctx, "rub the mark out", func(tx deskTx) error {
		var there int
		if err := tx.one(ctx, &there, `SELECT count(*) FROM exercises WHERE teacher_id = $1 AND id = $2`, exercise); err != nil {
			return err
		}
		if there == 0 {
			return ErrNotFound
		}
		for at, p := range marks {
			if err := tx.clear(ctx, `
				DELETE FROM annotations WHERE teacher_id = $1 AND exercise_id = $2 AND instrument = $3 AND measure = $4
					AND event = $5 AND kind = $6 AND word = $7`,
				exercise, instrument, at.Measure, at.Event, p.Kind, p.Word); err != nil {
				return err
			}
		}
		return nil
	})
}
