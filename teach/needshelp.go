package teach

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// Needs are what the students of a class need help with, each one thing.
type Needs map[store.StudentID]progress.Need

// ClassNeeds finds what each student of a class needs help with, from the tries of the last
// weeks. A line that a student has done since needs none.
func ClassNeeds(ctx context.Context, desk *Class, w ClassWork, class store.ClassID,
	standings store.Standings) (Needs, error) {
	now := desk.Now()
	log, err := desk.RecentAttempts(ctx, class, now.AddDate(0, 0, -progress.NeedDays))
	if err != nil {
		return nil, err
	}
	tries := map[store.StudentID][]store.Attempt{}
	for _, a := range log {
		tries[a.StudentID] = append(tries[a.StudentID], a)
	}
	needs := Needs{}
	for _, student := range w.Students {
		need, ok := needOf(w, student, tries[student.ID], now)
		at := store.ExerciseID(need.Exercise)
		if ok && (need.Habit || !standings[store.Task{Student: student.ID, Exercise: at}].Done(w.Rules.For(student.ID, at),
			w.chunksOf(at, student.Instrument))) {
			needs[student.ID] = need
		}
	}
	return needs, nil
}

// chunksOf are the chunks of an exercise as an instrument has them.
func (w ClassWork) chunksOf(id store.ExerciseID, instrument string) []breakdown.ChunkKey {
	k := slices.IndexFunc(w.Exercises, func(x store.Exercise) bool { return x.ID == id })
	return w.Own.Of(w.Exercises[k], instrument).Chunks
}

// needOf is what a student needs help with, from their tries, oldest first.
func needOf(w ClassWork, student store.Student, log []store.Attempt, now time.Time) (progress.Need, bool) {
	units := map[store.ExerciseID]breakdown.Outline{}
	for _, x := range w.Exercises {
		units[x.ID] = w.Own.Of(x, student.Instrument)
	}
	var tries []progress.Heard
	for _, a := range log {
		outline, there := units[a.ExerciseID]
		if a.Moved || a.Undone || !there || !outline.Unit(a.Chunk) { // of what is not there any more
			continue
		}
		tries = append(tries, progress.Heard{Exercise: int64(a.ExerciseID), Unit: a.Chunk, Stage: a.Stage,
			Form: w.Rules.For(student.ID, a.ExerciseID).Step(a.Stage).Form(), Clean: a.Clean, Cause: a.Cause,
			At: a.At.Unix(), Day: DayNumber(a.At)})
	}
	return progress.NeedOf(tries, DayNumber(now))
}

// HelpCard is somebody who needs help: where to begin, over what, since when, and the way on.
type HelpCard struct {
	Student    store.Student
	Instrument string
	Exercise   store.Exercise
	Where      string        // "m. 3–4", "the line"
	Stage      routine.Stage // whose colour it has
	StageWord  string
	Trouble    string // "rhythm, 4 of the last 8 tries"; "" where nothing is the matter
	Since      string
	Next       string
	Link       string // to the place, at the tempo it was tried last
	WhereLink  string // answers where in the chunk it most likely goes wrong
	Most       string // the answer, where the page has it
	Earlier    bool   // in a line that the class has left
	key        breakdown.ChunkKey
	cause      routine.Cause
	weight     float64
}

// Cause is what most of it is over, in a word.
func (c HelpCard) Cause() string { return string(c.cause) }

// At says where and at which stage: "m. 3–4, Name".
func (c HelpCard) At() string { return c.Where + ", " + c.StageWord }

// newCard is the card of a place at a stage.
func newCard(student store.Student, x store.Exercise, steps routine.Routine, outline breakdown.Outline,
	standing *progress.Standing, key breakdown.ChunkKey, stage routine.Stage) HelpCard {
	state := standing.State(steps, key)
	where := key.Words()
	if !slices.Contains(outline.Chunks, key) { // joined chunks open with the first of them
		for _, part := range outline.Parts() {
			if outline.Contains(key, part) {
				key = part
				break
			}
		}
	}
	c := HelpCard{
		Student: student, Instrument: InstrumentName(student.Instrument), Exercise: x, Where: where,
		Stage: steps.Step(stage).Form(), StageWord: steps.Word(stage), key: key,
		Link: fmt.Sprintf("/bench/%d?student=%d&class=%d&chunk=%s", x.ID, student.ID, student.ClassID, key),
	}
	if n := len(outline.Chunks); n > 0 && outline.Chunks[n-1] == key {
		c.Where = "the line"
	}
	c.Next = c.StageWord + " it"
	if stage == routine.Play {
		c.Next = "Practice it"
	}
	if standing != nil {
		if tempo := state.NextTempo(standing.Times[key].Tempo); tempo > 0 {
			c.Link += fmt.Sprintf("&tempo=%d", tempo)
			c.Next += fmt.Sprintf(" at %d", tempo)
		}
	}
	return c
}

