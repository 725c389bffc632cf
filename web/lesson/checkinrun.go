package lesson

import (
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/checkin"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// checkinView is one check-in: what is due, how it went, and the next one.
type checkinView struct {
	store.Checkin
	Guest   store.Guest
	Student store.Student
	Title   string // of the instrument
	now     time.Time
	Chunks  []dueChunk
	Others  []otherExercise // that may be asked for beside it
	Day     string          // of the next one
	Problem string
	Typed   string // a comment that could not be kept
	Queue   queueView
	Music   map[string]music.StepMusic // of the chunks, by exercise and chunk
}

// dueChunk is a chunk that is due, and how it went.
type dueChunk struct {
	lesson.Step
	K      int
	Steps  routine.Routine   // that the student follows there
	Tries  []teach.LoggedTry // at this check-in, newest first
	Advice string            // what comes next, once it was heard
	Said   *teach.HomeTry    // what the student says of it, the last time; nil for nothing
}

// otherExercise is an exercise with its chunks, for the student's instrument.
type otherExercise struct {
	store.Exercise
	Chunks []otherChunk
}

type otherChunk struct {
	Key   breakdown.ChunkKey
	Label string
}

// queueView is how far a class's queue is.
type queueView struct {
	Minutes int // 0 where there is no queue
	Begun   int64
	Left    int // who wait, the one at hand included
	Next    store.CheckinID
	Name    string // of who comes next
}

// Sheet names the music of the chunk.
func (p dueChunk) Sheet() string { return fmt.Sprintf("%d/%s", p.Exercise, p.Step.Chunk) }

// Ladder is the tempos a chunk may be heard at.
func (p dueChunk) Ladder() []int { return routine.Ladder(p.Tempo) }

// When is the day of the check-in in words.
func (v checkinView) When() string { return teach.DayWords(v.On, v.now) }

// Said is the comment as it was typed last.
func (v checkinView) Said() string {
	if v.Typed != "" {
		return v.Typed
	}
	return v.Comment
}

// Path is the address of a part of the check-in.
func (v checkinView) Path(part string) string {
	return fmt.Sprintf("/check-ins/%d%s?class=%d%s", v.ID, part, v.Student.ClassID, v.Queue.query())
}

// NextPath is the address of anyone who comes next in the queue.
func (v checkinView) NextPath() string {
	return fmt.Sprintf("/check-ins/%d?class=%d%s", v.Queue.Next, v.Student.ClassID, v.Queue.query())
}

func (q queueView) query() string {
	if q.Minutes == 0 {
		return ""
	}
	return fmt.Sprintf("&queue=%d&begun=%d", q.Minutes, q.Begun)
}

// startQueue opens the check-in that is heard first.
func (s *handlers) startQueue(w http.ResponseWriter, r *http.Request) error {
	class := store.ClassID(site.Number(r, "class"))
	minutes, problem := site.ReadMinutes(site.Text(r, "minutes"), 1, teach.MostHearing)
	if problem != "" {
		return s.showCheckins(w, r, http.StatusUnprocessableEntity, problem)
	}
	queue, err := teach.CheckinQueue(r.Context(), site.ClassOf(r), class)
	if err != nil {
		return err
	}
	if len(queue) == 0 {
		return s.showCheckins(w, r, http.StatusUnprocessableEntity,
			"Nobody is waiting: set a day first, today or earlier for those you want to hear now.")
	}
	q := queueView{Minutes: minutes, Begun: s.Now().UnixMilli()}
	http.Redirect(w, r, fmt.Sprintf("/check-ins/%d?class=%d%s", queue[0].ID, class, q.query()), http.StatusSeeOther)
	return nil
}

// checkin shows one check-in.
func (s *handlers) checkin(w http.ResponseWriter, r *http.Request) error {
	return s.showCheckin(w, r, http.StatusOK, "")
}

func (s *handlers) showCheckin(w http.ResponseWriter, r *http.Request, status int, problem string) error {
	v, err := s.checkinView(r)
	if err != nil {
		return err
	}
	if v.Problem = problem; problem != "" {
		v.Typed = r.FormValue("comment")
	}
	if site.IsHTMX(r) {
		s.Render(w, status, "checkin", "checkin", v)
		return nil
	}
	s.Page(w, r, status, "checkin", "Check-in of "+v.Student.Name(), v)
	return nil
}

// checkinAt finds the check-in of a request, whose it is, and how far the queue is.
func (s *handlers) checkinAt(r *http.Request) (checkinView, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	v := checkinView{Guest: desk.Guest(), now: s.Now()}
	var err error
	if v.Checkin, err = desk.Checkin(ctx, site.ID[store.CheckinID](r)); err != nil {
		return v, err
	}
	if v.Student, err = desk.StudentByID(ctx, v.Checkin.Student); err != nil {
		return v, err
	}
	v.Queue, err = s.queueOf(r, v)
	return v, err
}

func (s *handlers) checkinView(r *http.Request) (checkinView, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	v, err := s.checkinAt(r)
	if err != nil {
		return v, err
	}
	v.Title = teach.InstrumentTitle(v.Student.Instrument)
	v.Day = teach.DateOf(site.ClassOf(r).Now()).AddDate(0, 0, checkin.DaysOn).Format(time.DateOnly)
	rules, err := desk.Rules(ctx)
	if err != nil {
		return v, err
	}
	tries, err := desk.CheckinTries(ctx, v.Checkin)
	if err != nil {
		return v, err
	}
	standings, err := desk.StudentStandings(ctx, v.Student.ID)
	if err != nil {
		return v, err
	}
	home, err := teach.TriesAtHome(ctx, desk, v.Student.ID, teach.DateOf(site.ClassOf(r).Now()).AddDate(0, 0, -checkin.DaysOn*2))
	if err != nil {
		return v, err
	}
	for k, step := range v.Due {
		exercise := store.ExerciseID(step.Exercise)
		p := dueChunk{Step: step, K: k, Steps: rules.For(v.Student.ID, exercise)}
		for _, a := range slices.Backward(tries) {
			if a.ExerciseID == exercise && a.Chunk == step.Chunk {
				p.Tries = append(p.Tries, teach.NewLoggedTry(a, p.Steps))
			}
		}
		if len(p.Tries) > 0 {
			p.Advice = standings[store.Task{Student: v.Student.ID, Exercise: exercise}].State(p.Steps, step.Chunk).Advice
			p.Stage, p.Tempo = p.Tries[0].Stage, p.Tries[0].Tempo
		}
		for _, t := range home {
			if t.Exercise == exercise && t.Chunk == step.Chunk {
				p.Said = &teach.HomeTry{When: teach.When(t.At), How: teach.SaidWords(t, p.Steps.Word(t.Stage)), Clean: t.Clean}
			}
		}
		v.Chunks = append(v.Chunks, p)
	}
	if err := s.addDueMusic(r, &v); err != nil {
		return v, err
	}
	v.Others, err = s.others(r, v)
	return v, err
}

// addDueMusic adds the music of what is due, each chunk alone; what cannot be read, or is cut
// otherwise since, is left out.
func (s *handlers) addDueMusic(r *http.Request, v *checkinView) error {
	v.Music = map[string]music.StepMusic{}
	for _, p := range v.Chunks {
		mine := func(_ teach.Choice, tab teach.InstrumentTab) bool { return tab.ID == v.Student.Instrument }
		_, err := teach.ExplainEach(r.Context(), site.ClassOf(r), teach.AskAlone(v.Student.ClassID, p.Step), mine,
			func(at teach.Choice, _ teach.InstrumentTab, x teach.Explained, saved teach.Settings) {
				if at.Key == p.Step.Chunk {
					part := teach.NewStand(teach.Work{Choice: at, Routine: p.Steps, Stage: p.Stage, Tempo: p.Tempo}, x,
						saved.Preferences)
					v.Music[p.Sheet()] = music.NewStepMusic(part, fmt.Sprintf("due%d-", p.K))
				}
			})
		var unread score.Problems
		if err != nil && !errors.As(err, &unread) && !errors.Is(err, store.ErrNotFound) {
			return err
		}
	}
	return nil
}

// others lists what may be asked for beside what is due, in the order of the books.
func (s *handlers) others(r *http.Request, v checkinView) ([]otherExercise, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return nil, err
	}
	own, err := desk.OwnOutlines(ctx)
	if err != nil {
		return nil, err
	}
	var list []otherExercise
	for _, x := range exercises {
		if x.Unread != "" {
			continue
		}
		outline, other := own.Of(x, v.Student.Instrument), otherExercise{Exercise: x}
		for _, key := range outline.Chunks {
			other.Chunks = append(other.Chunks, otherChunk{key, outline.Label(key)})
		}
		list = append(list, other)
	}
	return list, nil
}

