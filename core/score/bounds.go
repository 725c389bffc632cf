package score

import "fmt"

// What a reader takes in. Real scores stay far below: an exercise has 2 to 40 measures,
// a long printed part some hundreds, a full score some forty parts. The bounds keep a
// broken or malformed file from filling the memory, and lengths from growing finer than
// fractions of whole numbers can be added.
const (
	MostMeasures  = 2000   // of a part
	MostParts     = 100    // of a score
	MostInMeasure = 512    // notes and rests of a measure
	MostEvents    = 100000 // notes and rests of a score
	MostAtOnce    = 24     // notes struck together
	MostInTuplet  = 16     // notes of a tuplet, or of the time it takes
	MostTimes     = 9      // how often a strain is played
	MostRemarks   = 200    // what a reading tells of a score
	MostLetters   = 200    // of a title, a name, or words in the music
)

// Cut keeps a text from a file to MostLetters.
func Cut(text string) string { return first(MostLetters, text) }

// Clip keeps a word from a file short enough for a message.
func Clip(word string) string { return first(40, word) }

func first(n int, text string) string {
	if letters := []rune(text); len(letters) > n {
		return string(letters[:n]) + "…"
	}
	return text
}

// longestEvent bounds one note or rest before it is written as several: four breves.
var longestEvent = Frac(8, 1)

// TooLong says whether a length is more than one note or rest can last.
func TooLong(length Fraction) bool { return longestEvent.Less(length) }

// TooManyMeasures is the problem of a part longer than MostMeasures.
func TooManyMeasures(n int) Problem {
	return General(fmt.Sprintf("It has %d measures or more.", n),
		fmt.Sprintf("Bring in at most %d at a time.", MostMeasures))
}

// TooManyParts is the problem of a score with more than MostParts.
func TooManyParts() Problem {
	return General(fmt.Sprintf("It has more than %d parts.", MostParts), "Bring in the parts your class plays.")
}

// TooManyEvents is the problem of a score with more than MostEvents.
func TooManyEvents() Problem {
	return General(fmt.Sprintf("It holds more than %d notes and rests.", MostEvents), "Bring in one exercise at a time.")
}

// TooFull is the problem of a measure with more than MostInMeasure; a measure of -1 is
// not named.
func TooFull(measure, line int) Problem {
	return Problem{
		Measure: measure, Line: line,
		What: fmt.Sprintf("a measure holds more than %d notes and rests.", MostInMeasure), Do: "Is a bar line missing?",
	}
}

// InTuplet says whether a tuplet has as many notes as can be read.
func (r Ratio) InTuplet() bool {
	return r.Actual >= 1 && r.Actual <= MostInTuplet && r.Normal >= 1 && r.Normal <= MostInTuplet
}
