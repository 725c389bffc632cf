// Package mei writes a part as MEI for engraving, if wanted with a second,
// hidden staff that holds one note for every pulse, so that the engraver leaves
// room for lanes and tells where each pulse lies.
package mei

import (
	"encoding/xml"
	"fmt"
	"strconv"
	"strings"

	"unhurriedbench/core/score"
)

// Options chooses what is written.
type Options struct {
	TempoWords string
	Ruler      bool // add the staff of pulses
	IDs        IDs

	Multirests []int // measures of rest that one sign stands for, as score.Part has them; nil for none

	Other      *score.Part // another line over it, measure by measure; nil for none
	OtherScale int         // how large that is, in hundredths
}

// IDs leads every id the writer gives, so that the music of several parts can stand
// on one page.
type IDs string

// Event is the id of an event.
func (x IDs) Event(at score.Place) string { return fmt.Sprintf("%sn%d_%d", x, at.Measure, at.Event) }

// Pulse is the id of a pulse of a measure's ruler.
func (x IDs) Pulse(measure, pulse int) string { return fmt.Sprintf("%sp%d_%d", x, measure, pulse) }

// Measure is the id of a measure.
func (x IDs) Measure(measure int) string { return fmt.Sprintf("%sm%d", x, measure) }

type writer struct {
	b      strings.Builder
	part   score.Part
	opt    Options
	ends   map[score.Place]score.Place // slur start to slur end
	wedges map[score.Place]score.Wedge // by where they begin

	other *writer // of the line over it
}

// Write returns the part as an MEI document. Every measure and event carries
// the id that the options give.
func Write(part score.Part, opt Options) string {
	w := &writer{part: part, opt: opt}
	if opt.Other != nil {
		w.other = &writer{part: *opt.Other, opt: Options{IDs: opt.IDs + "other-"}}
	}
	w.b.WriteString(`<?xml version="1.0" encoding="UTF-8"?>` + "\n" +
		`<mei xmlns="http://www.music-encoding.org/ns/mei" meiversion="5.0"><meiHead><fileDesc><titleStmt><title/></titleStmt><pubStmt/></fileDesc></meiHead>` +
		`<music><body><mdiv><score>`)
	w.scoreDef(part.Meter(), part.Key(), true)
	w.b.WriteString(`<section>`)
	for i, m := range part.Measures {
		if i > 0 && (m.Meter != part.Measures[i-1].Meter || m.Key.Fifths != part.Measures[i-1].Key.Fifths) {
			w.scoreDef(m.Meter, m.Key, false)
		}
		if m.EndingStart {
			fmt.Fprintf(&w.b, `<ending n="%s">`, m.EndingText())
		}
		if w.together(i) >= 0 { // else the sign before stands for it
			w.measure(i)
		}
		if len(m.Endings) > 0 && (i+1 == len(part.Measures) || len(part.Measures[i+1].Endings) == 0 ||
			part.Measures[i+1].EndingStart) {
			w.b.WriteString(`</ending>`)
		}
	}
	w.b.WriteString(`</section></score></mdiv></body></music></mei>`)
	return w.b.String()
}

// together is how many measures of rest one sign stands for at a measure, 0 for an ordinary one,
// and -1 for those after its first.
func (w *writer) together(i int) int {
	if i >= len(w.opt.Multirests) {
		return 0
	}
	return w.opt.Multirests[i]
}

func (w *writer) scoreDef(m score.Meter, k score.Key, whole bool) {
	sym := ""
	if m.Symbol != "" {
		sym = fmt.Sprintf(` meter.sym="%s"`, m.Symbol)
	}
	fmt.Fprintf(&w.b, `<scoreDef meter.count="%d" meter.unit="%d"%s`, m.Beats, m.Unit, sym)
	if !w.part.Unpitched() {
		fmt.Fprintf(&w.b, ` keysig="%s"`, signature(k))
	}
	if !whole {
		w.b.WriteString(`/>`)
		return
	}
	w.b.WriteString(`><staffGrp>`)
	clef := w.part.Clef()
	lines := 5
	if w.part.Unpitched() {
		lines = 1
		clef = score.Percussion
	}
	spacing := ""
	if w.other != nil {
		otherClef := w.other.part.Clef()
		if w.part.Unpitched() {
			otherClef = clef
		}
		fmt.Fprintf(&w.b, `<staffDef n="3" lines="%d" scale="%d%%" %s/>`, lines, w.opt.OtherScale,
			clefAttributes(otherClef, "clef."))
		spacing = ` spacing="8vu"` // else as wide as the lanes need
	}
	fmt.Fprintf(&w.b, `<staffDef n="1" lines="%d"%s %s/>`, lines, spacing, clefAttributes(clef, "clef."))
	if w.opt.Ruler {
		w.b.WriteString(`<staffDef n="2" lines="0" clef.shape="perc" clef.line="1"/>`)
	}
	w.b.WriteString(`</staffGrp></scoreDef>`)
}

