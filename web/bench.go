package web

import (
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// benchView is one exercise opened up for one instrument, with the piece, the
// stage and the student at hand.
type benchView struct {
	Exercise   store.Exercise
	Report     breakdown.Report
	Remarks    []score.Problem
	Instrument instrument.Instrument
	Tabs       []instrumentTab
	Section    store.Section
	Sections   []store.Section
	Students   []benchStudent // of the section, on this instrument
	Student    store.Student  // at hand; ID 0 when none is chosen
	Pieces     []benchPiece
	Piece      benchPiece
	Passages   []breakdown.Passage // the piece, measure by measure
	Stage      routine.Stage
	State      routine.State
	Tempo      int
	BeatName   string
	CountOff   []count.Cue
	Log        []tryView // the student's latest tries here, newest first
	Options    breakdown.Options
	Octaves    []instrument.OctaveChoice
	OwnPart    bool // the instrument's part is not made from the source
	OneNote    oneNote
	section    []store.Student
	Drills     []breakdown.Drill // the hardest changes of the exercise
	InDrill    bool              // they are on the page in place of the exercise
	Words      finger.Words
	tempoWords string
	strings    []stringColour
	Update     bool // the pieces are sent along with the side, out of band
}

type instrumentTab struct {
	instrument.Instrument
	Current  bool
	Students int
}

type benchPiece struct {
	breakdown.Piece
	Key     string // "1-2", its first and last measure
	Current bool
	State   routine.State
}

type benchStudent struct {
	store.Student
	Current bool
	State   routine.State // on the piece at hand
}

// Link is the address of this bench with one thing changed.
func (v benchView) Link(name string, value any) string {
	q := url.Values{}
	q.Set("instrument", v.Instrument.ID)
	q.Set("piece", v.Piece.Key)
	if v.Student.ID != 0 {
		q.Set("student", strconv.FormatInt(v.Student.ID, 10))
	}
	if v.Section.ID != 0 {
		q.Set("section", strconv.FormatInt(v.Section.ID, 10))
	}
	q.Set("tempo", strconv.Itoa(v.Tempo))
	if name == "instrument" || name == "section" {
		q.Del("student")
	}
	if v.InDrill && name != "instrument" {
		q.Set("drill", "yes")
		q.Del("student")
		q.Del("tempo") // each drill has its own
	}
	if name == "drill" {
		q.Del("piece")
		q.Del("tempo")
	}
	q.Set(name, fmt.Sprint(value))
	if name == "drill" && value == "" {
		q.Del("drill")
	}
	return fmt.Sprintf("/bench/%d?%s", v.Exercise.ID, q.Encode())
}

// NextPiece is the piece after the one at hand; Key is "" after the last.
func (v benchView) NextPiece() benchPiece {
	for i, p := range v.Pieces {
		if p.Current && i+1 < len(v.Pieces) {
			return v.Pieces[i+1]
		}
	}
	return benchPiece{}
}

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

// Here is the address of this bench as it stands.
func (v benchView) Here() string { return v.Link("piece", v.Piece.Key) }

// Sheet is what the page's script draws; the side alone does without it.
func (v benchView) Sheet() sheetData {
	return newSheet(v.Report, v.Instrument, v.Words, v.strings, mei.Options{TempoWords: v.tempoWords, Ruler: true})
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

// Notches is the metronome scale.
func (v benchView) Notches() []int { return routine.Notches() }

func (s *Server) bench(w http.ResponseWriter, r *http.Request) {
	v, err := s.benchView(r, askOf(r))
	if err != nil {
		var unread score.Problems
		if errors.As(err, &unread) {
			s.render(w, http.StatusUnprocessableEntity, "message", "layout", frame{Title: "Cannot be read", Teacher: teacher(r),
				Content: message{"This exercise cannot be read any more", unread.Error()}})
			return
		}
		s.failed(w, r, err)
		return
	}
	s.sessions.Put(r.Context(), "bench", v.Exercise.ID)
	switch {
	case isHTMX(r) && r.Header.Get("HX-Target") == "side":
		s.updateSide(w, v)
	case isHTMX(r) && r.Header.Get("HX-Target") == "bench":
		s.partial(w, "bench", "bench", v)
	default:
		s.page(w, r, http.StatusOK, "bench", fmt.Sprintf("%d · %s", v.Exercise.Number, v.Exercise.Title), v)
	}
}

// updateSide sends the stage at hand and the list of pieces.
func (s *Server) updateSide(w http.ResponseWriter, v benchView) {
	v.Update = true
	s.partial(w, "bench", "side-update", v)
}

// benchAsk is what a request asks to see; zero values leave the choice open.
type benchAsk struct {
	exercise         int64
	instrument       string
	piece            string
	stage            string
	student, section int64
	tempo            int
	oneNote          string // a concert note, "Bb"
	drill            bool
}

func askOf(r *http.Request) benchAsk {
	return benchAsk{
		exercise: idOf(r, "id"), instrument: text(r, "instrument"), piece: text(r, "piece"), stage: text(r, "stage"),
		student: number(r, "student"), section: number(r, "section"), tempo: int(number(r, "tempo")), oneNote: text(r, "one"),
		drill: text(r, "drill") == "yes",
	}
}

func (s *Server) benchView(r *http.Request, ask benchAsk) (benchView, error) {
	ctx, t := r.Context(), teacher(r).ID
	var v benchView
	var err error
	if v.Exercise, err = s.store.ExerciseByID(ctx, t, ask.exercise); err != nil {
		return v, err
	}
	if v.section, err = s.choosePeople(ctx, t, &v, ask); err != nil {
		return v, err
	}
	kept, err := s.store.Settings(ctx, t)
	if err != nil {
		return v, err
	}
	s.chooseInstrument(r, &v, ask)
	v.Instrument, v.Words, v.strings = taught(kept, v.Instrument), wordsOf(kept), stringColours(kept, v.Instrument)
	met, known, err := s.metBefore(ctx, t, v.Exercise, v.Instrument)
	if err != nil {
		return v, err
	}
	v.Options = optionsOf(kept, v.Section)
	v.Options.Known, v.Options.Finger = known, fingerOptions(kept, v.Instrument, v.Section.Year)
	if v.Options.Finger.Placed, err = s.placedFingerings(ctx, t, v.Exercise.ID, v.Instrument.ID); err != nil {
		return v, err
	}
	own, err := s.overridesOf(ctx, t, v.Exercise.ID)
	if err != nil {
		return v, err
	}
	v.OwnPart = own[v.Instrument.ID] != nil
	sc, source, writtenFor, err := partSource(v.Exercise, own[v.Instrument.ID])
	if err != nil {
		return v, err
	}
	v.Remarks, v.tempoWords = sc.Remarks, sc.TempoWords
	if v.Options.Placed, err = s.placementOf(ctx, t, v.Exercise.ID, v.Instrument.ID); err != nil {
		return v, err
	}
	if !v.OwnPart {
		v.Octaves = instrument.OctaveChoices(source, v.Instrument, v.Section.Year)
	}
	v.Tempo = ask.tempo
	if v.Tempo < routine.Notches()[0] || v.Tempo > 208 {
		v.Tempo = routine.StartTempo(beatsPerMinute(sc.Tempo, source.Meter()))
	}
	v.Report = breakdown.Read(sc, source, writtenFor, v.Instrument, met, v.Options)
	v.Remarks = slices.Concat(v.Remarks, v.Report.Remarks)
	if v.Drills = v.Report.Drills(v.Instrument); ask.drill && len(v.Drills) > 0 {
		v.openDrill()
	}
	v.OneNote = oneNoteFor(v.section, v.Instrument, v.Options, ask.oneNote)
	choosePiece(&v, ask.piece)
	v.atDrillTempo(ask.tempo)
	if !v.InDrill {
		if err := s.addProgress(ctx, t, &v); err != nil {
			return v, err
		}
	}
	v.chooseStage(ask.stage)
	v.BeatName = v.Report.Part.Meter().BeatName(v.Options.British)
	v.Passages = v.Piece.Passages(v.Report.Part)
	first := v.Report.Part.Measures[v.Passages[0].At]
	first.Offset = v.Passages[0].From
	v.CountOff = count.CountOff(score.Part{Measures: []score.Measure{first}}, v.Options.Count)
	return v, nil
}

// Plan is what the page's script plays and frames of the piece at hand.
func (v benchView) Plan() []planned {
	var list []planned
	for _, p := range v.Passages {
		list = append(list, planned{p.At, p.From.Float(), p.To.Float()})
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

// beatsPerMinute turns a metronome mark into beats of the meter.
func beatsPerMinute(t score.Tempo, m score.Meter) int {
	if t.PerMinute == 0 {
		return 0
	}
	return int(score.Frac(int64(t.PerMinute), 1).Mul(t.Beat).Div(m.Beat()).Floor())
}
