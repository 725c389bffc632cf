package my

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
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// saidAt is when something was pressed at home, as the page has it.
func saidAt(r *http.Request, now time.Time) time.Time {
	millis, err := strconv.ParseInt(site.Text(r, "at"), 10, 64)
	at := time.UnixMilli(millis)
	if err != nil || at.After(now) || at.Before(now.Add(-teach.LongestWait)) {
		return now
	}
	return at
}

// answer answers what a student's page sends: a script gets a word, a form goes back to
// the day.
func (s *handlers) answer(w http.ResponseWriter, r *http.Request, err error) error {
	status := http.StatusNoContent
	switch {
	case errors.Is(err, store.ErrTooMuch):
		status = http.StatusConflict
	case errors.Is(err, store.ErrNotFound), errors.Is(err, errRefused):
		status = http.StatusUnprocessableEntity
	case err != nil:
		return err
	}
	if r.Header.Get("Accept") == "application/json" {
		w.WriteHeader(status)
		return nil
	}
	if status == http.StatusNoContent {
		http.Redirect(w, r, "/my/"+athome(r).Key+"/", http.StatusSeeOther)
		return nil
	}
	s.sayOwn(w, r, status, "refused")
	return nil
}

// errRefused is for what no page of ours sends.
var errRefused = errors.New("not what the page sends")

// sayTry logs how a try at home went.
func (s *handlers) sayTry(w http.ResponseWriter, r *http.Request) error {
	ctx, desk, h := r.Context(), site.ClassOf(r), athome(r)
	key, known := breakdown.ParseChunkKey(site.Text(r, "chunk"))
	t := store.HomeTry{
		Exercise: store.ExerciseID(site.Number(r, "exercise")), Chunk: key,
		Try:   routine.Try{Stage: routine.Stage(site.Text(r, "stage")), Clean: site.Text(r, "result") == "clean"},
		Tempo: int(site.Number(r, "tempo")), Beside: store.Beside(site.Text(r, "beside")),
		Changed: site.Text(r, "changed"), At: saidAt(r, s.Now()), RequestKey: site.RequestKeyOf(r),
	}
	if !t.Clean {
		var is bool
		t.Cause, is = routine.ParseCause(site.Text(r, "result"))
		known = known && is
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		return err
	}
	i, _ := instrument.ByID(h.Student.Instrument)
	changed := t.Changed == "" || slices.Contains(teach.ChangesOf(i), t.Changed)
	if !known || !changed || t.RequestKey == "" || t.Tempo < 0 || t.Tempo > 400 ||
		!store.KnownBeside(string(t.Beside)) || !rules.For(h.Student.ID, t.Exercise).Has(t.Stage) {
		return s.answer(w, r, errRefused)
	}
	return s.answer(w, r, h.Say(ctx, t))
}

// earlierKeys says which of some keys led to this student's page before, so that what waits in
// the browser under them is sent from here.
func (s *handlers) earlierKeys(w http.ResponseWriter, r *http.Request) error {
	site.Text(r, "key") // reads the form
	keys, err := athome(r).EarlierKeys(r.Context(), r.Form["key"])
	if err != nil {
		return err
	}
	s.JSON(w, r, keys)
	return nil
}

// tickLine notes that a line of the plan is done.
func (s *handlers) tickLine(w http.ResponseWriter, r *http.Request) error {
	on, problem := site.ReadDay(site.Text(r, "on"))
	line := site.Text(r, "line")
	far := max(time.Since(on), -time.Since(on))
	if problem != "" || line == "" || len(line) > store.LongestLine || far > teach.LongestWait {
		return s.answer(w, r, errRefused)
	}
	return s.answer(w, r, athome(r).Tick(r.Context(), store.HomeTick{On: on, Line: line}))
}

// answerCards logs an answer to a card.
func (s *handlers) answerCards(w http.ResponseWriter, r *http.Request) error {
	h, id := athome(r), site.Text(r, "card")
	kind, known := card.ParseKind(string(card.KindOf(id)))
	millis := site.Number(r, "millis")
	if !known || len(id) > card.LongestID || site.RequestKeyOf(r) == "" || millis < 0 {
		return s.answer(w, r, errRefused)
	}
	grade := card.Judge(kind, site.Text(r, "right") == "yes", int(min(millis, store.LongestAnswer)),
		site.Text(r, "helped") == "yes", site.Text(r, "new") == "yes")
	return s.answer(w, r, h.AnswerCards(r.Context(), store.CardAnswer{
		Instrument: h.Student.Instrument, RequestKey: site.RequestKeyOf(r),
		Answered: card.Answered{Card: id, Grade: grade, Millis: int(min(millis, store.LongestAnswer)), At: saidAt(r, s.Now())},
	}))
}
