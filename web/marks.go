package web

import (
	"errors"
	"fmt"
	"net/http"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// addAttempt logs a try and shows where the student stands now. It reads no music.
func (s *Server) addAttempt(w http.ResponseWriter, r *http.Request) {
	c, err := s.choose(r, askOf(r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	try, problem := readTry(r, c, deskOf(r).Routine())
	if problem != "" {
		http.Error(w, problem, http.StatusUnprocessableEntity)
		return
	}
	err = deskOf(r).AddAttempts(r.Context(), store.Attempt{
		StudentID: c.Student.ID, ExerciseID: c.Exercise.ID, Piece: c.Key, Try: try, Tempo: c.ask.tempo,
	})
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.answerMark(w, r, c)
}

// readTry reads the mark that was pressed, or says what is wrong with it.
func readTry(r *http.Request, c choice, steps routine.Routine) (routine.Try, string) {
	try := routine.Try{Stage: routine.Stage(c.ask.stage), Clean: text(r, "result") == "clean"}
	known := try.Clean
	if !try.Clean {
		try.Cause, known = routine.ParseCause(text(r, "cause"))
	}
	key, ok := breakdown.ParsePieceKey(c.ask.piece)
	switch {
	case c.Student.ID == 0:
		return try, "Choose the student first."
	case !known:
		return try, "Say what stumbled: rhythm, name, fingering or sound."
	case !steps.Has(try.Stage), !ok, !slices.Contains(c.Keys, key):
		return try, "That piece or stage is not here any more, so nothing was marked. Open the exercise again."
	}
	return try, ""
}

// answerMark shows where the student stands now: in place, or by going back to the
// bench without a script.
func (s *Server) answerMark(w http.ResponseWriter, r *http.Request, c choice) {
	c.ask.stage = ""
	v, err := s.load(r, c)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if v.State.Slower && v.Tempo > 0 {
		v.Tempo = routine.Notch(v.Tempo, -1)
	}
	if !isHTMX(r) {
		http.Redirect(w, r, fmt.Sprintf("%s&tempo=%d", v.Link("piece", v.Key), v.Tempo), http.StatusSeeOther)
		return
	}
	shown := markedView{work: v}
	if v.OnOneNote() {
		kept, err := deskOf(r).Settings(r.Context())
		if err != nil {
			s.failed(w, r, err)
			return
		}
		shown.OneNote = oneNoteFor(c.section, c.Instrument, preferencesOf(kept).options(c.Section), c.ask.oneNote)
	}
	s.fragment(w, "bench", "marked", shown)
}

// markedView is what a mark changes on the Bench.
type markedView struct {
	work
	OneNote oneNote
}

// Update says that the parts of the page are sent out of band.
func (markedView) Update() bool { return true }

// InDrill is false: nothing is marked in a drill.
func (markedView) InDrill() bool { return false }

// undoAttempt takes a try back, by adding to the log, and shows the page it was
// asked from again: the bench, or the student's history.
func (s *Server) undoAttempt(w http.ResponseWriter, r *http.Request) {
	desk := deskOf(r)
	a, err := desk.AttemptByID(r.Context(), idOf[store.AttemptID](r))
	if err == nil {
		err = desk.UndoAttempt(r.Context(), a.ID)
	}
	if err != nil && !errors.Is(err, store.ErrTaken) { // taken back already is what was wanted
		s.failed(w, r, err)
		return
	}
	if text(r, "from") == "history" {
		s.showHistory(w, r, a.StudentID)
		return
	}
	c, err := s.choose(r, benchAsk{
		exercise: a.ExerciseID, instrument: text(r, "instrument"), student: a.StudentID, tempo: tempoOf(r), piece: a.Piece.String(),
	})
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.answerMark(w, r, c)
}
