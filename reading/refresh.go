package reading

import (
	"context"
	"errors"
	"fmt"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// Exercise finds an exercise, read by the rules in force.
func (r *Reader) Exercise(ctx context.Context, d Desk, id store.ExerciseID) (store.Exercise, error) {
	x, err := d.ExerciseByID(ctx, id)
	if err != nil || x.Read {
		return x, err
	}
	if err := r.Refresh(ctx, d, x); err != nil {
		return x, err
	}
	return d.ExerciseByID(ctx, id)
}

// Exercises lists all exercises by book and number, read by the rules in force.
func (r *Reader) Exercises(ctx context.Context, d Desk) ([]store.Exercise, error) {
	list, err := d.Exercises(ctx)
	if err != nil {
		return nil, err
	}
	refreshed, err := r.refresh(ctx, d, list, false)
	if err != nil || refreshed == 0 {
		return list, err
	}
	return d.Exercises(ctx)
}

// refresh reads again what has changed since it was read, or everything.
func (r *Reader) refresh(ctx context.Context, d Desk, list []store.Exercise, everything bool) (int, error) {
	n := 0
	for _, x := range list {
		if x.Read && !everything {
			continue
		}
		if err := r.Refresh(ctx, d, x); err != nil {
			return n, err
		}
		n++
	}
	return n, nil
}

// Refresh reads an exercise and keeps what pages need of it.
func (r *Reader) Refresh(ctx context.Context, d Desk, x store.Exercise) error {
	own, err := d.Overrides(ctx, x.ID)
	if err != nil {
		return err
	}
	saved := store.Reading{Outlines: map[string]breakdown.Outline{}, Demands: map[string]breakdown.Demands{}}
	source, err := r.partOf(ctx, d, x, nil, "")
	switch problem := (score.Problems{}); {
	case errors.As(err, &problem):
		saved.Unread = problem.Error()
	case err != nil:
		return err
	default:
		saved.FileParts = len(source.Score.Parts)
		saved.Outlines[""] = breakdown.OutlineOf(source.Source)
	}
	for _, i := range instrument.All() {
		part, err := r.partOf(ctx, d, x, own, i.ID)
		if err != nil {
			continue // the Bench says why, for whom it is opened
		}
		if part.Own {
			saved.Outlines[i.ID] = breakdown.OutlineOf(part.Source)
		}
		saved.Demands[i.ID] = breakdown.DemandsOf(part.Score, part.Source, part.WrittenFor, i)
	}
	return d.SaveReading(ctx, x.ID, x.Revision, saved)
}

// RefreshAll reads the exercises of every teacher again: those that have changed
// since, or were read by other rules, or all of them. It says how many.
func (r *Reader) RefreshAll(ctx context.Context, s *store.Store, everything bool) (int, error) {
	teachers, err := s.Teachers(ctx)
	if err != nil {
		return 0, err
	}
	n := 0
	for _, t := range teachers {
		list, err := s.For(t).Exercises(ctx)
		if err != nil {
			return n, err
		}
		refreshed, err := r.refresh(ctx, s.For(t), list, everything)
		n += refreshed
		if err != nil {
			return n, fmt.Errorf("read the exercises again: %w", err)
		}
	}
	return n, nil
}
