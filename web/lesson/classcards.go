package lesson

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
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// classCardsView is one concert note at a time for a whole class: everybody's own card.
type classCardsView struct {
	Classes []store.Class
	Class   store.Class
	Guest   store.Guest
	Notes   []classNote
	Drawn   map[string]music.SheetData // what drawings need to know, by instrument
	Without []string                   // instruments that have no pitch
	Sheets  store.ExerciseID           // whose notes may be printed as cards, 0 for none
	Wanted  card.Wanted                // what students are asked at home
	Typed   string                     // how many new cards, as it was typed
	Problem string
}

// classNote is a concert note with everybody's card.
type classNote struct {
	Concert string     `json:"concert"` // "B flat"
	Cards   []roomNote `json:"cards"`
}

// roomNote is an instrument's card of a concert note.
type roomNote struct {
	Instrument string         `json:"instrument"`
	Title      string         `json:"title"`
	MEI        string         `json:"mei"`
	Name       string         `json:"name"`
	Place      string         `json:"place"`
	Way        *music.CardWay `json:"way,omitempty"`
	Met        bool           `json:"met"` // it stands in what the class has worked on
}

// Kinds lists what cards may ask.
func (classCardsView) Kinds() []card.Kind { return card.Kinds() }

// Asks says whether students are asked for a kind.
func (v classCardsView) Asks(k card.Kind) bool { return slices.Contains(v.Wanted.Kinds, k) }

// NewADay is what stands in the field.
func (v classCardsView) NewADay() string { return cmp.Or(v.Typed, strconv.Itoa(v.Wanted.New)) }

func (s *handlers) classCards(w http.ResponseWriter, r *http.Request) error {
	return s.showClassCards(w, r, http.StatusOK, "")
}

func (s *handlers) showClassCards(w http.ResponseWriter, r *http.Request, status int, problem string) error {
	v, err := s.classCardsView(r)
	if err != nil {
		return err
	}
	if v.Problem = problem; problem != "" {
		v.Typed, v.Wanted.Kinds = site.Text(r, "new"), kindsTyped(r)
	}
	s.Page(w, r, status, "classcards", "Cards", v)
	return nil
}

func (s *handlers) classCardsView(r *http.Request) (classCardsView, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	v := classCardsView{Guest: desk.Guest(), Drawn: map[string]music.SheetData{}}
	var err error
	if v.Classes, v.Class, err = desk.ChooseClass(ctx, store.ClassID(site.Number(r, "class"))); err != nil {
		return v, err
	}
	saved, err := teach.LoadSettings(ctx, desk)
	if err != nil {
		return v, err
	}
	v.Wanted = saved.Preferences.Cards()
	students, err := desk.Students(ctx, v.Class.ID)
	if err != nil {
		return v, err
	}
	worked, err := teach.ClassExercises(ctx, desk, v.Class.ID)
	if err != nil || len(worked) == 0 {
		return v, err
	}
	v.Sheets = worked[0].ID
	room, err := roomDesks(ctx, desk, &v, saved, students, worked)
	if err != nil {
		return v, err
	}
	classes, bowed := map[instrument.PitchClass]bool{}, 0
	for _, d := range room {
		v.Drawn[d.Reader.Instrument.ID] = music.DrawCards(d.Deck)
		if d.Reader.Instrument.Bowed() {
			bowed++
		}
		for class := range d.met {
			classes[class] = true
		}
	}
	naming := card.Reader{Names: saved.Preferences.Options(v.Class).Name}
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
	teach.Deck
	met map[instrument.PitchClass]score.Pitch
}

// roomDesks are the instruments of a class that have pitch; those without are named in v.
func roomDesks(ctx context.Context, desk *teach.Class, v *classCardsView, saved teach.Settings,
	students []store.Student, worked []store.Exercise) ([]roomDesk, error) {
	var room []roomDesk
	o := saved.Preferences.Options(v.Class)
	for _, i := range teach.PlayedBy(students) {
		if i.Unpitched() {
			v.Without = append(v.Without, i.Name)
			continue
		}
		reads := teach.PartReader{Class: v.Class, Instrument: saved.Instrument(i), Settings: saved,
			Notes: map[store.ExerciseID]*breakdown.Report{}}
		met, err := teach.ClassMet(ctx, desk, reads, worked)
		if err != nil {
			return nil, err
		}
		preferred, err := desk.Preferred(ctx, i.ID)
		if err != nil {
			return nil, err
		}
		reader := card.Reader{Instrument: reads.Instrument, Names: o.Name, Words: saved.Preferences.FingerWords(),
			Year: v.Class.Year, Preferred: preferred}
		room = append(room, roomDesk{teach.Deck{Settings: saved, Reader: reader}, met})
	}
	return room, nil
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
	note := roomNote{Instrument: i.ID, Title: i.Title(), MEI: music.CardMEI(c), Name: answer.Text,
		Place: answer.More, Met: known}
	if len(answer.Ways) > 0 {
		way := music.NewCardWay(d.Deck, answer.Ways[0])
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

// saveCards keeps what students are asked at home.
func (s *handlers) saveCards(w http.ResponseWriter, r *http.Request) error {
	kinds := kindsTyped(r)
	n, err := strconv.Atoi(site.Text(r, "new"))
	problem := ""
	switch {
	case len(kinds) == 0:
		problem = "Choose at least one thing that cards ask."
	case err != nil || n < 0 || n > card.MostNew:
		problem = fmt.Sprintf("New cards a day: a number from 0 to %d.", card.MostNew)
	}
	if problem != "" {
		return s.showClassCards(w, r, http.StatusUnprocessableEntity, problem)
	}
	words := make([]string, len(kinds))
	for k, kind := range kinds {
		words[k] = string(kind)
	}
	if err := site.ClassOf(r).SaveSettings(r.Context(), store.Settings{teach.AskedSetting: strings.Join(words,
		" "), teach.NewCardsSetting: strconv.Itoa(n)}); err != nil {
		return err
	}
	s.Flash(r, "Saved. Cards ask that now.")
	http.Redirect(w, r, fmt.Sprintf("/cards?class=%d", site.Number(r, "class")), http.StatusSeeOther)
	return nil
}
