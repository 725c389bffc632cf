package teach

import (
	"context"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/card"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// The settings of reading cards.
const (
	AskedSetting    = "cards-ask"
	NewCardsSetting = "cards-new"
)

// usualKinds are asked where nothing is chosen: a place is shown beside the name.
var usualKinds = []card.Kind{card.Name, card.Finger, card.Rhythm, card.Key, card.Interval, card.Change}

// Cards is what the rounds of the teacher's students are made of.
func (p Preferences) Cards() card.Wanted {
	w := card.Wanted{New: card.UsualNew, Short: card.RoundTakes}
	for _, word := range strings.Fields(p.Asked) {
		if kind, known := card.ParseKind(word); known && !slices.Contains(w.Kinds, kind) {
			w.Kinds = append(w.Kinds, kind)
		}
	}
	if len(w.Kinds) == 0 {
		w.Kinds = slices.Clone(usualKinds)
	}
	if n, err := strconv.Atoi(p.NewCards); err == nil {
		w.New = max(0, min(n, card.MostNew))
	}
	return w
}

// classLooked is how many exercises a class's notes are taken from, those it works on now; the
// figure is ours.
const classLooked = 8

// ClassExercises are those that a class has worked on, in the order of its books, the last
// ones.
func ClassExercises(ctx context.Context, desk *Class, class store.ClassID) ([]store.Exercise, error) {
	ids, err := desk.Worked(ctx, class, 0)
	if err != nil {
		return nil, err
	}
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return nil, err
	}
	worked := slices.DeleteFunc(slices.Clone(exercises), func(x store.Exercise) bool {
		return x.Unread != "" ||
			!slices.Contains(ids, x.ID)
	})
	slices.Reverse(worked)
	return worked[:min(len(worked), classLooked)], nil
}

// ClassMet are the notes an instrument has in some exercises, by the concert note they sound,
// of each the one in the octave nearest to where a line sits well.
func ClassMet(ctx context.Context, desk *Class, reads PartReader,
	worked []store.Exercise) (map[instrument.PitchClass]score.Pitch, error) {
	met := map[instrument.PitchClass]score.Pitch{}
	far := func(p score.Pitch) int {
		away := p.MIDI() - reads.Instrument.OneNote.MIDI()
		return max(away, -away)
	}
	for _, x := range worked {
		report, err := notesOf(ctx, desk, reads, x)
		if err != nil {
			return nil, err
		}
		if report == nil {
			continue
		}
		for _, at := range report.Part.Notes() {
			e := report.Part.At(at)
			if e.Unpitched {
				continue
			}
			concert := e.Pitch.Transpose(reads.Instrument.Transposition)
			class := instrument.PitchClass{Step: concert.Step, Alter: concert.Alter}
			if before, known := met[class]; !known || far(e.Pitch) < far(before) {
				met[class] = e.Pitch
			}
		}
	}
	return met, nil
}
