package musicxml

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/score"
)

// partReader turns one <part> into a score.Part. Only the first voice of the
// first staff is kept; what else there is becomes a remark.
type partReader struct {
	score     *score.Score
	part      score.Part
	problems  score.Problems
	divisions int // of a quarter note
	meter     score.Meter
	key       score.Key
	clef      score.Clef

	measure score.Measure
	at      score.Fraction // cursor in the measure
	filled  score.Fraction // how far the kept voice reaches
	voice   string         // the voice that is kept in this measure
	number  int            // of the measure, a pickup being 0, for problems
	endings []int
	text    string // waiting for the next note
	dynamic string
	hairpin struct { // waiting too
		begins score.Hairpin
		ends   bool
	}
	slurred   map[string]bool // numbers of slurs that begin on a grace note
	graces    int             // small strokes waiting for the next stroke
	remarks   score.Problems
	remarked  map[string]remarked
	sounding  bool             // it has said one
	shift     score.Interval   // from what is written here to the part's own transposition
	reach     score.Fraction   // how far the measure's voices go
	short     bool             // the measure may be shorter than its meter, as a pickup is
	metered   bool             // it has given a meter
	unmetered int              // how many measures come before that
	repeating int              // how many measures are repeated in place of what is empty
	kept      bool             // the note before was, so that a chord note belongs to it
	events    *int             // notes and rests of the score so far
	stopped   bool             // there is more than a score may have, or finer than can be added
	spoiled   []score.Problems // what keeps each measure from being read that is shown empty
	among     bool             // other parts stand beside it
	uneven    bool             // its measures are read as their bar lines make them
}

// remarked says where a kind of remark stands and in which measure it came last.
type remarked struct{ at, measure int }

func (r *partReader) read(x xmlPart) (score.Part, error) {
	r.remarked, r.slurred = map[string]remarked{}, map[string]bool{}
	first := 1
	if len(x.Measures) > 0 && (x.Measures[0].Implicit == "yes" || x.Measures[0].Number == "0") {
		first = 0
	}
	for i, m := range x.Measures {
		r.number = first + i
		r.readMeasure(m)
		if len(r.part.Measures) > score.MostMeasures {
			r.stop(score.TooManyMeasures(len(r.part.Measures)))
		}
		if r.stopped || len(r.problems) >= mostProblems {
			break
		}
	}
	if 2*len(r.spoiled) > len(r.part.Measures) { // hardly anything is left of it
		r.problems = append(r.problems, slices.Concat(r.spoiled...)...)
	}
	if len(r.problems) > 0 {
		return score.Part{}, r.problems
	}
	for _, wrong := range r.spoiled {
		p := wrong[0]
		p.Do = "The measure is shown empty."
		r.remarks = append(r.remarks, p)
	}
	if r.metered && r.unmetered > 0 {
		before := score.Part{Measures: r.part.Measures[:r.unmetered]}
		r.remarks = append(r.remarks, score.ReadByBars("Before its first time signature", before.MeterByBars(), ""))
	}
	if r.uneven {
		if uneven, found := r.part.UnevenByBars(); found {
			r.remarks = append(r.remarks, uneven)
		}
	} else if r.among && r.metered {
		r.remarks = append(r.remarks, r.part.EmptyUneven()...)
	}
	if !r.metered {
		r.remarks = append(
			r.remarks,
			score.ReadByBars(score.NoMeter, r.part.MeterByBars(),
				"If that is not meant, give it a time signature in the program it comes from."),
		)
	}
	r.closeEndings()
	if err := r.part.Finish(); err != nil {
		return score.Part{}, err
	}
	return r.part, nil
}

// same says whether all words are one word.
func same(words []string) bool { return len(slices.Compact(slices.Clone(words))) < 2 }

// closeEndings ends each ending that the file leaves open: the first ones with their
// repeat, the last with the next double bar or repeat, or the end.
func (r *partReader) closeEndings() {
	for i := range r.part.Measures {
		m := &r.part.Measures[i]
		if len(m.Endings) == 0 || m.EndingStop {
			continue
		}
		last := i+1 == len(r.part.Measures)
		switch {
		case last || r.part.Measures[i+1].EndingStart || len(r.part.Measures[i+1].Endings) == 0:
			m.EndingStop = true
		case m.RepeatEnd || m.DoubleBar || r.part.Measures[i+1].RepeatStart:
			m.EndingStop = true
			r.dropEnding(i + 1)
		}
	}
}

