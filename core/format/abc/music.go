package abc

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"unhurriedbench/core/score"
)

// music reads one line of notes; [V:2] in it goes on in that voice.
func (r *reader) music(line string) {
	line = strings.TrimRight(line, " \t")
	r.voice.line = nil
	for i := 0; i < len(line); {
		if r.full || len(r.problems) >= mostProblems {
			return
		}
		r.column = i + 1
		v := r.voice
		n := v.symbol(line[i:])
		if n == 0 {
			bad, size := utf8.DecodeRuneInString(line[i:])
			r.fail(fmt.Sprintf("“%c” is not something this reads.", bad),
				"Notes are the letters C to B and c to b; z is a rest; | is a bar line.")
			n = size
		}
		if r.voice != v {
			r.voice.line = nil
		}
		i += n
	}
}

// symbol reads what stands at the start of s and returns how many bytes it
// took, 0 when it is unknown.
func (v *voice) symbol(s string) int {
	c := s[0]
	switch {
	case c == ' ' || c == '\t' || c == '`' || c == '\\' || c == '$' || c == 'y':
		if c == 'y' {
			n, _ := length(s[1:])
			return 1 + n
		}
		return 1
	case isNoteStart(c):
		return v.note(s)
	case c == 'z' || c == 'x' || c == 'Z' || c == 'X':
		return v.rest(s)
	case c == '|' || c == ':' && len(s) > 1 && (s[1] == '|' || s[1] == ':'):
		return v.bar(s)
	case c == '[':
		return v.bracket(s)
	case c == ']':
		return 1
	case c == '.' && len(s) > 1 && s[1] == '|':
		if v.full() {
			return 1
		}
		return 2 // it parts what one measure holds
	case c == '(':
		return v.openSlur(s)
	case c == ')':
		if v.last != nil {
			v.last.SlurEnds++
		}
		return 1
	case c == '-':
		if v.last == nil {
			v.r.fail("a tie stands where there is no note before it.", "Put the - right after the note it starts from.")
			return 1
		}
		v.last.TieOn, v.last.InnerTies = true, slices.Clone(v.last.Others)
		return 1
	case c == '>' || c == '<':
		return v.brokenRhythm(s)
	case c == '"':
		return v.quoted(s)
	case c == '!' && strings.TrimSpace(s[1:]) == "":
		return len(s) // the end of a line in the older standard
	case c == '!':
		return v.decoration(s)
	case c == '{':
		end := strings.IndexByte(s, '}')
		if end < 0 {
			return 0
		}
		v.graces(s[1:end])
		return end + 1
	case c == '&':
		v.r.remark("overlay", "& lays a second voice over the measure; the first is read.",
			"Give the second its own V: line if it is wanted.")
		return overlaid(s)
	case v.r.symbols[c] != "":
		v.decorate(v.r.symbols[c])
		return 1
	case strings.IndexByte("~HLMOPSTuv.", c) >= 0:
		v.shorthand(c)
		return 1
	case strings.IndexByte("JNR", c) >= 0: // signs that the tune would have to define
		v.r.remark("sign "+s[:1], fmt.Sprintf("the sign %c is left out: no U: line says what it is.", c), "")
		return 1
	case c == '+' && plusSign.MatchString(s):
		v.decorate(strings.Trim(plusSign.FindString(s), "+"))
		return len(plusSign.FindString(s))
	case c == '*':
		return 1
	}
	return 0
}

// overlaid is how far a second voice over the measure goes: to the bar line.
func overlaid(s string) int {
	quoted := false
	for i := range len(s) {
		switch {
		case s[i] == '"':
			quoted = !quoted
		case s[i] == '|' && !quoted:
			return i
		}
	}
	return len(s)
}

// full says whether the measure being filled holds what its meter asks for.
func (v *voice) full() bool {
	length := score.Fraction{}
	for _, e := range v.measure.Events {
		if e.Value.Tuplet.Actual > 0 {
			e.Length = e.Length.Mul(score.Frac(int64(e.Value.Tuplet.Normal), int64(e.Value.Tuplet.Actual)))
		}
		length = length.Add(e.Length)
	}
	return length.Cmp(v.measure.Meter.Length()) >= 0
}

