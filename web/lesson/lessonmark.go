package lesson

import (
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

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

// lessonStep reads which step of which lesson a form is about, and who is not there. The
// index is of what fits.
func (s *handlers) lessonStep(r *http.Request) (store.Lesson, lesson.Step, []store.StudentID, error) {
	l, err := site.ClassOf(r).Lesson(r.Context(), site.ID[store.LessonID](r))
	if err != nil {
		return l, lesson.Step{}, nil, err
	}
	in := l.Plan.Fit().In
	at := int(site.Number(r, "step"))
	if at < 0 || at >= len(in) {
		return l, lesson.Step{}, nil, fmt.Errorf("find step %d: %w", at, store.ErrNotFound)
	}
	l.Step = at
	var absent []store.StudentID
	for _, typed := range r.Form["absent"] {
		if id, err := strconv.ParseInt(typed, 10, 64); err == nil {
			absent = append(absent, store.StudentID(id))
		}
	}
	return l, l.Plan.Steps[in[at]], absent, nil
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
	m, err := s.classMarks(r, l, step, absent)
	if err != nil {
		return err
	}
	if len(m.list) > 0 {
		if batch, err = desk.AddTogether(ctx, press, m.list...); err != nil {
			return err
		}
	}
	if l.Ended == nil {
		if err := desk.AtStep(ctx, l.ID, l.Step, absent); err != nil && !errors.Is(err, store.ErrNotFound) {
			return err
		}
	}
	s.answerLesson(w, r, l, lessonAnswer{m.said(step), batch})
	return nil
}

// classMarks are the marks of a step for a class.
type classMarks struct {
	list                []store.Attempt
	clean               int
	stumbled            []string // "Odette V., name"
	past, without, away int
}

// said tells the marks in a sentence or two.
func (m classMarks) said(step lesson.Step) string {
	if step.Warm {
		return "A warm-up is not marked."
	}
	words := []string{fmt.Sprintf("%s: %d clean.", step.Name(), m.clean)}
	if len(m.stumbled) > 0 {
		words = append(words, strings.Join(m.stumbled, "; ")+".")
	}
	for _, some := range []struct {
		n    int
		what string
	}{{m.past, "past this stage already"}, {m.without, "whose part or routine has no such step"}, {m.away, "not here"}} {
		if some.n > 0 {
			words = append(words, fmt.Sprintf("%s %s.", teach.CountStudents(some.n), some.what))
		}
	}
	return strings.Join(words, " ")
}

func (s *handlers) classMarks(r *http.Request, l store.Lesson, step lesson.Step,
	absent []store.StudentID) (classMarks, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	var m classMarks
	if step.Warm { // which is no stage of the chunk
		return m, nil
	}
	x, err := desk.Exercise(ctx, store.ExerciseID(step.Exercise))
	if err != nil {
		return m, err
	}
	students, err := desk.Students(ctx, l.Class)
	if err != nil {
		return m, err
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		return m, err
	}
	own, err := desk.OwnOutlines(ctx)
	if err != nil {
		return m, err
	}
	standings, err := desk.ExerciseStandings(ctx, x.ID, l.Class)
	if err != nil {
		return m, err
	}
	for _, student := range students {
		if len(step.Group) > 0 && !slices.Contains(step.Group, int64(student.ID)) {
			continue
		}
		if slices.Contains(absent, student.ID) {
			m.away++
			continue
		}
		steps := rules.For(student.ID, x.ID)
		class := routine.Step{Stage: step.Stage, Kind: step.Form}
		stage, how := teach.Joins(steps, class, own.Of(x, student.Instrument),
			standings[store.Task{Student: student.ID, Exercise: x.ID}], step.Chunk)
		if how == teach.NoChunk || how == teach.NoStage {
			m.without++
			continue
		}
		try := routine.Try{Stage: stage, Clean: true}
		if cause, stumbled := routine.ParseCause(site.Text(r, fmt.Sprintf("stumble-%d", student.ID))); stumbled {
			try = routine.Try{Stage: stage, Cause: cause}
			m.stumbled = append(m.stumbled, fmt.Sprintf("%s, %s", student.Name(), cause))
		}
		if try.Clean && how == teach.PastIt {
			m.past++
			continue
		}
		if try.Clean {
			m.clean++
		}
		m.list = append(m.list, store.Attempt{StudentID: student.ID, ExerciseID: x.ID, Chunk: step.Chunk, Try: try,
			Tempo: step.Tempo})
	}
	return m, nil
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
