package breakdown

import (
	"fmt"
	"slices"

	"unhurriedbench/core/score"
)

// PracticeVersion is a way to write an exercise again, so that one thing of it is practised alone. A
// line is a part like any other. Source: common practice.
type PracticeVersion string

// The lines.
const (
	OneNote   PracticeVersion = "one-note"  // its rhythm on one note
	EvenWalk  PracticeVersion = "even-walk" // its pitches as half notes
	Longer    PracticeVersion = "longer"    // the pitches of one chunk as whole notes, halves and quarters, then as written
	AddANote  PracticeVersion = "add-a-note"
	Unslurred PracticeVersion = "unslurred"  // each chunk without its slurs, then with them
	Pulsed    PracticeVersion = "pulsed"     // every eighth struck
	PulsedOne PracticeVersion = "pulsed-one" // every eighth struck, on one note
	HeldFirst PracticeVersion = "held"       // the first note of each chunk held before it goes on
	LastFirst PracticeVersion = "last-first"
	Alone     PracticeVersion = "alone" // one chunk as it is written
)

// Title is what a teacher calls the line.
func (l PracticeVersion) Title() string {
	return map[PracticeVersion]string{
		OneNote: "Rhythm only", EvenWalk: "Notes only", Longer: "Longer values first", AddANote: "Add a note", Unslurred: "Slurs last",
		Pulsed: "Rhythm in pulsed eighths", PulsedOne: "Pulsed eighths on one note", HeldFirst: "Hold the first note", LastFirst: "Last measure first", Alone: "One chunk alone",
	}[l]
}

// Why says what the line is for.
func (l PracticeVersion) Why() string {
	return map[PracticeVersion]string{
		OneNote:   "Only the rhythm is left: the hands have nothing to do.",
		EvenWalk:  "Only the notes are left, each as long as the next: time to find them.",
		Longer:    "Whole notes, half notes, quarters, then as it is written: the hands have time before the rhythm comes.",
		AddANote:  "One note more each time, until the chunk is whole.",
		Unslurred: "Each chunk first with every note begun anew, then as it is written.",
		Pulsed:    "Long notes as the eighths they are made of: nobody leaves them early.",
		PulsedOne: "The rhythm in its eighths, and nothing else: where each note begins is still to be felt.",
		HeldFirst: "The first note of each chunk is held a measure long before the chunk begins.",
		LastFirst: "The end first, then a measure more before it each time: it leads to what is known.",
		Alone:     "Nothing else to look at.",
	}[l]
}

// TakesChunk says whether the line is made of one chunk.
func (l PracticeVersion) TakesChunk() bool {
	return l == Longer || l == AddANote || l == LastFirst || l == Alone
}

// inPlace says whether the line keeps the measures of the exercise, and so its chunks.
func (l PracticeVersion) inPlace() bool { return l == OneNote || l == Pulsed || l == PulsedOne }

// PracticeVersions lists the lines that can be made of a part.
func PracticeVersions(part score.Part) []PracticeVersion {
	list := []PracticeVersion{OneNote, EvenWalk, Longer, AddANote, Unslurred, Pulsed, PulsedOne, HeldFirst, LastFirst, Alone}
	struck, slurs, long := 0, 0, false
	for _, at := range part.Notes() {
		e := part.At(at)
		if !e.Tied {
			struck++
		}
		slurs += e.SlurStarts
		long = long || score.Frac(1, 8).Less(e.Length)
	}
	return slices.DeleteFunc(list, func(l PracticeVersion) bool {
		switch l {
		case OneNote, EvenWalk, Longer:
			return part.Unpitched() || struck == 0
		case Unslurred:
			return slurs == 0
		case Pulsed:
			return !long
		case PulsedOne:
			return !long || part.Unpitched()
		case AddANote:
			return struck <= FewestFirst
		case LastFirst, Alone:
			return len(part.Measures) < 2
		}
		return struck == 0
	})
}

// Derived is a line with the chunks it is learned in, and where its notes come from.
type Derived struct {
	Score  score.Score
	Chunks []Chunk

	from [][]score.Place // of each event, in the exercise
}