// dropEnding takes the measures from one on out of the ending they were left in.
func (r *partReader) dropEnding(from int) {
	for i := from; i < len(r.part.Measures) && !r.part.Measures[i].EndingStart; i++ {
		r.part.Measures[i].Endings = nil
	}
}

func (r *partReader) readMeasure(x xmlMeasure) {
	r.measure = score.Measure{}
	r.at, r.filled, r.reach = score.Fraction{}, score.Fraction{}, score.Fraction{}
	r.short = x.Implicit == "yes" || x.Number == "0" && len(r.part.Measures) == 0
	r.voice = firstVoice(x)
	before := len(r.problems)
	for _, item := range x.Items {
		if r.stopped {
			return
		}
		switch t := item.(type) {
		case *attributes:
			r.attributes(t)
		case *note:
			r.note(t)
		case *backup:
			r.move(score.Fraction{}.Sub(r.time(t.Duration)))
		case *forward:
			r.move(r.time(t.Duration))
		case *direction:
			r.direction(t)
		case *sound:
			r.sound(t)
		case *barline:
			if t.Location == "middle" && (t.Repeat != nil || t.Ending != nil) && len(r.measure.Events) > 0 {
				r.divide(t)
			} else {
				r.barline(t)
			}
		}
	}
	if wrong := r.problems[before:]; len(wrong) > 0 && !r.stopped && !slices.ContainsFunc(wrong,
		func(p score.Problem) bool { return p.Note == 0 }) {
		r.spoiled = append(r.spoiled, slices.Clone(wrong)) // the measure is shown empty, and the rest is kept
		r.problems = r.problems[:before]
		r.measure.Events = nil
	}
	m := &r.measure
	r.frame(m)
	if n := len(r.part.Measures); r.repeating > 0 && n >= r.repeating && silent(m.Events) {
		m.Events = nil
		if !r.count(len(r.part.Measures[n-r.repeating].Events)) {
			return
		}
		m.Events = score.Part{Measures: []score.Measure{r.part.Measures[n-r.repeating]}}.Copy().Measures[0].Events
	}
	if r.short && len(m.Events) == 0 && r.reach.Less(r.meter.Length()) && !r.reach.IsZero() {
		r.fill(r.reach) // a pickup without this voice
	}
	if len(m.Events) == 0 { // a measure without this voice is a measure of rest
		m.Events = []score.Event{{Kind: score.Rest, WholeMeasure: true, Value: score.Value{Base: 1}}}
	} else if x.Implicit != "yes" && r.at.Cmp(r.filled) > 0 && r.filled.Less(r.meter.Length()) {
		r.fill(r.at.Min(r.meter.Length()))
	}
	r.add(*m)
}

// add adds a measure to the part, in the endings in force.
func (r *partReader) add(m score.Measure) {
	if len(r.endings) > 0 {
		m.Endings = r.endings
	}
	if m.EndingStop {
		r.endings = nil
	}
	r.part.Measures = append(r.part.Measures, m)
}

// frame gives a measure what is in force.
func (r *partReader) frame(m *score.Measure) {
	m.Meter, m.Key = r.meter, r.key
	if r.shift != (score.Interval{}) {
		m.Key, _ = r.key.Transpose(r.shift)
	}
	if m.Clef.Sign == "" {
		m.Clef = r.clef
	}
}

// divide ends a measure at a repeat or an ending in the middle of it; what follows is its
// second half.
func (r *partReader) divide(b *barline) {
	starts := b.Repeat != nil && b.Repeat.Direction == "forward" || b.Repeat == nil && b.Ending.Type == "start"
	if !starts {
		r.barline(b)
	}
	r.frame(&r.measure)
	if starts && b.Repeat == nil { // which divides it too
		r.measure.DoubleBar = true
	}
	r.add(r.measure)
	r.measure = score.Measure{Clef: r.clef}
	if starts {
		r.barline(b)
	}
}

// silent says whether nothing but rests is there.
func silent(events []score.Event) bool {
	for _, e := range events {
		if e.Kind == score.Note {
			return false
		}
	}
	return true
}

