package web

import (
	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// sheetData is what the page's script needs to engrave a part, lay the lanes
// under it and move the cursor. Times are in whole notes.
type sheetData struct {
	MEI       string         `json:"mei"`
	Beat      float64        `json:"beat"`
	Mechanism string         `json:"mechanism"`
	LaneName  string         `json:"laneName"`
	Named     bool           `json:"named"` // the notes have names
	Thumb     bool           `json:"thumb"` // the left thumb has a hole or key of its own
	Measures  []sheetMeasure `json:"measures"`
	Order     []int          `json:"order"` // indexes as played
}

type sheetMeasure struct {
	ID     string       `json:"id"`
	Number int          `json:"number"`
	Offset float64      `json:"offset"`
	Length float64      `json:"length"`
	Pulses []sheetPulse `json:"pulses"`
	Events []sheetEvent `json:"events"`
}

type sheetPulse struct {
	ID   string     `json:"id"`
	At   float64    `json:"at"`
	Text string     `json:"text"`
	Look count.Look `json:"look"`
	Tap  count.Tap  `json:"tap"`
	Beat bool       `json:"beat"`
}

type sheetEvent struct {
	ID        string            `json:"id"`
	Name      string            `json:"name"`
	Spoken    string            `json:"spoken"`
	Fingering string            `json:"fingering"`
	Alerts    []breakdown.Alert `json:"alerts"`
	Why       []string          `json:"why"` // its count, its name, its marks
}

// reasons says everything there is to say about an event.
func reasons(e breakdown.Event) []string {
	why := []string{e.CountWhy}
	if e.NameWhy != "" {
		why = append(why, e.Name+", "+e.Place+". "+e.NameWhy)
	}
	for _, way := range e.Ways {
		why = append(why, "Or "+way.Text+": "+way.Why+".")
	}
	if e.Change != nil {
		why = append(why, "From the note before: "+e.Change.Why+".")
	}
	if e.Why != "" {
		why = append(why, e.Why)
	}
	return why
}

func newSheet(r breakdown.Report, i instrument.Instrument, opt mei.Options) sheetData {
	data := sheetData{
		MEI: mei.Write(r.Part, opt), Beat: r.Part.Meter().Beat().Float(), Named: !r.Part.Unpitched(), Thumb: i.Thumb,
		Mechanism: string(i.Mechanism), LaneName: i.LaneName(), Order: r.Part.Order(),
	}
	for i, m := range r.Part.Measures {
		measure := sheetMeasure{ID: mei.MeasureID(i), Number: m.Number, Offset: m.Offset.Float(), Length: m.Length.Float()}
		for k, cell := range r.Measures[i].Lane {
			measure.Pulses = append(measure.Pulses, sheetPulse{
				ID: mei.PulseID(i, k), At: cell.Place.Float(), Text: cell.Text(), Look: cell.Look, Tap: cell.Tap,
				Beat: cell.Beat,
			})
		}
		for j, e := range r.Measures[i].Events {
			if e.Kind == "note" && !e.Tied {
				measure.Events = append(measure.Events, sheetEvent{
					ID: mei.EventID(score.Place{Measure: i, Event: j}), Name: e.ShortName, Spoken: e.Name,
					Fingering: e.Fingering, Alerts: e.Alerts, Why: reasons(e),
				})
			}
		}
		data.Measures = append(data.Measures, measure)
	}
	return data
}