// NeedCard is the card of what a student needs help with.
func NeedCard(w ClassWork, student store.Student, n progress.Need, standing *progress.Standing, now time.Time) HelpCard {
	k := slices.IndexFunc(w.Exercises, func(x store.Exercise) bool { return int64(x.ID) == n.Exercise })
	x := w.Exercises[k]
	steps := w.Rules.For(student.ID, x.ID)
	stage := n.Stage
	if at := steps.Mends(n.Cause); steps.Index(at) < steps.Index(stage) {
		stage = at
	}
	c := newCard(student, x, steps, w.Own.Of(x, student.Instrument), standing, n.Unit, stage)
	c.cause, c.weight = n.Cause, n.Weight
	c.Trouble = fmt.Sprintf("%s, %d of the last %d tries", n.Cause, n.Stumbles, n.Of)
	if n.Stumbles == n.Of {
		c.Trouble = fmt.Sprintf("%s, %d tries running", n.Cause, n.Stumbles)
	}
	if n.Habit {
		c.Trouble += " at " + w.Rules.For(student.ID, x.ID).Word(n.Stage)
	}
	c.Since = Day(time.Unix(n.Since, 0).In(now.Location()), now)
	c.WhereLink = fmt.Sprintf("/board/where?class=%d&student=%d&exercise=%d&chunk=%s&cause=%s", student.ClassID, student.ID,
		x.ID, n.Unit, n.Cause)
	return c
}

// SharedCard is what several need help with together.
type SharedCard struct {
	HelpCard // of one of them
	Students []store.Student
}

// Count is how many they are.
func (c SharedCard) Count() int { return len(c.Students) }

// Names are their names: "Odette V., Marlo D.".
func (c SharedCard) Names() string {
	var names []string
	for _, s := range c.Students {
		names = append(names, s.Name())
	}
	return strings.Join(names, ", ")
}

// Chunk is the chunk in an address.
func (c SharedCard) Chunk() string { return c.key.String() }

// AbsentCard is a student who was absent often, with the lines they missed.
type AbsentCard struct {
	Student    store.Student
	Instrument string
	Missed     []store.Exercise
	Lessons    int // of the last LessonsBack they were absent from
}

// Lines name what was missed: "4 · Slow Tide and 5 · Rain on the Roof".
func (c AbsentCard) Lines() string {
	var names []string
	for _, x := range c.Missed {
		names = append(names, x.Name())
	}
	if last := len(names) - 1; last > 0 {
		return strings.Join(names[:last], ", ") + " and " + names[last]
	}
	return strings.Join(names, "")
}

// Who was absent from often of the last lessons is told of, with at most so many of the lines
// they missed. The figures are ours.
const (
	LessonsBack = 4
	often       = 2
	mostMissed  = 3
)

// Help is who in a class needs help: those who share a trouble, those who have one alone, who was
// absent, and earlier trouble with lines that the class has left.
type Help struct {
	Shared  []SharedCard
	Cards   []HelpCard
	Absent  []AbsentCard
	Earlier []HelpCard
}

// Students is how many students there are cards of, but for earlier trouble.
func (h Help) Students() int {
	n := len(h.Cards) + len(h.Absent)
	for _, s := range h.Shared {
		n += len(s.Students)
	}
	return n
}

// IsEarlier says whether a student's trouble is with a line that the class has left.
func (h Help) IsEarlier(student store.StudentID) bool {
	return slices.ContainsFunc(h.Earlier, func(c HelpCard) bool { return c.Student.ID == student })
}