// firstVoice is the lowest numbered voice of the first staff that has notes in
// the measure.
func firstVoice(m xmlMeasure) string {
	first := ""
	for _, item := range m.Items {
		n, ok := item.(*note)
		if !ok || n.Grace != nil || n.Cue != nil || n.Staff > 1 {
			continue
		}
		if voice := voiceOf(n); first == "" || len(voice) < len(first) || len(voice) == len(first) && voice < first {
			first = voice
		}
	}
	return first
}

func voiceOf(n *note) string {
	if n.Voice == "" {
		return "1"
	}
	return n.Voice
}

// longest is the most whole notes that a measure, or a move in it, may span, and finest
// the finest division of one: more cannot be added up exactly.
const (
	longest = 64
	finest  = 1 << 24
)

// time turns a duration in divisions into a fraction of a whole note.
func (r *partReader) time(duration int) score.Fraction {
	if duration > 4*longest*r.divisions || duration < 0 {
		r.stop(r.problem(0, "a duration is longer than a measure can be.", "Export the file again."))
		return score.Fraction{}
	}
	return score.Frac(int64(duration), int64(4*r.divisions))
}

// move moves the cursor in the measure.
func (r *partReader) move(by score.Fraction) {
	to := r.at.Add(by)
	if to.Den() > finest || score.Frac(longest, 1).Less(to) {
		r.stop(r.problem(0, "its durations do not add up to a measure.", "Export the file again."))
		return
	}
	r.at = to
	if r.reach.Less(to) {
		r.reach = to
	}
}

// stop ends the reading of the part.
func (r *partReader) stop(p score.Problem) {
	if !r.stopped {
		r.problems = append(r.problems, p)
	}
	r.stopped = true
}

func (r *partReader) problem(note int, what, do string) score.Problem {
	return score.Problem{Measure: r.number, Note: note, What: what, Do: do}
}

// count takes a given number of notes and rests more into the measure; false says that it is too
// many.
func (r *partReader) count(n int) bool {
	*r.events += n
	switch {
	case len(r.measure.Events)+n > score.MostInMeasure:
		r.stop(score.TooFull(r.number, 0))
	case *r.events > score.MostEvents:
		r.stop(score.TooManyEvents())
	}
	return !r.stopped
}

func (r *partReader) attributes(a *attributes) {
	if a.Divisions > 0 {
		if a.Divisions > 100000 {
			r.fail(0, "it divides a quarter note into too many parts.", "Export the file again.")
			return
		}
		r.divisions = a.Divisions
	}
	for _, k := range a.Keys {
		fifths, err := strconv.Atoi(strings.TrimSpace(k.Fifths))
		if err != nil || fifths < -7 || fifths > 7 {
			r.fail(0, "the key signature is not one of up to seven sharps or flats.", "Write an ordinary key signature.")
			continue
		}
		mode := strings.TrimSpace(k.Mode)
		if _, known := score.ModeFifths(mode); !known {
			mode = ""
		}
		r.key = score.Key{Fifths: fifths, Mode: mode}
	}
	for _, t := range a.Times {
		if t.Senza != nil && !r.metered {
			continue // the bar lines make the meter
		}
		if t.Senza != nil || len(t.Beats) == 0 || len(t.Beats) != len(t.BeatType) || !same(t.BeatType) {
			r.fail(0, "the meter is mixed or free.", "Write one ordinary meter such as 4/4.")
			continue
		}
		if !r.metered {
			r.metered, r.unmetered = true, len(r.part.Measures)
		}
		meter, ok := score.ParseMeter(strings.Join(t.Beats, "+"), t.BeatType[0])
		if !ok {
			r.fail(
				0,
				fmt.Sprintf("the meter %s/%s is not one this reads.", score.Clip(t.Beats[0]), score.Clip(t.BeatType[0])),
				"Write one ordinary meter such as 4/4.",
			)
			continue
		}
		r.meter = meter
		if t.Symbol == "common" || t.Symbol == "cut" {
			r.meter.Symbol = t.Symbol
		}
	}
	for _, c := range a.Clefs {
		if c.Number > 1 {
			continue
		}
		r.clef = clefOf(c.Sign, c.Line, c.Octave)
		if len(r.measure.Events) == 0 {
			r.measure.Clef = r.clef
		}
	}
	for _, t := range a.Transposes {
		if beyond(t.Chromatic, 36) || beyond(t.Diatonic, 21) || beyond(t.Octave, 4) {
			r.fail(0, "the part sounds further from what is written than any instrument does.",
				"Write an ordinary transposition.")
			continue
		}
		sounds := score.Interval{Steps: t.Diatonic, Semitones: t.Chromatic}.Plus(score.Octaves(t.Octave))
		if t.Diatonic == 0 && t.Chromatic != 0 {
			sounds = score.ChromaticInterval(t.Chromatic + 12*t.Octave)
		}
		r.transposed(sounds)
	}
	for _, m := range a.Repeats {
		r.repeating = 0
		if m.Type == "start" {
			r.repeating = max(m.Count, 1)
		}
	}
	if a.Staves > 1 {
		r.remark("staves", "only the upper staff is read.")
	}
}

