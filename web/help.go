package web

import (
	"cmp"
	"fmt"
	"slices"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// helpCard is somebody who is stuck: where, on what, since when, and what comes next.
type helpCard struct {
	Student    store.Student
	Instrument instrument.Instrument
	Exercise   store.Exercise
	Piece      string
	Stage      routine.Stage // whose colour it has
	StageWord  string
	Trouble    string // "3 stumbles, rhythm"
	Since      string
	Next       string
	Link       string // to the piece, at the tempo it was tried last
	state      routine.State
	since      int64
}

// helpShown is how many who need help stand above the Board; the others are behind a
// line.
const helpShown = 4

// newHelpCard tells of a piece that somebody is stuck on.
func newHelpCard(r routine.Routine, student store.Student, x store.Exercise, outline breakdown.Outline, at *progress.Standing, key breakdown.PieceKey) helpCard {
	state, times := at.State(r, key), at.Times[key]
	c := helpCard{
		Student: student, Exercise: x, Piece: outline.Label(key), Stage: r.Step(state.Stage).Form(), StageWord: r.Word(state.Stage),
		Trouble: troubleWords(state), Since: day(time.Unix(times.Trouble, 0)), Next: state.Advice, state: state, since: times.Trouble,
		Link: fmt.Sprintf("/bench/%d?student=%d&section=%d&piece=%s", x.ID, student.ID, student.SectionID, key),
	}
	if tempo := state.NextTempo(times.Tempo); tempo > 0 {
		c.Link += fmt.Sprintf("&tempo=%d", tempo)
		c.Next += fmt.Sprintf(" At %d.", tempo)
	}
	c.Instrument, _ = instrument.ByID(student.Instrument)
	return c
}

// troubleWords says how often it went wrong and on what most: "3 stumbles, rhythm".
func troubleWords(s routine.State) string {
	return fmt.Sprintf("%d stumbles, %s", s.Stumbles, s.Over.Main())
}

// mostStuckFirst puts who has stumbled most first, of two alike who has for longer.
func mostStuckFirst(cards []helpCard) {
	slices.SortStableFunc(cards, func(a, b helpCard) int {
		return cmp.Or(b.state.Stumbles-a.state.Stumbles, cmp.Compare(a.since, b.since))
	})
}

// day is a date as a teacher says it: "today", "yesterday", "Tue 24 Nov".
func day(at time.Time) string {
	now := time.Now()
	switch days := int(dateOf(now).Sub(dateOf(at)).Hours() / 24); days {
	case 0:
		return "today"
	case 1:
		return "yesterday"
	}
	return at.Format("Mon 2 Jan")
}

func dateOf(t time.Time) time.Time {
	return time.Date(t.Year(), t.Month(), t.Day(), 0, 0, 0, 0, time.UTC)
}
