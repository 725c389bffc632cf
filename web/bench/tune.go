package bench

import (
	"net/http"
	"net/url"
	"slices"
	"strconv"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// tuneView is the page for the start of class: a drone on one concert note, and what
// everybody reads and does to play it.
type tuneView struct {
	Classes []store.Class
	Class   store.Class
	Notes   []tuneNote
	Concert string
	MIDI    int // of the drone, in the middle octave
	A4      int
	Rows    []tuneRow
	Others  []tuneNote // that a room does not tune to, for a chart
	Who     string     // a family, "all", or "" for the class
}

// Families are whose chart may be asked for.
func (tuneView) Families() []string { return []string{"strings", "brass", "woodwind"} }

// tuneNote is a concert note to choose.
type tuneNote struct {
	Name, Link string
	Key        string
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
	MIDI  []int       `json:"midi"`
	Voice music.Voice `json:"voice"`
}

// tunedTo are the notes a room tunes to: bands to B flat and F, strings to A, D, G, C, E
// (common practice).
var tunedTo = []instrument.PitchClass{
	{Step: score.B, Alter: -1}, {Step: score.A}, {Step: score.F}, {Step: score.D}, {Step: score.G},
	{Step: score.C}, {Step: score.E}, {Step: score.E, Alter: -1},
}

// otherNotes are the rest of the twelve.
var otherNotes = []instrument.PitchClass{
	{Step: score.D, Alter: -1}, {Step: score.F, Alter: 1}, {Step: score.A, Alter: -1}, {Step: score.B},
}

// whose are the instruments of a chart: those of a family, all, or those present.
func whose(who string, present []instrument.Instrument) []instrument.Instrument {
	switch {
	case who == "all":
		return instrument.All()
	case slices.Contains(tuneView{}.Families(), who):
		return slices.DeleteFunc(instrument.All(), func(i instrument.Instrument) bool { return i.Family != who })
	}
	return present
}

// tuningNote takes the concert note that is asked for; without one a room with strings
// tunes to A, another to B flat.
func tuningNote(requested string, present []instrument.Instrument) instrument.PitchClass {
	for _, class := range slices.Concat(tunedTo, otherNotes) {
		if teach.KeyOf(class) == requested {
			return class
		}
	}
	if slices.ContainsFunc(present, func(i instrument.Instrument) bool { return i.Bowed() }) {
		return tunedTo[1]
	}
	return tunedTo[0]
}

func (s *handlers) tune(w http.ResponseWriter, r *http.Request) error {
	v, err := s.tuneView(r)
	if err != nil {
		return err
	}
	s.Page(w, r, http.StatusOK, "tune", "Tuning note", v)
	return nil
}

func (s *handlers) tuneView(r *http.Request) (tuneView, error) {
	var v tuneView
	ctx, desk := r.Context(), site.ClassOf(r)
	var err error
	if v.Classes, v.Class, err = desk.ChooseClass(ctx, store.ClassID(site.Number(r, "class"))); err != nil {
		return v, err
	}
	present, err := presentIn(ctx, desk, v.Class.ID)
	if err != nil {
		return v, err
	}
	saved, err := teach.LoadSettings(ctx, desk)
	if err != nil {
		return v, err
	}
	names, words := saved.Preferences.Options(v.Class).Name, saved.Preferences.FingerWords()
	say := func(p score.Pitch) string { return names.Say(p, false, score.Key{}) }
	class := tuningNote(site.Text(r, "note"), present)
	v.Concert, v.MIDI, v.A4 = say(class.Pitch()), class.Pitch().MIDI(), saved.Preferences.PitchOfA()
	for _, c := range tunedTo {
		q := url.Values{"note": {teach.KeyOf(c)}}
		if v.Class.ID != 0 {
			q.Set("class", strconv.FormatInt(int64(v.Class.ID), 10))
		}
		v.Notes = append(v.Notes, tuneNote{say(c.Pitch()), "/tune?" + q.Encode(), teach.KeyOf(c), c == class})
	}
	for _, c := range otherNotes {
		v.Others = append(v.Others, tuneNote{Name: say(c.Pitch()), Key: teach.KeyOf(c), Current: c == class})
	}
	if who := site.Text(r, "who"); who == "all" || slices.Contains(v.Families(), who) {
		v.Who = who
	}
	for _, i := range whose(v.Who, present) {
		if i.Unpitched() {
			continue
		}
		i = saved.Instrument(i)
		p := instrument.TunedOn(class, i, v.Class.Year)
		row := tuneRow{Instrument: i, Written: say(p), Place: name.Place(p, i.Clef)}
		if way, ok := finger.Taught(i, p, v.Class.Year); ok {
			row.Way = words.Say(i, way.Fingering)
		}
		row.Sound = soundOne{[]int{p.Transpose(i.Transposition).MIDI()}, s.Recordings.VoiceOf(i)}
		v.Rows = append(v.Rows, row)
	}
	return v, nil
}
