package teach

import (
	"fmt"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// joinsAs is how a student joins in what a class is marked for together.
type joinsAs int

const (
	joinsIn joinsAs = iota
	NoChunk         // their own part has no such chunk
	NoStage         // their routine has no stage like it
	PastIt          // they have gone on past it, and a clean try would send them back
)

// Joins finds the stage of a student's own routine that is like a class's, and how they join
// in at it.
func Joins(theirs routine.Routine, class routine.Step, outline breakdown.Outline, standing *progress.Standing,
	key breakdown.ChunkKey) (routine.Stage, joinsAs) {
	stage, has := theirs.Like(class)
	switch {
	case !outline.Unit(key):
		return stage, NoChunk
	case !has:
		return stage, NoStage
	case theirs.Index(standing.State(theirs, key).Stage) > theirs.Index(stage):
		return stage, PastIt
	}
	return stage, joinsIn
}

// marking is one student at an exercise that a class is marked for.
type marking struct {
	student  store.Student
	steps    routine.Routine
	outline  breakdown.Outline
	standing *progress.Standing
}

// joins is how the student joins in at a part of a step.
func (at marking) joins(p lesson.Part) (routine.Stage, joinsAs) {
	return Joins(at.steps, routine.Step{Stage: p.Stage, Kind: p.Form}, at.outline, at.standing, p.Chunk)
}

// attempt is a try at a part of a step.
func (at marking) attempt(x store.ExerciseID, step lesson.Step, p lesson.Part, try routine.Try) store.Attempt {
	return store.Attempt{StudentID: at.student.ID, ExerciseID: x, Chunk: p.Chunk, Try: try, Tempo: step.Tempo}
}

// Behind are the names of students who were marked at a stage, by the stage before it that
// they have not earned yet, in the order in which they were added.
type Behind struct {
	words []string // of the stages
	names map[string][]string
}

// Add notes a student who was marked at a stage of their routine.
func (b *Behind) Add(name string, theirs routine.Routine, state routine.State, stage routine.Stage) {
	if theirs.Index(state.Stage) >= theirs.Index(stage) {
		return
	}
	word := theirs.Word(state.Stage)
	if b.names == nil {
		b.names = map[string][]string{}
	}
	if b.names[word] == nil {
		b.words = append(b.words, word)
	}
	b.names[word] = append(b.names[word], name)
}

// Said tells who they are, a sentence for each stage: "2 have not earned Count yet: …".
func (b Behind) Said() []string {
	var list []string
	for _, word := range b.words {
		names, has := b.names[word], "have"
		if len(names) == 1 {
			has = "has"
		}
		list = append(list, fmt.Sprintf("%s %s not earned %s yet: %s.", CountStudents(len(names)), has, word,
			strings.Join(names, ", ")))
	}
	return list
}

// CountStudents is a number of students in words: "3 students".
func CountStudents(n int) string {
	if n == 1 {
		return "one"
	}
	return strconv.Itoa(n)
}
