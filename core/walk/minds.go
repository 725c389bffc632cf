package walk

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/score"
)

// mostMinds is how many things that matter are said before a chunk.
const mostMinds = 2

// said is what a run has said already.
type said struct {
	begun map[breakdown.ChunkKey]bool
	texts map[string]bool
}

func newSaid() *said { return &said{map[breakdown.ChunkKey]bool{}, map[string]bool{}} }

// firstOf says whether a chunk comes for the first time, and remembers it.
func (s *said) firstOf(key breakdown.ChunkKey) bool {
	first := !s.begun[key]
	s.begun[key] = true
	return first
}

// minds are what matters in a chunk and was not said before: at most two sentences.
func (b *builder) minds(m Move, before *said) []string {
	var chosen []mind
	add := func(w mind) {
		switch {
		case w.text == "" || len(chosen) == mostMinds:
			return
		case !before.texts[w.about]:
		case w.sign && !m.chunk.Whole() && !before.texts["remember "+w.about]: // said of the line, and met here
			before.texts["remember "+w.about] = true
			w.text = "Remember " + strings.ToLower(w.text[:1]) + w.text[1:]
		default:
			return
		}
		before.texts[w.about] = true
		chosen = append(chosen, w)
	}
	if m.chunk.Whole() {
		add(b.signature())
	}
	for _, w := range b.watched(m.chunk) {
		add(w)
	}
	slices.SortStableFunc(chosen, func(x, y mind) int { return cmp.Compare(x.measure, y.measure) })
	var list []string
	for _, w := range chosen {
		list = append(list, w.text)
	}
	return list
}

// signature says the key, of a line that has one and players who name notes.
func (b *builder) signature() mind {
	key := b.lead.Report.Part.Key()
	if key.Fifths == 0 || b.mixed || b.lead.Instrument.Unpitched() {
		return mind{}
	}
	words := key.SignatureWords()
	return mind{text: strings.ToUpper(words[:1]) + words[1:] + ".", about: "the key", measure: -1}
}

// watched says what to watch for in a chunk, what goes wrong most first. What was moved to
// another instrument's names says nothing of them.
func (b *builder) watched(c breakdown.Chunk) []mind {
	if list, known := b.matters[c.Key()]; known {
		return list
	}
	r := b.lead.Report
	var list []mind
	for _, w := range r.Watch(c.Played(r.Part), b.lead.Instrument) {
		for _, a := range byWeight(w.Alerts) {
			if text := b.mind(w, a); text != "" {
				list = append(list, mind{text, b.about(w, a, text), slices.Contains(signs, a), w.Measure})
				break
			}
		}
	}
	b.matters[c.Key()] = list
	return list
}

// mind is a sentence about what matters; sign where it is about a sign before a note.
type mind struct {
	text    string
	about   string // what it teaches, which is taught once
	sign    bool
	measure int
}

// about says what a sentence teaches: a change and its way back are one, wherever they stand.
func (b *builder) about(w breakdown.Watched, a breakdown.Alert, text string) string {
	if a == breakdown.HardChange {
		from, to := b.nameBefore(w.At), b.spoken(b.event(w.At))
		return "change " + min(from, to) + " " + max(from, to)
	}
	return text
}

// signs are the alerts about a sign before a note.
var signs = []breakdown.Alert{breakdown.Trap, breakdown.Cancelled, breakdown.Accidental, breakdown.Carried}

// byWeight puts the alerts that say something else than the note's name last.
func byWeight(list []breakdown.Alert) []breakdown.Alert {
	order := []breakdown.Alert{
		breakdown.Trap, breakdown.Cancelled, breakdown.Accidental, breakdown.Carried, breakdown.HardChange, breakdown.LookAlike,
		breakdown.New, breakdown.Skip, breakdown.Respelled, breakdown.Held, breakdown.Long, breakdown.Last, breakdown.InKey, breakdown.Prepare, breakdown.Breathe, breakdown.Accented, breakdown.Swells,
	}
	var sorted []breakdown.Alert
	for _, a := range order {
		if slices.Contains(list, a) {
			sorted = append(sorted, a)
		}
	}
	return sorted
}