// beyond says whether a number of a file lies further from zero than it may.
func beyond(n, most int) bool { return n < -most || n > most }

// transposed takes how the part sounds. Where that changes in the part, what follows is
// written for the transposition it began with.
func (r *partReader) transposed(sounds score.Interval) {
	if !r.sounding && len(r.part.Measures) == 0 && len(r.measure.Events) == 0 {
		r.part.Transposition, r.sounding = sounds, true
		return
	}
	r.sounding = true
	r.shift = sounds.Plus(r.part.Transposition.Negated())
	if r.shift != (score.Interval{}) {
		r.remark("transpose", "the part is for another transposition from here on; it is written on for the first one.")
	}
}

func clefOf(sign string, line, octave int) score.Clef {
	defaultLine := map[string]int{"G": 2, "F": 4, "C": 3}
	switch {
	case sign == "percussion":
		return score.Percussion
	case defaultLine[sign] == 0:
		return score.Treble
	case line < 1 || line > 5:
		line = defaultLine[sign]
	}
	if beyond(octave, 2) {
		octave = 0
	}
	return score.Clef{Sign: sign, Line: line, Octave: octave}
}

var typeBase = map[string]int{
	"breve": 0, "whole": 1, "half": 2, "quarter": 4, "eighth": 8, "16th": 16, "32nd": 32, "64th": 64,
}

func (r *partReader) note(n *note) {
	if n.Grace != nil && voiceOf(n) == r.voice {
		r.graceSlurs(n)
	}
	switch {
	case n.Grace != nil && n.Unpitched != nil && n.Chord == nil && voiceOf(n) == r.voice && r.graces < mostGraces:
		r.graces++
		return
	case n.Grace != nil:
		r.remark("grace", "grace notes are left out.")
		return
	case n.Cue != nil:
		r.remark("cue", "cue notes are left out.")
		r.move(r.time(n.Duration))
		return
	}
	start := r.at
	if n.Chord == nil {
		r.move(r.time(n.Duration))
	}
	if r.stopped {
		return
	}
	if n.Chord != nil {
		if r.kept {
			r.chordNote(n)
		}
		return
	}
	r.kept = false
	switch {
	case n.Staff > 1 && (voiceOf(n) != r.voice || start.Less(r.filled)):
		return // the lower staff's own
	case voiceOf(n) != r.voice:
		r.remark("voice", "a second voice is left out.")
		return
	}
	r.kept = true
	if n.Duration <= 0 {
		r.fail(r.noteNumber(), "a note has no duration.", "Export the file again.")
		return
	}
	if r.filled.Less(start) {
		r.fill(start)
	}
	e := score.Event{Length: r.time(n.Duration), Text: r.text, Dynamic: r.dynamic, Graces: r.graces,
		Hairpin: r.hairpin.begins, HairpinEnds: r.hairpin.ends}
	r.graces = 0
	switch {
	case n.Rest != nil:
		e.Kind = score.Rest
		if n.Rest.Measure == "yes" && r.short && start.IsZero() && e.Length.Less(r.meter.Length()) {
			r.fill(e.Length) // it rests through the pickup
			return
		}
		if n.Rest.Measure == "yes" || n.Type == "" && start.IsZero() && e.Length == r.meter.Length() {
			e.WholeMeasure = true
			e.Value = score.Value{Base: 1}
		}
	case n.Unpitched != nil:
		e.Unpitched = true
		e.Pitch = score.Pitch{Step: score.B, Octave: 4}
		if len(n.Unpitched.Step) == 1 && n.Unpitched.Octave >= 0 && n.Unpitched.Octave <= 9 {
			if step, ok := score.ParseStep(n.Unpitched.Step[0]); ok {
				e.Pitch = score.Pitch{Step: step, Octave: n.Unpitched.Octave}
			}
		}
	case n.Pitch != nil:
		e.Pitch = r.pitch(n)
		e.Sign = n.Accidental != ""
	default:
		r.fail(r.noteNumber(), "a note has neither a pitch nor a rest.", "Export the file again.")
		return
	}
	if !e.WholeMeasure && !r.setValue(&e, n) || !r.count(1) {
		return
	}
	e.TieOn = n.ties("start")
	e.Restruck = len(r.measure.Events) == 0 && r.laterEnding() && !n.ties("stop")
	r.notations(&e, n)
	if e.Text == "R" || e.Text == "L" {
		e.Sticking, e.Text = e.Text, ""
	}
	r.text, r.dynamic = "", ""
	r.hairpin.begins, r.hairpin.ends = "", false
	r.measure.Events = append(r.measure.Events, e)
	r.filled = r.at
}

