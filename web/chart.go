package web

import (
	"fmt"
	"net/http"
	"strings"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// chartView is an instrument's fingering chart.
type chartView struct {
	Instrument  instrument.Instrument
	Instruments []instrument.Instrument
	Notes       []chartLine
	Sheet       sheetData // the whole range on the staff
	Kind        kindChoice
	Drill       string // what a one-note drill sits well on
	Years       []string
}

// chartLine is one note of the chart, lowest first.
type chartLine struct {
	Written    string // "C♯ or D♭"
	Spoken     string
	Concert    string
	Place      string
	FirstYear  bool
	MIDI       int
	Chosen     bool // by the teacher, in place of the usual way
	Ways       []chartWay
	Neighbours string
}

// chartWay is one way to play a note, the first of a list the one to learn first.
type chartWay struct {
	finger.Fingering
	Shown string
	Said  string
	First bool
}

func (s *Server) chart(w http.ResponseWriter, r *http.Request) {
	target, ok := instrument.ByID(chi.URLParam(r, "instrument"))
	if !ok {
		s.notFound(w, r)
		return
	}
	kept, err := s.store.Settings(r.Context(), teacher(r).ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	target = taught(kept, target)
	v := chartView{
		Instrument: target, Instruments: instrument.All(), Kind: kindsOf(target, kept),
	}
	notes := finger.Chart(target)
	for _, n := range notes {
		v.Notes = append(v.Notes, newChartLine(n, target, kept))
	}
	if len(notes) > 0 {
		v.Sheet = chartSheet(notes, target, kept)
		v.Drill = name.Spoken(target.Drill, false)
		for _, year := range target.Years {
			v.Years = append(v.Years, fmt.Sprintf("%s to %s", year.Low, year.High))
		}
	}
	s.page(w, r, http.StatusOK, "chart", target.Title()+" fingerings", v)
}

// chartSheet writes every note of an instrument on its staff, a few to a measure so
// that lines can break anywhere, sharps before flats, each with its fingering.
func chartSheet(notes []finger.ChartNote, target instrument.Instrument, kept store.Settings) sheetData {
	const perMeasure = 3
	part := score.Part{Sounds: target.Sounds}
	words := wordsOf(kept)
	data := drawnFor(target, stringColours(kept, target))
	data.Named, data.Fingered, data.Hands = true, true, words.Hands
	for k, n := range notes {
		if k%perMeasure == 0 {
			part.Measures = append(part.Measures, score.Measure{Number: len(part.Measures) + 1, Meter: score.Meter{Beats: 4, Unit: 4}, Clef: target.Clef})
			data.Measures = append(data.Measures, sheetMeasure{ID: mei.MeasureID(len(data.Measures)), Number: len(data.Measures) + 1, Pulses: []sheetPulse{}, Events: []sheetEvent{}})
			data.Order = append(data.Order, len(data.Order))
		}
		at := len(part.Measures) - 1
		m := &part.Measures[at]
		for _, p := range n.Spellings {
			choice, _ := finger.For(target, p)
			text := choice.Prefer(kept.Preferred[target.ID][p.MIDI()]).Text
			data.Measures[at].Events = append(data.Measures[at].Events, sheetEvent{
				ID: mei.EventID(score.Place{Measure: at, Event: len(m.Events)}), Name: name.Short(p, false), Spoken: name.Spoken(p, false),
				Fingering: text, Said: words.Say(target, text), MIDI: p.MIDI(), Why: []string{name.Spoken(p, false) + ": " + words.Say(target, text)},
			})
			m.Events = append(m.Events, score.Event{Length: score.Frac(1, 4), Value: score.Value{Base: 4}, Pitch: p, Sign: p.Alter != 0})
		}
	}
	data.MEI = mei.Write(part, mei.Options{})
	return data
}

// prefer keeps the fingering a teacher wants for a note; "" is the usual way.
func (s *Server) prefer(w http.ResponseWriter, r *http.Request) {
	note, wanted := int(number(r, "note")), text(r, "fingering")
	s.changeTaught(w, r, fmt.Sprintf("#n%d", note), func(kept *store.Settings, target instrument.Instrument) {
		delete(kept.Preferred[target.ID], note)
		for _, n := range finger.Chart(taught(*kept, target)) {
			if n.Spellings[0].MIDI() == note && n.Choice.Has(wanted) {
				keepPreferred(kept, target.ID, note, wanted)
			}
		}
	})
}

// changeTaught changes the settings for the instrument of the address and goes back
// to its chart.
func (s *Server) changeTaught(w http.ResponseWriter, r *http.Request, at string, change func(*store.Settings, instrument.Instrument)) {
	target, ok := instrument.ByID(chi.URLParam(r, "instrument"))
	if !ok {
		s.notFound(w, r)
		return
	}
	ctx, t := r.Context(), teacher(r).ID
	kept, err := s.store.Settings(ctx, t)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	change(&kept, target)
	if err := s.store.KeepSettings(ctx, t, kept); err != nil {
		s.failed(w, r, err)
		return
	}
	http.Redirect(w, r, "/fingerings/"+target.ID+at, http.StatusSeeOther)
}

func newChartLine(n finger.ChartNote, target instrument.Instrument, kept store.Settings) chartLine {
	var written, spoken, concert, places []string
	for _, p := range n.Spellings {
		written = append(written, name.Short(p, false))
		spoken = append(spoken, name.Spoken(p, false))
		places = append(places, name.Place(p, target.Clef))
	}
	for _, p := range n.Sounding {
		concert = append(concert, name.Short(p, false))
	}
	low := n.Spellings[0]
	wanted := kept.Preferred[target.ID][low.MIDI()]
	choice := n.Choice.Prefer(wanted)
	line := chartLine{
		MIDI: low.MIDI(), Chosen: choice.Has(wanted),
		Written: strings.Join(written, " or "), Spoken: strings.Join(spoken, " or "), Concert: strings.Join(concert, " or "),
		Place: strings.Join(places, " or "), FirstYear: target.Comfort(1).Holds(low), Neighbours: neighbourNames(n.Neighbours),
	}
	words := wordsOf(kept)
	for k, way := range choice.Ways() {
		line.Ways = append(line.Ways, chartWay{Fingering: way, Shown: words.Show(target, way.Text), Said: words.Say(target, way.Text), First: k == 0})
	}
	return line
}

func neighbourNames(pitches []score.Pitch) string {
	names := make([]string, len(pitches))
	for i, p := range pitches {
		names[i] = p.String()
	}
	return strings.Join(names, ", ")
}
