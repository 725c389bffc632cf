package bench

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// hardestView sets the instruments of a class against the measures of an exercise: who
// has it hardest, and where.
type hardestView struct {
	teach.Choice
	Numbers  []int // of the measures, as printed
	Rows     []hardestRow
	Room     []int // the class's grade at each measure
	At       hardestCell
	Parts    []gradedPart // of the cell at hand
	Open     string       // the Bench at that measure
	Drill    string       // the Bench's drill of the worst change there, "" for none
	DrillSay string
	Tempo    string
	Once     []string
	MoreOf   string     // what the measure is to practise
	More     []moreLink // the exercises that practise the same, easiest first
	trouble  []breakdown.Element
}

// moreLink is an exercise that practises the same trouble.
type moreLink struct{ Title, Link string }

type hardestRow struct {
	instrument.Instrument
	Players int
	Cells   []hardestCell
	Worst   hardestCell
	report  breakdown.Report
	drills  []breakdown.Drill
}

// hardestCell is a measure for an instrument.
type hardestCell struct {
	breakdown.Trouble
	Number  int
	Link    string
	Current bool
	measure breakdown.Measure
	index   int // in the report
}

// Said is a word for the cell where it is worth one.
func (c hardestCell) Said() string {
	if c.Grade < 4 {
		return ""
	}
	return c.Word
}

type gradedPart struct {
	Name    string
	Percent int
}

func (s *handlers) hardest(w http.ResponseWriter, r *http.Request) error {
	v, err := s.hardestView(r)
	if err != nil {
		return err
	}
	s.Page(w, r, http.StatusOK, "hardest", fmt.Sprintf("Difficulty by instrument: %d · %s", v.Exercise.Number,
		v.Exercise.Title), v)
	return nil
}

func (s *handlers) hardestView(r *http.Request) (hardestView, error) {
	var v hardestView
	c, err := teach.ExplainEach(r.Context(), site.ClassOf(r), askOf(r), teach.Choice.Plays,
		func(_ teach.Choice, tab teach.InstrumentTab, x teach.Explained, _ teach.Settings) {
			v.Rows = append(v.Rows, hardestRow{Instrument: tab.Instrument, Players: tab.Students, report: x.Report,
				drills: x.Drills})
		})
	if err != nil {
		return v, err
	}
	v.Choice = c
	v.fill(c.Ask.Instrument, int(site.Number(r, "measure")))
	return v, s.addMore(r.Context(), site.ClassOf(r), &v)
}

// worthMore is from which grade on a measure is worth practising elsewhere; the figure is ours.
const worthMore = 2

// mostMore is how many exercises of the same trouble are offered.
const mostMore = 4

// addMore finds the exercises that practise what is hard in the measure at hand.
func (s *handlers) addMore(ctx context.Context, desk *teach.Class, v *hardestView) error {
	var words []string
	for _, t := range v.trouble {
		words = append(words, t.Words())
	}
	v.MoreOf = strings.Join(words, " and ")
	if len(v.trouble) == 0 {
		return nil
	}
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return err
	}
	demands, err := desk.Demands(ctx, v.Instrument.ID)
	if err != nil {
		return err
	}
	hand := -1
	list := make([]breakdown.Candidate, len(exercises))
	for k, x := range exercises {
		list[k] = breakdown.Candidate{Number: x.Number, Demands: map[string]breakdown.Demands{v.Instrument.ID: demands[x.ID]}}
		if x.ID == v.Exercise.ID {
			hand = k
		}
	}
	found := breakdown.More(list, v.Instrument.ID, v.trouble, hand)
	for _, k := range found[:min(len(found), mostMore)] {
		x := exercises[k]
		v.More = append(v.More, moreLink{fmt.Sprintf("%d · %s", x.Number, x.Title),
			fmt.Sprintf("/bench/%d?instrument=%s&class=%d", x.ID, v.Instrument.ID, v.Class.ID)})
	}
	return nil
}

