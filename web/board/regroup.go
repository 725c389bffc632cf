package board

import (
	"fmt"
	"net/http"
	"slices"
	"strconv"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// groupsView puts a class into groups for an exercise.
type groupsView struct {
	site.BoardAround
	Exercises []store.Exercise // that somebody has begun
	Exercise  store.Exercise
	Size      int
	How       progress.Grouping
	Teams     []teamView
	May       bool // take a group into a lesson
}

// teamView is a group on the page.
type teamView struct {
	Letter  string
	Members []teamMember
	Why     string
	Chunk   breakdown.ChunkKey // at which most of them are
	Cause   routine.Cause      // that most are stuck on
}

// teamMember is somebody in a group.
type teamMember struct {
	store.Student
	Instrument string
	Where      string // "B: Name", "done"
	Over       string // what they are stuck on, "" for nothing
}

// largestGroup is how many a group may have at most.
const largestGroup = 8

// Sizes lists the sizes that groups may have.
func (groupsView) Sizes() []int { return teach.UpTo(largestGroup)[1:] }

func (s *handlers) groups(w http.ResponseWriter, r *http.Request) error {
	v, err := s.groupsView(r)
	if err != nil {
		return err
	}
	s.Page(w, r, http.StatusOK, "groups", "Groups", v)
	return nil
}

func (s *handlers) groupsView(r *http.Request) (groupsView, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	v := groupsView{Size: int(site.Number(r, "size")), How: progress.Grouping(site.Text(r, "how")),
		May: desk.Guest().MayMark()}
	var err error
	if v.BoardAround, err = s.BoardAround(r, "groups"); err != nil {
		return v, err
	}
	if v.Size < 2 || v.Size > largestGroup {
		v.Size = 4
	}
	if v.How != progress.Balanced {
		v.How = progress.ByTrouble
	}
	w, err := teach.LoadClassWork(ctx, desk, v.Class.ID)
	if err != nil {
		return v, err
	}
	standings, err := desk.ClassStandings(ctx, v.Class.ID)
	if err != nil {
		return v, err
	}
	needs, err := teach.ClassNeeds(ctx, desk, w, v.Class.ID, standings)
	if err != nil {
		return v, err
	}
	recent := teach.RecentFirst(w.Exercises, standings)
	for _, x := range w.Exercises {
		if slices.ContainsFunc(recent, func(y store.Exercise) bool { return x.ID == y.ID }) {
			v.Exercises = append(v.Exercises, x)
		}
	}
	requested := store.ExerciseID(site.Number(r, "exercise"))
	most := -1 // stuck on it
	for _, x := range recent {
		if stuck := stuckOn(x, needs); requested == 0 && stuck > most {
			v.Exercise, most = x, stuck
		}
	}
	for _, x := range w.Exercises {
		if x.ID == requested {
			v.Exercise = x
		}
	}
	if v.Exercise.ID == 0 {
		if requested != 0 {
			return v, fmt.Errorf("find the exercise: %w", store.ErrNotFound)
		}
		return v, nil
	}
	v.fill(w, standings, needs)
	return v, nil
}

// stuckOn is how many need help with an exercise.
func stuckOn(x store.Exercise, needs teach.Needs) int {
	n := 0
	for _, need := range needs {
		if need.Exercise == int64(x.ID) {
			n++
		}
	}
	return n
}

// fill puts the class's students into groups.
func (v *groupsView) fill(w teach.ClassWork, standings store.Standings, needs teach.Needs) {
	class := w.Rules.In(store.Chooser{Exercise: v.Exercise.ID, Class: v.Class.ID}).Steps
	var members []progress.Member
	by := map[int64]teamMember{}
	at := map[int64]breakdown.ChunkKey{}
	for _, student := range teach.Playing(w.Students) {
		steps, standing := w.Rules.For(student.ID, v.Exercise.ID),
			standings[store.Task{Student: student.ID, Exercise: v.Exercise.ID}]
		outline := w.Own.Of(v.Exercise, student.Instrument)
		var need *progress.Need
		if n, is := needs[student.ID]; is && n.Exercise == int64(v.Exercise.ID) {
			need = &n
		}
		m, key := memberOf(class, steps, student, standing, outline, need)
		members = append(members, m)
		shown := teamMember{Student: student, Instrument: teach.InstrumentName(student.Instrument), Where: "done"}
		if m.Stage < len(class) {
			shown.Where = teach.ChunkWord(outline.Label(key)) + ": " + m.Word
		}
		if m.Cause != routine.None {
			shown.Over = m.Cause.Words()
		}
		by[m.Student], at[m.Student] = shown, key
	}
	for k, team := range progress.Groups(members, v.Size, v.How) {
		shown := teamView{Letter: string(rune('A' + k%26)), Why: team.Why}
		var chunks []breakdown.ChunkKey
		var over routine.Causes
		for _, m := range team.Members {
			shown.Members = append(shown.Members, by[m.Student])
			chunks = append(chunks, at[m.Student])
			over.Add(m.Cause)
		}
		shown.Chunk, shown.Cause = mostOf(chunks), over.Main()
		v.Teams = append(v.Teams, shown)
	}
}

// memberOf is where a student stands on an exercise as a whole: at the chunk that needs help
// most, else at the first one in learning order that is not done.
func memberOf(class, steps routine.Routine, student store.Student, standing *progress.Standing,
	outline breakdown.Outline, need *progress.Need) (progress.Member, breakdown.ChunkKey) {
	m := progress.Member{Student: int64(student.ID), Instrument: student.Instrument, Stage: len(class), Word: "Done"}
	for _, cell := range standing.Cells(steps, outline.Chunks) {
		m.Share += cell.Filled / float64(len(steps))
	}
	var key breakdown.ChunkKey
	if need != nil {
		key, m.Cause = need.Unit, need.Cause
	} else {
		for _, key = range outline.Chunks {
			if standing.State(steps, key).Stage != routine.Done {
				break
			}
		}
	}
	if state := teach.InStepsOf(class, steps, standing, key); state.Stage != routine.Done {
		m.Stage, m.Word = class.Index(state.Stage), class.Word(state.Stage)
	}
	return m, key
}

// mostOf is the chunk that comes most often, the first of two that come as often.
func mostOf(chunks []breakdown.ChunkKey) breakdown.ChunkKey {
	count := map[breakdown.ChunkKey]int{}
	var most breakdown.ChunkKey
	for _, p := range chunks {
		if count[p]++; count[p] > count[most] {
			most = p
		}
	}
	return most
}

// takeGroup takes a group into the lesson that is planned for the class, or into a new one,
// at the stage that mends what they are stuck on.
func (s *handlers) takeGroup(w http.ResponseWriter, r *http.Request) error {
	l, step, err := s.groupStep(r)
	if err != nil {
		return err
	}
	desk := site.ClassOf(r)
	if !l.Plan.Insert(1, step) { // after the warm-up
		s.Flash(r, teach.FullPlan+" Leave one out first.")
		http.Redirect(w, r, teach.LessonLink(l, ""), http.StatusSeeOther)
		return nil
	}
	if l.ID == 0 {
		l.Plan.Minutes = teach.UsualMinutes
		l.ID, err = desk.AddLesson(r.Context(), l.Class, l.Plan)
	} else {
		err = desk.SavePlan(r.Context(), l.ID, l.Plan)
	}
	if err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("A group of %d is in the plan: %s.", len(step.Group), step.Name()))
	http.Redirect(w, r, teach.LessonLink(l, ""), http.StatusSeeOther)
	return nil
}

