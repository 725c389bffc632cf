package teach

import (
	"slices"
	"strconv"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
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
	case !slices.Contains(outline.Chunks, key):
		return stage, NoChunk
	case !has:
		return stage, NoStage
	case theirs.Index(standing.State(theirs, key).Stage) > theirs.Index(stage):
		return stage, PastIt
	}
	return stage, joinsIn
}

// CountStudents is a number of students in words: "3 students".
func CountStudents(n int) string {
	if n == 1 {
		return "one"
	}
	return strconv.Itoa(n)
}