// plusSign is a sign in the spelling of the older standard: +mf+.
var plusSign = regexp.MustCompile(`^\+[A-Za-z.0-9]+\+`)

// graces counts small notes before a stroke on a drum; before notes they are left
// out.
func (v *voice) graces(s string) {
	n := 0
	v.next.SlurStarts = min(v.next.SlurStarts+strings.Count(s, "("), score.MostAtOnce)
	for i := range len(s) {
		if isNoteStart(s[i]) && s[i] != '^' && s[i] != '_' && s[i] != '=' {
			n++
		}
	}
	if v.clef != score.Percussion || n > mostGraces {
		v.r.remark("grace", "grace notes are left out.", "")
		return
	}
	v.next.Graces = n
}

// mostGraces is how many small strokes a stroke may have: a ruff has three.
const mostGraces = 3

func isNoteStart(c byte) bool {
	return c >= 'A' && c <= 'G' || c >= 'a' && c <= 'g' || c == '^' || c == '_' || c == '='
}

// pitchText is a note's accidental, letter and octave as typed.
type pitchText struct {
	explicit bool
	micro    bool // by less than a half step, which is left out
	alter    int
	step     score.Step
	octave   int
}

// microtone is what makes an accidental less than a half step, or more by a part: ^/c, _3/2d.
var microtone = regexp.MustCompile(`^(\d{1,2})?/\d{0,2}`)

// parsePitch reads "^c'" and returns the bytes used, 0 when it is no note.
func parsePitch(s string) (pitchText, int) {
	var p pitchText
	i := 0
	for i < len(s) && i < 2 && (s[i] == '^' || s[i] == '_') && (i == 0 || s[i] == s[0]) {
		p.explicit = true
		if s[i] == '^' {
			p.alter++
		} else {
			p.alter--
		}
		i++
	}
	if i == 0 && s[0] == '=' {
		p.explicit = true
		i++
	}
	if i > 0 {
		n := len(microtone.FindString(s[i:]))
		p.micro, i = n > 0, i+n
	}
	if i >= len(s) {
		return p, 0
	}
	step, ok := score.ParseStep(s[i])
	if !ok {
		return p, 0
	}
	p.step, p.octave = step, 4
	if s[i] >= 'a' {
		p.octave = 5
	}
	i++
	for i < len(s) && (s[i] == '\'' || s[i] == ',') {
		if s[i] == '\'' {
			p.octave++
		} else {
			p.octave--
		}
		i++
	}
	return p, i
}

// sounding applies the key signature and the accidentals of the measure.
func (v *voice) sounding(p pitchText) score.Pitch {
	pitch := score.Pitch{Step: p.step, Octave: p.octave + v.octaves + v.clef.Octave}
	at := spot{step: p.step}
	if v.r.propagate == "octave" {
		at.octave = p.octave
	}
	if p.explicit {
		pitch.Alter = p.alter
		if v.r.propagate != "not" {
			v.accidentals[at] = accidental{p.alter, p.octave}
		}
		return pitch
	}
	pitch.Alter = v.key.Alter(p.step)
	if alter, set := v.signs[p.step]; set {
		pitch.Alter = alter
	}
	if from := v.tiedFrom(); from != nil && from.Pitch.Step == p.step && from.Pitch.Octave == pitch.Octave {
		pitch.Alter = from.Pitch.Alter
		return pitch
	}
	if set, ok := v.accidentals[at]; ok {
		if set.octave != p.octave && set.alter != pitch.Alter {
			v.r.remark("octave "+strconv.Itoa(v.r.line),
				fmt.Sprintf("an accidental on %s is read as holding in the other octave too, as the ABC standard says.", p.step),
				"Write the accidental again, or add %%propagate-accidentals octave, if that is not meant.")
		}
		pitch.Alter = set.alter
	}
	return pitch
}

// tiedFrom is the last note of the measure before when a tie leads over the bar
// line to the note being read, which then keeps its accidental.
func (v *voice) tiedFrom() *score.Event {
	if len(v.measure.Events) > 0 || len(v.part.Measures) == 0 {
		return nil
	}
	events := v.part.Measures[len(v.part.Measures)-1].Events
	if last := &events[len(events)-1]; last.TieOn {
		return last
	}
	return nil
}

