package web

import (
	"errors"
	"net/http"
	"slices"
	"strconv"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/card"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// longestWait is how long an answer may have waited without network; what is older counts from
// when it came.
const longestWait = 14 * 24 * time.Hour

// saidAt is when something was pressed at home, as the page has it.
func saidAt(r *http.Request) time.Time {
	now := time.Now()
	millis, err := strconv.ParseInt(text(r, "at"), 10, 64)
	at := time.UnixMilli(millis)
	if err != nil || at.After(now) || at.Before(now.Add(-longestWait)) {
		return now
	}
	return at
}

// took answers what a student's page sends: a script is told in a word, a form goes back to
// the day.
func (s *Server) took(w http.ResponseWriter, r *http.Request, err error) {
	status := http.StatusNoContent
	switch {
	case errors.Is(err, store.ErrTooMuch):
		status = http.StatusConflict
	case errors.Is(err, store.ErrNotFound), errors.Is(err, errRefused):
		status = http.StatusUnprocessableEntity
	case err != nil:
		s.failedOwn(w, r, err)
		return
	}
	if r.Header.Get("Accept") == "application/json" {
		w.WriteHeader(status)
		return
	}
	if status == http.StatusNoContent {
		http.Redirect(w, r, "/my/"+athome(r).Key+"/", http.StatusSeeOther)
		return
	}
	s.sayOwn(w, r, status, "refused")
}

// errRefused is for what no page of ours sends.
var errRefused = errors.New("not what the page sends")

// sayTry logs how a try at home went.
func (s *Server) sayTry(w http.ResponseWriter, r *http.Request) {
	ctx, desk, h := r.Context(), deskOf(r), athome(r)
	key, known := breakdown.ParsePieceKey(text(r, "piece"))
	t := store.HomeTry{
		Exercise: store.ExerciseID(number(r, "exercise")), Piece: key, Try: routine.Try{Stage: routine.Stage(text(r, "stage")), Clean: text(r, "result") == "clean"},
		Tempo: int(number(r, "tempo")), Beside: store.Beside(text(r, "beside")), Changed: text(r, "changed"), At: saidAt(r), Press: pressOf(r),
	}
	if !t.Clean {
		var is bool
		t.Cause, is = routine.ParseCause(text(r, "result"))
		known = known && is
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		s.failedOwn(w, r, err)
		return
	}
	i, _ := instrument.ByID(h.Student.Instrument)
	changed := t.Changed == "" || slices.Contains(changesOf(i), t.Changed)
	if !known || !changed || t.Press == "" || t.Tempo < 0 || t.Tempo > 400 || !store.KnownBeside(string(t.Beside)) || !rules.For(h.Student.ID, t.Exercise).Has(t.Stage) {
		s.took(w, r, errRefused)
		return
	}
	s.took(w, r, h.Say(ctx, t))
}

// tickLine notes that a line of the plan is done.
func (s *Server) tickLine(w http.ResponseWriter, r *http.Request) {
	on, problem := readDay(text(r, "on"))
	line := text(r, "line")
	far := max(time.Since(on), -time.Since(on))
	if problem != "" || line == "" || len(line) > store.LongestLine || far > longestWait {
		s.took(w, r, errRefused)
		return
	}
	s.took(w, r, athome(r).Tick(r.Context(), store.HomeTick{On: on, Line: line}))
}

// answerCards logs an answer to a card.
func (s *Server) answerCards(w http.ResponseWriter, r *http.Request) {
	h, id := athome(r), text(r, "card")
	kind, known := card.ParseKind(string(card.KindOf(id)))
	millis := number(r, "millis")
	if !known || len(id) > card.LongestID || pressOf(r) == "" || millis < 0 {
		s.took(w, r, errRefused)
		return
	}
	grade := card.Judge(kind, text(r, "right") == "yes", int(min(millis, store.LongestAnswer)), text(r, "helped") == "yes", text(r, "new") == "yes")
	s.took(w, r, h.AnswerCards(r.Context(), store.CardAnswer{
		Instrument: h.Student.Instrument, Press: pressOf(r),
		Answered: card.Answered{Card: id, Grade: grade, Millis: int(min(millis, store.LongestAnswer)), At: saidAt(r)},
	}))
}
