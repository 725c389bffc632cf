package counted

import (
	"context"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/score"
)

// NotePlace is a struck note by the number of its measure, 0 for a pickup, and which of the
// measure's struck notes it is, from 1. It is typed "3.1".
type NotePlace struct{ Measure, Note int }

func (p NotePlace) String() string { return fmt.Sprintf("%d.%d", p.Measure, p.Note) }

// Before says whether a note comes before another.
func (p NotePlace) Before(q NotePlace) bool {
	return p.Measure < q.Measure || p.Measure == q.Measure && p.Note < q.Note
}

// ParseNotePlace reads "3.1".
func ParseNotePlace(text string) (NotePlace, bool) {
	measure, note, dotted := strings.Cut(text, ".")
	m, bad := strconv.Atoi(measure)
	n, worse := strconv.Atoi(note)
	return NotePlace{m, n}, dotted && bad == nil && worse == nil && m >= 0 && n >= 1
}

// signs are the marks of single notes as they are typed.
var signs = map[string]score.Mark{
	"staccato": score.Staccato, "accent": score.Accent, "tenuto": score.Tenuto, "fermata": score.Fermata,
	"breath": score.Breath, "up": score.UpBow, "down": score.DownBow,
}

// slur is typed over a range of notes.
const slur = "slur"

// over says whether a word is typed over a range and stands on its first and last note alone: a
// slur or a hairpin.
func over(word string) bool { return word == slur || hairpin(word) }

// hairpin says whether a word is one.
func hairpin(word string) bool {
	return score.Hairpin(word) == score.Crescendo || score.Hairpin(word) == score.Diminuendo
}

// Dynamics are the words for how loud, from the softest.
var Dynamics = []string{"ppp", "pp", "p", "mp", "mf", "f", "ff", "fff", "sfz"}

// mostWords is how many letters are written over a note at most; the figure is ours.
const mostWords = 60

// mostMarkings is how many entries a marks line may have; the figure is ours. Each may go over
// every note.
const mostMarkings = 1000

// marking is one entry of the marks line: a note or a range with what stands there.
type marking struct {
	from, to NotePlace
	words    []string // "accent", "mf", slur, or what is written, in quotes
	whole    token    // the entry in its line
}

// markings takes a marks line apart. Entries are set apart by commas: "1.1 mf, 1.2-1.4
// staccato, 2.1 "warmly"".
func markings(ctx context.Context, text string, line int, found *findings) ([]marking, error) {
	if len(text) > mostTyped {
		return nil, tooLong("marks", line)
	}
	entries := entriesOf(text, line)
	if len(entries) > mostMarkings {
		return nil, at(line, fmt.Sprintf("The marks line has more than %d entries.", mostMarkings),
			"Mark a range of notes at once, as 3.1-3.4 staccato.")
	}
	var list []marking
	for _, t := range entries {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		m, err := markingOf(t)
		if err != nil {
			if err = found.save(err, t, t); err != nil {
				return nil, err
			}
			continue
		}
		list = append(list, m)
	}
	return list, nil
}

// entriesOf parts a line at its commas and line ends, but for those in quotes.
func entriesOf(text string, line int) []token {
	var list []token
	for n, row := range strings.Split(text, "\n") {
		runes, from, quoted := []rune(row), 0, false
		for k := 0; k <= len(runes); k++ {
			if k < len(runes) && runes[k] == '"' {
				quoted = !quoted
			}
			if k < len(runes) && (runes[k] != ',' || quoted) {
				continue
			}
			entry := string(runes[from:k])
			if trimmed := strings.TrimSpace(entry); trimmed != "" {
				lead := len([]rune(entry)) - len([]rune(strings.TrimLeft(entry, " \t")))
				list = append(list, token{text: trimmed, line: line + n, column: from + lead + 1})
			}
			from = k + 1
		}
	}
	return list
}

func markingOf(t token) (marking, error) {
	problem := func(what, do string) error {
		return score.Problems{{Measure: -1, Line: t.line, Column: t.column, What: what, Do: do}}
	}
	place, rest, _ := strings.Cut(t.text, " ")
	first, last, ranged := strings.Cut(place, "-")
	m := marking{whole: t}
	var ok bool
	m.from, ok = ParseNotePlace(first)
	if m.to = m.from; ok && ranged {
		m.to, ok = ParseNotePlace(last)
	}
	if !ok || m.to.Before(m.from) {
		return m, problem(fmt.Sprintf("%q is no note of a measure.", score.Clip(place)),
			"Write the measure and which of its notes it is, as 3.1, or a range, as 3.1-3.4.")
	}
	words, err := wordsOf(rest)
	if err != "" {
		return m, problem(err, "Write staccato, accent, tenuto, fermata, breath, up, down, slur, crescendo, diminuendo, a dynamic such as mf, or words in quotes.")
	}
	m.words = words
	if len(words) == 0 {
		return m, problem(fmt.Sprintf("%s has no mark.", place), "Write what stands over it after it, as 3.1 accent.")
	}
	if m.from == m.to && slices.Contains(words, slur) {
		return m, problem("A slur is over two notes or more.", "Write its first and its last note, as 3.1-3.2 slur.")
	}
	return m, nil
}

