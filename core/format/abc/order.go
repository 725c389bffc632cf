package abc

import (
	"fmt"
	"strings"

	"unhurriedbench/core/score"
)

// partOrder reads what P: in the header says of the order of the parts that P: in the body
// begins: "AABB", "A2(BC)2", dots and spaces left aside. ok is false where it says none.
func partOrder(text string) (order string, ok bool) {
	order, rest, ok := orderOf(text, 0)
	return order, ok && rest == ""
}

// longestOrder bounds how many parts an order has.
const longestOrder = 200

func orderOf(text string, depth int) (order, rest string, ok bool) {
	for text != "" {
		c := text[0]
		one := ""
		switch {
		case c == '.' || c == ' ':
			text = text[1:]
			continue
		case c >= 'A' && c <= 'Z':
			one, text = text[:1], text[1:]
		case c == '(' && depth < 4:
			one, text, ok = orderOf(text[1:], depth+1)
			if !ok || text == "" || text[0] != ')' {
				return "", "", false
			}
			text = text[1:]
		case c == ')' && depth > 0:
			return order, text, true
		default:
			return "", "", false
		}
		if text != "" && text[0] >= '2' && text[0] <= '9' {
			one, text = strings.Repeat(one, int(text[0]-'0')), text[1:]
		}
		if order += one; len(order) > longestOrder {
			return "", "", false
		}
	}
	return order, "", depth == 0 && order != ""
}

// ordered writes a part's strains, which P: names in the body, out in an order; nil where one
// of them is not there or the order is as they stand.
func ordered(part score.Part, order string) []score.Measure {
	strains := map[byte][2]int{} // from a measure up to another
	stands, last := "", -1
	for i, m := range part.Measures {
		if len(m.Rehearsal) != 1 {
			continue
		}
		if last >= 0 {
			strains[stands[len(stands)-1]] = [2]int{last, i}
		}
		if _, twice := strains[m.Rehearsal[0]]; twice {
			return nil
		}
		stands, last = stands+m.Rehearsal, i
	}
	if last < 0 || order == stands {
		return nil
	}
	strains[stands[len(stands)-1]] = [2]int{last, len(part.Measures)}
	first := strains[stands[0]][0]
	measures := append([]score.Measure{}, part.Measures[:first]...)
	for i := range len(order) {
		strain, known := strains[order[i]]
		if !known || len(measures) > score.MostMeasures {
			return nil
		}
		measures = append(measures, score.Part{Measures: part.Measures[strain[0]:strain[1]]}.Copy().Measures...)
	}
	return measures
}

// follow writes the strains of every voice out in the order that the header's P: gives.
func (r *reader) follow() {
	if r.order == "" {
		return
	}
	say := func(what, do string) {
		r.score.Remarks = append(r.score.Remarks, score.Problem{Measure: -1, Line: r.orderLine, What: what, Do: do})
	}
	order, ok := partOrder(r.order)
	if !ok {
		say(fmt.Sprintf("P:%s gives an order of parts that is not read; the measures are played as they stand.",
			score.Clip(r.order)), "Write letters, as P:AABA.")
		return
	}
	written := false
	for _, v := range r.voices {
		if measures := ordered(v.part, order); measures != nil {
			v.part.Measures, written = measures, true
		}
	}
	if written {
		say(fmt.Sprintf("P:%s gives the order of the parts; they are written out in it.", score.Clip(r.order)), "")
	}
}
