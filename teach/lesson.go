package teach

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/play"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// LessonLine lays out an exercise for a whole class: its chunks at the tempo that the hardest
// place of everybody's allows, with where each student stands and which places are hard for
// this room.
func LessonLine(ctx context.Context, desk *Class, class store.ClassID, exercise store.ExerciseID,
	standings store.Standings) (lesson.Line, error) {
	var b lineBuilder
	_, err := ExplainEach(ctx, desk, Request{Exercise: exercise, Class: class}, Choice.Plays,
		func(at Choice, tab InstrumentTab, x Explained, _ Settings) { b.add(at, tab, x, standings) })
	return b.finish(), err
}

// LessonChunks are the chunks of a LessonLine.
func LessonChunks(ctx context.Context, desk *Class, class store.ClassID, exercise store.ExerciseID,
	standings store.Standings) ([]lesson.Chunk, error) {
	line, err := LessonLine(ctx, desk, class, exercise, standings)
	return line.Chunks, err
}

// lineBuilder puts a line together from what it is for each instrument in the room.
type lineBuilder struct {
	line     lesson.Line
	measures []roomMeasure // by their numbers, as they come
	whole    roomMeasure
}

// roomMeasure is how hard something is for the room.
type roomMeasure struct {
	number     int
	worst, sum float64
	players    int
}

func (m *roomMeasure) add(total float64, players int) {
	m.worst, m.sum, m.players = max(m.worst, total), m.sum+total*float64(players), m.players+players
}

// grade is how hard it is from 0 to 9: the worst off weigh most.
func (m roomMeasure) grade() int {
	return breakdown.Next{Total: 0.6*m.worst + 0.4*m.sum/float64(max(m.players, 1))}.Grade()
}

func (b *lineBuilder) add(at Choice, tab InstrumentTab, x Explained, standings store.Standings) {
	exercise := at.Exercise
	steps := at.Rules.In(store.Chooser{Exercise: exercise.ID, Class: at.Class.ID}).Steps
	b.line.Exercise, b.line.Number, b.line.Title = int64(exercise.ID), exercise.Number, exercise.Title
	outline := breakdown.OutlineOf(x.Report.Part)
	for _, p := range x.Report.Chunks {
		k := slices.IndexFunc(b.line.Chunks, func(known lesson.Chunk) bool { return known.Key == p.Key() })
		if k < 0 {
			k = len(b.line.Chunks)
			b.line.Chunks = append(b.line.Chunks, newLessonChunk(at, x, p, steps))
			b.line.Chunks[k].Same = firstAlike(outline, b.line.Chunks[:k], p.Key())
		} else if known := &b.line.Chunks[k]; !outline.SameMusic(known.Same, p.Key()) {
			known.Same = known.Key
		}
		known := &b.line.Chunks[k]
		known.Tempo = min(known.Tempo, x.Tempo)
		known.Lips = known.Lips || tab.Instrument.LipsTire()
		for _, student := range Playing(at.Students) {
			if student.Instrument == tab.ID {
				standing := standings[store.Task{Student: student.ID, Exercise: exercise.ID}]
				known.States = append(known.States, InStepsOf(steps, at.RoutineOf(student), standing, p.Key()))
			}
		}
	}
	players := max(tab.Students, 1)
	b.whole.add(x.Report.Difficulty.Total, players)
	for _, m := range x.Report.Measures {
		k := slices.IndexFunc(b.measures, func(known roomMeasure) bool { return known.number == m.Number })
		if k < 0 {
			k = len(b.measures)
			b.measures = append(b.measures, roomMeasure{number: m.Number})
		}
		b.measures[k].add(m.Difficulty.Total, players)
	}
}

// firstAlike is the first of some chunks that is the same written music as a chunk, else itself.
func firstAlike(o breakdown.Outline, before []lesson.Chunk, key breakdown.ChunkKey) breakdown.ChunkKey {
	for _, p := range before {
		if o.SameMusic(p.Key, key) {
			return p.Key
		}
	}
	return key
}

