package score

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// Signs is what words over the music say about where it goes on.
type Signs struct {
	Jump   Jump
	Fine   bool
	ToCoda bool
	Coda   bool
	Segno  bool
	Times  int // how often the strain is played, where words say it; else 0
}

var (
	capoWords  = regexp.MustCompile(`^(d\.? ?c\.?|da capo)( al (fine|coda))?\.?$`)
	segnoWords = regexp.MustCompile(`^(d\.? ?s\.?|dal segno)( al (fine|coda))?\.?$`)
)

// timesWords say how often a strain is played: "play 3 times", "3x", "repeat three times".
var timesWords = regexp.MustCompile(`^(play |repeat )?\(?([2-9]|two|three|four|five|six)( ?x| times)\)?[.!]?$`)

// SignsIn reads words such as "D.C. al Fine", "Dal Segno", "Fine", "To Coda" and "play 3
// times"; ok is false for other words.
func SignsIn(words string) (s Signs, ok bool) {
	words = strings.ToLower(strings.Join(strings.Fields(words), " "))
	if found := capoWords.FindStringSubmatch(words); found != nil {
		s.Jump = Jump{To: "capo", Al: found[3]}
	} else if found := segnoWords.FindStringSubmatch(words); found != nil {
		s.Jump = Jump{To: "segno", Al: found[3]}
	}
	if found := timesWords.FindStringSubmatch(words); found != nil {
		s.Times = slices.Index([]string{"", "", "two", "three", "four", "five", "six"}, found[2])
		if n, err := strconv.Atoi(found[2]); err == nil {
			s.Times = n
		}
	}
	switch strings.TrimSuffix(words, ".") {
	case "fine":
		s.Fine = true
	case "to coda", "al coda":
		s.ToCoda = true
	case "coda":
		s.Coda = true
	case "segno":
		s.Segno = true
	}
	return s, s != Signs{}
}

// Add gives a measure the signs.
func (m *Measure) Add(s Signs) {
	if s.Jump.To != "" {
		m.Jump = s.Jump
	}
	m.Fine = m.Fine || s.Fine
	m.ToCoda = m.ToCoda || s.ToCoda
	m.Coda = m.Coda || s.Coda
	m.Segno = m.Segno || s.Segno
	m.Said = max(m.Said, s.Times)
}

// Unfollowed lists the signs that lead nowhere, each with how it is read instead.
func (p Part) Unfollowed() []Problem {
	var list []Problem
	has := func(is func(Measure) bool) bool { return p.find(is) >= 0 }
	segno, fine := has(func(m Measure) bool { return m.Segno }), has(func(m Measure) bool { return m.Fine })
	out, coda := has(func(m Measure) bool { return m.ToCoda }), has(func(m Measure) bool { return m.Coda })
	jumps := false
	say := func(m Measure, what, do string) {
		list = append(list, Problem{Measure: m.Number, Line: m.Line, What: what, Do: do})
	}
	for _, m := range p.Measures {
		if m.Missed {
			say(m, "two bar lines stand in front of it with nothing between them; no measure is made of that.",
				"Write a measure of rest there if one is meant.")
		}
		if m.Said > 0 {
			say(m, fmt.Sprintf("it says to play %d times, and no repeat sign comes after it; it is played once.",
				m.Said), "Write the repeat signs.")
		}
		if m.Implied {
			say(
				m,
				"the next ending follows and there is no repeat sign; it is read as if there were one.",
				"Write the repeat sign if that is right.",
			)
		}
		j := m.Jump
		if j.To == "" {
			continue
		}
		jumps = true
		if j.To == "segno" && !segno {
			say(m, "D.S. has no sign to go back to; it is read from the beginning.",
				"Put the sign over the measure where it goes on.")
		}
		if j.Al == "coda" && !(out && coda) {
			say(m, "it goes on to a coda that is not marked; it is played to the end.",
				"Mark where it is left and where the coda begins.")
		}
		if j.Al == "fine" && !fine {
			say(m, "there is no Fine; it is played to the end.", "Mark the Fine.")
		}
	}
	if !jumps && (fine || out) {
		for _, m := range p.Measures {
			if m.Fine || m.ToCoda {
				say(m, "Fine or To Coda is passed over, since no D.C. or D.S. comes back to it.",
					"Add the D.C. or D.S. where it stands in print.")
				break
			}
		}
	}
	if m, ok := p.neverPlayed(); ok {
		say(m, "it is never played: no repeat or jump leads to it.", "Check the repeats and endings before it.")
	}
	return list
}

// neverPlayed is the first measure that the order of the part passes over.
func (p Part) neverPlayed() (Measure, bool) {
	order := p.Order()
	if len(order) >= mostPlayed {
		return Measure{}, false
	}
	played := make([]bool, len(p.Measures))
	for _, i := range order {
		played[i] = true
	}
	if i := slices.Index(played, false); i >= 0 {
		return p.Measures[i], true
	}
	return Measure{}, false
}