// noteNumber is the number, from 1, of the note being read in its measure.
func (r *partReader) noteNumber() int { return len(r.measure.Events) + 1 }

func (r *partReader) pitch(n *note) score.Pitch {
	p := score.Pitch{Octave: n.Pitch.Octave}
	step, ok := score.Step(0), false
	if text := strings.TrimSpace(n.Pitch.Step); len(text) == 1 {
		step, ok = score.ParseStep(text[0])
	}
	alter := 0.0
	if text := strings.TrimSpace(n.Pitch.Alter); text != "" {
		var err error
		if alter, err = strconv.ParseFloat(text, 64); err != nil {
			ok = false
		}
	}
	if !ok || alter != math.Trunc(alter) || math.Abs(alter) > 2 || p.Octave < 0 || p.Octave > 9 {
		r.fail(r.noteNumber(), "its pitch is not one a staff can show.",
			"Write it as a letter with at most a double sharp or flat.")
		return score.Pitch{Step: score.B, Octave: 4}
	}
	p.Step, p.Alter = step, int(alter)
	if p = p.Transpose(r.shift); p.MIDI() < 0 || p.MIDI() > 127 {
		r.fail(r.noteNumber(), "it is beyond every instrument.", "Check its octave.")
		return score.Pitch{Step: score.B, Octave: 4}
	}
	return p
}

func (r *partReader) chordNote(n *note) {
	k := len(r.measure.Events)
	if k == 0 || n.Pitch == nil || r.measure.Events[k-1].Kind != score.Note {
		return
	}
	e := &r.measure.Events[k-1]
	if len(e.Others) == score.MostAtOnce-1 {
		r.stop(r.problem(k, fmt.Sprintf("more than %d notes are struck together.", score.MostAtOnce),
			"Export the file again."))
		return
	}
	p, tied := r.pitch(n), n.ties("start")
	if p.MIDI() > e.Pitch.MIDI() {
		p, e.Pitch = e.Pitch, p
		tied, e.TieOn = e.TieOn, tied
		e.Sign = n.Accidental != ""
	}
	e.Others = append(e.Others, p)
	if tied {
		e.InnerTies = append(e.InnerTies, p)
	}
	r.remark("chord", "notes are struck together; the lanes follow the highest, the others stand on the staff alone.")
}

// laterEnding says whether the measure being read begins an ending behind another.
func (r *partReader) laterEnding() bool {
	n := len(r.part.Measures)
	return r.measure.EndingStart && n > 0 && len(r.part.Measures[n-1].Endings) > 0
}

// ties says whether a tie starts, or stops, on the note.
func (n *note) ties(way string) bool {
	for _, t := range n.Ties {
		if t.Type == way {
			return true
		}
	}
	for _, group := range n.Notations { // some programs write the sign alone
		for _, t := range group.Tied {
			if t.Type == way && len(n.Ties) == 0 {
				return true
			}
		}
	}
	return false
}

