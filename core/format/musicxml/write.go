package musicxml

import (
	"encoding/xml"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/score"
)

// Write returns the score as MusicXML 4.0, partwise, its elements in the order
// of the standard.
func Write(s score.Score) []byte {
	w := &writer{}
	w.b.WriteString(xml.Header)
	w.b.WriteString(
		`<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">` + "\n",
	)
	w.open(`score-partwise version="4.0"`)
	w.open("work")
	w.text("work-title", s.Title)
	w.close("work")
	if s.Composer != "" {
		w.open("identification")
		w.text(`creator type="composer"`, s.Composer)
		w.close("identification")
	}
	w.open("part-list")
	for i, p := range s.Parts {
		w.open(fmt.Sprintf(`score-part id="P%d"`, i+1))
		w.text("part-name", p.Name)
		w.close("score-part")
	}
	w.close("part-list")
	for i, p := range s.Parts {
		w.open(fmt.Sprintf(`part id="P%d"`, i+1))
		w.part(s, p)
		w.close("part")
	}
	w.close("score-partwise")
	return []byte(w.b.String())
}

type writer struct {
	rests     []int // measures of rest that one sign stands for
	b         strings.Builder
	divisions int64 // of a quarter note
	slurs     int   // open ones
}

func (w *writer) open(tag string) { w.b.WriteString("<" + tag + ">") }

func (w *writer) close(tag string) { w.b.WriteString("</" + tag + ">\n") }

func (w *writer) empty(tag string) { w.b.WriteString("<" + tag + "/>") }

// text writes an element with character data; tag may carry attributes.
func (w *writer) text(tag, text string) {
	w.open(tag)
	_ = xml.EscapeText(&w.b, []byte(text)) // a strings.Builder does not fail
	name, _, _ := strings.Cut(tag, " ")
	w.close(name)
}

func (w *writer) number(tag string, n int64) { w.text(tag, strconv.FormatInt(n, 10)) }

// divisionsOf is the least number of parts of a quarter in which every length
// of the part is whole.
func divisionsOf(p score.Part) int64 {
	divisions := int64(1)
	for _, m := range p.Measures {
		for _, e := range m.Events {
			if d := e.Length.Mul(score.Frac(4*divisions, 1)).Den(); d > 1 {
				divisions *= d
			}
		}
	}
	return divisions
}

func (w *writer) part(s score.Score, p score.Part) {
	w.divisions, w.rests = divisionsOf(p), p.Multirests()
	w.slurs = 0
	for i, m := range p.Measures {
		implicit := ""
		if m.Number == 0 || m.Split {
			implicit = ` implicit="yes"`
		}
		number := strconv.Itoa(m.Number)
		if m.Split {
			number = "X" + number
		}
		w.open(fmt.Sprintf(`measure number="%s"%s`, number, implicit))
		w.leftBarline(m)
		w.attributes(p, i)
		w.directions(s, i, m)
		for j := range m.Events {
			w.event(p, i, j)
		}
		w.jumps(m)
		w.rightBarline(m, i == len(p.Measures)-1)
		w.close("measure")
	}
}

func (w *writer) leftBarline(m score.Measure) {
	if !m.RepeatStart && !m.EndingStart {
		return
	}
	w.open(`barline location="left"`)
	if m.RepeatStart {
		w.text("bar-style", "heavy-light")
	}
	if m.EndingStart {
		w.empty(fmt.Sprintf(`ending number="%s" type="start"`, m.EndingText()))
	}
	if m.RepeatStart {
		w.empty(`repeat direction="forward"`)
	}
	w.close("barline")
}

func (w *writer) rightBarline(m score.Measure, last bool) {
	if !m.RepeatEnd && !m.EndingStop && !m.DoubleBar && !last {
		return
	}
	w.open(`barline location="right"`)
	switch {
	case m.RepeatEnd || last:
		w.text("bar-style", "light-heavy")
	case m.DoubleBar:
		w.text("bar-style", "light-light")
	}
	if m.EndingStop {
		w.empty(fmt.Sprintf(`ending number="%s" type="stop"`, m.EndingText()))
	}
	if m.RepeatEnd {
		times := ""
		if m.Times > 2 {
			times = fmt.Sprintf(` times="%d"`, m.Times)
		}
		w.empty(`repeat direction="backward"` + times)
	}
	w.close("barline")
}

