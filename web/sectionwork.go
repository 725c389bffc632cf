package web

import (
	"context"

	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// sectionWork is what the Board and its other views are made of, but for where everybody
// stands.
type sectionWork struct {
	students  []store.Student
	exercises []store.Exercise
	own       store.OwnOutlines
	rules     store.Rules
}

func loadSectionWork(ctx context.Context, desk *teach.Class, section store.SectionID) (sectionWork, error) {
	var w sectionWork
	var err error
	if w.exercises, err = desk.Exercises(ctx); err != nil { // which reads them anew where need be
		return w, err
	}
	if w.own, err = desk.OwnOutlines(ctx); err != nil {
		return w, err
	}
	if w.students, err = desk.Students(ctx, section); err != nil {
		return w, err
	}
	w.rules, err = desk.Rules(ctx)
	return w, err
}

// steps are the stages that a section follows where an exercise has no routine of its own.
func (w sectionWork) steps(section store.SectionID) routine.Routine {
	return w.rules.In(store.Chooser{Section: section}).Steps
}
