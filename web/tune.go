package web

import (
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// tuneView is the page for the start of class: a drone on one concert note, and what
// everybody reads and does to play it.
type tuneView struct {
	Sections []store.Section
	Section  store.Section
	Notes    []tuneNote
	Concert  string
	MIDI     int // of the drone, in the middle octave
	A4       int
	Rows     []tuneRow
}

// tuneNote is a concert note to choose.
type tuneNote struct {
	Name, Link string
	Current    bool
}

// tuneRow is one instrument of the room. Silent is one without pitch.
type tuneRow struct {
	instrument.Instrument
	Written, Place, Way string
	Sound               soundOne
}

// soundOne is a note with the voice it is heard with, for the page's script.
type soundOne struct {
	MIDI  []int `json:"midi"`
	Voice voice `json:"voice"`
}

// tunedTo are the notes a room tunes to: bands to B flat and F, strings to A, D, G, C, E
// (common practice).
var tunedTo = []instrument.PitchClass{
	{Step: score.B, Alter: -1}, {Step: score.A}, {Step: score.F}, {Step: score.D}, {Step: score.G}, {Step: score.C}, {Step: score.E}, {Step: score.E, Alter: -1},
}

// tuningNote takes the concert note that is asked for; without one a room with strings
// tunes to A, another to B flat.
func tuningNote(asked string, present []instrument.Instrument) instrument.PitchClass {
	for _, class := range tunedTo {
		if keyOf(class) == asked {
			return class
		}
	}
	if slices.ContainsFunc(present, func(i instrument.Instrument) bool { return i.Mechanism == instrument.Strings }) {
		return tunedTo[1]
	}
	return tunedTo[0]
}

// keyOf is a note in an address: "Bb".
func keyOf(class instrument.PitchClass) string {
	return strings.TrimSuffix(class.Pitch().String(), "4")
}

func (s *Server) tune(w http.ResponseWriter, r *http.Request) {
	v, err := s.tuneView(r)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.page(w, r, http.StatusOK, "tune", "Tune the room", v)
}

func (s *Server) tuneView(r *http.Request) (tuneView, error) {
	var v tuneView
	ctx, desk := r.Context(), deskOf(r)
	var err error
	if v.Sections, v.Section, err = desk.ChooseSection(ctx, store.SectionID(number(r, "section"))); err != nil {
		return v, err
	}
	students, err := desk.Students(ctx, v.Section.ID)
	if err != nil {
		return v, err
	}
	kept, err := taught(ctx, desk)
	if err != nil {
		return v, err
	}
	present := instrumentsOf(students)
	if len(present) == 0 {
		present = instrument.All()
	}
	names, words := kept.Preferences.options(v.Section).Name, kept.Preferences.words()
	say := func(p score.Pitch) string { return names.Say(p, false, score.Key{}) }
	class := tuningNote(text(r, "note"), present)
	v.Concert, v.MIDI, v.A4 = say(class.Pitch()), class.Pitch().MIDI(), kept.Preferences.pitchOfA()
	for _, c := range tunedTo {
		q := url.Values{"note": {keyOf(c)}}
		if v.Section.ID != 0 {
			q.Set("section", strconv.FormatInt(int64(v.Section.ID), 10))
		}
		v.Notes = append(v.Notes, tuneNote{say(c.Pitch()), "/tune?" + q.Encode(), c == class})
	}
	for _, i := range present {
		if i.Unpitched() {
			continue
		}
		i = kept.instrument(i)
		p := instrument.TunedOn(class, i, v.Section.Year)
		row := tuneRow{Instrument: i, Written: say(p), Place: name.Place(p, i.Clef)}
		if way, ok := finger.Taught(i, p, v.Section.Year); ok {
			row.Way = words.Say(i, way.Fingering)
		}
		row.Sound = soundOne{[]int{p.Transpose(i.Transposition).MIDI()}, s.recordings.voiceOf(i)}
		v.Rows = append(v.Rows, row)
	}
	return v, nil
}

// instrumentsOf lists the instruments that students play, each once, in score order.
func instrumentsOf(students []store.Student) []instrument.Instrument {
	var list []instrument.Instrument
	for _, i := range instrument.All() {
		if slices.ContainsFunc(students, func(s store.Student) bool { return s.Instrument == i.ID }) {
			list = append(list, i)
		}
	}
	return list
}
