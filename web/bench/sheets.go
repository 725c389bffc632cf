package bench

import (
	"archive/zip"
	"bytes"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// sheetsView is the sheets of an exercise for every instrument of a class.
type sheetsView struct {
	teach.Choice
	Sheets  []printSheet
	Recipe  string                      // its name in an address
	Own     []sheetRecipe               // the teacher's
	Of      string                      // "one" for the instrument at hand, "all" for every instrument, else the class's
	Lines   []breakdown.PracticeVersion // that can be printed in place of the exercise
	Drills  bool                        // and the hardest changes
	Chunks  []breakdown.Chunk
	Without []string // instruments that have no sheet of this recipe
	recipe  sheetRecipe
}

// printSheet is the sheet of an instrument.
type printSheet struct {
	Instrument instrument.Instrument
	Answer     bool                      // it is the answer key
	Line       breakdown.PracticeVersion // in place of the exercise, "" for none
	Data       music.SheetData
	Beside     breakdown.PracticeVersion // under the exercise, "" for none
	BesideData music.SheetData
	Chunks     []breakdown.Chunk
	Ladder     []int
	CountOff   string     // before the music
	Cards      *cardSheet // in place of the music, nil for none
}

// LineTitle is what a teacher calls the line on the sheet.
func (s printSheet) LineTitle() string {
	switch {
	case s.Line == teach.DrillVersion:
		return "Hardest changes"
	case s.Line == breakdown.Alone && len(s.Chunks) > 0:
		return "chunk " + s.Chunks[0].Label
	}
	return s.Line.Title()
}

// BesideLanes are the lanes that the line under the exercise is there for.
func (s printSheet) BesideLanes() string {
	if s.Beside == breakdown.OneNote {
		return "count"
	}
	return "name finger"
}

// Line is the line that stands in place of the exercise.
func (v sheetsView) Line() breakdown.PracticeVersion { return v.Ask.Line }

// OfChunk is the chunk that the line is of.
func (v sheetsView) OfChunk() string { return v.Ask.Of }

// Contents is what stands on the sheets.
func (v sheetsView) Contents() sheetRecipe { return v.recipe }

// Recipes lists the recipes to choose from, the teacher's own after ours.
func (v sheetsView) Recipes() []teach.Option {
	var list []teach.Option
	for _, r := range recipes {
		list = append(list, teach.Option{Value: r.id, Label: r.Name})
	}
	for _, r := range v.Own {
		list = append(list, teach.Option{Value: r.key(), Label: r.Name})
	}
	if v.Recipe == setRecipe {
		list = append(list, teach.Option{Value: setRecipe, Label: "As set below"})
	}
	return list
}

// OwnName is the name of the teacher's recipe that is chosen, "" for none.
func (v sheetsView) OwnName() string {
	if slices.ContainsFunc(v.Own, func(r sheetRecipe) bool { return r.key() == v.Recipe }) {
		return v.recipe.Name
	}
	return ""
}

// Beside lists the lines that can stand under the exercise.
func (v sheetsView) Beside() []breakdown.PracticeVersion {
	return slices.DeleteFunc(slices.Clone(besideVersions),
		func(l breakdown.PracticeVersion) bool { return !slices.Contains(v.Lines, l) })
}

// Lane says what a sheet's lane holds; an answer key holds what was to be written.
func (v sheetsView) Lane(s printSheet, lane string) printed {
	p := map[string]printed{"count": v.recipe.Count, "name": v.recipe.Names, "finger": v.recipe.Fingers}[lane]
	if s.Answer && p == empty {
		return filled
	}
	return p
}

// Boxes says whether a sheet has the stages of each chunk.
func (v sheetsView) Boxes(s printSheet) bool {
	return v.recipe.Boxes && len(s.Chunks) > 0 && s.Cards == nil
}

// Here is the address of these sheets with another recipe.
func (v sheetsView) Here(recipe string) string {
	q := url.Values{"instrument": {v.Instrument.ID}, "recipe": {recipe}}
	if v.Class.ID != 0 {
		q.Set("class", strconv.FormatInt(int64(v.Class.ID), 10))
	}
	if v.Ask.Line != "" {
		v.Ask.LineInto(q)
	}
	if v.Of != "" {
		q.Set("for", v.Of)
	}
	return fmt.Sprintf("/bench/%d/sheets?%s", v.Exercise.ID, q.Encode())
}

// SheetsLink is where the sheets of what is on the Bench are: of the exercise, of the line in
// its place, or of the chunk at hand where that is asked for there.
func (v benchView) SheetsLink() string {
	q := url.Values{"instrument": {v.Instrument.ID}}
	if v.Class.ID != 0 {
		q.Set("class", strconv.FormatInt(int64(v.Class.ID), 10))
	}
	if v.InDrill() {
		v.Ask.LineInto(q)
	}
	return fmt.Sprintf("/bench/%d/sheets?%s", v.Exercise.ID, q.Encode())
}

// Zip is the address of the same parts as files.
func (v sheetsView) Zip() string { return v.Here(v.Recipe) + "&as=zip" }

func (s *handlers) sheets(w http.ResponseWriter, r *http.Request) error {
	if site.Text(r, "as") == "zip" {
		return s.partsAsZip(w, r)
	}
	v, err := s.sheetsView(r)
	if err != nil {
		return err
	}
	s.Page(w, r, http.StatusOK, "sheets", fmt.Sprintf("Sheets: %d · %s", v.Exercise.Number, v.Exercise.Title), v)
	return nil
}

// mostTempoSteps is how many tempos a sheet has room for.
const mostTempoSteps = 10

// forWhom says which instruments have a sheet: the one at hand, all, or the class's.
func forWhom(of string) func(teach.Choice, teach.InstrumentTab) bool {
	switch of {
	case "one":
		return func(_ teach.Choice, tab teach.InstrumentTab) bool { return tab.Current }
	case "all":
		return func(teach.Choice, teach.InstrumentTab) bool { return true }
	}
	return teach.Choice.Plays
}

func (s *handlers) sheetsView(r *http.Request) (sheetsView, error) {
	v := sheetsView{Of: site.Text(r, "for")}
	own, err := ownRecipes(r.Context(), site.ClassOf(r))
	if err != nil {
		return v, err
	}
	v.Own = own
	v.Recipe, v.recipe = chosenRecipe(r, own)
	var answers []printSheet
	var wrong error
	c, err := teach.ExplainEach(r.Context(), site.ClassOf(r), askOf(r), forWhom(v.Of),
		func(at teach.Choice, tab teach.InstrumentTab, x teach.Explained, saved teach.Settings) {
			v.Lines, v.Chunks, v.Drills = x.Lines, x.Of, v.Drills || len(x.Drills) > 0
			one := printSheet{Instrument: tab.Instrument, Line: x.Line, Chunks: x.Report.Chunks, Ladder: tempoLadder(x.Tempo)}
			if v.recipe.Cards {
				if one.Cards = cardsOf(x, tab.Instrument, saved); one.Cards == nil {
					v.Without = append(v.Without, tab.Name)
					return
				}
				v.Sheets = append(v.Sheets, one)
				return
			}
			sheet := func(x teach.Explained, lead string) music.SheetData {
				return music.NewSheet(x.Report, tab.Instrument, x.Words, saved.Preferences.StringColours(tab.Instrument),
					mei.Options{TempoWords: x.TempoWords, Ruler: true, IDs: mei.IDs(lead + tab.ID + "-")})
			}
			one.Data, one.CountOff = sheet(x, "sheet-"), countOffWords(x)
			if x.Line == "" && x.CanMake(v.recipe.Beside) {
				under := x
				at.Ask.Line = v.recipe.Beside
				if err := under.OpenVersion(&at); err != nil {
					wrong = err
					return
				}
				one.Beside, one.BesideData = v.recipe.Beside, sheet(under, "beside-")
			}
			v.Sheets = append(v.Sheets, one)
			if v.recipe.Answers {
				one.Answer, one.Beside, one.Data = true, "", sheet(x, "answer-")
				answers = append(answers, one)
			}
		})
	if err == nil {
		err = wrong
	}
	v.Choice, v.Sheets = c, append(v.Sheets, answers...)
	return v, err
}

// countOffWords is what is counted before the music, as on the Bench.
func countOffWords(x teach.Explained) string {
	whole := x.Report.Chunks[len(x.Report.Chunks)-1]
	passages := whole.Passages(x.Report.Part)
	if len(passages) == 0 {
		return ""
	}
	var words []string
	for _, cue := range teach.CountOff(x, passages) {
		words = append(words, cue.Word)
	}
	return strings.Join(words, " ")
}

// tempoLadder are the tempos to climb, as many as a sheet has room for.
func tempoLadder(from int) []int {
	list := routine.Ladder(from)
	list = list[slices.Index(list, from):]
	return list[:min(len(list), mostTempoSteps)]
}

// partsAsZip sends a MusicXML file of each instrument's part, for those who engrave
// themselves.
func (s *handlers) partsAsZip(w http.ResponseWriter, r *http.Request) error {
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	var wrong error
	c, err := teach.ExplainEach(r.Context(), site.ClassOf(r), askOf(r), forWhom(site.Text(r, "for")),
		func(at teach.Choice, tab teach.InstrumentTab, x teach.Explained, _ teach.Settings) {
			entry, err := z.Create(site.FileName(at.Exercise.Number, x.Report.Title, tab.ID) + ".musicxml")
			if err == nil {
				_, err = entry.Write(musicxml.Write(score.Score{Title: x.Report.Title, Tempo: x.MarkedTempo,
					TempoWords: x.TempoWords, Parts: []score.Part{x.Report.Part}}))
			}
			if err != nil {
				wrong = err
			}
		})
	if err == nil && wrong == nil {
		wrong = z.Close()
	}
	if err == nil && wrong != nil {
		err = fmt.Errorf("pack the parts: %w", wrong)
	}
	if err != nil {
		return err
	}
	w.Header().Set("Content-Type", "application/zip")
	w.Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%d-%s-parts.zip"`, c.Exercise.Number,
		site.ForFile(c.Exercise.Title)))
	if _, err := out.WriteTo(w); err != nil {
		s.Log.Error("send the parts", "error", err)
	}
	return nil
}
