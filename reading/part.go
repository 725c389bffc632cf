package reading

import (
	"context"
	"fmt"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// Desk is what is read of a teacher's exercises.
type Desk interface {
	ExerciseByID(ctx context.Context, id store.ExerciseID) (store.Exercise, error)
	Exercises(ctx context.Context) ([]store.Exercise, error)
	Overrides(ctx context.Context, exercise store.ExerciseID) ([]store.Override, error)
	OctaveChoice(ctx context.Context, exercise store.ExerciseID, instrument string) (instrument.OctaveChoice, error)
	Source(ctx context.Context, hash string) (store.Source, error)
	SaveReading(ctx context.Context, id store.ExerciseID, revision int, r store.Reading) error
}

// Part is what an instrument's part of an exercise is made from.
type Part struct {
	Score      score.Score // the file it stands in
	Source     score.Part
	WrittenFor string // the id of the instrument that the source is written for, "" for none
	Own        bool   // it is the instrument's own part, not made from the exercise's source
}

// Part finds what an instrument's part of an exercise is made from: its own part
// where it has one, else the exercise's source. The error is a score.Problems where
// that cannot be read.
func (r *Reader) Part(ctx context.Context, d Desk, x store.Exercise, id string) (Part, error) {
	own, err := d.Overrides(ctx, x.ID)
	if err != nil {
		return Part{}, err
	}
	return r.partOf(ctx, d, x, own, id)
}

func (r *Reader) partOf(ctx context.Context, d Desk, x store.Exercise, own []store.Override, id string) (Part, error) {
	for _, o := range own {
		if o.Instrument != id {
			continue
		}
		sc, err := r.score(ctx, d, o.Hash)
		if err != nil {
			return Part{}, fmt.Errorf("read the own part of exercise %d: %w", x.ID, err)
		}
		return Part{sc, Choose(sc.Parts, o.Part), o.Instrument, true}, nil
	}
	sc, err := r.score(ctx, d, x.Hash)
	if err != nil {
		return Part{}, fmt.Errorf("read exercise %d: %w", x.ID, err)
	}
	return SourceOf(x, sc), nil
}

// Choose is the part at an index, or the last where there are fewer.
func Choose(parts []score.Part, at int) score.Part { return parts[min(at, len(parts)-1)] }

// SourceOf is the part of a score that others are made from, sounding as the
// exercise says it is written.
func SourceOf(x store.Exercise, sc score.Score) Part {
	p := Part{Score: sc, Source: Choose(sc.Parts, x.Part)}
	if x.WrittenFor == Concert {
		p.Source.Transposition = score.Interval{}
	}
	if i, ok := instrument.ByID(x.WrittenFor); ok {
		p.Source.Transposition, p.WrittenFor = i.Transposition, i.ID
	}
	return p
}

// SourcePart is the part that others of an exercise are made from.
func (r *Reader) SourcePart(ctx context.Context, d Desk, x store.Exercise) (score.Part, error) {
	p, err := r.partOf(ctx, d, x, nil, "")
	return p.Source, err
}

// Concert is what an exercise is written for when it is in concert pitch.
const Concert = "concert"

// FileParts lists the parts of an exercise's source.
func (r *Reader) FileParts(ctx context.Context, d Desk, x store.Exercise) ([]score.Part, error) {
	sc, err := r.score(ctx, d, x.Hash)
	return sc.Parts, err
}

// OwnPart is the part an instrument has of its own.
func (r *Reader) OwnPart(ctx context.Context, d Desk, o store.Override) (score.Part, error) {
	sc, err := r.score(ctx, d, o.Hash)
	if err != nil {
		return score.Part{}, err
	}
	return Choose(sc.Parts, o.Part), nil
}