// ClassHelp says who in a class needs help, one card a student.
func ClassHelp(ctx context.Context, desk *Class, w ClassWork, class store.ClassID, standings store.Standings,
	needs Needs) (Help, error) {
	var h Help
	now := desk.Now()
	by := map[store.StudentID]store.Student{}
	plain := map[int64]progress.Need{}
	for _, s := range w.Students {
		by[s.ID] = s
		if n, is := needs[s.ID]; is {
			plain[int64(s.ID)] = n
		}
	}
	card := func(id store.StudentID) HelpCard {
		n := needs[id]
		return NeedCard(w, by[id], n, standings[store.Task{Student: id, Exercise: store.ExerciseID(n.Exercise)}], now)
	}
	told := map[store.StudentID]bool{}
	age := func(n progress.Need) int { return DayNumber(now) - DayNumber(time.Unix(n.Since, 0).In(now.Location())) }
	for _, ids := range progress.SharedNeeds(plain, age) {
		shared := SharedCard{HelpCard: card(store.StudentID(ids[0]))}
		for _, id := range ids {
			told[store.StudentID(id)] = true
			shared.Students = append(shared.Students, by[store.StudentID(id)])
		}
		h.Shared = append(h.Shared, shared)
	}
	left := classHasLeft(w, standings)
	for _, s := range w.Students {
		n, is := needs[s.ID]
		if !is || told[s.ID] {
			continue
		}
		c := card(s.ID)
		if c.Earlier = !n.Habit && left[c.Exercise.ID]; c.Earlier {
			h.Earlier = append(h.Earlier, c)
		} else {
			told[s.ID] = true
			h.Cards = append(h.Cards, c)
		}
	}
	worst := func(a, b HelpCard) int { return cmp.Compare(b.weight, a.weight) }
	slices.SortStableFunc(h.Cards, worst)
	slices.SortStableFunc(h.Earlier, worst)
	lessons, err := desk.Lessons(ctx, class, MostLessons)
	if err != nil {
		return h, err
	}
	for _, a := range absentees(w, standings, lessons) {
		if !told[a.Student.ID] {
			h.Absent = append(h.Absent, a)
		}
	}
	return h, nil
}

// classHasLeft are the lines that most of a class have done.
func classHasLeft(w ClassWork, standings store.Standings) map[store.ExerciseID]bool {
	done := map[store.ExerciseID]int{}
	players := Playing(w.Students)
	for _, s := range players {
		for _, x := range w.Exercises {
			if standings[store.Task{Student: s.ID, Exercise: x.ID}].Done(w.Rules.For(s.ID, x.ID), w.Own.Of(x, s.Instrument).Chunks) {
				done[x.ID]++
			}
		}
	}
	left := map[store.ExerciseID]bool{}
	for id, n := range done {
		left[id] = 2*n > len(players)
	}
	return left
}

// absentees are the students who were absent from several of the last lessons, with the lines of
// these that they have not tried since.
func absentees(w ClassWork, standings store.Standings, lessons []store.Lesson) []AbsentCard {
	lessons = slices.DeleteFunc(slices.Clone(lessons), func(l store.Lesson) bool { return l.Ended == nil })
	lessons = lessons[:min(len(lessons), LessonsBack)]
	var list []AbsentCard
	for _, s := range w.Students {
		c := AbsentCard{Student: s, Instrument: InstrumentName(s.Instrument)}
		for _, l := range slices.Backward(lessons) {
			if !slices.Contains(l.Absent, s.ID) || s.Aside {
				continue
			}
			c.Lessons++
			for _, step := range l.Plan.Steps {
				k := slices.IndexFunc(w.Exercises, func(x store.Exercise) bool { return int64(x.ID) == step.Exercise })
				if k < 0 || step.Phase != "new" && step.Phase != "" || step.Warm || len(c.Missed) == mostMissed {
					continue
				}
				x := w.Exercises[k]
				tried := standings[store.Task{Student: s.ID, Exercise: x.ID}]
				if tried == nil && !slices.ContainsFunc(c.Missed, func(m store.Exercise) bool { return m.ID == x.ID }) {
					c.Missed = append(c.Missed, x)
				}
			}
		}
		if c.Lessons >= often && len(c.Missed) > 0 {
			list = append(list, c)
		}
	}
	return list
}

// troubleWords says how often it went wrong and on what most: "3 stumbles, rhythm".
func troubleWords(s routine.State) string {
	return fmt.Sprintf("%d stumbles, %s", s.Stumbles, s.Over.Main())
}
