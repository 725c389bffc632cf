package music

import (
	"fmt"
	"html/template"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/teach"
)

// BenchSheetIDs leads the ids of the Bench's music, so that other music can stand on
// the same page.
const BenchSheetIDs mei.IDs = "bench-"

// NeighbourNames names pitches that are played alike.
func NeighbourNames(pitches []score.Pitch) string {
	names := make([]string, len(pitches))
	for i, p := range pitches {
		names[i] = teach.WithOctave(p)
	}
	return strings.Join(names, ", ")
}

// Plain takes off what the program would add by hand: typed music stands as it is typed.
func (d *SheetData) Plain() {
	for _, m := range d.Measures {
		for k := range m.Events {
			m.Events[k].Breath, m.Events[k].Bow = false, ""
		}
	}
}

// Unname takes the names off the notes that have none yet.
func (d *SheetData) Unname(places []score.Place) {
	for _, at := range places {
		if at.Measure >= len(d.Measures) {
			continue
		}
		for k := range d.Measures[at.Measure].Events {
			if e := &d.Measures[at.Measure].Events[k]; e.Event == at.Event {
				*e = SheetEvent{ID: e.ID, At: e.At, Measure: e.Measure, Event: e.Event, Open: true,
					Alerts: []breakdown.Alert{}, Why: []string{"It has no name yet."}}
			}
		}
	}
}

// SheetData is what the page's script needs to engrave a part, lay the lanes
// under it and move the cursor. Times are in whole notes.
type SheetData struct {
	MEI       string               `json:"mei"`
	Beat      float64              `json:"beat"`
	Mechanism string               `json:"mechanism"`
	LaneName  string               `json:"laneName"`
	Named     bool                 `json:"named"`           // the notes have names
	Fingered  bool                 `json:"fingered"`        // and something for the hands
	Thumb     bool                 `json:"thumb"`           // the left thumb has a hole or key of its own
	Hands     bool                 `json:"hands,omitempty"` // each hand counts its fingers 1 to 3
	Lowest    int                  `json:"lowest"`          // MIDI numbers of the range, as written
	Highest   int                  `json:"highest"`
	Strings   []teach.StringColour `json:"strings,omitempty"`
	Keys      []finger.Key         `json:"keys,omitempty"` // of a woodwind
	Valves    int                  `json:"valves,omitempty"`
	ThumbSide bool                 `json:"thumbSide,omitempty"` // a double horn's thumb
	Trigger   bool                 `json:"trigger,omitempty"`   // a trombone's F attachment
	Drums     []string             `json:"drums,omitempty"`     // inches, from the largest
	Measures  []SheetMeasure       `json:"measures"`
	Paper     paper                `json:"paper"`
}

// paper is what a printed page has room for, in the pixels of a browser.
type paper struct {
	Width  int `json:"width"`
	Height int `json:"height"` // under a title
}

// letterAndA4 is what lies between the margins of both.
var letterAndA4 = paper{690, 820}

// SheetMeasure is a measure of a sheet.
type SheetMeasure struct {
	ID      string       `json:"id"`
	Number  int          `json:"number"`
	Offset  float64      `json:"offset"`
	Length  float64      `json:"length"`
	Pulses  []SheetPulse `json:"pulses"`
	Events  []SheetEvent `json:"events"`
	Breaths []string     `json:"breaths,omitempty"` // the ids of tied notes after which a breath is taken
	Rests   string       `json:"rests,omitempty"`   // "8 measures", where one sign stands for it and those after it
	Within  *int         `json:"within,omitempty"`  // the measure whose sign stands for it too
}

// SheetPulse is a pulse of the ruler, with what is tapped and counted there.
type SheetPulse struct {
	ID   string     `json:"id"`
	At   float64    `json:"at"`
	Text string     `json:"text"`
	Look count.Look `json:"look"`
	Tap  count.Tap  `json:"tap"`
	Beat bool       `json:"beat"`
}

// SheetEvent is a note or a rest with all that its lanes say.
type SheetEvent struct {
	ID          string            `json:"id"`
	Name        string            `json:"name"`
	Spoken      string            `json:"spoken"`
	Fingering   string            `json:"fingering"`          // what names it; Drawn is what there is to see
	Beyond      string            `json:"beyond,omitempty"`   // why it has none: "beyond the trumpet"
	Unlisted    bool              `json:"unlisted,omitempty"` // it is played, and its fingering is the teacher's to write
	Mine        bool              `json:"mine,omitempty"`     // the teacher wrote it, where none is listed
	Said        string            `json:"said"`               // the fingering in words
	Drawn       finger.Drawn      `json:"drawn"`
	MIDI        int               `json:"midi"` // as written
	At          float64           `json:"at"`   // as a pulse's
	Hand        string            `json:"hand,omitempty"`
	Roll        string            `json:"roll,omitempty"` // its strokes, or "long"; "all" where they are not counted
	Alternate   bool              `json:"alternate,omitempty"`
	Usual       string            `json:"usual,omitempty"` // said, where an alternate stands
	Printed     bool              `json:"printed,omitempty"`
	Ways        []sheetWay        `json:"ways,omitempty"` // the other ways there are
	Open        bool              `json:"open,omitempty"` // it has no name yet
	Measure     int               `json:"measure"`
	Event       int               `json:"event"`
	Minded      bool              `json:"minded,omitempty"`  // there is something to mind in playing it
	Change      string            `json:"change,omitempty"`  // from the note before
	Breath      bool              `json:"breath,omitempty"`  // is taken after it
	Bow         string            `json:"bow,omitempty"`     // a sign for it is worth it
	Annotations []sheetAnnotation `json:"pencils,omitempty"` // the teacher's
	Alerts      []breakdown.Alert `json:"alerts"`
	Why         []string          `json:"why"` // its count, its name, its marks
}

