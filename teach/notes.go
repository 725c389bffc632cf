package teach

import (
	"context"
	"errors"
	"fmt"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// addWhere says on a student's cards where in their chunks it most likely goes wrong.
func addWhere(ctx context.Context, desk *Class, reads PartReader, cards []HelpCard) error {
	for k := range cards {
		if cards[k].WhereLink == "" {
			continue
		}
		var err error
		if cards[k].Most, err = WhereIn(ctx, desk, reads, cards[k].Exercise, cards[k].key, cards[k].cause); err != nil {
			return err
		}
	}
	return nil
}

// WhereIn is where in a chunk of a student's part a stumble of a cause most likely lies; "" for
// what cannot be read.
func WhereIn(ctx context.Context, desk *Class, reads PartReader, x store.Exercise, key breakdown.ChunkKey,
	cause routine.Cause) (string, error) {
	report, err := notesOf(ctx, desk, reads, x)
	if err != nil || report == nil {
		return "", err
	}
	return report.Where(key, cause, reads.Instrument), nil
}

// PartReader is a student as their parts are read for them.
type PartReader struct {
	Student    store.Student
	Class      store.Class
	Instrument instrument.Instrument // as the teacher's students have it
	Settings   Settings
	Notes      map[store.ExerciseID]*breakdown.Report // that were read
}

// NewPartReader reads parts for a student, on their instrument as the teacher's students have
// it.
func NewPartReader(ctx context.Context, desk *Class, student store.Student) (PartReader, error) {
	r := PartReader{Student: student, Notes: map[store.ExerciseID]*breakdown.Report{}}
	var err error
	if r.Settings, err = LoadSettings(ctx, desk); err != nil {
		return r, err
	}
	classes, err := desk.Classes(ctx)
	for _, class := range classes {
		if class.ID == student.ClassID {
			r.Class = class
		}
	}
	target, _ := instrument.ByID(student.Instrument)
	r.Instrument = r.Settings.Instrument(target)
	return r, err
}

// notesOf reads the notes of a student's part of an exercise; nil where it cannot be read.
func notesOf(ctx context.Context, desk *Class, r PartReader, x store.Exercise) (*breakdown.Report, error) {
	if known := r.Notes[x.ID]; known != nil {
		return known, nil
	}
	part, err := desk.Reader.Part(ctx, desk, x, r.Instrument.ID)
	var unread score.Problems
	if errors.As(err, &unread) {
		return nil, nil
	}
	if err != nil {
		return nil, fmt.Errorf("read a student's part: %w", err)
	}
	o := r.Settings.Preferences.Options(r.Class)
	if o.Finger, err = fingerOptions(ctx, desk, Choice{Exercise: x, Class: r.Class,
		Instrument: r.Instrument}); err != nil {
		return nil, err
	}
	if o.Placed, err = desk.Placed(ctx, x, r.Instrument); err != nil {
		return nil, err
	}
	report := breakdown.ReadNotes(part.Score, part.Source, part.WrittenFor, r.Instrument, o)
	r.Notes[x.ID] = &report
	return &report, nil
}
