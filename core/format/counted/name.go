package counted

import (
	"context"
	"fmt"
	"strings"
	"unicode"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// namer reads the name line and gives the notes their pitches.
type namer struct {
	part   *score.Part
	struck []score.Place
	next   int // of struck
	before score.Pitch
	signs  map[int]int // by the letter counted from C0, in this measure
	in     int         // the measure whose signs they are
	bars   int         // that have come
	line   int
	column int
	found  *findings
	names  name.System
}

// name gives the notes of a part the pitches of a name line. An empty line leaves them all
// on the note to start near. Where findings are kept it goes on behind what is wrong, and the
// notes without a name lie on the last one's.
func (fr frame) name(ctx context.Context, part *score.Part, text string, line int, found *findings) error {
	if len(text) > mostTyped {
		return tooLong("name", line)
	}
	n := &namer{part: part, before: fr.start, signs: map[int]int{}, in: -1, found: found, names: fr.names}
	for _, at := range part.Notes() {
		if !part.At(at).Tied {
			n.struck = append(n.struck, at)
		}
	}
	if found != nil {
		found.struck = len(n.struck)
	}
	if strings.TrimSpace(text) == "" || fr.unpitched {
		n.carry()
		part.MarkAccidentals()
		return nil
	}
	slurs := 0
	runes := []rune(strings.ToLower(text))
	n.line, n.column = line, 0
	for k := 0; k < len(runes); k++ {
		if ctx.Err() != nil {
			return fmt.Errorf("name: %w", ctx.Err())
		}
		n.column++
		c := runes[k]
		switch {
		case c == '\n':
			n.line, n.column = n.line+1, 0
		case unicode.IsSpace(c):
		case c == '|':
			if err := n.save(n.bar(), 1); err != nil {
				return err
			}
		case c == '(':
			slurs++
		case c == ')':
			if n.next == 0 {
				if err := n.save(n.problem("A slur ends before the first note.", "Take the bracket out."), 1); err != nil {
					return err
				}
				continue
			}
			part.At(n.struck[n.next-1]).SlurEnds++
		case isNamed(runes[k:], n.names):
			used, err := n.letter(runes[k:], slurs)
			if err := n.save(err, 1+used); err != nil {
				return err
			}
			k, n.column, slurs = k+used, n.column+used, 0
		default:
			wrong := n.problem(fmt.Sprintf("%q is no note.", string(c)), howNamed(n.names)+
				", with # sharp, - flat or = natural after them.")
			if err := n.save(wrong, 1); err != nil {
				return err
			}
		}
	}
	if found != nil {
		n.skip(n.next, len(n.struck))
	} else if n.next < len(n.struck) {
		at := n.struck[n.next]
		missing := unnamed(len(n.struck), n.next, part.Measures[at.Measure].Number)
		missing.Line = n.line
		return score.Problems{missing}
	}
	n.carry()
	part.MarkAccidentals()
	return nil
}

// unnamed is the problem that a name line ends too soon.
func unnamed(struck, named, measure int) score.Problem {
	return score.General(fmt.Sprintf("%d notes are counted and %d named; the first without a name is in measure %d.", struck, named, measure), "Name the rest, or count fewer.")
}

// save keeps what is wrong from the rune at hand on, or hands it on.
func (n *namer) save(err error, runes int) error {
	if err == nil {
		return nil
	}
	return n.found.save(err, token{line: n.line, column: n.column}, token{text: strings.Repeat("x", runes),
		line: n.line, column: n.column})
}

// skip leaves some notes without a name: they lie on the last one that has one.
func (n *namer) skip(from, to int) {
	for _, at := range n.struck[from:to] {
		n.part.At(at).Pitch = n.before
		n.found.unnamed = append(n.found.unnamed, at)
	}
}

func (n *namer) problem(what, do string) error {
	number := -1
	if n.next < len(n.struck) {
		number = n.part.Measures[n.struck[n.next].Measure].Number
	}
	return score.Problems{{Measure: number, Line: n.line, Column: n.column, What: what, Do: do}}
}

// bar checks a bar line of the name line against the measures that are counted.
func (n *namer) bar() error {
	if n.next == 0 && n.bars == 0 && len(n.struck) > 0 && n.struck[0].Measure == 0 {
		return nil // one that stands before everything
	}
	n.bars++
	if n.bars > len(n.part.Measures) {
		return nil
	}
	counted := 0
	for _, at := range n.struck {
		if at.Measure < n.bars {
			counted++
		}
	}
	if counted == n.next {
		return nil
	}
	here, named := 0, n.next
	for _, at := range n.struck {
		if at.Measure == n.bars-1 {
			here++
		} else if at.Measure < n.bars-1 {
			named--
		}
	}
	m := n.part.Measures[n.bars-1]
	if n.found != nil { // what is named after it belongs to the next measure
		n.skip(min(n.next, counted), counted)
		n.next = counted
	}
	return score.Problems{{Measure: m.Number, Line: n.line, Column: n.column,
		What: fmt.Sprintf("%d notes are counted and %d named.", here, named),
		Do:   "Name each note that is struck, and none that is held."}}
}

// letter reads a letter with what stands after it, and says how many more runes it used.
func (n *namer) letter(runes []rune, slurs int) (used int, err error) {
	from := string(runes[:min(len(runes), 40)])
	s, _ := spellingOf(from, n.names)
	step, alter, signed, octaves, times := s.step, s.alter, s.signed, 0, 1
	rest, marked := from[s.used:], false
	for again := true; again; {
		again = false
		for _, sign := range []struct {
			text  string
			alter int
		}{{"##", 2}, {"#", 1}, {"--", -2}, {"-", -1}, {"=", 0}, {" sharp", 1}, {" flat", -1}, {" natural", 0}} {
			if strings.HasPrefix(rest, sign.text) && !marked {
				alter, signed, marked, rest, again = sign.alter, true, true, rest[len(sign.text):], true
			}
		}
		for strings.HasPrefix(rest, "'") || strings.HasPrefix(rest, ",") {
			octaves += map[byte]int{'\'': 1, ',': -1}[rest[0]]
			rest, again = rest[1:], true
		}
		if rest != "" && rest[0] >= '2' && rest[0] <= '9' {
			times, rest = int(rest[0]-'0'), rest[1:]
		}
	}
	used = len([]rune(from)) - len([]rune(rest)) - 1
	for range times {
		if n.next == len(n.struck) {
			return used, n.problem(fmt.Sprintf("%d notes are counted, and more are named.", len(n.struck)),
				"Count the rest, or name fewer.")
		}
		at := n.struck[n.next]
		if at.Measure != n.in {
			n.in, n.signs = at.Measure, map[int]int{}
		}
		p := nearest(step, n.before)
		p.Octave += octaves
		octaves = 0 // of the first alone
		key := n.part.Measures[at.Measure].Key
		if signed {
			n.signs[p.Diatonic()] = alter
		}
		p.Alter = key.Alter(step)
		if held, is := n.signs[p.Diatonic()]; is {
			p.Alter = held
		}
		if p.MIDI() < 0 || p.MIDI() > 127 {
			return used, n.problem("The note lies outside every instrument.", "Take octave marks out.")
		}
		e := n.part.At(at)
		e.Pitch = p
		e.SlurStarts += slurs
		slurs = 0
		n.before = p
		n.next++
	}
	return used, nil
}

// nearest is the pitch of a letter that lies nearest to another by staff steps: a fourth off
// or less.
func nearest(step score.Step, before score.Pitch) score.Pitch {
	p := score.Pitch{Step: step, Octave: before.Octave}
	switch apart := p.Diatonic() - before.Diatonic(); {
	case apart > 3:
		p.Octave--
	case apart < -3:
		p.Octave++
	}
	return p
}

// carry gives tied notes the pitch of the note they continue.
func (n *namer) carry() {
	for _, at := range n.part.Notes() {
		e := n.part.At(at)
		if e.Sign = false; e.Tied {
			e.Pitch = n.part.Before(at).Pitch
		}
	}
}
