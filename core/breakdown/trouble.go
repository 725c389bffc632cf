package breakdown

import (
	"fmt"
	"strings"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// Trouble is what makes a measure hard for an instrument.
type Trouble struct {
	Grade int    // 0 easy, 9 as hard as it gets
	Word  string // "slide", "signs", "rhythm": what weighs most; "" in a measure without a note
	Why   string // a sentence
}

// grade tells a difficulty from 0 to 1 as one from 0 to 9.
func grade(difficulty float64) int { return min(int(10*difficulty), 9) }

// Grade is a difficulty from 0 to 9.
func (d Difficulty) Grade() int { return grade(d.Total) }

// mostly is the part that makes most of a difficulty, by its place in DifficultyParts.
func (d Difficulty) mostly() int {
	most := 0
	for k, part := range d.Parts.all() {
		if weights[k]*(*part) > weights[most]*(*d.Parts.all()[most]) {
			most = k
		}
	}
	return most
}

// Trouble tells what makes a measure hard, by its index in the report.
func (r Report) Trouble(i int, target instrument.Instrument) Trouble {
	d := r.Measures[i].Difficulty
	if d.Total == 0 {
		return Trouble{Why: "Nothing is played here."}
	}
	t := Trouble{Grade: d.Grade()}
	switch d.mostly() {
	case rhythmPart:
		t.Word, t.Why = "rhythm", r.rhythmTrouble(i)
	case readingPart:
		t.Word, t.Why = r.readingTrouble(i)
	case changePart:
		t.Word, t.Why = strings.ToLower(target.LaneName()), r.changeTrouble(i)
	case rangePart:
		word, way, note := r.reach(i, target)
		t.Word, t.Why = word, fmt.Sprintf("It goes %s to %s, %s for the %s in this year.", way, note, word, target.Name)
	case breathPart:
		t.Word, t.Why = "bow", "One bow has to last long here."
		if target.Blown {
			t.Word, t.Why = "breath", "One breath has to last long here."
		}
	case newPart:
		t.Word, t.Why = "new", "Not met before: "+joinUpTo(r.Measures[i].New, 4)+"."
	}
	return t
}

func (r Report) rhythmTrouble(i int) string {
	why, shortest := r.rhythmOf(i)
	if why == "" {
		why = fmt.Sprintf("The shortest note is %s.", score.WithArticle(score.ValueName(shortest, false)))
	}
	return why
}

// rhythmOf says what is hard in the rhythm of a measure, "" for nothing but how short its
// notes are, and the shortest of them: 4 for a quarter.
func (r Report) rhythmOf(i int) (why string, base int) {
	m := r.Part.Measures[i]
	beat := m.Meter.Beat()
	shortest := score.Value{}
	var syncopated, tied, between bool
	for _, e := range m.Events {
		if e.Kind == score.Rest {
			between = between || !e.WholeMeasure && restPoints(e, beat) > 0.5
			continue
		}
		syncopated = syncopated || !onBeat(e.Start, beat) && beat.Less(nextBeat(e, beat))
		tied = tied || e.TieOn
		if shortest.Base == 0 || e.Value.Base > shortest.Base {
			shortest = e.Value
		}
	}
	switch {
	case syncopated:
		why = "A note begins between beats and lasts through one."
	case between:
		why = "Rests are counted between beats."
	case tied:
		why = "A tied note goes on where the beat falls."
	}
	return why, shortest.Base
}

// readingTrouble names the first note that is marked, else the widest leap.
func (r Report) readingTrouble(i int) (word, why string) {
	widest := 1
	word, why = "steps", "The notes move by step."
	for j, e := range r.Part.Measures[i].Events {
		x := r.Measures[i].Events[j]
		for _, a := range []Alert{Trap, Accidental, Carried, Cancelled, InKey} {
			if x.Has(a) && e.Kind != score.Rest {
				return "signs", x.Why
			}
		}
		if e.Kind == score.Rest || e.Tied {
			continue
		}
		if before, is := r.struckBefore(i, j); is {
			if steps := abs(e.Pitch.Diatonic() - before.Diatonic()); steps > widest {
				widest = steps
				word, why = "leaps", fmt.Sprintf("It leaps from %s to %s.", name.Short(before, false), name.Short(e.Pitch, false))
			}
		}
	}
	return word, why
}

// changeTrouble names the costliest change into a note of the measure.
func (r Report) changeTrouble(i int) string {
	worst := r.worstChange(i)
	if worst == nil {
		return ""
	}
	why := worst.change.Why
	sentence := fmt.Sprintf("%s to %s: %s.", name.Short(worst.from.Pitch, false), name.Short(worst.to.Pitch, false), why)
	if !worst.rested && worst.change.Cost >= finger.Hard {
		sentence += " Leave the note before in good time."
	}
	return sentence
}

// worstChange is the costliest change into a note of a measure, nil for none.
func (r Report) worstChange(i int) *madeChange {
	var worst *madeChange
	for k, c := range r.changes {
		if c.at.Measure == i && (worst == nil || c.change.Cost > worst.change.Cost) {
			worst = &r.changes[k]
		}
	}
	return worst
}

// reach is where a measure goes farthest from where lines of an instrument sit: "high", "up" and
// the note, or "low", "down" and the note.
func (r Report) reach(i int, target instrument.Instrument) (word, way, note string) {
	p, low := r.farthest(i, target)
	if low {
		return "low", "down", name.Short(p, false)
	}
	return "high", "up", name.Short(p, false)
}

// farthest is the note of a measure that lies farthest from where lines of an instrument sit.
func (r Report) farthest(i int, target instrument.Instrument) (p score.Pitch, low bool) {
	var top, bottom score.Pitch
	first := true
	for _, e := range r.Part.Measures[i].Events {
		if e.Kind == score.Rest || e.Unpitched {
			continue
		}
		if first || e.Pitch.MIDI() > top.MIDI() {
			top = e.Pitch
		}
		if first || e.Pitch.MIDI() < bottom.MIDI() {
			bottom = e.Pitch
		}
		first = false
	}
	if middle := target.Tessitura.MIDI(); middle-bottom.MIDI() > top.MIDI()-middle {
		return bottom, true
	}
	return top, false
}

// left counts the measures there are to learn once those that come again are taken out.
func (r Report) left() int {
	copies := map[int]bool{}
	for _, same := range r.Same {
		for _, n := range same.Measures {
			copies[n] = copies[n] || same.How == "same"
		}
	}
	left := map[int]bool{}
	for _, m := range r.Measures {
		if !copies[m.Number] && m.Number > 0 {
			left[m.Number] = true
		}
	}
	return len(left)
}

// Again says which measures come again: "Measures 5 and 6 are 1 and 2 again."
func (r Report) Again() []string {
	var again []string
	for _, same := range r.Same {
		if same.How == "same" {
			again = append(again, fmt.Sprintf("%s %s %s again.", capital(measureWords(same.Measures)),
				map[bool]string{true: "is", false: "are"}[len(same.Measures) == 1], measureWords(same.As)))
		}
	}
	return again
}

func capital(words string) string { return strings.ToUpper(words[:1]) + words[1:] }

// Grade is the difficulty of a chunk from 0 to 9.
func (p Chunk) Grade() int { return grade(p.Difficulty) }
