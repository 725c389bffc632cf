package breakdown

import (
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// LineLike says that a line of music, four measures, is like an earlier one: "same" or
// "rhythm", but for some measures.
type LineLike struct {
	Line int    `json:"line"` // from 1
	As   int    `json:"as"`
	How  string `json:"how"`
	But  []int  `json:"but,omitempty"` // their numbers in this line
}

// Words says it: "Line 3 is line 1 but for m. 12."
func (l LineLike) Words() string {
	words := fmt.Sprintf("Line %d is line %d again", l.Line, l.As)
	if l.How == "rhythm" {
		words = fmt.Sprintf("Line %d has the rhythm of line %d", l.Line, l.As)
	}
	if len(l.But) > 0 {
		words += " but for " + measureWords(l.But)
	}
	return words + "."
}

// likeLines compares each line of music with those before it: one that is the same, but for
// one measure at most, else one whose rhythm is the same throughout.
func likeLines(part score.Part) []LineLike {
	heard := hear(part)
	var lines [][]int // the indexes of the full measures of each line
	for i, m := range part.Measures {
		if m.Number < 1 || m.Split {
			continue
		}
		if len(lines) == 0 || systemOf(m) != systemOf(part.Measures[lines[len(lines)-1][0]]) {
			lines = append(lines, nil)
		}
		lines[len(lines)-1] = append(lines[len(lines)-1], i)
	}
	found := []LineLike{}
	for n, line := range lines {
		best := LineLike{}
		for earlier := range n {
			if len(line) != systemMeasures || len(lines[earlier]) != systemMeasures {
				continue
			}
			for _, how := range []string{"same", "rhythm"} {
				like := LineLike{Line: n + 1, As: earlier + 1, How: how}
				for k, i := range line {
					if got := compare(heard[lines[earlier][k]], heard[i]); got != "same" &&
						!(how == "rhythm" && (got == "rhythm" || got == "shifted")) {
						like.But = append(like.But, part.Measures[i].Number)
					}
				}
				if (len(like.But) == 0 || len(like.But) == 1 && how == "same") && (best.Line == 0 || best.How == "rhythm" &&
					how == "same" || best.How == how && len(like.But) < len(best.But)) {
					best = like
				}
			}
		}
		if best.Line > 0 {
			found = append(found, best)
		}
	}
	return found
}

// Figure is a turn that is read at one glance by anyone who knows it.
type Figure struct {
	Kind     string `json:"kind"` // "scale", "chord" or "repeated"
	Measures []int  `json:"measures"`
	Words    string `json:"words"` // "up the scale from D to A"
}

// How many notes make a figure. The figures are ours.
const (
	scaleNotes    = 4
	chordNotes    = 3
	repeatedNotes = 4
)

// figures lists the scales, broken chords and repeated notes of a part, in order. Notes
// with a rest between them belong to no figure together.
func figures(part score.Part) []Figure {
	found := []Figure{}
	var run []score.Place
	flush := func() {
		for from := 0; from < len(run); {
			f, n := figureAt(part, run[from:])
			if n == 0 {
				from++
				continue
			}
			for _, at := range run[from : from+n] {
				if number := part.Measures[at.Measure].Number; !slices.Contains(f.Measures, number) {
					f.Measures = append(f.Measures, number)
				}
			}
			found = append(found, f)
			from += n - 1
		}
		run = nil
	}
	for i, m := range part.Measures {
		for j, e := range m.Events {
			switch {
			case e.Kind == score.Rest || e.Unpitched:
				flush()
			case !e.Tied:
				run = append(run, score.Place{Measure: i, Event: j})
			}
		}
	}
	flush()
	return found
}

// figureAt is the longest figure that begins a run of notes, and how many it takes; none
// for 0.
func figureAt(part score.Part, run []score.Place) (f Figure, notes int) {
	pitch := func(k int) score.Pitch { return part.At(run[k]).Pitch }
	steps := func(k int) int { return pitch(k).Diatonic() - pitch(k-1).Diatonic() }
	n := 1
	for n < len(run) && pitch(n) == pitch(0) {
		n++
	}
	if n >= repeatedNotes {
		return Figure{Kind: "repeated", Words: fmt.Sprintf("%s, %d times", name.Spoken(pitch(0), false), n)}, n
	}
	if len(run) < 2 {
		return f, 0
	}
	for n = 1; n < len(run) && steps(n) == steps(1) && abs(steps(1)) == 1; n++ {
	}
	if n >= scaleNotes {
		way := "down"
		if steps(1) > 0 {
			way = "up"
		}
		return Figure{Kind: "scale", Words: fmt.Sprintf("%s the scale from %s to %s", way,
			name.Spoken(pitch(0), false), name.Spoken(pitch(n-1), false))}, n
	}
	letters := []score.Step{pitch(0).Step}
	for n = 1; n < len(run) && abs(steps(n)) >= 2; n++ {
		more := letters
		if !slices.Contains(letters, pitch(n).Step) {
			more = append(slices.Clone(letters), pitch(n).Step)
		}
		if len(more) > 3 || len(more) == 3 && root(more) < 0 {
			break
		}
		letters = more
	}
	if n >= chordNotes && len(letters) == 3 {
		low := root(letters)
		var words []string
		for k := range 3 {
			want := score.Step((low + 2*k) % 7)
			for _, at := range run[:n] {
				if p := part.At(at).Pitch; p.Step == want {
					words = append(words, name.Spoken(p, false))
					break
				}
			}
		}
		return Figure{Kind: "chord", Words: "the notes of one chord: " + strings.Join(words, ", ")}, n
	}
	return f, 0
}

// root is the letter on which three letters stand in thirds, -1 for none.
func root(letters []score.Step) int {
	for _, low := range letters {
		if slices.Contains(letters, (low+2)%7) && slices.Contains(letters, (low+4)%7) {
			return int(low)
		}
	}
	return -1
}
