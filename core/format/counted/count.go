package counted

import (
	"context"
	"fmt"
	"strconv"
	"strings"

	"unhurriedbench/core/score"
)

// measure is a measure as it is counted.
type measure struct {
	items        []item
	sounds       []sound
	signs        score.Measure  // the signs alone
	end          score.Fraction // where it ends before its bar line's place; 0 for a whole one
	line, column int
}

// item is a label: where it stands and what it is.
type item struct {
	place score.Fraction // from the bar line
	look  look
}

// look is what a label is: struck, held in ( ), or a rest in [ ].
type look int

const (
	struck look = iota
	held
	rested
	restedOn // goes on in the same brackets
	ended    // the measure ends there
)

// sound is a note or a rest from one place to another.
type sound struct {
	kind      score.Kind
	from, to  score.Fraction
	goesOn    bool // tied over the bar line
	continues bool // from the measure before
	restruck  bool // begins a later ending, and the first begins with what is held
}

// counter reads the count line.
type counter struct {
	meter        score.Meter
	beat         score.Fraction // that a number counts
	beats        int
	list         []measure
	now          measure
	last         score.Fraction // where the label before stands in its measure
	on           score.Fraction // where the beat said last begins
	sub          string         // what was said last within it
	any          bool           // a label stands in the measure
	spoken       bool           // a number stands in the measure
	in           look
	barLine      int  // the line of a plain bar line that nothing has come after, else 0
	open         bool // inside brackets, and a label has come there
	line, column int
	ending       int // the pass that the measures are of, 0 for all
	first        int // how many measures the first ending has
	left         int // of the second
	found        *findings
}

// count reads a count line, which may go on over several; line is its first one's number.
// Where findings are kept it goes on behind what is wrong, at the next bar line.
func count(ctx context.Context, text string, line int, meter score.Meter, found *findings) ([]measure, error) {
	if len(text) > mostTyped {
		return nil, tooLong("count", line)
	}
	c := &counter{meter: meter, beat: meter.Beat(), beats: meter.BeatCount(), line: line, found: found}
	words := tokens(text, line)
	for _, w := range words {
		if n, err := strconv.Atoi(w.text); err == nil && meter.Compound() && n > c.beats {
			c.beat, c.beats = score.Frac(1, int64(meter.Unit)), meter.Beats // every eighth is counted
			break
		}
	}
	words = numbers(words, c.beats)
	for k := 0; k < len(words); k++ {
		if ctx.Err() != nil {
			return nil, fmt.Errorf("count: %w", ctx.Err())
		}
		w := words[k]
		c.line, c.column = w.line, w.column
		used, err := c.take(words[k:])
		if err != nil {
			if err := found.save(err, c.from(), w); err != nil {
				return nil, err
			}
			for k+1 < len(words) && !words[k+1].isBar() {
				k++
			}
			c.in = struck
		}
		k += used
		if len(c.list) > score.MostMeasures {
			return nil, score.Problems{score.TooManyMeasures(len(c.list))}
		}
	}
	if c.in != struck {
		err := c.problem("A bracket is not closed.", "Close it after the last label that is held or rests.")
		if err := found.save(err, c.from(), words[len(words)-1]); err != nil {
			return nil, err
		}
	}
	c.close()
	if len(c.list) == 0 && found == nil {
		return nil, c.problem("Nothing is counted.", "Write numbers, such as 1 2 3 4.")
	}
	return c.list, c.sound()
}

// from is where the measure at hand begins in the line, or the token at hand.
func (c *counter) from() token {
	if len(c.now.items) > 0 {
		return token{line: c.now.line, column: c.now.column}
	}
	return token{line: c.line, column: c.column}
}

// problem is about the measure at hand.
func (c *counter) problem(what, do string) error {
	return score.Problems{{Measure: c.number(len(c.list)), Line: c.line, Column: c.column, What: what, Do: do}}
}

// number is the number of a measure by its place in the list: a pickup is 0.
func (c *counter) number(at int) int {
	if c.pickup() {
		return at
	}
	return at + 1
}

func (c *counter) pickup() bool {
	first := c.now.items
	if len(c.list) > 0 {
		first = c.list[0].items
	}
	return len(first) > 0 && !first[0].place.IsZero()
}

