package web

import (
	"context"
	"errors"
	"fmt"
	"html/template"
	"io"
	"net/http"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// where answers at which measure of a piece, and at what, a student who is stuck on it most
// likely goes wrong. A Board asks for it once it stands.
func (s *Server) where(w http.ResponseWriter, r *http.Request) {
	ctx, desk := r.Context(), deskOf(r)
	student, err := desk.StudentByID(ctx, store.StudentID(number(r, "student")))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	x, err := desk.Exercise(ctx, store.ExerciseID(number(r, "exercise")))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	standings, err := desk.StudentStandings(ctx, student.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	key, is := breakdown.ParsePieceKey(text(r, "piece"))
	words := ""
	if at := standings[store.Task{Student: student.ID, Exercise: x.ID}]; is && at != nil && at.Pieces[key].Stuck() {
		reads, err := readerFor(ctx, desk, student)
		if err == nil {
			words, err = whereIn(ctx, desk, reads, x, key, at.Pieces[key].Over.Main())
		}
		if err != nil {
			s.failed(w, r, err)
			return
		}
	}
	w.Header().Set("Content-Type", "text/html; charset=utf-8")
	_, _ = io.WriteString(w, template.HTMLEscapeString(words)) // the reader has gone when this fails
}

// addWhere says on a student's cards where in their pieces it most likely goes wrong.
func addWhere(ctx context.Context, desk *teach.Class, reads aReader, cards []helpCard) error {
	for k := range cards {
		if cards[k].WhereLink == "" {
			continue
		}
		var err error
		if cards[k].Where, err = whereIn(ctx, desk, reads, cards[k].Exercise, cards[k].key, cards[k].cause); err != nil {
			return err
		}
	}
	return nil
}

// whereIn is where in a piece of a student's part a stumble of a cause most likely lies; "" for
// what cannot be read.
func whereIn(ctx context.Context, desk *teach.Class, reads aReader, x store.Exercise, key breakdown.PieceKey, cause routine.Cause) (string, error) {
	report, err := notesOf(ctx, desk, reads, x)
	if err != nil || report == nil {
		return "", err
	}
	return report.Where(key, cause, reads.Instrument), nil
}

// aReader is a student as their parts are read for them.
type aReader struct {
	Student    store.Student
	Section    store.Section
	Instrument instrument.Instrument // as the teacher's students have it
	kept       taughtBy
	notes      map[store.ExerciseID]*breakdown.Report // that were read
}

func readerFor(ctx context.Context, desk *teach.Class, student store.Student) (aReader, error) {
	r := aReader{Student: student, notes: map[store.ExerciseID]*breakdown.Report{}}
	var err error
	if r.kept, err = taught(ctx, desk); err != nil {
		return r, err
	}
	sections, err := desk.Sections(ctx)
	for _, section := range sections {
		if section.ID == student.SectionID {
			r.Section = section
		}
	}
	target, _ := instrument.ByID(student.Instrument)
	r.Instrument = r.kept.instrument(target)
	return r, err
}

// notesOf reads the notes of a student's part of an exercise; nil where it cannot be read.
func notesOf(ctx context.Context, desk *teach.Class, r aReader, x store.Exercise) (*breakdown.Report, error) {
	if known := r.notes[x.ID]; known != nil {
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
	o := r.kept.Preferences.options(r.Section)
	if o.Finger, err = fingerOptions(ctx, desk, choice{Exercise: x, Section: r.Section, Instrument: r.Instrument}); err != nil {
		return nil, err
	}
	if o.Placed, err = desk.Placed(ctx, x, r.Instrument); err != nil {
		return nil, err
	}
	report := breakdown.ReadNotes(part.Score, part.Source, part.WrittenFor, r.Instrument, o)
	r.notes[x.ID] = &report
	return &report, nil
}