// queueOf is how far the queue is that the request is in.
func (s *handlers) queueOf(r *http.Request, v checkinView) (queueView, error) {
	q := queueView{Minutes: int(site.Number(r, "queue")), Begun: site.Number(r, "begun")}
	if q.Minutes <= 0 || q.Minutes > teach.MostHearing {
		return queueView{}, nil
	}
	queue, err := teach.CheckinQueue(r.Context(), site.ClassOf(r), v.Student.ClassID)
	if err != nil {
		return q, err
	}
	q.Left = len(queue)
	at := slices.IndexFunc(queue, func(w checkin.Waiting) bool { return w.ID == int64(v.ID) }) // -1 once they were heard
	if len(queue) > at+1 {
		q.Next = store.CheckinID(queue[at+1].ID)
	} else if at > 0 {
		q.Next = store.CheckinID(queue[0].ID) // those who were passed over
	}
	if q.Next == 0 {
		return q, nil
	}
	c, err := site.ClassOf(r).Checkin(r.Context(), q.Next)
	if err != nil {
		return q, err
	}
	next, err := site.ClassOf(r).StudentByID(r.Context(), c.Student)
	q.Name = next.Name()
	return q, err
}

// stepOf finds which of what is due a form is about.
func stepOf(r *http.Request, due []lesson.Step) (lesson.Step, bool) {
	k := int(site.Number(r, "chunk"))
	if k < 0 || k >= len(due) || site.Text(r, "exercise") != strconv.FormatInt(due[k].Exercise, 10) {
		return lesson.Step{}, false
	}
	return due[k], true
}

