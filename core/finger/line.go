package finger

import (
	"fmt"
	"slices"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// melody is the struck notes of a part in written order, as the rules look at them.
type melody struct {
	instrument instrument.Instrument
	options    Options
	notes      []melodyNote
	played     []playedNote // the notes in the order in which they are played, repeats and endings followed
	comes      [][]int      // where each note comes in it
	unplayed   []melodyNote // beyond the instrument, with what is printed over them
}

// playedNote is a note as it comes in playing.
type playedNote struct {
	note   int
	rested bool // a rest stands before it, or it is the first
}

// mostPlayed bounds how many notes are followed through repeats.
const mostPlayed = 20_000

// inOrder lists the notes as they are played.
func (l *melody) inOrder(part score.Part) {
	l.comes = make([][]int, len(l.notes))
	at := map[score.Place]int{}
	for k, n := range l.notes {
		at[n.at] = k
	}
	rested := true
	for _, i := range part.Order() {
		for j, e := range part.Measures[i].Events {
			k, struck := at[score.Place{Measure: i, Event: j}]
			switch {
			case struck && len(l.played) < mostPlayed:
				l.comes[k] = append(l.comes[k], len(l.played))
				l.played = append(l.played, playedNote{k, rested})
				rested = false
			case e.Kind == score.Rest || !e.Tied: // what is not played leads nowhere
				rested = true
			}
		}
	}
}

// melodyNote is one struck note of a line.
type melodyNote struct {
	at      score.Place
	pitch   score.Pitch
	midi    int
	choice  *Choice        // what stands at it
	fixed   bool           // printed or chosen: no rule changes it
	length  score.Fraction // through its ties
	rested  bool           // a rest stands before it
	slurred bool           // to the note before
	ends    bool           // a phrase: a breath, a double bar or a repeat comes after it
}

// newMelody gives every struck note what is printed over it, what the teacher
// chose, or its usual way, in choices.
func newMelody(i instrument.Instrument, part score.Part, choices [][]Choice, o Options) *melody {
	l := &melody{instrument: i, options: o}
	l.options.Year = min(max(o.Year, 1), 3)
	l.notes = make([]melodyNote, 0, part.Events())
	usual := map[score.Pitch]Choice{}
	rested, slurs := true, 0
	for k := range part.Measures {
		m := &part.Measures[k]
		for j := range m.Events {
			e := &m.Events[j]
			switch n := len(l.notes); {
			case e.Kind == score.Rest:
				rested = true
			case e.Tied && n+len(l.unplayed) > 0:
				if !rested {
					l.notes[n-1].length = l.notes[n-1].length.Add(e.Length)
				}
			default:
				c, known := usual[e.Pitch]
				if !known {
					c, _ = Taught(i, e.Pitch, l.options.Year)
					usual[e.Pitch] = c
				}
				choices[k][j] = c
				note := melodyNote{
					at:      score.Place{Measure: k, Event: j},
					pitch:   e.Pitch,
					midi:    e.Pitch.MIDI(),
					choice:  &choices[k][j],
					length:  e.Length,
					rested:  rested,
					slurred: slurs > 0 && !rested,
				}
				note.choose(i, *e, l.options)
				if rested = note.choice.Text == ""; rested { // what is not played leads nowhere
					l.unplayed = append(l.unplayed, note)
				} else {
					l.notes = append(l.notes, note)
				}
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
	l.inOrder(part)
	return l
}

// choose takes what is printed over the note, or what the teacher chose for this
// place or for the note; beyond the table either may be any fingering of the instrument.
func (n *melodyNote) choose(i instrument.Instrument, e score.Event, o Options) {
	listed := n.choice.Text != ""
	if e.Fingering != "" && !listed {
		if f, ok := Written(i, e.Pitch, e.Fingering); ok {
			*n.choice, n.fixed = Choice{Fingering: f, By: Printed}, true
			return
		}
		n.choice.Unfit = e.Fingering
	} else if e.Fingering != "" {
		if text, fits := printed(i, *n.choice, e); fits {
			*n.choice, n.fixed = n.choice.because(Printed, text, "it is printed over the note"), true
			return
		}
		n.choice.Unfit = e.Fingering
	}
	for _, text := range []string{o.placed(n.at, n.midi), o.Preferred[n.midi]} {
		if n.choice.Has(text) {
			*n.choice, n.fixed = n.choice.because(Chosen, text, ""), true
			return
		}
		if f, ok := Written(i, e.Pitch, text); ok && !listed {
			*n.choice, n.fixed = Choice{Fingering: f, By: Chosen, Unfit: n.choice.Unfit}, true
			return
		}
	}
}

// rule makes an alternate stand, unless the note is fixed.
func (l *melody) rule(k int, text, why string) {
	if n := &l.notes[k]; !n.fixed && n.choice.Text != text {
		*n.choice = n.choice.because(Ruled, text, why)
	}
}

// before is the nearest note of another pitch before the k-th as it is first played, -1 where
// a rest stands between or nothing comes before.
func (l *melody) before(k int) int {
	if len(l.comes[k]) == 0 {
		return -1
	}
	return l.neighbour(l.comes[k][0], -1)
}

// after is the nearest note of another pitch after the k-th, as before.
func (l *melody) after(k int) int {
	if len(l.comes[k]) == 0 {
		return -1
	}
	return l.neighbour(l.comes[k][0], 1)
}

// neighbour is the nearest note of another pitch on one side of a place in playing.
func (l *melody) neighbour(at, way int) int {
	here := l.notes[l.played[at].note].midi
	for j := at; ; j += way {
		if way < 0 && l.played[j].rested || j+way < 0 || j+way >= len(l.played) || way > 0 && l.played[j+way].rested {
			return -1
		}
		if k := l.played[j+way].note; l.notes[k].midi != here {
			return k
		}
	}
}

// neighbours lists the notes before and after wherever the k-th is played, those there are.
func (l *melody) neighbours(k int) []int {
	var list []int
	for _, at := range l.comes[k] {
		for _, way := range []int{-1, 1} {
			if j := l.neighbour(at, way); j >= 0 && !slices.Contains(list, j) {
				list = append(list, j)
			}
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
				shown := "none is shown"
				if c.Text != "" {
					shown = Words{}.Say(i, c.Fingering) + " is shown"
				}
				list = append(list, score.Problem{
					Measure: m.Number, Note: note,
					What: fmt.Sprintf("“%s” is printed over it, which is no fingering of %s on the %s; %s.", c.Unfit,
						name.Spoken(e.Pitch, false), i.Name, shown),
				})
			}
		}
	}
	return list
}
