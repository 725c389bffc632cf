package web

import (
	"fmt"
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
	MIDI       int
	Text       string
	Chosen     bool // by the teacher, in place of the usual way
	Ways       []finger.Fingering
	Neighbours string
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
	v := chartView{Instrument: target, Instruments: instrument.All()}
	for _, n := range finger.Chart(target) {
		v.Notes = append(v.Notes, newChartLine(n, target, kept.Preferred[target.ID]))
	}
	s.page(w, r, http.StatusOK, "chart", target.Title()+" fingerings", v)
}

// prefer keeps the fingering a teacher wants for a note; "" is the usual way.
func (s *Server) prefer(w http.ResponseWriter, r *http.Request) {
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
	note := int(number(r, "note"))
	if kept.Preferred == nil {
		kept.Preferred = map[string]map[int]string{}
	}
	if kept.Preferred[target.ID] == nil {
		kept.Preferred[target.ID] = map[int]string{}
	}
	delete(kept.Preferred[target.ID], note)
	for _, n := range finger.Chart(target) {
		wanted := text(r, "fingering")
		if n.Spellings[0].MIDI() == note && n.Choice.Prefer(wanted).Text == wanted && wanted != n.Choice.Text {
			kept.Preferred[target.ID][note] = wanted
		}
	}
	if err := s.store.KeepSettings(ctx, t, kept); err != nil {
		s.failed(w, r, err)
		return
	}
	http.Redirect(w, r, fmt.Sprintf("/fingerings/%s#n%d", target.ID, note), http.StatusSeeOther)
}

func newChartLine(n finger.ChartNote, target instrument.Instrument, preferred finger.Preferred) chartLine {
	var written, spoken, concert, places []string
	for _, p := range n.Spellings {
		written = append(written, name.Short(p, false))
		spoken = append(spoken, name.Spoken(p, false))
		concert = append(concert, name.Short(p.Transpose(target.Sounds), false))
		places = append(places, name.Place(p, target.Clef))
	}
	low := n.Spellings[0]
	usual := n.Choice.Text
	n.Choice = n.Choice.Prefer(preferred[low.MIDI()])
	line := chartLine{
		MIDI: low.MIDI(), Chosen: n.Choice.Text != usual,
		Written: strings.Join(written, " or "), Spoken: strings.Join(spoken, " or "), Concert: strings.Join(concert, " or "),
		Place: strings.Join(places, " or "), Text: n.Choice.Text, Ways: n.Choice.Alternates,
		FirstYear: target.FirstYear().Holds(low),
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
