package breakdown

import (
	"fmt"
	"strings"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// noted is what is to be marked at one event, with a reason for each alert.
type noted struct {
	alerts  []Alert
	reasons []string
	natural bool // "natural" is said aloud
}

func (n *noted) add(a Alert, reason string) {
	n.alerts = append(n.alerts, a)
	if reason != "" {
		n.reasons = append(n.reasons, reason)
	}
}

func (n noted) why() string { return strings.Join(n.reasons, " ") }

// staffLine is one line or space.
type staffLine struct {
	step   score.Step
	octave int
}

func findAlerts(part score.Part, met Met) [][]noted {
	marks := make([][]noted, len(part.Measures))
	for i, m := range part.Measures {
		marks[i] = make([]noted, len(m.Events))
	}
	markAccidentals(part, marks)
	markTraps(part, met, marks)
	markRespelled(part, marks)
	markLong(part, marks)
	return marks
}

// markAccidentals marks what the key signature changes, signs, the notes they
// still govern, and the first note of the next measure that they do not.
func markAccidentals(part score.Part, marks [][]noted) {
	before := map[staffLine]int{} // alterations that signs left behind in the last measure
	for i, m := range part.Measures {
		signs := map[staffLine]int{}
		said := map[score.Step]bool{} // letters that were flat or sharp in this measure
		if m.Split {
			signs, before = before, map[staffLine]int{}
		}
		for j, e := range m.Events {
			if e.Kind != score.Note || e.Unpitched {
				continue
			}
			p := e.Pitch
			at := staffLine{p.Step, p.Octave}
			n := &marks[i][j]
			byKey := m.Key.Alter(p.Step)
			_, governed := signs[at]
			was, left := before[at]
			switch {
			case e.Tied:
			case e.Sign:
				n.add(Accidental, signReason(p, byKey))
				n.natural = p.Alter == 0
			case governed:
				n.add(Carried, fmt.Sprintf("The sign earlier in the measure still holds: %s.", name.Spoken(p, true)))
				n.natural = p.Alter == 0
			case left && was != p.Alter:
				n.add(Cancelled, fmt.Sprintf("The bar line ended the sign of the measure before: %s again.", name.Spoken(p, true)))
				delete(before, at)
			}
			if !e.Tied && !e.Sign && !governed && byKey != 0 {
				n.add(InKey, fmt.Sprintf("The key signature makes every %s %s.", p.Step, strings.TrimSpace(score.AlterWord(byKey))))
			}
			if p.Alter == 0 && said[p.Step] {
				n.natural = true
			}
			if p.Alter != 0 {
				said[p.Step] = true
			}
			if e.Sign && !e.Tied {
				signs[at] = p.Alter
			}
		}
		before = map[staffLine]int{}
		for at, alter := range signs {
			if alter != m.Key.Alter(at.step) {
				before[at] = alter
			}
		}
	}
}

func signReason(p score.Pitch, byKey int) string {
	if p.Alter == byKey {
		return fmt.Sprintf("A reminder: %s, as the key signature has it.", name.Spoken(p, true))
	}
	if p.Alter == 0 {
		return fmt.Sprintf("The sign in front of it undoes the key signature until the bar line: %s.", name.Spoken(p, true))
	}
	return fmt.Sprintf("The sign in front of it makes it %s until the bar line.", name.Spoken(p, true))
}

// markTraps marks letters that sound otherwise than in everything before. When
// earlier exercises are known, every note of a letter that is new in this
// alteration is one; without them, the first note in the exercise that differs
// from all of its letter before it.
func markTraps(part score.Part, met Met, marks [][]noted) {
	here := Met{}
	for _, at := range part.Notes() {
		e := part.At(at)
		if e.Unpitched || e.Tied {
			continue
		}
		p := e.Pitch
		known, where := met[p.Step], "in every exercise so far"
		if len(known) == 0 {
			known, where = here[p.Step], "everywhere before this"
		}
		if len(known) > 0 && !known[p.Alter] {
			n := &marks[at.Measure][at.Event]
			n.add(Trap, fmt.Sprintf("Watch out: this is %s, and %s was %s %s.",
				name.Spoken(p, true), p.Step, alterations(known), where))
			n.natural = p.Alter == 0
		}
		here.add(p)
	}
}

func alterations(known map[int]bool) string {
	var words []string
	for _, alter := range []int{-2, -1, 0, 1, 2} {
		if known[alter] {
			word := strings.TrimSpace(score.AlterWord(alter))
			if alter == 0 {
				word = "natural"
			}
			words = append(words, word)
		}
	}
	return strings.Join(words, " or ")
}

// markRespelled marks notes whose key on the instrument has two names in the
// exercise.
func markRespelled(part score.Part, marks [][]noted) {
	spellings := map[int]map[score.Step]score.Pitch{}
	for _, at := range part.Notes() {
		if e := part.At(at); !e.Unpitched {
			midi := e.Pitch.MIDI()
			if spellings[midi] == nil {
				spellings[midi] = map[score.Step]score.Pitch{}
			}
			spellings[midi][e.Pitch.Step] = e.Pitch
		}
	}
	for _, at := range part.Notes() {
		e := part.At(at)
		if e.Unpitched || e.Tied {
			continue
		}
		for step, other := range spellings[e.Pitch.MIDI()] {
			if step != e.Pitch.Step {
				marks[at.Measure][at.Event].add(Respelled,
					fmt.Sprintf("Played the same as the %s elsewhere.", name.Spoken(other, true)))
				break
			}
		}
	}
}

// markLong marks notes of two beats or more next to a note of a beat or less,
// and the final note.
func markLong(part score.Part, marks [][]noted) {
	sounding := part.Sounding(part.Written())
	for k, note := range sounding {
		beat := part.Measures[note.Place.Measure].Meter.Beat()
		n := &marks[note.Place.Measure][note.Place.Event]
		if k == len(sounding)-1 {
			n.add(Last, "The last note: hold it until the next downbeat.")
			continue
		}
		moving := k > 0 && sounding[k-1].Length.Cmp(beat) <= 0 || sounding[k+1].Length.Cmp(beat) <= 0
		if moving && note.Length.Cmp(beat.Mul(score.Frac(2, 1))) >= 0 {
			n.add(Long, "A long note among moving ones: keep its full length.")
		}
	}
}
