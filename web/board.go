package web

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
)

// boardView is students against exercises.
type boardView struct {
	Sections   []store.Section // of one's own
	Given      []store.Guest   // by colleagues
	Guest      store.Guest     // whose section is shown, where it is a colleague's
	Section    store.Section
	Exercises  []store.Exercise
	Rows       []boardRow
	Routine    routine.Routine // that the section follows, for the legend
	Help       []helpCard      // who is stuck, most first
	More       []helpCard      // those that do not stand above the table
	Shared     []sharedCard    // what several are stuck on together
	SharedMore []sharedCard    // what of it does not stand above the table

	MoreHelp int // how many cards there are that do not

	Filter      boardFilter
	Instruments []instrument.Instrument // that are played in the section
	Lesson      store.LessonID          // that the section is in, 0 for none
	Latest      store.AttemptID         // of the section
}

// boardFilter is which part of the Board is shown, as its address says.
type boardFilter struct {
	Instrument string // "" for all
	Stuck      bool   // those alone who need help
	Begun      bool   // the exercises alone that somebody has tried
}

func boardFilterOf(r *http.Request) boardFilter {
	return boardFilter{Instrument: text(r, "instrument"), Stuck: text(r, "who") == "stuck", Begun: text(r, "exercises") == "begun"}
}

// Link is the address of another view of the same section.
func (v boardView) Link(view string) string {
	return fmt.Sprintf("/board/%s?section=%d", view, v.Section.ID)
}

type boardRow struct {
	store.Student
	Instrument instrument.Instrument
	Cells      template.HTML
}

func (s *Server) board(w http.ResponseWriter, r *http.Request) {
	v, err := s.boardView(r, store.SectionID(number(r, "section")))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.page(w, r, http.StatusOK, "board", "Board", v)
}

func (s *Server) boardView(r *http.Request, section store.SectionID) (boardView, error) {
	ctx, desk := r.Context(), deskOf(r)
	v := boardView{Guest: desk.Guest(), Filter: boardFilterOf(r)}
	var err error
	if v.Sections, v.Section, err = desk.ChooseSection(ctx, section); err != nil {
		return v, err
	}
	if v.Given, err = s.store.Given(ctx, asking(r).Teacher.ID); err != nil {
		return v, err
	}
	if !v.Guest.Own() {
		if v.Sections, err = s.store.For(asking(r).Teacher.ID).Sections(ctx); err != nil {
			return v, err
		}
	}
	w, err := loadSectionWork(ctx, desk, v.Section.ID)
	if err != nil {
		return v, err
	}
	v.Exercises, v.Routine = w.exercises, w.steps(v.Section.ID)
	standings, err := desk.SectionStandings(ctx, v.Section.ID)
	if err != nil {
		return v, err
	}
	if v.Lesson, err = desk.RunningLesson(ctx, v.Section.ID); err != nil {
		return v, err
	}
	if v.Latest, err = desk.Newest(ctx); err != nil {
		return v, err
	}
	v.Instruments = playedBy(w.students)
	w.students = inScoreOrder(w.students)
	v.narrow(standings)
	var help []stuckAt
	for k := range w.students {
		student := &w.students[k]
		if v.Filter.Instrument != "" && student.Instrument != v.Filter.Instrument {
			continue
		}
		row, before := boardRow{Student: *student}, len(help)
		row.Instrument, _ = instrument.ByID(student.Instrument)
		var cells []byte
		for n := range v.Exercises {
			x := &v.Exercises[n]
			standing, outline := standings[store.Task{Student: student.ID, Exercise: x.ID}], w.own.Of(*x, student.Instrument)
			steps, stuck := w.rules.For(student.ID, x.ID), ""
			if key, is := standing.Stuck(outline.Pieces); is {
				at := newStuckAt(student, x, steps, outline, standing, key)
				help, stuck = append(help, at), at.words()
			}
			cells = appendCell(cells, steps, student.ID, x.ID, standing, outline.Pieces, stuck)
		}
		row.Cells = template.HTML(cells)
		if !v.Filter.Stuck || len(help) > before {
			v.Rows = append(v.Rows, row)
		}
	}
	v.tell(help)
	return v, nil
}

// playedBy lists the instruments of some students, in score order.
func playedBy(students []store.Student) []instrument.Instrument {
	return slices.DeleteFunc(instrument.All(), func(i instrument.Instrument) bool {
		return !slices.ContainsFunc(students, func(s store.Student) bool { return s.Instrument == i.ID })
	})
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

// appendCell writes a cell that links to the student's history at an exercise, with
// the bar and the word for where they stand. There are thousands on a Board, and all
// that goes in is numbers and our own words, so it is not a template.
func appendCell(
	b []byte,
	r routine.Routine,
	student store.StudentID,
	exercise store.ExerciseID,
	standing *progress.Standing,
	pieces []breakdown.PieceKey, stuck string,
) []byte {
	stage := standing.Stage(r, pieces)
	b = append(b, `<td`...)
	if stuck != "" {
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
		b = append(b, stageBar(r, standing.Cells(r, pieces))...)
		b = append(b, `<span class="word">`...)
		word := r.Word(stage)
		if stuck != "" {
			word = stuck
		}
		b = append(b, template.HTMLEscapeString(word)...)
		b = append(b, `</span>`...)
	}
	return append(b, `</a></td>`...)
}
