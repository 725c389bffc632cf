package web

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/card"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// classCardsView is one concert note at a time for a whole class: everybody's own card.
type classCardsView struct {
	Sections []store.Section
	Section  store.Section
	Guest    store.Guest
	Notes    []classNote
	Drawn    map[string]sheetData // what drawings need to know, by instrument
	Without  []string             // instruments that have no pitch
	Sheets   store.ExerciseID     // whose notes may be printed as cards, 0 for none
	Wanted   card.Wanted          // what students are asked at home
	Typed    string               // how many new cards, as it was typed
	Problem  string
}

// classNote is a concert note with everybody's card.
type classNote struct {
	Concert string     `json:"concert"` // "B flat"
	Cards   []roomNote `json:"cards"`
}

// roomNote is an instrument's card of a concert note.
type roomNote struct {
	Instrument string   `json:"instrument"`
	Title      string   `json:"title"`
	MEI        string   `json:"mei"`
	Name       string   `json:"name"`
	Place      string   `json:"place"`
	Way        *cardWay `json:"way,omitempty"`
	Met        bool     `json:"met"` // it stands in what the class has worked on
}

// Kinds lists what cards may ask.
func (classCardsView) Kinds() []card.Kind { return card.Kinds() }

// Asks says whether students are asked for a kind.
func (v classCardsView) Asks(k card.Kind) bool { return slices.Contains(v.Wanted.Kinds, k) }

// NewADay is what stands in the field.
func (v classCardsView) NewADay() string { return cmp.Or(v.Typed, strconv.Itoa(v.Wanted.New)) }

// kindWords say what a kind of card asks.
func kindWords(k card.Kind) string {
	return map[card.Kind]string{
		card.Place: "on which line or space", card.Name: "the name", card.Finger: "how it is played", card.Key: "the letters of a key signature",
		card.Rhythm: "a measure, to be counted", card.Interval: "how far two neighbours are apart", card.Change: "two notes, fingered one after the other",
	}[k]
}

// classLooked is how many exercises a class's notes are taken from, those it works on now; the
// figure is ours.
const classLooked = 8

func (s *Server) classCards(w http.ResponseWriter, r *http.Request) {
	s.showClassCards(w, r, http.StatusOK, "")
}

func (s *Server) showClassCards(w http.ResponseWriter, r *http.Request, status int, problem string) {
	v, err := s.classCardsView(r)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if v.Problem = problem; problem != "" {
		v.Typed, v.Wanted.Kinds = text(r, "new"), kindsTyped(r)
	}
	s.page(w, r, status, "classcards", "Cards", v)
}

func (s *Server) classCardsView(r *http.Request) (classCardsView, error) {
	ctx, desk := r.Context(), deskOf(r)
	v := classCardsView{Guest: desk.Guest(), Drawn: map[string]sheetData{}}
	var err error
	if v.Sections, v.Section, err = desk.ChooseSection(ctx, store.SectionID(number(r, "section"))); err != nil {
		return v, err
	}
	kept, err := taught(ctx, desk)
	if err != nil {
		return v, err
	}
	v.Wanted = kept.Preferences.cards()
	students, err := desk.Students(ctx, v.Section.ID)
	if err != nil {
		return v, err
	}
	worked, err := classExercises(ctx, desk, v.Section.ID)
	if err != nil || len(worked) == 0 {
		return v, err
	}
	v.Sheets = worked[0].ID
	room, err := roomDesks(ctx, desk, &v, kept, students, worked)
	if err != nil {
		return v, err
	}
	classes, bowed := map[instrument.PitchClass]bool{}, 0
	for _, d := range room {
		v.Drawn[d.Reader.Instrument.ID] = drawCards(d.cardDesk)
		if d.Reader.Instrument.Family == "strings" {
			bowed++
		}
		for class := range d.met {
			classes[class] = true
		}
	}
	naming := card.Reader{Names: kept.Preferences.options(v.Section).Name}
	for _, class := range upTheScale(classes, 2*bowed > len(room)) {
		note := classNote{Concert: naming.Say(class.Pitch())}
		for _, d := range room {
			if c, ok := d.roomNote(class); ok {
				note.Cards = append(note.Cards, c)
			}
		}
		v.Notes = append(v.Notes, note)
	}
	return v, nil
}

// roomDesk is an instrument of the room with the notes it has met, by the concert note.
type roomDesk struct {
	cardDesk
	met map[instrument.PitchClass]score.Pitch
}

// roomDesks are the instruments of a section that have pitch; those without are named in v.
func roomDesks(ctx context.Context, desk *teach.Class, v *classCardsView, kept taughtBy, students []store.Student, worked []store.Exercise) ([]roomDesk, error) {
	var room []roomDesk
	o := kept.Preferences.options(v.Section)
	for _, i := range playedBy(students) {
		if i.Unpitched() {
			v.Without = append(v.Without, i.Name)
			continue
		}
		reads := aReader{Section: v.Section, Instrument: kept.instrument(i), kept: kept, notes: map[store.ExerciseID]*breakdown.Report{}}
		met, err := classMet(ctx, desk, reads, worked)
		if err != nil {
			return nil, err
		}
		preferred, err := desk.Preferred(ctx, i.ID)
		if err != nil {
			return nil, err
		}
		reader := card.Reader{Instrument: reads.Instrument, Names: o.Name, Words: kept.Preferences.words(), Year: v.Section.Year, Preferred: preferred}
		room = append(room, roomDesk{cardDesk{kept: kept, Reader: reader}, met})
	}
	return room, nil
}

