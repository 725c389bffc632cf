// Package breakdown reads a part whole: how every note is counted, named and
// fingered, what to watch for, what is the same, and the chunks to learn it in.
package breakdown

import (
	"fmt"
	"slices"
	"strconv"

	"unhurriedbench/core/count"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// Alert is a mark a teacher pencils over a note.
type Alert string

// The alerts. docs/inspect.md says when each is given.
const (
	InKey      Alert = "key"        // the key signature changes it
	Trap       Alert = "trap"       // its letter was otherwise in everything before
	Accidental Alert = "accidental" // a sign stands in front of it
	Carried    Alert = "carried"    // an earlier sign in the measure still governs it
	Cancelled  Alert = "cancelled"  // the sign of the measure before no longer does
	Respelled  Alert = "respelled"  // the same key on the instrument has another name elsewhere
	Long       Alert = "long"       // two beats or more in moving company
	Last       Alert = "last"       // the final note, which lasts to the next downbeat
	Prepare    Alert = "prepare"    // a rest before it, in which the hand moves
	HardChange Alert = "hard-change"
	LookAlike  Alert = "look-alike" // a third that is easily read as a step
	New        Alert = "new"        // a note, a length, a sign and so on that was not met before
	Skip       Alert = "skip"       // passed over or cut short: a rest, a tie, a repeat, four counts
	Held       Alert = "held"       // a fermata: held until the leader ends it
	Breathe    Alert = "breathe"    // a breath mark after it
	Accented   Alert = "accented"   // an accent
	Swells     Alert = "swells"     // a hairpin begins
)

// Event is one note or rest, explained.
type Event struct {
	Kind        string             `json:"kind"` // "note" or "rest"
	Start       score.Fraction     `json:"start"`
	Length      score.Fraction     `json:"length"`
	Pitch       string             `json:"pitch,omitempty"`
	Concert     string             `json:"concert,omitempty"`
	Name        string             `json:"name,omitempty"`
	ShortName   string             `json:"-"`
	Place       string             `json:"place,omitempty"`
	Count       string             `json:"count,omitempty"`
	Held        []string           `json:"held,omitzero"`
	Tap         count.Tap          `json:"tap"`
	Fingering   string             `json:"fingering,omitempty"`
	Usual       string             `json:"usual,omitempty"` // the usual fingering, where an alternate stands
	Alternates  []string           `json:"alternates,omitzero"`
	Tied        bool               `json:"tied"`
	Alerts      []Alert            `json:"alerts"`
	Why         string             `json:"-"`                // the alerts, in a sentence
	Change      *finger.Change     `json:"change,omitempty"` // from the note before
	CountWhy    string             `json:"-"`                // the arithmetic of its length
	NameWhy     string             `json:"-"`                // how to find its letter
	Ways        []finger.Fingering `json:"-"`                // the alternates with their reasons
	Played      *finger.Choice     `json:"-"`                // what Fingering spells, and why it stands
	Care        string             `json:"care,omitempty"`   // what to mind in playing it
	Hand        string             `json:"hand,omitempty"`   // of keyed bars and timpani
	Breath      string             `json:"breath,omitempty"` // a breath is taken after it: why
	Bow         *Bow               `json:"bow,omitempty"`    // that begins here
	Annotations []Annotation       `json:"-"`                // the teacher's marks
	eased       []Alert            // what is minded here and not marked
}

// Has says whether there is an alert at the event, marked or told on request.
func (e Event) Has(a Alert) bool { return slices.Contains(e.Alerts, a) || slices.Contains(e.eased, a) }

// Measure is one measure, explained.
type Measure struct {
	Number int `json:"number"`
	// of a measure that is divided: 1 for what follows its first half, and so on
	Part   int          `json:"part,omitempty"`
	Events []Event      `json:"events"`
	Lane   []count.Cell `json:"-"` // the count on the ruler of pulses

	Difficulty Difficulty `json:"-"`
	New        []string   `json:"-"` // what it brings that was not met before, in words
}

// Played names a measure in the order of playing: by its number, and where it is
// divided, its later parts by 4.1, 4.2 and so on.
type Played struct{ Number, Part int }

// MarshalJSON writes a number: 4, or 4.1.
func (p Played) MarshalJSON() ([]byte, error) { return []byte(p.String()), nil }

func (p Played) String() string {
	if p.Part == 0 {
		return strconv.Itoa(p.Number)
	}
	return fmt.Sprintf("%d.%d", p.Number, p.Part)
}

// Key is a key signature in numbers and words.
type Key struct {
	Fifths int    `json:"fifths"`
	Name   string `json:"name"`
}

// Schema counts the changes to the names in a report's JSON.
const Schema = 2

// Report is a part read whole. Its JSON is what `unhurried inspect` prints.
type Report struct {
	Schema     int          `json:"schema"` // of these names: Schema
	Title      string       `json:"title"`
	Instrument string       `json:"instrument"`
	Clef       string       `json:"clef"`
	Key        Key          `json:"key"`
	Meter      string       `json:"meter"`
	Measures   []Measure    `json:"measures"`
	Order      []Played     `json:"order"` // the measures as played
	Same       []Recurrence `json:"same"`
	Lines      []LineLike   `json:"lines"`
	Figures    []Figure     `json:"figures"`
	Left       int          `json:"left"` // measures to learn, once what comes again is taken out
	Chunks     []Chunk      `json:"chunks"`
	Difficulty Difficulty   `json:"difficulty"`
	Tempo      Tempo        `json:"tempo"`

	Part    score.Part      `json:"-"`
	Made    string          `json:"-"` // how the part was made, in a sentence
	Outside []score.Place   `json:"-"` // notes the instrument has no fingering for
	Remarks []score.Problem `json:"-"` // printed fingerings that are none of their note

	changes []madeChange
	marked  int     // tempo, beats a minute; 0 for none
	paces   []pace  // of the measures
	phrases []Chunk // as the program cuts
}

// Options is how a teacher wants an exercise explained; the zero value is the
// default of everything.
type Options struct {
	Count       count.Options
	Name        name.Options
	British     bool // value names: crotchet, quaver
	Placed      instrument.OctaveChoice
	Finger      finger.Options
	Annotations map[score.Place][]Annotation // the teacher's marks
	Chunks      []HandChunk                  // the teacher's chunks, none for the program's
	ForPage     bool                         // lay out the lanes and give every note its reasons too
}

// Read makes the part for an instrument from its source and explains it. What
// the player has met before, which may be nil, decides the traps and the hints.
func Read(s score.Score, source score.Part, writtenFor string, target instrument.Instrument, met *Met,
	o Options) Report {
	r := readNotes(s, source, writtenFor, target, met, o)
	r.Same, r.Lines, r.Figures, r.phrases = Recurrences(r.Part), likeLines(r.Part), figures(r.Part), Cut(r.Part)
	byHand := false
	if r.Chunks, byHand = cutAs(r.Part, r.phrases, o.Chunks); !byHand {
		r.Chunks = slices.Clone(r.phrases)
		sayAgain(r.Part, r.Chunks, r.Same)
	}
	r.Left = r.left()
	r.markNew(met)
	r.addDifficulty(target, o.Finger.Year)
	r.Tempo = r.tempo()
	r.addBreaths(target, o.Finger.Year)
	r.addBows(target, o.Finger.Year)
	r.easeMarks()
	r.strikeOut()
	if !byHand {
		r.learningOrder()
	}
	if o.ForPage {
		r.layOut(met.Places(), o)
	}
	for _, i := range r.Part.Order() {
		r.Order = append(r.Order, Played{r.Measures[i].Number, r.Measures[i].Part})
	}
	return r
}

// readNotes makes the part and explains its notes one by one: their count, name, fingering,
// what to mind in them and the change from the one before.
func readNotes(s score.Score, source score.Part, writtenFor string, target instrument.Instrument, met *Met,
	o Options) Report {
	made := instrument.Make(source, writtenFor, target, o.Placed)
	part := made.Part
	r := Report{
		Schema: Schema, Title: s.Title, Instrument: target.ID, Clef: part.Clef().Name(),
		Key: Key{part.Key().Fifths, part.Key().Name()}, Meter: part.Meter().String(),
		Part: part, Made: made.Why, Outside: made.Outside, marked: s.Tempo.Beats(part.Meter()),
	}
	o.Finger.Tempo = s.Tempo
	counted, choices := count.Part(part, o.Count), finger.Part(target, part, o.Finger)
	r.Remarks = finger.Unfit(target, part, choices)
	alerts := findAlerts(part, met)
	divided := map[int]int{}
	r.Measures = make([]Measure, 0, len(part.Measures))
	for i, m := range part.Measures {
		explained := Measure{Number: m.Number, Events: make([]Event, len(m.Events))}
		if m.Split {
			divided[m.Number]++
			explained.Part = divided[m.Number]
		}
		for j, e := range m.Events {
			x := &explained.Events[j]
			explain(x, e, m, target, counted[i][j], &choices[i][j], alerts[i][j])
			if x.Pitch != "" {
				x.Name = o.Name.Say(e.Pitch, alerts[i][j].natural, m.Key)
				x.ShortName = o.Name.Show(e.Pitch, alerts[i][j].natural, m.Key)
			}
			x.Annotations = fitting(o.Annotations[score.Place{Measure: i, Event: j}], e)
		}
		r.Measures = append(r.Measures, explained)
	}
	r.addChanges(target, o.Finger.Year)
	return r
}

// Holds says whether there is an event at a place.
func (r Report) Holds(at score.Place) bool {
	return 0 <= at.Measure && at.Measure < len(r.Measures) && 0 <= at.Event &&
		at.Event < len(r.Measures[at.Measure].Events)
}

// layOut adds the lanes and the reason for every count and name.
func (r *Report) layOut(known []score.Pitch, o Options) {
	lanes, reasons := count.Lanes(r.Part, o.Count), count.Why(r.Part, o.Count, o.British)
	type onStaff struct {
		place int
		clef  score.Clef
	}
	hints := map[onStaff]string{}
	for i, m := range r.Part.Measures {
		r.Measures[i].Lane = lanes[i]
		for j, e := range m.Events {
			x := &r.Measures[i].Events[j]
			x.CountWhy = reasons[i][j]
			if x.Pitch != "" {
				at := onStaff{e.Pitch.Diatonic(), m.Clef}
				if hints[at] == "" {
					hints[at] = name.Hint(e.Pitch, m.Clef, known)
				}
				x.NameWhy = hints[at]
			}
		}
	}
}

// explain fills an event with what stands at it.
func explain(x *Event, e score.Event, m score.Measure, target instrument.Instrument, c count.Counted,
	f *finger.Choice, a noted) {
	*x = Event{
		Kind: "note", Start: e.Start, Length: e.Length, Count: c.Label, Held: c.Held, Tap: c.Tap,
		Tied: e.Tied, Fingering: f.Text, Ways: f.Alternates, Played: f, Care: f.Care, Hand: f.Hand,
		Alerts: a.alerts, Why: a.why(),
	}
	if x.Alerts == nil {
		x.Alerts = []Alert{}
	}
	if x.Held == nil && !e.Tied {
		x.Held = []string{}
	}
	if x.Fingering != "" {
		x.Alternates = make([]string, 0, len(f.Alternates))
	}
	if f.Alternate() {
		x.Usual = f.Usual
	}
	for _, other := range f.Alternates {
		x.Alternates = append(x.Alternates, other.Text)
	}
	switch {
	case e.Kind == score.Rest:
		x.Kind = "rest"
	case !e.Unpitched:
		x.Pitch = e.Pitch.String()
		x.Concert = e.Pitch.Transpose(target.Transposition).String()
		x.Place = name.Place(e.Pitch, m.Clef)
	}
}
