package finger

import (
	"strconv"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// printed finds which way of a note is meant by what is printed over it; fits is
// false where it is none. Valves may be printed together ("12"), a finger without
// its string; the number of a string counts from the highest, as MusicXML has it.
func printed(i instrument.Instrument, c Choice, e score.Event) (text string, fits bool) {
	said := strings.TrimSpace(e.Fingering)
	return mechanismOf(i).printed(i, c, said, e.String)
}

// printedFinger finds the first way with a finger, on a string where one is named.
func printedFinger(i instrument.Instrument, c Choice, said string, number int) (string, bool) {
	if said == "open" {
		said = "0"
	}
	want := -1
	if n := len(i.OpenStrings); number > 0 && number <= n {
		want = n - number
	}
	for _, way := range c.Ways() {
		finger := strconv.Itoa(way.Finger)
		if (said == "" || said == way.Moved.spelled()+finger || said == finger || said == way.Text) &&
			(want < 0 || way.String == want) {
			return way.Text, true
		}
	}
	return said, false
}
