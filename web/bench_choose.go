package web

import (
	"cmp"
	"context"
	"net/http"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// benchAsk is what a request asks to see; zero values leave the choice open.
type benchAsk struct {
	exercise   store.ExerciseID
	instrument string
	piece      string
	stage      string
	student    store.StudentID
	section    store.SectionID
	tempo      int
	oneNote    string // a concert note, "Bb"
	line       breakdown.Line
	of         string // the piece that the line is of
	other      string // how the other line is shown
	keep       bool   // this line is kept to, whichever is given
	then       string // the piece after the one at hand, in learning order
}

// drillLine is the drill of the hardest changes, a line beside those that are derived.
const drillLine breakdown.Line = "drill"

func askOf(r *http.Request) benchAsk {
	return benchAsk{
		exercise: idOf[store.ExerciseID](r), instrument: text(r, "instrument"), piece: text(r, "piece"), stage: text(r, "stage"),
		student: store.StudentID(number(r, "student")), section: store.SectionID(number(r, "section")),
		tempo: tempoOf(r), oneNote: text(r, "one"), line: breakdown.Line(text(r, "line")), of: text(r, "of"), other: text(r, "other"), keep: text(r, "keep") != "", then: text(r, "then"),
	}
}

// tempoOf reads a tempo in beats a minute, 0 for one that is off the scale.
func tempoOf(r *http.Request) int {
	scale, tempo := routine.Notches(), int(number(r, "tempo"))
	if tempo < scale[0] || tempo > scale[len(scale)-1] {
		return 0
	}
	return tempo
}

// choice is the Bench's first step: who works, at what, and which part of it. It
// reads no music.
type choice struct {
	Exercise   store.Exercise
	Sections   []store.Section
	Section    store.Section
	Student    store.Student // at hand; ID 0 when none is chosen
	Instrument instrument.Instrument
	Tabs       []instrumentTab
	Keys       []breakdown.PieceKey // of the pieces
	Key        breakdown.PieceKey   // of the piece at hand
	Guest      store.Guest          // of a colleague in a section they were given
	Rules      store.Rules          // which routine whoever is here follows
	section    []store.Student
	ask        benchAsk
}

type instrumentTab struct {
	instrument.Instrument
	Current  bool
	Students int
}

// choose answers what a request leaves open.
func choose(ctx context.Context, desk *teach.Class, ask benchAsk) (choice, error) {
	c := choice{ask: ask, Guest: desk.Guest()}
	var err error
	if c.Exercise, err = desk.Exercise(ctx, ask.exercise); err != nil {
		return c, err
	}
	if ask.student != 0 {
		if c.Student, err = desk.StudentByID(ctx, ask.student); err != nil {
			return c, err
		}
		ask.section = c.Student.SectionID
	}
	if ask.line != "" { // which nobody is marked for
		c.Student = store.Student{}
	}
	if c.Sections, c.Section, err = desk.ChooseSection(ctx, ask.section); err != nil {
		return c, err
	}
	if c.section, err = desk.Students(ctx, c.Section.ID); err != nil {
		return c, err
	}
	if c.Rules, err = desk.Rules(ctx); err != nil {
		return c, err
	}
	chooseInstrument(desk, &c, ask.instrument)
	outline, err := desk.OutlineFor(ctx, c.Exercise, c.Instrument.ID)
	if err != nil {
		return c, err
	}
	c.Keys = outline.Pieces
	c.choosePiece(ask.piece)
	return c, nil
}

// routine is what whoever is at hand follows: the student, else those who play the
// instrument in the section.
func (c choice) routine() routine.Routine {
	if c.Student.ID != 0 {
		return c.routineOf(c.Student)
	}
	return c.Rules.In(store.Chooser{Exercise: c.Exercise.ID, Instrument: c.Instrument.ID, Section: c.Section.ID}).Steps
}

// routineOf is what a student follows at the exercise.
func (c choice) routineOf(student store.Student) routine.Routine {
	return c.Rules.For(student.ID, c.Exercise.ID)
}

// choosePiece takes the piece of a key, "3-4", or the first.
func (c *choice) choosePiece(wanted string) {
	key, ok := breakdown.ParsePieceKey(wanted)
	switch {
	case ok && slices.Contains(c.Keys, key):
		c.Key = key
	case len(c.Keys) > 0:
		c.Key = c.Keys[0]
	}
}

func chooseInstrument(desk *teach.Class, c *choice, wanted string) {
	last := ""
	if desk.Last != nil {
		last = desk.Last.Instrument()
	}
	if _, ok := instrument.ByID(wanted); !ok {
		wanted = c.firstInstrument(last)
	}
	for _, i := range instrument.All() {
		tab := instrumentTab{Instrument: i, Current: i.ID == wanted}
		for _, student := range c.section {
			if student.Instrument == i.ID {
				tab.Students++
			}
		}
		if tab.Current {
			c.Instrument = i
		}
		c.Tabs = append(c.Tabs, tab)
	}
	if wanted != last && desk.Last != nil {
		desk.Last.ChooseInstrument(wanted)
	}
}

// firstInstrument is whose part the Bench opens with where none is asked for: the
// student's at hand; in a section the one seen last that somebody plays, else the
// first that is played; with nobody there the one seen last, else the one the
// exercise is written for, else one that reads it as it is entered.
func (c *choice) firstInstrument(last string) string {
	played := map[string]bool{}
	for _, student := range c.section {
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

// work is the Bench's third step: where everybody stands on what was chosen.
type work struct {
	choice
	Routine routine.Routine
	Stage   routine.Stage
	State   routine.State                        // the student's, on the piece at hand
	States  map[breakdown.PieceKey]routine.State // the student's, on every piece
	Players []benchPlayers                       // the section by instrument, who tried this piece last first
	Log     []tryView                            // the student's latest tries here, newest first
	Tempo   int                                  // that was asked for; 0 leaves it to the music

	Counting count.Options // once the settings are read
}

// benchPlayers are the students of one instrument.
type benchPlayers struct {
	Instrument instrument.Instrument
	Current    bool // it is the instrument at hand
	Students   []benchStudent
}

type benchStudent struct {
	store.Student
	Current bool
	Here    bool          // the piece at hand is the one they tried last
	State   routine.State // on the piece at hand
}

// latestTries is how many of a student's tries the Bench shows.
const latestTries = 4

// load looks up where everybody stands on what was chosen.
func loadWork(ctx context.Context, desk *teach.Class, c choice) (work, error) {
	w := work{choice: c, Routine: c.routine(), States: map[breakdown.PieceKey]routine.State{}, Tempo: c.ask.tempo}
	standings, err := desk.ExerciseStandings(ctx, c.Exercise.ID, c.Section.ID)
	if err != nil {
		return w, err
	}
	mine := standings[store.Task{Student: c.Student.ID, Exercise: c.Exercise.ID}]
	w.atTheStudents(mine)
	c.Key = w.Key
	for _, i := range instrument.All() {
		players := benchPlayers{Instrument: i, Current: i.ID == c.Instrument.ID}
		for _, student := range c.section {
			if student.Instrument != i.ID {
				continue
			}
			standing := standings[store.Task{Student: student.ID, Exercise: c.Exercise.ID}]
			players.Students = append(players.Students, benchStudent{
				Student: student, Current: student.ID == c.Student.ID,
				Here: standing != nil && standing.Latest == c.Key, State: standing.State(c.routineOf(student), c.Key),
			})
		}
		slices.SortStableFunc(players.Students, func(a, b benchStudent) int { return boolOrder(b.Here) - boolOrder(a.Here) })
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
			w.Log = append(w.Log, newTryView(a, w.Routine))
		}
	}
	w.chooseStage(routine.Stage(c.ask.stage))
	return w, nil
}

// atTheStudents takes the first piece that the student at hand has not done, and the
// tempo they tried it at last, where the request leaves them open.
func (w *work) atTheStudents(standing *progress.Standing) {
	if w.Student.ID == 0 || w.ask.line != "" {
		return
	}
	if w.ask.piece == "" {
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

// chooseStage takes the stage that was asked for, or the one the student is at; the
// last of the routine where the piece is done.
func (w *work) chooseStage(asked routine.Stage) {
	switch {
	case w.Routine.Has(asked):
		w.Stage = asked
	case w.Routine.Has(w.State.Stage):
		w.Stage = w.State.Stage
	default:
		w.Stage = w.Routine.Last()
	}
}

// NextPiece is the key of the piece after the one at hand in learning order, nil after the
// last.
func (w work) NextPiece() *breakdown.PieceKey {
	if then, ok := breakdown.ParsePieceKey(w.ask.then); ok && slices.Contains(w.Keys, then) {
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
