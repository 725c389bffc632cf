// Package abc reads and writes ABC, the text notation of the ABC standard 2.1.
package abc

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"unhurriedbench/core/score"
)

// mostProblems is how many problems are found before reading stops; those of one kind
// are then told once.
const mostProblems = 40

// reader holds what is being read: the tune's own settings and its voices.
type reader struct {
	score    score.Score
	problems score.Problems

	line   int // number of the line being read, from 1
	column int // of the symbol being read, from 1; 0 in a field

	header    settings // of the tune, with which every voice begins
	unitSet   bool
	meterSet  bool
	byBars    bool   // M:none: the bar lines make the meter
	uneven    bool   // a measure may hold what its bar lines make
	order     string // of the parts, as P: in the header gives it
	orderLine int
	inBody    bool
	inText    string          // between %%begintext and %%endtext, or the like: what ends it
	history   bool            // H: goes on until the next field
	badKey    bool            // a K: line was there and could not be read
	propagate string          // how far accidentals reach: "pitch", "octave" or "not"
	symbols   map[byte]string // U:
	remarked  map[string]int  // where a kind of remark stands in the remarks
	full      bool            // there is more than a score may have
	events    int             // notes and rests so far

	voices []*voice
	voice  *voice
}

// settings is what the fields of a tune or of a voice have set.
type settings struct {
	unit    score.Fraction // L:
	meter   score.Meter
	key     score.Key
	signs   map[score.Step]int // accidentals of K: that no ordinary signature has
	clef    score.Clef
	octaves int            // octave= and the clef's, added to what is typed
	sounds  score.Interval // transpose=
}

// Read reads the first tune in text. The error is a score.Problems that names
// lines, or measures where the lengths are wrong; once ctx ends, it is the context's.
func Read(ctx context.Context, text string) (score.Score, error) {
	if !utf8.ValidString(text) {
		return score.Score{}, score.Problems{score.General("The text is not UTF-8.", "Save the file as UTF-8 and try again.")}
	}
	r := newReader()
	read, err := r.read(ctx, text)
	var problems score.Problems
	if errors.As(err, &problems) && !r.unitSet && problems.OfLengths() { // told once
		if hint, found := missingUnit(ctx, text, r.header); found {
			hint.Line = problems[0].Line
			return score.Score{}, score.Problems{hint}
		}
	}
	if more := len(problems) - mostProblems; more > 0 {
		return read, append(problems[:mostProblems:mostProblems], score.General(fmt.Sprintf("%d more are like these.",
			more), "Mend these first."))
	}
	return read, err
}

// missingUnit looks for the length of a plain letter with which a tune without L: would
// read whole, and says which it is.
func missingUnit(ctx context.Context, text string, header settings) (score.Problem, bool) {
	for _, figure := range []int{4, 8} {
		unit := score.Frac(1, int64(figure))
		if unit == header.unit {
			continue
		}
		r := newReader()
		r.header.unit, r.unitSet = unit, true
		if _, err := r.read(ctx, text); err != nil {
			continue
		}
		return score.Problem{
			Measure: -1,
			What: fmt.Sprintf("there is no L: line, so a plain letter is taken as %s, and the measures do not come out.",
				score.WithArticle(score.ValueName(int(header.unit.Den()), false))),
			Do: fmt.Sprintf("Is L:1/%d missing? With it on a line above K: every measure holds what its meter asks for.", figure),
		}, true
	}
	return score.Problem{}, false
}

func newReader() *reader {
	return &reader{
		header:    settings{meter: score.Meter{Beats: 4, Unit: 4}, clef: score.Treble},
		propagate: "pitch", remarked: map[string]int{}, symbols: map[byte]string{},
	}
}

func (r *reader) read(ctx context.Context, text string) (score.Score, error) {
	text = strings.TrimPrefix(text, "\ufeff")
	text = strings.ReplaceAll(strings.ReplaceAll(text, "\r\n", "\n"), "\r", "\n")
	tunes := 0
	for i, line := range strings.Split(text, "\n") {
		if err := ctx.Err(); err != nil {
			return score.Score{}, err
		}
		r.line, r.column = i+1, 0
		if strings.HasPrefix(line, "X:") {
			tunes++
			if tunes > 1 || r.inBody {
				r.remark("tunes", "the text holds more than one tune; only the first is read.",
					"Add the others with Import several, or each by itself.")
				break
			}
		}
		r.readLine(line)
		if r.full || len(r.problems) >= mostProblems {
			break
		}
	}
	return r.finish()
}

func (r *reader) readLine(line string) {
	switch {
	case r.inText != "":
		if strings.HasPrefix(line, r.inText) {
			r.inText = ""
		}
		return
	case strings.HasPrefix(line, "%%"), strings.HasPrefix(line, "I:"):
		r.directive(strings.TrimSpace(line[2:]))
		return
	case strings.HasPrefix(line, "%"):
		return
	}
	line = cutComment(line)
	if strings.TrimSpace(line) == "" {
		return
	}
	if isField(line) {
		r.history = line[0] == 'H'
		r.field(line[0], strings.TrimSpace(line[2:]), false)
		return
	}
	if r.history && !r.inBody {
		return
	}
	if !r.inBody {
		if !r.badKey {
			r.fail("music comes before the key is known.",
				"Put a line such as K:C, or K:Bb for two flats, above the first notes.")
		}
		r.startBody()
	}
	r.music(line)
	r.voice.endLine()
}

// cutComment drops a % comment; \% is a percent sign.
func cutComment(line string) string {
	for i := 0; i < len(line); i++ {
		if line[i] == '%' && (i == 0 || line[i-1] != '\\') {
			return line[:i]
		}
	}
	return line
}