// finish says what is hard within the line, and what comes again.
func (b *lineBuilder) finish() lesson.Line {
	if len(b.line.Chunks) == 0 {
		return b.line
	}
	b.line.Grade = b.whole.grade()
	grades := make([]int, len(b.measures))
	for k, m := range b.measures {
		grades[k] = m.grade()
	}
	hard := map[int]bool{}
	for k, is := range lesson.HardWithin(grades) {
		hard[b.measures[k].number] = is
	}
	var again []string
	for k := range b.line.Chunks {
		p := &b.line.Chunks[k]
		for n := p.Key.First; n <= p.Key.Last; n++ {
			p.Hard = p.Hard || hard[n]
		}
		if p.Same != p.Key && !p.Whole() {
			again = append(again, fmt.Sprintf("%s are %s again.", p.Key.Words(), p.Same.Words()))
		}
	}
	b.line.Again = strings.Join(again, " ")
	return b.line
}

func newLessonChunk(at Choice, x Explained, p breakdown.Chunk, steps routine.Routine) lesson.Chunk {
	part, played := x.Report.Part, p.Played(x.Report.Part)
	chunk := lesson.Chunk{
		Exercise: int64(at.Exercise.ID), Number: at.Exercise.Number, Title: at.Exercise.Title, Key: p.Key(),
		Label: p.Label, Steps: steps, Same: p.Key(),
		Beats: breakdown.Beats(part, played), Notes: len(play.RoundOf(part, played).Notes), Tempo: x.Tempo,
	}
	if !p.Whole() && len(x.Report.Chunks) > 1 {
		chunk.Where = strings.ReplaceAll(p.InWords(), ", ", " and ")
	}
	for _, cue := range CountOff(x, p.Passages(part)) {
		if cue.Beat {
			chunk.CountOff++
		}
	}
	return chunk
}

// InStepsOf is where somebody stands who may follow another routine, as a stage of the
// class's.
func InStepsOf(class, theirs routine.Routine, standing *progress.Standing, key breakdown.ChunkKey) routine.State {
	state := standing.State(theirs, key)
	if class.Index(state.Stage) >= 0 {
		return state
	}
	like, has := class.Like(theirs.Step(state.Stage))
	if !has {
		like = class.First()
	}
	state.Stage = like
	return state
}

// LessonWants is what a teacher asks of a lesson.
type LessonWants struct {
	Minutes int
	Chosen  []store.ExerciseID // the lines to be new in it; none for the next in the book
}

// SuggestLesson lays out a lesson for a class as its teacher would: by its shape, its routine
// and unit, from where the class stands and what the last lesson left.
func SuggestLesson(ctx context.Context, desk *Class, class store.Class, asked LessonWants) (lesson.Plan, error) {
	s := suggesting{ctx: ctx, desk: desk, class: class, lines: map[store.ExerciseID]lesson.Line{}}
	if err := s.load(); err != nil {
		return lesson.Plan{}, err
	}
	wants := lesson.Wants{Minutes: asked.Minutes, Shape: class.Shape.Shape, Students: len(Playing(s.students)),
		First: len(s.recent) == 0, Aloud: class.Year <= 1}
	var err error
	if wants.New, err = s.newLines(asked); err != nil {
		return lesson.Plan{}, err
	}
	if err := s.known(&wants); err != nil {
		return lesson.Plan{}, err
	}
	if wants.Repair, err = s.broken(); err != nil {
		return lesson.Plan{}, err
	}
	if wants.Warm, err = s.warmth(wants); err != nil {
		return lesson.Plan{}, err
	}
	if wants.Technique, err = s.technique(class); err != nil {
		return lesson.Plan{}, err
	}
	return lesson.Suggest(wants), nil
}

// technique is the class's own exercise for its warm-up; nil for none, or one that is not there
// any more.
func (s *suggesting) technique(class store.Class) (*lesson.Line, error) {
	if class.Shape.Technique == 0 {
		return nil, nil
	}
	line, err := s.line(store.ExerciseID(class.Shape.Technique))
	var unread score.Problems
	if errors.Is(err, store.ErrNotFound) || errors.As(err, &unread) || err == nil && len(line.Chunks) == 0 {
		return nil, nil
	}
	return &line, err
}

