package lesson

import (
	"errors"
	"fmt"
	"net/http"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// lessonAnswer is the answer to the lesson's script.
type lessonAnswer struct {
	Said  string        `json:"said"`
	Batch store.BatchID `json:"batch,omitempty"` // of what can be taken back
}

func (s *handlers) answerLesson(w http.ResponseWriter, r *http.Request, l store.Lesson, a lessonAnswer) {
	if r.Header.Get("Accept") != "application/json" { // there is no script
		s.Flash(r, a.Said)
		if a.Batch != 0 {
			s.Sessions.Put(r.Context(), "undo", fmt.Sprintf("/lessons/%d/undo?class=%d&batch=%d", l.ID, l.Class, a.Batch))
		}
		http.Redirect(w, r, fmt.Sprintf("%s&step=%d", teach.LessonLink(l, "/run"), l.Step), http.StatusSeeOther)
		return
	}
	s.JSON(w, r, a)
}

// lessonStep reads which scene of which lesson a form is about, with the whole step that it
// belongs to, and who is not there.
func (s *handlers) lessonStep(r *http.Request) (store.Lesson, lesson.Step, []store.StudentID, error) {
	l, err := site.ClassOf(r).Lesson(r.Context(), site.ID[store.LessonID](r))
	if err != nil {
		return l, lesson.Step{}, nil, err
	}
	scenes := l.Plan.Scenes()
	at := int(site.Number(r, "step"))
	if at < 0 || at >= len(scenes) {
		return l, lesson.Step{}, nil, fmt.Errorf("find step %d: %w", at, store.ErrNotFound)
	}
	l.Step = at
	var absent []store.StudentID
	for _, typed := range r.Form["absent"] {
		if id, err := strconv.ParseInt(typed, 10, 64); err == nil {
			absent = append(absent, store.StudentID(id))
		}
	}
	return l, l.Plan.Steps[l.Plan.Fit().In[scenes[at].Place]], absent, nil
}

// lessonAt notes at which step the class is, and who is not there.
func (s *handlers) lessonAt(w http.ResponseWriter, r *http.Request) error {
	l, _, absent, err := s.lessonStep(r)
	if err == nil && l.Ended == nil {
		err = site.ClassOf(r).AtStep(r.Context(), l.ID, l.Step, absent)
	}
	if err != nil {
		return err
	}
	s.answerLesson(w, r, l, lessonAnswer{})
	return nil
}

// lessonPulse says at which scene a lesson is, so that each of two who teach it knows.
func (s *handlers) lessonPulse(w http.ResponseWriter, r *http.Request) error {
	l, err := site.ClassOf(r).Lesson(r.Context(), site.ID[store.LessonID](r))
	if err != nil {
		return err
	}
	s.JSON(w, r, struct {
		Step  int  `json:"step"`
		Ended bool `json:"ended"`
	}{l.Step, l.Ended != nil})
	return nil
}

// markLesson logs a step for the whole class in one write: clean for everybody who is
// there, but for the exceptions, who stumbled over what is said of each in "stumble-12".
func (s *handlers) markLesson(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	l, step, absent, err := s.lessonStep(r)
	if err != nil {
		return err
	}
	press := site.RequestKeyOf(r)
	batch, again, err := desk.Pressed(ctx, press)
	if err != nil {
		return err
	}
	if again { // its answer had not arrived
		s.answerLesson(w, r, l, lessonAnswer{step.Name() + ": marked.", batch})
		return nil
	}
	mark := exceptionsOf(r)
	mark.Absent = absent
	if scene := l.Plan.Scenes()[l.Step]; len(mark.Only) == 0 && !scene.LastOfIt {
		mark.Only = []breakdown.ChunkKey{scene.Of}
	}
	if mark.Heard, err = teach.MarkedBeside(ctx, desk, l); err != nil {
		return err
	}
	m, err := teach.MarkStep(ctx, desk, l.Class, step, mark)
	if err != nil {
		return err
	}
	if len(m.List) > 0 {
		if batch, err = desk.AddTogether(ctx, press, m.List...); err != nil {
			return err
		}
	}
	if l.Ended == nil {
		if err := desk.AtStep(ctx, l.ID, l.Step, absent); err != nil && !errors.Is(err, store.ErrNotFound) {
			return err
		}
	}
	s.answerLesson(w, r, l, lessonAnswer{m.Said(step), batch})
	return nil
}

// exceptionsOf reads who stumbled, over what is said of each in "stumble-12"; "part" names
// the chunks of the step that were done, "1-2", none for all of it.
func exceptionsOf(r *http.Request) teach.StepMark {
	mark := teach.StepMark{Exceptions: map[store.StudentID]routine.Stumble{}}
	for _, part := range r.Form["part"] {
		if key, known := breakdown.ParseChunkKey(part); known {
			mark.Only = append(mark.Only, key)
		}
	}
	for name := range r.Form {
		id, is := strings.CutPrefix(name, "stumble-")
		number, err := strconv.ParseInt(id, 10, 64)
		if over, stumbled := routine.ParseStumble(site.Text(r, name)); is && err == nil && stumbled {
			mark.Exceptions[store.StudentID(number)] = over
		}
	}
	return mark
}

// undoLesson takes back what was marked together.
func (s *handlers) undoLesson(w http.ResponseWriter, r *http.Request) error {
	l, err := site.ClassOf(r).Lesson(r.Context(), site.ID[store.LessonID](r))
	if err != nil {
		return err
	}
	err = site.ClassOf(r).UndoTogether(r.Context(), store.BatchID(site.Number(r, "batch")))
	if err != nil && !errors.Is(err, store.ErrNotFound) { // taken back already is what was wanted
		return err
	}
	s.answerLesson(w, r, l, lessonAnswer{Said: "Taken back."})
	return nil
}
