package web

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// stuckAt is a piece that somebody is stuck on. There may be thousands on a Board, of which
// few are told of.
type stuckAt struct {
	student  *store.Student
	exercise *store.Exercise
	steps    routine.Routine
	state    routine.State
	piece    breakdown.PieceKey
	label    string // of the piece
	times    progress.Times
}

func newStuckAt(student *store.Student, x *store.Exercise, steps routine.Routine, outline breakdown.Outline, at *progress.Standing, key breakdown.PieceKey) stuckAt {
	return stuckAt{student, x, steps, at.State(steps, key), key, outline.Label(key), at.Times[key]}
}

// words say it in the student's cell: "A: Count · 3 stumbles, rhythm".
func (s stuckAt) words() string {
	return s.label + ": " + s.steps.Word(s.state.Stage) + " · " + troubleWords(s.state)
}

// trouble is it as what several may share.
func (s stuckAt) trouble() progress.Trouble {
	return progress.Trouble{
		Student: int64(s.student.ID), Instrument: s.student.Instrument, Exercise: int64(s.exercise.ID), Piece: s.piece, Form: s.steps.Step(s.state.Stage).Form(),
		Cause: s.state.Over.Main(), Stumbles: s.state.Stumbles, Since: s.times.Trouble,
	}
}

// helpCard is somebody who is stuck: where, on what, since when, and what comes next.
type helpCard struct {
	Student    store.Student
	Instrument string
	Exercise   store.Exercise
	Piece      string
	Stage      routine.Stage // whose colour it has
	StageWord  string
	Trouble    string // "3 stumbles, rhythm"
	Since      string
	Next       string
	Link       string // to the piece, at the tempo it was tried last
	WhereLink  string // answers where in the piece it most likely goes wrong
	Where      string // the answer, where the page has it
	key        breakdown.PieceKey
	cause      routine.Cause
}

const (
	// helpShown is how many who need help stand above the Board; the others are behind a line.
	helpShown = 4
	// mostHelp is how many cards stand behind that line; the table has all.
	mostHelp = 40
)

// card tells of it.
func (s stuckAt) card() helpCard {
	c := helpCard{
		Student: *s.student, Instrument: instrumentName(s.student.Instrument), Exercise: *s.exercise, Piece: s.label, Stage: s.steps.Step(s.state.Stage).Form(), StageWord: s.steps.Word(s.state.Stage),
		Trouble: troubleWords(s.state), Since: day(time.Unix(s.times.Trouble, 0)), Next: nextWords(s.steps, s.state),
		key: s.piece, cause: s.state.Over.Main(),
		Link: fmt.Sprintf("/bench/%d?student=%d&section=%d&piece=%s", s.exercise.ID, s.student.ID, s.student.SectionID, s.piece),
	}
	if s.state.Stuck() {
		c.WhereLink = s.whereLink()
	}
	if tempo := s.state.NextTempo(s.times.Tempo); tempo > 0 {
		c.Link += fmt.Sprintf("&tempo=%d", tempo)
		c.Next += fmt.Sprintf(", at %d", tempo)
	}
	return c
}

// whereLink is the address that says where in the piece it most likely goes wrong.
func (s stuckAt) whereLink() string {
	return fmt.Sprintf("/board/where?section=%d&student=%d&exercise=%d&piece=%s", s.student.SectionID, s.student.ID, s.exercise.ID, s.piece)
}

// nextWords says the one thing to do next in a few words.
func nextWords(r routine.Routine, s routine.State) string {
	at := r.Word(s.Stage)
	switch {
	case s.Fewer:
		return "Fewer notes of it, " + at
	case s.Slower:
		return at + " again, a notch slower"
	}
	return "On the Bench, " + at
}

// sharedCard is what several are stuck on together.
type sharedCard struct {
	progress.Shared
	Names       string // "Odette V., Marlo D."
	Instruments string // "clarinet, violin"
	Exercise    store.Exercise
	Label       string // of the piece
	Over        string // "the note names"
	Since       string
	WhereLink   string // as of a helpCard, of one of them, where it is alike for all
}

// Count is how many they are.
func (c sharedCard) Count() int { return len(c.Students) }

// sharedShown is how much of what is shared stands above the Board.
const sharedShown = 2

// tell puts above the Board what most are stuck on together, and beside it who needs help
// most of the others, each once; the rest is behind a line.
func (v *boardView) tell(list []stuckAt) {
	mostStuckFirst(list)
	troubles := make([]progress.Trouble, len(list))
	for k, s := range list {
		troubles[k] = s.trouble()
	}
	shared := progress.Together(troubles)
	told := map[store.StudentID]bool{}
	for k, s := range shared {
		if k >= sharedShown+mostHelp {
			break
		}
		card := newSharedCard(s, list)
		if k >= sharedShown {
			v.SharedMore = append(v.SharedMore, card)
			continue
		}
		v.Shared = append(v.Shared, card)
		for _, id := range s.Students {
			told[store.StudentID(id)] = true
		}
	}
	v.MoreHelp = max(0, len(shared)-sharedShown)
	for _, s := range list {
		switch {
		case !told[s.student.ID] && len(v.Help)+len(v.Shared) < helpShown:
			told[s.student.ID] = true
			v.Help = append(v.Help, s.card())
			continue
		case len(v.More) < mostHelp:
			v.More = append(v.More, s.card())
		}
		v.MoreHelp++
	}
}

func newSharedCard(s progress.Shared, list []stuckAt) sharedCard {
	card := sharedCard{Shared: s, Over: s.Cause.Words(), Since: day(time.Unix(s.Since, 0))}
	var names, on []string
	for _, at := range list {
		if int64(at.exercise.ID) == s.Exercise && at.piece == s.Piece && slices.Contains(s.Students, int64(at.student.ID)) {
			names = append(names, at.student.Name())
			card.Exercise, card.Label = *at.exercise, at.label
		}
	}
	for _, id := range s.Instruments {
		on = append(on, instrumentName(id))
	}
	if len(s.Instruments) == 1 || s.Cause == routine.Rhythm {
		for _, at := range list {
			if int64(at.student.ID) == s.Students[0] && int64(at.exercise.ID) == s.Exercise && at.piece == s.Piece {
				card.WhereLink = at.whereLink()
			}
		}
	}
	card.Names, card.Instruments = strings.Join(names, ", "), strings.Join(on, ", ")
	return card
}

// troubleWords says how often it went wrong and on what most: "3 stumbles, rhythm".
func troubleWords(s routine.State) string {
	return fmt.Sprintf("%d stumbles, %s", s.Stumbles, s.Over.Main())
}

// mostStuckFirst puts who has stumbled most first, of two alike who has for longer.
func mostStuckFirst(list []stuckAt) {
	slices.SortStableFunc(list, func(a, b stuckAt) int {
		return cmp.Or(b.state.Stumbles-a.state.Stumbles, cmp.Compare(a.times.Trouble, b.times.Trouble))
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
