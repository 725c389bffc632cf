package finger

import (
	"fmt"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// melody is the struck notes of a part in written order, as the rules look at them.
type melody struct {
	instrument instrument.Instrument
	options    Options
	notes      []melodyNote
}

// melodyNote is one struck note of a line.
type melodyNote struct {
	at      score.Place
	pitch   score.Pitch
	midi    int
	choice  Choice
	fixed   bool           // printed or chosen: no rule changes it
	length  score.Fraction // through its ties
	rested  bool           // a rest stands before it
	slurred bool           // to the note before
	ends    bool           // a phrase: a breath, a double bar or a repeat comes after it
}

// newMelody gives every struck note what is printed over it, what the teacher
// chose, or its usual way.
func newMelody(i instrument.Instrument, part score.Part, o Options) *melody {
	l := &melody{instrument: i, options: o}
	l.options.Year = min(max(o.Year, 1), 3)
	l.notes = make([]melodyNote, 0, part.Events())
	reach := instrument.Range{Low: i.Lowest, High: i.Highest}
	usual := map[score.Pitch]Choice{}
	rested, slurs := true, 0
	for k := range part.Measures {
		m := &part.Measures[k]
		for j := range m.Events {
			e := &m.Events[j]
			switch n := len(l.notes); {
			case e.Kind == score.Rest:
				rested = true
			case e.Tied && n > 0:
				l.notes[n-1].length = l.notes[n-1].length.Add(e.Length)
			case !reach.Holds(e.Pitch):
				rested = true // what is not played leads nowhere
			default:
				c, known := usual[e.Pitch]
				if !known {
					c, _ = Taught(i, e.Pitch, l.options.Year)
					usual[e.Pitch] = c
				}
				note := melodyNote{
					at:      score.Place{Measure: k, Event: j},
					pitch:   e.Pitch,
					midi:    e.Pitch.MIDI(),
					choice:  c,
					length:  e.Length,
					rested:  rested,
					slurred: slurs > 0 && !rested,
				}
				note.choose(i, *e, l.options)
				l.notes = append(l.notes, note)
				rested = false
			}
			if e.Kind == score.Note {
				slurs = max(0, slurs+e.SlurStarts-e.SlurEnds)
				for _, mark := range e.Marks {
					if mark == score.Breath && len(l.notes) > 0 {
						l.notes[len(l.notes)-1].ends = true
					}
				}
			}
		}
		if n := len(l.notes); n > 0 && (m.DoubleBar || m.RepeatEnd) {
			l.notes[n-1].ends = true
		}
	}
	return l
}

// choose takes what is printed over the note, or what the teacher chose for this
// place or for the note.
func (n *melodyNote) choose(i instrument.Instrument, e score.Event, o Options) {
	if e.Fingering != "" {
		if text, fits := printed(i, n.choice, e); fits {
			n.choice, n.fixed = n.choice.because(Printed, text, "it is printed over the note"), true
			return
		}
		n.choice.Unfit = e.Fingering
	}
	for _, text := range []string{o.placed(n.at, n.midi), o.Preferred[n.midi]} {
		if n.choice.Has(text) {
			n.choice, n.fixed = n.choice.because(Chosen, text, ""), true
			return
		}
	}
}

// rule makes an alternate stand, unless the note is fixed.
func (l *melody) rule(k int, text, why string) {
	if n := &l.notes[k]; !n.fixed && n.choice.Text != text {
		n.choice = n.choice.because(Ruled, text, why)
	}
}

func (l *melody) write(choices [][]Choice) {
	for _, n := range l.notes {
		choices[n.at.Measure][n.at.Event] = n.choice
	}
}

// before is the nearest note of another pitch before the k-th, -1 where a rest
// stands between or there is none.
func (l *melody) before(k int) int {
	for j := k; j > 0 && !l.notes[j].rested; j-- {
		if l.notes[j-1].midi != l.notes[k].midi {
			return j - 1
		}
	}
	return -1
}

// after is the nearest note of another pitch after the k-th, as before.
func (l *melody) after(k int) int {
	for j := k + 1; j < len(l.notes) && !l.notes[j].rested; j++ {
		if l.notes[j].midi != l.notes[k].midi {
			return j
		}
	}
	return -1
}

// neighbours lists the notes before and after, those there are.
func (l *melody) neighbours(k int) []int {
	var list []int
	for _, j := range []int{l.before(k), l.after(k)} {
		if j >= 0 {
			list = append(list, j)
		}
	}
	return list
}

// slurredTo says whether one slur leads from the j-th note to the k-th, or back.
func (l *melody) slurredTo(j, k int) bool {
	for n := min(j, k) + 1; n <= max(j, k); n++ {
		if !l.notes[n].slurred {
			return false
		}
	}
	return true
}

// quick says whether a note is short, or slurred to its neighbour.
func (l *melody) quick(k, neighbour int) bool {
	return l.notes[k].length.Cmp(score.Frac(1, 8)) <= 0 || l.slurredTo(neighbour, k)
}

// called is a note's name in a reason.
func (l *melody) called(k int) string { return name.Spoken(l.notes[k].pitch, false) }

// Unfit lists what is printed over notes and is no fingering of them.
func Unfit(i instrument.Instrument, part score.Part, choices [][]Choice) []score.Problem {
	var list []score.Problem
	for k, m := range part.Measures {
		note := 0
		for j, e := range m.Events {
			if e.Kind == score.Note {
				note++
			}
			if c := choices[k][j]; c.Unfit != "" {
				list = append(list, score.Problem{
					Measure: m.Number, Note: note,
					What: fmt.Sprintf(
						"“%s” is printed over it, which is no fingering of %s on the %s; %s is shown.",
						c.Unfit,
						name.Spoken(e.Pitch, false),
						i.Name,
						Words{}.Say(i, c.Fingering),
					),
				})
			}
		}
	}
	return list
}
