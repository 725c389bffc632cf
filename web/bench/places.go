package bench

import (
	"fmt"
	"net/http"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
	"unhurriedbench/web/site"
)

// saveFingering takes a way for a note: at its place in this exercise, or wherever
// this teacher's students meet the note. The Bench shows it at once.
func (s *handlers) saveFingering(w http.ResponseWriter, r *http.Request) error {
	ctx, desk, ask := r.Context(), site.ClassOf(r), askOf(r)
	v, err := loadBench(ctx, desk, ask)
	if err != nil {
		return err
	}
	desired, at := site.Text(r, "fingering"), score.Place{Measure: int(site.Number(r, "measure")),
		Event: int(site.Number(r, "event"))}
	if !v.Report.Holds(at) || v.Report.Measures[at.Measure].Events[at.Event].Kind != "note" {
		http.Error(w, "That note is not there any more. Open the exercise again.", http.StatusUnprocessableEntity)
		return nil
	}
	pitch, played := v.Report.Part.At(at).Pitch, v.Report.Measures[at.Measure].Events[at.Event].Played
	if played.Usual == "" && desired != "" { // none is listed, and the teacher writes one
		own, ok := finger.Written(v.Instrument, pitch, desired)
		if !ok {
			http.Error(w, fmt.Sprintf("“%s” is no fingering of %s on the %s. The fingering chart shows how they are written.",
				desired, name.Spoken(pitch, false), v.Instrument.Name), http.StatusUnprocessableEntity)
			return nil
		}
		desired = own.Text
	} else if played.Usual != "" && !played.Has(desired) {
		http.Error(w, "That is no fingering of this note any more. Open the exercise again.", http.StatusUnprocessableEntity)
		return nil
	}
	if site.Text(r, "scope") == "here" && desired != "" {
		err = desk.SaveFingering(ctx, v.Exercise.ID, v.Instrument.ID, at, finger.Spot{Pitch: pitch.MIDI(), Text: desired})
	} else {
		err = desk.Prefer(ctx, v.Instrument.ID, pitch.MIDI(), desired)
		if err == nil { // what was chosen for places of this exercise gives way
			err = desk.DeleteFingerings(ctx, v.Exercise.ID, v.Instrument.ID, pitch.MIDI())
		}
	}
	if err == nil && site.IsHTMX(r) {
		v, err = loadBench(ctx, desk, ask)
	}
	if err != nil {
		return err
	}
	if site.IsHTMX(r) {
		v.Swapped = true
		s.Fragment(w, "bench", "bench", v)
		return nil
	}
	http.Redirect(w, r, v.Here(), http.StatusSeeOther)
	return nil
}
