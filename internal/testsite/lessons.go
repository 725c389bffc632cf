package testsite

import (
	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
)

// LessonOf is a plan with two stages of the first chunk of what somebody has.
func LessonOf(b Belongings, minutes int) lesson.Plan {
	step := lesson.Step{Exercise: int64(b.Exercise), Number: 1, Title: "First Lamp", Chunk: breakdown.ChunkKey{First: 1, Last: 2}, Label: "A",
		Stage: routine.Count, Word: "Count", Form: routine.Count, Times: 2, Tempo: 60, Talk: 20, Beats: 8, CountOff: 4, Notes: 6}
	name := step
	name.Stage, name.Word, name.Form = routine.Name, "Name", routine.Name
	return lesson.Plan{Minutes: minutes, Steps: []lesson.Step{step, name}}
}