func signature(k score.Key) string {
	switch {
	case k.Fifths > 0:
		return strconv.Itoa(k.Fifths) + "s"
	case k.Fifths < 0:
		return strconv.Itoa(-k.Fifths) + "f"
	}
	return "0"
}

func clefAttributes(c score.Clef, prefix string) string {
	if c.Sign == "percussion" {
		return prefix + `shape="perc" ` + prefix + `line="1"`
	}
	text := fmt.Sprintf(`%sshape="%s" %sline="%d"`, prefix, c.Sign, prefix, c.Line)
	switch c.Octave {
	case -1:
		text += fmt.Sprintf(` %sdis="8" %sdis.place="below"`, prefix, prefix)
	case 1:
		text += fmt.Sprintf(` %sdis="8" %sdis.place="above"`, prefix, prefix)
	}
	return text
}

func (w *writer) measure(i int) {
	m := w.part.Measures[i]
	last := i + max(w.together(i), 1) - 1 // whose bar line it ends with
	ends := w.part.Measures[last]
	fmt.Fprintf(&w.b, `<measure xml:id="%s" n="%d"`, w.opt.IDs.Measure(i), m.Number)
	if m.Length != m.Meter.Length() {
		w.b.WriteString(` metcon="false"`)
	}
	if m.RepeatStart {
		w.b.WriteString(` left="rptstart"`)
	}
	switch {
	case ends.RepeatEnd:
		w.b.WriteString(` right="rptend"`)
	case last == len(w.part.Measures)-1:
		w.b.WriteString(` right="end"`)
	case ends.DoubleBar || ends.Jump.To != "" || ends.Fine:
		w.b.WriteString(` right="dbl"`)
	}
	w.b.WriteString(`>`)
	if w.other != nil && i < len(w.other.part.Measures) {
		w.b.WriteString(`<staff n="3"><layer n="1">`)
		w.other.events(i, 0, len(w.other.part.Measures[i].Events), true)
		w.take()
		w.b.WriteString(`</layer></staff>`)
	}
	w.b.WriteString(`<staff n="1"><layer n="1">`)
	if i > 0 && m.Clef != w.part.Measures[i-1].Clef {
		fmt.Fprintf(&w.b, `<clef %s/>`, clefAttributes(m.Clef, ""))
	}
	if n := w.together(i); n > 0 {
		fmt.Fprintf(&w.b, `<multiRest xml:id="%s" num="%d"/>`, w.opt.IDs.Event(score.Place{Measure: i}), n)
	} else {
		w.events(i, 0, len(m.Events), true)
	}
	w.b.WriteString(`</layer></staff>`)
	switch {
	case w.opt.Ruler && w.together(i) > 0:
		w.b.WriteString(`<staff n="2"><layer n="1"><mSpace/></layer></staff>`)
	case w.opt.Ruler:
		w.ruler(i)
	}
	w.signs(i)
	if last > i {
		w.signs(last)
	}
	if w.other != nil && i < len(w.other.part.Measures) {
		w.other.hanging(i)
		w.take()
	}
	w.b.WriteString(`</measure>`)
}

// take takes over what the writer of the other line has written.
func (w *writer) take() {
	w.b.WriteString(w.other.b.String())
	w.other.b.Reset()
}

// events writes a run of events, grouping tuplets first and then beams.
func (w *writer) events(i, from, to int, tuplets bool) {
	events := w.part.Measures[i].Events
	for j := from; j < to; {
		e := events[j]
		if tuplets && e.TupletStarts {
			end := j + 1
			for end < to && !events[end-1].TupletEnds && events[end].Value.Tuplet == e.Value.Tuplet {
				end++
			}
			ratio := e.Value.Tuplet
			fmt.Fprintf(&w.b, `<tuplet num="%d" numbase="%d">`, ratio.Actual, ratio.Normal)
			w.events(i, j, end, false)
			w.b.WriteString(`</tuplet>`)
			j = end
			continue
		}
		end := j + 1
		for end < to && (!tuplets || !events[end].TupletStarts) && w.beamed(i, j, end) {
			end++
		}
		if end-j > 1 {
			w.b.WriteString(`<beam>`)
		}
		for k := j; k < end; k++ {
			w.event(score.Place{Measure: i, Event: k})
		}
		if end-j > 1 {
			w.b.WriteString(`</beam>`)
		}
		j = end
	}
}