// length reads "3/2", "2", "/", "//" or nothing and gives the multiplier.
func length(s string) (int, score.Fraction) {
	i := 0
	num, den := int64(0), int64(1)
	for i < len(s) && s[i] >= '0' && s[i] <= '9' && num < 1000 {
		num = 10*num + int64(s[i]-'0')
		i++
	}
	if i == 0 {
		num = 1
	}
	for i < len(s) && s[i] == '/' {
		i++
		from, n := i, int64(0)
		for i < len(s) && s[i] >= '0' && s[i] <= '9' && n < 1000 {
			n = 10*n + int64(s[i]-'0')
			i++
		}
		if i == from {
			n = 2
		}
		if n > 0 && den < 1000 {
			den *= n
		}
	}
	return i, score.Frac(num, den)
}

func (v *voice) note(s string) int {
	text, used := parsePitch(s)
	if used == 0 {
		return 0
	}
	n, times := length(s[used:])
	if times.IsZero() {
		v.r.fail("a note has length 0.", "Give it a length of 1 or more.")
		times = score.Frac(1, 1)
	}
	e := score.Event{Kind: score.Note, Length: v.unit.Mul(times)}
	v.strike(&e, text)
	v.addEvent(e)
	return used + n
}

// strike sets the event's pitch, or makes it a stroke under a percussion clef.
func (v *voice) strike(e *score.Event, text pitchText) {
	e.Pitch = v.sounding(text)
	e.Sign = text.explicit
	if text.micro {
		v.r.remark("microtone", "intervals of less than a half step are left out: the nearest sign is read.", "")
	}
	if v.clef.Sign == "percussion" {
		e.Unpitched, e.Sign = true, false
	}
	if m := e.Pitch.MIDI(); m < 0 || m > 127 {
		v.r.fail(fmt.Sprintf("the note %s is beyond every instrument.", e.Pitch), "Check its octave marks.")
	}
}

func (v *voice) rest(s string) int {
	n, times := length(s[1:])
	if s[0] == 'z' || s[0] == 'x' {
		if times.IsZero() {
			v.r.fail("a rest has length 0.", "Give it a length of 1 or more.")
			return 1 + n
		}
		e := score.Event{Kind: score.Rest, Length: v.unit.Mul(times)}
		if len(v.measure.Events) == 0 && e.Length == v.meter.Length() && v.tuplet.left == 0 {
			// A later event in the same measure makes it an ordinary rest again
			// when the measure is checked: it would hold too much.
			e.WholeMeasure = true
		}
		v.addEvent(e)
		return 1 + n
	}
	count := times.Floor()
	if count < 1 || count > score.MostMeasures || len(v.measure.Events) > 0 {
		v.r.fail("Z stands for whole measures of rest.",
			"Put it at the start of a measure, with the number of measures after it.")
		return 1 + n
	}
	for i := range count {
		v.addEvent(score.Event{Kind: score.Rest, Length: v.meter.Length(), WholeMeasure: true})
		if i < count-1 && !v.r.full {
			v.closeMeasure(false, false, false)
		}
	}
	return 1 + n
}

// bar reads a bar line with its repeat dots and any ending number after it.
func (v *voice) bar(s string) int {
	i := 0
	for i < len(s) && (s[i] == '|' || s[i] == ':' || s[i] == ']' && i > 0 || s[i] == '[' &&
		strings.HasPrefix(s[i:], "[|")) {
		i++
	}
	text := s[:i]
	ends, starts := colons(text)
	ends, starts = min(ends, score.MostTimes-1), min(starts, score.MostTimes-1)
	repeatEnd, repeatStart := ends > 0, starts > 0
	if ends > 1 && v.times == 0 {
		v.times = ends + 1
	}
	final := strings.Contains(text, "]") || strings.HasPrefix(text, "[")
	double := strings.Contains(text, "||")
	if text == "|" && len(v.measure.Events) == 0 && len(v.part.Measures) > 0 && v.barLine == v.r.line {
		v.missed = true
	}
	if v.barLine = 0; text == "|" {
		v.barLine = v.r.line
	}
	v.closeMeasure(repeatEnd, final, double || repeatStart && len(v.endings) > 0)
	if repeatEnd {
		v.times = 0
	}
	if repeatStart {
		v.repeatStart = true
		if starts > 1 {
			v.times = starts + 1
		}
	}
	if n, endings := endingNumbers(s[i:]); n > 0 {
		v.startEnding(endings)
		i += n
	}
	return i
}