// attributes writes what changes at the start of a measure.
func (w *writer) attributes(p score.Part, i int) {
	m := p.Measures[i]
	var before score.Measure
	if i > 0 {
		before = p.Measures[i-1]
	}
	key, meter, clef := i == 0 || m.Key != before.Key, i == 0 || m.Meter != before.Meter, i == 0 || m.Clef != before.Clef
	several := w.rests[i]
	if !key && !meter && !clef && several <= 0 {
		return
	}
	w.open("attributes")
	if i == 0 {
		w.number("divisions", w.divisions)
	}
	if key {
		w.open("key")
		w.number("fifths", int64(m.Key.Fifths))
		if m.Key.Mode != "" {
			w.text("mode", m.Key.Mode)
		}
		w.close("key")
	}
	if meter {
		symbol := ""
		if m.Meter.Symbol != "" {
			symbol = fmt.Sprintf(` symbol="%s"`, m.Meter.Symbol)
		}
		w.open("time" + symbol)
		w.number("beats", int64(m.Meter.Beats))
		w.number("beat-type", int64(m.Meter.Unit))
		w.close("time")
	}
	if clef {
		w.open("clef")
		w.text("sign", m.Clef.Sign)
		if m.Clef.Sign != "percussion" {
			w.number("line", int64(m.Clef.Line))
		}
		if m.Clef.Octave != 0 {
			w.number("clef-octave-change", int64(m.Clef.Octave))
		}
		w.close("clef")
	}
	if i == 0 && p.Transposition != (score.Interval{}) {
		w.open("transpose")
		octaves := p.Transposition.Semitones / 12
		w.number("diatonic", int64(p.Transposition.Steps-7*octaves))
		w.number("chromatic", int64(p.Transposition.Semitones-12*octaves))
		if octaves != 0 {
			w.number("octave-change", int64(octaves))
		}
		w.close("transpose")
	}
	if several > 0 {
		w.open("measure-style")
		w.number("multiple-rest", int64(several))
		w.close("measure-style")
	}
	w.close("attributes")
}

// directions writes what stands over the start of a measure.
func (w *writer) directions(s score.Score, i int, m score.Measure) {
	if i == 0 && (s.TempoWords != "" || s.Tempo.PerMinute > 0) {
		w.tempo(s)
	}
	if m.Rehearsal != "" {
		w.direction(func() { w.text("rehearsal", m.Rehearsal) }, "")
	}
	if m.Segno {
		w.direction(func() { w.empty("segno") }, `segno="segno"`)
	}
	if m.Coda {
		w.direction(func() { w.empty("coda") }, `coda="coda"`)
	}
}

func (w *writer) tempo(s score.Score) {
	w.open(`direction placement="above" directive="yes"`)
	if s.TempoWords != "" {
		w.open("direction-type")
		w.text("words", s.TempoWords)
		w.close("direction-type")
	}
	if s.Tempo.PerMinute > 0 {
		value, _ := score.ValueOf(s.Tempo.Beat)
		w.open("direction-type")
		w.open("metronome")
		w.text("beat-unit", typeName(value.Base))
		for range value.Dots {
			w.empty("beat-unit-dot")
		}
		w.number("per-minute", int64(s.Tempo.PerMinute))
		w.close("metronome")
		w.close("direction-type")
	}
	w.close("direction")
}

func (w *writer) direction(content func(), sound string) {
	w.open(`direction placement="above"`)
	w.open("direction-type")
	content()
	w.close("direction-type")
	if sound != "" {
		w.empty("sound " + sound)
	}
	w.close("direction")
}

// jumps writes the instructions at the end of a measure.
func (w *writer) jumps(m score.Measure) {
	if m.ToCoda {
		w.direction(func() { w.text("words", "To Coda") }, `tocoda="coda"`)
	}
	if m.Fine {
		w.direction(func() { w.text("words", "Fine") }, `fine="yes"`)
	}
	al := ""
	if m.Jump.Al != "" {
		al = " al " + strings.ToUpper(m.Jump.Al[:1]) + m.Jump.Al[1:]
	}
	switch m.Jump.To {
	case "capo":
		w.direction(func() { w.text("words", "D.C."+al) }, `dacapo="yes"`)
	case "segno":
		w.direction(func() { w.text("words", "D.S."+al) }, `dalsegno="segno"`)
	}
}

var typeNames = map[int]string{0: "breve", 1: "whole", 2: "half", 4: "quarter", 8: "eighth", 16: "16th",
	32: "32nd", 64: "64th"}

func typeName(base int) string { return typeNames[base] }

func (w *writer) event(p score.Part, i, j int) {
	e := p.Measures[i].Events[j]
	if e.Dynamic != "" {
		w.direction(func() {
			w.open("dynamics")
			w.empty(e.Dynamic)
			w.close("dynamics")
		}, "")
	}
	if e.Hairpin != "" {
		w.direction(func() { w.empty(fmt.Sprintf(`wedge type="%s"`, e.Hairpin)) }, "")
	}
	for _, text := range []string{e.Text, e.Sticking} {
		if text != "" {
			w.direction(func() { w.text("words", text) }, "")
		}
	}
	for range e.Graces {
		w.grace(e)
	}
	w.note(p, i, j, e, e.Pitch, false)
	for _, other := range e.Others {
		w.note(p, i, j, e, other, true)
	}
	if e.HairpinEnds {
		w.direction(func() { w.empty(`wedge type="stop"`) }, "")
	}
}

// grace writes one small stroke before a stroke.
func (w *writer) grace(e score.Event) {
	w.open("note")
	w.empty(`grace slash="yes"`)
	w.unpitched(e.Pitch)
	w.text("voice", "1")
	w.text("type", "eighth")
	w.close("note")
}

