package teach

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// Record is a student's log, exercise by exercise.
type Record struct {
	Student    store.Student
	Guest      store.Guest // of a colleague in a class they were given
	Instrument instrument.Instrument
	Exercises  []recordExercise
	Only       store.ExerciseID // show this exercise alone; 0 shows all
	Next       []HelpCard       // what to do next, and why; on a page of its own
	InBook     *NextExercise    // the next number in their book, nil where there is none
	Page       bool             // it is a page of its own, not a part of the Board
	Also       *playedToo       // the other instrument, nil for none
	Depth      studentDepth     // on a page of its own
	Home       homeDone         // on a page of its own
	Cards      homeCards        // on a page of its own
	Open       bool             // the plain logs are shown, as after a try was taken back there
}

// MayMark says whether who looks may take tries back.
func (v Record) MayMark() bool { return v.Guest.MayMark() }

type recordExercise struct {
	store.Exercise
	Routine routine.Routine // that the student follows there
	Cells   []routine.Cell
	Word    string
	Chunks  []recordChunk
	Tries   []LoggedTry // newest first
	Tempo   TempoPlot
}

// recordChunk is what was done at one chunk, day by day.
type recordChunk struct {
	Name  string // "B, m. 3–4"
	Key   breakdown.ChunkKey
	State routine.State
	Stuck string // "3 stumbles, rhythm, since yesterday"
	Days  []recordDay
}

// recordDay is a day's tries at a chunk, in a line.
type recordDay struct{ Day, Line string }

// LoadRecord reads the record of a student: all exercises, or one alone where only names it.
func LoadRecord(ctx context.Context, desk *Class, student store.StudentID, only store.ExerciseID) (Record, error) {
	v := Record{Only: only, Guest: desk.Guest()}
	var err error
	if v.Student, err = desk.StudentByID(ctx, student); err != nil {
		return v, err
	}
	v.Instrument, _ = instrument.ByID(v.Student.Instrument)
	if v.Also, err = otherInstrument(ctx, desk, v.Student); err != nil {
		return v, err
	}
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return v, fmt.Errorf("show a student's history: %w", err)
	}
	own, err := desk.OwnOutlines(ctx)
	if err != nil {
		return v, err
	}
	log, err := desk.StudentAttempts(ctx, student)
	if err != nil {
		return v, err
	}
	standings, err := desk.StudentStandings(ctx, student)
	if err != nil {
		return v, err
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		return v, err
	}
	tries := map[store.ExerciseID][]LoggedTry{}
	for _, a := range log {
		tries[a.ExerciseID] = append(tries[a.ExerciseID], NewLoggedTry(a, rules.For(student, a.ExerciseID)))
	}
	if only == 0 {
		v.Next = nextFor(ClassWork{[]store.Student{v.Student}, exercises, own, rules}, v.Student, standings, log, desk.Now())
		reads, err := NewPartReader(ctx, desk, v.Student)
		if err != nil {
			return v, err
		}
		if err := addWhere(ctx, desk, reads, v.Next); err != nil {
			return v, err
		}
		if v.Home, err = loadHomeDone(ctx, desk, v.Student, nil, log); err != nil {
			return v, err
		}
		answers, err := desk.CardAnswers(ctx, student, v.Student.Instrument)
		if err != nil {
			return v, err
		}
		if v.Cards, err = newHomeCards(answers, desk.Now()); err != nil {
			return v, err
		}
		if err := addDepth(ctx, desk, &v, reads, exercises, standings, own, rules, tries); err != nil {
			return v, err
		}
	}
	for _, x := range exercises {
		if len(tries[x.ID]) == 0 && x.ID != only || only != 0 && x.ID != only {
			continue
		}
		outline := own.Of(x, v.Student.Instrument)
		chunks := outline.Chunks
		at := standings[store.Task{Student: student, Exercise: x.ID}]
		steps, word := rules.For(student, x.ID), ""
		if stage := at.Stage(steps, chunks); stage != "" {
			word = steps.Word(stage)
		}
		v.Exercises = append(v.Exercises, recordExercise{
			x, steps, at.Cells(steps, chunks), word, recordChunks(steps, outline, at, tries[x.ID], desk.Now()), tries[x.ID],
			NewTempoPlot(tries[x.ID], desk.Now()),
		})
	}
	return v, nil
}