// colons counts the dots of a repeat that ends at a bar line and of one that starts
// there; between two repeats they are shared out.
func colons(text string) (ends, starts int) {
	if strings.Trim(text, ":") == "" {
		return len(text) / 2, len(text) - len(text)/2
	}
	return len(text) - len(strings.TrimLeft(text, ":")), len(text) - len(strings.TrimRight(text, ":"))
}

func (v *voice) startEnding(endings []int) {
	if n := len(v.part.Measures); n > 0 && len(v.endings) > 0 {
		v.part.Measures[n-1].EndingStop = true
	}
	v.endings, v.endingStart = endings, true
}

// mostEndings is how many numbers an ending may have.
const mostEndings = 16

// endingNumbers reads "1", "2", "1,3" or "1-3".
func endingNumbers(s string) (int, []int) {
	var numbers []int
	i := 0
	for i < len(s) && s[i] >= '1' && s[i] <= '9' {
		n := int(s[i] - '0')
		if k := len(numbers); i > 0 && s[i-1] == '-' && k > 0 {
			for between := numbers[k-1] + 1; between < n; between++ {
				numbers = append(numbers, between)
			}
		}
		numbers = append(numbers, n)
		if len(numbers) > mostEndings {
			numbers = numbers[:mostEndings]
		}
		i++
		if i+1 < len(s) && (s[i] == ',' || s[i] == '-') && s[i+1] >= '1' && s[i+1] <= '9' {
			i++
		}
	}
	return i, numbers
}

// bracket reads [| , [1 , [K:F] or a chord.
func (v *voice) bracket(s string) int {
	if strings.HasPrefix(s, "[|") {
		return v.bar(s)
	}
	if n, endings := endingNumbers(s[1:]); n > 0 {
		if len(v.measure.Events) > 0 { // it begins inside a measure
			v.closeMeasure(false, false, false)
		}
		v.startEnding(endings)
		return 1 + n
	}
	end := strings.IndexByte(s, ']')
	if end < 0 {
		return 0
	}
	if end > 2 && s[2] == ':' {
		v.r.field(s[1], strings.TrimSpace(s[3:end]), true)
		return end + 1
	}
	return v.chord(s, end)
}

// chord reads [CEG]2: the highest note is the part's, the others are kept with it.
func (v *voice) chord(s string, end int) int {
	var pitches []pitchText
	var tied []bool // of each note
	inner := score.Frac(1, 1)
	for i := 1; i < end; {
		text, used := parsePitch(s[i:end])
		if used == 0 {
			n := v.inChord(s[i:end], tied)
			if n == 0 {
				return 0
			}
			i += n
			continue
		}
		n, times := length(s[i+used:])
		if len(pitches) == 0 {
			inner = times
		}
		if len(pitches) == score.MostAtOnce {
			v.r.fail(fmt.Sprintf("more than %d notes are struck together.", score.MostAtOnce), "Close the chord with ].")
			v.r.full = true
			return end + 1
		}
		pitches, tied = append(pitches, text), append(tied, false)
		i += used + n
	}
	if len(pitches) == 0 || inner.IsZero() {
		return 0
	}
	n, times := length(s[end+1:])
	if times.IsZero() {
		return 0
	}
	var e score.Event
	var struck []score.Pitch
	for i, text := range pitches {
		one := score.Event{Kind: score.Note}
		v.strike(&one, text)
		struck = append(struck, one.Pitch)
		switch {
		case i == 0:
			e = one
		case one.Pitch.MIDI() > e.Pitch.MIDI():
			e, one = one, e
			e.Others = append(one.Others, one.Pitch)
		default:
			e.Others = append(e.Others, one.Pitch)
		}
	}
	e.Length = v.unit.Mul(inner).Mul(times)
	for i, one := range struck {
		switch {
		case !tied[i]:
		case one == e.Pitch:
			e.TieOn = true
		default:
			e.InnerTies = append(e.InnerTies, one)
		}
	}
	if len(e.Others) > 0 {
		v.r.remark("chord", "notes are struck together; the lanes follow the highest, the others stand on the staff alone.", "")
	}
	v.addEvent(e)
	return end + 1 + n
}

