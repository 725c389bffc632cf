package breakdown

import (
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// noted is what is to be marked at one event, and every reason there is.
type noted struct {
	alerts  []Alert
	reasons []string
	natural bool // "natural" is said aloud
}

func (n *noted) add(a Alert, reason string) {
	n.alerts = append(n.alerts, a)
	n.reasons = append(n.reasons, reason)
}

// tell adds a reason without an alert: it is there on request.
func (n *noted) tell(reason string) { n.reasons = append(n.reasons, reason) }

func (n noted) why() string { return strings.Join(n.reasons, " ") }

// systemMeasures is how many measures a line of music is taken to have: alerts that
// come again and again are given once a line. Source: common practice of printed
// exercises.
const systemMeasures = 4

// systemOf is the system, a line of music, that a measure stands in.
func systemOf(m score.Measure) int { return max(m.Number-1, 0) / systemMeasures }

// once remembers what has been marked in a line of music.
type once map[[3]int]bool

// first says whether a letter in an alteration comes for the first time in its line.
func (o once) first(m score.Measure, p score.Pitch) bool {
	at := [3]int{systemOf(m), int(p.Step), p.Alter}
	if o[at] {
		return false
	}
	o[at] = true
	return true
}

func findAlerts(part score.Part, met *Met) [][]noted {
	marks := make([][]noted, len(part.Measures))
	for i, m := range part.Measures {
		marks[i] = make([]noted, len(m.Events))
	}
	markAccidentals(part, marks)
	markTraps(part, met, marks)
	markRespelled(part, marks)
	markLong(part, marks)
	markLookAlikes(part, marks)
	markSkipped(part, marks)
	markSigns(part, marks)
	return marks
}

// markAccidentals marks what the key signature changes, signs, the notes they
// still govern, and the first note of the next measure that they do not.
func markAccidentals(part score.Part, marks [][]noted) {
	before := map[int]int{} // by the letter counted from C0: alterations that signs left behind in the last measure
	inKey := once{}
	for i, m := range part.Measures {
		signs := map[int]int{}
		said := map[score.Step]bool{} // letters that were flat or sharp in this measure
		if m.Split {
			signs, before = before, map[int]int{}
		}
		for j, e := range m.Events {
			if e.Kind != score.Note || e.Unpitched {
				continue
			}
			p := e.Pitch
			at := p.Diatonic()
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
				reason := fmt.Sprintf("The key signature makes every %s %s.", p.Step, strings.TrimSpace(score.AlterWord(byKey)))
				if inKey.first(m, p) {
					n.add(InKey, reason)
				} else {
					n.tell(reason)
				}
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
		before = map[int]int{}
		for at, alter := range signs {
			if alter != m.Key.Alter(score.Step(at%7)) {
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
// earlier exercises are known, the first note in each line of a letter that is new
// in this alteration is one; without them, the first note in the exercise that
// differs from all of its letter before it.
func markTraps(part score.Part, met *Met, marks [][]noted) {
	here, trapped := MetIn(), once{}
	for _, at := range part.Notes() {
		e := part.At(at)
		if e.Unpitched || e.Tied {
			continue
		}
		p := e.Pitch
		known, where := met.as(p.Step), "in every exercise so far"
		if len(known) == 0 {
			known, where = here.as(p.Step), "everywhere before this"
		}
		if len(known) > 0 && !known[p.Alter] {
			n := &marks[at.Measure][at.Event]
			reason := fmt.Sprintf("Watch out: this is %s, and %s was %s %s.",
				name.Spoken(p, true), p.Step, alterations(known), where)
			if trapped.first(part.Measures[at.Measure], p) {
				n.add(Trap, reason)
			} else {
				n.tell(reason)
			}
			n.natural = p.Alter == 0
		}
		here.read(p)
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

// markRespelled marks the first note of each spelling whose key on the instrument has
// two names in the exercise.
func markRespelled(part score.Part, marks [][]noted) {
	notes := part.Notes()
	if !respells(part, notes) {
		return
	}
	spellings := map[int]map[score.Step]score.Pitch{}
	for _, at := range notes {
		if e := part.At(at); !e.Unpitched {
			midi := e.Pitch.MIDI()
			if spellings[midi] == nil {
				spellings[midi] = map[score.Step]score.Pitch{}
			}
			spellings[midi][e.Pitch.Step] = e.Pitch
		}
	}
	marked := map[score.Pitch]bool{}
	for _, at := range notes {
		e := part.At(at)
		if e.Unpitched || e.Tied || len(spellings[e.Pitch.MIDI()]) < 2 {
			continue
		}
		n := &marks[at.Measure][at.Event]
		for step := score.C; step <= score.B; step++ {
			other, spelled := spellings[e.Pitch.MIDI()][step]
			if !spelled || step == e.Pitch.Step {
				continue
			}
			reason := fmt.Sprintf("Played the same as the %s elsewhere.", name.Spoken(other, true))
			if marked[e.Pitch] {
				n.tell(reason)
			} else {
				n.add(Respelled, reason)
			}
			break
		}
		marked[e.Pitch] = true
	}
}

// respells says whether any two notes that sound the same have different names.
func respells(part score.Part, notes []score.Place) bool {
	named := map[int]score.Step{}
	for _, at := range notes {
		e := part.At(at)
		if e.Unpitched {
			continue
		}
		step, known := named[e.Pitch.MIDI()]
		if known && step != e.Pitch.Step {
			return true
		}
		named[e.Pitch.MIDI()] = e.Pitch.Step
	}
	return false
}

// markLong marks notes of three beats or more beside a note of a beat or less, notes
// of a beat and a half beside one of half a beat or less, the first in each line; and
// the final note.
func markLong(part score.Part, marks [][]noted) {
	sounding := part.Sounding(part.Written())
	marked := map[int]bool{}
	for k, note := range sounding {
		beat := part.Measures[note.Place.Measure].Meter.Beat()
		n := &marks[note.Place.Measure][note.Place.Event]
		if k == len(sounding)-1 {
			n.add(Last, lastWords(part))
			continue
		}
		quickest := sounding[k+1].Length
		if k > 0 && sounding[k-1].Length.Less(quickest) {
			quickest = sounding[k-1].Length
		}
		beats := note.Length.Div(beat)
		if beats.Cmp(score.Frac(3, 1)) >= 0 && quickest.Cmp(beat) <= 0 ||
			beats.Cmp(score.Frac(3, 2)) >= 0 && quickest.Cmp(beat.Mul(score.Frac(1, 2))) <= 0 {
			const reason = "A long note among moving ones: keep its full length."
			line := systemOf(part.Measures[note.Place.Measure])
			if marked[line] {
				n.tell(reason)
			} else {
				n.add(Long, reason)
			}
			marked[line] = true
		}
	}
}

// markSigns marks fermatas, and the first breath mark, accent and hairpin of each line of music.
func markSigns(part score.Part, marks [][]noted) {
	type sign struct {
		line  int
		alert Alert
	}
	marked := map[sign]bool{}
	for i, m := range part.Measures {
		for j, e := range m.Events {
			say := func(on bool, a Alert, reason string) {
				if on && e.Kind == score.Note {
					if s := (sign{systemOf(m), a}); a == Held || !marked[s] {
						marked[s] = true
						marks[i][j].add(a, reason)
					} else {
						marks[i][j].tell(reason)
					}
				}
			}
			say(slices.Contains(e.Marks, score.Fermata), Held, "A fermata: hold it until you are shown to stop; the beat waits.")
			say(slices.Contains(e.Marks, score.Breath), Breathe,
				"A breath mark after it: take the time for it from this note, so that the next is not late.")
			say(slices.Contains(e.Marks, score.Accent) && !e.Tied, Accented, "An accent: begin it louder than its neighbors, and no shorter.")
			say(e.Hairpin == score.Crescendo, Swells, "A crescendo begins: start softly enough to grow all the way.")
			say(e.Hairpin == score.Diminuendo, Swells, "A diminuendo begins: fade, with the same breath or bow to the end.")
		}
	}
}

// lastWords says where the final note ends: where a rest begins, or on the downbeat
// after the last measure.
func lastWords(part score.Part) string {
	last := len(part.Measures) - 1
	events := part.Measures[last].Events
	if events[len(events)-1].Kind == score.Rest {
		return "The last note: stop where the rest begins, not before."
	}
	return "The last note: hold it until the next downbeat."
}
