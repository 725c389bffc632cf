package web

import (
	"fmt"
	"time"

	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// tryView is one line of a log on the page.
type tryView struct {
	store.Attempt
	StageWord string
	Where     string
	Result    string
	When      string
}

func newTryView(a store.Attempt, r routine.Routine) tryView {
	v := tryView{Attempt: a, StageWord: r.Word(a.Stage), Where: a.Piece.Words(), When: when(a.At), Result: "clean"}
	switch {
	case a.Moved:
		v.Result = movedWords
	case !a.Clean:
		v.Result = "stumble, " + string(a.Cause)
	}
	return v
}

// movedWords is the result of a row of the log with which the teacher put a piece somewhere.
const movedWords = "put here by hand"

// when says how long ago, or the day.
func when(at time.Time) string {
	switch ago := time.Since(at); {
	case ago < time.Minute:
		return "just now"
	case ago < time.Hour:
		return fmt.Sprintf("%d min ago", int(ago.Minutes()))
	case ago < 20*time.Hour:
		return fmt.Sprintf("%d h ago", int(ago.Hours()))
	}
	return at.Format("Mon 2 Jan, 15:04")
}
