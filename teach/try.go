package teach

import (
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// LoggedTry is one line of a log on the page.
type LoggedTry struct {
	store.Attempt
	StageWord string
	Where     string
	Result    string
	When      string
}

// NewLoggedTry is a row of the log in words.
func NewLoggedTry(a store.Attempt, r routine.Routine) LoggedTry {
	v := LoggedTry{Attempt: a, StageWord: r.Word(a.Stage), Where: a.Chunk.Words(), When: When(a.At), Result: "clean"}
	switch {
	case a.Moved:
		v.Result = MovedWords
	case !a.Clean:
		v.Result = "stumble, " + string(a.Cause)
	}
	return v
}

// MovedWords is the result of a row of the log with which the teacher put a chunk somewhere.
const MovedWords = "put here by hand"
