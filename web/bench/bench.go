package bench

import (
	"context"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// benchView is the Bench's fourth step, what its page shows: one exercise opened up
// for one instrument, with the chunk, the stage and the student at hand.
type benchView struct {
	teach.Stand
	New      []string // what the student at hand, or the class, has not met before, in words
	Room     string   // who in the room has it hardest, in words
	Second   teach.OtherPart
	Before   store.Neighbour // in the book
	After    store.Neighbour
	Did      byHand // what was just changed by hand, with the way back
	Routines []routine.Named
	Swapped  bool // a script puts it on the page, and draws it
	Update   bool // parts of the page are sent along, out of band
}

// loadBench goes all four steps.
func loadBench(ctx context.Context, desk *teach.Class, ask teach.Request) (benchView, error) {
	desk.ExpectHard(ask.Exercise) // how hard it is for the room is said too
	c, saved, worked, err := teach.ChooseWithWays(ctx, desk, ask)
	if err != nil {
		return benchView{}, err
	}
	x, err := teach.Explain(ctx, desk, &c, saved, worked)
	if err != nil {
		return benchView{}, err
	}
	w, err := teach.LoadWork(ctx, desk, c)
	if err != nil {
		return benchView{}, err
	}
	v := benchView{Stand: teach.NewStand(w, x, saved.Preferences)}
	if !v.InDrill() {
		if v.New, err = teach.NewTo(ctx, desk, c, x.Report); err != nil {
			return v, err
		}
	}
	hard, err := desk.HardFor(ctx, w.Exercise.ID, w.Instrument.ID)
	if err != nil {
		return v, err
	}
	v.Room = teach.RoomWords(c.Instruments(), hard)
	if v.Second, err = teach.LoadOtherPart(ctx, desk, saved, c, x); err != nil {
		return v, err
	}
	if v.Routines, err = desk.Routines(ctx); err != nil {
		return v, err
	}
	v.Before, v.After, err = desk.Neighbours(ctx, w.Exercise.ID)
	return v, err
}

// atBench is the Bench of some work, with no music: what has an address.
func atBench(w teach.Work) benchView { return benchView{Stand: teach.Stand{Work: w, Tempo: w.Tempo}} }

// ExerciseLink is the address of another exercise's Bench, with who is at hand.
func (v benchView) ExerciseLink(id store.ExerciseID) string {
	q := url.Values{"instrument": {v.Instrument.ID}, "stage": {string(v.Stage)}}
	if v.Class.ID != 0 {
		q.Set("class", strconv.FormatInt(int64(v.Class.ID), 10))
	}
	if student := v.Saved(); student != 0 {
		q.Set("student", strconv.FormatInt(int64(student), 10))
		q.Del("stage")
	}
	return fmt.Sprintf("/bench/%d?%s", id, q.Encode())
}

// Link is the address of this bench with one thing changed.
func (v benchView) Link(name string, value any) string {
	q := url.Values{}
	q.Set("instrument", v.Instrument.ID)
	if name != "line" && !(name == "instrument" && v.Ask.Line != "") {
		q.Set("chunk", v.Key.String())
	}
	student := v.Student.ID
	if v.Ask.Line != "" { // nobody is marked, and who was at hand is kept
		student = v.Ask.Student
	}
	if student != 0 && name != "instrument" && name != "class" {
		q.Set("student", strconv.FormatInt(int64(student), 10))
	}
	if v.Class.ID != 0 {
		q.Set("class", strconv.FormatInt(int64(v.Class.ID), 10))
	}
	if v.Ask.Line != "" && !(v.Ask.Line == teach.DrillVersion && name == "instrument") {
		v.Ask.LineInto(q)
	}
	if v.Student.ID == 0 || name == "instrument" || name == "class" { // else it is where the student is
		q.Set("stage", string(v.Stage))
	}
	v.Ask.OtherInto(q)
	if name == "student" {
		q.Del("stage")
	}
	if name == "student" || name == "class" { // who may have another line
		q.Del("keep")
	}
	q.Set(name, fmt.Sprint(value))
	if name == "line" && value == "" {
		q.Set("chunk", v.Ask.Of)
		q.Del("line")
		q.Del("of")
	}
	return fmt.Sprintf("/bench/%d?%s", v.Exercise.ID, q.Encode())
}

// LongerFirst says whether the stage at hand takes longer values first, and the chunk can be
// written so.
func (v benchView) LongerFirst() bool {
	return v.Step().Tempo == routine.LongerFirst && !v.InDrill() && slices.Contains(v.Lines, breakdown.Longer)
}

// StumbleMeasures are the measures of a unit of several chunks, of which one may be named where
// it stumbled; none for a chunk.
func (v benchView) StumbleMeasures() []int {
	inside := 0
	for _, c := range v.Report.Chunks {
		if key := c.Key(); key != v.Key && key.First >= v.Key.First && key.Last <= v.Key.Last {
			inside++
		}
	}
	var list []int
	for n := v.Key.First; inside > 1 && n <= v.Key.Last; n++ {
		list = append(list, n)
	}
	return list
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
func (v benchView) Octave() instrument.OctaveOption {
	for _, c := range v.Octaves {
		if v.Options.Placed.Chosen && c.Octaves == v.Options.Placed.Octaves || !v.Options.Placed.Chosen && c.Suggested {
			return c
		}
	}
	return instrument.OctaveOption{}
}

// Here is the address of this bench as it stands: who is at hand, at what, and the tempo.
func (v benchView) Here() string { return v.here(v.Tempo) }

// here is Here, with the tempo left to the music where it is 0.
func (v benchView) here(tempo int) string {
	q := url.Values{}
	q.Set("instrument", v.Instrument.ID)
	q.Set("chunk", v.Key.String())
	q.Set("stage", string(v.Stage))
	if v.Class.ID != 0 {
		q.Set("class", strconv.FormatInt(int64(v.Class.ID), 10))
	}
	if v.Student.ID != 0 {
		q.Set("student", strconv.FormatInt(int64(v.Student.ID), 10))
	}
	if v.Ask.Line != "" {
		v.Ask.LineInto(q)
	}
	if v.Ask.OneNote != "" {
		q.Set("one", v.Ask.OneNote)
	}
	v.Ask.OtherInto(q)
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
func (v benchView) Sheet() music.SheetData {
	report := v.Report
	if v.Second.Lines.Entry > 0 {
		report.Part = teach.MarkEntries(report.Part, v.Second.Lines.Entry)
	}
	return music.NewSheet(report, v.Instrument, v.Words, v.Strings,
		v.Second.Engraved(mei.Options{TempoWords: v.TempoWords, Ruler: true, IDs: music.BenchSheetIDs}))
}

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

func (s *handlers) bench(w http.ResponseWriter, r *http.Request) error {
	v, err := loadBench(r.Context(), site.ClassOf(r), askOf(r))
	if err != nil {
		return err
	}
	if to := v.givenElsewhere(r); to != "" {
		http.Redirect(w, r, to, http.StatusSeeOther)
		return nil
	}
	s.RememberBench(r, v.Here())
	saved := "HX-Push-Url"
	if strings.HasPrefix(r.Header.Get("HX-Trigger"), "stage-") { // Back goes from chunk to chunk
		saved = "HX-Replace-Url"
	}
	switch {
	case site.IsHTMX(r) && r.Header.Get("HX-Target") == "side":
		v.Update = true
		w.Header().Set(saved, v.Here())
		s.Fragment(w, "bench", "side-update", v)
	case site.IsHTMX(r) && r.Header.Get("HX-Target") == "bench":
		w.Header().Set(saved, v.Here())
		v.Swapped = true
		s.Fragment(w, "bench", "other-bench", v)
	default:
		s.Page(w, r, http.StatusOK, "bench", v.Title(), v)
	}
	return nil
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
			why, unlisted := music.Beyond(v.Instrument, v.Report.Part.Measures[i].Events[j].Pitch, e)
			if why == "" {
				continue
			}
			k := slices.IndexFunc(lines, func(l beyondLine) bool { return l.why == why })
			if k < 0 {
				lines = append(lines, beyondLine{why: why, Unlisted: unlisted,
					First: music.BenchSheetIDs.Event(score.Place{Measure: i, Event: j})})
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

// linkedTab is an instrument with the address of its part.
type linkedTab struct {
	teach.InstrumentTab
	Link string
}

// Functions are what the Bench's templates may call.
func Functions(recorded music.Recordings) template.FuncMap {
	return template.FuncMap{
		"inside": func(v benchView) benchView { v.Update = false; return v },
		"tab":    func(v benchView, t teach.InstrumentTab) linkedTab { return linkedTab{t, v.Link("instrument", t.ID)} },
		"heard":  func(v benchView) heard { return newPlayback(recorded, v) },
	}
}
