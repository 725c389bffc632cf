package web

import (
	"context"
	"fmt"
	"html/template"
	"net/http"
	"sort"
	"strconv"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format"
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
}

type boardRow struct {
	store.Student
	Instrument instrument.Instrument
	Cells      []template.HTML
}

func (s *Server) board(w http.ResponseWriter, r *http.Request) {
	v, err := s.boardView(r.Context(), teacher(r).ID, number(r, "section"))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.page(w, r, http.StatusOK, "board", "Board", v)
}

func (s *Server) boardView(ctx context.Context, t, section int64) (boardView, error) {
	var v boardView
	var err error
	if v.Sections, err = s.store.Sections(ctx, t); err != nil {
		return v, err
	}
	for i, sec := range v.Sections {
		if sec.ID == section || section == 0 && i == 0 {
			v.Section = sec
		}
	}
	if section != 0 && v.Section.ID == 0 {
		return v, fmt.Errorf("choose the section: %w", store.ErrNotFound)
	}
	if v.Exercises, err = s.store.Exercises(ctx, t); err != nil {
		return v, err
	}
	students, err := s.store.Students(ctx, t, v.Section.ID)
	if err != nil {
		return v, err
	}
	rows, err := s.store.Standings(ctx, t, v.Section.ID)
	if err != nil {
		return v, err
	}
	v.Rows = boardRows(students, v.Exercises, standingsOf(rows))
	return v, nil
}

// standingsOf gathers the standings on pieces by student and exercise.
func standingsOf(rows []store.Standing) map[progress.Task]*progress.Standing {
	standings := map[progress.Task]*progress.Standing{}
	latest := map[progress.Task]int64{}
	for _, row := range rows {
		task := progress.Task{Student: row.StudentID, Exercise: row.ExerciseID}
		piece := progress.Span{First: row.FirstMeasure, Last: row.LastMeasure}
		at := standings[task]
		if at == nil {
			at = &progress.Standing{Pieces: map[progress.Span]routine.State{}}
			standings[task] = at
		}
		at.Pieces[piece] = routine.State{Stage: routine.Stage(row.Stage), Clean: row.Clean, Tries: row.Tries}
		at.Tries += row.Tries
		if row.LastAttempt > latest[task] {
			latest[task], at.Latest = row.LastAttempt, piece
		}
	}
	return standings
}

func boardRows(students []store.Student, exercises []store.Exercise, standings map[progress.Task]*progress.Standing) []boardRow {
	pieces := make([][]progress.Span, len(exercises))
	for i, x := range exercises {
		pieces[i] = piecesOf(x)
	}
	order := map[string]int{}
	for i, inst := range instrument.All() {
		order[inst.ID] = i
	}
	rows := make([]boardRow, len(students))
	for i, student := range students {
		inst, _ := instrument.ByID(student.Instrument)
		row := boardRow{Student: student, Instrument: inst, Cells: make([]template.HTML, len(exercises))}
		for k, x := range exercises {
			standing := standings[progress.Task{Student: student.ID, Exercise: x.ID}]
			row.Cells[k] = boardCell(student.ID, x.ID, standing.Cells(pieces[k]), standingWord(standing, pieces[k]))
		}
		rows[i] = row
	}
	sort.SliceStable(rows, func(i, j int) bool {
		return order[rows[i].Student.Instrument] < order[rows[j].Student.Instrument]
	})
	return rows
}

// boardCell links to the student's history at an exercise, with the bar and the
// word for where they stand. There are thousands on a Board, and all that goes
// in is numbers and our own words, so it is not a template.
func boardCell(student, exercise int64, cells [4]float64, word string) template.HTML {
	inside := `<span class="untried">·<span class="visually-hidden"> not tried</span></span>`
	if word != "" {
		inside = string(stageBar(cells)) + `<span class="word">` + word + `</span>`
	}
	return template.HTML(`<a href="/students/` + strconv.FormatInt(student, 10) +
		`?exercise=` + strconv.FormatInt(exercise, 10) + `">` + inside + `</a>`)
}

// standingWord is the stage of the piece tried last; when that one is done, of
// the least advanced piece. It is "Done" when all are, and "" for an exercise
// that is untried.
func standingWord(standing *progress.Standing, pieces []progress.Span) string {
	switch {
	case standing == nil || standing.Tries == 0:
		return ""
	case standing.Done(pieces):
		return "Done"
	}
	stage := standing.State(standing.Latest).Stage
	if stage == routine.Done {
		for _, piece := range pieces {
			stage = min(stage, standing.State(piece).Stage)
		}
	}
	return stage.String()
}

// piecesOf cuts an exercise; the pieces are the same for every instrument. One
// that cannot be read has none.
func piecesOf(x store.Exercise) []progress.Span {
	sc, err := format.ReadKind(x.Format, []byte(x.Source))
	if err != nil {
		return nil
	}
	var spans []progress.Span
	for _, p := range breakdown.Cut(sc.Parts[0]) {
		spans = append(spans, progress.SpanOf(p))
	}
	return spans
}

// historyView is a student's log, exercise by exercise.
type historyView struct {
	Student    store.Student
	Instrument instrument.Instrument
	Exercises  []historyExercise
	Only       int64 // show this exercise alone; 0 shows all
}

type historyExercise struct {
	store.Exercise
	Cells [4]float64
	Word  string
	Tries []tryView // newest first
}

func (s *Server) history(w http.ResponseWriter, r *http.Request) { s.showHistory(w, r, idOf(r, "id")) }

func (s *Server) showHistory(w http.ResponseWriter, r *http.Request, student int64) {
	v, err := s.historyView(r.Context(), teacher(r).ID, student, number(r, "exercise"))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if isHTMX(r) {
		s.partial(w, "history", "history", v)
		return
	}
	s.page(w, r, http.StatusOK, "history", v.Student.Name(), v)
}

func (s *Server) historyView(ctx context.Context, t, student, only int64) (historyView, error) {
	v := historyView{Only: only}
	var err error
	if v.Student, err = s.store.StudentByID(ctx, t, student); err != nil {
		return v, err
	}
	v.Instrument, _ = instrument.ByID(v.Student.Instrument)
	exercises, err := s.store.Exercises(ctx, t)
	if err != nil {
		return v, err
	}
	log, err := s.store.StudentAttempts(ctx, t, student)
	if err != nil {
		return v, err
	}
	byExercise := map[int64][]tryView{}
	var standing []store.Attempt
	for i := len(log) - 1; i >= 0; i-- {
		byExercise[log[i].ExerciseID] = append(byExercise[log[i].ExerciseID], newTryView(log[i]))
	}
	for _, a := range log {
		if !a.Undone {
			standing = append(standing, a)
		}
	}
	standings := progress.Read(tries(standing))
	for _, x := range exercises {
		if len(byExercise[x.ID]) == 0 && x.ID != only || only != 0 && x.ID != only {
			continue
		}
		pieces := piecesOf(x)
		at := standings[progress.Task{Student: student, Exercise: x.ID}]
		v.Exercises = append(v.Exercises, historyExercise{x, at.Cells(pieces), standingWord(at, pieces), byExercise[x.ID]})
	}
	return v, nil
}
