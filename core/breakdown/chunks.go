package breakdown

import (
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/score"
)

// Chunk is a run of measures learned on its own.
type Chunk struct {
	Label    string          `json:"label"`           // "A", "B"…, or "Whole"
	Measures []int           `json:"measures"`        // their numbers, without those its pickup stands in
	Start    *score.Fraction `json:"start,omitempty"` // in the measure before its first: where its pickup begins
	End      *score.Fraction `json:"end,omitempty"`   // in its last measure: where the next chunk's pickup begins
	Why      string          `json:"why"`

	Difficulty float64      `json:"difficulty"`       // from 0 to 1
	Breath     *ChunkBreath `json:"breath,omitempty"` // of wind instruments

	At []int `json:"-"` // indexes of its measures in the part, as played

	phrase bool // a phrase ends with it
}

// From is the index of its first measure in the part, its pickup left out.
func (p Chunk) From() int { return p.At[0] }

// To is the index of its last measure.
func (p Chunk) To() int { return p.At[len(p.At)-1] }

// Whole says whether it is the whole exercise.
func (p Chunk) Whole() bool { return p.Label == wholeLabel }

// wholeLabel is the label of the chunk that is the whole exercise.
const wholeLabel = "Whole"

// wholeWhy is why the whole is one.
const wholeWhy = "one tempo throughout"

// InWords says which measures: "m. 3–4", "pickup, m. 1–2", "m. 6, 9–10".
func (p Chunk) InWords() string {
	numbers := p.Measures
	lead := ""
	switch {
	case p.Start != nil:
		lead = "pickup, "
	case numbers[0] == 0 && len(numbers) == 1:
		return "pickup"
	case numbers[0] == 0:
		lead, numbers = "pickup, ", numbers[1:]
	}
	var runs []string
	for from := 0; from < len(numbers); {
		to := from
		for to+1 < len(numbers) && numbers[to+1] == numbers[to]+1 {
			to++
		}
		run := fmt.Sprint(numbers[from])
		if to > from {
			run = fmt.Sprintf("%d–%d", numbers[from], numbers[to])
		}
		runs = append(runs, run)
		from = to + 1
	}
	return lead + "m. " + strings.Join(runs, ", ")
}

// fewest is how many measures a chunk has at least, and a phrase is cut into.
const fewest = 2

// Cut divides a part into chunks: at repeats, endings, fine and double bars; then at
// the ends of phrases, which are rests, breaths and long or closing notes before a pickup
// like that of the exercise; then by two measures, but not before the long note that a
// measure leads to. A phrase keeps its pickup. Nothing is
// cut inside a tie or a slur. A second ending, and a first one that a tie leads into, is
// joined to the measure before the endings. No chunk but an ending has fewer than two
// measures where the exercise has more, and none is without a note to strike. The last
// chunk is the whole. Source: common practice.
func Cut(part score.Part) []Chunk {
	c := newCutter(part)
	var runs []run
	for _, s := range c.sections() {
		runs = append(runs, c.phrases(s)...)
	}
	runs = c.joinShort(runs)
	for _, r := range runs {
		if r.lead > 0 {
			c.taken[r.from-1] = r.lead
		}
	}
	chunks := make([]Chunk, len(runs))
	for n, r := range runs {
		chunks[n] = c.chunk(r, n)
	}
	if len(chunks) > 1 {
		whole := c.chunk(run{from: 0, to: len(part.Measures) - 1, why: wholeWhy}, 0)
		whole.Label, whole.Why, whole.End = wholeLabel, wholeWhy, nil
		chunks = append(chunks, whole)
	}
	return chunks
}

// run is a stretch of measures by index. lead is the event, in the measure before,
// with which its pickup begins, 0 for none.
type run struct {
	from, to int
	lead     int
	ending   bool
	phrase   bool // its end is that of a phrase
	joined   int  // 1 and the index of the measure that leads to a later ending, 0 for none
	why      string
}

type cutter struct {
	part  score.Part
	held  []bool      // a tie or slur leads into the measure
	bare  []bool      // nothing is struck in the measure
	quiet []bool      // nothing sounds in it either
	slurs []int       // how many slurs lead into it
	full  []int       // how many full measures of music come before it
	taken map[int]int // the event of a measure with which the next chunk's pickup begins
}

