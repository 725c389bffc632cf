package shelf

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/format/counted"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
	"unhurriedbench/reading"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// typed is what is typed to count an exercise and to name it.
type typed struct {
	Meter, Key, Tempo, Start string
	Count, Name, Marks       string
}

func typedIn(r *http.Request) typed {
	return typed{
		Meter: site.Text(r, "counted_meter"), Key: site.Text(r, "counted_key"), Tempo: site.Text(r, "counted_tempo"),
		Start: site.Text(r, "counted_start"),
		Count: line(r.FormValue("count")), Name: line(r.FormValue("names")), Marks: line(r.FormValue("marks")),
	}
}

// line is a typed text with its line ends as they were typed.
func line(text string) string { return strings.ReplaceAll(text, "\r\n", "\n") }

// lines is what is typed, as it is read.
func (e entry) lines() counted.Entry {
	t := e.Typed
	c := counted.Entry{Title: e.Title, Meter: t.Meter, Key: t.Key, Tempo: t.Tempo, Start: t.Start, Count: t.Count,
		Name: t.Name, Marks: t.Marks, Names: e.Names()}
	if e.WrittenFor != reading.Concert {
		c.For = e.WrittenFor
	}
	return c
}

// readTyped reads the two lines as they are kept, or says all that is wrong with them.
func (e entry) readTyped(ctx context.Context) (brought, error) {
	if strings.TrimSpace(e.Typed.Count) == "" {
		return brought{}, score.Problems{score.General("There is no exercise yet.", "Count it: 1 2 3 4 | 1 (2) 3 [4].")}
	}
	d := e.lines().Draft(ctx)
	if wrong := d.Problems(); len(wrong) > 0 {
		return brought{}, wrong
	}
	return brought{source: store.Source{Format: format.ABC, Content: abc.Write(d.Score)}, score: d.Score}, nil
}

// typedOf is what would be typed for a score; whole says that nothing of it is left out. The
// error says what cannot be typed so.
func typedOf(ctx context.Context, sc score.Score, names name.System) (t typed, whole bool, err error) {
	e, err := counted.EntryOf(sc, names)
	if err != nil {
		return typed{}, false, err
	}
	t = typed{Meter: e.Meter, Key: e.Key, Tempo: e.Tempo, Start: e.Start, Count: e.Count, Name: e.Name, Marks: e.Marks}
	again := e.Draft(ctx)
	return t, len(sc.Parts) == 1 && sc.TempoWords == "" && len(again.Score.Parts) == 1 &&
		abc.Write(again.Score) == abc.Write(sc), nil
}

// startLike begins an exercise as the last of its book does: in its meter, key and tempo, and
// written for whom it is.
func (s *handlers) startLike(ctx context.Context, desk *teach.Class, e *entry, book store.BookID) error {
	list, err := desk.Exercises(ctx)
	if err != nil {
		return err
	}
	var last store.Exercise
	for _, x := range list {
		if x.BookID == book && x.Number > last.Number {
			last = x
		}
	}
	if last.ID == 0 {
		return nil
	}
	part, err := s.Reader.Part(ctx, desk, last, "")
	if err != nil {
		return nil // it is not read any more, and there is nothing to begin like
	}
	e.WrittenFor = last.WrittenFor
	e.Typed = typed{
		Meter: counted.MeterText(part.Source.Meter()), Tempo: counted.TempoText(part.Score.Tempo),
		Key: counted.KeyText(part.Source.Key()),
	}
	if part.Source.Unpitched() {
		e.Typed.Key = "C"
	}
	return nil
}

// Keys lists the keys that are offered, by their signs.
func (e entry) Keys() []teach.Option {
	var list []teach.Option
	for _, mode := range []string{"major", "minor"} {
		for _, fifths := range []int{0, -1, -2, -3, -4, -5, -6, 1, 2, 3, 4, 5, 6} {
			k := score.Key{Fifths: fifths, Mode: mode}
			list = append(list, teach.Option{Value: counted.KeyText(k), Label: k.Name() + ": " + signsOf(k)})
		}
	}
	if key := e.Typed.Key; key != "" && !slices.ContainsFunc(list, func(o teach.Option) bool { return o.Value == key }) {
		list = append(list, teach.Option{Value: key, Label: key})
	}
	return list
}

// signsOf lists the letters a key changes: "B flat, E flat", "no sign".
func signsOf(k score.Key) string {
	var words []string
	for _, step := range k.Changed() {
		words = append(words, step.String()+score.AlterWord(k.Alter(step)))
	}
	if len(words) == 0 {
		return "no sign"
	}
	return strings.Join(words, ", ")
}

