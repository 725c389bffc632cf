package breakdown

import (
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/score"
)

// Piece is a run of measures learned on its own.
type Piece struct {
	Label    string `json:"label"`    // "A", "B"…, or "Whole"
	Measures []int  `json:"measures"` // their numbers
	Why      string `json:"why"`

	From int `json:"-"` // index of its first measure in the part
	To   int `json:"-"` // index of its last
}

// Span says which measures: "m. 3–4", "pickup and m. 1–2".
func (p Piece) Span() string {
	first, last := p.Measures[0], p.Measures[len(p.Measures)-1]
	lead := ""
	if first == 0 {
		if last == 0 {
			return "pickup"
		}
		lead, first = "pickup, ", 1
	}
	if first == last {
		return fmt.Sprintf("%sm. %d", lead, first)
	}
	return fmt.Sprintf("%sm. %d–%d", lead, first, last)
}

// longestPiece is how many full measures a piece has at most.
const longestPiece = 2

// Cut divides a part into pieces: after every two measures, and earlier where a
// rest of a beat or more ends a measure. A pickup belongs to the piece after
// it, measures of rest to the piece before, and the last piece is the whole.
func Cut(part score.Part) []Piece {
	var pieces []Piece
	from, full := 0, 0
	for i, m := range part.Measures {
		if m.Number > 0 && !m.Split {
			full++
		}
		last := i == len(part.Measures)-1
		if !last && (part.Measures[i+1].Split || resting(part.Measures[i+1])) {
			continue
		}
		rest := m.Number > 0 && endsInRest(m)
		if last || rest || full >= longestPiece {
			pieces = append(pieces, newPiece(part, from, i, len(pieces), rest))
			from, full = i+1, 0
		}
	}
	if len(pieces) > 1 {
		whole := newPiece(part, 0, len(part.Measures)-1, 0, false)
		whole.Label, whole.Why = "Whole", "one tempo throughout"
		pieces = append(pieces, whole)
	}
	return pieces
}

func newPiece(part score.Part, from, to, n int, rest bool) Piece {
	p := Piece{Label: label(n), From: from, To: to}
	for i := from; i <= to; i++ {
		if m := part.Measures[i]; !m.Split {
			p.Measures = append(p.Measures, m.Number)
		}
	}
	var why []string
	if part.Measures[from].Number == 0 {
		why = append(why, "starts with the pickup")
	}
	switch {
	case rest:
		why = append(why, "ends at the rest")
	case to == len(part.Measures)-1:
		why = append(why, "to the end")
	default:
		why = append(why, "two measures")
	}
	p.Why = strings.Join(why, ", ")
	return p
}

// label is A to Z, then A2, B2 and so on.
func label(n int) string {
	letter := string(rune('A' + n%26))
	if round := n/26 + 1; round > 1 {
		return fmt.Sprintf("%s%d", letter, round)
	}
	return letter
}

// sayAgain adds to the reason of each piece that is played like measures before
// it: what is learned once need not be learned twice.
func sayAgain(pieces []Piece, found []Same) {
	words := map[string]string{"same": "the same as %s", "shifted": "%s again, shifted", "rhythm": "the rhythm of %s"}
	for i := range pieces {
		p := &pieces[i]
		for _, s := range found {
			if covers(s.Measures, p.Measures) {
				from := s.As[slices.Index(s.Measures, p.Measures[0])]
				to := s.As[slices.Index(s.Measures, p.Measures[len(p.Measures)-1])]
				p.Why = fmt.Sprintf(words[s.How], Piece{Measures: []int{from, to}}.Span()) + ", " + p.Why
				break
			}
		}
	}
}

// covers says whether every number of part is in whole.
func covers(whole, part []int) bool {
	for _, n := range part {
		if !slices.Contains(whole, n) {
			return false
		}
	}
	return true
}

func resting(m score.Measure) bool {
	for _, e := range m.Events {
		if e.Kind == score.Note {
			return false
		}
	}
	return true
}

// endsInRest says whether the last beat or more of the measure is rest.
func endsInRest(m score.Measure) bool {
	length := score.Fraction{}
	for j := len(m.Events) - 1; j >= 0 && m.Events[j].Kind == score.Rest; j-- {
		length = length.Add(m.Events[j].Length)
	}
	return length.Cmp(m.Meter.Beat()) >= 0
}
