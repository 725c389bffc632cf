package instrument

import (
	"fmt"
	"strings"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// Made is a part written for an instrument, with what was decided on the way.
type Made struct {
	Part    score.Part
	Why     string        // how it was transposed and which octave was chosen
	Outside []score.Place // notes the instrument has no fingering for
}

// OctaveChoice is the octave a part is put in, against its source.
type OctaveChoice struct {
	Chosen  bool // by the teacher; else the one that suits most notes
	Octaves int
	Beside  *int // the octave that its book has it in, where none is chosen; nil where it stands alone
	Folded  bool // a note beyond the instrument is played in the nearest octave that it has
}

// Make writes the source part for an instrument: transposed, its key respelled
// where it would have more than six sharps or flats, in its clef, and in the
// octave of its placement. A source written for that instrument (writtenFor is
// its id) is left as it is, unless an octave was chosen.
func Make(source score.Part, writtenFor string, target Instrument, placed OctaveChoice) Made {
	part := source.Copy()
	var why string
	switch {
	case target.Unpitched():
		toStrokes(&part)
		why = "The rhythm of the exercise, as strokes."
	case source.Unpitched():
		on := WrittenFor(DefaultOneNote, target)
		toOneNote(&part, target, on)
		why = fmt.Sprintf("A drum rhythm: played on one note, written %s.", name.Spoken(on, false))
	case writtenFor == target.ID && !placed.Chosen:
		part.Transposition = target.Transposition
		why = fmt.Sprintf("As it was written for %s.", target.Name)
	case target.Mechanism == Drums:
		why = toDrums(&part, target)
	default:
		why = transpose(&part, target, placed)
	}
	if placed.Folded && fold(&part, target) {
		why += " Notes beyond the " + target.Name + " are played in the nearest octave it has."
	}
	part.Name = target.Title()
	return Made{Part: part, Why: why, Outside: outside(part, target)}
}

// fold puts every note beyond the instrument into the nearest octave that it has, and
// says whether there was one.
func fold(part *score.Part, target Instrument) bool {
	folded := false
	for _, at := range outside(*part, target) {
		p := &part.Measures[at.Measure].Events[at.Event].Pitch
		by := score.Octaves(1)
		if p.MIDI() > target.Highest.MIDI() {
			by = by.Negated()
		}
		near := p.Transpose(by)
		for n := 0; n < furthest && !target.Plays(near); n++ {
			near = near.Transpose(by)
		}
		if target.Plays(near) {
			*p, folded = near, true
		}
	}
	if folded {
		part.MarkAccidentals()
	}
	return folded
}

func transpose(part *score.Part, target Instrument, placed OctaveChoice) string {
	base := baseMove(*part, target)
	octaves, where := placed.Octaves, "the octave you chose"
	if !placed.Chosen {
		seat := seatOf(*part, base, target)
		octaves, where = seat.octaves, seat.words(target)
		if placed.Beside != nil && *placed.Beside != octaves {
			octaves, where = *placed.Beside, "in the octave of the lines beside it"
		}
	}
	move := base.Plus(score.Octaves(octaves))
	for i := range part.Measures {
		m := &part.Measures[i]
		var used score.Interval
		m.Key, used = m.Key.Transpose(move)
		m.Clef = target.Clef
		for j := range m.Events {
			e := &m.Events[j]
			if e.Kind != score.Note {
				continue
			}
			e.Pitch = e.Pitch.Transpose(used)
			e.Fingering, e.String = "", 0 // it was printed for another instrument
			if target.Family != "percussion" {
				e.Sticking = ""
			}
			e.Roll = e.Roll && target.Family != "woodwind" && target.Family != "brass"
			for k := range e.Others {
				e.Others[k] = e.Others[k].Transpose(used)
			}
			e.Sign = false
		}
	}
	part.Transposition = target.Transposition
	part.MarkAccidentals()
	return describe(move, octaves, where)
}

// baseMove is the interval from the source's pitches to the instrument's written
// ones, within the octave.
func baseMove(source score.Part, target Instrument) score.Interval {
	_, base := source.Key().Transpose(source.Transposition.Plus(target.Transposition.Negated()))
	return base
}

func describe(move score.Interval, octaves int, placed string) string {
	if move == (score.Interval{}) {
		return "In concert pitch, as entered."
	}
	var parts []string
	if inside := move.Semitones - 12*octaves; inside != 0 {
		parts = append(parts, fmt.Sprintf("written %s concert pitch", intervalWords(inside)))
	}
	switch {
	case octaves == 1 || octaves == -1:
		parts = append(parts, "moved an octave "+direction(octaves))
	case octaves != 0:
		parts = append(parts, fmt.Sprintf("moved %d octaves %s", max(octaves, -octaves), direction(octaves)))
	}
	text := strings.Join(parts, ", ")
	if text == "" {
		return "In concert pitch, respelled."
	}
	if placed != "" {
		text += ": " + placed
	}
	return strings.ToUpper(text[:1]) + text[1:] + "."
}

func direction(n int) string {
	if n < 0 {
		return "down"
	}
	return "up"
}

var intervalNames = [...]string{"", "a half step", "a whole step", "a minor third", "a major third", "a fourth",
	"a tritone", "a fifth", "a minor sixth", "a major sixth", "a minor seventh", "a major seventh"}

func intervalWords(semitones int) string {
	side := " above"
	if semitones < 0 {
		side, semitones = " below", -semitones
	}
	if semitones%12 == 0 {
		return "an octave" + side
	}
	return intervalNames[semitones%12] + side
}

// SoundsWords says how a part sounds against what is written: "a whole step lower".
func SoundsWords(i score.Interval) string {
	if i.Semitones == 0 {
		return "as written"
	}
	side, n := "higher", i.Semitones
	if n < 0 {
		side, n = "lower", -n
	}
	switch octaves := n / 12; {
	case octaves == 0:
		return intervalNames[n] + " " + side
	case n%12 == 0:
		return fmt.Sprintf("%s %s", []string{"", "an octave", "two octaves", "three octaves"}[min(octaves, 3)], side)
	default:
		return fmt.Sprintf("%s and an octave or more %s", intervalNames[n%12], side)
	}
}

// toStrokes keeps the rhythm alone.
func toStrokes(part *score.Part) {
	for i := range part.Measures {
		m := &part.Measures[i]
		m.Key, m.Clef = score.Key{}, score.Percussion
		for j := range m.Events {
			e := &m.Events[j]
			if e.Kind != score.Note {
				continue
			}
			e.Unpitched, e.Sign, e.Others, e.Fingering, e.String = true, false, nil, "", 0
			e.Pitch = score.Pitch{Step: score.B, Octave: 4}
			e.SlurStarts, e.SlurEnds = 0, 0
		}
	}
	part.Transposition = score.Interval{}
}

func toOneNote(part *score.Part, target Instrument, on score.Pitch) {
	key, _ := score.Key{}.Transpose(target.Transposition.Negated())
	for i := range part.Measures {
		m := &part.Measures[i]
		m.Key, m.Clef = key, target.Clef
		for j := range m.Events {
			if e := &m.Events[j]; e.Kind == score.Note {
				e.Unpitched, e.Pitch, e.Fingering, e.Graces, e.Roll = false, on, "", 0, false
				if target.Family != "percussion" {
					e.Sticking = ""
				}
			}
		}
	}
	part.Transposition = target.Transposition
	part.MarkAccidentals()
}

func outside(part score.Part, target Instrument) []score.Place {
	var places []score.Place
	for _, at := range part.Notes() {
		if !target.Unpitched() && !target.Plays(part.At(at).Pitch) {
			places = append(places, at)
		}
	}
	return places
}

// Unplayable lists the notes of a source that no instrument of the catalogue
// has at their sounding pitch.
func Unplayable(source score.Part) score.Problems {
	lowest, highest := soundingRange()
	var problems score.Problems
	for i, m := range source.Measures {
		note := 0
		for _, e := range m.Events {
			if e.Kind != score.Note {
				continue
			}
			note++
			sounds := e.Pitch.Transpose(source.Transposition)
			if e.Unpitched || sounds.MIDI() >= lowest.MIDI() && sounds.MIDI() <= highest.MIDI() {
				continue
			}
			problems = append(problems, score.Problem{
				Measure: source.Measures[i].Number, Note: note, Line: e.Line,
				What: fmt.Sprintf("no instrument here plays the sounding %s; they reach from %s to %s.", sounds, lowest, highest),
				Do:   "Check its octave, or for whom the exercise is written.",
			})
		}
	}
	return problems
}

// soundingRange is the lowest and highest concert pitch in the catalogue.
func soundingRange() (lowest, highest score.Pitch) {
	for _, i := range catalogue {
		if i.Unpitched() {
			continue
		}
		low, high := i.Lowest.Transpose(i.Transposition), i.Highest.Transpose(i.Transposition)
		if lowest == (score.Pitch{}) || low.MIDI() < lowest.MIDI() {
			lowest = low
		}
		if high.MIDI() > highest.MIDI() {
			highest = high
		}
	}
	return lowest, highest
}