// Starts lists the notes the first one may lie near, by where they stand on the staff.
func (e entry) Starts() []teach.Option {
	clef, home := score.Treble, score.MustPitch("B4")
	if i, ok := instrument.ByID(e.WrittenFor); ok {
		clef, home = i.Clef, i.Tessitura
	}
	list := []teach.Option{{Value: "", Label: home.Step.String() + ", " + name.Place(home, clef) + " (home)"}}
	for d := clef.BottomLine().Diatonic() - 6; d <= clef.BottomLine().Diatonic()+14; d++ {
		p := score.NaturalAt(d)
		list = append(list, teach.Option{Value: p.String(), Label: p.Step.String() + ", " + name.Place(p, clef)})
	}
	if start := e.Typed.Start; start != "" && !slices.ContainsFunc(list,
		func(o teach.Option) bool { return o.Value == start }) {
		list = append(list, teach.Option{Value: start, Label: start})
	}
	return list
}

// countedSheet is what the two lines give so far.
type countedSheet struct {
	Status string
	Marks  []countedMark
	Sheet  *music.SheetData // nil where nothing is counted
	Wrong  []score.Problem
	Before int // the place of the last note that is named, or of the one to start near, counted from C0
	Fifths int // of the key
}

// countedMark is a part of a typed line that something is wrong with.
type countedMark struct {
	Field string `json:"field"`
	From  int    `json:"from"`
	To    int    `json:"to"`
	At    int    `json:"at"`
}

// drawnMeasures is how many measures a page draws of what is typed; a score may have more.
const drawnMeasures = 200

// toggled puts a mark on notes of what is typed, or takes it off, and reads it so. Without
// notes it is read as it is.
func (e *entry) toggled(ctx context.Context, from, to, word string) counted.Draft {
	lines := e.lines()
	first, ok := counted.ParseNotePlace(from)
	last, also := counted.ParseNotePlace(to)
	if !ok || !also {
		return lines.Draft(ctx)
	}
	d := lines.Toggle(ctx, first, last, word)
	e.Typed.Marks, e.Marked = lines.Marks, true
	return d
}

// MarkKeys are the marks that are put on chosen notes.
func (e entry) MarkKeys() []typedKey {
	list := []typedKey{
		{"slur", "slur", "Slur"}, {"staccato", "staccato", "Staccato"}, {"accent", "accent", "Accent"},
		{"tenuto", "tenuto", "Tenuto"},
		{"fermata", "fermata", "Fermata"}, {"breath", "breath", "Breath"}, {"down", "down bow", "Down bow"},
		{"up", "up bow", "Up bow"},
		{"crescendo", "cresc.", "Crescendo: louder by and by"}, {"diminuendo", "dim.", "Diminuendo: softer by and by"},
	}
	for _, d := range []string{"pp", "p", "mp", "mf", "f", "ff"} {
		list = append(list, typedKey{d, d, "Dynamic " + d})
	}
	return list
}

// countedSheet is what a draft of the typed lines gives.
func (e entry) countedSheet(d counted.Draft) countedSheet {
	v := countedSheet{Marks: []countedMark{}} // the script has no null
	for _, m := range d.Marks {
		v.Wrong = append(v.Wrong, m.Problem)
		v.Marks = append(v.Marks, countedMark{m.Field, m.From, m.To, m.At})
	}
	if len(d.Score.Parts) == 0 {
		return v
	}
	v.Status = statusOf(d)
	for _, p := range d.Score.Remarks {
		v.Status += " " + p.Error()
	}
	part := d.Score.Parts[0]
	v.Before, v.Fifths = lastNamed(d).Diatonic(), part.Key().Fifths
	if len(part.Measures) > drawnMeasures {
		v.Status += fmt.Sprintf(" The first %d measures are drawn.", drawnMeasures)
		part.Measures = part.Measures[:drawnMeasures]
	}
	target, known := instrument.ByID(e.WrittenFor)
	if !known {
		target = inConcert
	}
	target = e.saved.Instrument(target)
	report := breakdown.Read(d.Score, part, target.ID, target, nil, e.saved.Preferences.Options(store.Class{}))
	if known {
		v.Wrong = append(v.Wrong, instrument.Unplayable(report.Part)...)
	}
	data := music.NewSheet(report, target, e.saved.Preferences.FingerWords(),
		e.saved.Preferences.StringColours(target), mei.Options{Ruler: true, IDs: countedSheetIDs})
	data.Unname(d.Unnamed)
	data.Plain()
	v.Sheet = &data
	return v
}

// lastNamed is the pitch of the last note that has a name; of none, the one to start near.
func lastNamed(d counted.Draft) score.Pitch {
	part := d.Score.Parts[0]
	notes := part.Notes()
	if n := len(d.Unnamed); n > 0 { // they lie on it
		return part.At(d.Unnamed[0]).Pitch
	}
	if len(notes) == 0 {
		return score.MustPitch("B4")
	}
	return part.At(notes[len(notes)-1]).Pitch
}

// StepNames are the names of C to B as they are typed, for notes that come from a keyboard.
func (e entry) StepNames() string {
	switch e.Names() {
	case name.FixedDo:
		return "do re mi fa sol la si"
	case name.German:
		return "c d e f g a h"
	}
	return "c d e f g a b"
}

// countedSheetIDs leads the ids of typed music.
const countedSheetIDs mei.IDs = "typed-"

