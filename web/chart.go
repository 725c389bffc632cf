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
)

// chartView is an instrument's fingering chart.
type chartView struct {
	Instrument  instrument.Instrument
	Instruments []instrument.Instrument
	Notes       []chartLine
	Sheet       sheetData // the whole range on the staff
	Kind        string    // of the teacher's, "" for the usual
	OneNote     string    // what a drill on one note sits well on
	Years       []string
}

// chartSheetIDs leads the ids of the chart's music.
const chartSheetIDs mei.IDs = "chart-"

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
	Drawn finger.Drawn
	Shown string
	Said  string
	First bool
}

func (s *Server) chart(w http.ResponseWriter, r *http.Request) {
	ctx, desk := r.Context(), deskOf(r)
	target, ok := instrument.ByID(chi.URLParam(r, "instrument"))
	if !ok {
		s.notFound(w, r)
		return
	}
	kept, err := taught(ctx, desk)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	wanted, err := desk.Preferred(ctx, target.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	target = kept.instrument(target)
	v := chartView{Instrument: target, Instruments: instrument.All(), Kind: kept.kinds[target.ID]}
	notes := finger.Chart(target)
	for _, n := range notes {
		v.Notes = append(v.Notes, newChartLine(n, target, kept.Preferences, wanted))
	}
	if len(notes) > 0 {
		v.Sheet = chartSheet(notes, target, kept.Preferences, wanted)
		v.OneNote = name.Spoken(target.OneNote, false)
		for _, year := range target.Years {
			v.Years = append(v.Years, fmt.Sprintf("%s to %s", year.Low, year.High))
		}
	}
	s.page(w, r, http.StatusOK, "chart", target.Title()+" fingerings", v)
}

// chartSheet writes every note of an instrument on its staff, a few to a measure so
// that lines can break anywhere, sharps before flats, each with its fingering.
func chartSheet(notes []finger.ChartNote, target instrument.Instrument, p preferences, wanted finger.Preferred) sheetData {
	const perMeasure = 3
	part := score.Part{Transposition: target.Transposition}
	words := p.words()
	data := drawnFor(target, p.stringColours(target))
	data.Named, data.Fingered, data.Hands = true, true, words.Hands
	for k, n := range notes {
		if k%perMeasure == 0 {
			part.Measures = append(
				part.Measures,
				score.Measure{Number: len(part.Measures) + 1, Meter: score.Meter{Beats: 4, Unit: 4}, Clef: target.Clef},
			)
			data.Measures = append(
				data.Measures,
				sheetMeasure{
					ID:     chartSheetIDs.Measure(len(data.Measures)),
					Number: len(data.Measures) + 1,
					Pulses: []sheetPulse{},
					Events: []sheetEvent{},
				},
			)
		}
		at := len(part.Measures) - 1
		m := &part.Measures[at]
		for _, p := range n.Spellings {
			choice, _ := finger.For(target, p)
			way := choice.Prefer(wanted[p.MIDI()]).Fingering
			said := words.Say(target, way)
			data.Measures[at].Events = append(data.Measures[at].Events, sheetEvent{
				ID: chartSheetIDs.Event(score.Place{Measure: at, Event: len(m.Events)}), Name: name.Short(p, false), Spoken: name.Spoken(p, false),
				Fingering: way.Text, Drawn: finger.Draw(target, p, way), Said: said, MIDI: p.MIDI(), Why: []string{name.Spoken(p, false) + ": " + said},
			})
			m.Events = append(m.Events, score.Event{Length: score.Frac(1, 4), Value: score.Value{Base: 4}, Pitch: p, Sign: p.Alter != 0})
		}
	}
	data.MEI = mei.Write(part, mei.Options{IDs: chartSheetIDs})
	return data
}

// prefer keeps the fingering a teacher wants for a note; "" is the usual way. One that
// the note does not have changes nothing.
func (s *Server) prefer(w http.ResponseWriter, r *http.Request) {
	target, ok := instrument.ByID(chi.URLParam(r, "instrument"))
	if !ok {
		s.notFound(w, r)
		return
	}
	ctx, desk := r.Context(), deskOf(r)
	note, wanted := int(number(r, "note")), text(r, "fingering")
	kept, err := taught(ctx, desk)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	for _, n := range finger.Chart(kept.instrument(target)) {
		if n.Spellings[0].MIDI() != note || wanted != "" && !n.Choice.Has(wanted) {
			continue
		}
		if err := desk.Prefer(ctx, target.ID, note, wanted); err != nil {
			s.failed(w, r, err)
			return
		}
	}
	http.Redirect(w, r, fmt.Sprintf("/fingerings/%s#n%d", target.ID, note), http.StatusSeeOther)
}

// keepKind keeps what the teacher says of an instrument; a kind it does not come in
// changes nothing.
func (s *Server) keepKind(w http.ResponseWriter, r *http.Request) {
	target, ok := instrument.ByID(chi.URLParam(r, "instrument"))
	if !ok {
		s.notFound(w, r)
		return
	}
	if wanted := text(r, "kind"); target.Kinds.Comes(wanted) {
		if err := deskOf(r).KeepKind(r.Context(), target.ID, wanted); err != nil {
			s.failed(w, r, err)
			return
		}
	}
	http.Redirect(w, r, "/fingerings/"+target.ID, http.StatusSeeOther)
}

func newChartLine(n finger.ChartNote, target instrument.Instrument, p preferences, preferred finger.Preferred) chartLine {
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
	wanted := preferred[low.MIDI()]
	choice := n.Choice.Prefer(wanted)
	line := chartLine{
		MIDI: low.MIDI(), Chosen: choice.Has(wanted),
		Written: strings.Join(written, " or "), Spoken: strings.Join(spoken, " or "), Concert: strings.Join(concert, " or "),
		Place: strings.Join(places, " or "), FirstYear: target.Comfort(1).Holds(low), Neighbours: neighbourNames(n.Neighbours),
	}
	words := p.words()
	for k, way := range choice.Ways() {
		line.Ways = append(
			line.Ways,
			chartWay{
				Fingering: way,
				Shown:     words.Show(target, way.Text),
				Said:      words.Say(target, way),
				Drawn:     finger.Draw(target, low, way),
				First:     k == 0,
			},
		)
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