func newCutter(part score.Part) *cutter {
	c := &cutter{
		part:  part,
		held:  make([]bool, len(part.Measures)),
		bare:  make([]bool, len(part.Measures)),
		quiet: make([]bool, len(part.Measures)),
		slurs: make([]int, len(part.Measures)),
		full:  make([]int, len(part.Measures)+1),
		taken: map[int]int{},
	}
	slurs := 0
	for i, m := range part.Measures {
		c.held[i], c.slurs[i] = slurs > 0, slurs
		c.bare[i], c.quiet[i] = true, true
		for j, e := range m.Events {
			if j == 0 && e.Kind == score.Note && e.Tied {
				c.held[i] = true
			}
			if e.Kind == score.Note {
				c.quiet[i] = false
				c.bare[i] = c.bare[i] && e.Tied
			}
			slurs = max(0, slurs+e.SlurStarts-e.SlurEnds)
		}
		c.full[i+1] = c.full[i]
		if m.Number > 0 && !m.Split && !c.quiet[i] {
			c.full[i+1]++
		}
	}
	return c
}

// sections are what repeats, endings, fine and double bars divide.
func (c *cutter) sections() []run {
	measures := c.part.Measures
	var list []run
	for from := 0; from < len(measures); {
		to := from
		for to+1 < len(measures) && !c.divides(to) {
			to++
		}
		s := run{from: from, to: to, ending: len(measures[from].Endings) > 0}
		if s.ending && (c.held[from] || !slices.Contains(measures[from].Endings, 1)) {
			s.joined = c.leadsTo(from)
		}
		list = append(list, s)
		from = to + 1
	}
	return list
}

// divides says whether the bar line after a measure ends a section.
func (c *cutter) divides(i int) bool {
	m, next := c.part.Measures[i], c.part.Measures[i+1]
	divided := m.RepeatEnd || next.RepeatStart || next.EndingStart || m.EndingStop || m.Fine || m.DoubleBar ||
		(len(m.Endings) > 0) != (len(next.Endings) > 0)
	return divided && (!c.held[i+1] || next.EndingStart)
}

// leadsTo is 1 and the index of the measure before the run of endings around a
// measure, 0 where they begin the part.
func (c *cutter) leadsTo(i int) int {
	for i > 0 && len(c.part.Measures[i-1].Endings) > 0 {
		i--
	}
	return i // one more than the index before it
}

// phrases divides a section at the ends of its phrases and then by two measures.
func (c *cutter) phrases(s run) []run {
	var list []run
	upbeat, hasUpbeat := c.upbeat(s.from)
	ends := make([]phraseEnd, s.to-s.from) // of every measure but the last
	for k := range ends {
		ends[k] = c.phraseEnd(s.from+k, upbeat, hasUpbeat)
	}
	current := s
	flush := func(to int, why string, phrase bool) {
		current.to, current.why, current.phrase = to, why, phrase
		list = append(list, current)
	}
	full := 0
	for i := s.from; i <= s.to; i++ {
		if m := c.part.Measures[i]; m.Number > 0 && !m.Split {
			full++
		}
		if i == s.to {
			flush(i, "to the end", true)
			break
		}
		if full < fewest || c.fullLeft(i+1, s.to) < fewest || c.bare[i+1] || c.part.Measures[i+1].Split {
			continue
		}
		end := ends[i-s.from]
		switch {
		case end.ends && end.lead > 0 && c.fullLeft(i+1, c.nextEnd(i+1, s, ends)) < fewest: // what is left is no phrase
			continue
		case end.ends:
		case c.held[i+1] || c.closes(i+1) || c.fullLeft(i+1, c.nextEnd(i+1, s, ends)) < fewest:
			continue
		default:
			end.why = measureCount(full)
		}
		flush(i, end.why, end.ends)
		current = run{from: i + 1, to: s.to, lead: end.lead, ending: s.ending}
		full = 0
	}
	if list[len(list)-1].why == "to the end" && s.to < len(c.part.Measures)-1 {
		list[len(list)-1].why = c.barWords(s.to)
	}
	return list
}

