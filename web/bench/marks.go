package bench

import (
	"cmp"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// addAttempt logs a try and shows where the student stands now. It reads no music. A
// mark from a page that has been overtaken is asked about before it counts.
func (s *handlers) addAttempt(w http.ResponseWriter, r *http.Request) error {
	c, err := teach.Choose(r.Context(), site.ClassOf(r), askOf(r))
	if err != nil {
		return err
	}
	steps := c.Routine()
	try, problem := readTry(r, c, steps)
	if problem == "" && c.Student.ID == 0 {
		problem = "Nobody is chosen. Tap a name under “Who is trying?”, or mark everybody clean there."
	}
	if problem != "" {
		s.refuseMark(w, r, c, problem)
		return nil
	}
	desk, press := site.ClassOf(r), site.RequestKeyOf(r)
	did := markNews{Did: fmt.Sprintf("%s, %s: %s.", steps.Word(try.Stage), c.Key.Words(), resultWords(try)), Marked: true}
	_, again, err := desk.Pressed(r.Context(), press)
	if err != nil {
		return err
	}
	if again { // its answer had not arrived
		return s.answerMark(w, r, c, did)
	}
	standings, err := desk.ExerciseStandings(r.Context(), c.Exercise.ID, c.Class.ID)
	if err != nil {
		return err
	}
	if state := standings[store.Task{Student: c.Student.ID, Exercise: c.Exercise.ID}].State(steps,
		c.Key); overtaken(r, state, try.Stage) {
		now, err := teach.LoadWork(r.Context(), site.ClassOf(r), c)
		if err != nil {
			return err
		}
		return s.answer(w, r, now, markNews{Ask: &askedMark{Try: try, Words: atBench(now).overtakenWords(try)}})
	}
	err = desk.AddOnce(r.Context(), press, store.Attempt{
		StudentID: c.Student.ID, ExerciseID: c.Exercise.ID, Chunk: c.Key, Try: try, Tempo: c.Ask.Tempo,
	})
	if err != nil {
		return err
	}
	return s.answerMark(w, r, c, did)
}

// readTry reads the mark that was pressed, or says what is wrong with it.
func readTry(r *http.Request, c teach.Choice, steps routine.Routine) (routine.Try, string) {
	try := routine.Try{Stage: routine.Stage(c.Ask.Stage), Clean: site.Text(r, "result") == "clean"}
	known := try.Clean
	if !try.Clean {
		try.Cause, known = routine.ParseCause(site.Text(r, "cause"))
	}
	key, ok := breakdown.ParseChunkKey(c.Ask.Chunk)
	switch {
	case !known:
		return try, "Say what stumbled: rhythm, name, fingering or sound."
	case !steps.Has(try.Stage), !ok, !slices.Contains(c.Keys, key):
		return try, site.MarkGone
	}
	if n := int(site.Number(r, "measure")); !try.Clean && n >= key.First && n <= key.Last {
		try.Measure = n
	}
	return try, ""
}

// refuseMark says why nothing was marked, in place of the advice; without a script, on
// the Bench.
func (s *handlers) refuseMark(w http.ResponseWriter, r *http.Request, c teach.Choice, problem string) {
	if site.IsHTMX(r) {
		http.Error(w, problem, http.StatusUnprocessableEntity)
		return
	}
	s.Flash(r, problem)
	http.Redirect(w, r, atBench(teach.Work{Choice: c}).Link("chunk", c.Key), http.StatusSeeOther)
}

// overtaken says whether the student has gone on to another stage since the page was
// made that the mark comes from, so that the mark would send them there silently.
func overtaken(r *http.Request, now routine.State, stage routine.Stage) bool {
	seen, err := strconv.Atoi(site.Text(r, "seen"))
	return err == nil && seen != now.Tries && stage != now.Stage && site.Text(r, "sure") != "yes"
}

func (v benchView) overtakenWords(try routine.Try) string {
	gone := fmt.Sprintf("gone on to %s at %s", v.Routine.Word(v.State.Stage), v.Key.Words())
	if v.State.Stage == routine.Done {
		gone = "finished " + v.Key.Words()
	}
	return fmt.Sprintf("Since this page was opened %s has %s. Mark %s here all the same?", v.Student.Name(), gone,
		resultWords(try)+" at "+v.Routine.Word(try.Stage))
}

func resultWords(try routine.Try) string {
	if try.Moved {
		return teach.MovedWords
	}
	if try.Clean {
		return "clean"
	}
	return "a stumble, " + routine.Stumble{Cause: try.Cause, Measure: try.Measure}.String()
}

// everybodyClean logs a clean try at the stage and chunk on the screen for the whole
// class, but for those who are left out, who have gone on past the stage, or whose
// own part has no such chunk.
func (s *handlers) everybodyClean(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	c, err := teach.Choose(ctx, desk, askOf(r))
	if err != nil {
		return err
	}
	try := routine.Try{Stage: routine.Stage(c.Ask.Stage), Clean: true}
	steps := c.Routine()
	if _, ok := breakdown.ParseChunkKey(c.Ask.Chunk); !ok || !steps.Has(try.Stage) {
		s.refuseMark(w, r, c, site.MarkGone)
		return nil
	}
	press := site.RequestKeyOf(r)
	batch, again, err := desk.Pressed(ctx, press)
	if err != nil {
		return err
	}
	if again { // its answer had not arrived
		return s.answerMark(w, r, c, markNews{Did: fmt.Sprintf("%s, %s: marked for everybody.", steps.Word(try.Stage),
			c.Key.Words()), Batch: batch})
	}
	standings, err := desk.ExerciseStandings(ctx, c.Exercise.ID, c.Class.ID)
	if err != nil {
		return err
	}
	own, err := desk.OwnOutlines(ctx)
	if err != nil {
		return err
	}
	var list []store.Attempt
	var behind teach.Behind
	past, without, otherwise := 0, 0, 0
	for _, student := range c.Students {
		theirs := c.RoutineOf(student)
		standing := standings[store.Task{Student: student.ID, Exercise: c.Exercise.ID}]
		stage, how := teach.Joins(theirs, steps.Step(try.Stage), own.Of(c.Exercise, student.Instrument), standing, c.Key)
		switch {
		case slices.Contains(r.Form["except"], strconv.FormatInt(int64(student.ID), 10)):
		case how == teach.NoChunk:
			without++
		case how == teach.NoStage:
			otherwise++
		case how == teach.PastIt:
			past++
		default:
			behind.Add(student.Name(), theirs, standing.State(theirs, c.Key), stage)
			list = append(list, store.Attempt{StudentID: student.ID, ExerciseID: c.Exercise.ID, Chunk: c.Key,
				Try: routine.Try{Stage: stage, Clean: true}, Tempo: c.Ask.Tempo})
		}
	}
	if len(list) == 0 {
		s.refuseMark(w, r, c, "There is nobody to mark: everybody here is left out, or past this stage.")
		return nil
	}
	batch, err = desk.AddTogether(ctx, press, list...)
	if err != nil {
		return err
	}
	did := []string{fmt.Sprintf("%s, %s: %s clean.", steps.Word(try.Stage), c.Key.Words(), teach.CountStudents(len(list)))}
	did = append(did, behind.Said()...)
	if past > 0 {
		did = append(did, fmt.Sprintf("%s past this stage, left where they are.", teach.CountStudents(past)))
	}
	if without > 0 {
		did = append(did, fmt.Sprintf("%s without this chunk in their own part.", teach.CountStudents(without)))
	}
	if otherwise > 0 {
		did = append(did, fmt.Sprintf("%s whose routine has no such stage.", teach.CountStudents(otherwise)))
	}
	return s.answerMark(w, r, c, markNews{Did: strings.Join(did, " "), Batch: batch})
}

// markNews is what has just been done, and what there is to say or ask of it.
type markNews struct {
	Did    string
	Marked bool          // Did tells of a try that undo takes back
	Batch  store.BatchID // takes back what was marked together
	Ask    *askedMark
}

// askedMark is a mark that waits for an answer.
type askedMark struct {
	routine.Try
	Words string
}

// answerMark shows where everybody stands now: in place, or by going back to the bench
// without a script.
func (s *handlers) answerMark(w http.ResponseWriter, r *http.Request, c teach.Choice, news markNews) error {
	c.Ask.Stage = ""
	v, err := teach.LoadWork(r.Context(), site.ClassOf(r), c)
	if err != nil {
		return err
	}
	if news.Batch == 0 {
		v.Tempo = v.State.NextTempo(v.Tempo)
	}
	if news.Batch != 0 && c.Student.ID == 0 { // nobody has gone on: the stage on the screen stays
		v.ChooseStage(routine.Stage(site.Text(r, "stage")))
	}
	return s.answer(w, r, v, news)
}

func (s *handlers) answer(w http.ResponseWriter, r *http.Request, done teach.Work, news markNews) error {
	v := atBench(done)
	if !site.IsHTMX(r) {
		if news.Ask != nil {
			s.Flash(r, news.Ask.Words+" Nothing was marked.")
		} else {
			s.Flash(r, news.Did)
		}
		if news.Batch != 0 {
			s.Sessions.Put(r.Context(), "undo", fmt.Sprintf("/batches/%d/undo", news.Batch))
		}
		http.Redirect(w, r, fmt.Sprintf("%s&tempo=%d", v.Link("chunk", v.Key), v.Tempo), http.StatusSeeOther)
		return nil
	}
	here := v.here(v.Tempo)
	s.RememberBench(r, here)
	w.Header().Set("HX-Replace-Url", here)
	shown := markedView{benchView: v, News: news}
	saved, err := site.ClassOf(r).Settings(r.Context())
	if err != nil {
		return err
	}
	options := teach.PreferencesOf(saved).Options(v.Class)
	shown.Counting = options.Count
	if v.OnOneNote() {
		shown.OneNote = teach.OneNoteFor(v.Students, v.Instrument, options, cmp.Or(v.Ask.OneNote, v.Class.Shape.Note))
	}
	s.Fragment(w, "bench", "marked", shown)
	return nil
}

// markedView is what a mark changes on the Bench.
type markedView struct {
	benchView
	News markNews
}

// Here is the address of the Bench as it stands after the mark.
func (v markedView) Here() string { return v.here(v.Tempo) }

// Update says that the parts of the page are sent out of band.
func (markedView) Update() bool { return true }

// InDrill is false: nothing is marked in a drill.
func (markedView) InDrill() bool { return false }

// undoAttempt takes a try back, by adding to the log, and shows the bench again.
func (s *handlers) undoAttempt(w http.ResponseWriter, r *http.Request) error {
	desk := site.ClassOf(r)
	a, err := desk.UndoAttempt(r.Context(), site.ID[store.AttemptID](r))
	if err != nil && !errors.Is(err, store.ErrTaken) { // taken back already is what was wanted
		return err
	}
	c, err := teach.Choose(r.Context(), site.ClassOf(r), teach.Request{
		Exercise: a.ExerciseID, Instrument: site.Text(r, "instrument"), Student: a.StudentID, Tempo: tempoOf(r),
		Chunk: a.Chunk.String(),
	})
	if err != nil {
		return err
	}
	did := fmt.Sprintf("Taken back: %s, %s, %s.", c.Routine().Word(a.Stage), a.Chunk.Words(), resultWords(a.Try))
	return s.answerMark(w, r, c, markNews{Did: did})
}

// undoBatch takes back what was marked together, and shows the bench it was asked from.
func (s *handlers) undoBatch(w http.ResponseWriter, r *http.Request) error {
	const did = "What was marked for everybody is taken back."
	err := site.ClassOf(r).UndoTogether(r.Context(), site.ID[store.BatchID](r))
	if err != nil {
		return err
	}
	if !site.IsHTMX(r) {
		s.Flash(r, did)
		http.Redirect(w, r, cmp.Or(s.LastBench(r), "/"), http.StatusSeeOther)
		return nil
	}
	ask := askOf(r)
	ask.Exercise = store.ExerciseID(site.Number(r, "exercise"))
	c, err := teach.Choose(r.Context(), site.ClassOf(r), ask)
	if err != nil {
		return err
	}
	return s.answerMark(w, r, c, markNews{Did: did})
}