// mostDots is how many dots a note is written with.
const mostDots = 2

// setValue finds how the note is written: from its type, or where that is
// missing or disagrees, from its duration.
func (r *partReader) setValue(e *score.Event, n *note) bool {
	ratio := score.Ratio{}
	if n.TimeMod != nil && n.TimeMod.Actual > 0 && n.TimeMod.Normal > 0 && n.TimeMod.Actual != n.TimeMod.Normal {
		ratio = score.Ratio{Actual: n.TimeMod.Actual, Normal: n.TimeMod.Normal}
		if !ratio.InTuplet() {
			r.fail(r.noteNumber(), fmt.Sprintf("a tuplet has more than %d notes.", score.MostInTuplet),
				"Write it in smaller groups.")
			return false
		}
	}
	if base, ok := typeBase[n.Type]; ok && len(n.Dots) <= mostDots {
		v := score.Value{Base: base, Dots: len(n.Dots), Tuplet: ratio}
		if v.Length() == e.Length {
			e.Value = v
			return true
		}
	}
	plain := e.Length
	if ratio.Actual > 0 {
		plain = plain.Mul(score.Frac(int64(ratio.Actual), int64(ratio.Normal)))
	}
	v, ok := score.ValueOf(plain)
	if !ok && plain.Less(score.Frac(1, 64)) {
		r.fail(r.noteNumber(), "a note is shorter than a sixty-fourth, the shortest that is read.",
			"Write it longer, or as a grace note.")
		return false
	}
	if !ok {
		r.fail(r.noteNumber(), fmt.Sprintf("a length of %s of a whole note cannot be written as one note.", e.Length),
			"Write it as two notes joined by a tie.")
		return false
	}
	v.Tuplet = ratio
	e.Value = v
	return true
}

// fill writes rests from where the voice ends up to a time, where the file only
// moved forward.
func (r *partReader) fill(to score.Fraction) {
	values, ok := score.ValuesOf(to.Sub(r.filled))
	if !ok {
		r.fail(0, "a gap between notes cannot be written as rests.", "Write the rests out.")
		return
	}
	if !r.count(len(values)) {
		return
	}
	for _, v := range values {
		r.measure.Events = append(r.measure.Events, score.Event{Kind: score.Rest, Length: v.Length(), Value: v})
	}
	r.filled = to
}

var articulationMarks = map[string]score.Mark{
	"staccato": score.Staccato, "accent": score.Accent, "strong-accent": score.Accent, "tenuto": score.Tenuto,
	"breath-mark": score.Breath, "up-bow": score.UpBow, "down-bow": score.DownBow,
}

// graceSlurs notes the slurs that begin or end on a grace note, which are left out
// with it.
func (r *partReader) graceSlurs(n *note) {
	for _, group := range n.Notations {
		for _, s := range group.Slurs {
			r.slurred[s.Number] = s.Type == "start"
		}
	}
}

func (r *partReader) notations(e *score.Event, n *note) {
	for _, group := range n.Notations {
		for _, s := range group.Slurs {
			switch {
			case s.Type == "start":
				e.SlurStarts++
			case s.Type == "stop" && r.slurred[s.Number]:
				r.slurred[s.Number] = false
			case s.Type == "stop":
				e.SlurEnds++
			}
		}
		for _, t := range group.Tuplets {
			e.TupletStarts = e.TupletStarts || t.Type == "start"
			e.TupletEnds = e.TupletEnds || t.Type == "stop"
		}
		if len(group.Fermatas) > 0 {
			e.Marks = append(e.Marks, score.Fermata)
		}
		var items []anyElement
		for _, a := range group.Articulations {
			items = append(items, a.Items...)
		}
		for _, t := range group.Technical {
			items = append(items, t.Items...)
		}
		for _, item := range items {
			if r.printed(e, item) {
				continue
			}
			if mark, ok := articulationMarks[item.XMLName.Local]; ok {
				e.Marks = append(e.Marks, mark)
			} else {
				r.remark(item.XMLName.Local, fmt.Sprintf("the sign “%s” is left out.", score.Clip(item.XMLName.Local)))
			}
		}
		for _, o := range group.Ornaments {
			r.ornaments(e, o.Tremolos, len(o.Trills) > 0, o.Others)
		}
		for _, other := range group.Others {
			r.remark(other.XMLName.Local, fmt.Sprintf("“%s” is left out.", score.Clip(other.XMLName.Local)))
		}
	}
}

