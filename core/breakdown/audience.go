package breakdown

import (
	"slices"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Audience is whom an exercise is for; the zero value is everybody.
type Audience string

// The audiences; a family is one too, by its name.
const (
	Everybody  Audience = ""
	Pitched    Audience = "pitched"    // who has notes with a pitch
	Percussion Audience = "percussion" // who strikes what has no definite pitch
)

// Audiences lists them, everybody first.
func Audiences() []Audience {
	return []Audience{Everybody, Pitched, Percussion, "woodwind", "brass", "strings"}
}

// ParseAudience reads an audience's text; ok is false for anything else.
func ParseAudience(text string) (Audience, bool) {
	a := Audience(text)
	return a, slices.Contains(Audiences(), a)
}

// Words says whom: "everybody", "percussion only".
func (a Audience) Words() string {
	switch a {
	case Everybody:
		return "everybody"
	case Pitched:
		return "pitched instruments only"
	}
	return string(a) + " only"
}

// Includes says whether an instrument is meant.
func (a Audience) Includes(i instrument.Instrument) bool {
	switch a {
	case Everybody:
		return true
	case Pitched:
		return !i.Unpitched()
	case Percussion:
		return i.Unpitched()
	}
	return i.Family == string(a)
}

// AudienceOf reads from its music whom a part is for: strokes without pitch are for percussion,
// what is marked with bows or strings is for strings, all else for everybody.
func AudienceOf(part score.Part) Audience {
	if part.Unpitched() {
		return Percussion
	}
	for _, at := range part.Notes() {
		e := part.At(at)
		if e.String > 0 || slices.Contains(e.Marks, score.UpBow) || slices.Contains(e.Marks, score.DownBow) {
			return "strings"
		}
	}
	return Everybody
}
