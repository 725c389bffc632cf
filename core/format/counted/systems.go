package counted

import (
	"strings"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// spelling is a note's name as it is typed: its step and, where the name says it, its
// alteration. used is how many bytes the name takes.
type spelling struct {
	step   score.Step
	alter  int
	signed bool
	used   int
}

// syllables are the names in fixed do, those first that begin like others. Source: common
// practice; si and ti are both in use.
var syllables = []struct {
	text string
	step score.Step
}{
	{"sol", score.G}, {"so", score.G}, {"do", score.C}, {"re", score.D}, {"mi", score.E}, {"fa", score.F},
	{"la", score.A}, {"si", score.B}, {"ti", score.B},
}

// spellingOf reads the name that a text in small letters begins with.
func spellingOf(text string, names name.System) (spelling, bool) {
	switch names {
	case name.FixedDo:
		for _, s := range syllables {
			if strings.HasPrefix(text, s.text) && !(s.text == "sol" && strings.HasPrefix(text, "sola")) { // so la
				return spelling{step: s.step, used: len(s.text)}, true
			}
		}
		return spelling{}, false
	case name.German:
		return germanSpelling(text)
	}
	if text == "" || text[0] < 'a' || text[0] > 'g' {
		return spelling{}, false
	}
	step, ok := score.ParseStep(text[0] - 'a' + 'A')
	return spelling{step: step, used: 1}, ok
}

// germanSpelling reads a German name: h is B natural and b is B flat, whatever the key; is and
// es after a letter are sharp and flat, s alone after e and a. Source: common practice.
func germanSpelling(text string) (spelling, bool) {
	if text == "" || text[0] < 'a' || text[0] > 'h' {
		return spelling{}, false
	}
	s := spelling{step: score.B, used: 1}
	switch text[0] {
	case 'b':
		s.alter, s.signed = -1, true
		return s, true
	case 'h':
		s.signed = true
	default:
		s.step, _ = score.ParseStep(text[0] - 'a' + 'A')
	}
	rest := text[1:]
	for _, end := range []struct {
		text  string
		alter int
		after string
	}{{"isis", 2, "cdefgah"}, {"is", 1, "cdefgah"}, {"eses", -2, "cdfgh"}, {"es", -1, "cdfg"}, {"s", -1, "ea"}} {
		if strings.HasPrefix(rest, end.text) && strings.IndexByte(end.after, text[0]) >= 0 {
			s.alter, s.signed, s.used = end.alter, true, 1+len(end.text)
			break
		}
	}
	return s, true
}

// isNamed says whether a note's name begins here.
func isNamed(runes []rune, names name.System) bool {
	_, ok := spellingOf(string(runes[:min(len(runes), 4)]), names)
	return ok
}

// howNamed tells how notes are named.
func howNamed(names name.System) string {
	switch names {
	case name.FixedDo:
		return "Name notes do re mi fa sol la si"
	case name.German:
		return "Name notes by their letters, c d e f g a and h, or b for the flat one"
	}
	return "Name notes by their letters, a to g"
}

// spelled is the name of a note without a sign; signed says that the name has it.
func spelled(p score.Pitch, names name.System) (text string, signed bool) {
	switch names {
	case name.FixedDo:
		for _, s := range syllables {
			if s.step == p.Step && s.text != "so" {
				return s.text, false
			}
		}
	case name.German:
		switch {
		case p.Step == score.B && p.Alter == -1:
			return "b", true
		case p.Step == score.B && p.Alter == 0:
			return "h", true
		case p.Step == score.B:
			return "h" + map[int]string{-2: "--", 1: "#", 2: "##"}[p.Alter], true
		}
	}
	return strings.ToLower(p.Step.String()), false
}
