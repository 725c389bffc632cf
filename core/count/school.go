package count

import (
	"strconv"

	"unhurriedbench/core/score"
)

// School is a way of counting.
type School string

// The schools.
const (
	Numbers  School = "numbers"  // 1 & 2 &
	Pulsed   School = "pulsed"   // numbers, with every eighth said on every note
	Values   School = "kodaly"   // syllables by value: ta, ti-ti
	Places   School = "takadimi" // syllables by place in the beat
	Function School = "gordon"   // du, du-de
	OneTa    School = "ta"       // ta on each note, numbers for rests
	Words    School = "words"    // the teacher's own word for each beat
)

// Schools lists them, the default first.
func Schools() []School { return []School{Numbers, Pulsed, Values, Places, Function, OneTa, Words} }

// Title is the school's name on a page.
func (s School) Title() string {
	return map[School]string{
		Numbers: "Numbers", Pulsed: "Pulsed numbers", Values: "Syllables by value", Places: "Takadimi",
		Function: "Du-de", OneTa: "One-breath ta", Words: "Picture words",
	}[s]
}

// Rests is how rests are counted in the number schools.
type Rests string

// The ways.
const (
	InBrackets Rests = "brackets" // [3]
	AsWord     Rests = "word"     // rest
	AtPlace    Rests = "place"    // 3
)

// Options is how a teacher counts. The zero value is numbers, compound meters
// counted in their big beats, rests in brackets.
type Options struct {
	School   School
	SlowBeat bool // compound meters count every eighth: 1 to 6
	Rests    Rests
	Syncopa  bool      // by value: eighth, quarter, eighth is syn-co-pa, not ti-ta-ti
	Words    WordTable // of the Words school; nil is DefaultWords
	Cues     [2]string // the last words of a count-off; empty is "ready", "go"
}

// pace is what gets the beat in a measure, by meter and options.
type pace struct {
	beat     score.Fraction
	compound bool
}

func paceOf(m score.Meter, o Options) pace {
	if m.Compound() && o.SlowBeat {
		return pace{beat: score.Frac(1, int64(m.Unit))}
	}
	return pace{beat: m.Beat(), compound: m.Compound()}
}

// onBeat says whether a beat begins at the place.
func (p pace) onBeat(place score.Fraction) bool { return place.Within(p.beat).IsZero() }

// number is the number of the beat the place falls in, from 1.
func (p pace) number(place score.Fraction) string {
	return strconv.FormatInt(place.Div(p.beat).Floor()+1, 10)
}

// sixths are the syllables at the sixths of a beat, quarters those at its
// quarters; the beat itself is first, "" stands for its number.
type syllables struct {
	sixths   [6]string
	quarters [4]string
}

// Sources: numbers, common practice; takadimi, Hoffman, Pelto and White 1996;
// du-de, Gordon's beat-function syllables, common practice.
var placeSyllables = map[School]syllables{
	Numbers:  {[6]string{"", "ta", "la", "ta", "li", "ta"}, [4]string{"", "e", "&", "a"}},
	Places:   {[6]string{"ta", "va", "ki", "di", "da", "ma"}, [4]string{"ta", "ka", "di", "mi"}},
	Function: {[6]string{"du", "ta", "da", "ta", "di", "ta"}, [4]string{"du", "ta", "de", "ta"}},
}

// at is the syllable at a place of the measure; "" where there is none. The half
// of a compound beat, or of one that a tuplet divides, is a sixth.
func (p pace) at(school School, place score.Fraction, tuplet bool) string {
	table, ok := placeSyllables[school]
	if !ok {
		table = placeSyllables[Numbers]
	}
	part := place.Within(p.beat).Div(p.beat)
	if part.IsZero() {
		if table.quarters[0] == "" {
			return p.number(place)
		}
		return table.quarters[0]
	}
	if n := part.Mul(score.Frac(4, 1)); n.Den() == 1 && !(n.Num() == 2 && (p.compound || tuplet)) {
		return table.quarters[n.Num()]
	}
	if n := part.Mul(score.Frac(6, 1)); n.Den() == 1 {
		return table.sixths[n.Num()]
	}
	return ""
}

// Tap is what the foot does.
type Tap string

// The foot goes down on the beat and up on its second half, in compound meter with its third
// eighth.
const (
	NoTap Tap = ""
	Down  Tap = "down"
	Up    Tap = "up"
)

// tap is the foot's move at a place.
func (p pace) tap(place score.Fraction) Tap {
	up := score.Frac(1, 2)
	if p.compound {
		up = score.Frac(2, 3)
	}
	switch inside := place.Within(p.beat); {
	case inside.IsZero():
		return Down
	case inside == p.beat.Mul(up):
		return Up
	}
	return NoTap
}
