// Package counted reads music as a teacher says it: a line that counts it and a line that
// names it. docs/counted.md tells how.
package counted

import (
	"context"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// fields are what stands over the two lines, each with its line in the file.
type fields struct {
	text map[string]string
	line map[string]int
}

// framing are the fields of one line each, known all there are. The last three go on over the
// lines below them.
var (
	framing = []string{"title", "number", "meter", "key", "for", "tempo", "start"}
	known   = append(slices.Clone(framing), "count", "name", "marks")
)

// Read reads a text with its fields. The error is a score.Problems; once ctx ends, it is the
// context's.
func Read(ctx context.Context, text string) (score.Score, error) {
	f, err := split(text)
	if err != nil {
		return score.Score{}, err
	}
	frame, err := f.frame()
	if err != nil {
		return score.Score{}, err
	}
	counted, err := count(ctx, f.text["count"], f.line["count"], frame.meter, nil)
	if err != nil {
		return score.Score{}, err
	}
	part := frame.part(counted)
	if err := part.Finish(); err != nil {
		return score.Score{}, fmt.Errorf("put the measures together: %w", err)
	}
	if err := frame.name(ctx, &part, f.text["name"], f.line["name"], nil); err != nil {
		return score.Score{}, err
	}
	if err := mark(ctx, &part, f.text["marks"], f.line["marks"], nil); err != nil {
		return score.Score{}, err
	}
	return score.Score{Title: f.text["title"], Tempo: frame.tempo, Parts: []score.Part{part},
		Remarks: slices.Concat(part.CloseSlurs(), part.CloseHairpins(), part.Unfollowed())}, nil
}

// Parse takes a file apart without reading its lines, with the errors that Read has for its
// fields.
func Parse(text string) (Entry, error) {
	f, err := split(text)
	var e Entry
	for k, field := range e.fields() {
		*field = strings.TrimSpace(f.text[known[k]])
	}
	return e, err
}

// mostTyped is how many bytes a line may have; the figure is ours.
const mostTyped = 100_000

func tooLong(field string, line int) error {
	return at(line, fmt.Sprintf("The %s line is longer than %d letters.", field, mostTyped),
		"Bring in one exercise at a time.")
}

// split takes the fields apart.
func split(text string) (fields, error) {
	f := fields{map[string]string{}, map[string]int{}}
	text = strings.TrimPrefix(strings.ReplaceAll(strings.ReplaceAll(text, "\r\n", "\n"), "\r", "\n"), "\ufeff")
	open := ""
	for n, line := range strings.Split(text, "\n") {
		name, value, is := strings.Cut(line, ":")
		name = strings.ToLower(strings.TrimSpace(name))
		switch {
		case is && isField(name):
			if _, twice := f.line[name]; twice {
				return f, at(n+1, fmt.Sprintf("%q stands here for the second time.", name+":"), "Keep one of them.")
			}
			f.text[name], f.line[name] = strings.TrimRight(value, " \t"), n+1
			open = name
		case strings.TrimSpace(line) == "":
		case open == "count" || open == "name" || open == "marks":
			f.text[open] += "\n" + line
		default:
			return f, at(n+1, fmt.Sprintf("%q is no field.", score.Clip(line)), "The fields are "+
				strings.Join(known, ", ")+", each with a colon after it.")
		}
	}
	if strings.TrimSpace(f.text["count"]) == "" {
		return f, score.Problems{score.General("Nothing is counted.",
			"Write what you would say aloud after count:, such as 1 2 3 4 | 1 (2) 3 [4].")}
	}
	for _, name := range framing {
		f.text[name] = strings.TrimSpace(f.text[name])
	}
	return f, nil
}

func isField(name string) bool {
	for _, k := range known {
		if k == name {
			return true
		}
	}
	return false
}

func at(line int, what, do string) error {
	return score.Problems{{Measure: -1, Line: line, What: what, Do: do}}
}

// frame is what stands over the music.
type frame struct {
	meter     score.Meter
	key       score.Key
	target    instrument.Instrument
	concert   bool
	tempo     score.Tempo
	start     score.Pitch
	unpitched bool
	names     name.System
}

// concertHome is where the first note of a line in concert pitch lies; ours.
var concertHome = score.MustPitch("B4")

func (f fields) frame() (frame, error) {
	fr := frame{meter: score.Meter{Beats: 4, Unit: 4}, concert: true, start: concertHome}
	if text := f.text["meter"]; text != "" {
		upper, lower, _ := strings.Cut(text, "/")
		m, ok := score.ParseMeter(upper, lower)
		switch strings.ToLower(text) {
		case "c":
			m, ok = score.Meter{Beats: 4, Unit: 4, Symbol: "common"}, true
		case "c|", "cut":
			m, ok = score.Meter{Beats: 2, Unit: 2, Symbol: "cut"}, true
		}
		if !ok {
			return fr, at(f.line["meter"], fmt.Sprintf("%q is no meter.", score.Clip(text)), "Write it as 4/4, 6/8 or cut.")
		}
		fr.meter = m
	}
	if text := f.text["key"]; text != "" {
		k, ok := keyOf(text)
		if !ok {
			return fr, at(f.line["key"], fmt.Sprintf("%q is no key.", score.Clip(text)),
				"Write it as Bb, F#, or with m for minor, Dm.")
		}
		fr.key = k
	}
	if id := f.text["for"]; id != "" && id != "concert" {
		target, ok := instrument.ByID(id)
		if !ok {
			return fr, at(f.line["for"], fmt.Sprintf("%q is no instrument.", score.Clip(id)),
				"Write the id of one, such as trombone, or concert.")
		}
		fr.target, fr.concert, fr.start, fr.unpitched = target, false, target.Tessitura, target.Unpitched()
	}
	if text := f.text["start"]; text != "" {
		p, err := score.ParsePitch(text)
		if err != nil {
			return fr, at(f.line["start"], fmt.Sprintf("%q is no note to start near.", score.Clip(text)),
				"Write it with its octave, as Bb4; C4 is middle C.")
		}
		fr.start = p
	}
	if text := f.text["tempo"]; text != "" {
		t, ok := tempoOf(text, fr.meter)
		if !ok {
			return fr, at(f.line["tempo"], fmt.Sprintf("%q is no tempo.", score.Clip(text)),
				"Write it as quarter = 76, or as a number.")
		}
		fr.tempo = t
	}
	return fr, nil
}

// keyOf reads "Bb", "F#m", "D minor".
func keyOf(text string) (score.Key, bool) {
	text = strings.TrimSpace(text)
	if text == "" {
		return score.Key{}, false
	}
	step, ok := score.ParseStep(strings.ToUpper(text)[0])
	if !ok {
		return score.Key{}, false
	}
	rest, fifths := strings.TrimSpace(text[1:]), step.Fifths()
	switch {
	case strings.HasPrefix(rest, "b"):
		rest, fifths = rest[1:], fifths-7
	case strings.HasPrefix(rest, "#"):
		rest, fifths = rest[1:], fifths+7
	}
	mode := strings.ToLower(strings.TrimSpace(rest))
	switch mode {
	case "", "major":
		mode = "major"
	case "m", "minor":
		mode, fifths = "minor", fifths-3
	default:
		return score.Key{}, false
	}
	return score.Key{Fifths: fifths, Mode: mode}, fifths >= -7 && fifths <= 7
}

// tempoOf reads "quarter = 76", "dotted quarter = 60", "76".
func tempoOf(text string, m score.Meter) (score.Tempo, bool) {
	name, number, of := strings.Cut(text, "=")
	beat := m.Beat()
	if !of {
		number = name
	} else {
		word, dotted := strings.CutPrefix(strings.ToLower(strings.TrimSpace(name)), "dotted ")
		base, ok := map[string]int64{"whole": 1, "half": 2, "quarter": 4, "eighth": 8}[strings.TrimSpace(word)]
		if !ok {
			return score.Tempo{}, false
		}
		if beat = score.Frac(1, base); dotted {
			beat = score.Frac(3, 2*base)
		}
	}
	n, err := strconv.Atoi(strings.TrimSpace(number))
	return score.Tempo{Beat: beat, PerMinute: n}, err == nil && n > 0 && n <= score.FastestMark
}

// part puts what is counted into measures, on the note to start near.
func (fr frame) part(list []measure) score.Part {
	p := score.Part{}
	clef := score.Treble
	if !fr.concert {
		p.Name, p.Transposition, clef = fr.target.Title(), fr.target.Transposition, fr.target.Clef
	}
	for _, m := range list {
		made := m.signs
		made.Meter, made.Key, made.Clef, made.Line, made.Column = fr.meter, fr.key, clef, m.line, m.column
		for _, s := range m.sounds {
			values := written(s, fr.meter)
			for k, v := range values {
				e := score.Event{Kind: s.kind, Length: v.Length(), Value: v, Pitch: fr.start, Unpitched: fr.unpitched &&
					s.kind == score.Note, Line: m.line}
				e.TieOn = s.kind == score.Note && (s.goesOn || k < len(values)-1)
				e.Restruck = s.restruck && k == 0
				made.Events = append(made.Events, e)
			}
		}
		p.Measures = append(p.Measures, made)
	}
	return p
}
