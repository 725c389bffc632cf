package web

import (
	"fmt"
	"html/template"
	"math"
	"net/http"
	"strings"
	"time"

	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// boardAround is what the Board's other views have in common.
type boardAround struct {
	Sections []store.Section
	Section  store.Section
	View     string // "heat"
}

// Link is the address of a view of a section, "" for the Board itself.
func (v boardAround) Link(view string, section store.SectionID) string {
	return "/" + strings.TrimSuffix("board/"+view, "/") + fmt.Sprintf("?section=%d", section)
}

func (s *Server) boardAround(r *http.Request, view string) (boardAround, error) {
	v := boardAround{View: view}
	var err error
	v.Sections, v.Section, err = deskOf(r).ChooseSection(r.Context(), store.SectionID(number(r, "section")))
	return v, err
}

// pulse says what is the newest of a section's log, for a Board that is open elsewhere.
func (s *Server) pulse(w http.ResponseWriter, r *http.Request) {
	if _, _, err := deskOf(r).ChooseSection(r.Context(), store.SectionID(number(r, "section"))); err != nil {
		s.failed(w, r, err)
		return
	}
	latest, err := deskOf(r).Newest(r.Context())
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.json(w, r, map[string]store.AttemptID{"latest": latest})
}

// heatView says how far a section is with every exercise, stage by stage.
type heatView struct {
	boardAround
	Kinds routine.Routine
	Rows  []heatRow
}

type heatRow struct {
	store.Exercise
	Cells []heatCell
	Stuck int // students who are stuck on it
}

// heatCell is the share of the section's pieces that are past a stage.
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

func (s *Server) heat(w http.ResponseWriter, r *http.Request) {
	v, err := s.heatView(r)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.page(w, r, http.StatusOK, "heat", "Board by exercise and stage", v)
}

func (s *Server) heatView(r *http.Request) (heatView, error) {
	ctx, desk := r.Context(), deskOf(r)
	v := heatView{}
	var err error
	if v.boardAround, err = s.boardAround(r, "heat"); err != nil {
		return v, err
	}
	w, err := loadSectionWork(ctx, desk, v.Section.ID)
	if err != nil {
		return v, err
	}
	standings, err := desk.SectionStandings(ctx, v.Section.ID)
	if err != nil {
		return v, err
	}
	counts, err := desk.StageCounts(ctx, v.Section.ID)
	if err != nil {
		return v, err
	}
	v.Kinds = kindsOf(w.steps(v.Section.ID))
	bars := newSectionBars(w.rules, v.Section.ID, counts)
	for _, x := range w.exercises {
		shares := bars.shares(x.ID, v.Kinds, len(w.students)*len(x.Outline.Pieces))
		if shares == nil {
			continue
		}
		row := heatRow{Exercise: x, Stuck: stuckOn(x, standings)}
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
	boardAround
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

// weeksShown is how many weeks the plots have.
const weeksShown = 12

func (s *Server) weeks(w http.ResponseWriter, r *http.Request) {
	v, err := s.weeksView(r)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.page(w, r, http.StatusOK, "weeks", "Board week by week", v)
}

func (s *Server) weeksView(r *http.Request) (weeksView, error) {
	ctx, desk := r.Context(), deskOf(r)
	v := weeksView{}
	var err error
	if v.boardAround, err = s.boardAround(r, "weeks"); err != nil {
		return v, err
	}
	students, err := desk.Students(ctx, v.Section.ID)
	if err != nil {
		return v, err
	}
	first := mondayOf(time.Now()).AddDate(0, 0, -7*(weeksShown-1))
	list, err := desk.Weeks(ctx, v.Section.ID, first)
	if err != nil {
		return v, err
	}
	empty := func() weekPlot { return weekPlot{Tries: make([]int, weeksShown), Clean: make([]int, weeksShown)} }
	v.All = empty()
	by := map[store.StudentID]weekPlot{}
	for _, week := range list {
		k := int(math.Round(week.Monday.Sub(first).Hours() / 24 / 7))
		if k < 0 || k >= weeksShown {
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
	for k := range weeksShown {
		v.Weeks = append(v.Weeks, first.AddDate(0, 0, 7*k).Format("2 Jan"))
	}
	for _, student := range students {
		plot, known := by[student.ID]
		if !known {
			plot = empty()
		}
		plot.most = most // one scale, so that rows can be compared
		v.Rows = append(v.Rows, weekRow{student, instrumentName(student.Instrument), plot})
	}
	return v, nil
}

// mondayOf is midnight of the Monday of a week, in UTC as the tables have it.
func mondayOf(t time.Time) time.Time {
	t = dateOf(t.UTC())
	return t.AddDate(0, 0, -(int(t.Weekday())+6)%7)
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
