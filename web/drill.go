package web

import (
	"errors"
	"fmt"
	"net/http"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// openDrill puts the hardest changes in place of the exercise, each a piece, fingered
// as they are there.
func (v *benchView) openDrill() {
	music, pieces := v.Report.DrillScore(v.Drills)
	v.Options.Finger.Preferred, v.Options.Finger.Placed, v.Options.Finger.Plain = v.drillFingerings(), nil, true
	v.Options.Placed.Chosen = false
	v.Report = breakdown.Read(music, music.Parts[0], v.Instrument.ID, v.Instrument, nil, v.Options)
	v.Report.Pieces, v.InDrill, v.Octaves, v.Remarks, v.tempoWords = pieces, true, nil, nil, ""
	v.Student = store.Student{}
}

// drillFingerings are the ways of the drilled notes in the exercise.
func (v *benchView) drillFingerings() finger.Preferred {
	ways := finger.Preferred{}
	for midi, text := range v.Options.Finger.Preferred {
		ways[midi] = text
	}
	for _, d := range v.Drills {
		ways[d.From.Pitch.MIDI()], ways[d.To.Pitch.MIDI()] = d.From.Text, d.To.Text
	}
	return ways
}

// atDrillTempo starts the piece at hand where its drill says, unless a tempo was
// asked for.
func (v *benchView) atDrillTempo(asked int) {
	for k, p := range v.Pieces {
		if v.InDrill && asked == 0 && p.Current {
			v.Tempo = v.Drills[k].Tempo
		}
	}
}

// keepDrill makes the drill of an exercise an exercise of the same book, with the
// next number that is free.
func (s *Server) keepDrill(w http.ResponseWriter, r *http.Request) {
	ask := askOf(r)
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
	list, err := s.store.Exercises(r.Context(), teacher(r).ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	number := 0
	for _, x := range list {
		if x.BookID == v.Exercise.BookID {
			number = max(number, x.Number)
		}
	}
	title := fmt.Sprintf("Hard changes of %d, %s", v.Exercise.Number, v.Instrument.Name)
	music := score.Score{Title: title, Parts: []score.Part{v.Report.Part}}
	id, err := s.store.AddExercise(r.Context(), teacher(r).ID, store.Exercise{
		Book: v.Exercise.Book, Number: number + 1, Title: title, Format: "abc", Source: abc.Write(music), WrittenFor: v.Instrument.ID,
	})
	if errors.Is(err, store.ErrTaken) {
		err = fmt.Errorf("number %d was taken meanwhile: %w", number+1, err)
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, fmt.Sprintf("The drill is exercise %d of %s now, with stages and marks of its own.", number+1, v.Exercise.Book))
	http.Redirect(w, r, fmt.Sprintf("/bench/%d?instrument=%s", id, v.Instrument.ID), http.StatusSeeOther)
}
