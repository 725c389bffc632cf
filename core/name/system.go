package name

import "unhurriedbench/core/score"

// System is a way of naming notes.
type System string

// The systems.
const (
	Letters System = "letters" // E flat
	FixedDo System = "fixed-do"
	German  System = "german"  // B is the flat, H the natural
	Degrees System = "degrees" // 1 to 7 of the key
)

// Systems lists them, the default first.
func Systems() []System { return []System{Letters, FixedDo, German, Degrees} }

// Title is the system's name on a page.
func (s System) Title() string {
	return map[System]string{Letters: "Letters", FixedDo: "Fixed do", German: "German", Degrees: "Scale degrees"}[s]
}

// Naturals is when "natural" is said aloud.
type Naturals string

// The settings.
const (
	WhenNews      Naturals = "news" // where it is news, the default
	AlwaysNatural Naturals = "always"
	NeverNatural  Naturals = "never"
)

// Options is how a teacher names notes. The zero value is letters, with
// "natural" said where it is news.
type Options struct {
	System   System
	Naturals Naturals
}

// Say names a note in the teacher's system. news says whether the natural is
// news here; key is the signature in force, for scale degrees.
func (o Options) Say(p score.Pitch, news bool, key score.Key) string {
	switch o.System {
	case FixedDo:
		return solfege[p.Step] + o.accidental(p, news)
	case German:
		return german(p)
	case Degrees:
		return degree(p, key)
	}
	return p.Step.String() + o.accidental(p, news)
}

// Show is Say in the width of a notehead.
func (o Options) Show(p score.Pitch, news bool, key score.Key) string {
	switch o.System {
	case FixedDo:
		return solfege[p.Step] + sign(p.Alter, o.natural(p, news))
	case German:
		return german(p)
	case Degrees:
		return degree(p, key)
	}
	return Short(p, o.natural(p, news))
}

func (o Options) natural(p score.Pitch, news bool) bool {
	switch {
	case p.Alter != 0, o.Naturals == NeverNatural:
		return false
	case o.Naturals == AlwaysNatural:
		return true
	}
	return news
}

func (o Options) accidental(p score.Pitch, news bool) string {
	if o.natural(p, news) {
		return " natural"
	}
	return score.AlterWord(p.Alter)
}

var solfege = [7]string{"do", "re", "mi", "fa", "sol", "la", "si"}

// german names: -is for a sharp, -es for a flat, with As and Es shortened, H
// for B natural and B for B flat. Source: common practice.
func german(p score.Pitch) string {
	letter := p.Step.String()
	if p.Step == score.B {
		letter = "H"
	}
	switch p.Alter {
	case 1:
		return letter + "is"
	case 2:
		return letter + "isis"
	case -1:
		switch p.Step {
		case score.B:
			return "B"
		case score.A, score.E:
			return letter + "s"
		}
		return letter + "es"
	case -2:
		switch p.Step {
		case score.B:
			return "Heses"
		case score.A:
			return "Asas"
		case score.E:
			return "Eses"
		}
		return letter + "eses"
	}
	return letter
}

// degree counts from the key note, with a sign where the note is not in the key.
func degree(p score.Pitch, key score.Key) string {
	tonic, _ := key.Tonic()
	n := (int(p.Step) - int(tonic) + 7) % 7
	return sign(p.Alter-key.Alter(p.Step), false) + string(rune('1'+n))
}

// sign is the accidental in characters that common fonts have: two flats for a
// double flat, and the x that a double sharp looks like.
func sign(alter int, natural bool) string {
	if alter == 0 && natural {
		return "♮"
	}
	return [5]string{"♭♭", "♭", "", "♯", "x"}[min(max(alter, -2), 2)+2]
}