// From is the place in the exercise that an event of the line comes from; ok is false for
// what the line adds.
func (d Derived) From(at score.Place) (from score.Place, ok bool) {
	from = d.from[at.Measure][at.Event]
	return from, from != nowhere
}

var nowhere = score.Place{Measure: -1, Event: -1}

// FewestFirst and MostFirst bound how many notes adding a note begins with. Source: common
// practice, three to five.
const (
	FewestFirst = 3
	MostFirst   = 5
)

// FirstNotes is with how many notes adding a note begins where so many are asked for.
func FirstNotes(asked int) int { return min(max(asked, FewestFirst), MostFirst) }

// mostAdded bounds how many times notes or measures are added.
const mostAdded = 24

// VersionAsk is what may be chosen of a line.
type VersionAsk struct {
	On    score.Pitch // the written note of lines on one note
	First int         // how many notes AddANote begins with; 0 for the fewest
}

// Derive writes a line of a part. within is the chunk that lines that take one (TakesChunk)
// are made of, or the whole.
func Derive(line PracticeVersion, title string, part score.Part, chunks []Chunk, within Chunk,
	ask VersionAsk) (Derived, error) {
	if line == PulsedOne {
		return derivePulsedOne(title, part, chunks, ask)
	}
	w := versionWriter{part: part, line: score.Part{Name: part.Name, Transposition: part.Transposition}}
	switch line {
	case OneNote, Pulsed:
		for i, m := range part.Measures {
			w.add(w.rewritten(line, i, m, ask.On))
		}
		w.chunks = slices.Clone(chunks)
	case EvenWalk:
		w.each(chunks, func(p Chunk) { w.walk(p, 2) }, "half notes")
	case Longer:
		w.longer(within)
	case AddANote:
		w.addANote(within, FirstNotes(ask.First))
	case Unslurred:
		w.unslurred(chunks)
	case HeldFirst:
		w.each(chunks, func(p Chunk) { w.held(p) }, "held, then on")
	case LastFirst:
		w.lastFirst(within)
	case Alone:
		w.alone(within)
	default:
		return Derived{}, fmt.Errorf("%q is not a line", line)
	}
	if !line.inPlace() {
		w.number()
	}
	if line == Alone { // it keeps the numbers of its measures, by which it is found
		first := max(part.Measures[within.Passages(part)[0].At].Number, 0)
		for i := range w.line.Measures {
			w.line.Measures[i].Number = first + i
		}
		w.chunks[0].Measures = slices.Clone(within.Measures) // without that in which its pickup stands
	}
	w.line.MarkAccidentals()
	return Derived{score.Score{Title: line.Title() + ": " + title, Parts: []score.Part{w.line}}, w.chunks, w.from}, nil
}

// derivePulsedOne writes every eighth of a part on one note.
func derivePulsedOne(title string, part score.Part, chunks []Chunk, ask VersionAsk) (Derived, error) {
	one, err := Derive(OneNote, title, part, chunks, Chunk{}, ask)
	if err != nil {
		return Derived{}, err
	}
	pulsed, err := Derive(Pulsed, title, one.Score.Parts[0], chunks, Chunk{}, ask)
	if err != nil {
		return Derived{}, err
	}
	for i := range pulsed.from {
		for j, at := range pulsed.from[i] {
			if at != nowhere {
				pulsed.from[i][j] = one.from[at.Measure][at.Event]
			}
		}
	}
	pulsed.Score.Title = PulsedOne.Title() + ": " + title
	return pulsed, nil
}

// bar is a measure of a line, and where its events come from.
type bar struct {
	score.Measure
	from []score.Place
}

func (b *bar) add(e score.Event, from score.Place) {
	b.Events, b.from = append(b.Events, e), append(b.from, from)
}

type versionWriter struct {
	part, line score.Part
	from       [][]score.Place
	chunks     []Chunk
}

func (w *versionWriter) add(bars ...bar) {
	for _, b := range bars {
		w.line.Measures, w.from = append(w.line.Measures, b.Measure), append(w.from, b.from)
	}
}

