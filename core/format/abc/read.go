// Package abc reads and writes ABC, the text notation of the ABC standard 2.1.
package abc

import (
	"fmt"
	"strings"
	"unicode/utf8"

	"unhurriedbench/core/score"
)

// mostProblems is how many problems are listed before reading stops.
const mostProblems = 12

// reader holds what is being read: the tune's own settings and its voices.
type reader struct {
	score    score.Score
	problems score.Problems

	line   int // number of the line being read, from 1
	column int // of the symbol being read, from 1; 0 in a field

	unit      score.Fraction // L:
	unitSet   bool
	meter     score.Meter
	meterSet  bool
	key       score.Key
	clef      score.Clef
	inBody    bool
	propagate string // how far accidentals reach: "pitch", "octave" or "not"
	remarked  map[string]bool
	full      bool // a voice has more measures than a part may have

	voices []*voice
	voice  *voice
}

// Read reads the first tune in text. The error is a score.Problems that names
// lines, or measures where the lengths are wrong.
func Read(text string) (score.Score, error) {
	if !utf8.ValidString(text) {
		return score.Score{}, score.Problems{score.General("The text is not UTF-8.", "Save the file as UTF-8 and try again.")}
	}
	r := &reader{
		meter: score.Meter{Beats: 4, Unit: 4}, clef: score.Treble,
		propagate: "pitch", remarked: map[string]bool{},
	}
	text = strings.TrimPrefix(text, "\ufeff")
	text = strings.ReplaceAll(strings.ReplaceAll(text, "\r\n", "\n"), "\r", "\n")
	tunes := 0
	for i, line := range strings.Split(text, "\n") {
		r.line, r.column = i+1, 0
		if strings.HasPrefix(line, "X:") {
			tunes++
			if tunes > 1 || r.inBody {
				r.remark("tunes", "the text holds more than one tune; only the first is read.", "Bring the others in one at a time.")
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
		r.field(line[0], strings.TrimSpace(line[2:]), false)
		return
	}
	if !r.inBody {
		r.fail("music comes before the key is known.",
			"Put a line such as K:C, or K:Bb for two flats, above the first notes.")
		r.startBody()
	}
	r.voice.music(line)
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
	if name == "propagate-accidentals" {
		switch value {
		case "pitch", "octave", "not":
			r.propagate = value
		default:
			r.fail(fmt.Sprintf("“%s” is not a way to carry accidentals.", value), "Write pitch, octave or not.")
		}
	}
}

func (r *reader) startBody() {
	r.inBody = true
	if !r.meterSet {
		r.remark("meter", "there is no M: line, so 4/4 is taken.", "Add a line such as M:3/4 if it is another.")
	}
	if r.voice == nil {
		r.chooseVoice("1", "")
	}
	for _, v := range r.voices {
		v.enter()
	}
}

// unitLength is the length of a plain letter: L:, or by the standard an eighth
// where the meter is 3/4 or more and a sixteenth below.
func (r *reader) unitLength() score.Fraction {
	if r.unitSet {
		return r.unit
	}
	if r.meter.Length().Less(score.Frac(3, 4)) {
		return score.Frac(1, 16)
	}
	return score.Frac(1, 8)
}

func (r *reader) fail(what, do string) {
	r.problems = append(r.problems, score.Problem{Measure: -1, Line: r.line, Column: r.column, What: what, Do: do})
}

// remark notes something once for each kind.
func (r *reader) remark(kind, what, do string) {
	if r.remarked[kind] {
		return
	}
	r.remarked[kind] = true
	r.score.Remarks = append(r.score.Remarks, score.Problem{Measure: -1, Line: r.line, What: what, Do: do})
}

func (r *reader) finish() (score.Score, error) {
	if len(r.problems) > 0 {
		return score.Score{}, r.problems
	}
	if !r.inBody {
		return score.Score{}, score.Problems{score.General("There is no music in it.",
			"Begin with lines such as T:Title, M:4/4, L:1/4 and K:C, then the notes.")}
	}
	for _, v := range r.voices {
		v.closeLast()
		if len(r.problems) > 0 {
			return score.Score{}, r.problems
		}
		if v.empty() {
			continue
		}
		if err := v.part.Finish(); err != nil {
			return score.Score{}, err
		}
		r.score.Parts = append(r.score.Parts, v.part)
	}
	if len(r.score.Parts) == 0 {
		return score.Score{}, score.Problems{score.General("There are no notes under the K: line.",
			"Type the notes below it, for example: C D E F | G4 |]")}
	}
	return r.score, nil
}