// suggesting is what a lesson is suggested from.
type suggesting struct {
	ctx       context.Context
	desk      *Class
	class     store.Class
	students  []store.Student
	exercises []store.Exercise
	recent    []store.Exercise // that the class has tried, the one tried last first
	standings store.Standings
	work      ClassWork
	lines     map[store.ExerciseID]lesson.Line
}

func (s *suggesting) load() error {
	var err error
	if s.work, err = LoadClassWork(s.ctx, s.desk, s.class.ID); err != nil {
		return err
	}
	s.exercises, s.students = s.work.Exercises, s.work.Students
	s.standings, err = s.desk.ClassStandings(s.ctx, s.class.ID)
	s.recent = RecentFirst(s.exercises, s.standings)
	return err
}

// line is a line for the class, read once.
func (s *suggesting) line(x store.ExerciseID) (lesson.Line, error) {
	if known, read := s.lines[x]; read {
		return known, nil
	}
	s.desk.Expect(x)
	line, err := LessonLine(s.ctx, s.desk, s.class.ID, x, s.standings)
	if err != nil {
		return line, fmt.Errorf("lay out exercise %d: %w", x, err)
	}
	s.lines[x] = line
	return line, nil
}

// done is which share of the class has done an exercise.
func (s *suggesting) done(x store.Exercise) float64 {
	players, done := Playing(s.students), 0.0
	for _, student := range players {
		standing := s.standings[store.Task{Student: student.ID, Exercise: x.ID}]
		if standing.Done(s.work.Rules.For(student.ID, x.ID), s.work.Own.Of(x, student.Instrument).Chunks) {
			done++
		}
	}
	return done / float64(max(len(players), 1))
}

// linesFor is how many new lines a lesson of some minutes is given to choose from.
func linesFor(minutes int) int { return 2 + minutes/6 }

// mostUnderWay is how many lines that are begun go on in one lesson. Source: common practice.
const mostUnderWay = 2

// newLines are the lines to come: those that were chosen; else what the last lesson did not
// reach, what is begun by half of the class, and the next in the book.
func (s *suggesting) newLines(asked LessonWants) ([]lesson.Line, error) {
	var lines []lesson.Line
	add := func(x store.ExerciseID, why string, next breakdown.Next) error {
		if slices.ContainsFunc(lines, func(l lesson.Line) bool { return l.Exercise == int64(x) }) {
			return nil
		}
		line, err := s.line(x)
		if err != nil || len(line.Chunks) == 0 {
			return err
		}
		line.Why, line.New = why, next.New
		if shape := s.class.Shape.Shape; len(shape.UnitOf().Steps(line, shape.Without)) > 0 {
			lines = append(lines, line)
		}
		return nil
	}
	next, err := s.nextInBook()
	if err != nil {
		return nil, err
	}
	news := map[store.ExerciseID]breakdown.Next{}
	for _, n := range next {
		news[n.ID] = n.Next
	}
	for _, x := range asked.Chosen {
		if err := add(x, "Chosen by you.", news[x]); err != nil {
			return nil, err
		}
	}
	if len(lines) > 0 {
		return lines, nil
	}
	left, err := leftOver(s.ctx, s.desk, s.class.ID)
	if err != nil {
		return nil, err
	}
	for _, step := range left {
		x := store.ExerciseID(step.Exercise)
		if k := slices.IndexFunc(s.exercises, func(e store.Exercise) bool { return e.ID == x }); k < 0 ||
			s.exercises[k].Unread != "" {
			continue // deleted since
		}
		if err := add(x, "Left from the last lesson.", news[x]); err != nil {
			return nil, err
		}
	}
	worked, err := s.desk.Worked(s.ctx, s.class.ID, 0)
	if err != nil {
		return nil, err
	}
	var begun []store.Exercise
	for _, x := range s.recent { // of those who have tries at all, half have tried it
		if s.done(x) < 0.5 && slices.Contains(worked, x.ID) && len(begun) < mostUnderWay {
			begun = append(begun, x)
		}
	}
	slices.SortStableFunc(begun, func(a, b store.Exercise) int { return cmp.Compare(a.Number, b.Number) })
	for _, x := range begun {
		if err := add(x.ID, "In progress.", breakdown.Next{}); err != nil {
			return nil, err
		}
	}
	for _, n := range next {
		if len(lines) >= linesFor(asked.Minutes) {
			break
		}
		if err := add(n.ID, "Next in the book.", n.Next); err != nil {
			return nil, err
		}
	}
	return lines, nil
}

