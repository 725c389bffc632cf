package teach

import (
	"context"

	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// ClassWork is what the Board and its other views are made of, but for where everybody
// stands.
type ClassWork struct {
	Students  []store.Student
	Exercises []store.Exercise
	Own       store.OwnOutlines
	Rules     store.Rules
}

// LoadClassWork reads what a class works on.
func LoadClassWork(ctx context.Context, desk *Class, class store.ClassID) (ClassWork, error) {
	var w ClassWork
	var err error
	if w.Exercises, err = desk.Exercises(ctx); err != nil { // which reads them again where need be
		return w, err
	}
	if w.Own, err = desk.OwnOutlines(ctx); err != nil {
		return w, err
	}
	if w.Students, err = desk.Students(ctx, class); err != nil {
		return w, err
	}
	w.Rules, err = desk.Rules(ctx)
	return w, err
}

// Steps are the stages that a class follows where an exercise has no routine of its own.
func (w ClassWork) Steps(class store.ClassID) routine.Routine {
	return w.Rules.In(store.Chooser{Class: class}).Steps
}
