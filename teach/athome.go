package teach

import (
	"context"
	"errors"
	"fmt"
	"time"

	"unhurriedbench/core/homeplan"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/store"
)

// LongestWait is how long an answer may have waited without network; what is older counts from
// when it came.
const LongestWait = 14 * 24 * time.Hour

// ChangesOf are what may have been changed from one try to the next, on an instrument.
func ChangesOf(i instrument.Instrument) []string {
	own := "sticks"
	switch {
	case i.Blown:
		own = "air"
	case i.Bowed():
		own = "bow"
	}
	return []string{"slower", "counted", "earlier", own, "nothing"}
}

// PlanLine names a line of a plan in what is ticked.
func PlanLine(i homeplan.Item) string {
	if !i.Kind.OfAChunk() {
		return string(i.Kind)
	}
	line := fmt.Sprintf("%s:%d/%s/%s", i.Kind, i.Step.Exercise, i.Step.Chunk, i.Step.Stage)
	return line[:min(len(line), store.LongestLine)]
}

// LoadOwnPart reads a step's chunk, alone, for a student; known is false where it is not there
// any more, or cannot be read.
func LoadOwnPart(ctx context.Context, desk *Class, reads PartsAtHome, student store.Student,
	step lesson.Step) (part Stand, known bool, err error) {
	read, err := readHome(ctx, desk, reads, student, store.ExerciseID(step.Exercise))
	if errors.Is(err, store.ErrNotFound) {
		return part, false, nil
	}
	if err != nil {
		return part, false, err
	}
	part, known = read.Alone(step)
	return part, known, nil
}

// TriesAtHome are a student's tries at home since a day, the oldest first.
func TriesAtHome(ctx context.Context, desk *Class, student store.StudentID, since time.Time) ([]store.HomeTry, error) {
	tries, err := desk.HomeTries(ctx, 0, student, since)
	return tries[student], err
}