// printed reads fingers, strings and what else is printed for the left hand.
func (r *partReader) printed(e *score.Event, item anyElement) bool {
	text := strings.TrimSpace(item.Text)
	switch item.XMLName.Local {
	case "fingering":
		if e.Fingering == "" && len(text) <= mostPrinted {
			e.Fingering = text
		}
	case "string":
		if n, err := strconv.Atoi(text); err == nil && n > 0 && n < 10 {
			e.String = n
		}
	case "open-string":
		e.Fingering = "0"
	case "thumb-position":
		e.Fingering = "thumb"
	case "harmonic":
		e.Fingering = "harmonic"
	default:
		return false
	}
	return true
}

// mostPrinted is how many letters a printed fingering has at most.
const mostPrinted = 12

// mostGraces is how many small strokes a stroke on a drum may have: a ruff has
// three.
const mostGraces = 3

// rolledFrom is how many slashes of a tremolo make a roll; fewer are measured.
const rolledFrom = 3

// ornaments reads rolls: a tremolo of three slashes, and on drums a trill.
func (r *partReader) ornaments(e *score.Event, tremolos []tremolo, trill bool, others []anyElement) {
	for _, t := range tremolos {
		if (t.Type == "" || t.Type == "single" || t.Type == "unmeasured") && (t.Marks >= rolledFrom ||
			t.Type == "unmeasured") {
			e.Roll = true
		} else {
			r.remark("tremolo", "a measured tremolo is left out.")
		}
	}
	switch {
	case trill && e.Unpitched:
		e.Roll = true
	case trill:
		r.remark("trill-mark", "“trill-mark” is left out.")
	}
	for _, other := range others {
		r.remark(other.XMLName.Local, fmt.Sprintf("“%s” is left out.", score.Clip(other.XMLName.Local)))
	}
}

func (r *partReader) direction(d *direction) {
	metronome := false
	for _, t := range d.Types {
		metronome = metronome || t.Metronome != nil
	}
	tempo := d.Directive == "yes" || metronome || d.Sound != nil && d.Sound.Tempo != ""
	for _, t := range d.Types {
		switch {
		case len(t.Rehearsal) > 0:
			r.measure.Rehearsal = score.Cut(strings.TrimSpace(t.Rehearsal[0]))
		case t.Segno != nil:
			r.measure.Segno = true
		case t.Coda != nil && (d.Sound == nil || d.Sound.ToCoda == ""):
			r.measure.Add(score.Signs{Coda: len(r.measure.Events) == 0, ToCoda: len(r.measure.Events) > 0})
		case len(t.Words) > 0 && !d.Sound.jumps():
			r.words(score.Cut(strings.TrimSpace(strings.Join(t.Words, " "))), tempo)
		case len(t.Dynamics) > 0 && len(t.Dynamics[0].Items) > 0:
			r.dynamic = t.Dynamics[0].Items[0].XMLName.Local
		case t.Metronome != nil:
			r.metronome(t.Metronome.Unit, len(t.Metronome.Dots), t.Metronome.PerMinute)
		case t.Wedge != nil:
			r.wedge(t.Wedge.Type)
		}
	}
	if d.Sound != nil {
		r.sound(d.Sound)
	}
}

// wedge begins a hairpin on the next note, or ends one on the note before.
func (r *partReader) wedge(kind string) {
	switch kind {
	case "crescendo":
		r.hairpin.begins = score.Crescendo
	case "diminuendo":
		r.hairpin.begins = score.Diminuendo
	case "stop":
		measure := &r.measure
		if k := len(r.part.Measures); len(measure.Events) == 0 && k > 0 {
			measure = &r.part.Measures[k-1]
		}
		if k := len(measure.Events); r.hairpin.begins == "" && k > 0 {
			measure.Events[k-1].HairpinEnds = true
		} else {
			r.hairpin.ends = true
		}
	}
}

// jumps says whether a sound tells where to go on, as the words with it do.
func (s *sound) jumps() bool {
	return s != nil && (s.DaCapo != "" || s.DalSegno != "" || s.Fine != "" || s.ToCoda != "")
}