// beamed says whether events j and k are flagged notes of the same beat.
func (w *writer) beamed(i, j, k int) bool {
	m := w.part.Measures[i]
	a, b := m.Events[j], m.Events[k]
	flagged := func(e score.Event) bool { return e.Kind == score.Note && e.Value.Base >= 8 }
	beat := m.Meter.Beat()
	if beat == score.Frac(1, 8) { // 3/8 is beamed as a whole
		beat = m.Meter.Length()
	}
	return flagged(a) && flagged(b) && a.Start.Div(beat).Floor() == b.Start.Div(beat).Floor()
}

func (w *writer) event(at score.Place) {
	e := w.part.At(at)
	id := w.opt.IDs.Event(at)
	if e.Kind == score.Rest {
		if e.WholeMeasure {
			fmt.Fprintf(&w.b, `<mRest xml:id="%s"/>`, id)
			return
		}
		fmt.Fprintf(&w.b, `<rest xml:id="%s"%s/>`, id, duration(e.Value))
		return
	}
	for range e.Graces {
		w.b.WriteString(`<note grace="unacc" dur="8" loc="0" stem.dir="up"/>`)
	}
	if len(e.Others) == 0 {
		w.note(*e, e.Pitch, fmt.Sprintf(` xml:id="%s"%s%s`, id, duration(e.Value), articulation(e.Marks)+tremolo(*e)), e.Sign)
		return
	}
	fmt.Fprintf(&w.b, `<chord xml:id="%s"%s%s>`, id, duration(e.Value), articulation(e.Marks)+tremolo(*e))
	w.note(*e, e.Pitch, "", e.Sign)
	for _, p := range e.Others {
		w.note(*e, p, "", p.Alter != w.part.Measures[at.Measure].Key.Alter(p.Step))
	}
	w.b.WriteString(`</chord>`)
}

func (w *writer) note(e score.Event, p score.Pitch, attributes string, sign bool) {
	if e.Unpitched {
		fmt.Fprintf(&w.b, `<note%s loc="0" stem.dir="up"/>`, attributes)
		return
	}
	fmt.Fprintf(&w.b, `<note%s pname="%s" oct="%d"`, attributes, strings.ToLower(p.Step.String()), p.Octave)
	accid := [5]string{"ff", "f", "n", "s", "x"}[p.Alter+2]
	switch {
	case sign:
		fmt.Fprintf(&w.b, `><accid accid="%s"/></note>`, accid)
	case p.Alter != 0:
		fmt.Fprintf(&w.b, ` accid.ges="%s"/>`, accid)
	default:
		w.b.WriteString(`/>`)
	}
}

func tremolo(e score.Event) string {
	if e.Roll {
		return ` stem.mod="3slash"`
	}
	return ""
}

func duration(v score.Value) string {
	text := "breve"
	if v.Base > 0 {
		text = strconv.Itoa(v.Base)
	}
	text = ` dur="` + text + `"`
	if v.Dots > 0 {
		text += fmt.Sprintf(` dots="%d"`, v.Dots)
	}
	return text
}

var articulations = map[score.Mark]string{
	score.Staccato: "stacc", score.Accent: "acc", score.Tenuto: "ten", score.UpBow: "upbow", score.DownBow: "dnbow",
}

func articulation(marks []score.Mark) string {
	var words []string
	for _, m := range marks {
		if word, ok := articulations[m]; ok {
			words = append(words, word)
		}
	}
	if len(words) == 0 {
		return ""
	}
	return ` artic="` + strings.Join(words, " ") + `"`
}

func (w *writer) ruler(i int) {
	w.b.WriteString(`<staff n="2"><layer n="1">`)
	open := score.Ratio{}
	for k, p := range w.part.Measures[i].Ruler() {
		beatStart := p.Place.Within(w.part.Measures[i].Meter.Beat()).IsZero()
		if open.Actual > 0 && (beatStart || p.Value.Tuplet != open) {
			w.b.WriteString(`</tuplet>`)
			open = score.Ratio{}
		}
		if p.Value.Tuplet.Actual > 0 && open.Actual == 0 {
			open = p.Value.Tuplet
			fmt.Fprintf(&w.b, `<tuplet num="%d" numbase="%d" num.visible="false" bracket.visible="false">`,
				open.Actual, open.Normal)
		}
		fmt.Fprintf(&w.b, `<note xml:id="%s"%s loc="0" stem.visible="false"/>`, w.opt.IDs.Pulse(i, k), duration(p.Value))
	}
	if open.Actual > 0 {
		w.b.WriteString(`</tuplet>`)
	}
	w.b.WriteString(`</layer></staff>`)
}

// signs writes what hangs on notes, and the measure's own signs.
func (w *writer) signs(i int) {
	if i == 0 && w.opt.TempoWords != "" {
		fmt.Fprintf(&w.b, `<tempo staff="1" tstamp="1">%s</tempo>`, escape(w.opt.TempoWords))
	}
	w.hanging(i)
	w.measureSigns(w.part.Measures[i])
}

