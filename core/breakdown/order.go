package breakdown

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Candidate is an exercise that may come next, with its demands of every instrument in the
// room, by instrument id.
type Candidate struct {
	Number  int // in its book
	Demands map[string]Demands
}

// Player is an instrument in the room, how many play it, and what they have met.
type Player struct {
	Instrument string
	Count      int
	Met        *Met
}

// Next is an exercise in its place.
type Next struct {
	At    int     // of the candidates
	Total float64 // how hard it is for the room, where it stands, from 0 to 1
	Why   string  // in words
	New   string  // what it brings, "" for nothing
}

// Grade is the difficulty from 0 to 9.
func (n Next) Grade() int { return grade(n.Total) }

// Easiest puts exercises in the order in which they are learned most easily: the easiest
// comes next for the students in the room, and what it brings is known from then on. For a
// mixed room the worst off weigh most, three fifths, and everybody two fifths. The book's
// order stands where another would hardly be easier. It stops after n. The order is
// ours, by the model of difficulty.
func Easiest(list []Candidate, room []Player, most int) []Next {
	o := newOrdering(list, room)
	var order []Next
	for range min(most, len(list)) {
		best, least := -1, 2.0
		for k := range list {
			if !o.taken[k] {
				least = min(least, o.total(k))
			}
		}
		for k := range list {
			if total := o.total(k); !o.taken[k] && total <= least+hardlyEasier {
				best, least = k, total
				break
			}
		}
		order = append(order, Next{At: best, Total: least, Why: o.why(best), New: o.news(best)})
		o.take(best)
	}
	return order
}

// hardlyEasier is up to which difference in difficulty the book's order stands; the figure is
// ours.
const hardlyEasier = 0.05

// ordering is what is known at a point of the order.
type ordering struct {
	list  []Candidate
	room  []Player
	taken []bool
	fresh [][]int                // how many things an exercise brings to a player, by both
	known []map[Element]bool     // by player
	in    []map[Element][]int    // the exercises that a thing is in, by player
	easy  [][]float64            // what an exercise leaves of ease to a player but for what is new, by both
	parts [mostFresh + 1]float64 // what is left with 0, 1, 2 … new things
}

// mostFresh is from how many new things on it makes no difference.
const mostFresh = 40

func newOrdering(list []Candidate, room []Player) *ordering {
	o := &ordering{list: list, room: room, taken: make([]bool, len(list))}
	for n := range o.parts {
		o.parts[n] = 1 - weights[newPart]*share(float64(n), halves[newPart])
	}
	for p, player := range room {
		o.known = append(o.known, map[Element]bool{})
		o.in = append(o.in, map[Element][]int{})
		o.fresh, o.easy = append(o.fresh, make([]int, len(list))), append(o.easy, make([]float64, len(list)))
		for k, x := range list {
			demands := x.Demands[player.Instrument]
			demands.Parts.New = 0
			o.easy[p][k] = 1 - demands.Parts.Total()
			for _, t := range demands.Elements {
				if !player.Met.Has(t) {
					o.fresh[p][k]++
					o.in[p][t] = append(o.in[p][t], k)
				}
			}
		}
	}
	return o
}

// total is how hard an exercise is for the room at this point.
func (o *ordering) total(k int) float64 {
	worst, sum, players := 0.0, 0.0, 0
	for p, player := range o.room {
		n := max(player.Count, 1)
		hard := 1 - o.easy[p][k]*o.parts[min(o.fresh[p][k], mostFresh)]
		worst, sum, players = max(worst, hard), sum+float64(n)*hard, players+n
	}
	if players == 0 {
		return 0
	}
	return 0.6*worst + 0.4*sum/float64(players)
}

func (o *ordering) take(k int) {
	o.taken[k] = true
	for p, player := range o.room {
		for _, t := range o.list[k].Demands[player.Instrument].Elements {
			if o.known[p][t] || player.Met.Has(t) {
				continue
			}
			o.known[p][t] = true
			for _, other := range o.in[p][t] {
				o.fresh[p][other]--
			}
		}
	}
}

// why says why an exercise comes here, in ten words at most: what it brings.
func (o *ordering) why(k int) string {
	news := o.news(k)
	if news == "" {
		return "Nothing new."
	}
	return "New: " + news + "."
}

// mostWhy is how many words a reason has at most.
const mostWhy = 10

// news is what an exercise brings, in nine words at most; "" for nothing.
func (o *ordering) news(k int) string {
	words := o.words(k)
	for most := len(words); most > 0; most-- {
		if said := joinUpTo(words, most); len(strings.Fields(said)) < mostWhy {
			return said
		}
	}
	if len(words) > 0 {
		return fmt.Sprintf("%d things", len(words))
	}
	return ""
}