// wordsOf parts what stands after a place; what is wrong is a sentence.
func wordsOf(text string) (words []string, wrong string) {
	for text = strings.TrimSpace(text); text != ""; text = strings.TrimSpace(text) {
		if inside, quoted := strings.CutPrefix(text, `"`); quoted {
			written, rest, closed := strings.Cut(inside, `"`)
			if written = strings.Join(strings.Fields(written), " "); !closed || written == "" ||
				len([]rune(written)) > mostWords {
				return nil, fmt.Sprintf("%q is not closed, is empty, or is longer than %d letters.", score.Clip(text), mostWords)
			}
			words, text = append(words, `"`+written+`"`), rest
			continue
		}
		word, rest, _ := strings.Cut(text, " ")
		_, sign := signs[word]
		if !sign && !over(word) && !slices.Contains(Dynamics, word) {
			return nil, fmt.Sprintf("%q is no mark.", score.Clip(word))
		}
		words, text = append(words, word), rest
	}
	return words, ""
}

// mark puts the marks of a line into a part.
func mark(ctx context.Context, part *score.Part, text string, line int, found *findings) error {
	list, err := markings(ctx, text, line, found)
	if err != nil || len(list) == 0 {
		return err
	}
	notes := struckNotes(*part)
	at := make(map[NotePlace]int, len(notes))
	for k, n := range notes {
		at[n.as] = k
	}
	for _, m := range list {
		from, begins := at[m.from]
		to, ends := at[m.to]
		if !begins || !ends {
			missing := m.from
			if begins {
				missing = m.to
			}
			problem := score.Problems{{Measure: -1, Line: m.whole.line, Column: m.whole.column,
				What: fmt.Sprintf("There is no note %d in measure %d to mark.", missing.Note, missing.Measure),
				Do:   "Count its struck notes from 1, or take the mark out."}}
			if err := found.save(problem, m.whole, m.whole); err != nil {
				return err
			}
			continue
		}
		for k, n := range notes[from : to+1] {
			write(part.At(n.at), m.words, k == 0)
		}
		if slices.Contains(m.words, slur) {
			part.At(notes[from].at).SlurStarts++
			part.At(notes[to].at).SlurEnds++
		}
		if k := slices.IndexFunc(m.words, hairpin); k >= 0 {
			part.At(notes[from].at).Hairpin = score.Hairpin(m.words[k])
			part.At(notes[to].at).HairpinEnds = true
		}
	}
	return nil
}

// write puts words on a note; a dynamic and what is written stand over the first of a range
// alone.
func write(e *score.Event, words []string, first bool) {
	for _, word := range words {
		sign, is := signs[word]
		switch {
		case is && !slices.Contains(e.Marks, sign):
			e.Marks = append(e.Marks, sign)
		case is || over(word) || !first:
		case word[0] == '"':
			e.Text = strings.Trim(word, `"`)
		default:
			e.Dynamic = word
		}
	}
}

// marksOf is the marks line of a part; slurs stand in the name line where there is one.
func marksOf(part score.Part) string {
	said := map[NotePlace][]string{}
	var slurs []NotePlace
	var wide []string // over ranges
	var order []NotePlace
	as := map[score.Place]NotePlace{}
	for _, n := range struckNotes(part) {
		p, e := n.as, part.At(n.at)
		order = append(order, p)
		as[n.at] = p
		if slices.Contains(Dynamics, e.Dynamic) {
			said[p] = append(said[p], e.Dynamic)
		}
		for _, word := range slices.Sorted(maps.Keys(signs)) {
			if slices.Contains(e.Marks, signs[word]) {
				said[p] = append(said[p], word)
			}
		}
		if written := strings.Join(strings.Fields(strings.ReplaceAll(e.Text, `"`, "'")), " "); written != "" &&
			len([]rune(written)) <= mostWords {
			said[p] = append(said[p], `"`+written+`"`)
		}
		if part.Unpitched() {
			for range e.SlurStarts {
				slurs = append(slurs, p)
			}
			for range min(e.SlurEnds, len(slurs)) {
				from := slurs[len(slurs)-1]
				slurs = slurs[:len(slurs)-1]
				wide = append(wide, rangeText(from, p)+" "+slur)
			}
		}
	}
	for _, w := range part.Wedges() {
		if text := wedgeText(part, w, as); text != "" {
			wide = append(wide, text)
		}
	}
	return strings.Join(append(inRanges(order, said), wide...), ", ")
}

