package count

import (
	"fmt"
	"strings"

	"unhurriedbench/core/score"
)

// Why explains an event's length and place by arithmetic, for every note and
// rest, by measure and event: "A dotted quarter: 1 + ½ = 1½ beats, from 1
// through the first half of 2." British uses British value names. Notes that
// continue a tie say so.
func Why(p score.Part, o Options, british bool) [][]string {
	type place struct {
		meter score.Meter
		rest  bool
		value score.Value
		start score.Fraction
	}
	said := map[place]string{}
	why := make([][]string, len(p.Measures))
	for i, m := range p.Measures {
		why[i] = make([]string, len(m.Events))
		pc := paceOf(m.Meter, o)
		for j, e := range m.Events {
			switch {
			case e.WholeMeasure:
				why[i][j] = fmt.Sprintf("A whole measure of rest: %s.", beatsOf(pc, m.Length))
			case e.Tied:
				why[i][j] = fmt.Sprintf("Tied to the note before: it adds %s and is not struck.", beatsOf(pc, e.Length))
			case len(tiedLengths(p, i, j)) > 0:
				why[i][j] = sentence(p, i, j, pc, british)
			default:
				at := place{m.Meter, e.Kind == score.Rest, e.Value, e.Start}
				if said[at] == "" {
					said[at] = sentence(p, i, j, pc, british)
				}
				why[i][j] = said[at]
			}
		}
	}
	return why
}

func sentence(p score.Part, i, j int, pc pace, british bool) string {
	e := p.Measures[i].Events[j]
	kind := ""
	if e.Kind == score.Rest {
		kind = " rest"
	}
	name := e.Value.Name(british)
	text := fmt.Sprintf("%s %s%s: %s", article(name), name, kind, sum(pc, e))
	if tied := tiedLengths(p, i, j); len(tied) > 0 {
		total := e.Length
		words := []string{beats(pc, e.Length)}
		for _, length := range tied {
			total = total.Add(length)
			words = append(words, beats(pc, length))
		}
		text = fmt.Sprintf("%s, tied: %s = %s", strings.TrimSuffix(text, "."), strings.Join(words, " + "), beatsOf(pc, total))
		return text + extent(p, i, pc, e.Start, total) + "."
	}
	return text + extent(p, i, pc, e.Start, e.Length) + "."
}

// sum is the arithmetic of dots and tuplets: "1 + ½ = 1½ beats".
func sum(pc pace, e score.Event) string {
	v := e.Value
	if v.Tuplet.Actual > 0 {
		plain := score.Value{Base: v.Base, Dots: v.Dots}.Length()
		return fmt.Sprintf("%d in the time of %d, %s × %s = %s", v.Tuplet.Actual, v.Tuplet.Normal,
			beats(pc, plain), score.Frac(int64(v.Tuplet.Normal), int64(v.Tuplet.Actual)).Words(), beatsOf(pc, e.Length))
	}
	if v.Dots == 0 {
		return beatsOf(pc, e.Length)
	}
	part := score.Value{Base: v.Base}.Length()
	words := []string{beats(pc, part)}
	for range v.Dots {
		part = part.Mul(score.Frac(1, 2))
		words = append(words, beats(pc, part))
	}
	return strings.Join(words, " + ") + " = " + beatsOf(pc, e.Length)
}

// extent says from which count a length reaches to where.
func extent(p score.Part, i int, pc pace, start, length score.Fraction) string {
	from := pc.at(Numbers, start, false)
	if from == "" {
		return ""
	}
	if !pc.onBeat(start) {
		from = fmt.Sprintf("the %s of %s", from, pc.number(start))
	}
	end := start.Add(length)
	last := end.Sub(end.Within(pc.beat))
	if end.Within(pc.beat).IsZero() {
		last = end.Sub(pc.beat)
	}
	if !start.Less(last.Add(pc.beat)) || last.Cmp(start.Sub(start.Within(pc.beat))) == 0 {
		if length == pc.beat {
			return ", on " + from
		}
		return ", from " + from
	}
	to := pc.number(last.Within(p.Measures[i].Meter.Length()))
	if last.Cmp(p.Measures[i].Meter.Length()) >= 0 {
		to += " of a later measure"
	}
	switch part := end.Sub(last).Div(pc.beat); {
	case part == score.Frac(1, 1):
		return fmt.Sprintf(", from %s through %s", from, to)
	case part == score.Frac(1, 2):
		return fmt.Sprintf(", from %s through the first half of %s", from, to)
	default:
		return fmt.Sprintf(", from %s through %s of %s", from, part.Words(), to)
	}
}

// tiedLengths lists the lengths of the notes tied on after an event.
func tiedLengths(p score.Part, i, j int) []score.Fraction {
	var lengths []score.Fraction
	for at := j + 1; i < len(p.Measures); i, at = i+1, 0 {
		for ; at < len(p.Measures[i].Events); at++ {
			e := p.Measures[i].Events[at]
			if !e.Tied {
				return lengths
			}
			lengths = append(lengths, e.Length)
		}
	}
	return lengths
}

func beats(pc pace, length score.Fraction) string { return length.Div(pc.beat).Words() }

func beatsOf(pc pace, length score.Fraction) string {
	n := length.Div(pc.beat)
	if n.Cmp(score.Frac(1, 1)) <= 0 {
		return n.Words() + " beat"
	}
	return n.Words() + " beats"
}

func article(name string) string {
	if strings.ContainsAny(name[:1], "aeiou") {
		return "An"
	}
	return "A"
}