// fill lays out the cells, and takes the one that is asked for, or the hardest.
func (v *hardestView) fill(desired string, measure int) {
	for _, m := range v.Rows[0].report.Measures {
		if !slices.Contains(v.Numbers, m.Number) {
			v.Numbers = append(v.Numbers, m.Number)
		}
	}
	at, chosen := 0, false
	for k := range v.Rows {
		row := &v.Rows[k]
		for _, number := range v.Numbers {
			cell := row.cell(number)
			cell.Link = fmt.Sprintf("/bench/%d/hardest?class=%d&instrument=%s&measure=%d", v.Exercise.ID, v.Class.ID,
				row.ID, number)
			row.Cells = append(row.Cells, cell)
			if cell.Grade > row.Worst.Grade || row.Worst.Word == "" {
				row.Worst = cell
			}
		}
		if row.ID == desired && measure >= 0 && slices.Contains(v.Numbers, measure) {
			at, chosen = k, true
		}
	}
	if !chosen {
		for k, row := range v.Rows {
			if row.Worst.Grade > v.Rows[at].Worst.Grade {
				at = k
			}
		}
		measure = v.Rows[at].Worst.Number
	}
	for k := range v.Numbers {
		v.Room = append(v.Room, v.room(k))
	}
	row := &v.Rows[at]
	column := slices.Index(v.Numbers, measure)
	row.Cells[column].Current = true
	v.At = row.Cells[column]
	v.tellOf(row)
	v.tellTempo()
	if v.Once = row.report.Again(); len(v.Once) > 0 {
		v.Once = append(v.Once, fmt.Sprintf("%s are left to learn, not %d.", teach.CapitalNumber(row.report.Left),
			len(v.Numbers)))
	}
}

// cell is the hardest of the measures of a number, which may be divided.
func (r hardestRow) cell(number int) hardestCell {
	cell := hardestCell{Number: number}
	for i, m := range r.report.Measures {
		if m.Number != number {
			continue
		}
		if t := r.report.Trouble(i, r.Instrument); cell.Why == "" || t.Grade > cell.Grade {
			cell.Trouble, cell.measure, cell.index = t, m, i
		}
	}
	if cell.Why == "" {
		cell.Why = "This instrument's own part has no such measure."
	}
	return cell
}

// room is the grade of a measure for all: three fifths of the worst off and two fifths of
// everybody.
func (v *hardestView) room(column int) int {
	worst, sum, players := 0, 0, 0
	for _, row := range v.Rows {
		n := max(row.Players, 1)
		worst, sum, players = max(worst, row.Cells[column].Grade), sum+n*row.Cells[column].Grade, players+n
	}
	return int(0.6*float64(worst) + 0.4*float64(sum)/float64(players) + 0.5)
}

// tellOf fills what stands beside the table, of the cell at hand.
func (v *hardestView) tellOf(row *hardestRow) {
	parts := v.At.measure.Difficulty.Parts
	for _, p := range []struct {
		name  string
		share float64
	}{{"rhythm", parts.Rhythm}, {"reading", parts.Reading}, {"change", parts.Change}, {"range", parts.Range},
		{"breath or bow", parts.Breath}, {"new", parts.New}} {
		v.Parts = append(v.Parts, gradedPart{p.name, int(100*p.share + 0.5)})
	}
	bench := atBench(teach.Work{Choice: v.Choice})
	bench.Instrument = row.Instrument
	for _, chunk := range row.report.Chunks {
		if slices.Contains(chunk.Measures, v.At.Number) {
			bench.Key = chunk.Key()
			break
		}
	}
	v.Open = bench.Link("chunk", bench.Key)
	for _, d := range row.drills {
		if slices.Contains(d.Measures, v.At.Number) {
			v.Drill = bench.Link("line", teach.DrillVersion)
			v.DrillSay = fmt.Sprintf("Drill %s – %s, from %d", teach.ShortPitch(d.From.Pitch),
				teach.ShortPitch(d.To.Pitch), d.Tempo)
			break
		}
	}
	v.Instrument = row.Instrument
	if v.At.Grade >= worthMore {
		v.trouble = row.report.TroubleElements(v.At.index)
	}
}

// tellTempo says which measure sets the tempo of the room, and for whom.
func (v *hardestView) tellTempo() {
	slow := slices.MinFunc(v.Rows, func(a, b hardestRow) int {
		return a.report.Tempo.Suggested - b.report.Tempo.Suggested
	})
	start := slow.report.Tempo.Suggested
	var held []string
	others := 0
	for _, row := range v.Rows {
		if t := row.report.Tempo.Suggested; t == start {
			held = append(held, row.Name)
		} else if others == 0 || t < others {
			others = t
		}
	}
	beat := slow.report.Part.Meter().BeatName(false)
	if !slow.report.Tempo.Slower || others == 0 {
		v.Tempo = fmt.Sprintf("Everybody starts at %s = %d.", beat, start)
		return
	}
	v.Tempo = fmt.Sprintf("Measure %d sets the tempo for the %s: %s = %d; everybody else could start at %d. Take the whole at %d until they have it.",
		slow.report.Tempo.LimitMeasure, strings.Join(held, ", "), beat, start, others, start)
}
