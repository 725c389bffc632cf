package web

import (
	"errors"
	"fmt"
	"net/http"
	"time"

	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// tryView is one line of a log on the page.
type tryView struct {
	store.Attempt
	StageName string
	Piece     string
	Result    string
	When      string
}

func newTryView(a store.Attempt) tryView {
	v := tryView{Attempt: a, StageName: routine.Stage(a.Stage).String(), When: when(a.At), Result: "clean"}
	if !a.Clean {
		v.Result = "stumble, " + a.Cause
	}
	first, last := a.FirstMeasure, a.LastMeasure
	switch {
	case last == 0:
		v.Piece = "pickup"
	case first == 0:
		v.Piece = fmt.Sprintf("pickup to m. %d", last)
	case first == last:
		v.Piece = fmt.Sprintf("m. %d", first)
	default:
		v.Piece = fmt.Sprintf("m. %d–%d", first, last)
	}
	return v
}

// when says how long ago, or the day.
func when(at time.Time) string {
	switch ago := time.Since(at); {
	case ago < time.Minute:
		return "just now"
	case ago < time.Hour:
		return fmt.Sprintf("%d min ago", int(ago.Minutes()))
	case ago < 20*time.Hour:
		return fmt.Sprintf("%d h ago", int(ago.Hours()))
	}
	return at.Format("Mon 2 Jan, 15:04")
}

// addAttempt logs a try and shows where the student stands now.
func (s *Server) addAttempt(w http.ResponseWriter, r *http.Request) {
	v, err := s.benchView(r, askOf(r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	clean := text(r, "result") == "clean"
	cause, known := routine.ParseCause(text(r, "cause"))
	if clean {
		cause = routine.None
	}
	switch {
	case v.Student.ID == 0:
		http.Error(w, "Choose the student first.", http.StatusUnprocessableEntity)
		return
	case !clean && !known:
		http.Error(w, "Say what stumbled: rhythm, name, fingering or sound.", http.StatusUnprocessableEntity)
		return
	}
	span := progress.SpanOf(v.Piece.Piece)
	err = s.store.AddAttempt(r.Context(), teacher(r).ID, store.Attempt{
		StudentID: v.Student.ID, ExerciseID: v.Exercise.ID, FirstMeasure: span.First, LastMeasure: span.Last,
		Stage: int(v.Stage), Clean: clean, Cause: string(cause), Tempo: v.Tempo,
	})
	if err == nil {
		err = s.addProgress(r.Context(), teacher(r).ID, &v)
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	v.chooseStage("")
	if v.State.Slower {
		v.Tempo = routine.Notch(v.Tempo, -1)
	}
	s.answerMark(w, r, v)
}

// answerMark updates the bench in place, or goes back to it without a script.
func (s *Server) answerMark(w http.ResponseWriter, r *http.Request, v benchView) {
	if isHTMX(r) {
		s.updateSide(w, v)
		return
	}
	http.Redirect(w, r, v.Link("piece", v.Piece.Key), http.StatusSeeOther)
}

// undoAttempt takes a try back, by adding to the log, and shows the page it was
// asked from again: the bench, or the student's history.
func (s *Server) undoAttempt(w http.ResponseWriter, r *http.Request) {
	t := teacher(r).ID
	a, err := s.store.AttemptByID(r.Context(), t, idOf(r, "id"))
	if err == nil {
		err = s.store.UndoAttempt(r.Context(), t, a.ID)
	}
	if err != nil && !errors.Is(err, store.ErrTaken) { // taken back already is what was wanted
		s.failed(w, r, err)
		return
	}
	if text(r, "from") == "history" {
		s.showHistory(w, r, a.StudentID)
		return
	}
	v, err := s.benchView(r, benchAsk{
		exercise: a.ExerciseID, instrument: text(r, "instrument"), student: a.StudentID, tempo: int(number(r, "tempo")),
		piece: progress.Span{First: a.FirstMeasure, Last: a.LastMeasure}.String(),
	})
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.answerMark(w, r, v)
}