// classExercises are those that a section has worked on, in the order of its books, the last
// ones.
func classExercises(ctx context.Context, desk *teach.Class, section store.SectionID) ([]store.Exercise, error) {
	ids, err := desk.Worked(ctx, section, 0)
	if err != nil {
		return nil, err
	}
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return nil, err
	}
	worked := slices.DeleteFunc(slices.Clone(exercises), func(x store.Exercise) bool { return x.Unread != "" || !slices.Contains(ids, x.ID) })
	slices.Reverse(worked)
	return worked[:min(len(worked), classLooked)], nil
}

// classMet are the notes an instrument has in some exercises, by the concert note they sound,
// of each the one in the octave nearest to where a line sits well.
func classMet(ctx context.Context, desk *teach.Class, reads aReader, worked []store.Exercise) (map[instrument.PitchClass]score.Pitch, error) {
	met := map[instrument.PitchClass]score.Pitch{}
	far := func(p score.Pitch) int {
		away := p.MIDI() - reads.Instrument.OneNote.MIDI()
		return max(away, -away)
	}
	for _, x := range worked {
		report, err := notesOf(ctx, desk, reads, x)
		if err != nil {
			return nil, err
		}
		if report == nil {
			continue
		}
		for _, at := range report.Part.Notes() {
			e := report.Part.At(at)
			if e.Unpitched {
				continue
			}
			concert := e.Pitch.Transpose(reads.Instrument.Transposition)
			class := instrument.PitchClass{Step: concert.Step, Alter: concert.Alter}
			if before, known := met[class]; !known || far(e.Pitch) < far(before) {
				met[class] = e.Pitch
			}
		}
	}
	return met, nil
}

// upTheScale orders concert notes upwards: from D, the open string, for strings, else from B
// flat, on which bands begin. Source: common practice.
func upTheScale(classes map[instrument.PitchClass]bool, forStrings bool) []instrument.PitchClass {
	from := instrument.PitchClass{Step: score.B, Alter: -1}
	if forStrings {
		from = instrument.PitchClass{Step: score.D}
	}
	var list []instrument.PitchClass
	for class := range classes {
		list = append(list, class)
	}
	above := func(c instrument.PitchClass) int { return (c.Pitch().MIDI() - from.Pitch().MIDI() + 24) % 12 }
	slices.SortFunc(list, func(a, b instrument.PitchClass) int {
		return cmp.Or(above(a)-above(b), int(a.Step)-int(b.Step))
	})
	return list
}

// roomNote is an instrument's card of a concert note; ok is false where it does not have it.
func (d roomDesk) roomNote(class instrument.PitchClass) (roomNote, bool) {
	i := d.Reader.Instrument
	p, known := d.met[class]
	if !known {
		p = instrument.WrittenFor(class, i)
	}
	c := card.Card{Kind: card.Name, Clef: i.Clef, Pitches: []score.Pitch{p}}
	if !i.Comfort(d.Reader.Year).Holds(p) && !known {
		return roomNote{}, false
	}
	answer := d.Reader.Answer(c, nil)
	note := roomNote{Instrument: i.ID, Title: i.Title(), MEI: cardMEI(c), Name: answer.Text, Place: answer.More, Met: known}
	if len(answer.Ways) > 0 {
		way := newCardWay(d.cardDesk, answer.Ways[0])
		note.Way = &way
	}
	return note, true
}

// kindsTyped are the kinds that are chosen in a form.
func kindsTyped(r *http.Request) []card.Kind {
	var list []card.Kind
	for _, typed := range r.Form["kind"] {
		if kind, known := card.ParseKind(typed); known && !slices.Contains(list, kind) {
			list = append(list, kind)
		}
	}
	return list
}

// keepCards keeps what students are asked at home.
func (s *Server) keepCards(w http.ResponseWriter, r *http.Request) {
	kinds := kindsTyped(r)
	n, err := strconv.Atoi(text(r, "new"))
	problem := ""
	switch {
	case len(kinds) == 0:
		problem = "Choose at least one thing that cards ask."
	case err != nil || n < 0 || n > card.MostNew:
		problem = fmt.Sprintf("New cards a day: a number from 0 to %d.", card.MostNew)
	}
	if problem != "" {
		s.showClassCards(w, r, http.StatusUnprocessableEntity, problem)
		return
	}
	words := make([]string, len(kinds))
	for k, kind := range kinds {
		words[k] = string(kind)
	}
	if err := deskOf(r).KeepSettings(r.Context(), store.Settings{askedSetting: strings.Join(words, " "), newCardsSetting: strconv.Itoa(n)}); err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, "Cards ask that from now on.")
	http.Redirect(w, r, fmt.Sprintf("/cards?section=%d", number(r, "section")), http.StatusSeeOther)
}