// mostNextFor is how many things to do next a student's page names.
const mostNextFor = 3

// nextFor says what a student should do next: what they need help with, and after it the first
// chunk in learning order that is begun or comes next of each exercise they have begun and not
// done, the one tried last first.
func nextFor(w ClassWork, student store.Student, standings store.Standings, log []store.Attempt,
	now time.Time) []HelpCard {
	var cards []HelpCard
	oldest := slices.Clone(log)
	slices.Reverse(oldest)
	need, stuck := needOf(w, student, oldest, now)
	if stuck {
		cards = append(cards, NeedCard(w, student, need, standings[store.Task{Student: student.ID,
			Exercise: store.ExerciseID(need.Exercise)}], now))
	}
	for _, x := range RecentFirst(w.Exercises, standings) {
		standing, outline := standings[store.Task{Student: student.ID, Exercise: x.ID}], w.Own.Of(x, student.Instrument)
		steps := w.Rules.For(student.ID, x.ID)
		if len(cards) == mostNextFor {
			break
		}
		if standing.Done(steps, outline.Chunks) || stuck && int64(x.ID) == need.Exercise {
			continue
		}
		for _, key := range outline.Chunks {
			if state := standing.State(steps, key); state.Stage != routine.Done {
				cards = append(cards, newCard(student, x, steps, outline, standing, key, state.Stage))
				break
			}
		}
	}
	return cards
}

// recordChunks gathers tries, newest first, by the chunk they were at, in the order of
// learning, and by the day.
func recordChunks(r routine.Routine, outline breakdown.Outline, at *progress.Standing,
	tries []LoggedTry, now time.Time) []recordChunk {
	byChunk := map[breakdown.ChunkKey][]LoggedTry{}
	keys := slices.Clone(outline.Chunks)
	for _, t := range tries {
		if !slices.Contains(keys, t.Chunk) { // of an earlier cut
			keys = append(keys, t.Chunk)
		}
		if !t.Undone {
			byChunk[t.Chunk] = append(byChunk[t.Chunk], t)
		}
	}
	var list []recordChunk
	for _, key := range keys {
		if len(byChunk[key]) == 0 {
			continue
		}
		p := recordChunk{Name: key.Words(), Key: key, State: at.State(r, key), Days: recordDays(byChunk[key], now)}
		if label := outline.Label(key); label != "" {
			p.Name = label + ", " + p.Name
		}
		if p.State.InTrouble() {
			p.Stuck = troubleWords(p.State) + ", since " + Day(time.Unix(at.Times[key].Trouble, 0), now)
		}
		list = append(list, p)
	}
	return list
}

// recordDays tells tries, newest first, a line a day, the latest day first: "Count:
// clean twice; Name: stumble, rhythm".
func recordDays(tries []LoggedTry, now time.Time) []recordDay {
	var days []recordDay
	for _, made := range runsOf(tries, func(a, b LoggedTry) bool { return Day(a.At, now) == Day(b.At, now) }) {
		days = append(days, recordDay{Day(made[0].At, now), dayLine(made)})
	}
	return days
}

// dayLine tells tries, newest first, in the order they were made, those that are alike
// together.
func dayLine(tries []LoggedTry) string {
	var words []string
	for _, alike := range slices.Backward(runsOf(tries, func(a, b LoggedTry) bool { return a.Try == b.Try })) {
		run := alike[0].StageWord + " " + alike[0].Result
		if n := len(alike); n > 1 {
			run += fmt.Sprintf(" × %d", n)
		}
		words = append(words, run)
	}
	return strings.Join(words, "; ")
}

// runsOf parts tries where one is not like the one before it.
func runsOf(tries []LoggedTry, alike func(a, b LoggedTry) bool) [][]LoggedTry {
	var runs [][]LoggedTry
	from := 0
	for at := range tries {
		if at+1 == len(tries) || !alike(tries[at], tries[at+1]) {
			runs = append(runs, tries[from:at+1])
			from = at + 1
		}
	}
	return runs
}