// InOrder takes exercises in the order given, which is the book's: what each brings is known
// from then on. It stops after n.
func InOrder(list []Candidate, room []Player, most int) []Next {
	o := newOrdering(list, room)
	var order []Next
	for k := range list[:min(most, len(list))] {
		next := Next{At: k, Total: o.total(k), Why: o.why(k), New: o.news(k)}
		if k == 0 && !slices.ContainsFunc(room, func(p Player) bool { return !p.Met.Empty() }) {
			next.Why, next.New = "The first.", "everything" // there is nothing that it is new beside
		}
		order = append(order, next)
		o.take(k)
	}
	return order
}

// words says what an exercise brings at this point: to one instrument its notes by name; to
// several, whose notes have other names on each, for whom there are new ones. Ways to play a
// note go without saying.
func (o *ordering) words(k int) []string {
	var words []string
	var notes []string
	keys := false
	add := func(word string) {
		if word != "" && !slices.Contains(words, word) {
			words = append(words, word)
		}
	}
	for p, player := range o.room {
		note := false
		for _, t := range o.list[k].Demands[player.Instrument].Elements {
			if player.Met.Has(t) || o.known[p][t] {
				continue
			}
			switch kind, _, is := strings.Cut(string(t), ":"); {
			case len(o.room) == 1:
				add(t.Words())
			case !is:
				note = true
			case kind == "key":
				keys = true
			default:
				add(t.Words())
			}
		}
		if note {
			i, _ := instrument.ByID(player.Instrument)
			notes = append(notes, i.Name)
		}
	}
	if keys {
		add("a key")
	}
	switch n := len(notes); {
	case n == 0:
	case n == len(o.room):
		add("notes for everybody")
	case n <= 2:
		add("notes for " + strings.Join(notes, " and "))
	default:
		add(fmt.Sprintf("notes for %d of %d instruments", n, len(o.room)))
	}
	return words
}

// joinUpTo joins up to n words: "F sharp, dotted quarter note and 2 more".
func joinUpTo(words []string, most int) string {
	if len(words) <= most {
		return strings.Join(words, ", ")
	}
	return fmt.Sprintf("%s and %d more", strings.Join(words[:most], ", "), len(words)-most)
}

// More lists the exercises that practise the same as some things, easiest first for an
// instrument, the one at hand left out: those that hold all of them, and have notes where it
// has, by the place in the list.
func More(list []Candidate, instrument string, elements []Element, hand int) []int {
	var found []int
	for k, x := range list {
		has := map[Element]bool{}
		for _, t := range x.Demands[instrument].Elements {
			has[t] = true
		}
		all := k != hand && len(elements) > 0 && (hand < 0 || !pitched(list[hand], instrument) || pitched(x, instrument))
		for _, t := range elements {
			all = all && has[t]
		}
		if all {
			found = append(found, k)
		}
	}
	hard := func(k int) float64 { return list[k].Demands[instrument].Parts.Total() }
	slices.SortStableFunc(found, func(a, b int) int { return cmp.Compare(hard(a), hard(b)) })
	return found
}

// pitched says whether an exercise has notes for an instrument, not strokes alone.
func pitched(x Candidate, instrument string) bool {
	return slices.ContainsFunc(x.Demands[instrument].Elements, func(t Element) bool { _, is := t.note(); return is })
}

// TroubleElements are the things that make a measure what it is to practise: of a rhythm its
// shortest note and its longest dotted one, of reading the notes with signs, of a change
// both its notes, of height or depth the farthest note.
func (r Report) TroubleElements(i int) []Element {
	m := r.Part.Measures[i]
	d := r.Measures[i].Difficulty
	switch d.mostly() {
	case rhythmPart:
		return r.rhythmElements(i)
	case readingPart:
		for j, e := range m.Events {
			if x := r.Measures[i].Events[j]; x.Has(Accidental) || x.Has(Trap) || x.Has(InKey) {
				return []Element{noteElement(e.Pitch)}
			}
		}
	case changePart:
		if worst := r.worstChange(i); worst != nil {
			return []Element{noteElement(worst.from.Pitch), noteElement(worst.to.Pitch)}
		}
	case rangePart:
		target, _ := instrument.ByID(r.Instrument)
		farthest, _ := r.farthest(i, target)
		return []Element{noteElement(farthest)}
	}
	return nil
}

// rhythmElements are the dotted or divided value that makes a rhythm, else its shortest.
func (r Report) rhythmElements(i int) []Element {
	var found Element
	least := 99.0
	for _, e := range r.Part.Measures[i].Events {
		if e.Kind != score.Note || e.Tied {
			continue
		}
		weight := e.Length.Float()
		if e.Value.Dots > 0 || e.Value.Tuplet.Actual > 0 {
			weight /= 8
		}
		if weight < least {
			found, least = lengthElement(e.Value), weight
		}
	}
	if found == "" {
		return nil
	}
	return []Element{found}
}
