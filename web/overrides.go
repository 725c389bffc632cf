package web

import (
	"fmt"
	"net/http"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// cleanChoice is how many clean tries in a row let a student go on.
type cleanChoice struct {
	N     int // 0 for the routine's
	Words string
}

// CleanChoices lists what there is to choose.
func (v benchView) CleanChoices() []cleanChoice {
	list := []cleanChoice{{0, fmt.Sprintf("as the routine says: %d clean", v.Step().ToGoOn())}}
	for n := range routine.MostClean {
		list = append(list, cleanChoice{n + 1, fmt.Sprintf("%d clean in a row", n+1)})
	}
	return list
}

// ChosenRoutine is the id of the routine that the exercise follows for all, "" for none of
// its own.
func (v benchView) ChosenRoutine() string {
	return v.Rules.Chosen(store.Chooser{Exercise: v.Exercise.ID})
}

// moveStudent puts the piece at hand at a stage for the student at hand, against what the
// routine would have; it is a row of the log.
func (s *Server) moveStudent(w http.ResponseWriter, r *http.Request) {
	desk := deskOf(r)
	c, err := choose(r.Context(), deskOf(r), askOf(r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	steps := c.routine()
	to := routine.Try{Stage: routine.Stage(c.ask.stage), Moved: true}
	key, ok := breakdown.ParsePieceKey(c.ask.piece)
	switch {
	case c.Student.ID == 0:
		s.refuseMark(w, r, c, "Nobody is chosen. Tap a name under “Who is trying?”.")
		return
	case steps.Index(to.Stage) < 0 || !ok || !slices.Contains(c.Keys, key):
		s.refuseMark(w, r, c, markGone)
		return
	}
	if err := desk.AddPressed(r.Context(), pressOf(r), store.Attempt{StudentID: c.Student.ID, ExerciseID: c.Exercise.ID, Piece: key, Try: to, Tempo: c.ask.tempo}); err != nil {
		s.failed(w, r, err)
		return
	}
	c.ask.stage = "" // it is shown where it was put
	s.answerMark(w, r, c, markNews{Did: fmt.Sprintf("%s is at %s now.", c.Key.Words(), steps.Word(to.Stage)), Marked: true})
}

// keepRule settles how a student goes on and back, whatever their routine says.
func (s *Server) keepRule(w http.ResponseWriter, r *http.Request) {
	desk, id := deskOf(r), idOf[store.StudentID](r)
	student, err := desk.StudentByID(r.Context(), id)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	var f ruleForm
	if problem := first(s.forms.read(r, &f)); problem != "" {
		s.flash(r, problem)
	} else if err := desk.KeepRule(r.Context(), id, routine.Rule{Clean: f.Clean, Stay: f.Stay}); err != nil {
		s.failed(w, r, err)
		return
	} else {
		s.flash(r, ruleSaid(student.FirstName, f))
	}
	http.Redirect(w, r, backToBench(r, fmt.Sprintf("/students/%d", id)), http.StatusSeeOther)
}

// ruleSaid says what was settled.
func ruleSaid(name string, f ruleForm) string {
	goes, back := "goes on as the routine says", "goes back as it says"
	if f.Clean > 0 {
		goes = fmt.Sprintf("goes on after %d clean in a row", f.Clean)
		if f.Clean == 1 {
			goes = "goes on after one clean try"
		}
	}
	if f.Stay {
		back = "stays after two stumbles, and takes it slower"
	}
	return fmt.Sprintf("%s %s, and %s.", name, goes, back)
}
