package abc

import (
	"strings"

	"unhurriedbench/core/score"
)

// voice is the music of one V: voice while it is being read.
type voice struct {
	r       *reader
	id      string
	unnamed bool // music came before any V: line
	part    score.Part

	settings
	own     []ownSetting // of its V: line, before the body begins
	ownClef bool
	entered bool

	measure     score.Measure // the one being filled
	accidentals map[spot]accidental
	tuplet      tuplet
	broken      score.Fraction // what > or < gives the next note; 0 when none
	last        *score.Event   // the note just read in this measure
	next        score.Event    // signs waiting for the note they belong to
	repeatStart bool           // the next measure starts a repeat
	times       int            // how often the strain that has begun is played, 0 for twice
	endings     []int          // in force
	endingStart bool
	barLine     int        // the line of a plain bar line read last
	missed      bool       // nothing stands between it and the next
	line        []lineNote // the notes of the line of music read last
}

// ownSetting is octave= or transpose= of a V: line.
type ownSetting struct {
	name string
	n    int
}

// lineNote is where a note stands: its measure, and how many notes come before it there.
// Rests are not counted, since one of them may be written as several.
type lineNote struct {
	measure, note int
}

// spot is what an accidental governs: a letter, and in octave mode its octave.
type spot struct {
	step   score.Step
	octave int
}

// accidental is one that governs later notes of its measure.
type accidental struct {
	alter  int
	octave int // where it was written
}

// tuplet is the group being read; left is how many notes it still wants.
type tuplet struct {
	ratio  score.Ratio
	left   int
	starts bool
}

func newVoice(r *reader, id string) *voice {
	return &voice{r: r, id: id}
}

// enter takes the tune's settings when the body begins.
func (v *voice) enter() {
	if v.entered {
		return
	}
	v.entered = true
	clef := v.clef
	v.settings = v.r.header
	if v.ownClef {
		v.clef = clef
	}
	for _, s := range v.own {
		v.set(s.name, s.n)
	}
	v.part.Transposition = v.sounds
	v.startMeasure()
}

func (v *voice) setOwnClef(c score.Clef) {
	v.clef, v.ownClef = c, true
	if v.entered && len(v.measure.Events) == 0 {
		v.measure.Clef = c
	}
}

// settingsChanged takes a field that stands in the body. A change in the middle
// of a measure counts from the next one, except the key, which counts at once
// for the notes that follow.
func (v *voice) settingsChanged() {
	switch {
	case v.sounds == v.part.Transposition:
	case v.empty():
		v.part.Transposition = v.sounds
	default:
		v.r.remark("transposed", "the transposition changes in the middle; the music is read as at its beginning.",
			"Bring what follows in by itself.")
		v.sounds = v.part.Transposition
	}
	if len(v.measure.Events) == 0 {
		v.measure.Meter, v.measure.Key, v.measure.Clef = v.meter, v.key, v.clef
	}
}

func (v *voice) startMeasure() {
	v.measure = score.Measure{Meter: v.meter, Key: v.key, Clef: v.clef, Line: v.r.line}
	v.accidentals = map[spot]accidental{}
	v.last = nil
}

// endLine gives signs that stand after the last bar line of a line of music to the
// measure before it.
func (v *voice) endLine() {
	n := len(v.part.Measures)
	if len(v.measure.Events) > 0 || n == 0 {
		return
	}
	m, before := &v.measure, &v.part.Measures[n-1]
	before.Add(score.Signs{Jump: m.Jump, Fine: m.Fine, ToCoda: m.ToCoda, Times: m.Said})
	m.Jump, m.Fine, m.ToCoda, m.Said = score.Jump{}, false, false, 0
}

// stick gives the strokes of the line of music before it their hands: R, L, * for one
// that has none, | for a bar line. It takes nothing else.
func (v *voice) stick(words []string) bool {
	for _, word := range words {
		if !strings.Contains("RL*_|", word) {
			return false
		}
	}
	n := 0
	for _, word := range words {
		if word == "|" || n >= len(v.line) {
			continue
		}
		if word == "R" || word == "L" {
			v.noteAt(v.line[n]).Sticking = word
		}
		n++
	}
	return true
}

// noteAt is a note of the part, or of the measure being filled.
func (v *voice) noteAt(at lineNote) *score.Event {
	events := v.measure.Events
	if at.measure < len(v.part.Measures) {
		events = v.part.Measures[at.measure].Events
	}
	for i := range events {
		if events[i].Kind != score.Note {
			continue
		}
		if at.note == 0 {
			return &events[i]
		}
		at.note--
	}
	return &score.Event{}
}