// markCheckin logs how a chunk went.
func (s *handlers) markCheckin(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	c, err := desk.Checkin(ctx, site.ID[store.CheckinID](r))
	if err != nil {
		return err
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		return err
	}
	step, is := stepOf(r, c.Due)
	try := routine.Try{Stage: routine.Stage(site.Text(r, "stage")), Clean: site.Text(r, "result") == "clean"}
	known := try.Clean
	if !try.Clean {
		try.Cause, known = routine.ParseCause(site.Text(r, "result"))
	}
	tempo := int(site.Number(r, "tempo"))
	problem := ""
	switch {
	case !is:
		problem = "That chunk is not asked for any more, so nothing was marked. Look again."
	case !known:
		problem = "Say whether it was clean, or what stumbled: rhythm, name, fingering or sound."
	case !rules.For(c.Student, store.ExerciseID(step.Exercise)).Has(try.Stage):
		problem = site.MarkGone
	case tempo < 0 || tempo > 400:
		problem = "Choose the tempo from the list."
	}
	if problem != "" {
		return s.showCheckin(w, r, http.StatusUnprocessableEntity, problem)
	}
	err = desk.MarkAtCheckin(ctx, site.RequestKeyOf(r), c.ID,
		store.Attempt{ExerciseID: store.ExerciseID(step.Exercise), Chunk: step.Chunk, Try: try, Tempo: tempo})
	return s.afterCheckin(w, r, err)
}

// afterCheckin shows a check-in after a change.
func (s *handlers) afterCheckin(w http.ResponseWriter, r *http.Request, err error) error {
	switch {
	case err != nil:
		return err
	case site.IsHTMX(r):
		return s.showCheckin(w, r, http.StatusOK, "")
	default:
		v := checkinView{now: s.Now(), Checkin: store.Checkin{ID: site.ID[store.CheckinID](r)},
			Student: store.Student{ClassID: store.ClassID(site.Number(r, "class"))},
			Queue:   queueView{Minutes: int(site.Number(r, "queue")), Begun: site.Number(r, "begun")}}
		http.Redirect(w, r, v.Path(""), http.StatusSeeOther)
	}
	return nil
}

// undoCheckin takes a mark of a check-in back.
func (s *handlers) undoCheckin(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	c, err := desk.Checkin(ctx, site.ID[store.CheckinID](r))
	if err != nil {
		return err
	}
	tries, err := desk.CheckinTries(ctx, c)
	if err != nil {
		return err
	}
	id := store.AttemptID(site.Number(r, "try"))
	if slices.ContainsFunc(tries, func(a store.Attempt) bool { return a.ID == id }) {
		if _, err = desk.UndoAttempt(ctx, id); errors.Is(err, store.ErrTaken) { // taken back already is what was wanted
			err = nil
		}
	}
	return s.afterCheckin(w, r, err)
}

