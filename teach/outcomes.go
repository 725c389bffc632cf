package teach

import (
	"context"
	"slices"

	"unhurriedbench/core/lesson"
	"unhurriedbench/store"
)

// marksOf are what was marked in a lesson.
func marksOf(ctx context.Context, desk *Class, l store.Lesson) ([]lesson.Mark, error) {
	if l.Begun == nil {
		return nil, nil
	}
	tries, err := desk.LessonAttempts(ctx, l.Class, *l.Begun, lessonEnd(l, desk.Now()))
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
				Student: int64(a.StudentID), Exercise: int64(a.ExerciseID), Chunk: a.Chunk,
				Form: rules.For(a.StudentID, a.ExerciseID).Step(a.Stage).Form(), Clean: a.Clean, Cause: a.Cause,
			})
		}
	}
	return marks, nil
}

// Outcomes says what became of a lesson, and with what the next one should begin.
func Outcomes(ctx context.Context, desk *Class, l store.Lesson, students []store.Student) ([]lesson.Outcome,
	[]lesson.Step, error) {
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
	list, next := lesson.After(l.Plan, l.Plan.PlaceOf(l.Step), ids, absent, marks)
	return list, next, nil
}

// leftOver is with what the next lesson of a class should begin.
func leftOver(ctx context.Context, desk *Class, class store.ClassID) ([]lesson.Step, error) {
	list, err := desk.Lessons(ctx, class, MostLessons)
	if err != nil {
		return nil, err
	}
	for _, l := range list {
		if l.Begun == nil {
			continue
		}
		students, err := desk.Students(ctx, class)
		if err != nil {
			return nil, err
		}
		_, next, err := Outcomes(ctx, desk, l, students)
		return next, err
	}
	return nil, nil
}