// chunk makes a chunk of what has been added since a measure.
func (w *versionWriter) chunk(label, why string, from int) {
	if from == len(w.line.Measures) {
		return
	}
	p := Chunk{Label: label, Why: why}
	for i := from; i < len(w.line.Measures); i++ {
		p.At, p.Measures = append(p.At, i), append(p.Measures, i+1)
	}
	last := &w.line.Measures[len(w.line.Measures)-1]
	last.DoubleBar = true
	w.closeTies(from)
	w.chunks = append(w.chunks, p)
}

// number numbers the measures and says where each event starts.
func (w *versionWriter) number() {
	for i := range w.line.Measures {
		m := &w.line.Measures[i]
		m.Number = i + 1
		at := score.Fraction{}
		for j := range m.Events {
			m.Events[j].Start = at
			at = at.Add(m.Events[j].Length)
		}
		if len(m.Events) == 1 && m.Events[0].Kind == score.Rest {
			m.Events[0].WholeMeasure, m.Events[0].Value = true, score.Value{Base: 1}
		}
	}
}

// closeTies cuts the ties and slurs that lead into the measures from one on, or out of the
// last, and ties to a note that is struck in the exercise, as in a second ending.
func (w *versionWriter) closeTies(from int) {
	stretch := score.Part{Measures: w.line.Measures[from:]}
	stretch.CloseSlurs()
	stretch.CloseHairpins()
	stretch.CutTies()
}

// each writes every chunk but the whole in its own way.
func (w *versionWriter) each(chunks []Chunk, write func(Chunk), why string) {
	for _, p := range chunks {
		if p.Whole() {
			continue
		}
		from := len(w.line.Measures)
		write(p)
		w.chunk(p.Label, p.InWords()+", "+why, from)
	}
}

// plain is a measure in the meter, key and clef of another, without its signs.
func plain(m score.Measure) bar {
	return bar{Measure: score.Measure{Meter: m.Meter, Key: m.Key, Clef: m.Clef, Length: m.Meter.Length()}}
}

// passage copies as much of a measure as belongs to a chunk, up to a place in it, with
// rests for what is left out.
func (w *versionWriter) passage(p Passage, to score.Fraction) bar {
	m := w.part.Measures[p.At]
	b := plain(m)
	at := score.Fraction{} // up to where it is filled
	for j, e := range m.Events {
		out := e.Start.Less(p.From) || !e.Start.Less(to)
		if out && e.Value.Tuplet.Actual == 0 {
			continue
		}
		b.rest(at, e.Start)
		at = e.Start.Add(e.Length)
		if out {
			b.add(score.Event{Kind: score.Rest, Length: e.Length, Value: e.Value}, nowhere)
			continue
		}
		e.Text, e.Dynamic, e.Sign = "", "", false
		e.Hairpin, e.HairpinEnds = "", false
		e.Others, e.InnerTies = slices.Clone(e.Others), slices.Clone(e.InnerTies)
		b.add(e, score.Place{Measure: p.At, Event: j})
	}
	b.rest(at, m.Meter.Length())
	return b
}

// rest fills from one place to another with rests, none across a beat but whole beats.
func (b *bar) rest(from, to score.Fraction) {
	beat := b.Meter.Beat()
	for from.Less(to) {
		next := from.Sub(from.Within(beat)).Add(beat)
		if to.Less(next) {
			next = to
		}
		values, _ := score.ValuesOf(next.Sub(from))
		for _, v := range values {
			b.add(score.Event{Kind: score.Rest, Length: v.Length(), Value: v}, nowhere)
		}
		from = next
	}
}

// passages copies a chunk.
func (w *versionWriter) passages(list []Passage) []bar {
	bars := make([]bar, len(list))
	for k, p := range list {
		bars[k] = w.passage(p, p.To)
	}
	return bars
}

