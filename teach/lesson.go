package teach

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/play"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// LessonPieces lays out the pieces of an exercise for a whole section: at the tempo that
// the hardest place of everybody's allows, and with where each one stands.
func LessonPieces(ctx context.Context, desk *Class, section store.SectionID, exercise store.ExerciseID, standings store.Standings) ([]lesson.Piece, error) {
	var pieces []lesson.Piece
	_, err := ExplainEach(ctx, desk, Request{Exercise: exercise, Section: section}, Choice.Plays, func(at Choice, tab InstrumentTab, x Explained, _ Settings) {
		steps := at.Rules.In(store.Chooser{Exercise: exercise, Section: section}).Steps
		for _, p := range x.Report.Pieces {
			k := slices.IndexFunc(pieces, func(known lesson.Piece) bool { return known.Key == p.Key() })
			if k < 0 {
				k = len(pieces)
				pieces = append(pieces, newLessonPiece(at, x, p, steps))
			}
			known := &pieces[k]
			known.Tempo = min(known.Tempo, x.Tempo)
			known.Lips = known.Lips || tab.Instrument.LipsTire()
			for _, student := range Playing(at.Students) {
				if student.Instrument == tab.ID {
					standing := standings[store.Task{Student: student.ID, Exercise: exercise}]
					known.States = append(known.States, InStepsOf(steps, at.RoutineOf(student), standing, p.Key()))
				}
			}
		}
	})
	return pieces, err
}

func newLessonPiece(at Choice, x Explained, p breakdown.Piece, steps routine.Routine) lesson.Piece {
	part, played := x.Report.Part, p.Played(x.Report.Part)
	piece := lesson.Piece{
		Exercise: int64(at.Exercise.ID), Number: at.Exercise.Number, Title: at.Exercise.Title, Key: p.Key(), Label: p.Label, Steps: steps,
		Beats: breakdown.Beats(part, played), Notes: len(play.RoundOf(part, played).Notes), Tempo: x.Tempo,
	}
	for _, cue := range CountOff(x, p.Passages(part)) {
		if cue.Beat {
			piece.CountOff++
		}
	}
	return piece
}

// InStepsOf is where somebody stands who may follow another routine, as a stage of the
// class's.
func InStepsOf(class, theirs routine.Routine, standing *progress.Standing, key breakdown.PieceKey) routine.State {
	state := standing.State(theirs, key)
	if class.Index(state.Stage) >= 0 {
		return state
	}
	like, has := class.Like(theirs.Step(state.Stage))
	if !has {
		like = class.First()
	}
	state.Stage = like
	return state
}

// LessonWants is what a lesson is to be made of.
type LessonWants struct{ Left, Begun, Next, Known bool }

// mostBegun is how many exercises that are begun go into a lesson: those worked at last.
const mostBegun = 3

// ProposeLesson lays out a lesson for a section.
func ProposeLesson(ctx context.Context, desk *Class, section store.SectionID, minutes int, wants LessonWants) (lesson.Plan, error) {
	standings, err := desk.SectionStandings(ctx, section)
	if err != nil {
		return lesson.Plan{}, err
	}
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return lesson.Plan{}, err
	}
	var left []lesson.Step
	if wants.Left {
		if left, err = leftOver(ctx, desk, section); err != nil {
			return lesson.Plan{}, err
		}
	}
	var begun, next []lesson.Piece
	var known *lesson.Piece
	recent := RecentFirst(exercises, standings)
	for _, x := range recent {
		if len(begun) > 0 && known != nil || !wants.Begun && !wants.Known {
			break
		}
		pieces, err := LessonPieces(ctx, desk, section, x.ID, standings)
		if err != nil {
			return lesson.Plan{}, fmt.Errorf("lay out exercise %d: %w", x.Number, err)
		}
		whole := pieces[len(pieces)-1]
		if whole.Stage() == routine.Done && wants.Known && known == nil {
			known = &whole
		}
		if wants.Begun && exercisesIn(begun) < mostBegun && whole.Stage() != routine.Done {
			begun = append(begun, pieces...)
		}
	}
	if wants.Next {
		if next, err = nextPieces(ctx, desk, section, standings); err != nil {
			return lesson.Plan{}, err
		}
	}
	slices.SortStableFunc(begun, func(a, b lesson.Piece) int { return cmp.Compare(a.Number, b.Number) })
	return lesson.Propose(minutes, left, begun, next, known), nil
}

func exercisesIn(pieces []lesson.Piece) int {
	seen := map[int64]bool{}
	for _, p := range pieces {
		seen[p.Exercise] = true
	}
	return len(seen)
}

// mostRecent bounds how many exercises a proposal looks into.
const mostRecent = 8

// RecentFirst lists the exercises that the section has tried, the one tried last first.
func RecentFirst(exercises []store.Exercise, standings store.Standings) []store.Exercise {
	last := map[store.ExerciseID]int64{}
	for task, standing := range standings {
		for _, t := range standing.Times {
			last[task.Exercise] = max(last[task.Exercise], t.Last)
		}
	}
	list := slices.DeleteFunc(slices.Clone(exercises), func(x store.Exercise) bool { return last[x.ID] == 0 || x.Unread != "" })
	slices.SortStableFunc(list, func(a, b store.Exercise) int { return cmp.Compare(last[b.ID], last[a.ID]) })
	return list[:min(len(list), mostRecent)]
}

// nextPieces are the pieces of what comes easiest next for the section, in the book it
// works in.
func nextPieces(ctx context.Context, desk *Class, section store.SectionID, standings store.Standings) ([]lesson.Piece, error) {
	exercises, err1 := desk.Exercises(ctx)
	students, err2 := desk.Students(ctx, section)
	if err := errors.Join(err1, err2); err != nil {
		return nil, err
	}
	playing := map[string]int{}
	for _, student := range students {
		playing[student.Instrument]++
	}
	room := Room{Section: store.Section{ID: section}}
	room.AddPlayers(playing, "")
	books, err := WhatNext(ctx, desk, room, exercises)
	if err != nil {
		return nil, err
	}
	var next *NextExercise
	worked := -1
	for _, x := range exercises { // by book, as the Shelf has them
		if b := books[x.BookID]; len(b.Exercises) > 0 && b.Worked > worked {
			next, worked = &b.Exercises[0], b.Worked
		}
	}
	if next == nil {
		return nil, nil
	}
	return LessonPieces(ctx, desk, section, next.ID, standings)
}

// UsualMinutes is how long a lesson is where nothing is known.
const UsualMinutes = 30

// MostLessons is how many lessons the page lists.
const MostLessons = 12

// LessonLink is the address of a page of a lesson.
func LessonLink(l store.Lesson, page string) string {
	return fmt.Sprintf("/lessons/%d%s?section=%d", l.ID, page, l.Section)
}

// FullPlan is what is said of a plan with no room for more steps.
var FullPlan = fmt.Sprintf("A lesson holds at most %d steps.", lesson.MostSteps)

// GoesOnAt is where the class goes on with a piece, from the beginning where it is done.
func GoesOnAt(p lesson.Piece) routine.Stage {
	if at := p.Stage(); at != routine.Done {
		return at
	}
	return p.Steps.First()
}

// lessonEnd is until when what a section tries belongs to a lesson.
func lessonEnd(l store.Lesson) time.Time {
	if l.Ended != nil {
		return *l.Ended
	}
	return time.Now().Add(time.Minute)
}