// mind is a sentence for an alert; "" where the alert says nothing to everybody who plays.
func (b *builder) mind(w breakdown.Watched, a breakdown.Alert) string {
	e := b.event(w.At)
	name, before := b.spoken(e), b.nameBefore(w.At)
	at := fmt.Sprintf("Measure %d: ", w.Measure)
	if w.Measure == 0 {
		at = "The pickup: "
	}
	named := !b.mixed && e.Kind == "note"
	switch a {
	case breakdown.Trap:
		if named {
			return at + name + " this time."
		}
	case breakdown.Cancelled:
		if named {
			return at + name + " again."
		}
	case breakdown.Accidental:
		if named {
			return at + name + "."
		}
	case breakdown.Carried:
		if named {
			return at + "still " + name + "."
		}
	case breakdown.InKey:
		if named {
			return at + name + ", from the key."
		}
	case breakdown.Respelled:
		return ""
	case breakdown.HardChange:
		if named && before != "" && before != name {
			return at + fmt.Sprintf("from %s to %s, move early.", before, name)
		}
	case breakdown.LookAlike:
		if named && before != "" {
			return at + fmt.Sprintf("from %s to %s is a skip.", before, name)
		}
	case breakdown.New:
		if named && b.newNote(w.At) {
			return at + name + " is new."
		}
	case breakdown.Held:
		return at + "hold at the fermata."
	case breakdown.Breathe:
		return at + "breathe at the mark."
	case breakdown.Accented:
		return at + "an accent on " + b.beatAt(w.At) + "."
	case breakdown.Swells:
		if b.lead.Report.Part.At(w.At).Hairpin == score.Diminuendo {
			return at + "grow softer."
		}
		return at + "grow louder."
	case breakdown.Long, breakdown.Last:
		if e.Kind == "note" {
			if beats := b.beatsOf(w.At); beats != "" {
				return at + "hold " + beats + "."
			}
		}
	case breakdown.Skip, breakdown.Prepare:
		switch {
		case e.Kind == "rest":
			return at + "rest on " + b.beatAt(w.At) + "."
		case e.Tied:
			return at + "the tie holds on."
		case b.afterRest(w.At):
			return at + "come in after the rest."
		}
	}
	return ""
}

func (b *builder) event(at score.Place) breakdown.Event {
	return b.lead.Report.Measures[at.Measure].Events[at.Event]
}

// spoken is the name of a note; of a stroke its hand.
func (b *builder) spoken(e breakdown.Event) string { return b.called(Names, e) }

// before is the event before a place; ok is false at the beginning.
func (b *builder) before(at score.Place) (e breakdown.Event, ok bool) {
	switch {
	case at.Event > 0:
		at.Event--
	case at.Measure > 0 && len(b.lead.Report.Measures[at.Measure-1].Events) > 0:
		at.Measure--
		at.Event = len(b.lead.Report.Measures[at.Measure].Events) - 1
	default:
		return e, false
	}
	return b.event(at), true
}

func (b *builder) nameBefore(at score.Place) string {
	if e, ok := b.before(at); ok && e.Kind == "note" {
		return b.spoken(e)
	}
	return ""
}

func (b *builder) afterRest(at score.Place) bool {
	e, ok := b.before(at)
	return ok && e.Kind == "rest"
}

// newNote says whether the note stands at this place for the first time in the line.
func (b *builder) newNote(at score.Place) bool {
	pitch := b.event(at).Pitch
	for i, m := range b.lead.Report.Measures[:at.Measure+1] {
		for j, e := range m.Events {
			if (i < at.Measure || j < at.Event) && e.Kind == "note" && e.Pitch == pitch {
				return false
			}
		}
	}
	return pitch != ""
}

// beatAt says on which beat something stands: "beat three"; between beats "the second half of
// beat three" is too long to be said, so that it is "beat three" too.
func (b *builder) beatAt(at score.Place) string {
	beat := b.lead.Report.Part.Measures[at.Measure].Meter.Beat()
	n := int(b.event(at).Start.Div(beat).Floor()) + 1
	if n < 1 || n >= len(numbers) {
		return "its beat"
	}
	return "beat " + numbers[n]
}

// longBeats is from how many beats on a note is told to be held. The figure is ours.
const longBeats = 3

// beatsOf is how long a note lasts with its ties, "three beats"; "" where that is no whole
// number of beats.
func (b *builder) beatsOf(at score.Place) string {
	part := b.lead.Report.Part
	n := b.lasts(at).Div(part.Measures[at.Measure].Meter.Beat())
	if n.Den() != 1 || n.Num() < longBeats || int(n.Num()) >= len(numbers) {
		return ""
	}
	return numbers[n.Num()] + " beats"
}

// lasts is the length of a note with its ties.
func (b *builder) lasts(at score.Place) score.Fraction {
	total := b.event(at).Length
	for i := at.Measure; i < len(b.lead.Report.Measures); i++ {
		for j, e := range b.lead.Report.Measures[i].Events {
			if i == at.Measure && j <= at.Event {
				continue
			}
			if e.Kind != "note" || !e.Tied {
				return total
			}
			total = total.Add(e.Length)
		}
	}
	return total
}
