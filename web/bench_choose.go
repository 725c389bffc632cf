package web

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// choosePeople finds the section and the student at hand and returns the
// section's students.
func (s *Server) choosePeople(ctx context.Context, t int64, v *benchView, ask benchAsk) ([]store.Student, error) {
	var err error
	if v.Sections, err = s.store.Sections(ctx, t); err != nil {
		return nil, err
	}
	if ask.student != 0 {
		if v.Student, err = s.store.StudentByID(ctx, t, ask.student); err != nil {
			return nil, err
		}
		ask.section = v.Student.SectionID
	}
	for i, section := range v.Sections {
		if section.ID == ask.section || ask.section == 0 && i == 0 {
			v.Section = section
		}
	}
	if ask.section != 0 && v.Section.ID != ask.section {
		return nil, fmt.Errorf("choose the section: %w", store.ErrNotFound)
	}
	return s.store.Students(ctx, t, v.Section.ID)
}

func (s *Server) chooseInstrument(r *http.Request, v *benchView, ask benchAsk) {
	wanted := ask.instrument
	if _, ok := instrument.ByID(wanted); !ok {
		wanted = v.firstInstrument(s.sessions.GetString(r.Context(), "instrument"))
	}
	for _, i := range instrument.All() {
		tab := instrumentTab{Instrument: i, Current: i.ID == wanted}
		for _, student := range v.section {
			if student.Instrument == i.ID {
				tab.Students++
			}
		}
		if tab.Current {
			v.Instrument = i
		}
		v.Tabs = append(v.Tabs, tab)
	}
	s.sessions.Put(r.Context(), "instrument", wanted)
}

// firstInstrument is whose part the Bench opens with where none is asked for: the
// student's at hand; in a section the one seen last that somebody plays, else the
// first that is played; with nobody there the one seen last, else the one the
// exercise is written for, else one that reads it as it is entered.
func (v *benchView) firstInstrument(last string) string {
	played := map[string]bool{}
	for _, student := range v.section {
		played[student.Instrument] = true
	}
	if v.Student.ID != 0 || played[last] {
		return cmp.Or(v.Student.Instrument, last)
	}
	for _, i := range instrument.All() {
		if played[i.ID] {
			return i.ID
		}
	}
	for _, id := range []string{last, v.Exercise.WrittenFor} {
		if _, known := instrument.ByID(id); known {
			return id
		}
	}
	return concertReader
}

// concertReader reads what is entered in concert pitch as it is.
const concertReader = "flute"

// metBefore collects the alterations of every letter, and the places on the
// staff, in the book's earlier exercises as this instrument reads them.
func (s *Server) metBefore(ctx context.Context, t int64, x store.Exercise, i instrument.Instrument) (breakdown.Met, []score.Pitch, error) {
	list, err := s.store.Exercises(ctx, t)
	if err != nil {
		return nil, nil, err
	}
	own, err := s.store.InstrumentOverrides(ctx, t, i.ID)
	if err != nil {
		return nil, nil, err
	}
	met, seen := breakdown.Met{}, map[int]bool{}
	var known []score.Pitch
	for _, earlier := range list {
		if earlier.BookID != x.BookID || earlier.Number >= x.Number {
			continue
		}
		_, source, writtenFor, err := partSource(earlier, own[earlier.ID])
		if err != nil {
			continue // the Shelf says that it cannot be read
		}
		if !source.Unpitched() {
			part := instrument.Make(source, writtenFor, i, instrument.Placement{}).Part
			met.Add(part)
			for _, at := range part.Notes() {
				p := part.At(at).Pitch
				if !seen[p.Diatonic()] {
					seen[p.Diatonic()] = true
					known = append(known, p)
				}
			}
		}
	}
	return met, known, nil
}

func choosePiece(v *benchView, wanted string) {
	for _, p := range v.Report.Pieces {
		v.Pieces = append(v.Pieces, benchPiece{Piece: p, Key: progress.SpanOf(p).String()})
	}
	at := max(0, slices.IndexFunc(v.Pieces, func(p benchPiece) bool { return p.Key == wanted }))
	v.Pieces[at].Current = true
	v.Piece = v.Pieces[at]
}

// addProgress reads the section's log on this exercise, anew after a mark.
func (s *Server) addProgress(ctx context.Context, t int64, v *benchView) error {
	log, err := s.store.ExerciseAttempts(ctx, t, v.Exercise.ID, v.Section.ID)
	if err != nil {
		return err
	}
	v.Students, v.Log = nil, nil
	standings := progress.Read(tries(log))
	for _, student := range v.section {
		standing := standings[progress.Task{Student: student.ID, Exercise: v.Exercise.ID}]
		if student.Instrument == v.Instrument.ID {
			v.Students = append(v.Students, benchStudent{student, student.ID == v.Student.ID, standing.State(progress.SpanOf(v.Piece.Piece))})
		}
		if student.ID != v.Student.ID {
			continue
		}
		for i := range v.Pieces {
			v.Pieces[i].State = standing.State(progress.SpanOf(v.Pieces[i].Piece))
		}
		v.State = standing.State(progress.SpanOf(v.Piece.Piece))
		v.Piece.State = v.State
	}
	const shown = 4
	for i := len(log) - 1; i >= 0 && len(v.Log) < shown; i-- {
		if log[i].StudentID == v.Student.ID {
			v.Log = append(v.Log, newTryView(log[i]))
		}
	}
	return nil
}

// tries turns rows of the log into what progress reads.
func tries(log []store.Attempt) []progress.Try {
	list := make([]progress.Try, len(log))
	for i, a := range log {
		list[i] = progress.Try{
			Student: a.StudentID, Exercise: a.ExerciseID,
			Piece: progress.Span{First: a.FirstMeasure, Last: a.LastMeasure},
			Try:   a.Try(),
		}
	}
	return list
}

// chooseStage takes the stage that was asked for, or the one the student is at.
func (v *benchView) chooseStage(asked string) {
	v.Stage = min(v.State.Stage, routine.Play)
	for _, stage := range routine.Stages() {
		if slug(stage) == asked {
			v.Stage = stage
		}
	}
}
