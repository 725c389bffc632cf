package teach

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// StepMark is what a teacher says of a step once it is done: clean for everybody who is there,
// except those who stumbled.
type StepMark struct {
	Only       []breakdown.ChunkKey // of a step of several chunks those that were done, none for all
	Absent     []store.StudentID
	Exceptions map[store.StudentID]routine.Stumble
	Heard      []store.Attempt // what a colleague marked just now in the same lesson
}

// besideWithin is within which time a colleague's mark of the same step is the same mark.
const besideWithin = 2 * time.Minute

// MarkedBeside lists what a colleague has just marked in a lesson that two teach together.
func MarkedBeside(ctx context.Context, desk *Class, l store.Lesson) ([]store.Attempt, error) {
	if l.Begun == nil {
		return nil, nil
	}
	now := desk.Now()
	tries, err := desk.LessonAttempts(ctx, l.Class, now.Add(-besideWithin), now.Add(time.Minute))
	return slices.DeleteFunc(tries, func(a store.Attempt) bool { return a.Marker == desk.Marker() }), err
}

// heard says whether a colleague has just marked a student at a stage of a chunk.
func (m StepMark) heard(a store.Attempt) bool {
	return slices.ContainsFunc(m.Heard, func(h store.Attempt) bool {
		return h.StudentID == a.StudentID && h.ExerciseID == a.ExerciseID && h.Chunk == a.Chunk && h.Stage == a.Stage
	})
}

// StepMarks are the marks of a step for a class.
type StepMarks struct {
	List                []store.Attempt
	clean               int
	stumbled            []string // "Odette V., name"
	behind              Behind
	past, without, away int
	beside              int // tries that a colleague has marked
}

// MarkStep says which tries a mark of a step adds to the log. Who stumbled gets a stumble at
// the stage that was done last, and of the rest nothing; a clean step counts for every stage and
// chunk in it. Who is past a stage is left where they are.
func MarkStep(ctx context.Context, desk *Class, class store.ClassID, step lesson.Step,
	mark StepMark) (StepMarks, error) {
	var m StepMarks
	if step.Warm { // which is no stage of a chunk
		return m, nil
	}
	x, err := desk.Exercise(ctx, store.ExerciseID(step.Exercise))
	if err != nil {
		return m, err
	}
	students, err := desk.Students(ctx, class)
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
	standings, err := desk.ExerciseStandings(ctx, x.ID, class)
	if err != nil {
		return m, err
	}
	parts := slices.DeleteFunc(slices.Clone(step.All()), func(p lesson.Part) bool {
		return len(mark.Only) > 0 && !slices.Contains(mark.Only, p.Chunk)
	})
	for _, student := range students {
		if len(step.Group) > 0 && !slices.Contains(step.Group, int64(student.ID)) {
			continue
		}
		if slices.Contains(mark.Absent, student.ID) {
			m.away++
			continue
		}
		over, stumbled := mark.Exceptions[student.ID]
		at := marking{student: student, steps: rules.For(student.ID, x.ID), outline: own.Of(x, student.Instrument),
			standing: standings[store.Task{Student: student.ID, Exercise: x.ID}]}
		if stumbled {
			m.stumble(x.ID, step, parts, at, over)
		} else {
			m.cleanAt(x.ID, step, parts, at)
		}
	}
	m.List = slices.DeleteFunc(m.List, func(a store.Attempt) bool {
		if mark.heard(a) {
			m.beside++
			return true
		}
		return false
	})
	return m, nil
}

// stumble marks a stumble at the last of the parts that the student has.
func (m *StepMarks) stumble(x store.ExerciseID, step lesson.Step, parts []lesson.Part, at marking,
	over routine.Stumble) {
	for _, p := range slices.Backward(parts) {
		stage, how := at.joins(p)
		if how == NoChunk || how == NoStage {
			continue
		}
		if over.Measure < p.Chunk.First || over.Measure > p.Chunk.Last {
			over.Measure = 0
		}
		m.stumbled = append(m.stumbled, fmt.Sprintf("%s, %s", at.student.Name(), over))
		m.List = append(m.List, at.attempt(x, step, p, routine.Try{Stage: stage, Cause: over.Cause, Measure: over.Measure}))
		return
	}
	m.without++
}

// cleanAt marks every part that the student has and is not past.
func (m *StepMarks) cleanAt(x store.ExerciseID, step lesson.Step, parts []lesson.Part, at marking) {
	marked, past := false, false
	for k, p := range parts {
		switch stage, how := at.joins(p); how {
		case joinsIn:
			if k == 0 {
				m.behind.Add(at.student.Name(), at.steps, at.standing.State(at.steps, p.Chunk), stage)
			}
			m.List, marked = append(m.List, at.attempt(x, step, p, routine.Try{Stage: stage, Clean: true})), true
		case PastIt:
			past = true
		}
	}
	switch {
	case marked:
		m.clean++
	case past:
		m.past++
	default:
		m.without++
	}
}

// Said tells the marks in a sentence or two.
func (m StepMarks) Said(step lesson.Step) string {
	if step.Warm {
		return "A warm-up is not marked."
	}
	if m.beside > 0 && len(m.List) == 0 {
		return step.Name() + ": your colleague has marked it. It counts once."
	}
	words := []string{fmt.Sprintf("%s: %d clean.", step.Name(), m.clean)}
	if len(m.stumbled) > 0 {
		words = append(words, strings.Join(m.stumbled, "; ")+".")
	}
	words = append(words, m.behind.Said()...)
	for _, some := range []struct {
		n    int
		what string
	}{{m.past, "past this stage already"}, {m.without, "whose part or routine has no such step"}, {m.away, "not here"}} {
		if some.n > 0 {
			words = append(words, fmt.Sprintf("%s %s.", CountStudents(some.n), some.what))
		}
	}
	return strings.Join(words, " ")
}