// nextInBook is what comes next in the book that the class works in.
func (s *suggesting) nextInBook() ([]NextExercise, error) {
	room := roomOf(s.class, s.students)
	books, err := WhatNext(s.ctx, s.desk, room, s.exercises)
	if err != nil {
		return nil, err
	}
	if first := firstInBook(s.exercises, books); first != nil {
		return books[first.BookID].InOrder, nil
	}
	return nil, nil
}

// roomOf is a class with what is played in it.
func roomOf(class store.Class, students []store.Student) Room {
	playing := map[string]int{}
	for _, student := range Playing(students) {
		playing[student.Instrument]++
	}
	room := Room{Class: class}
	room.AddPlayers(playing, "")
	return room
}

// known finds what half of the class can play: to review the line that was finished last, to
// end with another one, and more to fill the time with.
func (s *suggesting) known(wants *lesson.Wants) error {
	for _, x := range s.recent {
		if s.done(x) < 0.5 || len(wants.Known) >= lesson.MostStepsOf(wants.Minutes) {
			continue
		}
		line, err := s.line(x.ID)
		if err != nil {
			return err
		}
		if len(line.Chunks) == 0 {
			continue
		}
		switch line.Why = "Most of the class can play it."; {
		case wants.Review == nil:
			wants.Review, wants.Finished = &line, line.Grade
		case wants.Close == nil:
			wants.Close = &line
		case len(wants.Known) < mostFill || len(wants.New) == 0:
			wants.Known = append([]lesson.Line{line}, wants.Known...)
		}
	}
	return nil
}

// mostFill is how many more known lines there are to fill the time with where there is something
// new.
const mostFill = 3

// mostBroken is in how many of the lines tried last a class's trouble is looked for.
const mostBroken = 4

// broken finds what half of those who tried it stumbled over, and have not been clean at
// since: the most students first.
func (s *suggesting) broken() ([]lesson.Broken, error) {
	type found struct {
		lesson.Broken
		students int
	}
	var list []found
	for _, x := range s.recent[:min(len(s.recent), mostBroken)] {
		line, err := s.line(x.ID)
		if err != nil {
			return nil, err
		}
		for _, p := range line.Chunks {
			students, cause := inTrouble(p)
			if tried := p.Tried(); students == 0 || 2*students < tried || 2*tried < len(p.States) || p.Same != p.Key {
				continue
			} else if !slices.ContainsFunc(list, func(f found) bool { return f.Line.Exercise == line.Exercise }) {
				list = append(list, found{lesson.Broken{Line: line, Chunk: p, Cause: cause,
					Why: fmt.Sprintf("%d of %d stumbled over %s.", students, tried, cause.Words())}, students})
			}
		}
	}
	slices.SortStableFunc(list, func(a, b found) int { return b.students - a.students })
	broken := make([]lesson.Broken, len(list))
	for k, f := range list {
		broken[k] = f.Broken
	}
	return broken, nil
}

// inTrouble is how many have stumbled on a chunk since they went on last, and are not clean at
// it now, and on what most of them stumbled.
func inTrouble(p lesson.Chunk) (students int, cause routine.Cause) {
	var over routine.Causes
	for _, s := range p.States {
		if s.Stumbles == 0 || s.Clean > 0 || s.Stage == routine.Done {
			continue
		}
		students++
		for k := range over {
			over[k] += s.Over[k]
		}
	}
	return students, over.Main()
}

// mostRecent bounds how many exercises a proposal looks into.
const mostRecent = 20

