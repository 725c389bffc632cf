package technique

import (
	"fmt"

	"unhurriedbench/core/score"
)

// writer writes a part in four quarters.
type writer struct {
	key  score.Key
	clef score.Clef
	part score.Part
	left score.Fraction // of the last measure
}

// degrees are the first notes of the key from its key note, which lies from A3 to G sharp 4.
func (w *writer) degrees(n int) []score.Pitch {
	step, alter := w.key.Tonic()
	octave := 4
	if step == score.A || step == score.B {
		octave = 3
	}
	first := score.Pitch{Step: step, Alter: alter, Octave: octave}
	var list []score.Pitch
	for k := range n {
		s := score.Step((int(step) + k) % 7)
		list = append(list, score.Pitch{Step: s, Alter: w.key.Alter(s), Octave: first.Octave + (int(step)+k)/7})
	}
	return list
}

// add writes an event, in a new measure where the last one is full.
func (w *writer) add(e score.Event) {
	if w.left.IsZero() {
		w.part.Measures = append(w.part.Measures, score.Measure{
			Number: len(w.part.Measures) + 1, Meter: score.Meter{Beats: 4, Unit: 4}, Key: w.key, Clef: w.clef, Length: score.Frac(1, 1),
		})
		w.left = score.Frac(1, 1)
	}
	m := &w.part.Measures[len(w.part.Measures)-1]
	e.Start = score.Frac(1, 1).Sub(w.left)
	e.Length = e.Value.Length()
	m.Events = append(m.Events, e)
	w.left = w.left.Sub(e.Length)
}

// walk writes notes of one value: 1 is whole, 2 half, 4 quarter.
func (w *writer) walk(list []score.Pitch, base int) {
	for _, p := range list {
		w.add(score.Event{Kind: score.Note, Value: score.Value{Base: base}, Pitch: p})
	}
}

// held writes a note for some measures.
func (w *writer) held(p score.Pitch, measures int) {
	for k := range measures {
		w.add(score.Event{Kind: score.Note, Value: score.Value{Base: 1}, Pitch: p, TieOn: k < measures-1, Tied: k > 0})
	}
}

// slurred writes notes under a slur, a measure of them, by their values.
func (w *writer) slurred(list []score.Pitch, bases []int) {
	for k, p := range list {
		e := score.Event{Kind: score.Note, Value: score.Value{Base: bases[k]}, Pitch: p}
		if k == 0 {
			e.SlurStarts = 1
		}
		if k == len(list)-1 {
			e.SlurEnds = 1
		}
		w.add(e)
	}
}

// rhythm is the rhythm of a part on the key note.
func (w *writer) rhythm(of score.Part) (score.Score, error) {
	if of.Events() == 0 {
		return score.Score{}, fmt.Errorf("choose the line whose rhythms are wanted")
	}
	part, note := of.Copy(), w.degrees(1)[0]
	if len(part.Measures) > MostMeasures {
		part.Measures = part.Measures[:MostMeasures]
	}
	for i := range part.Measures {
		m := &part.Measures[i]
		m.Key, m.Clef = w.key, w.clef
		for j := range m.Events {
			e := &m.Events[j]
			e.Others, e.Fingering, e.String, e.Sticking, e.Unpitched, e.Sign, e.Text, e.InnerTies = nil, "", 0, "", false, false, "", nil
			e.SlurStarts, e.SlurEnds = 0, 0
			if e.Kind == score.Note {
				e.Pitch = note
			}
		}
	}
	w.part = part
	return w.score("Rhythm line, concert " + w.key.Name())
}

// score closes what was written.
func (w *writer) score(title string) (score.Score, error) {
	w.fillUp()
	w.part.MarkAccidentals()
	if err := w.part.Finish(); err != nil {
		return score.Score{}, fmt.Errorf("write %s: %w", title, err)
	}
	return score.Score{Title: title, Parts: []score.Part{w.part}}, nil
}

// fillUp rests to the end of the last measure, where it is not full.
func (w *writer) fillUp() {
	values, _ := score.ValuesOf(w.left)
	for _, v := range values {
		w.add(score.Event{Kind: score.Rest, Value: v})
	}
}