// inChord reads what may stand among the notes of a chord beside them: a tie of the
// note before it, or a sign. It returns the bytes used, 0 where it is neither.
func (v *voice) inChord(s string, tied []bool) int {
	switch {
	case s[0] == '-' && len(tied) > 0:
		tied[len(tied)-1] = true
		return 1
	case s[0] == '!' || s[0] == '+' && plusSign.MatchString(s) || s[0] == '"' || v.r.symbols[s[0]] != "" ||
		strings.IndexByte("~HLMOPSTuv.", s[0]) >= 0:
		return v.symbol(s)
	case s[0] == ' ':
		return 1
	}
	return 0
}

// openSlur reads a slur or, before a digit, a tuplet (p:q:r.
func (v *voice) openSlur(s string) int {
	if len(s) < 2 || s[1] < '2' || s[1] > '9' {
		v.next.SlurStarts = min(v.next.SlurStarts+1, score.MostAtOnce)
		return 1
	}
	p := int(s[1] - '0')
	i := 2
	part := func() int {
		if i >= len(s) || s[i] != ':' {
			return 0
		}
		i++
		if i < len(s) && s[i] >= '1' && s[i] <= '9' {
			i++
			return int(s[i-1] - '0')
		}
		return 0
	}
	q, r := part(), part()
	if q == 0 {
		q = v.tupletTime(p)
	}
	if r == 0 {
		r = p
	}
	if v.tuplet.left > 0 {
		v.r.fail("a tuplet starts inside another.", "Give the first one all its notes.")
	}
	v.tuplet = tuplet{ratio: score.Ratio{Actual: p, Normal: q}, left: r, starts: true}
	return i
}

// tupletTime is the standard's time for p notes when it is not written.
func (v *voice) tupletTime(p int) int {
	switch p {
	case 2, 4, 8:
		return 3
	case 3, 6:
		return 2
	}
	if v.meter.Compound() {
		return 3
	}
	return 2
}

func (v *voice) brokenRhythm(s string) int {
	n := 1
	for n < len(s) && s[n] == s[0] && n < 3 {
		n++
	}
	if v.last == nil || !v.broken.IsZero() {
		v.r.fail(fmt.Sprintf("“%s” must stand between two notes.", s[:n]),
			"Put it between the notes it makes long and short.")
		return n
	}
	short := score.Frac(1, int64(1)<<n)
	long := score.Frac(2, 1).Sub(short)
	if s[0] == '<' {
		short, long = long, short
	}
	v.last.Length = v.last.Length.Mul(long)
	v.last.WholeMeasure = false
	v.broken = short
	return n
}

// quoted reads "^text" over a note, which may be its sticking, its fingering or where
// the music goes on, or a chord name.
func (v *voice) quoted(s string) int {
	end := strings.IndexByte(s[1:], '"')
	if end < 0 {
		return 0
	}
	text := s[1 : 1+end]
	over := text != "" && strings.IndexByte("^_<>@", text[0]) >= 0
	if over {
		text = strings.TrimSpace(text[1:])
	}
	switch signs, isSign := score.SignsIn(text); {
	case text == "R" || text == "L": // no chord has such a name: it is a hand
		v.next.Sticking = text
	case isSign: // nor one of these
		v.measure.Add(signs)
	case !over:
		v.r.remark("chords", "chord names are left out.", "")
	case printedFingering.MatchString(text) && v.next.Fingering == "":
		v.next.Fingering = text
	default:
		v.next.Text = score.Cut(text)
	}
	return end + 2
}

// printedFingering is what is taken for a fingering where it stands over a note:
// fingers, valves or a position, the double horn's thumb, the F attachment, a moved
// finger.
var printedFingering = regexp.MustCompile(`^([TF]?[0-7](-?[1-4]){0,3}\+?|[LHx][1-4]|open|thumb)$`)