// sheetAnnotation is a mark of the teacher's.
type sheetAnnotation struct {
	Kind breakdown.AnnotationKind `json:"kind"`
	Word string                   `json:"word,omitempty"`
}

// addHand adds the breath, the bow and the teacher's marks.
func (x *SheetEvent) addHand(e breakdown.Event, printed []score.Mark) {
	x.Breath = e.Breath != "" && !slices.Contains(printed, score.Breath)
	if e.Bow != nil && e.Bow.Why != "" && !slices.Contains(printed, score.UpBow) && !slices.Contains(printed,
		score.DownBow) {
		x.Bow = e.Bow.String()
	}
	for _, p := range e.Annotations {
		if p.Kind != breakdown.StruckOut {
			x.Annotations = append(x.Annotations, sheetAnnotation{p.Kind, p.Word})
		}
	}
}

// sheetWay is another way to play a note.
type sheetWay struct {
	Text  string `json:"text"`
	Said  string `json:"said"`
	Why   string `json:"why,omitempty"`
	Usual bool   `json:"usual,omitempty"`
}

// addWays tells what else a note could be played with, and whether the usual way
// stands.
func (x *SheetEvent) addWays(e breakdown.Event, i instrument.Instrument, w finger.Words) {
	x.Said = w.Say(i, e.Played.Fingering)
	x.Alternate, x.Printed = e.Played.Alternate(), e.Played.By == finger.Printed
	if x.Alternate {
		x.Usual = w.Say(i, e.Played.UsualWay())
	}
	for _, way := range e.Ways {
		x.Ways = append(x.Ways, sheetWay{way.Text, w.Say(i, way), way.Why, way.Text == e.Played.Usual})
	}
}

// rollLabel is what is written beside a roll.
func rollLabel(r finger.Roll) string {
	switch {
	case r.Unmeasured:
		return "all"
	case r.Long():
		return "long"
	case r.Strokes > 0:
		return strconv.Itoa(r.Strokes)
	}
	return ""
}

// reasons says everything there is to say about an event.
func reasons(e breakdown.Event, i instrument.Instrument, w finger.Words, same []score.Pitch) []string {
	why := []string{e.CountWhy}
	if e.NameWhy != "" {
		why = append(why, e.Name+", "+e.Place+". "+e.NameWhy)
	}
	switch {
	case e.Played.Alternate():
		why = append(
			why,
			fmt.Sprintf("Not the usual way: %s%s. Usual: %s.", w.Say(i, e.Played.Fingering), because(*e.Played),
				w.Say(i, e.Played.UsualWay())),
		)
	case e.Played.By == finger.Printed || e.Played.By == finger.Chosen:
		why = append(why, fmt.Sprintf("%s, the usual way%s.", w.Say(i, e.Played.Fingering), because(*e.Played)))
	}
	if e.Care != "" {
		why = append(why, "Mind: "+e.Care+".")
	}
	if n := e.Played.Partial; n > 0 {
		why = append(why, fmt.Sprintf("It is partial %d of the tube.%s", n, sameTube(i, same)))
	}
	if e.Change != nil && !e.Has(breakdown.HardChange) { // whose mark says it
		why = append(why, "From the note before: "+e.Change.Why+".")
	}
	if e.Why != "" {
		why = append(why, e.Why)
	}
	if e.Breath != "" {
		why = append(why, e.Breath)
	}
	if e.Bow != nil && e.Bow.Why != "" {
		why = append(why, e.Bow.Why)
	}
	return why
}

// because says why a fingering stands.
func because(c finger.Choice) string {
	switch {
	case c.By == finger.Chosen:
		return ", as you chose"
	case c.By == finger.Printed:
		return ", as it is printed"
	case c.Why == "":
		return ""
	}
	return ", " + c.Why
}

// playedAlike lists the neighbours of a note that is played its usual way.
func playedAlike(e breakdown.Event, same map[int][]score.Pitch, midi int) []score.Pitch {
	if e.Played.Alternate() {
		return nil
	}
	return same[midi]
}

// sameTube names the notes that are played alike, a sentence after another.
func sameTube(i instrument.Instrument, same []score.Pitch) string {
	if len(same) == 0 {
		return ""
	}
	if i.Mechanism == instrument.Slide {
		return fmt.Sprintf(" The same position also sounds %s.", NeighbourNames(same))
	}
	return fmt.Sprintf(" The same valves also sound %s.", NeighbourNames(same))
}

