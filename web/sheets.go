package web

import (
	"fmt"
	"net/http"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
)

// printed is what a lane of a printed sheet holds.
type printed string

// What there is.
const (
	filled printed = "filled"
	empty  printed = "empty" // lines to write on
	absent printed = "none"
)

// sheetRecipe is what a teacher wants on the sheets.
type sheetRecipe struct {
	Count, Name, Fingers printed
	Boxes                bool // four stages of each piece, to be ticked
	Answers              bool // filled sheets after the empty ones
}

// recipes are the common ones, the first where nothing is asked for.
var recipes = []struct {
	ID, Title string
	recipe    sheetRecipe
}{
	{"practice", "To practise from", sheetRecipe{filled, filled, filled, true, false}},
	{"counting", "To be counted", sheetRecipe{empty, absent, absent, false, true}},
	{"naming", "To be named", sheetRecipe{filled, empty, absent, false, true}},
	{"all", "To be counted and named", sheetRecipe{empty, empty, absent, false, true}},
	{"plain", "The music alone", sheetRecipe{absent, absent, absent, false, false}},
}

// sheetsView is the sheets of an exercise for every instrument of a section.
type sheetsView struct {
	choice
	Sheets []printSheet
	Recipe string
	Of     string           // "one" for the instrument at hand, "all" for every instrument, else the section's
	Lines  []breakdown.Line // that can be printed in place of the exercise
	recipe sheetRecipe
}

// printSheet is the sheet of an instrument.
type printSheet struct {
	Instrument instrument.Instrument
	Answer     bool           // it is the answer key
	Line       breakdown.Line // in place of the exercise, "" for none
	Data       sheetData
	Pieces     []breakdown.Piece
	Ladder     []int
}

// LineTitle is what a teacher calls the line on the sheet.
func (s printSheet) LineTitle() string {
	if s.Line == drillLine {
		return "Hardest changes"
	}
	return s.Line.Title()
}

// Line is the line that stands in place of the exercise.
func (v sheetsView) Line() breakdown.Line { return v.ask.line }

// Recipes lists the recipes to choose from.
func (v sheetsView) Recipes() []offered {
	var list []offered
	for _, r := range recipes {
		list = append(list, offered{r.ID, r.Title})
	}
	return list
}

// Lane says what a sheet's lane holds; an answer key holds what was to be written.
func (v sheetsView) Lane(s printSheet, lane string) printed {
	p := map[string]printed{"count": v.recipe.Count, "name": v.recipe.Name, "finger": v.recipe.Fingers}[lane]
	if s.Answer && p == empty {
		return filled
	}
	return p
}

// Boxes says whether a sheet has the stages of each piece.
func (v sheetsView) Boxes(s printSheet) bool { return v.recipe.Boxes && len(s.Pieces) > 0 }

func (s *Server) sheets(w http.ResponseWriter, r *http.Request) {
	v, err := s.sheetsView(r)
	if err != nil {
		s.failedToRead(w, r, err)
		return
	}
	s.page(w, r, http.StatusOK, "sheets", fmt.Sprintf("Sheets: %d · %s", v.Exercise.Number, v.Exercise.Title), v)
}

// mostRungs is how many tempos a sheet has room for.
const mostRungs = 10

func (s *Server) sheetsView(r *http.Request) (sheetsView, error) {
	v := sheetsView{Recipe: recipes[0].ID, Of: text(r, "for"), recipe: recipes[0].recipe}
	for _, known := range recipes {
		if known.ID == text(r, "recipe") {
			v.Recipe, v.recipe = known.ID, known.recipe
		}
	}
	wanted := choice.plays
	switch v.Of {
	case "one":
		wanted = func(_ choice, tab instrumentTab) bool { return tab.Current }
	case "all":
		wanted = func(choice, instrumentTab) bool { return true }
	}
	var answers []printSheet
	c, err := s.explainEach(r, wanted, func(tab instrumentTab, x explained, kept taughtBy) {
		sheet := func(lead string) sheetData {
			return newSheet(x.Report, tab.Instrument, x.Words, kept.Preferences.stringColours(tab.Instrument),
				mei.Options{TempoWords: x.tempoWords, Ruler: true, IDs: mei.IDs(lead + tab.ID + "-")})
		}
		v.Lines = x.Lines
		one := printSheet{Instrument: tab.Instrument, Line: x.Line, Pieces: x.Report.Pieces, Ladder: rungs(x.Tempo), Data: sheet("sheet-")}
		v.Sheets = append(v.Sheets, one)
		if v.recipe.Answers {
			one.Answer, one.Data = true, sheet("answer-")
			answers = append(answers, one)
		}
	})
	v.choice, v.Sheets = c, append(v.Sheets, answers...)
	return v, err
}

// rungs are the tempos to climb, as many as a sheet has room for.
func rungs(from int) []int {
	list := routine.Ladder(from)
	list = list[slices.Index(list, from):]
	return list[:min(len(list), mostRungs)]
}
