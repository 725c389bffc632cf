package teach

import (
	"context"

	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// SectionWork is what the Board and its other views are made of, but for where everybody
// stands.
type SectionWork struct {
	Students  []store.Student
	Exercises []store.Exercise
	Own       store.OwnOutlines
	Rules     store.Rules
}

// LoadSectionWork reads what a class works on.
func LoadSectionWork(ctx context.Context, desk *Class, section store.SectionID) (SectionWork, error) {
	var w SectionWork
	var err error
	if w.Exercises, err = desk.Exercises(ctx); err != nil { // which reads them anew where need be
		return w, err
	}
	if w.Own, err = desk.OwnOutlines(ctx); err != nil {
		return w, err
	}
	if w.Students, err = desk.Students(ctx, section); err != nil {
		return w, err
	}
	w.Rules, err = desk.Rules(ctx)
	return w, err
}

// Steps are the stages that a section follows where an exercise has no routine of its own.
func (w SectionWork) Steps(section store.SectionID) routine.Routine {
	return w.Rules.In(store.Chooser{Section: section}).Steps
}
