package reading

import (
	"context"
	"crypto/sha256"
	"errors"
	"fmt"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// OctaveChoice is the octave that an exercise has for an instrument: the one its teacher chose,
// or else beside the other lines of its book, which are among all exercises.
func (r *Reader) OctaveChoice(ctx context.Context, d Desk, x store.Exercise, target instrument.Instrument,
	all []store.Exercise) (instrument.OctaveChoice, error) {
	placed, err := d.OctaveChoice(ctx, x.ID, target.ID)
	if err != nil || placed.Chosen || target.Unpitched() {
		return placed, err
	}
	placed.Beside, err = r.beside(ctx, d, x, target, all)
	return placed, err
}

// mostBooks bounds how many books' octaves are kept, each for one instrument.
const mostBooks = 2000

// beside is the octave that an exercise's book has it in; nil where it is not in it.
func (r *Reader) beside(ctx context.Context, d Desk, x store.Exercise, target instrument.Instrument,
	all []store.Exercise) (*int, error) {
	var book []store.Exercise
	sum, at := sha256.New(), -1
	fmt.Fprintf(sum, "%s %s %s\n", target.ID, target.Lowest, target.Highest)
	for _, other := range all {
		if other.BookID != x.BookID {
			continue
		}
		if other.ID == x.ID {
			at = len(book)
		}
		book = append(book, other)
		fmt.Fprintf(sum, "%s %d %s\n", other.Hash, other.Part, other.WrittenFor)
	}
	if at < 0 {
		return nil, nil
	}
	key := string(sum.Sum(nil))
	octaves, known := r.findBook(key)
	if !known {
		lines := make([]instrument.BookLine, len(book))
		for n, other := range book {
			sc, err := r.score(ctx, d, other.Hash)
			var unread score.Problems
			if errors.As(err, &unread) { // it cannot be read any more, and has no octave
				continue
			}
			if err != nil {
				return nil, fmt.Errorf("read the book of exercise %d: %w", x.ID, err)
			}
			part := SourceOf(other, sc)
			lines[n] = instrument.BookLine{Source: part.Source, WrittenFor: part.WrittenFor}
		}
		octaves = instrument.InBook(lines, target)
		r.saveBook(key, octaves)
	}
	return &octaves[at], nil
}

func (r *Reader) findBook(key string) ([]int, bool) {
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.books.Get(key)
}

func (r *Reader) saveBook(key string, octaves []int) {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.books.Add(key, octaves)
}
