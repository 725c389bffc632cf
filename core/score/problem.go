package score

import (
	"fmt"
	"slices"
	"strings"
)

// Problem is something wrong with, or left out of, a source: what, where and
// what to do about it. It is an error.
type Problem struct {
	Measure int    // the measure's number, -1 when it is not about one
	Note    int    // which note of the measure, from 1; 0 when not about one
	Line    int    // line of the source, from 1; 0 when unknown
	Column  int    // where in that line, from 1; 0 when unknown
	Times   int    // how often it comes, where that is known; 0 or 1 for once
	Part    string // the part it is about, where a score has several
	What    string // a sentence without its place
	Do      string // a sentence, or ""
}

// Error is the whole sentence: "Measure 7, note 3 (line 12): … ".
func (p Problem) Error() string {
	var where []string
	if p.Part != "" {
		where = append(where, p.Part)
	}
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
	if p.Measure < 0 && p.Line > 0 && p.Column > 0 {
		where = append(where, fmt.Sprintf("column %d", p.Column))
	}
	text := p.What
	if len(where) > 0 {
		place := strings.Join(where, ", ")
		text = strings.ToUpper(place[:1]) + place[1:] + ": " + p.What
	}
	switch {
	case p.Times > 1 && p.Measure >= 0:
		text += fmt.Sprintf(" So in %d measures; this is the first.", p.Times)
	case p.Times > 1:
		text += fmt.Sprintf(" It comes %d times; this is the first.", p.Times)
	}
	if p.Do != "" {
		text += " " + p.Do
	}
	return text
}

// Problems is several at once.
type Problems []Problem

// OfLengths says whether each is about a measure, as those of lengths are.
func (ps Problems) OfLengths() bool {
	return !slices.ContainsFunc(ps, func(p Problem) bool { return p.Measure < 0 })
}

// Joined tells problems that say the same once, with how often they come.
func (ps Problems) Joined() Problems {
	var list Problems
	at := map[string]int{}
	for _, p := range ps {
		if k, known := at[p.What+p.Do]; known && p.Measure < 0 {
			list[k].Times = max(list[k].Times, 1) + 1
			continue
		}
		at[p.What+p.Do] = len(list)
		list = append(list, p)
	}
	return list
}

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