// rewritten is a measure on one note, or with its long notes struck on every eighth.
func (w *versionWriter) rewritten(line PracticeVersion, i int, m score.Measure, on score.Pitch) bar {
	b := bar{Measure: m}
	b.Events = nil
	for j, e := range m.Events {
		from := score.Place{Measure: i, Event: j}
		e.Sign, e.SlurStarts, e.SlurEnds, e.Others, e.InnerTies = false, 0, 0, nil, nil
		e.Fingering, e.String = "", 0
		switch {
		case e.Kind == score.Rest:
			b.add(e, from)
		case line == OneNote:
			e.Pitch = on
			b.add(e, from)
		default:
			e.TieOn, e.Tied = false, false
			for _, eighth := range eighths(e) {
				b.add(eighth, from)
			}
		}
	}
	return b
}

// eighths strikes a note on every eighth of its length; one of a tuplet, or of no more than
// an eighth, is left as it is.
func eighths(e score.Event) []score.Event {
	eighth := score.Frac(1, 8)
	if e.Value.Tuplet.Actual > 0 || e.Length.Cmp(eighth) <= 0 || e.Roll {
		return []score.Event{e}
	}
	var list []score.Event
	for at, end := e.Start, e.Start.Add(e.Length); at.Less(end); {
		next := at.Sub(at.Within(eighth)).Add(eighth)
		if end.Less(next) {
			next = end
		}
		part := e
		part.Start, part.Length = at, next.Sub(at)
		value, whole := score.ValueOf(part.Length)
		if !whole {
			return []score.Event{e}
		}
		part.Value = value
		if len(list) > 0 {
			part.Marks, part.Text, part.Dynamic, part.Graces, part.Hairpin = nil, "", "", 0, ""
		}
		list, at = append(list, part), next
	}
	return list
}

// walk writes the struck notes of a chunk all as whole notes, halves or quarters: base is 1, 2
// or 4, and as many stand in a measure.
func (w *versionWriter) walk(p Chunk, base int) {
	value := score.Value{Base: base}
	var b *bar
	for _, passage := range p.Passages(w.part) {
		m := w.part.Measures[passage.At]
		m.Meter = score.Meter{Beats: 4, Unit: 4}
		for j, e := range m.Events {
			if e.Kind == score.Rest || e.Tied || e.Start.Less(passage.From) || !e.Start.Less(passage.To) {
				continue
			}
			if b == nil {
				next := plain(m)
				b = &next
			}
			b.add(score.Event{Length: value.Length(), Value: value, Pitch: e.Pitch},
				score.Place{Measure: passage.At, Event: j})
			if len(b.Events) == base {
				w.add(*b)
				b = nil
			}
		}
	}
	if b != nil {
		b.rest(score.Frac(int64(len(b.Events)), int64(base)), score.Frac(1, 1))
		w.add(*b)
	}
}

// longer writes a chunk's notes as whole notes, as halves and as quarters, then the chunk.
func (w *versionWriter) longer(p Chunk) {
	for _, value := range []struct {
		base int
		name string
	}{{1, "whole notes"}, {2, "half notes"}, {4, "quarter notes"}} {
		from := len(w.line.Measures)
		w.walk(p, value.base)
		w.chunk(value.name, p.InWords()+", "+value.name, from)
	}
	from := len(w.line.Measures)
	w.add(w.passages(p.Passages(w.part))...)
	w.chunk("as written", p.InWords()+", as it is written", from)
}

// addANote writes the beginning of a chunk again and again, a note longer each time.
func (w *versionWriter) addANote(p Chunk, first int) {
	var struck []score.Place // a passage and an event of it
	list := p.Passages(w.part)
	for k, passage := range list {
		for j, e := range w.part.Measures[passage.At].Events {
			if e.Kind == score.Note && !e.Tied && !e.Start.Less(passage.From) && e.Start.Less(passage.To) {
				struck = append(struck, score.Place{Measure: k, Event: j})
			}
		}
	}
	for n := max(min(first, len(struck)), len(struck)-mostAdded); n <= len(struck); n++ {
		from := len(w.line.Measures)
		last, end := len(list)-1, list[len(list)-1].To
		if n < len(struck) { // it ends before the note after
			next := struck[n]
			last, end = next.Measure, w.part.Measures[list[next.Measure].At].Events[next.Event].Start
			if end == list[last].From {
				last, end = last-1, list[last-1].To
			}
		}
		w.add(w.passages(list[:last])...)
		w.add(w.passage(list[last], end))
		why := fmt.Sprintf("%s, %d notes", p.InWords(), n)
		if n == len(struck) {
			why = p.InWords() + ", the whole"
		}
		w.chunk(label(len(w.chunks)), why, from)
	}
}

