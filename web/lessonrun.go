package web

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/play"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// runView is a lesson while it runs: every step with all that the room needs for it, so
// that the page goes on when the network does not.
type runView struct {
	store.Lesson
	Name   string // of the section
	Guest  store.Guest
	Steps  []runStep
	Rows   [][]runStudent          // who is in the section, as they sit
	Across int                     // most in a row of seats; 0 where nobody has one
	Room   []instrument.Instrument // that are played here, in score order
	Music  map[string]map[string]runMusic
	Voices map[string]voice
	A4     int
	Left   []lesson.Step // that did not fit
	Halves int
}

// runStep is a step as the page shows it.
type runStep struct {
	lesson.Step
	K        int
	Heading  string
	Says     []runWords
	BeatName string
	CountOff []count.Cue
	Cards    []roomCard
	Music    string // the key of its music
	Cause    routine.Cause
	Click    bool
}

// runWords is what is said to some instruments.
type runWords struct {
	To    []string // instrument ids
	Names string   // "trumpet, trombone"; "" for everybody
	Words string
}

// roomCard is what an instrument of the room begins with.
type roomCard struct {
	instrument.Instrument
	First string // note, "" of a stroke without pitch
	How   string // it is fingered
	One   string // everybody's one note as it is read here, where the stage sits well on one
	Does  string // in the ways of the stage that are its own
}

// runStudent is a name to tap.
type runStudent struct {
	store.Student
	Title  string // of the instrument
	Absent bool
}

// runMusic is a piece for an instrument, for the page's script.
type runMusic struct {
	Sheet sheetData  `json:"sheet"`
	Plan  []planned  `json:"plan"`
	Round heardRound `json:"round"`
}

// Time is how long the step takes, in words.
func (s runStep) Time() string { return lesson.Time(s.Halves()) }

// Line names the step in the list.
func (s runStep) Line() string {
	if s.Warm {
		return "Warm up: first three notes"
	}
	return s.Name()
}

// Time is how long all steps take, in words.
func (v runView) Time() string { return lesson.Time(v.Halves) }

// Link is the address of a page of the lesson.
func (v runView) Link(page string) string { return lessonLink(v.Lesson, page) }

// StepLink is the address of the lesson at a step.
func (v runView) StepLink(k int) string { return fmt.Sprintf("%s&step=%d", v.Link("/run"), k) }

// MoreLeft is how many of what did not fit are not named.
func (v runView) MoreLeft() int { return max(0, len(v.Left)-3) }

// Scale is the marks of the metronome, slowest first.
func (runView) Scale() []int { return routine.Notches() }

// MayMark says whether who looks may mark.
func (v runView) MayMark() bool { return v.Guest.MayMark() }

