package web

import (
	"context"
	"net/http"
	"slices"

	"unhurriedbench/core/lesson"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// afterView is a lesson that is over: what was done, by whom not, and with what the next
// one begins.
type afterView struct {
	store.Lesson
	Name     string // of the section
	When     string
	Minutes  int // it lasted
	Outcomes []outcomeLine
	Next     []lesson.Step
}

// outcomeLine is what became of a step, in words.
type outcomeLine struct {
	lesson.Outcome
	Stumbles []stumbleLine
	Missed   []store.Student // who were there and not marked
	Away     []store.Student
}

// stumbleLine is somebody who stumbled, and over what.
type stumbleLine struct {
	store.Student
	Over string
}

// marksOf are what was marked in a lesson.
func marksOf(ctx context.Context, desk *teach.Class, l store.Lesson) ([]lesson.Mark, error) {
	if l.Begun == nil {
		return nil, nil
	}
	tries, err := desk.LessonAttempts(ctx, l.Section, *l.Begun, lessonEnd(l))
	if err != nil {
		return nil, err
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		return nil, err
	}
	var marks []lesson.Mark
	for _, a := range tries {
		if !a.Moved {
			marks = append(marks, lesson.Mark{
				Student: int64(a.StudentID), Exercise: int64(a.ExerciseID), Piece: a.Piece,
				Form: rules.For(a.StudentID, a.ExerciseID).Step(a.Stage).Form(), Clean: a.Clean, Cause: a.Cause,
			})
		}
	}
	return marks, nil
}

// outcomes says what became of a lesson, and with what the next one should begin.
func outcomes(ctx context.Context, desk *teach.Class, l store.Lesson, students []store.Student) ([]lesson.Outcome, []lesson.Step, error) {
	marks, err := marksOf(ctx, desk, l)
	if err != nil {
		return nil, nil, err
	}
	var ids, absent []int64
	for _, student := range students {
		if !student.Aside || !slices.Contains(l.Absent, student.ID) {
			ids = append(ids, int64(student.ID))
		}
	}
	for _, id := range l.Absent {
		absent = append(absent, int64(id))
	}
	list, next := lesson.After(l.Plan, l.Step, ids, absent, marks)
	return list, next, nil
}

// leftOver is with what the next lesson of a section should begin.
func leftOver(ctx context.Context, desk *teach.Class, section store.SectionID) ([]lesson.Step, error) {
	list, err := desk.Lessons(ctx, section, mostLessons)
	if err != nil {
		return nil, err
	}
	for _, l := range list {
		if l.Begun == nil {
			continue
		}
		students, err := desk.Students(ctx, section)
		if err != nil {
			return nil, err
		}
		_, next, err := outcomes(ctx, desk, l, students)
		return next, err
	}
	return nil, nil
}

func (s *Server) showAfter(w http.ResponseWriter, r *http.Request, l store.Lesson) {
	ctx, desk := r.Context(), deskOf(r)
	_, section, err := desk.ChooseSection(ctx, l.Section)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	students, err := desk.Students(ctx, l.Section)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	list, next, err := outcomes(ctx, desk, l, students)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	v := afterView{Lesson: l, Name: section.Name, When: day(*l.Begun), Minutes: max(1, int(l.Ended.Sub(*l.Begun).Minutes()+0.5)), Next: next}
	by := map[int64]store.Student{}
	for _, student := range students {
		by[int64(student.ID)] = student
	}
	for _, o := range list {
		line := outcomeLine{Outcome: o, Missed: named(by, o.Without), Away: named(by, o.Absent)}
		for _, m := range o.Stumbled {
			line.Stumbles = append(line.Stumbles, stumbleLine{by[m.Student], string(m.Cause)})
		}
		v.Outcomes = append(v.Outcomes, line)
	}
	s.page(w, r, http.StatusOK, "lessonafter", "Lesson of "+section.Name, v)
}

func named(by map[int64]store.Student, ids []int64) []store.Student {
	var list []store.Student
	for _, id := range ids {
		list = append(list, by[id])
	}
	return list
}