// unslurred writes each chunk without its slurs, and those that have some once more with
// them.
func (w *versionWriter) unslurred(chunks []Chunk) {
	for _, p := range chunks {
		if p.Whole() {
			continue
		}
		bars := w.passages(p.Passages(w.part))
		slurs := 0
		from := len(w.line.Measures)
		for _, b := range bars {
			b.Events = slices.Clone(b.Events)
			for j := range b.Events {
				slurs += b.Events[j].SlurStarts
				b.Events[j].SlurStarts, b.Events[j].SlurEnds = 0, 0
			}
			w.add(b)
		}
		w.chunk(p.Label, p.InWords()+", without slurs", from)
		if slurs > 0 {
			from = len(w.line.Measures)
			w.add(bars...)
			w.chunk(p.Label+" slurred", p.InWords()+", as written", from)
		}
	}
}

// held writes the first note of a chunk over a measure, and then the chunk.
func (w *versionWriter) held(p Chunk) {
	for _, passage := range p.Passages(w.part) {
		m := w.part.Measures[passage.At]
		for j, e := range m.Events {
			if e.Kind == score.Rest || e.Start.Less(passage.From) {
				continue
			}
			b := plain(m)
			values, ok := score.ValuesOf(m.Meter.Length())
			if !ok {
				break
			}
			for k, v := range values {
				b.add(score.Event{Length: v.Length(), Value: v, Pitch: e.Pitch, Unpitched: e.Unpitched, Roll: e.Roll,
					TieOn: k < len(values)-1, Tied: k > 0},
					score.Place{Measure: passage.At, Event: j})
			}
			w.add(b)
			w.add(w.passages(p.Passages(w.part))...)
			return
		}
	}
}

// alone writes a chunk as it stands, with what is written over it.
func (w *versionWriter) alone(p Chunk) {
	for _, b := range w.passages(p.Passages(w.part)) {
		for j, at := range b.from {
			if at != nowhere {
				from := w.part.At(at)
				b.Events[j].Text, b.Events[j].Dynamic = from.Text, from.Dynamic
			}
		}
		w.add(b)
	}
	w.chunk(p.Label, p.InWords(), 0)
}

// lastFirst writes the last measure of a chunk, then the last two, and so on.
func (w *versionWriter) lastFirst(p Chunk) {
	list := p.Passages(w.part)
	for last := len(list) - 1; last > 0 && !w.holds(list[last], sounds); last-- {
		list = list[:last] // rests at the end are not learned
	}
	step := (len(list) + mostAdded/2 - 1) / (mostAdded / 2)
	for n := step; ; n += step {
		n = min(n, len(list))
		if n < len(list) && !w.holds(list[len(list)-n], strikes) {
			continue // it would begin in the middle of a note
		}
		from := len(w.line.Measures)
		w.add(w.passages(list[len(list)-n:])...)
		why := fmt.Sprintf("the last %d measures", n)
		switch n {
		case len(list):
			why = "the whole"
		case 1:
			why = "the last measure"
		}
		w.chunk(label(len(w.chunks)), p.InWords()+", "+why, from)
		if n == len(list) {
			return
		}
	}
}

func sounds(e score.Event) bool { return e.Kind == score.Note }

func strikes(e score.Event) bool { return e.Kind == score.Note && !e.Tied }

// holds says whether a passage has an event of a kind.
func (w *versionWriter) holds(p Passage, is func(score.Event) bool) bool {
	return slices.ContainsFunc(w.part.Measures[p.At].Events, func(e score.Event) bool {
		return is(e) && !e.Start.Less(p.From) && e.Start.Less(p.To)
	})
}