// addEvent appends a note or rest whose Length is still as typed, before any
// tuplet, and gives it the signs that were waiting.
func (v *voice) addEvent(e score.Event) {
	v.r.events++
	switch {
	case len(v.measure.Events) == score.MostInMeasure:
		v.r.stop(score.TooFull(-1, v.measure.Line))
		return
	case v.r.events > score.MostEvents:
		v.r.stop(score.TooManyEvents())
		return
	case score.TooLong(e.Length):
		v.r.fail("a note or rest is longer than eight whole notes.", "Check the number after it, and the L: line.")
		e.Length = v.unit
	}
	if len(v.measure.Events) == 0 {
		v.measure.Line, v.measure.Column = v.r.line, v.r.column
	}
	e.Line = v.r.line
	if !v.broken.IsZero() {
		e.Length = e.Length.Mul(v.broken)
		v.broken = score.Fraction{}
	}
	e.SlurStarts, e.Marks, e.Sticking = v.next.SlurStarts, v.next.Marks, v.next.Sticking
	e.Text, e.Dynamic = v.next.Text, v.next.Dynamic
	e.Hairpin, e.HairpinEnds = v.next.Hairpin, v.next.HairpinEnds
	e.Graces, e.Roll = v.next.Graces, v.next.Roll
	e.Fingering = v.next.Fingering
	v.next = score.Event{}
	if v.tuplet.left > 0 {
		e.Value.Tuplet = v.tuplet.ratio
		e.TupletStarts = v.tuplet.starts
		v.tuplet.starts = false
		v.tuplet.left--
		e.TupletEnds = v.tuplet.left == 0
	}
	if e.Kind == score.Note {
		before := 0
		for _, e := range v.measure.Events {
			if e.Kind == score.Note {
				before++
			}
		}
		v.line = append(v.line, lineNote{measure: len(v.part.Measures), note: before})
	}
	v.measure.Events = append(v.measure.Events, e)
	v.last = &v.measure.Events[len(v.measure.Events)-1]
}

// closeMeasure ends the measure at a bar line. An empty one is not kept.
func (v *voice) closeMeasure(repeatEnd, final, double bool) {
	if v.tuplet.left > 0 {
		v.r.fail("a tuplet is not complete at the bar line.", "Give it all its notes, or check the number after the bracket.")
		v.tuplet = tuplet{}
	}
	if len(v.measure.Events) == 0 {
		v.closeEmpty(repeatEnd, final, double)
		return
	}
	events := make([]score.Event, 0, len(v.measure.Events))
	for _, e := range v.measure.Events {
		events = append(events, v.written(e)...)
	}
	m := v.measure
	m.Events = events
	m.RepeatStart = v.repeatStart
	m.RepeatEnd = repeatEnd
	if repeatEnd {
		m.Times = v.times
	}
	m.DoubleBar = double || final
	m.Endings = v.endings
	m.EndingStart = v.endingStart
	m.Missed = v.missed
	v.repeatStart, v.endingStart, v.missed = false, false, false
	v.part.Measures = append(v.part.Measures, m)
	if len(v.part.Measures) == score.MostMeasures+1 {
		v.r.stop(score.TooManyMeasures(len(v.part.Measures)))
	}
	v.endEnding(repeatEnd || final || double)
	v.startMeasure()
}

// closeEmpty gives the signs of a bar line with nothing before it to the
// measure already closed, as in "| :|" or a line break between two bar lines.
func (v *voice) closeEmpty(repeatEnd, final, double bool) {
	v.endLine()
	if n := len(v.part.Measures); n > 0 {
		before := &v.part.Measures[n-1]
		if repeatEnd && !before.RepeatEnd {
			before.RepeatEnd, before.Times = true, v.times
		}
		before.DoubleBar = before.DoubleBar || double || final
		v.endEnding(repeatEnd || final || double)
	}
}

func (v *voice) endEnding(ends bool) {
	if ends && len(v.endings) > 0 {
		v.part.Measures[len(v.part.Measures)-1].EndingStop = true
		v.endings = nil
	}
}

// written gives an event its note value. A rest that no single value fits is
// written as several.
func (v *voice) written(e score.Event) []score.Event {
	if e.WholeMeasure {
		e.Value = score.Value{Base: 1}
		return []score.Event{e}
	}
	if value, ok := score.ValueOf(e.Length); ok {
		value.Tuplet = e.Value.Tuplet
		e.Value, e.Length = value, value.Length()
		return []score.Event{e}
	}
	if e.Kind == score.Rest && e.Value.Tuplet.Actual == 0 {
		if values, ok := score.ValuesOf(e.Length); ok {
			var rests []score.Event
			for _, value := range values {
				e.Value, e.Length = value, value.Length()
				rests = append(rests, e)
				e.Marks, e.Text, e.Dynamic = nil, "", ""
			}
			return rests
		}
	}
	v.r.problems = append(v.r.problems, score.Problem{
		Measure: -1, Line: e.Line,
		What: "a length of " + e.Length.String() + " of a whole note cannot be written as one note.",
		Do:   "Write it as two notes joined by a tie, for example A4-A.",
	})
	e.Length = score.Frac(1, 4)
	return []score.Event{e}
}

// closeLast ends a tune that stops without a bar line.
func (v *voice) closeLast() {
	v.closeMeasure(false, true, false)
	if n := len(v.part.Measures); n > 0 && len(v.endings) > 0 {
		v.part.Measures[n-1].EndingStop = true
	}
}

func (v *voice) empty() bool { return len(v.part.Measures) == 0 && len(v.measure.Events) == 0 }
