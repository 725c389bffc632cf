package score

import (
	"fmt"
	"strings"
)

// Problem is something wrong with, or left out of, a source: what, where and
// what to do about it. It is an error.
type Problem struct {
	Measure int    // the measure's number, -1 when it is not about one
	Note    int    // which note of the measure, from 1; 0 when not about one
	Line    int    // line of the source, from 1; 0 when unknown
	Column  int    // where in that line, from 1; 0 when unknown
	What    string // a sentence without its place
	Do      string // a sentence, or ""
}

// Error is the whole sentence: "Measure 7, note 3 (line 12): … ".
func (p Problem) Error() string {
	var where []string
	switch {
	case p.Measure == 0:
		where = append(where, "the pickup measure")
	case p.Measure > 0:
		where = append(where, fmt.Sprintf("measure %d", p.Measure))
	}
	if p.Note > 0 {
		where = append(where, fmt.Sprintf("note %d", p.Note))
	}
	if p.Line > 0 {
		where = append(where, fmt.Sprintf("line %d", p.Line))
	}
	text := p.What
	if len(where) > 0 {
		place := strings.Join(where, ", ")
		text = strings.ToUpper(place[:1]) + place[1:] + ": " + p.What
	}
	if p.Do != "" {
		text += " " + p.Do
	}
	return text
}

// Problems is several at once.
type Problems []Problem

// Error puts each on its own line.
func (ps Problems) Error() string {
	lines := make([]string, len(ps))
	for i, p := range ps {
		lines[i] = p.Error()
	}
	return strings.Join(lines, "\n")
}

// General is a problem that concerns the source as a whole.
func General(what, do string) Problem { return Problem{Measure: -1, What: what, Do: do} }
