package web

import (
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
	Sections  []store.Section // of one's own
	Given     []store.Guest   // by colleagues
	Guest     store.Guest     // whose section is shown, where it is a colleague's
	Section   store.Section
	Exercises []store.Exercise
	Rows      []boardRow
	Routine   routine.Routine // that the section follows, for the legend
	Help      []helpCard      // who is stuck, most first
	More      []helpCard      // those that do not stand above the table
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
	v := boardView{Guest: desk.Guest()}
	var err error
	if v.Sections, v.Section, err = s.chooseSection(r, section); err != nil {
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
	rules, err := desk.Rules(ctx)
	if err != nil {
		return v, err
	}
	v.Routine = rules.In(store.Chooser{Section: v.Section.ID}).Steps
	for _, student := range students {
		row := boardRow{Student: student}
		row.Instrument, _ = instrument.ByID(student.Instrument)
		var cells []byte
		for _, x := range v.Exercises {
			standing, outline := standings[store.Task{Student: student.ID, Exercise: x.ID}], own.Of(x, student.Instrument)
			steps, stuck := rules.For(student.ID, x.ID), ""
			if key, is := standing.Stuck(outline.Pieces); is {
				card := newHelpCard(steps, student, x, outline, standing, key)
				v.Help = append(v.Help, card)
				stuck = card.Piece + ": " + card.StageWord + " · " + card.Trouble
			}
			cells = appendCell(cells, steps, student.ID, x.ID, standing, outline.Pieces, stuck)
		}
		row.Cells = template.HTML(cells)
		v.Rows = append(v.Rows, row)
	}
	mostStuckFirst(v.Help)
	if len(v.Help) > helpShown {
		v.Help, v.More = v.Help[:helpShown], v.Help[helpShown:]
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
