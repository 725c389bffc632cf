package web

import (
	"errors"
	"fmt"
	"net/http"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/format"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// openDrill puts the hardest changes in place of the exercise, each a piece, fingered
// as they are there.
func (x *explained) openDrill(c *choice) {
	music, pieces := x.Report.DrillScore(x.Drills)
	x.Options.Finger.Preferred, x.Options.Finger.Placed, x.Options.Finger.Plain = x.drillFingerings(), nil, true
	x.Options.Placed.Chosen = false
	x.Report = breakdown.Read(music, music.Parts[0], c.Instrument.ID, c.Instrument, nil, x.Options)
	x.Report.Pieces, x.InDrill, x.Octaves, x.Remarks, x.tempoWords = pieces, true, nil, nil, ""
	c.Keys = nil
	for _, p := range pieces {
		c.Keys = append(c.Keys, p.Key())
	}
	c.choosePiece(c.ask.piece)
}

// drillFingerings are the ways of the drilled notes in the exercise.
func (x *explained) drillFingerings() finger.Preferred {
	ways := finger.Preferred{}
	for midi, text := range x.Options.Finger.Preferred {
		ways[midi] = text
	}
	for _, d := range x.Drills {
		ways[d.From.Pitch.MIDI()], ways[d.To.Pitch.MIDI()] = d.From.Text, d.To.Text
	}
	return ways
}

// keepDrill makes the drill of an exercise an exercise of the same book, with the
// next number that is free.
func (s *Server) keepDrill(w http.ResponseWriter, r *http.Request) {
	ctx, desk, ask := r.Context(), deskOf(r), askOf(r)
	ask.drill = true
	v, err := s.benchView(r, ask)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if !v.InDrill {
		s.flash(r, "There is no change here that is worth a drill.")
		http.Redirect(w, r, v.Link("piece", ""), http.StatusSeeOther)
		return
	}
	number, err := desk.NextNumber(ctx, v.Exercise.BookID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	title := fmt.Sprintf("Hard changes of %d, %s", v.Exercise.Number, v.Instrument.Name)
	music := score.Score{Title: title, Parts: []score.Part{v.Report.Part}}
	id, err := desk.AddExercise(ctx, store.Exercise{Book: v.Exercise.Book, Number: number, Title: title, WrittenFor: v.Instrument.ID},
		store.Source{Format: format.ABC, Content: abc.Write(music)})
	if errors.Is(err, store.ErrTaken) {
		err = fmt.Errorf("number %d was taken meanwhile: %w", number, err)
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, fmt.Sprintf("The drill is exercise %d of %s now, with stages and marks of its own.", number, v.Exercise.Book))
	http.Redirect(w, r, fmt.Sprintf("/bench/%d?instrument=%s", id, v.Instrument.ID), http.StatusSeeOther)
}
