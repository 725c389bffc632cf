package teach

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

// Stuck is a chunk that somebody is stuck on. There may be thousands on a Board, of which
// few are listed.
type Stuck struct {
	Student  *store.Student
	exercise *store.Exercise
	steps    routine.Routine
	state    routine.State
	chunk    breakdown.ChunkKey
	label    string // of the chunk
	times    progress.Times
}

// NewStuck is where a student stands on a chunk.
func NewStuck(student *store.Student, x *store.Exercise, steps routine.Routine, outline breakdown.Outline,
	at *progress.Standing, key breakdown.ChunkKey) Stuck {
	return Stuck{student, x, steps, at.State(steps, key), key, outline.Label(key), at.Times[key]}
}

// Words say it in the student's cell: "A: Count · 3 stumbles, rhythm".
func (s Stuck) Words() string {
	return s.label + ": " + s.steps.Word(s.state.Stage) + " · " + troubleWords(s.state)
}

// Trouble is it as what several may share.
func (s Stuck) Trouble() progress.Trouble {
	return progress.Trouble{
		Student: int64(s.Student.ID), Instrument: s.Student.Instrument, Exercise: int64(s.exercise.ID),
		Chunk: s.chunk, Form: s.steps.Step(s.state.Stage).Form(),
		Cause: s.state.Over.Main(), Stumbles: s.state.Stumbles, Since: s.times.Trouble,
	}
}

// HelpCard is somebody who is stuck: where, on what, since when, and what comes next.
type HelpCard struct {
	Student    store.Student
	Instrument string
	Exercise   store.Exercise
	Chunk      string
	Stage      routine.Stage // whose colour it has
	StageWord  string
	Trouble    string // "3 stumbles, rhythm"
	Since      string
	Next       string
	Link       string // to the chunk, at the tempo it was tried last
	WhereLink  string // answers where in the chunk it most likely goes wrong
	Where      string // the answer, where the page has it
	key        breakdown.ChunkKey
	cause      routine.Cause
}

// Card tells of it as it is now.
func (s Stuck) Card(now time.Time) HelpCard {
	c := HelpCard{
		Student: *s.Student, Instrument: InstrumentName(s.Student.Instrument), Exercise: *s.exercise, Chunk: s.label,
		Stage: s.steps.Step(s.state.Stage).Form(), StageWord: s.steps.Word(s.state.Stage),
		Trouble: troubleWords(s.state), Since: Day(time.Unix(s.times.Trouble, 0), now), Next: nextWords(s.steps, s.state),
		key: s.chunk, cause: s.state.Over.Main(),
		Link: fmt.Sprintf("/bench/%d?student=%d&class=%d&chunk=%s", s.exercise.ID, s.Student.ID, s.Student.ClassID, s.chunk),
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

// whereLink is the address that says where in the chunk it most likely goes wrong.
func (s Stuck) whereLink() string {
	return fmt.Sprintf("/board/where?class=%d&student=%d&exercise=%d&chunk=%s", s.Student.ClassID, s.Student.ID,
		s.exercise.ID, s.chunk)
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

// SharedCard is what several are stuck on together.
type SharedCard struct {
	progress.Shared
	Names       string // "Odette V., Marlo D."
	Instruments string // "clarinet, violin"
	Exercise    store.Exercise
	Label       string // of the chunk
	Over        string // "the note names"
	Since       string
	WhereLink   string // as of a helpCard, of one of them, where it is alike for all
}

// Count is how many they are.
func (c SharedCard) Count() int { return len(c.Students) }

// SharedShown is how much of what is shared stands above the Board.
const SharedShown = 2

// NewSharedCard is the card of what several are stuck on together.
func NewSharedCard(s progress.Shared, list []Stuck, now time.Time) SharedCard {
	card := SharedCard{Shared: s, Over: s.Cause.Words(), Since: Day(time.Unix(s.Since, 0), now)}
	var names, on []string
	for _, at := range list {
		if int64(at.exercise.ID) == s.Exercise && at.chunk == s.Chunk && slices.Contains(s.Students, int64(at.Student.ID)) {
			names = append(names, at.Student.Name())
			card.Exercise, card.Label = *at.exercise, at.label
		}
	}
	for _, id := range s.Instruments {
		on = append(on, InstrumentName(id))
	}
	if len(s.Instruments) == 1 || s.Cause == routine.Rhythm {
		for _, at := range list {
			if int64(at.Student.ID) == s.Students[0] && int64(at.exercise.ID) == s.Exercise && at.chunk == s.Chunk {
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

// MostStuckFirst puts who has stumbled most first, of two alike who has for longer.
func MostStuckFirst(list []Stuck) {
	slices.SortStableFunc(list, func(a, b Stuck) int {
		return cmp.Or(b.state.Stumbles-a.state.Stumbles, cmp.Compare(a.times.Trouble, b.times.Trouble))
	})
}
