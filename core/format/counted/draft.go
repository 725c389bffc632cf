package counted

import (
	"context"
	"errors"
	"slices"
	"strings"
	"unicode/utf8"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// Entry is an exercise as it is typed: its fields and its lines. docs/counted.md tells
// what each may hold; only Count must hold anything.
type Entry struct {
	Title, Number, Meter, Key, For, Tempo, Start string
	Count, Name, Marks                           string
	Names                                        name.System // of the name line; a file has letters
}

// fields lists what an entry holds in the order of known.
func (e *Entry) fields() []*string {
	return []*string{&e.Title, &e.Number, &e.Meter, &e.Key, &e.For, &e.Tempo, &e.Start, &e.Count, &e.Name, &e.Marks}
}

// String writes the entry as a file.
func (e Entry) String() string {
	var out strings.Builder
	for k, text := range e.fields() {
		inOne := *text
		if known[k] == "marks" { // a line end parts its entries
			inOne = strings.ReplaceAll(inOne, "\n", ", ")
		}
		if inOne != "" {
			out.WriteString(known[k] + ": " + strings.Join(strings.Fields(inOne), " ") + "\n")
		}
	}
	return out.String()
}

// Draft is what can be read of an entry, however far it has come.
type Draft struct {
	Score   score.Score   // without parts where nothing is counted yet
	Marks   []Mark        // what is wrong, in the order of the lines
	Struck  int           // how many notes are counted
	Unnamed []score.Place // those that have no name yet
}

// Mark is something wrong in an entry: a sentence, and the part of its line that it is about.
type Mark struct {
	score.Problem
	Field    string // as in the file: "count", "name", "key"
	From, To int    // in runes of the field's text
	At       int    // the index of the measure in the part, -1 for none
}

// Problems lists what keeps a draft from being an exercise.
func (d Draft) Problems() score.Problems {
	var list score.Problems
	for _, m := range d.Marks {
		list = append(list, m.Problem)
	}
	if n := len(d.Unnamed); n > 0 {
		list = append(list, unnamed(d.Struck, d.Struck-n, d.Score.Parts[0].Measures[d.Unnamed[0].Measure].Number))
	}
	return list
}

// Draft reads an entry as far as it can be read. What is wrong is marked, and what stands
// behind it is read on from the next bar line.
func (e Entry) Draft(ctx context.Context) Draft { return e.draft(ctx, nil) }

// Toggle puts a mark on the notes from one to another, or takes it off where all of them have
// it, and reads the entry so. A slur is over them, a dynamic and words are on the first, a
// breath and a fermata on the last. The marks line is written again; one that cannot be read
// keeps what is typed, and has the mark added.
func (e *Entry) Toggle(ctx context.Context, from, to NotePlace, word string) Draft {
	return e.draft(ctx, func(part score.Part) {
		if words, wrong := wordsOf(word); wrong == "" && len(words) == 1 {
			e.Marks = toggle(ctx, e.Marks, struckNotes(part), from, to, words[0])
		}
	})
}

// draft is Draft; edit, where there is one, may change the marks line for the notes there are.
func (e *Entry) draft(ctx context.Context, edit func(score.Part)) Draft {
	f := fields{map[string]string{}, map[string]int{}}
	for k, text := range e.fields() {
		f.text[known[k]], f.line[known[k]] = *text, 1
	}
	var d Draft
	for _, field := range framing { // one that says nothing is left out
		alone := fields{map[string]string{"meter": f.text["meter"], field: f.text[field]}, f.line}
		if _, err := alone.frame(); err != nil {
			d.Marks = append(d.Marks, markOf(err, field, f.text[field]))
			f.text[field] = ""
		}
	}
	fr, err := f.frame()
	if err != nil {
		d.Marks = append(d.Marks, markOf(err, "", ""))
		return d
	}
	fr.names = e.Names
	if strings.TrimSpace(e.Count) == "" {
		return d
	}
	found := &findings{}
	list, err := count(ctx, e.Count, 1, fr.meter, found)
	d.Marks = append(d.Marks, found.marks("count", e.Count)...)
	if err != nil {
		d.Marks = append(d.Marks, markOf(err, "count", e.Count))
	}
	if err != nil || len(list) == 0 {
		return d
	}
	if first := list[0].sounds[0]; len(list) == 1 && !first.from.IsZero() { // a pickup, and nothing yet to lead to
		list[0].sounds = append([]sound{{kind: score.Rest, to: first.from}}, list[0].sounds...)
	}
	part := fr.part(list)
	if err := part.Finish(); err != nil {
		d.Marks = append(d.Marks, markOf(err, "count", e.Count))
		return d
	}
	found = &findings{}
	err = fr.name(ctx, &part, e.Name, 1, found)
	d.Marks = append(d.Marks, found.marks("name", e.Name)...)
	if err != nil {
		d.Marks = append(d.Marks, markOf(err, "name", e.Name))
		return d
	}
	d.Struck, d.Unnamed = found.struck, found.unnamed
	if edit != nil {
		edit(part)
	}
	found = &findings{}
	err = mark(ctx, &part, e.Marks, 1, found)
	d.Marks = append(d.Marks, found.marks("marks", e.Marks)...)
	if err != nil {
		d.Marks = append(d.Marks, markOf(err, "marks", e.Marks))
		return d
	}
	d.Score = score.Score{Title: f.text["title"], Tempo: fr.tempo, Parts: []score.Part{part},
		Remarks: slices.Concat(part.CloseSlurs(), part.CloseHairpins(), part.Unfollowed())}
	for k := range d.Marks {
		for i, m := range part.Measures {
			if d.Marks[k].Measure >= 0 && m.Number == d.Marks[k].Measure {
				d.Marks[k].At = i
			}
		}
	}
	return d
}

// mostMarks is how many marks a line has at most; what is wrong after them is seen once they
// are mended.
const mostMarks = 20

// findings are what is wrong with a line that is read to its end all the same. Nil ones keep
// nothing.
type findings struct {
	problems []found
	struck   int
	unnamed  []score.Place
}

// found is a problem with where it begins and ends.
type found struct {
	problem  error
	from, to token
}

// save keeps a problem, or hands it back where none are kept. One that comes again at once is
// one.
func (f *findings) save(problem error, from, to token) error {
	if f == nil {
		return problem
	}
	if n := len(f.problems); n > 0 && markOf(f.problems[n-1].problem, "", "").What == markOf(problem, "", "").What {
		f.problems[n-1].to = to
		return nil
	}
	if len(f.problems) == mostMarks {
		return nil
	}
	f.problems = append(f.problems, found{problem, from, to})
	return nil
}

// marks places the findings in the text of a field.
func (f *findings) marks(field, text string) []Mark {
	var list []Mark
	for _, p := range f.problems {
		m := markOf(p.problem, field, text)
		m.From, m.To = offset(text, p.from), offset(text, p.to)+utf8.RuneCountInString(p.to.text)
		if m.To <= m.From { // to the end of its measure
			m.To = m.From + measureFrom(text, m.From)
		}
		list = append(list, m)
	}
	return list
}

// markOf is a mark over the whole text of a field.
func markOf(err error, field, text string) Mark {
	m := Mark{Problem: score.General(err.Error(), ""), Field: field, To: utf8.RuneCountInString(text), At: -1}
	var list score.Problems
	if errors.As(err, &list) && len(list) > 0 {
		m.Problem = list[0]
	}
	m.Line, m.Column = 0, 0 // it is marked
	return m
}

// offset is where a token begins, in runes from the start of the text.
func offset(text string, t token) int {
	at := 0
	for n, row := range strings.Split(text, "\n") {
		if n+1 == t.line {
			break
		}
		at += utf8.RuneCountInString(row) + 1
	}
	return min(at+max(t.column-1, 0), utf8.RuneCountInString(text))
}

// measureFrom is how many runes there are to the next bar line or the end.
func measureFrom(text string, from int) int {
	rest := string([]rune(text)[from:])
	if bar := strings.IndexAny(rest, "|\n"); bar >= 0 {
		rest = rest[:bar]
	}
	return utf8.RuneCountInString(strings.TrimRight(rest, " "))
}
