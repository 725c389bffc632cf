package board

import (
	"fmt"
	"math"
	"net/http"
	"slices"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/table"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// gradeRule is what a teacher counts as done in a gradebook.
type gradeRule struct {
	Counts string    // of countings
	Stage  string    // the kind of stage that is to be passed, "" for the last one
	By     time.Time // what was tried until the end of this day counts
	Played bool      // a stage that was not earned counts where the last one was
}

// counting is a way of counting how much of an exercise is done.
type counting struct {
	ID, Words string
	of        func(chunks []bool, whole bool) float64 // from 0 to 1, by which of them count
}

// countings lists them.
func countings() []counting {
	return []counting{
		{"share", "each chunk that is done counts its part, 0 to 100", func(chunks []bool, _ bool) float64 {
			n := 0
			for _, p := range chunks {
				if p {
					n++
				}
			}
			return float64(n) / float64(max(len(chunks), 1))
		}},
		{"whole", "100 when the whole is done, else 0", func(_ []bool, whole bool) float64 { return oneIf(whole) }},
		{"chunks", "100 when every chunk is done, else 0",
			func(chunks []bool, _ bool) float64 { return oneIf(len(chunks) > 0 && !slices.Contains(chunks, false)) }},
	}
}

func oneIf(yes bool) float64 {
	if yes {
		return 1
	}
	return 0
}

// gradesView is the page where a gradebook is made.
type gradesView struct {
	site.BoardAround
	Rule    gradeRule
	ByText  string // as it was typed
	Ways    []counting
	Stages  []routine.Step
	Problem string
	Head    []string
	Rows    [][]string // the first, as they will be in the file
	More    int
}

// gradesShown is how many students the page shows of a gradebook.
const gradesShown = 8

func (s *handlers) grades(w http.ResponseWriter, r *http.Request) error {
	v := gradesView{Ways: countings(), Stages: routine.Standard(), ByText: site.Text(r, "by")}
	var err error
	if v.BoardAround, err = s.BoardAround(r, "grades"); err != nil {
		return err
	}
	v.Rule, v.Problem = readGradeRule(r)
	if v.ByText == "" {
		v.ByText = v.Rule.By.Format(time.DateOnly)
	}
	if v.Problem != "" {
		s.Page(w, r, http.StatusUnprocessableEntity, "grades", "Grades", v)
		return nil
	}
	rows, err := s.gradebook(r, v.Class.ID, v.Rule)
	if err != nil {
		return err
	}
	if site.Text(r, "as") == "csv" {
		w.Header().Set("Content-Type", "text/csv; charset=utf-8")
		w.Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="gradebook-%s.csv"`,
			v.Rule.By.Format(time.DateOnly)))
		_, _ = w.Write(table.Write(rows[0], rows[1:])) // the reader has gone when this fails
		return nil
	}
	v.Head, v.Rows = rows[0], rows[1:]
	if v.More = len(v.Rows) - gradesShown; v.More > 0 {
		v.Rows = v.Rows[:gradesShown]
	}
	s.Page(w, r, http.StatusOK, "grades", "Grades", v)
	return nil
}

// readGradeRule reads the rule, or says what is wrong with it.
func readGradeRule(r *http.Request) (rule gradeRule, problem string) {
	rule = gradeRule{Counts: site.Text(r, "counts"), Stage: site.Text(r, "stage"), By: teach.DateOf(site.ClassOf(r).Now()),
		Played: site.Text(r, "played") == "yes"}
	if rule.Counts == "" {
		rule.Counts = countings()[0].ID
	}
	if !slices.ContainsFunc(countings(), func(c counting) bool { return c.ID == rule.Counts }) {
		return rule, "Choose what counts from the list."
	}
	if rule.Stage != "" && !slices.Contains(routine.Forms(), routine.Stage(rule.Stage)) {
		return rule, "Choose the stage from the list."
	}
	if typed := site.Text(r, "by"); typed != "" {
		by, problem := site.ReadDay(typed)
		if problem != "" {
			return rule, problem
		}
		rule.By = by
	}
	return rule, ""
}

// CSVLink is the address of the file.
func (v gradesView) CSVLink() string {
	link := fmt.Sprintf("/board/grades?class=%d&counts=%s&stage=%s&by=%s&as=csv", v.Class.ID, v.Rule.Counts,
		v.Rule.Stage, v.Rule.By.Format(time.DateOnly))
	if v.Rule.Played {
		link += "&played=yes"
	}
	return link
}

// gradebook is a line of column names, and one for each student: how much of each exercise
// that the class has begun they had done by the day, from 0 to 100, and the mean.
func (s *handlers) gradebook(r *http.Request, class store.ClassID, rule gradeRule) ([][]string, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	standings, err := desk.StandingsBy(ctx, class, teach.StartOf(rule.By.AddDate(0, 0, 1), desk.Zone(ctx)))
	if err != nil {
		return nil, err
	}
	w, err := teach.LoadClassWork(ctx, desk, class)
	if err != nil {
		return nil, err
	}
	exercises := begunOf(w.Exercises, standings)
	way := countings()[slices.IndexFunc(countings(), func(c counting) bool { return c.ID == rule.Counts })]
	head := []string{"First name", "Initial", "Instrument"}
	for _, x := range exercises {
		head = append(head, fmt.Sprintf("%d %s", x.Number, x.Title))
	}
	rows := [][]string{append(head, "Mean")}
	for _, student := range w.Students {
		row, sum := []string{student.FirstName, student.Initial, teach.InstrumentName(student.Instrument)}, 0.0
		for _, x := range exercises {
			share := way.of(rule.counts(w.Rules.For(student.ID, x.ID),
				standings[store.Task{Student: student.ID, Exercise: x.ID}], w.Own.Of(x, student.Instrument)))
			sum += share
			row = append(row, teach.PercentText(share))
		}
		rows = append(rows, append(row, teach.PercentText(sum/math.Max(1, float64(len(exercises))))))
	}
	return rows, nil
}

// counts says which chunks of an exercise count for somebody, and whether the whole does: those
// that have earned the last stage of the kind that is asked for, the last of all where none is.
func (rule gradeRule) counts(steps routine.Routine, standing *progress.Standing,
	outline breakdown.Outline) (chunks []bool, whole bool) {
	last := len(steps) - 1
	if rule.Stage != "" {
		for k, s := range steps {
			if s.Form() == routine.Stage(rule.Stage) {
				last = k
			}
		}
	}
	counts := func(key breakdown.ChunkKey) bool {
		credit := steps.Credit(standing.State(steps, key), last)
		return credit == routine.Earned || credit == routine.ByPlaying && rule.Played
	}
	for _, key := range outline.Parts() {
		chunks = append(chunks, counts(key))
	}
	return chunks, len(outline.Chunks) > 0 && counts(outline.Chunks[len(outline.Chunks)-1])
}
