package bench

import (
	"fmt"
	"net/http"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
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

// moveStudent puts the chunk at hand at a stage for the student at hand, against what the
// routine would have; it is a row of the log.
func (s *handlers) moveStudent(w http.ResponseWriter, r *http.Request) error {
	desk := site.ClassOf(r)
	c, err := teach.Choose(r.Context(), site.ClassOf(r), askOf(r))
	if err != nil {
		return err
	}
	steps := c.Routine()
	to := routine.Try{Stage: routine.Stage(c.Ask.Stage), Moved: true}
	key, ok := breakdown.ParseChunkKey(c.Ask.Chunk)
	switch {
	case c.Student.ID == 0:
		s.refuseMark(w, r, c, "Nobody is chosen. Tap a name under “Who is trying?”.")
		return nil
	case steps.Index(to.Stage) < 0 || !ok || !slices.Contains(c.Keys, key):
		s.refuseMark(w, r, c, site.MarkGone)
		return nil
	}
	if err := desk.AddOnce(r.Context(), site.RequestKeyOf(r), store.Attempt{StudentID: c.Student.ID,
		ExerciseID: c.Exercise.ID, Chunk: key, Try: to, Tempo: c.Ask.Tempo}); err != nil {
		return err
	}
	c.Ask.Stage = "" // it is shown where it was put
	return s.answerMark(w, r, c, markNews{Did: fmt.Sprintf("%s is at %s now.", c.Key.Words(),
		steps.Word(to.Stage)), Marked: true})
}

// saveRule settles how a student goes on and back, whatever their routine says.
func (s *handlers) saveRule(w http.ResponseWriter, r *http.Request) error {
	desk, id := site.ClassOf(r), site.ID[store.StudentID](r)
	student, err := desk.StudentByID(r.Context(), id)
	if err != nil {
		return err
	}
	var f ruleForm
	if problem := site.First(s.Forms.Read(r, &f)); problem != "" {
		s.Flash(r, problem)
	} else if err := desk.SaveRule(r.Context(), id, routine.Rule{Clean: f.Clean, Stay: f.Stay}); err != nil {
		return err
	} else {
		s.Flash(r, ruleSaid(student.FirstName, f))
	}
	http.Redirect(w, r, site.BackToBench(r, fmt.Sprintf("/students/%d", id)), http.StatusSeeOther)
	return nil
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
