package bench

import (
	"fmt"
	"io"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// chartView is an instrument's fingering chart.
type chartView struct {
	Instrument  instrument.Instrument
	Instruments []instrument.Instrument
	Notes       []chartLine
	Sheet       music.SheetData // the whole range on the staff
	Kind        string          // of the teacher's, "" for the usual
	OneNote     string          // what a drill on one note sits well on
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
	Said       string // "A, space 2"
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
	Alike []notedWay // the same way in every octave that has it, where that is more than one
}

// notedWay is a way to play a note, by the note's MIDI number.
type notedWay struct {
	Note int
	Text string
}

// InOctaves says how many octaves a way is taught in when it is in all of them.
func (w chartWay) InOctaves() string { return teach.InOctaves(len(w.Alike)) }

// charted finds the instrument of a chart as the teacher's students have it, with how it
// is taught. The error is store.ErrNotFound where there is none.
func charted(r *http.Request) (instrument.Instrument, teach.Settings, error) {
	target, ok := instrument.ByID(chi.URLParam(r, "instrument"))
	if !ok {
		return target, teach.Settings{}, fmt.Errorf("find the instrument: %w", store.ErrNotFound)
	}
	saved, err := teach.LoadSettings(r.Context(), site.ClassOf(r))
	return saved.Instrument(target), saved, err
}

func (s *handlers) chart(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	target, saved, err := charted(r)
	if err != nil {
		return err
	}
	desired, err := desk.Preferred(ctx, target.ID)
	if err != nil {
		return err
	}
	v := chartView{Instrument: target, Instruments: instrument.All(), Kind: saved.Models[target.ID]}
	notes := finger.Chart(target)
	for _, n := range notes {
		v.Notes = append(v.Notes, newChartLine(n, notes, target, saved.Preferences, desired))
	}
	if len(notes) > 0 {
		v.Sheet = chartSheet(notes, target, saved.Preferences, desired)
		v.OneNote = name.Spoken(target.OneNote, false)
		for _, year := range target.Years {
			v.Years = append(v.Years, teach.WithOctave(year.Low)+" to "+teach.WithOctave(year.High))
		}
	}
	s.Page(w, r, http.StatusOK, "chart", target.Title()+" fingerings", v)
	return nil
}

// chartSheet writes every note of an instrument on its staff, a few to a measure so
// that lines can break anywhere, sharps before flats, each with its fingering.
func chartSheet(notes []finger.ChartNote, target instrument.Instrument, p teach.Preferences,
	desired finger.Preferred) music.SheetData {
	const perMeasure = 3
	part := score.Part{Transposition: target.Transposition}
	words := p.FingerWords()
	data := music.DrawnFor(target, p.StringColours(target))
	data.Named, data.Fingered, data.Hands = true, true, words.Hands
	for k, n := range notes {
		if k%perMeasure == 0 {
			part.Measures = append(
				part.Measures,
				score.Measure{Number: len(part.Measures) + 1, Meter: score.Meter{Beats: 4, Unit: 4}, Clef: target.Clef},
			)
			data.Measures = append(
				data.Measures,
				music.SheetMeasure{
					ID:     chartSheetIDs.Measure(len(data.Measures)),
					Number: len(data.Measures) + 1,
					Pulses: []music.SheetPulse{},
					Events: []music.SheetEvent{},
				},
			)
		}
		at := len(part.Measures) - 1
		m := &part.Measures[at]
		for _, p := range n.Spellings {
			choice, _ := finger.For(target, p)
			way := choice.Prefer(desired[p.MIDI()]).Fingering
			said := words.Say(target, way)
			data.Measures[at].Events = append(data.Measures[at].Events, music.SheetEvent{
				ID: chartSheetIDs.Event(score.Place{Measure: at, Event: len(m.Events)}), Name: name.Short(p, false),
				Spoken:    name.Spoken(p, false),
				Fingering: way.Text, Drawn: finger.Draw(target, p, way), Said: said, MIDI: p.MIDI(),
				Why: []string{name.Spoken(p, false) + ": " + said},
			})
			m.Events = append(m.Events, score.Event{Length: score.Frac(1, 4), Value: score.Value{Base: 4}, Pitch: p,
				Sign: p.Alter != 0})
		}
	}
	data.MEI = mei.Write(part, mei.Options{IDs: chartSheetIDs})
	return data
}

// prefer keeps the fingering a teacher wants for a note, or for that note in several
// octaves; "" is the usual way. One that a note does not have changes nothing. The next
// page says what is taught now, and takes it back.
func (s *handlers) prefer(w http.ResponseWriter, r *http.Request) error {
	target, saved, err := charted(r)
	if err != nil {
		return err
	}
	ctx, desk := r.Context(), site.ClassOf(r)
	before, err := desk.Preferred(ctx, target.ID)
	if err != nil {
		return err
	}
	requested := notedWays(r)
	var changed []finger.ChartNote
	undo := url.Values{"back": {"yes"}}
	for _, n := range finger.Chart(target) {
		note := n.Spellings[0].MIDI()
		k := slices.IndexFunc(requested, func(way notedWay) bool { return way.Note == note })
		if k < 0 || requested[k].Text != "" && !n.Choice.Has(requested[k].Text) {
			continue
		}
		if err := desk.Prefer(ctx, target.ID, note, requested[k].Text); err != nil {
			return err
		}
		changed = append(changed, n)
		undo.Add("note", strconv.Itoa(note))
		undo.Add("fingering", before[note])
	}
	place := "/fingerings/" + target.ID
	if len(changed) > 0 {
		place = fmt.Sprintf("%s#n%d", place, requested[0].Note)
		s.Flash(r, taughtNow(target, saved.Preferences.FingerWords(), changed, requested[0].Text))
		if site.Text(r, "back") == "" {
			s.Sessions.Put(ctx, "undo", "/fingerings/"+target.ID+"?"+undo.Encode())
		}
	}
	http.Redirect(w, r, place, http.StatusSeeOther)
	return nil
}

// notedWays reads the pairs of note and fingering of a form.
func notedWays(r *http.Request) []notedWay {
	var requested []notedWay
	for k, note := range r.Form["note"] {
		n, err := strconv.Atoi(note)
		if err != nil || k >= len(r.Form["fingering"]) {
			break
		}
		requested = append(requested, notedWay{n, r.Form["fingering"][k]})
	}
	return requested
}

// taughtNow says what is taught first on a note, or on a note in several octaves.
func taughtNow(target instrument.Instrument, words finger.Words, notes []finger.ChartNote, desired string) string {
	where := target.Title() + ", " + writtenNames(notes[0].Spellings)
	if len(notes) > 1 {
		where += " " + teach.InOctaves(len(notes))
	}
	choice := notes[0].Choice
	if desired == "" {
		return where + ": the usual fingering is taught first again, " + words.Say(target, choice.UsualWay()) + "."
	}
	return where + ": taught first from now on is " + words.Say(target, choice.Prefer(desired).Fingering) + "."
}

// near answers, for keys that sound no note of the chart, which notes they nearly
// sound and what is wanting, as a sentence.
func (s *handlers) near(w http.ResponseWriter, r *http.Request) error {
	target, saved, err := charted(r)
	if err != nil {
		return err
	}
	var pressed uint64
	for key := range strings.SplitSeq(r.FormValue("keys"), " ") {
		if at, err := strconv.Atoi(key); err == nil && at >= 0 && at < 64 {
			pressed |= 1 << at
		}
	}
	w.Header().Set("Content-Type", "text/plain; charset=utf-8")
	// the reader has gone when this fails
	_, _ = io.WriteString(w, nearInWords(target, saved.Preferences.FingerWords().Nearest(target, pressed)))
	return nil
}

// nearInWords is "Closest: A, space 2: add the E flat key.", or "" where nothing is near.
func nearInWords(target instrument.Instrument, near []finger.Near) string {
	var told []string
	for _, n := range near {
		var what []string
		if len(n.Press) > 0 {
			what = append(what, "add "+strings.Join(n.Press, " and "))
		}
		if len(n.Lift) > 0 {
			what = append(what, "lift "+strings.Join(n.Lift, " and "))
		}
		told = append(told, withPlaces(n.Note.Spellings, target.Clef)+": "+strings.Join(what, ", "))
	}
	if len(told) == 0 {
		return ""
	}
	return "Closest: " + strings.Join(told, "; ") + "."
}

// withPlaces names the spellings of a note with where each stands: "C♯, space 3, or D♭,
// line 4".
func withPlaces(spellings []score.Pitch, clef score.Clef) string {
	placed := make([]string, len(spellings))
	for k, p := range spellings {
		placed[k] = name.Short(p, false) + ", " + name.Place(p, clef)
	}
	return strings.Join(placed, ", or ")
}

// writtenNames is "C♯ or D♭".
func writtenNames(spellings []score.Pitch) string {
	names := make([]string, len(spellings))
	for k, p := range spellings {
		names[k] = name.Short(p, false)
	}
	return strings.Join(names, " or ")
}

// saveKind keeps what the teacher says of an instrument; a kind it does not come in
// changes nothing.
func (s *handlers) saveKind(w http.ResponseWriter, r *http.Request) error {
	target, ok := instrument.ByID(chi.URLParam(r, "instrument"))
	if !ok {
		s.NotFound(w, r)
		return nil
	}
	if desired := site.Text(r, "kind"); target.Models.Comes(desired) {
		if err := site.ClassOf(r).SaveModel(r.Context(), target.ID, desired); err != nil {
			return err
		}
		s.Flash(r, kindNow(target, desired))
	}
	http.Redirect(w, r, "/fingerings/"+target.ID, http.StatusSeeOther)
	return nil
}

// kindNow says what an instrument is from now on, and for whom.
func kindNow(target instrument.Instrument, desired string) string {
	for _, kind := range target.Models.List {
		if kind.ID == desired {
			return fmt.Sprintf("%s, for all your students: %s.", target.Title(), kind.Words)
		}
	}
	return target.Title() + ", for all your students: as usual."
}

func newChartLine(n finger.ChartNote, chart []finger.ChartNote, target instrument.Instrument,
	p teach.Preferences, preferred finger.Preferred) chartLine {
	var spoken, places []string
	for _, p := range n.Spellings {
		spoken = append(spoken, name.Spoken(p, false))
		places = append(places, name.Place(p, target.Clef))
	}
	low := n.Spellings[0]
	desired := preferred[low.MIDI()]
	choice := n.Choice.Prefer(desired)
	line := chartLine{
		MIDI: low.MIDI(), Chosen: choice.Has(desired),
		Written: writtenNames(n.Spellings), Spoken: strings.Join(spoken, " or "), Concert: writtenNames(n.Sounding),
		Place: strings.Join(places, " or "), Said: withPlaces(n.Spellings, target.Clef),
		FirstYear: target.Comfort(1).Holds(low), Neighbours: music.NeighbourNames(n.Neighbours),
	}
	words := p.FingerWords()
	for k, way := range choice.Ways() {
		line.Ways = append(
			line.Ways,
			chartWay{
				Fingering: way,
				Shown:     words.Show(target, way.Text),
				Said:      words.Say(target, way),
				Drawn:     finger.Draw(target, low, way),
				First:     k == 0,
				Alike:     alike(target, chart, low.MIDI(), way.Text),
			},
		)
	}
	return line
}

// alike lists a way in the octaves that have it, and nothing where that is one.
func alike(target instrument.Instrument, chart []finger.ChartNote, midi int, text string) []notedWay {
	notes := finger.Alike(target, chart, midi, text)
	if len(notes) < 2 {
		return nil
	}
	ways := make([]notedWay, len(notes))
	for k, n := range notes {
		ways[k] = notedWay{n.Note.Spellings[0].MIDI(), n.Way.Text}
	}
	return ways
}