// measureCount is "two measures", "three measures".
func measureCount(n int) string {
	words := [...]string{2: "two", 3: "three", 4: "four"}
	if n >= 2 && n < len(words) {
		return words[n] + " measures"
	}
	return fmt.Sprintf("%d measures", n)
}

// barWords says what the bar line after a measure is.
func (c *cutter) barWords(i int) string {
	m, next := c.part.Measures[i], c.part.Measures[i+1]
	switch {
	case len(m.Endings) > 0:
		return "an ending"
	case m.RepeatEnd:
		return "to the repeat"
	case m.Fine:
		return "to the fine"
	case next.EndingStart:
		return "to the endings"
	case next.RepeatStart:
		return "before the repeat"
	}
	return "to the double bar"
}

// fullLeft is how many full measures of music lie between two, both counted.
func (c *cutter) fullLeft(from, to int) int { return max(0, c.full[to+1]-c.full[from]) }

// phraseEnd is whether a phrase ends in a measure or at its bar line, and with which
// event of it the next phrase's pickup begins, 0 for none.
type phraseEnd struct {
	ends bool
	lead int
	why  string
}

// nextEnd is the measure in which the phrase that begins in a measure of a section
// ends, where enough is left to cut there; at most the last one.
func (c *cutter) nextEnd(from int, s run, ends []phraseEnd) int {
	for i := from; i < s.to && c.fullLeft(i+1, s.to) >= fewest; i++ {
		if ends[i-s.from].ends {
			return i
		}
	}
	return s.to
}

// upbeat is the place in a measure at which phrases begin where a section begins
// with a pickup.
func (c *cutter) upbeat(i int) (score.Fraction, bool) {
	m := c.part.Measures[i]
	if m.Number == 0 || m.Split {
		return m.Offset, true
	}
	return score.Fraction{}, false
}

// phraseEnd finds the end of a phrase: at a rest or a breath, or before a pickup like
// that of the section.
func (c *cutter) phraseEnd(i int, upbeat score.Fraction, hasUpbeat bool) phraseEnd {
	m := c.part.Measures[i]
	if len(m.Events) == 0 {
		return phraseEnd{}
	}
	last := m.Events[len(m.Events)-1]
	switch {
	case c.held[i+1]: // at most before its pickup
	case endsInRest(m):
		return phraseEnd{true, 0, "ends at the rest"}
	case slices.Contains(last.Marks, score.Breath):
		return phraseEnd{true, 0, "ends at the breath"}
	}
	half := m.Meter.Length().Mul(score.Frac(1, 2))
	slurs := c.slurs[i]
	for j, e := range m.Events {
		left := m.Offset.Add(m.Length).Sub(e.Start)
		begins := j > 0 && e.Kind == score.Note && !e.Tied && slurs == 0
		slurs = max(0, slurs+e.SlurStarts-e.SlurEnds)
		if !begins || left.Cmp(half) > 0 {
			continue
		}
		before := m.Events[j-1]
		switch {
		case before.Kind == score.Rest && left.Less(half):
			return phraseEnd{true, j, "ends at the rest"}
		case slices.Contains(before.Marks, score.Breath):
			return phraseEnd{true, j, "ends at the breath"}
		case hasUpbeat && e.Start == upbeat && (e.SlurStarts > 0 || c.settles(i, j-1)):
			return phraseEnd{true, j, "a phrase"}
		}
	}
	return phraseEnd{}
}

// settles says whether a phrase can end with a note before an upbeat: a long one, of two beats
// in a simple meter and one in a compound, or the one longest note of its measure, of more than
// a beat or on the first, third or fifth degree. Source: common practice.
func (c *cutter) settles(i, j int) bool {
	m := c.part.Measures[i]
	beat := m.Meter.Beat()
	length := m.Events[j].Length
	if m.Events[j].Tied { // with what is tied to it, also over the bar line
		for k := j - 1; k >= 0 && m.Events[k+1].Tied; k-- {
			length = length.Add(m.Events[k].Length)
		}
		if i > 0 && m.Events[0].Tied && length == m.Events[j].Start.Add(m.Events[j].Length) {
			before := c.part.Measures[i-1].Events
			length = length.Add(before[len(before)-1].Length)
		}
	}
	if closing(m.Meter, length) {
		return true
	}
	for _, e := range m.Events[:j] {
		if e.Kind == score.Note && e.Length.Cmp(length) >= 0 {
			return false
		}
	}
	e := m.Events[j]
	return beat.Less(length) || !e.Unpitched && slices.Contains([]int{1, 3, 5}, m.Key.Degree(e.Pitch))
}

