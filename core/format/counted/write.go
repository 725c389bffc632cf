package counted

import (
	"fmt"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// Write writes the first part of a score as it is counted and named, with the errors of
// EntryOf.
func Write(s score.Score) (string, error) {
	e, err := EntryOf(s, name.Letters)
	if err != nil {
		return "", err
	}
	return e.String(), nil
}

// EntryOf is what would be typed for the first part of a score, named in a system. The error says what cannot be
// said so: a meter or a key that changes, notes shorter than a quarter of a beat, chords,
// unequal measures.
func EntryOf(s score.Score, names name.System) (Entry, error) {
	part := s.Parts[0]
	w := writer{part: part, meter: part.Meter(), before: concertHome, names: names}
	w.beat, w.beats = w.meter.Beat(), w.meter.BeatCount()
	w.chooseBeat()
	for i := range part.Measures {
		if err := w.measure(i); err != nil {
			return Entry{}, err
		}
	}
	inOne := func(text string) string { return strings.Join(strings.Fields(text), " ") }
	e := Entry{Title: inOne(s.Title), Meter: MeterText(w.meter), For: w.target(), Tempo: TempoText(s.Tempo),
		Start: w.first, Count: inOne(w.counted.String()), Names: names}
	e.Marks = marksOf(part)
	if !part.Unpitched() {
		e.Key, e.Name = KeyText(part.Key()), inOne(w.named.String())
	}
	return e, nil
}

// MeterText writes a meter as it is typed: "4/4", "cut".
func MeterText(m score.Meter) string {
	if m.Symbol == "cut" {
		return "cut"
	}
	return m.String()
}

// TempoText writes a tempo as it is typed, "quarter = 76"; "" for none.
func TempoText(t score.Tempo) string {
	v, ok := score.ValueOf(t.Beat)
	if t.PerMinute == 0 || !ok {
		return ""
	}
	return fmt.Sprintf("%s = %d", v.Name(false), t.PerMinute)
}

type writer struct {
	part    score.Part
	meter   score.Meter
	beat    score.Fraction
	beats   int
	counted strings.Builder
	named   strings.Builder
	before  score.Pitch
	first   string // the first note
	signs   map[int]int
	names   name.System
}

// target is the instrument whose part it is, by its name, "" for concert pitch; of strokes
// without a name the first drum.
func (w *writer) target() string {
	strokes := ""
	for _, i := range instrument.All() {
		if i.Title() == w.part.Name && (i.Transposition == w.part.Transposition || i.Unpitched()) {
			return i.ID
		}
		if strokes == "" && w.part.Unpitched() && i.Unpitched() {
			strokes = i.ID
		}
	}
	return strokes
}

// chooseBeat counts every eighth of a compound meter where halves of them are needed.
func (w *writer) chooseBeat() {
	if !w.meter.Compound() {
		return
	}
	for _, m := range w.part.Measures {
		for _, e := range m.Events {
			if _, ok := w.label(e.Start); !ok {
				w.beat, w.beats = score.Frac(1, int64(w.meter.Unit)), w.meter.Beats
				return
			}
		}
	}
}

// subs are the parts of a beat that have labels.
var subs = []struct {
	part score.Fraction
	text string
}{
	{score.Frac(1, 4), "e"}, {score.Frac(1, 2), "&"}, {score.Frac(3, 4), "a"}, {score.Frac(1, 3), "la"},
	{score.Frac(2, 3), "li"},
}

// label is what is said at a place within its beat, "" on the beat.
func (w *writer) label(at score.Fraction) (string, bool) {
	within := at.Within(w.beat).Div(w.beat)
	if within.IsZero() {
		return "", true
	}
	for _, s := range subs {
		if s.part == within {
			return s.text, true
		}
	}
	return "", false
}

func (w *writer) number(at score.Fraction) int { return int(at.Div(w.beat).Floor()) + 1 }

func (w *writer) problem(m score.Measure, what string) error {
	return score.Problems{{Measure: m.Number, What: what, Do: "Export it as MusicXML or ABC instead."}}
}

func (w *writer) measure(i int) error {
	m := w.part.Measures[i]
	switch {
	case m.Meter != w.meter || m.Key != w.part.Key():
		return w.problem(m, "The meter or the key changes, which is not counted in one line.")
	case m.Split || i+1 < len(w.part.Measures) && w.part.Measures[i+1].Split:
		return w.problem(m, "The measure is not whole, which is not counted in one line.")
	}
	if m.Times > 2 || len(m.Endings) > 1 || len(m.Endings) == 1 && m.Endings[0] > 2 {
		return w.problem(m, "It is played more than twice, which is not counted in one line.")
	}
	w.signsBefore(m)
	said := 0
	w.signs = map[int]int{}
	for j, e := range m.Events {
		sub, ok := w.label(e.Start)
		if !ok || e.Graces > 0 || e.Roll || len(e.Others) > 0 {
			return w.problem(m, "There is something here that has no label to count it by.")
		}
		open, shut := "", ""
		switch {
		case e.Kind == score.Rest:
			open, shut = "[", "]"
		case e.Tied:
			open, shut = "(", ")"
		}
		n := w.number(e.Start)
		if sub == "" {
			fmt.Fprintf(&w.counted, " %s%d", open, n)
		} else {
			if said != n { // its beat is held, or rests
				if j == 0 {
					return w.problem(m, "The measure begins between beats.")
				}
				if m.Events[j-1].Kind == score.Rest {
					fmt.Fprintf(&w.counted, " [%d]", n)
				} else {
					fmt.Fprintf(&w.counted, " (%d)", n)
				}
			}
			fmt.Fprintf(&w.counted, " %s%s", open, sub)
		}
		w.counted.WriteString(shut)
		said = n
		if e.Kind == score.Note && !e.Tied && !e.Unpitched {
			w.name(m, e)
		} else if e.SlurEnds > 0 {
			w.named.WriteString(strings.Repeat(")", e.SlurEnds))
		}
	}
	if missing := m.Offset.Add(m.Length); missing.Less(w.meter.Length()) {
		sub, ok := w.label(missing)
		if !ok {
			return w.problem(m, "The measure ends where no label stands.")
		}
		if n := w.number(missing); sub != "" && n == said {
			fmt.Fprintf(&w.counted, " /%s", sub)
		} else if sub == "" {
			fmt.Fprintf(&w.counted, " /%d", n)
		} else {
			fmt.Fprintf(&w.counted, " (%d) /%s", n, sub)
		}
	}
	w.signsAfter(m)
	return nil
}

// signsBefore writes what stands before a measure, signsAfter what stands after it.
func (w *writer) signsBefore(m score.Measure) {
	if m.RepeatStart {
		w.counted.WriteString(" |:")
	}
	if m.EndingStart {
		w.counted.WriteString(map[bool]string{true: " first", false: " second"}[len(m.Endings) > 0 && m.Endings[0] == 1])
	}
	if m.Segno {
		w.counted.WriteString(" segno")
	}
	if m.Coda {
		w.counted.WriteString(" coda")
	}
}

func (w *writer) signsAfter(m score.Measure) {
	if m.Fine {
		w.counted.WriteString(" fine")
	}
	if m.ToCoda {
		w.counted.WriteString(" to coda")
	}
	if m.Jump.To != "" {
		words := map[string]string{"capo": " D.C.", "segno": " D.S."}[m.Jump.To]
		if m.Jump.Al != "" {
			words += " al " + m.Jump.Al
		}
		w.counted.WriteString(words)
	}
	if m.RepeatEnd && !m.Implied {
		w.counted.WriteString(" :|")
	} else {
		w.counted.WriteString(" |")
	}
	w.named.WriteString(" |")
}

// name writes a note: its letter, its sign where the key and the measure do not give it, and
// octave marks where it is not the nearest.
func (w *writer) name(m score.Measure, e score.Event) {
	p := e.Pitch
	if w.first == "" {
		w.first, w.before = p.String(), p
	}
	near := nearest(p.Step, w.before)
	alter, held := w.signs[p.Diatonic()]
	if !held {
		alter = m.Key.Alter(p.Step)
	}
	text, signed := spelled(p, w.names)
	if alter != p.Alter && !signed {
		text += map[int]string{-2: "--", -1: "-", 0: "=", 1: "#", 2: "##"}[p.Alter]
	}
	if alter != p.Alter || signed {
		w.signs[p.Diatonic()] = p.Alter
	}
	text = strings.Repeat("(", e.SlurStarts) + text + strings.Repeat("'", max(p.Octave-near.Octave, 0)) +
		strings.Repeat(",", max(near.Octave-p.Octave, 0)) + strings.Repeat(")", e.SlurEnds)
	w.named.WriteString(" " + text)
	w.before = p
}

// KeyText writes a key as it is typed: "Bb", "F#m".
func KeyText(k score.Key) string {
	step, alter := k.Tonic()
	text := step.String() + score.AccidentalText(alter)
	if k.Mode == "minor" {
		text += "m"
	}
	return text
}
