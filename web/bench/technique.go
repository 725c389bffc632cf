package bench

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/core/technique"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// techniqueBook is the book that what is made goes to.
const techniqueBook = "Technique"

// techniqueView is something to be practised, made for a key or an instrument, as everybody in a
// class reads it.
type techniqueView struct {
	Classes     []store.Class
	Class       store.Class
	Kind        technique.Kind
	Key         score.Key
	Instrument  instrument.Instrument // whose own it is
	Exercise    store.ExerciseID      // whose rhythms it takes
	Exercises   []store.Exercise
	Instruments []instrument.Instrument // that have the kind
	Sheets      []techniqueSheet
	Problem     string
	Music       score.Score
}

// techniqueSheet is how an instrument reads it.
type techniqueSheet struct {
	Instrument string // its title
	Data       music.SheetData
}

// Kinds are what may be made.
func (techniqueView) Kinds() []technique.Kind { return technique.Kinds() }

// Keys are the concert keys to choose from.
func (techniqueView) Keys() []score.Key { return technique.Keys() }

// technique shows what is asked for, as everybody reads it.
func (s *handlers) technique(w http.ResponseWriter, r *http.Request) error {
	v, err := s.techniqueView(r)
	if err != nil {
		return err
	}
	s.Page(w, r, http.StatusOK, "technique", "Technique", v)
	return nil
}

func (s *handlers) techniqueView(r *http.Request) (techniqueView, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	v := techniqueView{Exercise: store.ExerciseID(site.Number(r, "exercise")), Key: technique.Keys()[0]}
	var err error
	if v.Classes, v.Class, err = desk.ChooseClass(ctx, store.ClassID(site.Number(r, "class"))); err != nil {
		return v, err
	}
	if v.Exercises, err = desk.Exercises(ctx); err != nil {
		return v, err
	}
	var ok bool
	if v.Kind, ok = technique.ParseKind(site.Text(r, "kind")); !ok {
		v.Kind = technique.FiveNotes
	}
	for _, key := range technique.Keys() {
		if strconv.Itoa(key.Fifths) == site.Text(r, "key") {
			v.Key = key
		}
	}
	present, err := presentIn(ctx, desk, v.Class.ID)
	if err != nil {
		return v, err
	}
	for _, i := range instrument.All() {
		if v.Kind.Own() && v.Kind.Suits(i) {
			v.Instruments = append(v.Instruments, i)
		}
	}
	v.chooseInstrument(site.Text(r, "instrument"), present)
	if v.Music, err = v.made(ctx, desk); err != nil {
		v.Problem = teach.Capital(err.Error()) + "."
		return v, nil
	}
	return v, v.lay(ctx, desk, present)
}

// presentIn are the instruments of a class, all where nobody is in it.
func presentIn(ctx context.Context, desk *teach.Class, class store.ClassID) ([]instrument.Instrument, error) {
	students, err := desk.Students(ctx, class)
	if err != nil {
		return nil, err
	}
	if present := teach.InstrumentsOf(students); len(present) > 0 {
		return present, nil
	}
	return instrument.All(), nil
}

// chooseInstrument takes the one asked for, else the first of the class that has the kind.
func (v *techniqueView) chooseInstrument(id string, present []instrument.Instrument) {
	if len(v.Instruments) == 0 {
		return
	}
	has := func(i instrument.Instrument) bool { return v.Kind.Suits(i) }
	v.Instrument = v.Instruments[0]
	if k := slices.IndexFunc(present, has); k >= 0 {
		v.Instrument = present[k]
	}
	if i, known := instrument.ByID(id); known && has(i) {
		v.Instrument = i
	}
}

// made writes the music.
func (v *techniqueView) made(ctx context.Context, desk *teach.Class) (score.Score, error) {
	if v.Kind.Own() {
		return technique.MakeFor(v.Kind, v.Instrument)
	}
	var rhythms score.Part
	if v.Kind == technique.RhythmLine && v.Exercise != 0 {
		x, err := desk.Exercise(ctx, v.Exercise)
		if err != nil {
			return score.Score{}, errors.New("that line is not there any more; choose another")
		}
		from, err := desk.Reader.Part(ctx, desk, x, "")
		if err != nil {
			return score.Score{}, errors.New("that line cannot be read; choose another")
		}
		rhythms = from.Source
	}
	return technique.Make(v.Kind, v.Key, rhythms)
}

// lay writes the music as everybody reads it.
func (v *techniqueView) lay(ctx context.Context, desk *teach.Class, present []instrument.Instrument) error {
	saved, err := teach.LoadSettings(ctx, desk)
	if err != nil {
		return err
	}
	o, words, writtenFor := saved.Preferences.Options(v.Class), saved.Preferences.FingerWords(), ""
	o.ForPage = true
	if v.Kind.Own() {
		present, writtenFor = []instrument.Instrument{v.Instrument}, v.Instrument.ID
	}
	for n, i := range present {
		r := breakdown.Read(v.Music, v.Music.Parts[0], writtenFor, i, nil, o)
		data := music.NewSheet(r, i, words, saved.Preferences.StringColours(i), mei.Options{Ruler: true, IDs: mei.IDs(fmt.Sprintf("t%d-", n))})
		v.Sheets = append(v.Sheets, techniqueSheet{i.Title(), data})
	}
	return nil
}

// keepTechnique makes an exercise of it.
func (s *handlers) keepTechnique(w http.ResponseWriter, r *http.Request) error {
	v, err := s.techniqueView(r)
	if err != nil {
		return err
	}
	if v.Problem != "" {
		s.Page(w, r, http.StatusUnprocessableEntity, "technique", "Technique", v)
		return nil
	}
	ctx, desk := r.Context(), site.ClassOf(r)
	number := 1
	for _, x := range v.Exercises {
		if x.Book == techniqueBook {
			number = max(number, x.Number+1)
		}
	}
	x := store.Exercise{Book: techniqueBook, Number: number, Title: v.Music.Title}
	if v.Kind.Own() {
		x.WrittenFor = v.Instrument.ID
	}
	id, err := desk.AddExercise(ctx, x, store.Source{Format: format.ABC, Content: abc.Write(v.Music)})
	if errors.Is(err, store.ErrTaken) {
		err = fmt.Errorf("number %d was taken meanwhile: %w", number, err)
	}
	if err != nil {
		return err
	}
	q := url.Values{}
	if v.Class.ID != 0 {
		q.Set("class", fmt.Sprint(v.Class.ID))
	}
	if v.Kind.Own() {
		q.Set("instrument", v.Instrument.ID)
	}
	s.Flash(r, fmt.Sprintf("%s is exercise %d of %s now. A lesson's warm-up may have it: see its plan, lesson shape.", v.Music.Title, number, techniqueBook))
	http.Redirect(w, r, fmt.Sprintf("/bench/%d?%s", id, q.Encode()), http.StatusSeeOther)
	return nil
}
