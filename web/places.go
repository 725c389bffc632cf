package web

import (
	"context"
	"fmt"
	"net/http"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// placedFingerings are the teacher's choices for single places of an instrument's part.
func (s *Server) placedFingerings(ctx context.Context, t, exercise int64, id string) (map[score.Place]finger.Spot, error) {
	list, err := s.store.Fingerings(ctx, t, exercise, id)
	if err != nil {
		return nil, err
	}
	placed := map[score.Place]finger.Spot{}
	for _, f := range list {
		placed[score.Place{Measure: f.Measure, Event: f.Event}] = finger.Spot{Pitch: f.Pitch, Text: f.Fingering}
	}
	return placed, nil
}

// keepFingering takes a way for a note: at its place in this exercise, or wherever
// this teacher's students meet the note. The Bench shows it at once.
func (s *Server) keepFingering(w http.ResponseWriter, r *http.Request) {
	ctx, t, ask := r.Context(), teacher(r).ID, askOf(r)
	v, err := s.benchView(r, ask)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	wanted, at := text(r, "fingering"), score.Place{Measure: int(number(r, "measure")), Event: int(number(r, "event"))}
	if at.Measure < 0 || at.Measure >= len(v.Report.Measures) || at.Event < 0 || at.Event >= len(v.Report.Measures[at.Measure].Events) ||
		!v.Report.Measures[at.Measure].Events[at.Event].Played.Has(wanted) {
		http.Error(w, "That is no fingering of this note any more. Open the exercise again.", http.StatusUnprocessableEntity)
		return
	}
	pitch := v.Report.Part.At(at).Pitch.MIDI()
	if text(r, "scope") == "here" {
		err = s.store.KeepFingering(ctx, t, v.Exercise.ID, v.Instrument.ID, store.Fingering{Measure: at.Measure, Event: at.Event, Pitch: pitch, Fingering: wanted})
	} else {
		err = s.preferNote(ctx, t, v.Instrument.ID, pitch, wanted)
		if err == nil { // what was chosen for places of this exercise gives way
			err = s.store.DropFingerings(ctx, t, v.Exercise.ID, v.Instrument.ID, pitch)
		}
	}
	if err == nil && isHTMX(r) {
		v, err = s.benchView(r, ask)
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if isHTMX(r) {
		s.partial(w, "bench", "bench", v)
		return
	}
	http.Redirect(w, r, v.Here(), http.StatusSeeOther)
}

// keepPreferred sets the way of a note that a teacher wants.
func keepPreferred(kept *store.Settings, id string, pitch int, wanted string) {
	ways := kept.Preferred[id]
	keepIn(&ways, pitch, wanted)
	keepIn(&kept.Preferred, id, ways)
}

// preferNote keeps the way of a note that a teacher wants everywhere.
func (s *Server) preferNote(ctx context.Context, t int64, id string, pitch int, wanted string) error {
	kept, err := s.store.Settings(ctx, t)
	if err != nil {
		return fmt.Errorf("keep the fingering of a note: %w", err)
	}
	keepPreferred(&kept, id, pitch, wanted)
	return s.store.KeepSettings(ctx, t, kept)
}