// take takes a token, and says how many more it has used.
func (c *counter) take(words []token) (used int, err error) {
	w := words[0].text
	if !words[0].isBar() {
		c.barLine = 0
	}
	if n, err := strconv.Atoi(w); err == nil {
		return 0, c.beatNumber(n)
	}
	switch w {
	case "&", "e", "a", "la", "li", "ta":
		return 0, c.within(w)
	case "(", "[":
		if c.in != struck {
			return 0, c.problem("A bracket opens inside another.", "Close the one before.")
		}
		c.in, c.open = map[string]look{"(": held, "[": rested}[w], false
		if len(c.now.items) == 0 {
			c.now.line, c.now.column = c.line, c.column
		}
	case ")", "]":
		if c.in == struck || (w == ")") != (c.in == held) {
			return 0, c.problem("A bracket closes that is not open.", "Take it out, or open it before the label.")
		}
		c.in = struck
	case "|", "||", "|]":
		if w == "|" && !c.any && c.barLine == c.line {
			c.now.signs.Missed = true
		}
		c.close()
		if c.barLine = 0; w == "|" {
			c.barLine = c.line
		}
		return 0, nil
	case "|:":
		c.close()
		c.now.signs.RepeatStart = true
	case ":|":
		c.close()
		if len(c.list) == 0 {
			return 0, c.problem("A repeat ends before anything is counted.", "Take :| out.")
		}
		c.list[len(c.list)-1].signs.RepeatEnd = true
		if c.ending == 1 {
			c.list[len(c.list)-1].signs.EndingStop = true
			c.ending = 0
		}
	case "/":
		if !c.any || c.in != struck {
			return 0, c.problem("Nothing is counted before the end of the measure.",
				"Write / and the label at which it ends: 1 (2) (3) /4.")
		}
		c.in = ended
	case "=":
		return c.again(words)
	default:
		return c.word(words)
	}
	return 0, nil
}

// beatNumber takes a beat's number.
func (c *counter) beatNumber(n int) error {
	if n < 1 || n > c.beats {
		return c.problem(fmt.Sprintf("%s has no beat %d.", c.meter, n),
			fmt.Sprintf("Write %d, or begin the next measure with 1.", c.beats))
	}
	place := c.beat.Mul(score.Frac(int64(n-1), 1))
	if c.any && !c.last.Less(place) {
		c.close()
	}
	c.on, c.sub, c.spoken = place, "", true
	return c.label(place)
}

// within takes a part of the beat said last.
func (c *counter) within(w string) error {
	if !c.spoken && !c.any && len(c.list) > 0 {
		return c.problem(fmt.Sprintf("%q has no beat before it.", w),
			"Say the number of its beat first, as (1) if it is held.")
	}
	part := map[string]score.Fraction{"&": score.Frac(1, 2), "e": score.Frac(1, 4), "a": score.Frac(3, 4),
		"la": score.Frac(1, 3), "li": score.Frac(2, 3), "ta": score.Frac(1, 6)}[w]
	if w == "ta" {
		part = part.Add(map[string]score.Fraction{"la": score.Frac(1, 3), "li": score.Frac(2, 3)}[c.sub])
	} else {
		c.sub = w
	}
	place := c.on.Add(c.beat.Mul(part))
	if c.any && !c.last.Less(place) {
		return c.problem(fmt.Sprintf("%q does not come after the label before it.", w), "Say the number of its beat first.")
	}
	return c.label(place)
}

func (c *counter) label(place score.Fraction) error {
	if len(c.now.items) >= 256 {
		return c.problem("There are too many labels in one measure.", "Begin the next measure with 1.")
	}
	if c.now.line == 0 {
		c.now.line, c.now.column = c.line, c.column
	}
	if c.now.end.Cmp(score.Fraction{}) > 0 {
		return c.problem("Something is counted after the end of the measure.",
			"Write / before the last label alone, or begin the next measure with a bar line.")
	}
	if c.in == ended {
		c.in, c.now.end = struck, place
		c.last = place
		return nil
	}
	l := c.in
	if l == rested && c.open {
		l = restedOn
	}
	c.open = true
	c.now.items = append(c.now.items, item{place, l})
	c.last, c.any = place, true
	return nil
}

// close ends a measure that has anything in it.
func (c *counter) close() {
	if !c.any {
		return
	}
	if c.ending > 0 {
		c.now.signs.Endings = []int{c.ending}
		if c.ending == 1 {
			c.first++
		} else if c.left--; c.left <= 0 {
			c.now.signs.EndingStop, c.ending = true, 0
		}
	}
	c.list = append(c.list, c.now)
	c.now, c.any, c.spoken, c.sub, c.open = measure{}, false, false, "", false // a rest in brackets begins again
	c.on = score.Fraction{}
}

// again takes the rhythm of earlier measures: =1, =1-4.
func (c *counter) again(words []token) (int, error) {
	if c.any {
		c.close()
	}
	number := func(k int) (n, used int) { // of digits side by side
		for k+used < len(words) && used < 3 && (used == 0 || words[k+used].column == words[k+used-1].column+1) {
			digit, err := strconv.Atoi(words[k+used].text)
			if err != nil {
				break
			}
			n, used = 10*n+digit, used+1
		}
		return n, used
	}
	from, digits := number(1)
	used, to, ok := digits, from, digits > 0
	if ok && len(words) > 1+used && words[1+used].text == "-" {
		to, digits = number(2 + used)
		used, ok = used+1+digits, digits > 0
	}
	first := 0
	if !c.pickup() {
		first = 1
	}
	if !ok || from < first || to < from || to-first >= len(c.list) {
		return 0, c.problem("There is no such measure to say again.",
			"Write = and the number of a measure before this one, as =1 or =1-4.")
	}
	for n := from; n <= to; n++ {
		c.now.items, c.now.end = append([]item(nil), c.list[n-first].items...), c.list[n-first].end
		c.now.line, c.now.column, c.any = c.line, c.column, true
		c.close()
		if len(c.list) > score.MostMeasures {
			return 0, score.Problems{score.TooManyMeasures(len(c.list))}
		}
	}
	return used, nil
}