// RecentFirst lists the exercises that the class has tried, the one tried last first.
func RecentFirst(exercises []store.Exercise, standings store.Standings) []store.Exercise {
	last := map[store.ExerciseID]int64{}
	for task, standing := range standings {
		for _, t := range standing.Times {
			last[task.Exercise] = max(last[task.Exercise], t.Last)
		}
	}
	list := slices.DeleteFunc(slices.Clone(exercises), func(x store.Exercise) bool {
		return last[x.ID] == 0 ||
			x.Unread != ""
	})
	slices.SortStableFunc(list, func(a, b store.Exercise) int { return cmp.Compare(last[b.ID], last[a.ID]) })
	return list[:min(len(list), mostRecent)]
}

// mostFirst is how many first notes a warm-up names.
const mostFirst = 5

// warmth is what the class begins with: its one note, and the first notes of what comes first.
func (s *suggesting) warmth(wants lesson.Wants) (lesson.Warmth, error) {
	var w lesson.Warmth
	played := InstrumentsOf(s.students)
	played = slices.DeleteFunc(played, instrument.Instrument.Unpitched)
	about := wants.About()
	if len(played) == 0 || about == nil {
		return w, nil
	}
	saved, err := LoadSettings(s.ctx, s.desk)
	if err != nil {
		return w, err
	}
	options := saved.Preferences.Options(s.class)
	say := func(p score.Pitch) string { return options.Name.Say(p, false, score.Key{}) }
	note := ClassNote(s.class, s.students)
	w.Note = say(note.Pitch())
	concert := slices.ContainsFunc(played, func(i instrument.Instrument) bool { return i.Transposition.Semitones%12 != 0 })
	switch {
	case len(played) == 1:
		w.Note = say(instrument.WrittenFor(note, played[0]))
	case concert:
		w.Note = "concert " + w.Note
	}
	var first []string
	mine := func(_ Choice, tab InstrumentTab) bool { return tab.ID == played[0].ID }
	ask := Request{Exercise: store.ExerciseID(about.Exercise), Class: s.class.ID}
	_, err = ExplainEach(s.ctx, s.desk, ask, mine, func(_ Choice, _ InstrumentTab, x Explained, _ Settings) {
		for _, m := range x.Report.Measures {
			for _, e := range m.Events {
				text := e.Concert
				if len(played) == 1 {
					text = e.Pitch
				}
				p, err := score.ParsePitch(text)
				if err != nil || e.Tied || len(first) == mostFirst {
					continue
				}
				if name := say(p); !slices.Contains(first, name) {
					first = append(first, name)
				}
			}
		}
	})
	w.Notes, w.Count = strings.Join(first, ", "), len(first)
	return w, err
}

// ClassNote is a class's one note for everyone: the one it has chosen, else the one that suits
// what is played in it.
func ClassNote(class store.Class, students []store.Student) instrument.PitchClass {
	for _, c := range instrument.OneNotes() {
		if KeyOf(c) == class.Shape.Note {
			return c
		}
	}
	return instrument.SuggestOneNote(InstrumentsOf(students))
}

// UsualMinutes is how long a lesson is where nothing is known.
const UsualMinutes = lesson.UsualMinutes

// MostLessons is how many lessons the page lists.
const MostLessons = 12

// LessonLink is the address of a page of a lesson.
func LessonLink(l store.Lesson, page string) string {
	return fmt.Sprintf("/lessons/%d%s?class=%d", l.ID, page, l.Class)
}

// FullPlan is what is said of a plan with no room for more steps.
var FullPlan = fmt.Sprintf("A lesson holds at most %d steps.", lesson.MostSteps)

// GoesOnAt is where the class goes on with a chunk, from the beginning where it is done.
func GoesOnAt(p lesson.Chunk) routine.Stage {
	if at := p.Stage(); at != routine.Done {
		return at
	}
	return p.Steps.First()
}

// lessonEnd is until when what a class tries belongs to a lesson.
func lessonEnd(l store.Lesson, now time.Time) time.Time {
	if l.Ended != nil {
		return *l.Ended
	}
	return now.Add(time.Minute)
}