// groupStep is the step of a group, and the lesson it goes into: the one that is planned, ID
// 0 where none is.
func (s *handlers) groupStep(r *http.Request) (store.Lesson, lesson.Step, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	var l store.Lesson
	_, class, err := desk.ChooseClass(ctx, store.ClassID(site.Number(r, "class")))
	if err != nil {
		return l, lesson.Step{}, err
	}
	students, err := desk.Students(ctx, class.ID)
	if err != nil {
		return l, lesson.Step{}, err
	}
	standings, err := desk.ClassStandings(ctx, class.ID)
	if err != nil {
		return l, lesson.Step{}, err
	}
	chunks, err := teach.LessonChunks(ctx, desk, class.ID, store.ExerciseID(site.Number(r, "exercise")), standings)
	if err != nil {
		return l, lesson.Step{}, err
	}
	desired, _ := breakdown.ParseChunkKey(site.Text(r, "chunk"))
	k := slices.IndexFunc(chunks, func(p lesson.Chunk) bool { return p.Key == desired })
	if k < 0 { // joined chunks: the first of them
		k = slices.IndexFunc(chunks, func(p lesson.Chunk) bool { return p.Key.First == desired.First && p.Key.Last < desired.Last })
	}
	if k < 0 {
		return l, lesson.Step{}, fmt.Errorf("find the chunk %s: %w", desired, store.ErrNotFound)
	}
	chunk := chunks[k]
	stage, why := teach.GoesOnAt(chunk), "a group of their own"
	if cause, known := routine.ParseCause(site.Text(r, "cause")); known {
		stage, why = chunk.Steps.Mends(cause), "a group that is stuck on "+cause.Words()
	}
	step := chunk.Do(stage, lesson.TalkStage, why)
	step.Phase = lesson.Repair
	for _, typed := range r.Form["student"] {
		id, _ := strconv.ParseInt(typed, 10, 64) // 0, which is nobody, for none
		if slices.ContainsFunc(students, func(s store.Student) bool { return int64(s.ID) == id }) {
			step.Group = append(step.Group, id)
		}
	}
	if len(step.Group) == 0 {
		return l, step, fmt.Errorf("find the group: %w", store.ErrNotFound)
	}
	l.Class = class.ID
	list, err := desk.Lessons(ctx, class.ID, 1)
	if err == nil && len(list) > 0 && list[0].Begun == nil {
		l = list[0]
	}
	return l, step, err
}
