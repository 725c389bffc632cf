package bench

import (
	"fmt"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/score"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
)

// watchedList is what to watch for, what goes wrong most first.
type watchedList []breakdown.Watched

// More is how many are not in the summary.
func (l watchedList) More() int { return len(l) - 3 }

// Watched is what to watch for in the chunk at hand.
func (v benchView) Watched() watchedList { return v.Report.Watch(v.Passages, v.Instrument) }

// EventID is the id of an event in the music on the page.
func (benchView) EventID(at score.Place) string { return music.BenchSheetIDs.Event(at) }

// struckAlert is an alert that the teacher struck out.
type struckAlert struct {
	At      score.Place
	Measure int
	Name    string
	Alert   breakdown.Alert
}

// StruckOut lists the alerts that are struck out in the chunk at hand.
func (v benchView) StruckOut() []struckAlert {
	var list []struckAlert
	for _, p := range v.Passages {
		for j, e := range v.Report.Measures[p.At].Events {
			if e.Start.Less(p.From) || !e.Start.Less(p.To) {
				continue
			}
			for _, a := range e.StruckOut() {
				list = append(list, struckAlert{score.Place{Measure: p.At, Event: j}, v.Report.Measures[p.At].Number,
					e.ShortName, a})
			}
		}
	}
	return list
}

// wholeLine is one thing that is seen before anybody plays.
type wholeLine struct {
	Word  string
	Lines []string
	Link  string
}

// WholeShort is the card in a line: what is left to learn, what is new, what sets the tempo.
func (v benchView) WholeShort() string {
	r := v.Report
	words := []string{fmt.Sprintf("%s to learn", teach.CapitalNumber(r.Left))}
	if n := len(v.New); n > 0 {
		words = append(words, fmt.Sprintf("%s new", teach.InWords(n)))
	}
	if r.Tempo.Slower {
		words = append(words, fmt.Sprintf("m. %d sets the tempo", r.Tempo.LimitMeasure))
	}
	return strings.Join(words, " · ")
}

// ReadWhole is what a teacher tells a class before anybody plays.
func (v benchView) ReadWhole() []wholeLine {
	r := v.Report
	measures := r.Measures[len(r.Measures)-1].Number
	frame := fmt.Sprintf("%s, %s measures", r.Meter, teach.InWords(measures))
	if !v.Instrument.Unpitched() {
		frame = fmt.Sprintf("%s; %s: %s", frame, r.Key.Name, r.Part.Key().SignatureWords())
	}
	list := []wholeLine{{Word: "Frame", Lines: []string{frame + "."}}, {Word: "Order", Lines: []string{v.orderWords()}}}
	same := wholeLine{Word: "The same"}
	for _, l := range r.Lines {
		same.Lines = append(same.Lines, l.Words())
	}
	if len(same.Lines) == 0 {
		same.Lines = r.Again()
	}
	if r.Left < measures {
		same.Lines = append(same.Lines, fmt.Sprintf("%s left to learn, of %s.", teach.CapitalNumber(r.Left),
			teach.InWords(measures)))
	}
	if len(same.Lines) == 0 {
		same.Lines = []string{"No measure comes again."}
	}
	list = append(list, same)
	if len(r.Figures) > 0 {
		turns := wholeLine{Word: "At a glance"}
		for _, f := range r.Figures[:min(len(r.Figures), teach.MostFigures)] {
			turns.Lines = append(turns.Lines, fmt.Sprintf("%s: %s.", breakdown.ChunkKey{First: f.Measures[0],
				Last: f.Measures[len(f.Measures)-1]}.Words(), f.Words))
		}
		list = append(list, turns)
	}
	word := "New"
	if v.Student.ID != 0 {
		word = "New to " + v.Student.FirstName
	}
	news := wholeLine{Word: word, Lines: []string{"Nothing that was not met before."}}
	if len(v.New) > 0 {
		news.Lines = []string{teach.Capital(strings.Join(v.New, ", ")) + "."}
	}
	if !v.Opening {
		list = append(list, news)
	}
	list = append(list, wholeLine{Word: "Hardest", Lines: v.hardestLines(),
		Link: fmt.Sprintf("/bench/%d/hardest?class=%d", v.Exercise.ID, v.Class.ID)})
	tempo := fmt.Sprintf("Start at %s = %d.", v.BeatName, r.Tempo.Suggested)
	switch {
	case r.Tempo.Like != "":
		tempo = fmt.Sprintf("Start at %s = %d, as on %s.", v.BeatName, r.Tempo.Suggested, r.Tempo.Like)
	case r.Tempo.Slower:
		tempo = fmt.Sprintf("m. %d sets it: start at %s = %d.", r.Tempo.LimitMeasure, v.BeatName, r.Tempo.Suggested)
	}
	return append(list, wholeLine{Word: "Tempo", Lines: []string{tempo}})
}

// hardestLines say which measure is hardest here, and who in the room has it hardest.
func (v benchView) hardestLines() []string {
	if v.Room == "" {
		return []string{v.hardestMeasure()}
	}
	return []string{v.hardestMeasure(), v.Room}
}

// hardestMeasure says which measure is hardest for the instrument, and why.
func (v benchView) hardestMeasure() string {
	hardest := 0
	for i, m := range v.Report.Measures {
		if m.Difficulty.Total > v.Report.Measures[hardest].Difficulty.Total {
			hardest = i
		}
	}
	t := v.Report.Trouble(hardest, v.Instrument)
	why, _, _ := strings.Cut(t.Why, ". ")
	return fmt.Sprintf("m. %d, %d of 9: %s.", v.Report.Measures[hardest].Number, t.Grade, strings.TrimSuffix(why, "."))
}

// orderWords says in which order the measures are played: "Straight through.", "m. 1–4,
// 1–3, 5."
func (v benchView) orderWords() string {
	var runs []string
	order := v.Report.Order
	straight := len(order) == len(v.Report.Measures)
	for from := 0; from < len(order); {
		to := from
		for to+1 < len(order) && (order[to+1].Number == order[to].Number+1 ||
			order[to+1].Number == order[to].Number && order[to+1].Part == order[to].Part+1) {
			to++
		}
		straight = straight && from == 0 && to == len(order)-1
		run := order[from].String()
		if to > from {
			run += "–" + order[to].String()
		}
		runs, from = append(runs, run), to+1
	}
	if straight {
		return "Straight through."
	}
	return "m. " + strings.Join(runs, ", ") + "."
}

// SignsAtRisk are the notes before which a sign may be pencilled, of a part with lanes.
func (v benchView) SignsAtRisk() []breakdown.SignGroup {
	if v.InDrill() {
		return nil
	}
	return v.Report.SignsAtRisk()
}

// MeasuresOf says where they stand: "m. 2, 3".
func (benchView) MeasuresOf(g breakdown.SignGroup) string { return score.MeasureList(g.Measures) }