// inConcert is nobody's instrument: its notes are as they sound, and there is nothing to
// finger.
var inConcert = instrument.Instrument{ID: reading.Concert, Name: "concert pitch", Clef: score.Treble,
	Tessitura: score.MustPitch("B4")}

// statusOf says how far the two lines have come.
func statusOf(d counted.Draft) string {
	measures := d.Score.Parts[0].Measures
	said := teach.Plural(measures[len(measures)-1].Number, "measure", "measures") + ", " +
		teach.Plural(d.Struck, "note", "notes")
	if n := len(d.Unnamed); n > 0 {
		at := d.Unnamed[0]
		return fmt.Sprintf("%s counted and %d named: next to name is note %d of measure %d.", said, d.Struck-n,
			noteIn(measures[at.Measure], at.Event), measures[at.Measure].Number)
	}
	return said + "."
}

// noteIn is which struck note of its measure an event is, from 1.
func noteIn(m score.Measure, event int) int {
	n := 0
	for _, e := range m.Events[:event+1] {
		if e.Kind == score.Note && !e.Tied {
			n++
		}
	}
	return n
}

// turnExercise turns what was typed one way into another, as far as it can be said there.
func (s *handlers) turnExercise(w http.ResponseWriter, r *http.Request) error {
	e, err := entryIn(r)
	if err != nil {
		return err
	}
	to := wayIn(r, "to", byCount)
	if site.FormError(r) != nil {
		e.Problems = []string{tooLargeFile}
		return s.showEntry(w, r, http.StatusRequestEntityTooLarge, e)
	}
	e.ID = store.ExerciseID(site.Number(r, "id"))
	if e.ID != 0 {
		x, err := site.ClassOf(r).ExerciseByID(r.Context(), e.ID)
		if err != nil {
			return err
		}
		e.Saved = x.Format == format.MusicXML
	}
	s.turn(r.Context(), &e, to)
	return s.showEntry(w, r, http.StatusOK, e)
}

// turn turns an entry, or says why it stays as it is.
func (s *handlers) turn(ctx context.Context, e *entry, to way) {
	switch {
	case e.Way == byCount && to == byABC && strings.TrimSpace(e.Typed.Count) != "":
		if d := e.lines().Draft(ctx); len(d.Score.Parts) > 0 {
			e.ABC = abc.Write(d.Score)
			if len(d.Marks) > 0 {
				e.Said = "What is marked in the two lines is left out here. They stand as they were under Type it in."
			}
		}
	case e.Way == byABC && to == byCount && strings.TrimSpace(e.ABC) != "" && line(e.ABC) != startingABC:
		sc, err := s.Reader.Score(ctx, store.Source{Format: format.ABC, Content: e.ABC})
		if err != nil {
			e.Problems = append(e.Problems, "It is not turned, because the ABC cannot be read: "+problemsOf(err)[0].Error())
			return
		}
		t, whole, err := typedOf(ctx, sc, e.Names())
		if err != nil {
			e.Problems = append(e.Problems, "It is not turned, because it cannot be counted in one line. "+
				problemsOf(err)[0].Error())
			return
		}
		e.Typed = t
		if !whole {
			e.Said = "The lines hold the notes, their lengths, marks and repeats; the rest is left out here. The ABC stands as it was under ABC."
		}
	}
	if e.Way == byCount && to != byCount && e.WrittenFor == reading.Concert || to == byFile && e.ID == 0 {
		// two lines are in concert pitch where nothing is said; a file may say otherwise, and its own word leads
		e.WrittenFor = ""
	}
	e.Way = to
}

// typedKey is a key on the screen.
type typedKey struct{ Value, Shown, Label string }

// CountKeys are the keys of the count line.
func (e entry) CountKeys() []typedKey {
	list := []typedKey{}
	for _, label := range strings.Fields("1 2 3 4 & e a") {
		list = append(list, typedKey{label, label, "Count " + label})
	}
	return append(list, typedKey{"()", "( )", "Held"}, typedKey{"[]", "[ ]", "Rest"},
		typedKey{"|", "|", "Bar line"}, typedKey{"=", "=", "A measure again"}, typedKey{"<", "⌫", "Take back in the count"})
}

// NameSample is a line of names, as they are typed.
func (e entry) NameSample() string {
	switch e.Names() {
	case name.FixedDo:
		return "sol la si do | sol la si"
	case name.German:
		return "gahc | gah"
	}
	return "gabc | gab"
}

// NameKeys are the keys of the name line.
func (e entry) NameKeys() []typedKey {
	list := []typedKey{}
	labels := e.StepNames()
	if e.Names() == name.German {
		labels += " b"
	}
	for _, label := range strings.Fields(labels) {
		list = append(list, typedKey{label, label, "Name " + label})
	}
	return append(list, typedKey{"#", "♯", "Sharp"}, typedKey{"-", "♭", "Flat"},
		typedKey{"=", "♮", "Natural"}, typedKey{"'", "↑", "Octave up"}, typedKey{",", "↓", "Octave down"},
		typedKey{"()", "( )", "Slur"}, typedKey{"<", "⌫", "Take back in the names"})
}