// DrawnFor is what the drawings of an instrument's fingerings need to know.
func DrawnFor(i instrument.Instrument, strings []teach.StringColour) SheetData {
	data := SheetData{
		Paper: letterAndA4,
		Thumb: i.Thumb, Mechanism: string(i.Mechanism), LaneName: i.LaneName(), Strings: strings,
		Keys: finger.Keys(i), Valves: i.Valves, ThumbSide: i.ThumbSide, Trigger: i.Attachment,
	}
	data.Lowest, data.Highest = i.Lowest.MIDI(), i.Highest.MIDI()
	for _, d := range i.Drums {
		data.Drums = append(data.Drums, strconv.Itoa(d.Inches))
	}
	return data
}

// Beyond says why a note has no fingering, "" where it has one or needs none.
func Beyond(i instrument.Instrument, p score.Pitch, e breakdown.Event) (why string, unlisted bool) {
	switch {
	case e.Fingering != "" || i.Unpitched() || i.Mechanism == "": // in concert pitch, nobody's
		return "", false
	case finger.Unlisted(i, p):
		return "no usual fingering listed: write yours", true
	case i.Mechanism == instrument.Drums && i.Plays(p):
		return "on none of your drums", false
	}
	return "beyond the " + i.Name, false
}

// sentence makes a sentence of words.
func sentence(words string) string { return strings.ToUpper(words[:1]) + words[1:] + "." }

// NewSheet lays out a part for the page's script.
func NewSheet(r breakdown.Report, target instrument.Instrument, w finger.Words, strings []teach.StringColour,
	opt mei.Options) SheetData {
	data := DrawnFor(target, strings)
	data.Hands = w.Hands
	var rests []int
	if opt.Other == nil {
		rests = r.Part.Multirests()
		opt.Multirests = rests
	}
	data.MEI, data.Beat, data.Named = mei.Write(r.Part, opt), r.Part.Meter().Beat().Float(), !r.Part.Unpitched()
	same := map[int][]score.Pitch{}
	if target.Family == "brass" {
		same = finger.Neighbours(target)
	}
	first := 0             // of a run of rests
	var struck *SheetEvent // the note struck last
	data.Measures = make([]SheetMeasure, len(r.Part.Measures))
	for i, m := range r.Part.Measures {
		measure := &data.Measures[i]
		*measure = SheetMeasure{
			ID: opt.IDs.Measure(i), Number: m.Number, Offset: m.Offset.Float(), Length: m.Length.Float(),
			// a measure of rest has no notes, and the script no null
			Pulses: []SheetPulse{}, Events: make([]SheetEvent, 0, len(m.Events)),
		}
		for k, cell := range r.Measures[i].Lane {
			measure.Pulses = append(measure.Pulses, SheetPulse{
				ID: opt.IDs.Pulse(i, k), At: cell.Place.Float(), Text: cell.Text(), Look: cell.Look, Tap: cell.Tap,
				Beat: cell.Beat,
			})
		}
		for j, e := range r.Measures[i].Events {
			if e.Kind != "note" {
				continue
			}
			if e.Tied && e.Fingering == "" { // the tap that ends a roll is tied, and struck
				if e.Breath != "" {
					measure.Breaths = append(measure.Breaths, opt.IDs.Event(score.Place{Measure: i, Event: j}))
					if struck != nil {
						struck.Why = append(struck.Why, e.Breath)
					}
				}
				continue
			}
			p := m.Events[j].Pitch
			x := SheetEvent{
				ID: opt.IDs.Event(score.Place{Measure: i, Event: j}), Name: e.ShortName, Spoken: e.Name, Fingering: e.Fingering,
				Alerts: e.Alerts, Why: reasons(e, target, w, playedAlike(e, same, p.MIDI())), MIDI: p.MIDI(), At: e.Start.Float(),
				Hand: e.Hand, Roll: rollLabel(e.Played.Roll), Minded: e.Care != "", Measure: i, Event: j,
			}
			if e.Fingering != "" {
				data.Fingered, x.Drawn = true, finger.Draw(target, p, e.Played.Fingering)
				x.addWays(e, target, w)
			}
			x.Beyond, x.Unlisted = Beyond(target, p, e)
			if x.Beyond != "" {
				x.Why = append([]string{sentence(x.Beyond)}, x.Why...)
			}
			x.Mine = e.Played.By == finger.Chosen && e.Played.Usual == ""
			if e.Change != nil {
				x.Change = e.Change.Why
			}
			x.addHand(e, m.Events[j].Marks)
			measure.Events = append(measure.Events, x)
			struck = &measure.Events[len(measure.Events)-1]
		}
		if rests != nil && rests[i] > 0 {
			measure.Rests, first = fmt.Sprintf("%d measures", rests[i]), i
		} else if rests != nil && rests[i] < 0 {
			measure.Within = new(int)
			*measure.Within = first
		}
	}
	return data
}

// Functions are what templates may call that draw or name music.
func Functions() template.FuncMap {
	return template.FuncMap{"because": because, "alertWord": AlertWord, "staff": DrawStaffRow}
}
