package teach

import (
	"cmp"
	"context"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// Request is what a request asks to see; zero values leave the choice open.
type Request struct {
	Exercise   store.ExerciseID
	Instrument string
	Chunk      string
	Stage      string
	Student    store.StudentID
	Class      store.ClassID
	Tempo      int
	OneNote    string // a concert note, "Bb", or a written one, "B4"
	First      int    // how many notes adding a note begins with
	Line       breakdown.PracticeVersion
	Of         string // the chunk that the line is of
	Other      string // how the other line is shown
	Save       bool   // this line is kept to, whichever is given
	Then       string // the chunk after the one at hand, in learning order
}

// DrillVersion is the drill of the hardest changes, a line beside those that are derived.
const DrillVersion breakdown.PracticeVersion = "drill"

// Choice is the Bench's first step: who works, at what, and which part of it. It
// reads no music.
type Choice struct {
	Exercise   store.Exercise
	Classes    []store.Class
	Class      store.Class
	Student    store.Student // at hand; ID 0 when none is chosen
	Instrument instrument.Instrument
	Tabs       []InstrumentTab
	Keys       []breakdown.ChunkKey // of the chunks
	Key        breakdown.ChunkKey   // of the chunk at hand
	Guest      store.Guest          // of a colleague in a class they were given
	Rules      store.Rules          // which routine each student here follows
	Students   []store.Student
	Ask        Request
}

// InstrumentTab is an instrument that may be chosen, with how many in the class play it.
type InstrumentTab struct {
	instrument.Instrument
	Current  bool
	Students int
}

// Choose answers what a request leaves open.
func Choose(ctx context.Context, desk *Class, ask Request) (Choice, error) {
	c := Choice{Ask: ask, Guest: desk.Guest()}
	var err error
	if c.Exercise, err = desk.Exercise(ctx, ask.Exercise); err != nil {
		return c, err
	}
	if ask.Student != 0 {
		if c.Student, err = desk.StudentByID(ctx, ask.Student); err != nil {
			return c, err
		}
		ask.Class = c.Student.ClassID
	}
	if ask.Line != "" { // which nobody is marked for
		c.Student = store.Student{}
	}
	if c.Classes, c.Class, err = desk.ChooseClass(ctx, ask.Class); err != nil {
		return c, err
	}
	if c.Students, err = desk.Students(ctx, c.Class.ID); err != nil {
		return c, err
	}
	if c.Rules, err = desk.Rules(ctx); err != nil {
		return c, err
	}
	chooseInstrument(desk, &c, ask.Instrument)
	outline, err := desk.OutlineFor(ctx, c.Exercise, c.Instrument.ID)
	if err != nil {
		return c, err
	}
	c.Keys = outline.Chunks
	c.chooseChunk(ask.Chunk)
	return c, nil
}

// Routine is what the current player follows: the student, else those who play the
// instrument in the class.
func (c Choice) Routine() routine.Routine {
	if c.Student.ID != 0 {
		return c.RoutineOf(c.Student)
	}
	return c.Rules.In(store.Chooser{Exercise: c.Exercise.ID, Instrument: c.Instrument.ID, Class: c.Class.ID}).Steps
}

// RoutineOf is what a student follows at the exercise.
func (c Choice) RoutineOf(student store.Student) routine.Routine {
	return c.Rules.For(student.ID, c.Exercise.ID)
}

// chooseChunk takes the chunk of a key, "3-4", or the first.
func (c *Choice) chooseChunk(desired string) {
	key, ok := breakdown.ParseChunkKey(desired)
	switch {
	case ok && slices.Contains(c.Keys, key):
		c.Key = key
	case len(c.Keys) > 0:
		c.Key = c.Keys[0]
	}
}

func chooseInstrument(desk *Class, c *Choice, desired string) {
	last := ""
	if desk.Last != nil {
		last = desk.Last.Instrument()
	}
	if _, ok := instrument.ByID(desired); !ok {
		desired = c.firstInstrument(last)
	}
	for _, i := range instrument.All() {
		tab := InstrumentTab{Instrument: i, Current: i.ID == desired}
		for _, student := range c.Students {
			if student.Instrument == i.ID {
				tab.Students++
			}
		}
		if tab.Current {
			c.Instrument = i
		}
		c.Tabs = append(c.Tabs, tab)
	}
	if desired != last && desk.Last != nil {
		desk.Last.ChooseInstrument(desired)
	}
}

// firstInstrument is whose part the Bench opens with where none is asked for: the
// student's at hand; in a class the one seen last that somebody plays, else the
// first that is played; with nobody there the one seen last, else the one the
// exercise is written for, else one that reads it as it is entered.
func (c *Choice) firstInstrument(last string) string {
	played := map[string]bool{}
	for _, student := range c.Students {
		played[student.Instrument] = true
	}
	if c.Student.ID != 0 || played[last] {
		return cmp.Or(c.Student.Instrument, last)
	}
	for _, i := range instrument.All() {
		if played[i.ID] {
			return i.ID
		}
	}
	for _, id := range []string{last, c.Exercise.WrittenFor} {
		if _, known := instrument.ByID(id); known {
			return id
		}
	}
	return instrument.ConcertReader().ID
}

// Work is the Bench's third step: where everybody stands on what was chosen.
type Work struct {
	Choice
	Routine routine.Routine
	Stage   routine.Stage
	State   routine.State                        // the student's, on the chunk at hand
	States  map[breakdown.ChunkKey]routine.State // the student's, on every chunk
	Players []Players                            // the class by instrument, who tried this chunk last first
	Log     []LoggedTry                          // the student's latest tries here, newest first
	Tempo   int                                  // that was asked for; 0 leaves it to the music

	Counting count.Options // once the settings are read
}

// Players are the students of one instrument.
type Players struct {
	Instrument instrument.Instrument
	Current    bool // it is the instrument at hand
	Students   []player
}

type player struct {
	store.Student
	Current bool
	Here    bool          // the chunk at hand is the one they tried last
	State   routine.State // on the chunk at hand
}

// latestTries is how many of a student's tries the Bench shows.
const latestTries = 4

// LoadWork looks up where everybody stands on what was chosen.
func LoadWork(ctx context.Context, desk *Class, c Choice) (Work, error) {
	w := Work{Choice: c, Routine: c.Routine(), States: map[breakdown.ChunkKey]routine.State{}, Tempo: c.Ask.Tempo}
	standings, err := desk.ExerciseStandings(ctx, c.Exercise.ID, c.Class.ID)
	if err != nil {
		return w, err
	}
	mine := standings[store.Task{Student: c.Student.ID, Exercise: c.Exercise.ID}]
	w.atTheStudents(mine)
	c.Key = w.Key
	for _, i := range instrument.All() {
		players := Players{Instrument: i, Current: i.ID == c.Instrument.ID}
		for _, student := range c.Students {
			if student.Instrument != i.ID {
				continue
			}
			standing := standings[store.Task{Student: student.ID, Exercise: c.Exercise.ID}]
			players.Students = append(players.Students, player{
				Student: student, Current: student.ID == c.Student.ID,
				Here: standing != nil && standing.Latest == c.Key, State: standing.State(c.RoutineOf(student), c.Key),
			})
		}
		slices.SortStableFunc(players.Students, func(a, b player) int { return boolOrder(b.Here) - boolOrder(a.Here) })
		if len(players.Students) > 0 {
			w.Players = append(w.Players, players)
		}
	}
	w.State = mine.State(w.Routine, c.Key)
	if c.Student.ID != 0 {
		for _, key := range c.Keys {
			w.States[key] = mine.State(w.Routine, key)
		}
		log, err := desk.LatestAttempts(ctx, c.Student.ID, c.Exercise.ID, latestTries)
		if err != nil {
			return w, err
		}
		for _, a := range log {
			w.Log = append(w.Log, NewLoggedTry(a, w.Routine))
		}
	}
	w.ChooseStage(routine.Stage(c.Ask.Stage))
	return w, nil
}

// atTheStudents takes the first chunk that the student at hand has not done, and the
// tempo they tried it at last, where the request leaves them open.
func (w *Work) atTheStudents(standing *progress.Standing) {
	if w.Student.ID == 0 || w.Ask.Line != "" {
		return
	}
	if w.Ask.Chunk == "" {
		for _, key := range w.Keys {
			if standing.State(w.Routine, key).Stage != routine.Done {
				w.Key = key
				break
			}
		}
	}
	if w.Tempo == 0 && standing != nil {
		w.Tempo = standing.Times[w.Key].Tempo
	}
}

// ChooseStage takes the stage that was asked for, or the one the student is at; the
// last of the routine where the chunk is done.
func (w *Work) ChooseStage(requested routine.Stage) {
	switch {
	case w.Routine.Has(requested):
		w.Stage = requested
	case w.Routine.Has(w.State.Stage):
		w.Stage = w.State.Stage
	default:
		w.Stage = w.Routine.Last()
	}
}

// NextChunk is the key of the chunk after the one at hand in learning order, nil after the
// last.
func (w Work) NextChunk() *breakdown.ChunkKey {
	if then, ok := breakdown.ParseChunkKey(w.Ask.Then); ok && slices.Contains(w.Keys, then) {
		return &then // as the page has it: a mark reads no music
	}
	if at := slices.Index(w.Keys, w.Key); at >= 0 && at+1 < len(w.Keys) {
		return &w.Keys[at+1]
	}
	return nil
}

func boolOrder(yes bool) int {
	if yes {
		return 1
	}
	return 0
}

// Own says whether the bench is at the teacher's own desk, not in a class they were
// given.
func (c Choice) Own() bool { return c.Guest.Own() }

// MayMark says whether who looks may mark.
func (c Choice) MayMark() bool { return c.Guest.MayMark() }