// wedgeText is a hairpin over the struck notes that it begins and ends on; "" where no struck note
// grows or fades.
func wedgeText(part score.Part, w score.Wedge, as map[score.Place]NotePlace) string {
	var from, to NotePlace
	for _, n := range part.Notes() {
		p, struck := as[n]
		if !struck {
			continue
		}
		if from == (NotePlace{}) || !w.From.Before(n) {
			from = p
		}
		if to == (NotePlace{}) || !w.To.Before(n) {
			to = p
		}
	}
	if from == to && w.From != w.To || as[w.From] == (NotePlace{}) && w.From == w.To {
		return ""
	}
	return rangeText(from, to) + " " + string(w.Hairpin)
}

// inRanges writes what is said of notes, neighbours of one measure that say the same in one
// entry.
func inRanges(order []NotePlace, said map[NotePlace][]string) []string {
	var list []string
	for k := 0; k < len(order); k++ {
		first, words := order[k], said[order[k]]
		if len(words) == 0 {
			continue
		}
		last := first
		for each(words) && k+1 < len(order) && order[k+1] == (NotePlace{last.Measure, last.Note + 1}) &&
			slices.Equal(said[order[k+1]], words) {
			k++
			last = order[k]
		}
		list = append(list, rangeText(first, last)+" "+strings.Join(words, " "))
	}
	return list
}

// each says whether all words stand on every note of a range.
func each(words []string) bool {
	return !slices.ContainsFunc(words, func(word string) bool { _, is := signs[word]; return !is })
}

// toggle changes a marks line as Entry.Toggle says.
func toggle(ctx context.Context, text string, struck []struckNote, from, to NotePlace, word string) string {
	notes := make([]NotePlace, len(struck))
	for k, n := range struck {
		notes[k] = n.as
	}
	found := &findings{}
	list, err := markings(ctx, text, 1, found)
	first, last := slices.Index(notes, from), slices.Index(notes, to)
	if first < 0 || last < first {
		return text
	}
	_, sign := signs[word]
	switch {
	case word == "breath" || word == "fermata":
		first = last
	case !sign && !over(word):
		last = first
	}
	chosen := notes[first : last+1]
	if err != nil || len(found.problems) > 0 {
		place := rangeText(chosen[0], chosen[len(chosen)-1])
		return strings.TrimRight(text, " ,\n") + ", " + place + " " + word
	}
	said := map[NotePlace][]string{}
	var wide []string // over ranges
	here := rangeText(chosen[0], chosen[len(chosen)-1])
	for _, m := range list {
		a, b := slices.Index(notes, m.from), slices.Index(notes, m.to)
		if a < 0 || b < 0 {
			continue
		}
		for k, p := range notes[a : b+1] {
			for _, w := range m.words {
				if _, sign := signs[w]; !over(w) && (sign || k == 0) {
					said[p] = append(said[p], w)
				}
			}
		}
		for _, w := range m.words {
			if over(w) {
				wide = append(wide, rangeText(m.from, m.to)+" "+w)
			}
		}
	}
	if over(word) {
		if k := slices.Index(wide, here+" "+word); k >= 0 {
			wide = slices.Delete(wide, k, k+1)
		} else if len(chosen) > 1 || word != slur {
			wide = slices.DeleteFunc(wide, func(w string) bool {
				place, other, _ := strings.Cut(w, " ")
				return place == here && hairpin(word) && hairpin(other)
			})
			wide = append(wide, here+" "+word)
		}
		return strings.Join(append(inRanges(notes, said), wide...), ", ")
	}
	all := !slices.ContainsFunc(chosen, func(p NotePlace) bool { return !slices.Contains(said[p], word) })
	for _, p := range chosen {
		said[p] = slices.DeleteFunc(said[p], func(w string) bool { return w == word || !all && sameKind(w, word) })
		if !all {
			said[p] = append(said[p], word)
		}
	}
	return strings.Join(append(inRanges(notes, said), wide...), ", ")
}

// rangeText writes a range of notes, or one: "3.1-3.4".
func rangeText(from, to NotePlace) string {
	if from == to {
		return from.String()
	}
	return from.String() + "-" + to.String()
}

// sameKind says whether one word takes the place of another: a dynamic of a dynamic, words of
// words, one bow of the other.
func sameKind(a, b string) bool {
	kind := func(word string) int {
		switch {
		case slices.Contains(Dynamics, word):
			return 1
		case strings.HasPrefix(word, `"`):
			return 2
		case word == "up" || word == "down":
			return 3
		}
		return 0
	}
	return kind(a) != 0 && kind(a) == kind(b)
}

// struckNote is a struck note with its place in the part.
type struckNote struct {
	as NotePlace
	at score.Place
}

func struckNotes(part score.Part) []struckNote {
	var list []struckNote
	for _, at := range part.Notes() {
		m := part.Measures[at.Measure]
		if m.Events[at.Event].Tied {
			continue
		}
		p := NotePlace{m.Number, 1}
		if n := len(list); n > 0 && list[n-1].as.Measure == m.Number {
			p.Note = list[n-1].as.Note + 1
		}
		list = append(list, struckNote{p, at})
	}
	return list
}
