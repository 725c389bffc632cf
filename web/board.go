package web

import (
	"fmt"
	"html/template"
	"net/http"
	"sort"
	"strconv"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// boardView is students against exercises.
type boardView struct {
	Sections  []store.Section
	Section   store.Section
	Exercises []store.Exercise
	Rows      []boardRow
	Routine   routine.Routine
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
	v := boardView{Routine: desk.Routine()}
	var err error
	if v.Sections, v.Section, err = chooseSection(ctx, desk, section); err != nil {
		return v, err
	}
	if v.Exercises, err = s.reader.Exercises(ctx, desk); err != nil {
		return v, err
	}
	own, err := desk.OwnOutlines(ctx)
	if err != nil {
		return v, err
	}
	students, err := desk.Students(ctx, v.Section.ID)
	if err != nil {
		return v, err
	}
	standings, err := desk.SectionStandings(ctx, v.Section.ID)
	if err != nil {
		return v, err
	}
	for _, student := range students {
		row := boardRow{Student: student}
		row.Instrument, _ = instrument.ByID(student.Instrument)
		var cells []byte
		for _, x := range v.Exercises {
			standing := standings[store.Task{Student: student.ID, Exercise: x.ID}]
			cells = appendCell(cells, desk.Routine(), student.ID, x.ID, standing, own.Of(x, student.Instrument).Pieces)
		}
		row.Cells = template.HTML(cells)
		v.Rows = append(v.Rows, row)
	}
	order := map[string]int{}
	for i, inst := range instrument.All() {
		order[inst.ID] = i
	}
	sort.SliceStable(v.Rows, func(i, j int) bool { return order[v.Rows[i].Student.Instrument] < order[v.Rows[j].Student.Instrument] })
	return v, nil
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
	pieces []breakdown.PieceKey,
) []byte {
	stage := standing.Stage(r, pieces)
	b = append(b, `<td><a `...)
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
		b = append(b, template.HTMLEscapeString(r.Word(stage))...)
		b = append(b, `</span>`...)
	}
	return append(b, `</a></td>`...)
}

// historyView is a student's log, exercise by exercise.
type historyView struct {
	Student    store.Student
	Instrument instrument.Instrument
	Exercises  []historyExercise
	Only       store.ExerciseID // show this exercise alone; 0 shows all
	Routine    routine.Routine
}

type historyExercise struct {
	store.Exercise
	Cells []float64
	Word  string
	Tries []tryView // newest first
}

func (s *Server) history(w http.ResponseWriter, r *http.Request) {
	s.showHistory(w, r, idOf[store.StudentID](r))
}

func (s *Server) showHistory(w http.ResponseWriter, r *http.Request, student store.StudentID) {
	v, err := s.historyView(r, student, store.ExerciseID(number(r, "exercise")))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if isHTMX(r) {
		s.fragment(w, "history", "history", v)
		return
	}
	s.page(w, r, http.StatusOK, "history", v.Student.Name(), v)
}

func (s *Server) historyView(r *http.Request, student store.StudentID, only store.ExerciseID) (historyView, error) {
	ctx, desk := r.Context(), deskOf(r)
	v := historyView{Only: only, Routine: desk.Routine()}
	var err error
	if v.Student, err = desk.StudentByID(ctx, student); err != nil {
		return v, err
	}
	v.Instrument, _ = instrument.ByID(v.Student.Instrument)
	exercises, err := s.reader.Exercises(ctx, desk)
	if err != nil {
		return v, fmt.Errorf("show a student's history: %w", err)
	}
	own, err := desk.OwnOutlines(ctx)
	if err != nil {
		return v, err
	}
	log, err := desk.StudentAttempts(ctx, student)
	if err != nil {
		return v, err
	}
	standings, err := desk.StudentStandings(ctx, student)
	if err != nil {
		return v, err
	}
	tries := map[store.ExerciseID][]tryView{}
	for _, a := range log {
		tries[a.ExerciseID] = append(tries[a.ExerciseID], newTryView(a, v.Routine))
	}
	for _, x := range exercises {
		if len(tries[x.ID]) == 0 && x.ID != only || only != 0 && x.ID != only {
			continue
		}
		pieces := own.Of(x, v.Student.Instrument).Pieces
		at := standings[store.Task{Student: student, Exercise: x.ID}]
		word := ""
		if stage := at.Stage(v.Routine, pieces); stage != "" {
			word = v.Routine.Word(stage)
		}
		v.Exercises = append(v.Exercises, historyExercise{x, at.Cells(v.Routine, pieces), word, tries[x.ID]})
	}
	return v, nil
}
