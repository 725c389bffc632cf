package web

import (
	"context"
	"errors"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// explained is the Bench's second step: the part of what was chosen, read whole.
type explained struct {
	Report     breakdown.Report
	Remarks    []score.Problem
	Options    breakdown.Options
	Octaves    []instrument.OctaveChoice
	OwnPart    bool               // the instrument's part is not made from the source
	Drills     []breakdown.Drill  // the hardest changes of the exercise
	Lines      []breakdown.Line   // that can be made of the exercise
	Line       breakdown.Line     // on the page in place of the exercise, "" for none
	Of         []breakdown.Piece  // the pieces of the exercise, where a line stands in its place
	From       breakdown.PieceKey // the piece that the line is of
	Words      finger.Words
	Tempo      int         // to start at
	tempo      score.Tempo // that is marked, and its words
	tempoWords string
}

// asked is what a request chooses, how its teacher teaches, and what the section has worked on.
func chooseWithWays(ctx context.Context, desk *teach.Class, ask benchAsk) (choice, taughtBy, []store.ExerciseID, error) {
	if _, err := desk.Exercises(ctx); err != nil { // the one at hand is among them
		return choice{}, taughtBy{}, nil, err
	}
	c, err := choose(ctx, desk, ask)
	if err != nil {
		return c, taughtBy{}, nil, err
	}
	kept, err := taught(ctx, desk)
	if err != nil {
		return c, kept, nil, err
	}
	worked, err := desk.Worked(ctx, c.Section.ID, 0)
	return c, kept, worked, err
}

// explainEach explains what is asked for to each instrument that is wanted.
func explainEach(ctx context.Context, desk *teach.Class, ask benchAsk, wanted func(choice, instrumentTab) bool, each func(choice, instrumentTab, explained, taughtBy)) (choice, error) {
	c, kept, worked, err := chooseWithWays(ctx, desk, ask)
	if err != nil {
		return c, err
	}
	for _, tab := range c.Tabs {
		if !wanted(c, tab) {
			continue
		}
		at := c
		at.Instrument = tab.Instrument
		x, err := explain(ctx, desk, &at, kept, worked)
		if err != nil {
			return c, err
		}
		each(at, tab, x, kept)
	}
	return c, nil
}

// plays says whether anybody in the section plays an instrument; where nobody is in it, the
// one at hand.
func (c choice) plays(tab instrumentTab) bool {
	return tab.Students > 0 || tab.Current && len(c.section) == 0
}

// explain reads the part of what was chosen, as the teacher has it taught, for a section that
// has worked on some exercises.
func explain(ctx context.Context, desk *teach.Class, c *choice, kept taughtBy, worked []store.ExerciseID) (explained, error) {
	var x explained
	c.Instrument = kept.instrument(c.Instrument)
	met, err := desk.MetBefore(ctx, c.Exercise, c.Instrument.ID, worked)
	if err != nil {
		return x, err
	}
	x.Words, x.Options = kept.Preferences.words(), kept.Preferences.options(c.Section)
	if x.Options.Finger, err = fingerOptions(ctx, desk, *c); err != nil {
		return x, err
	}
	part, err := desk.Reader.Part(ctx, desk, c.Exercise, c.Instrument.ID)
	if err != nil {
		return x, err
	}
	x.OwnPart, x.tempo, x.tempoWords = part.Own, part.Score.Tempo, part.Score.TempoWords
	if x.Options.Placed, err = desk.Placed(ctx, c.Exercise, c.Instrument); err != nil {
		return x, err
	}
	if x.Options.Pencils, err = desk.Pencils(ctx, c.Exercise.ID, c.Instrument.ID); err != nil {
		return x, err
	}
	if x.Options.Pieces, err = desk.Cuts(ctx, c.Exercise.ID); err != nil {
		return x, err
	}
	if !x.OwnPart {
		x.Octaves = instrument.OctaveChoices(part.Source, part.WrittenFor, c.Instrument, c.Section.Year, x.Options.Placed.Beside)
	}
	x.Report = breakdown.Read(part.Score, part.Source, part.WrittenFor, c.Instrument, met, x.Options)
	history, err := desk.CleanAt(ctx, c.Section.ID, c.Student.ID, c.Instrument.ID, c.Exercise.ID)
	if err != nil {
		return x, err
	}
	x.Report.StartFrom(history, part.Score.Tempo.Beats(x.Report.Part.Meter()))
	x.Tempo = x.Report.Tempo.Suggested
	x.Remarks = slices.Concat(ofPart(part.Score.Remarks, part.Source.Name), x.Report.Remarks)
	x.Drills, x.Lines = x.Report.Drills(c.Instrument), breakdown.Lines(x.Report.Part)
	c.piecesOf(x.Report)
	return x, x.openLine(c)
}

// newTo is what the student at hand has not met, or the section.
func newTo(ctx context.Context, desk *teach.Class, c choice, r breakdown.Report) ([]string, error) {
	if c.Student.ID == 0 {
		return r.News(), nil
	}
	worked, err := desk.Worked(ctx, c.Section.ID, c.Student.ID)
	if err != nil || len(worked) == 0 {
		return r.News(), err
	}
	met, err := desk.MetBefore(ctx, c.Exercise, c.Instrument.ID, worked)
	return r.NewIn(met), err
}

// piecesOf takes the pieces in learning order.
func (c *choice) piecesOf(r breakdown.Report) {
	c.Keys = nil
	for _, p := range r.Pieces {
		c.Keys = append(c.Keys, p.Key())
	}
	c.choosePiece(c.ask.piece)
}

// InDrill says whether a drill or another line stands in place of the exercise.
func (x explained) InDrill() bool { return x.Line != "" }

// fingerOptions is how the teacher wants the part fingered.
func fingerOptions(ctx context.Context, desk *teach.Class, c choice) (finger.Options, error) {
	o := finger.Options{Year: c.Section.Year}
	var err error
	if o.Preferred, err = desk.Preferred(ctx, c.Instrument.ID); err != nil {
		return o, err
	}
	o.Placed, err = desk.Fingerings(ctx, c.Exercise.ID, c.Instrument.ID)
	return o, err
}

// benchView is the Bench's fourth step, what its page shows: one exercise opened up
// for one instrument, with the piece, the stage and the student at hand.
type benchView struct {
	stand
	New      []string // what the student at hand, or the section, has not met before, in words
	Room     string   // who in the room has it hardest, in words
	Second   otherLine
	Before   store.Neighbour // in the book
	After    store.Neighbour
	Did      byHand // what was just changed by hand, with the way back
	Routines []routine.Named
	Swapped  bool // a script puts it on the page, and draws it
	Update   bool // parts of the page are sent along, out of band
}

// stand is a part as it is put on the stand: one piece of it at one stage, to be drawn, told
// and heard.
type stand struct {
	work
	explained
	Tempo    int
	Pieces   []benchPiece
	Piece    benchPiece
	Passages []breakdown.Passage // the piece, measure by measure
	played   []breakdown.Passage // the same as it is played
	BeatName string
	CountOff []count.Cue
	OneNote  oneNote
	strings  []stringColour
	A4       int // the reference pitch in hertz
}

type benchPiece struct {
	breakdown.Piece
	Current bool
	State   routine.State
}

// present lays out what was chosen, loaded and explained.
func present(w work, x explained, p preferences) stand {
	v := stand{work: w, explained: x, Tempo: w.Tempo, strings: p.stringColours(w.Instrument)}
	v.Counting = x.Options.Count
	for k, piece := range x.Report.Pieces {
		b := benchPiece{Piece: piece, Current: piece.Key() == w.Key, State: w.States[piece.Key()]}
		if b.Current {
			v.Piece = b
			if x.Line == drillLine && v.Tempo == 0 {
				v.Tempo = x.Drills[k].Tempo
			}
		}
		v.Pieces = append(v.Pieces, b)
	}
	if v.Tempo == 0 {
		v.Tempo = x.Tempo
	}
	v.OneNote = oneNoteFor(w.section, w.Instrument, x.Options, w.ask.oneNote)
	v.BeatName = x.Report.Part.Meter().BeatName(x.Options.British)
	v.Passages = v.Piece.Passages(x.Report.Part)
	v.played = v.Piece.Played(x.Report.Part)
	v.A4 = p.pitchOfA()
	v.CountOff = countOff(x, v.Passages)
	return v
}

// countOff is what is counted before passages.
func countOff(x explained, passages []breakdown.Passage) []count.Cue {
	first := x.Report.Part.Measures[passages[0].At]
	first.Offset = passages[0].From
	return count.CountOff(score.Part{Measures: []score.Measure{first}}, x.Options.Count)
}

// benchView goes all four steps.
func loadBench(ctx context.Context, desk *teach.Class, ask benchAsk) (benchView, error) {
	c, kept, worked, err := chooseWithWays(ctx, desk, ask)
	if err != nil {
		return benchView{}, err
	}
	x, err := explain(ctx, desk, &c, kept, worked)
	if err != nil {
		return benchView{}, err
	}
	w, err := loadWork(ctx, desk, c)
	if err != nil {
		return benchView{}, err
	}
	v := benchView{stand: present(w, x, kept.Preferences)}
	if !v.InDrill() {
		if v.New, err = newTo(ctx, desk, c, x.Report); err != nil {
			return v, err
		}
	}
	hard, err := desk.HardFor(ctx, w.Exercise.ID, w.Instrument.ID)
	if err != nil {
		return v, err
	}
	v.Room = roomWords(c.present(), hard)
	if v.Second, err = loadOtherLine(ctx, desk, kept, c, x); err != nil {
		return v, err
	}
	if v.Routines, err = desk.Routines(ctx); err != nil {
		return v, err
	}
	v.Before, v.After, err = desk.Neighbours(ctx, w.Exercise.ID)
	return v, err
}

// atBench is the Bench of some work, with no music: what has an address.
func atBench(w work) benchView { return benchView{stand: stand{work: w, Tempo: w.Tempo}} }

// ExerciseLink is the address of another exercise's Bench, with who is at hand.
func (v benchView) ExerciseLink(id store.ExerciseID) string {
	q := url.Values{"instrument": {v.Instrument.ID}, "stage": {string(v.Stage)}}
	if v.Section.ID != 0 {
		q.Set("section", strconv.FormatInt(int64(v.Section.ID), 10))
	}
	if student := v.Kept(); student != 0 {
		q.Set("student", strconv.FormatInt(int64(student), 10))
		q.Del("stage")
	}
	return fmt.Sprintf("/bench/%d?%s", id, q.Encode())
}

// Link is the address of this bench with one thing changed.
func (v benchView) Link(name string, value any) string {
	q := url.Values{}
	q.Set("instrument", v.Instrument.ID)
	if name != "line" && !(name == "instrument" && v.ask.line != "") {
		q.Set("piece", v.Key.String())
	}
	student := v.Student.ID
	if v.ask.line != "" { // nobody is marked, and who was at hand is kept
		student = v.ask.student
	}
	if student != 0 && name != "instrument" && name != "section" {
		q.Set("student", strconv.FormatInt(int64(student), 10))
	}
	if v.Section.ID != 0 {
		q.Set("section", strconv.FormatInt(int64(v.Section.ID), 10))
	}
	if v.ask.line != "" && !(v.ask.line == drillLine && name == "instrument") {
		v.ask.lineInto(q)
	}
	if v.Student.ID == 0 || name == "instrument" || name == "section" { // else it is where the student is
		q.Set("stage", string(v.Stage))
	}
	v.ask.otherInto(q)
	if name == "student" {
		q.Del("stage")
	}
	if name == "student" || name == "section" { // who may have another line
		q.Del("keep")
	}
	q.Set(name, fmt.Sprint(value))
	if name == "line" && value == "" {
		q.Set("piece", v.ask.of)
		q.Del("line")
		q.Del("of")
	}
	return fmt.Sprintf("/bench/%d?%s", v.Exercise.ID, q.Encode())
}

// PlayerLink is the address of this bench with a student at hand, on their instrument.
func (v benchView) PlayerLink(student store.Student) string {
	v.Student = student
	v.Instrument, _ = instrument.ByID(student.Instrument)
	return v.Link("student", student.ID)
}

// News is none before something was marked.
func (benchView) News() markNews { return markNews{} }

// Schools lists the ways of counting.
func (v benchView) Schools() []count.School { return count.Schools() }

// Octave is the choice in force.
func (v benchView) Octave() instrument.OctaveChoice {
	for _, c := range v.Octaves {
		if v.Options.Placed.Chosen && c.Octaves == v.Options.Placed.Octaves || !v.Options.Placed.Chosen && c.Suggested {
			return c
		}
	}
	return instrument.OctaveChoice{}
}

// Here is the address of this bench as it stands: who is at hand, at what, and the tempo.
func (v benchView) Here() string { return v.here(v.Tempo) }

// here is Here, with the tempo left to the music where it is 0.
func (v benchView) here(tempo int) string {
	q := url.Values{}
	q.Set("instrument", v.Instrument.ID)
	q.Set("piece", v.Key.String())
	q.Set("stage", string(v.Stage))
	if v.Section.ID != 0 {
		q.Set("section", strconv.FormatInt(int64(v.Section.ID), 10))
	}
	if v.Student.ID != 0 {
		q.Set("student", strconv.FormatInt(int64(v.Student.ID), 10))
	}
	if v.ask.line != "" {
		v.ask.lineInto(q)
	}
	if v.ask.oneNote != "" {
		q.Set("one", v.ask.oneNote)
	}
	v.ask.otherInto(q)
	if tempo > 0 {
		q.Set("tempo", strconv.Itoa(tempo))
	}
	return fmt.Sprintf("/bench/%d?%s", v.Exercise.ID, q.Encode())
}

// Title names the page: the exercise and the instrument.
func (v benchView) Title() string {
	return fmt.Sprintf("%d · %s, %s", v.Exercise.Number, v.Exercise.Title, v.Instrument.Name)
}

// Sheet is what the page's script draws; the side alone does without it.
func (v benchView) Sheet() sheetData {
	report := v.Report
	if v.Second.Lines.Entry > 0 {
		report.Part = markEntries(report.Part, v.Second.Lines.Entry)
	}
	return newSheet(report, v.Instrument, v.Words, v.strings, v.Second.engraved(mei.Options{TempoWords: v.tempoWords, Ruler: true, IDs: benchSheetIDs}))
}

// benchSheetIDs leads the ids of the Bench's music, so that other music can stand on
// the same page.
const benchSheetIDs mei.IDs = "bench-"

// Fingered says whether there is anything for the hands to be told.
func (v benchView) Fingered() bool {
	for _, m := range v.Report.Measures {
		for _, e := range m.Events {
			if e.Fingering != "" {
				return true
			}
		}
	}
	return false
}

// Ladder is the tempos there are from the one at hand, slowest first.
func (v benchView) Ladder() []int { return routine.Ladder(v.Tempo) }

// failedToRead is failed for pages that read an exercise, which may be none any more.
func (s *Server) failedToRead(w http.ResponseWriter, r *http.Request, err error) {
	var unread score.Problems
	if !errors.As(err, &unread) {
		s.failed(w, r, err)
		return
	}
	s.render(w, http.StatusUnprocessableEntity, "message", "layout", layoutData{Title: "Cannot be read", Teacher: asking(r).Teacher,
		Content: message{"This exercise cannot be read any more", unread.Error()}})
}

func (s *Server) bench(w http.ResponseWriter, r *http.Request) {
	v, err := loadBench(r.Context(), deskOf(r), askOf(r))
	if err != nil {
		s.failedToRead(w, r, err)
		return
	}
	if to := v.givenElsewhere(r); to != "" {
		http.Redirect(w, r, to, http.StatusSeeOther)
		return
	}
	s.leave(r, v.Here())
	kept := "HX-Push-Url"
	if strings.HasPrefix(r.Header.Get("HX-Trigger"), "stage-") { // Back goes from piece to piece
		kept = "HX-Replace-Url"
	}
	switch {
	case isHTMX(r) && r.Header.Get("HX-Target") == "side":
		v.Update = true
		w.Header().Set(kept, v.Here())
		s.fragment(w, "bench", "side-update", v)
	case isHTMX(r) && r.Header.Get("HX-Target") == "bench":
		w.Header().Set(kept, v.Here())
		v.Swapped = true
		s.fragment(w, "bench", "other-bench", v)
	default:
		s.page(w, r, http.StatusOK, "bench", v.Title(), v)
	}
}

// lastPlace is the session's key for the address of the Bench as it was left.
const lastPlace = "place"

// leave remembers the Bench as it stands, but for one in a section of a colleague's.
func (s *Server) leave(r *http.Request, address string) {
	if deskOf(r).Guest().Own() && s.sessions.GetString(r.Context(), lastPlace) != address {
		s.sessions.Put(r.Context(), lastPlace, address)
	}
}

// benchAgain is the address of the Bench as it was left, with the section that has been
// chosen elsewhere since; "" before the Bench was opened.
func (s *Server) benchAgain(r *http.Request) string {
	place, err := url.Parse(s.sessions.GetString(r.Context(), lastPlace))
	if err != nil || place.Path == "" {
		return ""
	}
	q := place.Query()
	chosen := s.sessions.GetInt64(r.Context(), lastSection)
	if chosen == 0 || q.Get("section") == strconv.FormatInt(chosen, 10) {
		return place.String()
	}
	q.Set("section", strconv.FormatInt(chosen, 10))
	q.Del("student")
	place.RawQuery = q.Encode()
	return place.String()
}

// Plan is what the page's script plays of the piece at hand, in the order of playing,
// and frames.
func (v stand) Plan() []planned {
	var list []planned
	for _, s := range v.played {
		list = append(list, planned{s.At, s.From.Float(), s.To.Float()})
	}
	return list
}

// planned is a measure of the piece at hand by its index, or as much of one as belongs
// to it, in whole notes from its bar line.
type planned struct {
	Index int     `json:"index"`
	From  float64 `json:"from"`
	To    float64 `json:"to"`
}

// beyondLine tells of notes that have no fingering, in a sentence.
type beyondLine struct {
	why      string
	measures []int
	Unlisted bool   // their fingerings are the teacher's to write
	Several  bool   // notes
	First    string // the id of the first in the engraving
}

// Words name the measures and say why.
func (l beyondLine) Words() string {
	said, _, _ := strings.Cut(l.why, ":")
	return score.MeasureList(l.measures) + ": " + said + "."
}

// Beyond lists what the instrument has no fingering for, by what is to be done.
func (v benchView) Beyond() []beyondLine {
	var lines []beyondLine
	for i, m := range v.Report.Measures {
		for j, e := range m.Events {
			if e.Kind != "note" || e.Tied {
				continue
			}
			why, unlisted := beyond(v.Instrument, v.Report.Part.Measures[i].Events[j].Pitch, e)
			if why == "" {
				continue
			}
			k := slices.IndexFunc(lines, func(l beyondLine) bool { return l.why == why })
			if k < 0 {
				lines = append(lines, beyondLine{why: why, Unlisted: unlisted, First: benchSheetIDs.Event(score.Place{Measure: i, Event: j})})
				k = len(lines) - 1
			} else {
				lines[k].Several = true
			}
			if !slices.Contains(lines[k].measures, m.Number) {
				lines[k].measures = append(lines[k].measures, m.Number)
			}
		}
	}
	return lines
}

// ofPart leaves out what is remarked of other parts of a file.
func ofPart(remarks []score.Problem, name string) []score.Problem {
	var own []score.Problem
	for _, p := range remarks {
		if p.Part == "" || p.Part == name {
			own = append(own, p)
		}
	}
	return own
}

// linkedTab is an instrument with the address of its part.
type linkedTab struct {
	instrumentTab
	Link string
}

// benchFunctions are what the Bench's templates may call.
func benchFunctions(recorded recordings) template.FuncMap {
	return template.FuncMap{
		"inside": func(v benchView) benchView { v.Update = false; return v },
		"tab":    func(v benchView, t instrumentTab) linkedTab { return linkedTab{t, v.Link("instrument", t.ID)} },
		"heard":  func(v benchView) heard { return newHeard(recorded, v) },
	}
}
