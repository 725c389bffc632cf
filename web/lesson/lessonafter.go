package lesson

import (
	"net/http"

	"unhurriedbench/core/lesson"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// afterView is a lesson that is over: what was done, by whom not, and with what the next
// one begins.
type afterView struct {
	store.Lesson
	Name     string // of the class
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
	Absent   []store.Student
}

// stumbleLine is somebody who stumbled, and over what.
type stumbleLine struct {
	store.Student
	Over string
}

func (s *handlers) showAfter(w http.ResponseWriter, r *http.Request, l store.Lesson) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	_, class, err := desk.ChooseClass(ctx, l.Class)
	if err != nil {
		return err
	}
	students, err := desk.Students(ctx, l.Class)
	if err != nil {
		return err
	}
	list, next, err := teach.Outcomes(ctx, desk, l, students)
	if err != nil {
		return err
	}
	v := afterView{Lesson: l, Name: class.Name, When: teach.Day(*l.Begun, desk.Now()),
		Minutes: max(1, int(l.Ended.Sub(*l.Begun).Minutes()+0.5)), Next: next}
	by := map[int64]store.Student{}
	for _, student := range students {
		by[int64(student.ID)] = student
	}
	for _, o := range list {
		line := outcomeLine{Outcome: o, Missed: named(by, o.Without), Absent: named(by, o.Absent)}
		for _, m := range o.Stumbled {
			line.Stumbles = append(line.Stumbles, stumbleLine{by[m.Student], string(m.Cause)})
		}
		v.Outcomes = append(v.Outcomes, line)
	}
	s.Page(w, r, http.StatusOK, "lessonafter", "Lesson of "+class.Name, v)
	return nil
}

func named(by map[int64]store.Student, ids []int64) []store.Student {
	var list []store.Student
	for _, id := range ids {
		list = append(list, by[id])
	}
	return list
}