// hanging writes ties, slurs, fermatas, breaths, dynamics and words.
func (w *writer) hanging(i int) {
	for j, e := range w.part.Measures[i].Events {
		at := score.Place{Measure: i, Event: j}
		id := w.opt.IDs.Event(at)
		if e.TieOn {
			fmt.Fprintf(&w.b, `<tie startid="#%s" endid="#%s"/>`, id, w.opt.IDs.Event(w.next(at)))
		}
		if j == 0 && e.Tied && i > 0 && w.part.LeadsInto(i) != i-1 {
			fmt.Fprintf(&w.b, `<tie tstamp="0" staff="1" endid="#%s"/>`, id) // from before the endings
		}
		if end, ok := w.slurEnd(at); ok {
			fmt.Fprintf(&w.b, `<slur startid="#%s" endid="#%s"/>`, id, w.opt.IDs.Event(end))
		}
		for _, mark := range e.Marks {
			switch mark {
			case score.Fermata:
				fmt.Fprintf(&w.b, `<fermata startid="#%s" place="above"/>`, id)
			case score.Breath:
				fmt.Fprintf(&w.b, `<breath startid="#%s"/>`, id)
			}
		}
		if e.Dynamic != "" {
			fmt.Fprintf(&w.b, `<dynam startid="#%s" place="above">%s</dynam>`, id, escape(e.Dynamic))
		}
		if wedge, begins := w.wedge(at); begins {
			fmt.Fprintf(&w.b, `<hairpin form="%s" startid="#%s" endid="#%s" place="above"/>`,
				map[score.Hairpin]string{score.Crescendo: "cres", score.Diminuendo: "dim"}[wedge.Hairpin], id, w.opt.IDs.Event(wedge.To))
		}
		if e.Text != "" {
			fmt.Fprintf(&w.b, `<dir startid="#%s" place="above">%s</dir>`, id, escape(e.Text))
		}
	}
}

func (w *writer) measureSigns(m score.Measure) {
	start, end := "1", strconv.Itoa(m.Meter.Beats+1)
	mark := func(at, function, text string) {
		fmt.Fprintf(&w.b, `<repeatMark staff="1" tstamp="%s" place="above" func="%s">%s</repeatMark>`, at, function, text)
	}
	if m.Segno {
		mark(start, "segno", "")
	}
	if m.Coda {
		mark(start, "coda", "")
	}
	if m.ToCoda {
		mark(end, "coda", "To Coda")
	}
	if m.Fine {
		mark(end, "fine", "Fine")
	}
	words := map[string]string{"capo": "D.C.", "segno": "D.S."}[m.Jump.To]
	if words != "" {
		if m.Jump.Al != "" {
			words += " al " + strings.ToUpper(m.Jump.Al[:1]) + m.Jump.Al[1:]
		}
		mark(end, map[string]string{"capo": "daCapo", "segno": "dalSegno"}[m.Jump.To], words)
	}
	if m.Rehearsal != "" {
		staff := 1
		if w.other != nil { // over both lines
			staff = 3
		}
		fmt.Fprintf(&w.b, `<reh staff="%d" tstamp="1">%s</reh>`, staff, escape(m.Rehearsal))
	}
}

// next is the place of the event after at.
func (w *writer) next(at score.Place) score.Place {
	if at.Event+1 < len(w.part.Measures[at.Measure].Events) {
		return score.Place{Measure: at.Measure, Event: at.Event + 1}
	}
	return score.Place{Measure: at.Measure + 1}
}

// slurEnd finds the note on which the slur that begins at a note ends.
func (w *writer) slurEnd(at score.Place) (score.Place, bool) {
	if w.ends == nil {
		w.ends = slurs(w.part)
	}
	end, ok := w.ends[at]
	return end, ok
}

// wedge is the hairpin that begins at an event.
func (w *writer) wedge(at score.Place) (score.Wedge, bool) {
	if w.wedges == nil {
		w.wedges = map[score.Place]score.Wedge{}
		for _, wedge := range w.part.Wedges() {
			w.wedges[wedge.From] = wedge
		}
	}
	wedge, begins := w.wedges[at]
	return wedge, begins
}

// slurs pairs the starts of slurs with their ends, innermost first.
func slurs(part score.Part) map[score.Place]score.Place {
	ends := map[score.Place]score.Place{}
	var open []score.Place
	for _, at := range part.Notes() {
		e := part.At(at)
		for range e.SlurEnds {
			if n := len(open); n > 0 {
				ends[open[n-1]] = at
				open = open[:n-1]
			}
		}
		for range e.SlurStarts {
			open = append(open, at)
		}
	}
	return ends
}

func escape(text string) string {
	var b strings.Builder
	_ = xml.EscapeText(&b, []byte(text)) // a strings.Builder does not fail
	return b.String()
}
