package teach

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// InOctaves says in how many octaves something is fingered alike.
func InOctaves(n int) string {
	if n == 2 {
		return "in both octaves"
	}
	return "in every octave"
}

// WithOctave is a pitch with the number of its octave: "F♯4".
func WithOctave(p score.Pitch) string { return name.Short(p, false) + strconv.Itoa(p.Octave) }

// Option is an item of a list: what is kept of it and what is read.
type Option struct{ Value, Label string }

// ShortPitch is "E♭".
func ShortPitch(p score.Pitch) string { return name.Short(p, false) }

// InWords writes a small number out.
func InWords(n int) string {
	words := [...]string{"no", "one", "two", "three", "four", "five", "six", "seven", "eight"}
	if n < len(words) {
		return words[n]
	}
	return strconv.Itoa(n)
}

// PercentText is a share from 0 to 1 in percent: "63".
func PercentText(share float64) string { return strconv.Itoa(int(math.Round(100 * share))) }

// CapitalNumber is a number of measures at the beginning of a sentence: "Four measures".
func CapitalNumber(n int) string {
	words := InWords(n) + " measures"
	if n == 1 {
		words = "one measure"
	}
	return strings.ToUpper(words[:1]) + words[1:]
}

// MostFigures is how many figures the card names.
const MostFigures = 4

// RoomWords says which instruments of a room have an exercise hardest and easiest.
func RoomWords(present []instrument.Instrument, hard map[string]breakdown.DifficultyParts) string {
	if len(present) < 2 {
		return ""
	}
	total := func(i instrument.Instrument) float64 { return hard[i.ID].Total() }
	hardest := slices.MaxFunc(present, func(a, b instrument.Instrument) int { return cmp.Compare(total(a), total(b)) })
	easiest := slices.MinFunc(present, func(a, b instrument.Instrument) int { return cmp.Compare(total(a), total(b)) })
	if total(hardest)-total(easiest) < 0.05 {
		return "It is as hard for everybody in the room."
	}
	return fmt.Sprintf("Hardest for the %s, easiest for the %s.", hardest.Name, easiest.Name)
}

// Capital begins words with a capital letter.
func Capital(words string) string { return strings.ToUpper(words[:1]) + words[1:] }

// ChunkWord is a chunk's letter, or "whole".
func ChunkWord(label string) string {
	if label == WholeLabel {
		return "whole"
	}
	return label
}

// Plural is a number with its word: "1 line was", "3 lines were".
func Plural(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

// OneLine is a text with a single space wherever there were spaces or new lines.
func OneLine(typed string) string { return strings.Join(strings.Fields(typed), " ") }

// UpTo is the list 1, 2, … n.
func UpTo(n int) []int {
	list := make([]int, n)
	for k := range list {
		list[k] = k + 1
	}
	return list
}

// Either is the first word where something is on, else the second.
func Either(on bool, yes, no string) string {
	if on {
		return yes
	}
	return no
}

// InstrumentTitle is an instrument's title, by its id.
func InstrumentTitle(id string) string {
	i, _ := instrument.ByID(id)
	return i.Title()
}

// InstrumentName is an instrument's name, by its id.
func InstrumentName(id string) string {
	i, _ := instrument.ByID(id)
	return i.Name
}