// word takes words over the music: endings, and where it goes on.
func (c *counter) word(words []token) (int, error) {
	switch strings.ToLower(words[0].text) {
	case "first", "second":
		c.close()
		c.now.signs.EndingStart = true
		c.ending = 1
		if strings.EqualFold(words[0].text, "second") {
			c.ending, c.left = 2, max(c.first, 1)
		} else {
			c.first = 0
		}
		return 0, nil
	}
	for n := min(4, len(words)); n > 0; n-- {
		var said []string
		for _, w := range words[:n] {
			said = append(said, w.text)
		}
		signs, ok := score.SignsIn(strings.Join(said, " "))
		if !ok {
			continue
		}
		m := &c.now.signs
		if before := signs.Segno || signs.Coda; !c.any && !before && len(c.list) > 0 {
			m = &c.list[len(c.list)-1].signs
		}
		m.Add(signs)
		return n - 1, nil
	}
	return 0, c.problem(fmt.Sprintf("%q is not counted.", score.Clip(words[0].text)),
		"Count with numbers, & e a and la li ta; ( ) is held and [ ] is a rest.")
}

// sound finds what sounds in each measure. Where findings are kept, what is held from nothing
// is a rest.
func (c *counter) sound() error {
	frame := score.Part{}
	for _, m := range c.list {
		frame.Measures = append(frame.Measures, m.signs)
	}
	for k := range c.list {
		m := &c.list[k]
		var before *sound // what sounds last before it
		lead := frame.LeadsInto(k)
		if lead >= 0 {
			before = &c.list[lead].sounds[len(c.list[lead].sounds)-1]
		}
		sounding := before != nil && before.kind == score.Note
		c.line, c.column = m.line, m.column
		var list []sound
		for n, it := range m.items {
			if err := c.unsounded(k, n, it, sounding, list); err != nil {
				here := token{line: m.line, column: m.column}
				if err := c.found.save(err, here, here); err != nil {
					return err
				}
				if n == 0 {
					list = append(list, sound{kind: score.Rest})
				}
				if it.look == held || it.place.IsZero() {
					continue
				}
			}
			switch {
			case it.look == restedOn:
			case it.look == held && n == 0:
				list = append(list, sound{kind: score.Note, from: it.place, continues: true})
			case it.look == held:
			case it.look == rested:
				list = append(list, sound{kind: score.Rest, from: it.place})
			default:
				list = append(list, sound{kind: score.Note, from: it.place})
			}
		}
		for n := range list {
			list[n].to = c.meter.Length()
			if !m.end.IsZero() {
				list[n].to = m.end
			}
			if n+1 < len(list) {
				list[n].to = list[n+1].from
			}
		}
		switch later := lead < k-1; {
		case before == nil:
		case later && list[0].continues && !before.goesOn:
			err := c.at(k, "This ending begins with what is held, and the first does not.",
				"Write (1) in each ending, or 1 here.")
			if err := c.found.save(err, token{line: m.line, column: m.column},
				token{line: m.line, column: m.column}); err != nil {
				return err
			}
			list[0].continues = false
		case list[0].continues:
			before.goesOn = true
		case later:
			list[0].restruck = before.goesOn && list[0].kind == score.Note
		}
		m.sounds = list
	}
	return nil
}

// unsounded says why a label, the n-th of a measure, cannot stand where it does: after what
// sounds in the measure before, and before it in its own.
func (c *counter) unsounded(k, n int, it item, sounding bool, before []sound) error {
	switch {
	case it.look == held && n == 0 && !it.place.IsZero():
		return c.at(k, "A measure begins with what is held after its first beat.",
			"Write (1) for a note that is tied over the bar line.")
	case it.look == held && n == 0 && !sounding:
		return c.at(k, "Nothing is held into this measure.", "Write 1 for a note, or [1] for a rest.")
	case it.look == held && len(before) > 0 && before[len(before)-1].kind == score.Rest:
		return c.at(k, "Something is held after a rest.", "Write it in [ ] if it is silent.")
	case n == 0 && k > 0 && !it.place.IsZero():
		return c.at(k, "The measure does not begin on 1.", "Say what becomes of it: (1) held, or [1] a rest.")
	}
	return nil
}

// at is a problem about a measure by its place in the list.
func (c *counter) at(k int, what, do string) error {
	return score.Problems{{Measure: c.number(k), Line: c.line, Column: c.column, What: what, Do: do}}
}
