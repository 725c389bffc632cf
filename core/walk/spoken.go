package walk

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/score"
)

// Utterance is what is spoken on the beat, with the seconds until the next one.
type Utterance struct {
	At   float64 `json:"at"`
	Text string  `json:"text"`           // as it is said: "one", "E flat"
	Full string  `json:"full,omitempty"` // where only its letter is said: the name
	Room float64 `json:"room"`
}

// leastRoom is how many seconds a name of several words needs. Source: "E natural" takes 0.42 s
// at its quickest.
const leastRoom = 0.45

// countLane is what is said of every measure by a way of counting.
type countLane struct {
	cells   [][]count.Cell
	options count.Options
}

func newCountLane(p score.Part, o count.Options) countLane { return countLane{count.Lanes(p, o), o} }

// numbered says whether the school says numbers, and so its rests.
func (c countLane) numbered() bool {
	return c.options.School == "" || c.options.School == count.Numbers || c.options.School == count.Pulsed
}

// says is what is said at a cell; "" for nothing.
func (c countLane) says(cell count.Cell) string {
	switch cell.Look {
	case count.Struck:
		return inWords(cell.Label)
	case count.Held:
		if c.options.School == count.Pulsed {
			return inWords(cell.Label)
		}
	case count.Rested:
		if c.numbered() || c.options.School == count.OneTa {
			return inWords(cell.Label)
		}
	}
	return ""
}

// letters are the parts of a beat as they are said.
var letters = map[string]string{"&": "and", "+": "and", "e": "ee", "a": "uh", "la": "la", "li": "lee"}

var numbers = [...]string{"", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"}

// inWords writes out a count: "3" is "three", "&" is "and".
func inWords(label string) string {
	if n, err := strconv.Atoi(label); err == nil && n > 0 && n < len(numbers) {
		return numbers[n]
	}
	if word := letters[label]; word != "" {
		return word
	}
	return label
}

// speak fills in what is spoken in a move, at its times from the first note, and says which
// names are cut to their letters.
func (b *builder) speak(m *Move, whole float64) (short []string) {
	if m.Voice == "" {
		return nil
	}
	for _, s := range m.Passages {
		if m.Act == SayPlay && s.Who != Heard {
			continue
		}
		say := func(at score.Fraction, text string) {
			if text != "" && !at.Less(s.from) && at.Less(s.to) {
				m.Spoken = append(m.Spoken, Utterance{At: s.At + at.Sub(s.from).Float()*whole, Text: text})
			}
		}
		if m.Voice == Counts {
			for _, cell := range b.counts.cells[s.Index] {
				say(cell.Place, b.counts.says(cell))
			}
			continue
		}
		for _, e := range b.lead.Report.Measures[s.Index].Events {
			if e.Kind == "note" && !e.Tied {
				say(e.Start, b.called(m.Voice, e))
			}
		}
	}
	last := m.Passages[len(m.Passages)-1]
	end := last.At + last.to.Sub(last.from).Float()*whole + last.Hold
	for k := range m.Spoken {
		u := &m.Spoken[k]
		next := end
		if k+1 < len(m.Spoken) {
			next = m.Spoken[k+1].At
		}
		u.Room = next - u.At
		letter, _, long := strings.Cut(u.Text, " ")
		if m.Voice != Counts && long && u.Room < leastRoom {
			if hint := fmt.Sprintf("Say %s for %s: it is quick.", letter, u.Text); m.Voice == Names && !slices.Contains(short, hint) && len(short) < 2 {
				short = append(short, hint)
			}
			u.Full, u.Text = u.Text, letter
		}
	}
	return short
}

// called is a note as a voice calls it.
func (b *builder) called(v Voice, e breakdown.Event) string {
	fingered := e.Played != nil && e.Fingering != "" // a note beyond the instrument has none
	if v == Fingers && fingered {
		if call := finger.Call(b.lead.Instrument, e.Played.Fingering); call != "" {
			return call
		}
	}
	if b.lead.Instrument.Unpitched() && fingered {
		return finger.Call(b.lead.Instrument, e.Played.Fingering)
	}
	return e.Name
}
