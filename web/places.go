package web

import (
	"fmt"
	"net/http"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// keepFingering takes a way for a note: at its place in this exercise, or wherever
// this teacher's students meet the note. The Bench shows it at once.
func (s *Server) keepFingering(w http.ResponseWriter, r *http.Request) {
	ctx, desk, ask := r.Context(), deskOf(r), askOf(r)
	v, err := loadBench(ctx, desk, ask)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	wanted, at := text(r, "fingering"), score.Place{Measure: int(number(r, "measure")), Event: int(number(r, "event"))}
	if !v.Report.Holds(at) || v.Report.Measures[at.Measure].Events[at.Event].Kind != "note" {
		http.Error(w, "That note is not there any more. Open the exercise again.", http.StatusUnprocessableEntity)
		return
	}
	pitch, played := v.Report.Part.At(at).Pitch, v.Report.Measures[at.Measure].Events[at.Event].Played
	if played.Usual == "" && wanted != "" { // none is listed, and the teacher writes one
		own, ok := finger.Written(v.Instrument, pitch, wanted)
		if !ok {
			http.Error(w, fmt.Sprintf("“%s” is no fingering of %s on the %s. The fingering chart shows how they are written.",
				wanted, name.Spoken(pitch, false), v.Instrument.Name), http.StatusUnprocessableEntity)
			return
		}
		wanted = own.Text
	} else if played.Usual != "" && !played.Has(wanted) {
		http.Error(w, "That is no fingering of this note any more. Open the exercise again.", http.StatusUnprocessableEntity)
		return
	}
	if text(r, "scope") == "here" && wanted != "" {
		err = desk.KeepFingering(ctx, v.Exercise.ID, v.Instrument.ID, at, finger.Spot{Pitch: pitch.MIDI(), Text: wanted})
	} else {
		err = desk.Prefer(ctx, v.Instrument.ID, pitch.MIDI(), wanted)
		if err == nil { // what was chosen for places of this exercise gives way
			err = desk.DropFingerings(ctx, v.Exercise.ID, v.Instrument.ID, pitch.MIDI())
		}
	}
	if err == nil && isHTMX(r) {
		v, err = loadBench(ctx, desk, ask)
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if isHTMX(r) {
		v.Swapped = true
		s.fragment(w, "bench", "bench", v)
		return
	}
	http.Redirect(w, r, v.Here(), http.StatusSeeOther)
}