// changeDue asks for a chunk more, or for one less.
func (s *handlers) changeDue(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	c, err := desk.Checkin(ctx, site.ID[store.CheckinID](r))
	if err != nil {
		return err
	}
	problem := ""
	if site.Text(r, "do") == "drop" {
		if step, is := stepOf(r, c.Due); is {
			c.Due = slices.DeleteFunc(c.Due, func(s lesson.Step) bool {
				return s.Exercise == step.Exercise &&
					s.Chunk == step.Chunk
			})
		}
	} else {
		problem, err = s.askMore(r, &c)
	}
	if err != nil {
		return err
	}
	if problem != "" {
		return s.showCheckin(w, r, http.StatusUnprocessableEntity, problem)
	}
	return s.afterCheckin(w, r, desk.SaveDue(ctx, c.ID, c.Due))
}

// askMore adds a chunk, "7/3-4", to what is due.
func (s *handlers) askMore(r *http.Request, c *store.Checkin) (problem string, err error) {
	const choose = "Choose a chunk from the list."
	typed, measures, _ := strings.Cut(site.Text(r, "more"), "/")
	exercise, err := strconv.ParseInt(typed, 10, 64)
	key, is := breakdown.ParseChunkKey(measures)
	if err != nil || !is {
		return choose, nil
	}
	if len(c.Due) >= store.MostDue {
		return fmt.Sprintf("A check-in asks for at most %d chunks. Take one out first.", store.MostDue), nil
	}
	if slices.ContainsFunc(c.Due, func(s lesson.Step) bool { return s.Exercise == exercise && s.Chunk == key }) {
		return "That chunk is asked for already.", nil
	}
	ctx, desk := r.Context(), site.ClassOf(r)
	student, err := desk.StudentByID(ctx, c.Student)
	if err != nil {
		return "", err
	}
	w, err := teach.LoadClassWork(ctx, desk, student.ClassID)
	if err != nil {
		return "", err
	}
	at := slices.IndexFunc(w.Exercises, func(x store.Exercise) bool {
		return x.ID == store.ExerciseID(exercise) &&
			x.Unread == ""
	})
	if at < 0 {
		return choose, nil
	}
	standings, err := desk.ClassStandings(ctx, student.ClassID)
	if err != nil {
		return "", err
	}
	laidOut, err := teach.LessonChunks(ctx, desk, student.ClassID, w.Exercises[at].ID, standings)
	if err != nil {
		return "", err
	}
	chunks := teach.CheckinChunks(laidOut, w, student, w.Exercises[at],
		standings[store.Task{Student: student.ID, Exercise: store.ExerciseID(exercise)}], nil)
	for _, p := range chunks {
		if p.Key == key {
			c.Due = append(c.Due, p.Ask("asked for by you"))
			return "", nil
		}
	}
	return choose, nil
}

// endCheckin keeps what is said of a check-in, sets the next one, and goes on in the queue.
func (s *handlers) endCheckin(w http.ResponseWriter, r *http.Request) error {
	v, err := s.checkinAt(r)
	if err != nil {
		return err
	}
	comment := strings.TrimSpace(r.FormValue("comment"))
	next, problem := store.Checkin{}, ""
	if utf8.RuneCountInString(comment) > store.LongestComment {
		problem = fmt.Sprintf("The comment is longer than %d letters. Shorten it; nothing was changed.", store.LongestComment)
	}
	if typed := site.Text(r, "on"); typed != "" && problem == "" {
		next.On, problem = site.ReadDay(typed)
	}
	if problem != "" {
		return s.showCheckin(w, r, http.StatusUnprocessableEntity, problem)
	}
	if !next.On.IsZero() {
		now := s.Now()
		v.Heard = &now
		seconds := checkin.Seconds(v.Due)
		due, err := teach.ProposeDue(r.Context(), site.ClassOf(r), v.Student.ClassID, []store.Student{v.Student},
			[]store.Checkin{v.Checkin}, seconds)
		if err != nil {
			return err
		}
		next.Due = due[v.Student.ID]
	}
	if err := site.ClassOf(r).EndCheckin(r.Context(), v.ID, comment, next); err != nil {
		return err
	}
	switch {
	case v.Queue.Next != 0:
		http.Redirect(w, r, v.NextPath(), http.StatusSeeOther)
		return nil
	case v.Queue.Minutes != 0:
		s.Flash(r, "Everybody who was waiting has been heard.")
	default:
		s.Flash(r, fmt.Sprintf("%s was heard.", v.Student.Name()))
	}
	http.Redirect(w, r, fmt.Sprintf("/check-ins?class=%d", v.Student.ClassID), http.StatusSeeOther)
	return nil
}
