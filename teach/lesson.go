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

// LessonChunks lays out the chunks of an exercise for a whole class: at the tempo that
// the hardest place of everybody's allows, and with where each one stands.
func LessonChunks(ctx context.Context, desk *Class, class store.ClassID, exercise store.ExerciseID,
	standings store.Standings) ([]lesson.Chunk, error) {
	var chunks []lesson.Chunk
	_, err := ExplainEach(ctx, desk, Request{Exercise: exercise, Class: class}, Choice.Plays,
		func(at Choice, tab InstrumentTab, x Explained, _ Settings) {
			steps := at.Rules.In(store.Chooser{Exercise: exercise, Class: class}).Steps
			for _, p := range x.Report.Chunks {
				k := slices.IndexFunc(chunks, func(known lesson.Chunk) bool { return known.Key == p.Key() })
				if k < 0 {
					k = len(chunks)
					chunks = append(chunks, newLessonChunk(at, x, p, steps))
				}
				known := &chunks[k]
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
	return chunks, err
}

func newLessonChunk(at Choice, x Explained, p breakdown.Chunk, steps routine.Routine) lesson.Chunk {
	part, played := x.Report.Part, p.Played(x.Report.Part)
	chunk := lesson.Chunk{
		Exercise: int64(at.Exercise.ID), Number: at.Exercise.Number, Title: at.Exercise.Title, Key: p.Key(),
		Label: p.Label, Steps: steps,
		Beats: breakdown.Beats(part, played), Notes: len(play.RoundOf(part, played).Notes), Tempo: x.Tempo,
	}
	for _, cue := range CountOff(x, p.Passages(part)) {
		if cue.Beat {
			chunk.CountOff++
		}
	}
	return chunk
}

// InStepsOf is where somebody stands who may follow another routine, as a stage of the
// class's.
func InStepsOf(class, theirs routine.Routine, standing *progress.Standing, key breakdown.ChunkKey) routine.State {
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

// ProposeLesson lays out a lesson for a class.
func ProposeLesson(ctx context.Context, desk *Class, class store.ClassID, minutes int,
	wants LessonWants) (lesson.Plan, error) {
	standings, err := desk.ClassStandings(ctx, class)
	if err != nil {
		return lesson.Plan{}, err
	}
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return lesson.Plan{}, err
	}
	var left []lesson.Step
	if wants.Left {
		if left, err = leftOver(ctx, desk, class); err != nil {
			return lesson.Plan{}, err
		}
	}
	var begun, next []lesson.Chunk
	var known *lesson.Chunk
	recent := RecentFirst(exercises, standings)
	for _, x := range recent {
		if len(begun) > 0 && known != nil || !wants.Begun && !wants.Known {
			break
		}
		chunks, err := LessonChunks(ctx, desk, class, x.ID, standings)
		if err != nil {
			return lesson.Plan{}, fmt.Errorf("lay out exercise %d: %w", x.Number, err)
		}
		whole := chunks[len(chunks)-1]
		if whole.Stage() == routine.Done && wants.Known && known == nil {
			known = &whole
		}
		if wants.Begun && exercisesIn(begun) < mostBegun && whole.Stage() != routine.Done {
			begun = append(begun, chunks...)
		}
	}
	if wants.Next {
		if next, err = nextChunks(ctx, desk, class, standings); err != nil {
			return lesson.Plan{}, err
		}
	}
	slices.SortStableFunc(begun, func(a, b lesson.Chunk) int { return cmp.Compare(a.Number, b.Number) })
	return lesson.Propose(minutes, left, begun, next, known), nil
}

func exercisesIn(chunks []lesson.Chunk) int {
	seen := map[int64]bool{}
	for _, p := range chunks {
		seen[p.Exercise] = true
	}
	return len(seen)
}

// mostRecent bounds how many exercises a proposal looks into.
const mostRecent = 8

// RecentFirst lists the exercises that the class has tried, the one tried last first.
func RecentFirst(exercises []store.Exercise, standings store.Standings) []store.Exercise {
	last := map[store.ExerciseID]int64{}
	for task, standing := range standings {
		for _, t := range standing.Times {
			last[task.Exercise] = max(last[task.Exercise], t.Last)
		}
	}
	list := slices.DeleteFunc(slices.Clone(exercises), func(x store.Exercise) bool {
		return last[x.ID] == 0 ||
			x.Unread != ""
	})
	slices.SortStableFunc(list, func(a, b store.Exercise) int { return cmp.Compare(last[b.ID], last[a.ID]) })
	return list[:min(len(list), mostRecent)]
}

// nextChunks are the chunks of what comes easiest next for the class, in the book it
// works in.
func nextChunks(ctx context.Context, desk *Class, class store.ClassID,
	standings store.Standings) ([]lesson.Chunk, error) {
	exercises, err1 := desk.Exercises(ctx)
	students, err2 := desk.Students(ctx, class)
	if err := errors.Join(err1, err2); err != nil {
		return nil, err
	}
	playing := map[string]int{}
	for _, student := range students {
		playing[student.Instrument]++
	}
	room := Room{Class: store.Class{ID: class}}
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
	return LessonChunks(ctx, desk, class, next.ID, standings)
}

// UsualMinutes is how long a lesson is where nothing is known.
const UsualMinutes = 30

// MostLessons is how many lessons the page lists.
const MostLessons = 12

// LessonLink is the address of a page of a lesson.
func LessonLink(l store.Lesson, page string) string {
	return fmt.Sprintf("/lessons/%d%s?class=%d", l.ID, page, l.Class)
}

// FullPlan is what is said of a plan with no room for more steps.
var FullPlan = fmt.Sprintf("A lesson holds at most %d steps.", lesson.MostSteps)

// GoesOnAt is where the class goes on with a chunk, from the beginning where it is done.
func GoesOnAt(p lesson.Chunk) routine.Stage {
	if at := p.Stage(); at != routine.Done {
		return at
	}
	return p.Steps.First()
}

// lessonEnd is until when what a class tries belongs to a lesson.
func lessonEnd(l store.Lesson, now time.Time) time.Time {
	if l.Ended != nil {
		return *l.Ended
	}
	return now.Add(time.Minute)
}