// closing says whether a note is long enough to end a phrase wherever it stands.
func closing(m score.Meter, length score.Fraction) bool {
	long := m.Beat()
	if !m.Compound() {
		long = long.Mul(score.Frac(2, 1))
	}
	return length.Cmp(long) >= 0
}

// closes says whether a measure holds nothing but the long note that the measure before
// leads to: a phrase and its last note are not parted.
func (c *cutter) closes(i int) bool {
	m, before := c.part.Measures[i], c.part.Measures[i-1]
	if len(m.Events) == 0 || m.Events[0].Kind != score.Note || m.Events[0].Tied || !closing(m.Meter, m.Events[0].Length) {
		return false
	}
	for _, e := range m.Events[1:] {
		if e.Kind == score.Note {
			return false
		}
	}
	moving := 0
	for _, e := range before.Events {
		if e.Kind == score.Note && !e.Tied {
			moving++
		}
	}
	return moving > 1 && before.Events[len(before.Events)-1].Kind == score.Note
}

// joinShort joins what has fewer than two full measures, and is no ending, to its
// neighbour or to the ending it leads to, and what has nothing to strike to what is before it; a run of rests that
// nothing is before, or that is long, stands in the whole alone.
func (c *cutter) joinShort(runs []run) []run {
	var list []run
	for n := 0; n < len(runs); n++ {
		r := runs[n]
		full := c.fullLeft(r.from, r.to)
		if full > 0 {
			r.from, r.to = c.trimmed(r.from, r.to)
		}
		if full == 0 && c.fullLeft(0, len(c.part.Measures)-1) > 0 {
			if r.from > 0 && c.part.Measures[r.from].Number > 0 || n+1 == len(runs) {
				if k := len(list) - 1; k >= 0 && !r.ending && r.to-list[k].to <= fewest {
					list[k].to = r.to
				}
				continue
			}
			runs[n+1].from = r.from // a pickup alone goes along with what follows
			continue
		}
		if r.ending || full >= fewest {
			list = append(list, r)
			continue
		}
		k := len(list) - 1
		switch {
		case k >= 0 && (!list[k].ending || n+1 == len(runs)):
			list[k].to, list[k].why, list[k].phrase = r.to, r.why, r.phrase
		case n+1 < len(runs):
			next := &runs[n+1]
			next.from, next.lead = r.from, r.lead
			if next.ending {
				next.why += ", with what leads to it"
			}
		default:
			list = append(list, r)
		}
	}
	if len(list) == 0 { // an exercise of rests
		return []run{{from: 0, to: len(c.part.Measures) - 1, why: "to the end"}}
	}
	return list
}

// trimmed leaves out measures of rest at the beginning, and at the end where they are
// many.
func (c *cutter) trimmed(from, to int) (int, int) {
	for c.quiet[from] {
		from++
	}
	last := to
	for c.quiet[last] {
		last--
	}
	if to-last > fewest {
		to = last
	}
	return from, to
}