// runLesson shows a lesson that has begun.
func (s *Server) runLesson(w http.ResponseWriter, r *http.Request) {
	l, err := deskOf(r).Lesson(r.Context(), idOf[store.LessonID](r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if !l.Running() {
		http.Redirect(w, r, lessonLink(l, ""), http.StatusSeeOther)
		return
	}
	v, err := s.runView(r, l)
	if err != nil {
		s.failedToRead(w, r, err)
		return
	}
	s.page(w, r, http.StatusOK, "lessonrun", "Lesson of "+v.Name, v)
}

func (s *Server) runView(r *http.Request, l store.Lesson) (runView, error) {
	ctx, desk := r.Context(), deskOf(r)
	v := runView{Lesson: l, Guest: desk.Guest(), Music: map[string]map[string]runMusic{}, Voices: map[string]voice{}}
	_, section, err := desk.ChooseSection(ctx, l.Section)
	if err != nil {
		return v, err
	}
	v.Name = section.Name
	if err := v.fillRoom(ctx, desk); err != nil {
		return v, err
	}
	fitted := l.Plan.Fit()
	v.Halves = fitted.Halves
	for _, k := range fitted.Left {
		v.Left = append(v.Left, l.Plan.Steps[k])
	}
	room := map[string][]stand{}
	for place, k := range fitted.In {
		step := l.Plan.Steps[k]
		key := fmt.Sprintf("%d/%s", step.Exercise, step.Piece)
		parts, known := room[key]
		if !known {
			if parts, err = roomParts(ctx, desk, l.Section, step); err != nil {
				return v, fmt.Errorf("lay out %s: %w", step.Name(), err)
			}
			room[key] = parts
			v.addMusic(s, key, parts)
		}
		v.Steps = append(v.Steps, newRunStep(place, step, key, parts))
	}
	if asked := text(r, "step"); asked != "" {
		v.Lesson.Step = int(number(r, "step"))
	}
	v.Lesson.Step = max(0, min(v.Lesson.Step, len(v.Steps)-1))
	return v, nil
}

// fillRoom lists who is in the section, and what they play.
func (v *runView) fillRoom(ctx context.Context, desk *teach.Class) error {
	students, err := desk.Students(ctx, v.Section)
	if err != nil {
		return err
	}
	v.Room = playedBy(students)
	for _, row := range seatRows(students) {
		shown := make([]runStudent, len(row))
		for k, student := range row {
			shown[k] = runStudent{student, instrumentTitle(student.Instrument), slices.Contains(v.Absent, student.ID)}
		}
		if row[0].Row > 0 {
			v.Across = max(v.Across, len(row))
		}
		v.Rows = append(v.Rows, shown)
	}
	return nil
}

// roomParts lays out a step's piece, alone, for everybody in the room.
func roomParts(ctx context.Context, desk *teach.Class, section store.SectionID, step lesson.Step) ([]stand, error) {
	ask := askAlone(section, step)
	var parts []stand
	_, err := explainEach(ctx, desk, ask, choice.plays, func(at choice, _ instrumentTab, x explained, kept taughtBy) {
		w := work{choice: at, Routine: at.routine(), Stage: step.Stage, Tempo: step.Tempo}
		parts = append(parts, present(w, x, kept.Preferences))
	})
	return parts, err
}

// askAlone asks for a step's piece by itself.
func askAlone(section store.SectionID, step lesson.Step) benchAsk {
	ask := benchAsk{exercise: store.ExerciseID(step.Exercise), section: section, piece: step.Piece.String()}
	if step.Label != wholeLabel {
		ask.line, ask.of = breakdown.Alone, step.Piece.String()
	}
	return ask
}

// wholeLabel is the label of the piece that is the whole exercise.
const wholeLabel = "Whole"

// addMusic adds the music of a piece for every instrument.
func (v *runView) addMusic(s *Server, key string, parts []stand) {
	v.Music[key] = map[string]runMusic{}
	for _, p := range parts {
		v.A4 = p.A4
		v.Music[key][p.Instrument.ID] = newRunMusic(p, p.Instrument.ID+"-")
		if _, known := v.Voices[p.Instrument.ID]; !known {
			v.Voices[p.Instrument.ID] = s.recordings.voiceOf(p.Instrument)
		}
	}
}

// newRunMusic is the music of a part, whose ids begin with what is given.
func newRunMusic(p stand, ids string) runMusic {
	return runMusic{
		Sheet: newSheet(p.Report, p.Instrument, p.Words, p.strings, mei.Options{Ruler: true, IDs: mei.IDs(ids)}),
		Plan:  p.Plan(), Round: newHeardRound(play.RoundOf(p.Report.Part, p.played)),
	}
}

func newRunStep(place int, step lesson.Step, key string, parts []stand) runStep {
	run := runStep{Step: step, K: place, Music: key, Cause: mendedAt(step.Form)}
	for _, p := range parts {
		in := p.Routine.Step(step.Stage)
		if like, has := p.Routine.Like(routine.Step{Stage: step.Stage, Kind: step.Form}); has {
			in = p.Routine.Step(like)
		}
		if run.Heading == "" || !p.Instrument.Unpitched() && run.CountOff == nil {
			run.Heading, run.BeatName, run.Click = in.Title(p.Instrument), p.BeatName, !in.NoClick
		}
		if len(run.CountOff) == 0 {
			run.CountOff = p.CountOff
		}
		run.say(p, in)
		card := newRoomCard(p, in)
		if step.Warm {
			card.One, card.Does = "", ""
		}
		run.Cards = append(run.Cards, card)
	}
	if step.Warm {
		run.Heading = "Warm up: the first three notes"
		run.Says = []runWords{{Words: "Each of the first three notes as long as a slow breath, everybody together; listen, then the next."}}
	}
	if step.Warm {
		return run
	}
	piece := "piece " + step.Label
	if step.Label == wholeLabel {
		piece = "the whole"
	}
	run.Heading += ", " + piece
	return run
}

// mendedAt is what stumbles at a kind of stage, unless the teacher says otherwise.
func mendedAt(form routine.Stage) routine.Cause {
	for _, s := range routine.Standard() {
		if s.Stage == form {
			return s.Mends[0]
		}
	}
	return routine.Rhythm
}

// say adds what is said to an instrument; those to whom the same is said stand together.
func (s *runStep) say(p stand, in routine.Step) {
	words := in.Together(p.Instrument, p.Options.Count)
	if words == "" {
		return
	}
	k := slices.IndexFunc(s.Says, func(w runWords) bool { return w.Words == words })
	if k < 0 {
		k = len(s.Says)
		s.Says = append(s.Says, runWords{Words: words})
	}
	to := &s.Says[k]
	to.To = append(to.To, p.Instrument.ID)
	to.Names = strings.TrimPrefix(to.Names+", "+p.Instrument.Title(), ", ")
}

// shortWay is a fingering in as few words as it is read in: "1-3", "2 on G", "T 1 2 3".
func shortWay(p stand, e breakdown.Event) string {
	switch {
	case e.Fingering == "" || p.Instrument.Mechanism == instrument.Sticks:
		return ""
	case e.Fingering == "0", e.Fingering == "|":
		return "open"
	case p.Instrument.Mechanism == instrument.Valves || p.Instrument.Mechanism == instrument.Slide:
		return e.Fingering
	case p.Instrument.Mechanism == instrument.Woodwind:
		return strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(e.Fingering), "|"))
	}
	said, _, _ := strings.Cut(p.Words.Say(p.Instrument, e.Played.Fingering), ",")
	return said
}

func newRoomCard(p stand, in routine.Step) roomCard {
	c := roomCard{Instrument: p.Instrument}
	if in.OnOneNote() {
		c.One = p.OneNote.Written
	}
	for _, way := range in.Ways {
		switch way {
		case routine.Mouthpiece, routine.Pluck, routine.Pad, routine.Air:
			c.Does = cmp.Or(c.Does, way.Short(p.Instrument))
		}
	}
	for _, passage := range p.Passages {
		m := p.Report.Measures[passage.At]
		for _, e := range m.Events {
			if e.Kind != "note" || e.Tied {
				continue
			}
			if c.First = e.ShortName; p.Instrument.Unpitched() {
				c.First = ""
			}
			c.How = shortWay(p, e)
			if e.Hand != "" {
				c.How = strings.TrimSpace(c.How + " " + e.Hand)
			}
			return c
		}
	}
	return c
}
