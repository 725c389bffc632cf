package finger

import (
	"fmt"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// A mechanism is how notes are made on instruments of one kind. Another is one more type, in a
// file of its own, and one more row of mechanismOf.
type mechanism interface {
	// ways lists the fingerings of a written note in a year of playing, the usual one first.
	ways(i instrument.Instrument, p score.Pitch, year int) []Fingering
	// finger chooses what stands at every note of a part.
	finger(i instrument.Instrument, part score.Part, choices [][]Choice, o Options)
	// rules applies the rules of the trade that are the mechanism's own; all says that no others
	// are to be applied.
	rules(l *melody) (all bool)
	// change is the cost of going from one note to the next, with its reasons where why is not nil.
	change(i instrument.Instrument, from, to Played, year int, why *reasons) int
	// say puts a fingering in words.
	say(w Words, i instrument.Instrument, f Fingering) string
	// written reads a fingering that somebody wrote for a note that no table has.
	written(i instrument.Instrument, p score.Pitch, text string) (Fingering, bool)
	// printed finds which way of a note is meant by what is printed over it, and by the number of a
	// string, 0 for none.
	printed(i instrument.Instrument, c Choice, said string, number int) (text string, fits bool)
	// draw says what there is to draw of a fingering of a note.
	draw(i instrument.Instrument, p score.Pitch, f Fingering) Drawn
}

// mechanismOf is how an instrument's notes are made.
func mechanismOf(i instrument.Instrument) mechanism {
	switch i.Mechanism {
	case instrument.Valves:
		return valved{}
	case instrument.Slide:
		return slid{}
	case instrument.BowedStrings:
		return bowed{}
	case instrument.Bars:
		return barred{}
	case instrument.Drums:
		return drummed{}
	case instrument.Sticks:
		return beaten{}
	}
	return keyed{}
}

// usual is what mechanisms have in common.
type usual struct{}

func (usual) finger(i instrument.Instrument, part score.Part, choices [][]Choice, o Options) {
	if l := newMelody(i, part, choices, o); !o.Plain {
		l.apply()
	}
}

func (usual) rules(*melody) (all bool) { return false }

func (usual) written(instrument.Instrument, score.Pitch, string) (Fingering, bool) {
	return Fingering{}, false
}

func (usual) printed(_ instrument.Instrument, c Choice, said string, _ int) (text string, fits bool) {
	return said, c.Has(said)
}

func (usual) draw(_ instrument.Instrument, _ score.Pitch, f Fingering) Drawn {
	return Drawn{Label: withSigns(f.Text)}
}

// keyed are woodwinds.
type keyed struct{ usual }

func (keyed) ways(i instrument.Instrument, p score.Pitch, year int) []Fingering {
	return byYear(i, woodwindTables[i.Keys][p.MIDI()], year)
}

func (keyed) rules(l *melody) (all bool) {
	if l.instrument.Forks {
		l.forkF()
	}
	if l.instrument.RightDown {
		l.holdRight()
	}
	if l.instrument.SwapsLittle {
		l.fingerLittle()
	}
	return false
}

func (keyed) change(i instrument.Instrument, from, to Played, _ int, why *reasons) int {
	return woodwindChange(i, from, to, why)
}

func (keyed) say(w Words, i instrument.Instrument, f Fingering) string { return w.sayKeys(i, f) }

func (keyed) written(i instrument.Instrument, _ score.Pitch, text string) (Fingering, bool) {
	return writtenKeys(i, text)
}

func (keyed) draw(i instrument.Instrument, _ score.Pitch, f Fingering) Drawn {
	return drawKeys(layoutOf(i), f)
}

// valved are brass with valves.
type valved struct{ usual }

func (valved) ways(i instrument.Instrument, p score.Pitch, _ int) []Fingering { return brassFor(i, p) }

func (valved) change(_ instrument.Instrument, from, to Played, _ int, why *reasons) int {
	return valveChange(from, to, why)
}

func (valved) say(_ Words, _ instrument.Instrument, f Fingering) string { return sayValves(f) }

func (valved) written(i instrument.Instrument, p score.Pitch, text string) (Fingering, bool) {
	f, ok := writtenValves(i, text)
	return f, ok && resounds(tubeBelow(i, f), p)
}

// printed reads valves together too: "12".
func (valved) printed(i instrument.Instrument, c Choice, said string, _ int) (text string, fits bool) {
	thumb := ""
	if rest, found := strings.CutPrefix(said, "T"); found && i.ThumbSide {
		thumb, said = "T", rest
	}
	digits := strings.NewReplacer("-", "", " ", "", "+", "", "open", "0").Replace(said)
	said = thumb + strings.Join(strings.Split(digits, ""), "-")
	return said, c.Has(said)
}

func (valved) draw(_ instrument.Instrument, _ score.Pitch, f Fingering) Drawn { return drawValves(f) }

// slid are trombones.
type slid struct{ usual }

func (slid) ways(i instrument.Instrument, p score.Pitch, _ int) []Fingering {
	return slide(p, i.Attachment)
}

func (slid) change(_ instrument.Instrument, from, to Played, _ int, why *reasons) int {
	return slideChange(from, to, why)
}

func (slid) say(_ Words, _ instrument.Instrument, f Fingering) string { return saySlide(f) }

func (slid) written(i instrument.Instrument, p score.Pitch, text string) (Fingering, bool) {
	f, ok := writtenSlide(i, text)
	return f, ok && resounds(tubeBelow(i, f), p)
}

func (slid) draw(_ instrument.Instrument, _ score.Pitch, f Fingering) Drawn {
	return Drawn{Label: f.Text, Slide: f.Position, Raised: f.Raised, Held: f.Attached}
}

// bowed are strings under a bow.
type bowed struct{ usual }

func (bowed) ways(i instrument.Instrument, p score.Pitch, _ int) []Fingering { return stopped(i, p) }

func (bowed) rules(l *melody) (all bool) {
	l.stopLine()
	return true
}

func (bowed) change(i instrument.Instrument, from, to Played, year int, why *reasons) int {
	return stringChange(i, year, from, to, why)
}

func (bowed) say(w Words, i instrument.Instrument, f Fingering) string { return w.sayStopped(i, f) }

func (bowed) written(i instrument.Instrument, p score.Pitch, text string) (Fingering, bool) {
	return writtenStop(i, p, text)
}

func (bowed) printed(i instrument.Instrument, c Choice, said string, number int) (text string, fits bool) {
	return printedFinger(i, c, said, number)
}

func (bowed) draw(i instrument.Instrument, p score.Pitch, f Fingering) Drawn {
	return drawStopped(i, p, f)
}

// barred are keyed bars: which one it is, the pitch says.
type barred struct{ usual }

func (barred) ways(_ instrument.Instrument, p score.Pitch, _ int) []Fingering {
	return []Fingering{{Text: p.String()}}
}

func (barred) finger(i instrument.Instrument, part score.Part, choices [][]Choice, o Options) {
	newMelody(i, part, choices, o)
	shareHands(part, choices)
}

func (barred) change(_ instrument.Instrument, from, to Played, _ int, why *reasons) int {
	return barChange(from, to, why)
}

func (barred) say(_ Words, _ instrument.Instrument, f Fingering) string {
	last := len(f.Text) - 1
	return "the bar " + sayNote(f.Text[:last]) + " " + f.Text[last:]
}

// drummed are tuned drums, which depend on what was played before.
type drummed struct{ usual }

func (drummed) ways(i instrument.Instrument, p score.Pitch, _ int) []Fingering { return drumsFor(i, p) }

func (drummed) finger(i instrument.Instrument, part score.Part, choices [][]Choice, o Options) {
	tune(i, part, choices, o)
	shareHands(part, choices)
}

func (drummed) change(i instrument.Instrument, from, to Played, _ int, why *reasons) int {
	return drumChange(i, from, to, why)
}

func (drummed) say(_ Words, _ instrument.Instrument, f Fingering) string {
	return fmt.Sprintf("the %d inch drum", f.Inches)
}

// beaten are drums that play strokes, which have no pitches.
type beaten struct{ usual }

func (beaten) ways(instrument.Instrument, score.Pitch, int) []Fingering { return nil }

func (beaten) finger(i instrument.Instrument, part score.Part, choices [][]Choice, o Options) {
	stick(i, part, choices, o)
}

func (beaten) change(_ instrument.Instrument, from, to Played, _ int, why *reasons) int {
	return stickChange(from, to, why)
}

func (beaten) say(_ Words, _ instrument.Instrument, f Fingering) string { return sayStroke(f) }

func (beaten) draw(_ instrument.Instrument, _ score.Pitch, f Fingering) Drawn {
	main := len(f.Text) - 1
	return Drawn{Small: f.Text[:max(main, 0)], Stroke: f.Text[max(main, 0):]}
}
