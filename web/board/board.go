package board

import (
	"fmt"
	"html/template"
	"net/http"
	"slices"
	"strconv"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// boardView is students against exercises.
type boardView struct {
	Classes   []store.Class // of one's own
	Given     []store.Guest // by colleagues
	Guest     store.Guest   // whose class is shown, where it is a colleague's
	Class     store.Class
	Exercises []store.Exercise
	Rows      []boardRow
	Routine   routine.Routine // that the class follows, for the legend
	Help      teach.Help      // who needs help
	Shown     helpShown       // of it above the table

	Filter      boardFilter
	Instruments []instrument.Instrument // that are played in the class
	Lesson      store.LessonID          // that the class is in, 0 for none
	Latest      store.AttemptID         // of the class
}

// boardFilter is which part of the Board is shown, as its address says.
type boardFilter struct {
	Instrument string // "" for all
	Stuck      bool   // those alone who need help
	Begun      bool   // the exercises alone that somebody has tried
	All        bool   // every card, not the first few
}

func boardFilterOf(r *http.Request) boardFilter {
	return boardFilter{Instrument: site.Text(r, "instrument"), Stuck: site.Text(r, "who") == "stuck",
		Begun: site.Text(r, "exercises") == "begun", All: site.Text(r, "help") == "all"}
}

// Link is the address of another view of the same class.
func (v boardView) Link(view string) string {
	return fmt.Sprintf("/board/%s?class=%d", view, v.Class.ID)
}

type boardRow struct {
	store.Student
	Instrument instrument.Instrument
	Cells      template.HTML
}

func (s *handlers) board(w http.ResponseWriter, r *http.Request) error {
	v, err := s.boardView(r, store.ClassID(site.Number(r, "class")))
	if err != nil {
		return err
	}
	s.Page(w, r, http.StatusOK, "board", "Board", v)
	return nil
}

func (s *handlers) boardView(r *http.Request, class store.ClassID) (boardView, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	v := boardView{Guest: desk.Guest(), Filter: boardFilterOf(r)}
	var err error
	if v.Classes, v.Class, err = desk.ChooseClass(ctx, class); err != nil {
		return v, err
	}
	if v.Given, err = s.Store.Given(ctx, site.ActorOf(r).Teacher.ID); err != nil {
		return v, err
	}
	if !v.Guest.Own() {
		if v.Classes, err = s.Store.For(site.ActorOf(r).Teacher.ID).Classes(ctx); err != nil {
			return v, err
		}
	}
	w, err := teach.LoadClassWork(ctx, desk, v.Class.ID)
	if err != nil {
		return v, err
	}
	v.Exercises, v.Routine = w.Exercises, w.Steps(v.Class.ID)
	standings, err := desk.ClassStandings(ctx, v.Class.ID)
	if err != nil {
		return v, err
	}
	if v.Lesson, err = desk.RunningLesson(ctx, v.Class.ID); err != nil {
		return v, err
	}
	if v.Latest, err = desk.Newest(ctx); err != nil {
		return v, err
	}
	needs, err := teach.ClassNeeds(ctx, desk, w, v.Class.ID, standings)
	if err != nil {
		return v, err
	}
	if v.Help, err = teach.ClassHelp(ctx, desk, w, v.Class.ID, standings, needs); err != nil {
		return v, err
	}
	v.Shown = shownOf(v.Help, v.Filter.All)
	v.Instruments = teach.PlayedBy(w.Students)
	w.Students = teach.InScoreOrder(w.Students)
	v.narrow(standings)
	for k := range w.Students {
		student := &w.Students[k]
		if v.Filter.Instrument != "" && student.Instrument != v.Filter.Instrument {
			continue
		}
		row := boardRow{Student: *student}
		row.Instrument, _ = instrument.ByID(student.Instrument)
		need, needy := needs[student.ID]
		needy = needy && !v.Help.IsEarlier(student.ID)
		var cells []byte
		for n := range v.Exercises {
			x := &v.Exercises[n]
			standing, outline := standings[store.Task{Student: student.ID, Exercise: x.ID}], w.Own.Of(*x, student.Instrument)
			cause := ""
			if needy && need.Exercise == int64(x.ID) {
				cause = string(need.Cause)
			}
			cells = appendCell(cells, w.Rules.For(student.ID, x.ID), student.ID, x.ID, standing, outline.Chunks, cause)
		}
		row.Cells = template.HTML(cells)
		if !v.Filter.Stuck || needy {
			v.Rows = append(v.Rows, row)
		}
	}
	return v, nil
}

// narrow leaves the exercises that the filter asks for.
func (v *boardView) narrow(standings store.Standings) {
	if v.Filter.Begun {
		v.Exercises = begunOf(v.Exercises, standings)
	}
}

// begunOf leaves the exercises that somebody has tried.
func begunOf(exercises []store.Exercise, standings store.Standings) []store.Exercise {
	begun := map[store.ExerciseID]bool{}
	for task := range standings {
		begun[task.Exercise] = true
	}
	return slices.DeleteFunc(slices.Clone(exercises), func(x store.Exercise) bool { return !begun[x.ID] })
}

// appendCell writes a cell that links to the student's history at an exercise, with the bar
// of where they stand, a tick where they have done it, and the cause where they need help. There are thousands on a Board, and all
// that goes in is numbers and our own words, so it is not a template.
func appendCell(
	b []byte,
	r routine.Routine,
	student store.StudentID,
	exercise store.ExerciseID,
	standing *progress.Standing,
	chunks []breakdown.ChunkKey, cause string,
) []byte {
	stage := standing.Stage(r, chunks)
	b = append(b, `<td`...)
	if cause != "" {
		b = append(b, ` class="stuck"`...)
	}
	b = append(b, `><a `...)
	if stage == "" {
		b = append(b, `class="untried" aria-label="not tried" `...)
	}
	b = append(b, `href="/students/`...)
	b = strconv.AppendInt(b, int64(student), 10)
	b = append(b, `?exercise=`...)
	b = strconv.AppendInt(b, int64(exercise), 10)
	b = append(b, `">`...)
	if stage == "" {
		b = append(b, `·`...)
	} else {
		b = append(b, site.StageBar(r, standing.Cells(r, chunks))...)
		word, class := "", "word"
		switch {
		case cause != "":
			word = cause
		case stage == routine.Done:
			word, class = "✓", "word tick"
		}
		b = append(b, `<span class="`...)
		b = append(b, class...)
		b = append(b, `">`...)
		b = append(b, word...)
		b = append(b, `</span>`...)
	}
	return append(b, `</a></td>`...)
}
