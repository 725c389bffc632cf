package walk

import (
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// Question is what a run asks at its end, with choices read from the music.
type Question struct {
	Measure int      `json:"measure"`
	Text    string   `json:"text"`
	Choices []string `json:"choices"`
	Answer  int      `json:"answer"` // index of the right one
	Right   string   `json:"right"`  // what is said to it
	Wrong   string   `json:"wrong"`  // and to another
}

// question asks about what matters most in the line; nil where there is nothing to ask.
func (b *builder) question() *Question {
	r := b.lead.Report
	whole := b.chunks[len(b.chunks)-1]
	for _, w := range r.Watch(whole.Played(r.Part), b.lead.Instrument) {
		for _, a := range byWeight(w.Alerts) {
			if q := b.askAbout(w, a); q != nil {
				return q
			}
		}
	}
	return b.firstNote()
}

// askAbout asks about an alert.
func (b *builder) askAbout(w breakdown.Watched, a breakdown.Alert) *Question {
	e := b.event(w.At)
	before := b.nameBefore(w.At)
	at := fmt.Sprintf("Measure %d", w.Measure)
	if w.Measure == 0 {
		at = "The pickup"
	}
	if e.Kind != "note" {
		return nil
	}
	switch a {
	case breakdown.Trap, breakdown.Cancelled, breakdown.Accidental, breakdown.Carried, breakdown.InKey:
		right, wrong, ok := b.signs(w.At)
		if b.mixed || !ok {
			return nil
		}
		return choose(w.Measure, at+": %s or %s?", right, wrong)
	case breakdown.LookAlike:
		if b.mixed || before == "" {
			return nil
		}
		return &Question{Measure: w.Measure, Text: fmt.Sprintf("%s: from %s to %s, a step or a skip?", at, before, e.Name), Choices: []string{"a step", "a skip"}, Answer: 1}
	case breakdown.HardChange:
		other := b.anotherName(e.Name, before)
		if b.mixed || before == "" || before == e.Name || other == "" {
			return nil
		}
		return choose(w.Measure, at+": after "+before+" comes %s or %s?", e.Name, other)
	case breakdown.Long, breakdown.Last:
		beats := b.lasts(w.At).Div(b.lead.Report.Part.Measures[w.At.Measure].Meter.Beat())
		if beats.Den() != 1 || beats.Num() < 2 || int(beats.Num())+1 >= len(numbers) {
			return nil
		}
		return choose(w.Measure, at+": the long note lasts %s or %s beats?", numbers[beats.Num()], numbers[beats.Num()-1])
	}
	return nil
}

// choose asks which of two; the right one comes first in every other measure.
func choose(measure int, text, right, wrong string) *Question {
	q := &Question{Measure: measure, Text: fmt.Sprintf(text, right, wrong), Choices: []string{right, wrong}}
	if measure%2 == 1 {
		q.Text, q.Choices, q.Answer = fmt.Sprintf(text, wrong, right), []string{wrong, right}, 1
	}
	return q
}

// signs are the name of a note with its sign and the one it could be taken for.
func (b *builder) signs(at score.Place) (right, wrong string, ok bool) {
	p, key := b.pitch(at)
	if b.lead.Instrument.Unpitched() {
		return "", "", false
	}
	other := p
	switch {
	case p.Alter != 0:
		other.Alter = 0
	case key.Alter(p.Step) != 0:
		other.Alter = key.Alter(p.Step)
	default:
		other.Alter = b.signElsewhere(p)
	}
	if other.Alter == p.Alter {
		return "", "", false
	}
	return b.fullName(p, key), b.fullName(other, key), true
}

// fullName says a natural too: two names are set against each other.
func (b *builder) fullName(p score.Pitch, key score.Key) string {
	o := b.ask.Options.Name
	o.Naturals = name.AlwaysNatural
	return o.Say(p, true, key)
}

func (b *builder) pitch(at score.Place) (score.Pitch, score.Key) {
	m := b.lead.Report.Part.Measures[at.Measure]
	return m.Events[at.Event].Pitch, m.Key
}

// signElsewhere is the sign that the same letter has somewhere in the line, 0 for none.
func (b *builder) signElsewhere(p score.Pitch) int {
	for _, m := range b.lead.Report.Part.Measures {
		for _, e := range m.Events {
			if e.Kind == score.Note && e.Pitch.Step == p.Step && e.Pitch.Alter != 0 {
				return e.Pitch.Alter
			}
		}
	}
	return 0
}

// anotherName is a name in the line beside two, the first that comes; "" for none.
func (b *builder) anotherName(but ...string) string {
	for _, m := range b.lead.Report.Measures {
		for _, e := range m.Events {
			if e.Kind == "note" && e.Name != "" && !slices.Contains(but, e.Name) {
				return e.Name
			}
		}
	}
	return ""
}

// firstNote asks for the first note, where the line has others.
func (b *builder) firstNote() *Question {
	for _, m := range b.lead.Report.Measures {
		for _, e := range m.Events {
			if e.Kind != "note" {
				continue
			}
			right := b.spoken(e)
			if b.lead.Instrument.Unpitched() {
				if right == "" {
					return nil
				}
				return choose(m.Number, "Which hand begins, %s or %s?", right, map[string]string{"right": "left", "left": "right"}[right])
			}
			wrong := b.anotherName(right)
			if b.mixed || wrong == "" {
				return nil
			}
			return choose(m.Number, "The line begins on %s or %s?", right, wrong)
		}
	}
	return nil
}

// told fills in what is said to an answer; nil stays nil.
func (q *Question) told() *Question {
	if q != nil {
		text := q.Choices[q.Answer]
		q.Right, q.Wrong = fmt.Sprintf("Yes, %s.", text), strings.ToUpper(text[:1])+text[1:]+" it is: look again."
	}
	return q
}
