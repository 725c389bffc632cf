package web

import (
	"net/http"
	"strings"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// chartView is an instrument's fingering chart.
type chartView struct {
	Instrument  instrument.Instrument
	Instruments []instrument.Instrument
	Notes       []chartLine
}

// chartLine is one note of the chart, lowest first.
type chartLine struct {
	Written    string // "C♯ or D♭"
	Spoken     string
	Concert    string
	Place      string
	FirstYear  bool
	Text       string
	Ways       []finger.Fingering
	Neighbours string
}

func (s *Server) chart(w http.ResponseWriter, r *http.Request) {
	target, ok := instrument.ByID(chi.URLParam(r, "instrument"))
	if !ok {
		s.notFound(w, r)
		return
	}
	v := chartView{Instrument: target, Instruments: instrument.All()}
	for _, n := range finger.Chart(target) {
		v.Notes = append(v.Notes, newChartLine(n, target))
	}
	s.page(w, r, http.StatusOK, "chart", target.Title()+" fingerings", v)
}

func newChartLine(n finger.ChartNote, target instrument.Instrument) chartLine {
	var written, spoken, concert, places []string
	for _, p := range n.Spellings {
		written = append(written, name.Short(p, false))
		spoken = append(spoken, name.Spoken(p, false))
		concert = append(concert, name.Short(p.Transpose(target.Sounds), false))
		places = append(places, name.Place(p, target.Clef))
	}
	low := n.Spellings[0]
	line := chartLine{
		Written: strings.Join(written, " or "), Spoken: strings.Join(spoken, " or "), Concert: strings.Join(concert, " or "),
		Place: strings.Join(places, " or "), Text: n.Choice.Text, Ways: n.Choice.Alternates,
		FirstYear: target.Low.MIDI() <= low.MIDI() && low.MIDI() <= target.High.MIDI(),
	}
	line.Neighbours = neighbourNames(n.Neighbours)
	return line
}

func neighbourNames(pitches []score.Pitch) string {
	names := make([]string, len(pitches))
	for i, p := range pitches {
		names[i] = p.String()
	}
	return strings.Join(names, ", ")
}