func (w *writer) unpitched(p score.Pitch) {
	w.open("unpitched")
	w.text("display-step", p.Step.String())
	w.number("display-octave", int64(p.Octave))
	w.close("unpitched")
}

func (w *writer) note(p score.Part, i, j int, e score.Event, pitch score.Pitch, chord bool) {
	w.open("note")
	if chord {
		w.empty("chord")
	}
	switch {
	case e.Kind == score.Rest && e.WholeMeasure:
		w.empty(`rest measure="yes"`)
	case e.Kind == score.Rest:
		w.empty("rest")
	case e.Unpitched:
		w.unpitched(pitch)
	default:
		w.open("pitch")
		w.text("step", pitch.Step.String())
		if pitch.Alter != 0 {
			w.number("alter", int64(pitch.Alter))
		}
		w.number("octave", int64(pitch.Octave))
		w.close("pitch")
	}
	w.number("duration", e.Length.Mul(score.Frac(4*w.divisions, 1)).Num())
	stops, starts := ties(p, i, j, pitch, chord)
	if stops {
		w.empty(`tie type="stop"`)
	}
	if starts {
		w.empty(`tie type="start"`)
	}
	w.text("voice", "1")
	if !e.WholeMeasure {
		w.text("type", typeName(e.Value.Base))
		for range e.Value.Dots {
			w.empty("dot")
		}
	}
	if e.Sign && !chord {
		w.text("accidental", map[int]string{-2: "flat-flat", -1: "flat", 0: "natural", 1: "sharp",
			2: "double-sharp"}[pitch.Alter])
	}
	if t := e.Value.Tuplet; t.Actual > 0 {
		w.open("time-modification")
		w.number("actual-notes", int64(t.Actual))
		w.number("normal-notes", int64(t.Normal))
		w.close("time-modification")
	}
	w.notations(e, stops, starts, chord)
	w.close("note")
}

// ties says whether a tie stops or starts on one note of an event.
func ties(p score.Part, i, j int, pitch score.Pitch, chord bool) (stops, starts bool) {
	e := p.Measures[i].Events[j]
	starts = !chord && e.TieOn || chord && slices.Contains(e.InnerTies, pitch)
	if before := p.Before(score.Place{Measure: i, Event: j}); !e.Restruck && before != nil && before.Kind == score.Note {
		stops = before.Unpitched && before.TieOn || before.Holds(pitch)
	}
	return stops, starts
}

// notations writes ties, slurs, tuplet brackets and marks, in the order of the
// standard; of a further note of a chord the ties alone.
func (w *writer) notations(e score.Event, stops, starts, chord bool) {
	var b strings.Builder
	add := func(format string, args ...any) { fmt.Fprintf(&b, format, args...) }
	if stops {
		add(`<tied type="stop"/>`)
	}
	if starts {
		add(`<tied type="start"/>`)
	}
	if chord {
		e = score.Event{}
	}
	for range e.SlurEnds {
		if w.slurs > 0 {
			add(`<slur number="%d" type="stop"/>`, (w.slurs-1)%6+1)
			w.slurs--
		}
	}
	for range e.SlurStarts {
		w.slurs++
		add(`<slur number="%d" type="start"/>`, (w.slurs-1)%6+1)
	}
	if e.TupletStarts {
		add(`<tuplet type="start"/>`)
	}
	if e.TupletEnds {
		add(`<tuplet type="stop"/>`)
	}
	technical, articulations, fermata := "", "", ""
	for _, m := range e.Marks {
		switch m {
		case score.UpBow, score.DownBow:
			technical += "<" + string(m) + "/>"
		case score.Fermata:
			fermata += "<fermata/>"
		case score.Breath:
			articulations += "<breath-mark/>"
		default:
			articulations += "<" + string(m) + "/>"
		}
	}
	technical += fingerElements(e)
	if e.Roll {
		add(`<ornaments><tremolo type="single">3</tremolo></ornaments>`)
	}
	if technical != "" {
		add("<technical>%s</technical>", technical)
	}
	if articulations != "" {
		add("<articulations>%s</articulations>", articulations)
	}
	b.WriteString(fermata)
	if b.Len() > 0 {
		w.open("notations")
		w.b.WriteString(b.String())
		w.close("notations")
	}
}

// fingerElements writes what is printed for the left hand.
func fingerElements(e score.Event) string {
	text := ""
	switch e.Fingering {
	case "":
	case "0", "open":
		text = "<open-string/>"
	case "thumb":
		text = "<thumb-position/>"
	case "harmonic":
		text = "<harmonic/>"
	default:
		var b strings.Builder
		_ = xml.EscapeText(&b, []byte(e.Fingering)) // a strings.Builder does not fail
		text = "<fingering>" + b.String() + "</fingering>"
	}
	if e.String > 0 {
		text += fmt.Sprintf("<string>%d</string>", e.String)
	}
	return text
}