func (c *cutter) chunk(r run, n int) Chunk {
	measures := c.part.Measures
	p := Chunk{Label: label(n), Why: r.why, phrase: r.phrase}
	if r.joined > 0 && r.joined-1 < r.from {
		p.At = append(p.At, r.joined-1)
		p.Why = fmt.Sprintf("%s, with m. %d which leads to it", r.why, measures[r.joined-1].Number)
	}
	for i := r.from; i <= r.to; i++ {
		p.At = append(p.At, i)
	}
	for _, i := range p.At {
		if m := measures[i]; len(p.Measures) == 0 || p.Measures[len(p.Measures)-1] != m.Number {
			p.Measures = append(p.Measures, m.Number)
		}
	}
	if r.lead > 0 {
		start := measures[r.from-1].Events[r.lead].Start
		p.Start = &start
	}
	if end := c.taken[r.to]; end > 0 {
		start := measures[r.to].Events[end].Start
		p.End = &start
	}
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

// sayAgain adds to the reason of each chunk that is played like an earlier one, or
// like measures before it: what is learned once need not be learned twice.
func sayAgain(part score.Part, chunks []Chunk, found []Recurrence) {
	words := map[string]string{"same": "the same as %s", "shifted": "%s again, shifted",
		"notes": "the notes of %s in another rhythm", "rhythm": "the rhythm of %s"}
	heard := make([][]sound, len(chunks))
	for i := range chunks {
		p := &chunks[i]
		if p.Whole() {
			continue
		}
		heard[i] = p.hear(part)
		how, like := "", ""
		for j := range i {
			if found := compare(heard[j], heard[i]); rank[found] > rank[how] {
				how, like = found, chunks[j].InWords()
			}
		}
		for _, s := range found {
			if how == "" && p.Start == nil && p.End == nil && covers(s.Measures, p.Measures) {
				as := make([]int, len(p.Measures))
				for k, n := range p.Measures {
					as[k] = s.As[slices.Index(s.Measures, n)]
				}
				how, like = s.How, Chunk{Measures: as}.InWords()
			}
		}
		if how != "" {
			p.Why = fmt.Sprintf(words[how], like) + ", " + p.Why
		}
	}
}

// Passage is a measure of a chunk, or as much of one as belongs to it: from a place
// in it to another.
type Passage struct {
	At       int // index of the measure in the part
	From, To score.Fraction
}

// Beats is how many beats of the part's meter passages last, rests and all.
func Beats(part score.Part, passages []Passage) float64 {
	var length score.Fraction
	for _, p := range passages {
		length = length.Add(p.To.Sub(p.From))
	}
	return length.Div(part.Meter().Beat()).Float()
}

// Played lists a chunk measure by measure as it is played: the whole with its repeats, others
// as they are written.
func (p Chunk) Played(part score.Part) []Passage {
	if !p.Whole() {
		return p.Passages(part)
	}
	var list []Passage
	for _, i := range part.Order() {
		m := part.Measures[i]
		list = append(list, Passage{i, m.Offset, m.Offset.Add(m.Length)})
	}
	return list
}

// Passages lists a chunk measure by measure, its pickup first.
func (p Chunk) Passages(part score.Part) []Passage {
	list := make([]Passage, 0, len(p.At)+1)
	add := func(i int) *Passage {
		m := part.Measures[i]
		list = append(list, Passage{i, m.Offset, m.Offset.Add(m.Length)})
		return &list[len(list)-1]
	}
	if p.Start != nil {
		add(p.From() - 1).From = *p.Start
	}
	for _, i := range p.At {
		add(i)
	}
	if p.End != nil {
		list[len(list)-1].To = *p.End
	}
	return list
}

// hear lists what sounds in a chunk, from its own beginning.
func (p Chunk) hear(part score.Part) []sound {
	passages, most := p.Passages(part), 0
	for _, passage := range passages {
		most += len(part.Measures[passage.At].Events)
	}
	heard, at := make([]sound, 0, most), score.Fraction{}
	for _, passage := range passages {
		for _, e := range part.Measures[passage.At].Events {
			if e.Kind == score.Note && !e.Start.Less(passage.From) && e.Start.Less(passage.To) {
				heard = joinSound(heard, e, at.Add(e.Start.Sub(passage.From)))
			}
		}
		at = at.Add(passage.To.Sub(passage.From))
	}
	return heard
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

// endsInRest says whether the last beat or more of the measure is rest.
func endsInRest(m score.Measure) bool {
	length := score.Fraction{}
	for j := len(m.Events) - 1; j >= 0 && m.Events[j].Kind == score.Rest; j-- {
		length = length.Add(m.Events[j].Length)
	}
	return length.Cmp(m.Meter.Beat()) >= 0
}
