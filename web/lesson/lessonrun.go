package lesson

import (
	"context"
	"fmt"
	"net/http"
	"slices"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// runView is a lesson while it runs: every step with all that the room needs for it, so
// that the page goes on when the network does not.
type runView struct {
	store.Lesson
	Name   string // of the class
	Guest  store.Guest
	Steps  []teach.LedStep
	Rows   [][]runStudent          // who is in the class, as they sit
	Across int                     // most in a row of seats; 0 where nobody has one
	Room   []instrument.Instrument // that are played here, in score order
	Music  map[string]map[string]music.StepMusic
	Voices map[string]music.Voice
	A4     int
	Left   []lesson.Step // that did not fit
	Halves int
}

// runStudent is a name to tap.
type runStudent struct {
	store.Student
	Title  string // of the instrument
	Absent bool
}

// Time is how long all steps take, in words.
func (v runView) Time() string { return lesson.Time(v.Halves) }

// Link is the address of a page of the lesson.
func (v runView) Link(page string) string { return teach.LessonLink(v.Lesson, page) }

// StepLink is the address of the lesson at a step.
func (v runView) StepLink(k int) string { return fmt.Sprintf("%s&step=%d", v.Link("/run"), k) }

// MoreLeft is how many of what did not fit are not named.
func (v runView) MoreLeft() int { return max(0, len(v.Left)-3) }

// Scale is the marks of the metronome, slowest first.
func (runView) Scale() []int { return routine.MetronomeMarks() }

// MayMark says whether who looks may mark.
func (v runView) MayMark() bool { return v.Guest.MayMark() }

// runLesson shows a lesson that has begun.
func (s *handlers) runLesson(w http.ResponseWriter, r *http.Request) error {
	l, err := site.ClassOf(r).Lesson(r.Context(), site.ID[store.LessonID](r))
	if err != nil {
		return err
	}
	if !l.Running() {
		http.Redirect(w, r, teach.LessonLink(l, ""), http.StatusSeeOther)
		return nil
	}
	v, err := s.runView(r, l)
	if err != nil {
		return err
	}
	s.Page(w, r, http.StatusOK, "lessonrun", "Lesson of "+v.Name, v)
	return nil
}

func (s *handlers) runView(r *http.Request, l store.Lesson) (runView, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	v := runView{Lesson: l, Guest: desk.Guest(), Music: map[string]map[string]music.StepMusic{},
		Voices: map[string]music.Voice{}}
	_, class, err := desk.ChooseClass(ctx, l.Class)
	if err != nil {
		return v, err
	}
	v.Name = class.Name
	if err := v.fillRoom(ctx, desk); err != nil {
		return v, err
	}
	fitted := l.Plan.Fit()
	v.Halves = fitted.Halves
	for _, k := range fitted.Left {
		v.Left = append(v.Left, l.Plan.Steps[k])
	}
	room := map[string][]teach.Stand{}
	for n, scene := range l.Plan.Scenes() {
		key := fmt.Sprintf("%d/%s", scene.Exercise, scene.Chunk)
		parts, known := room[key]
		if !known {
			if parts, err = roomParts(ctx, desk, l.Class, scene.Step); err != nil {
				return v, fmt.Errorf("lay out %s: %w", scene.Name(), err)
			}
			room[key] = parts
			v.addMusic(s, key, parts)
		}
		v.Steps = append(v.Steps, teach.NewLedStep(n, scene, key, parts))
	}
	if requested := site.Text(r, "step"); requested != "" {
		v.Lesson.Step = int(site.Number(r, "step"))
	}
	v.Lesson.Step = max(0, min(v.Lesson.Step, len(v.Steps)-1))
	return v, nil
}

// fillRoom lists who is in the class, and what they play.
func (v *runView) fillRoom(ctx context.Context, desk *teach.Class) error {
	students, err := desk.Students(ctx, v.Class)
	if err != nil {
		return err
	}
	v.Room = teach.PlayedBy(students)
	for _, row := range teach.SeatRows(students) {
		shown := make([]runStudent, len(row))
		for k, student := range row {
			shown[k] = runStudent{student, teach.InstrumentTitle(student.Instrument), slices.Contains(v.Absent, student.ID)}
		}
		if row[0].Row > 0 {
			v.Across = max(v.Across, len(row))
		}
		v.Rows = append(v.Rows, shown)
	}
	return nil
}

// roomParts lays out a step's chunk, alone, for everybody in the room.
func roomParts(ctx context.Context, desk *teach.Class, class store.ClassID, step lesson.Step) ([]teach.Stand, error) {
	ask := teach.AskAlone(class, step)
	var parts []teach.Stand
	_, err := teach.ExplainEach(ctx, desk, ask, teach.Choice.Plays, func(at teach.Choice, _ teach.InstrumentTab,
		x teach.Explained, saved teach.Settings) {
		w := teach.Work{Choice: at, Routine: at.Routine(), Stage: step.Stage, Tempo: step.Tempo}
		parts = append(parts, teach.NewStand(w, x, saved.Preferences))
	})
	return parts, err
}

// addMusic adds the music of a chunk for every instrument.
func (v *runView) addMusic(s *handlers, key string, parts []teach.Stand) {
	v.Music[key] = map[string]music.StepMusic{}
	for _, p := range parts {
		v.A4 = p.A4
		v.Music[key][p.Instrument.ID] = music.NewStepMusic(p, p.Instrument.ID+"-")
		if _, known := v.Voices[p.Instrument.ID]; !known {
			v.Voices[p.Instrument.ID] = s.Recordings.VoiceOf(p.Instrument)
		}
	}
}
