package board

import (
	"fmt"
	"html/template"
	"math"
	"net/http"
	"strings"

	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// pulse says what is the newest of a class's log, for a Board that is open elsewhere.
func (s *handlers) pulse(w http.ResponseWriter, r *http.Request) error {
	if _, _, err := site.ClassOf(r).ChooseClass(r.Context(), store.ClassID(site.Number(r, "class"))); err != nil {
		return err
	}
	latest, err := site.ClassOf(r).Newest(r.Context())
	if err != nil {
		return err
	}
	s.JSON(w, r, map[string]store.AttemptID{"latest": latest})
	return nil
}

// heatView says how far a class is with every exercise, stage by stage.
type heatView struct {
	site.BoardAround
	Kinds routine.Routine
	Rows  []heatRow
}

type heatRow struct {
	store.Exercise
	Cells []heatCell
	Stuck int // students who are stuck on it
}

// heatCell is the share of the class's chunks that are past a stage.
type heatCell struct {
	Percent int
	Shade   int // from 0 to 9
	Word    string
}

// heatWords says a share in a word. The figures are ours.
func heatWords(percent int) string {
	switch {
	case percent == 0:
		return "none"
	case percent < 34:
		return "few"
	case percent < 67:
		return "half"
	case percent < 100:
		return "most"
	}
	return "all"
}

func (s *handlers) heat(w http.ResponseWriter, r *http.Request) error {
	v, err := s.heatView(r)
	if err != nil {
		return err
	}
	s.Page(w, r, http.StatusOK, "heat", "Board by exercise", v)
	return nil
}

func (s *handlers) heatView(r *http.Request) (heatView, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	v := heatView{}
	var err error
	if v.BoardAround, err = s.BoardAround(r, "heat"); err != nil {
		return v, err
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
	counts, err := desk.EarnedCounts(ctx, v.Class.ID)
	if err != nil {
		return v, err
	}
	v.Kinds = site.FormsOf(w.Steps(v.Class.ID))
	bars := site.NewClassBars(w.Rules, v.Class.ID, counts)
	for _, x := range w.Exercises {
		shares := bars.Shares(x.ID, v.Kinds, len(w.Students)*len(x.Outline.Parts()))
		if shares == nil {
			continue
		}
		row := heatRow{Exercise: x, Stuck: stuckOn(x, needs)}
		for _, share := range shares {
			percent := int(math.Round(100 * share))
			row.Cells = append(row.Cells, heatCell{percent, min(9, percent/10), heatWords(percent)})
		}
		v.Rows = append(v.Rows, row)
	}
	return v, nil
}

// weeksView shows what was tried week by week.
type weeksView struct {
	site.BoardAround
	Weeks []string // their Mondays, "3 Nov"
	All   weekPlot
	Rows  []weekRow
}

type weekRow struct {
	store.Student
	Instrument string
	Plot       weekPlot
}

// weekPlot is the tries of some weeks, with how many were clean.
type weekPlot struct {
	Tries, Clean []int
	most         int // tries that fill the height
}

func (s *handlers) weeks(w http.ResponseWriter, r *http.Request) error {
	v, err := s.weeksView(r)
	if err != nil {
		return err
	}
	s.Page(w, r, http.StatusOK, "weeks", "Board by week", v)
	return nil
}

func (s *handlers) weeksView(r *http.Request) (weeksView, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	v := weeksView{}
	var err error
	if v.BoardAround, err = s.BoardAround(r, "weeks"); err != nil {
		return v, err
	}
	students, err := desk.Students(ctx, v.Class.ID)
	if err != nil {
		return v, err
	}
	first := teach.MondayOf(s.Now()).AddDate(0, 0, -7*(teach.WeeksShown-1))
	list, err := desk.Weeks(ctx, v.Class.ID, first)
	if err != nil {
		return v, err
	}
	empty := func() weekPlot {
		return weekPlot{Tries: make([]int, teach.WeeksShown), Clean: make([]int, teach.WeeksShown)}
	}
	v.All = empty()
	by := map[store.StudentID]weekPlot{}
	for _, week := range list {
		k := int(math.Round(week.Monday.Sub(first).Hours() / 24 / 7))
		if k < 0 || k >= teach.WeeksShown {
			continue
		}
		if _, known := by[week.Student]; !known {
			by[week.Student] = empty()
		}
		for _, plot := range []weekPlot{by[week.Student], v.All} {
			plot.Tries[k] += week.Tries
			plot.Clean[k] += week.Clean
		}
	}
	most := 1
	for _, plot := range by {
		for _, n := range plot.Tries {
			most = max(most, n)
		}
	}
	for _, n := range v.All.Tries {
		v.All.most = max(v.All.most, n)
	}
	for k := range teach.WeeksShown {
		v.Weeks = append(v.Weeks, first.AddDate(0, 0, 7*k).Format("2 Jan"))
	}
	for _, student := range students {
		plot, known := by[student.ID]
		if !known {
			plot = empty()
		}
		plot.most = most // one scale, so that rows can be compared
		v.Rows = append(v.Rows, weekRow{student, teach.InstrumentName(student.Instrument), plot})
	}
	return v, nil
}

// Total is how many tries there were in all, and how many of them were clean.
func (p weekPlot) Total() (total string) {
	tries, clean := 0, 0
	for k := range p.Tries {
		tries, clean = tries+p.Tries[k], clean+p.Clean[k]
	}
	if tries == 0 {
		return "nothing tried"
	}
	return fmt.Sprintf("%d tries, %d%% clean", tries, int(math.Round(100*float64(clean)/float64(tries))))
}

// SVG draws the plot: a bar for each week as high as its tries, filled as far as they were
// clean.
func (p weekPlot) SVG() template.HTML {
	const width, height, step = 16, 40, 20
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="week-plot" viewBox="0 0 %d %d" width="%d" height="%d" role="img" aria-label="%s">`, step*len(p.Tries), height+2, step*len(p.Tries), height+2, p.Total())
	for k, n := range p.Tries {
		if n == 0 {
			fmt.Fprintf(&b, `<circle class="no-tries" cx="%d" cy="%d" r="1.5"/>`, k*step+width/2, height-1)
			continue
		}
		tall := max(2, height*n/max(p.most, 1))
		clean := tall * p.Clean[k] / n
		fmt.Fprintf(&b, `<rect class="all-tries" x="%d" y="%d" width="%d" height="%d"/><rect class="clean-tries" x="%d" y="%d" width="%d" height="%d"/>`,
			k*step, height-tall, width, tall, k*step, height-clean, width, clean)
	}
	b.WriteString(`</svg>`)
	return template.HTML(b.String())
}