// tempoWords are what stands over the beginning for the tempo, also where the file does
// not say so. Source: common practice.
var tempoWords = regexp.MustCompile(
	`(?i)^(very |molto |not too )?(largo|lento|adagio|andante|andantino|moderato|allegretto|allegro|vivace|presto|slow|slowly|lively|quick|fast|gently|calmly|briskly|with spirit|marcato|maestoso|cantabile|in march time|march tempo|waltz)\b`,
)

// words takes words over the staff: where the music goes on, its tempo at the
// beginning, or a direction for the next note.
func (r *partReader) words(text string, tempo bool) {
	signs, isSign := score.SignsIn(text)
	first := len(r.part.Measures) == 0 && len(r.measure.Events) == 0 && r.score.TempoWords == ""
	switch {
	case text == "":
	case isSign:
		r.measure.Add(signs)
	case first && (tempo || tempoWords.MatchString(text)):
		r.score.TempoWords = text
	default:
		r.text = text
	}
}

func (r *partReader) metronome(unit string, dots int, perMinute string) {
	base, known := typeBase[unit]
	n, err := strconv.ParseFloat(strings.TrimSpace(perMinute), 64)
	if known && err == nil && n >= 1 && n <= score.FastestMark && r.score.Tempo.PerMinute == 0 {
		r.score.Tempo = score.Tempo{Beat: score.Value{Base: base, Dots: min(dots, 2)}.Length(), PerMinute: int(math.Round(n))}
	}
}

func (r *partReader) sound(s *sound) {
	m := &r.measure
	if n, err := strconv.ParseFloat(s.Tempo, 64); err == nil && n >= 1 && n <= score.FastestMark &&
		r.score.Tempo.PerMinute == 0 {
		r.score.Tempo = score.Tempo{Beat: score.Frac(1, 4), PerMinute: int(math.Round(n))}
	}
	switch {
	case s.DaCapo == "yes":
		m.Jump.To = "capo"
	case s.DalSegno != "":
		m.Jump.To = "segno"
	}
	m.Fine = m.Fine || s.Fine != ""
	m.ToCoda = m.ToCoda || s.ToCoda != ""
	m.Segno = m.Segno || s.Segno != ""
	m.Coda = m.Coda || s.Coda != ""
}

func (r *partReader) barline(b *barline) {
	m := &r.measure
	if b.Repeat != nil {
		switch b.Repeat.Direction {
		case "forward":
			m.RepeatStart = true
		case "backward":
			m.RepeatEnd = true
			m.Times = min(max(b.Repeat.Times, 0), 9)
		}
	}
	if b.Ending != nil {
		switch b.Ending.Type {
		case "start":
			r.endings, m.EndingStart = endingNumbers(b.Ending.Number), true
		case "stop", "discontinue":
			m.EndingStop = true
		}
	}
	m.DoubleBar = m.DoubleBar || b.Style == "light-light" && b.Location != "left"
	m.Segno = m.Segno || b.Segno != nil
	m.Coda = m.Coda || b.Coda != nil
}

func endingNumbers(text string) []int {
	var numbers []int
	for _, word := range strings.FieldsFunc(text, func(c rune) bool { return c < '0' || c > '9' }) {
		if n, err := strconv.Atoi(word); err == nil && n > 0 && n < 10 {
			numbers = append(numbers, n)
		}
	}
	if len(numbers) == 0 {
		numbers = []int{1}
	}
	return numbers
}

// fail records a problem in the measure being read.
func (r *partReader) fail(note int, what, do string) {
	r.problems = append(r.problems, r.problem(note, what, do))
}

// remark notes something once for each kind, and in how many measures it comes.
func (r *partReader) remark(kind, what string) {
	if known, ok := r.remarked[kind]; ok {
		if known.measure != r.number {
			r.remarks[known.at].Times++
			r.remarked[kind] = remarked{known.at, r.number}
		}
		return
	}
	if len(r.remarks) == score.MostRemarks {
		return
	}
	r.remarked[kind] = remarked{len(r.remarks), r.number}
	r.remarks = append(r.remarks, score.Problem{Measure: r.number, What: what, Times: 1})
}