// isField says whether a line is "X: …". A line of music never starts with a
// letter and a colon, but may start with "|:".
func isField(line string) bool {
	if len(line) < 2 || line[1] != ':' {
		return false
	}
	c := line[0]
	return c >= 'A' && c <= 'Z' || c >= 'a' && c <= 'z' || c == '+'
}

func (r *reader) directive(text string) {
	name, value, _ := strings.Cut(text, " ")
	value = strings.TrimSpace(value)
	if kind, begins := strings.CutPrefix(name, "begin"); begins && kind != "" {
		r.inText = "%%end" + kind
	}
	switch name {
	case "MIDI":
		if what, n, _ := strings.Cut(value, " "); what == "transpose" {
			r.transposed("%%MIDI transpose", strings.TrimSpace(n))
		}
	case "transpose":
		r.moves("%%transpose ", value)
	case byBarLines:
		r.uneven = true
	case "propagate-accidentals":
		switch value {
		case "pitch", "octave", "not":
			r.propagate = value
		default:
			r.fail(fmt.Sprintf("“%s” is not a way to carry accidentals.", value), "Write pitch, octave or not.")
		}
	}
}

// byBarLines is our own directive: a measure that holds more or less than its meter asks for is
// read as its bar lines make it.
const byBarLines = "measures-by-bar-lines"

// ByBarLines has a text read with its measures as their bar lines make them.
func ByBarLines(text string) string { return "%%" + byBarLines + "\n" + text }

// transposed takes how the music sounds, in half steps, where a field or directive says it.
func (r *reader) transposed(what, value string) {
	n, err := strconv.Atoi(value)
	if err != nil || n < -36 || n > 36 {
		r.fail(fmt.Sprintf("%s %s is not a number this reads.", what, score.Clip(value)),
			"Write a number of half steps, such as -2.")
		return
	}
	r.now().set("transpose", n)
	if r.inBody && r.voice != nil {
		r.voice.settingsChanged()
	}
}

func (r *reader) startBody() {
	r.inBody = true
	if !r.meterSet {
		r.remark("meter", "there is no M: line, so 4/4 is taken.", "Add a line such as M:3/4 if it is another.")
	}
	if !r.unitSet {
		r.header.unit = unitFor(r.header.meter)
	}
	if r.voice == nil {
		r.chooseVoice("1", "")
	}
	for _, v := range r.voices {
		v.enter()
	}
}

// unitFor is the length of a plain letter where L: is not given: by the standard an
// eighth where the meter is 3/4 or more and a sixteenth below. A later M: does not
// change it.
func unitFor(m score.Meter) score.Fraction {
	if m.Length().Less(score.Frac(3, 4)) {
		return score.Frac(1, 16)
	}
	return score.Frac(1, 8)
}

// now is the settings that a field changes: the tune's, or in its body the voice's.
func (r *reader) now() *settings {
	if r.inBody && r.voice != nil {
		return &r.voice.settings
	}
	return &r.header
}

func (r *reader) fail(what, do string) {
	r.problems = append(r.problems, score.Problem{Measure: -1, Line: r.line, Column: r.column,
		What: score.Cut(what), Do: do})
}

// stop ends the reading: there is more than a score may have.
func (r *reader) stop(p score.Problem) {
	if !r.full {
		r.problems = append(r.problems, p)
	}
	r.full = true
}

// remark notes something once for each kind, and counts how often it comes.
func (r *reader) remark(kind, what, do string) {
	if at, known := r.remarked[kind]; known {
		r.score.Remarks[at].Times++
		return
	}
	if len(r.score.Remarks) == score.MostRemarks {
		return
	}
	r.remarked[kind] = len(r.score.Remarks)
	r.score.Remarks = append(r.score.Remarks, score.Problem{Measure: -1, Line: r.line, What: score.Cut(what),
		Do: do, Times: 1})
}

func (r *reader) finish() (score.Score, error) {
	if len(r.problems) > 0 {
		return score.Score{}, r.problems.Joined()
	}
	if !r.inBody {
		return score.Score{}, score.Problems{score.General("There is no music in it.",
			"Begin with lines such as T:Title, M:4/4, L:1/4 and K:C, then the notes.")}
	}
	for _, v := range r.voices {
		v.closeLast()
		if len(r.problems) > 0 {
			return score.Score{}, r.problems.Joined()
		}
	}
	r.follow()
	for _, v := range r.voices {
		if v.empty() {
			continue
		}
		if r.byBars {
			said := score.ReadByBars(score.NoMeter, v.part.MeterByBars(), "Add a line such as M:4/4 if it has one.")
			if !slices.Contains(r.score.Remarks, said) { // once for voices that agree
				r.score.Remarks = append(r.score.Remarks, said)
			}
		}
		if r.uneven {
			if uneven, found := v.part.UnevenByBars(); found {
				r.score.Remarks = append(r.score.Remarks, uneven)
			}
		}
		if err := v.part.Finish(); err != nil {
			return score.Score{}, err
		}
		for _, p := range slices.Concat(v.part.CloseSlurs(), v.part.CloseHairpins(), v.part.Unfollowed()) {
			if len(r.voices) > 1 {
				p.Part = v.part.Name
			}
			r.score.Remarks = append(r.score.Remarks, p)
		}
		r.score.Parts = append(r.score.Parts, v.part)
	}
	if len(r.score.Parts) == 0 {
		return score.Score{}, score.Problems{score.General("There are no notes under the K: line.",
			"Type the notes below it, for example: C D E F | G4 |]")}
	}
	return r.score, nil
}
