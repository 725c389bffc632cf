package instrument

import (
	"strings"

	"unhurriedbench/core/score"
)

// woodwinds lists the woodwinds. Transpositions are facts of the trade; ranges
// are common practice, the comfortable ones what a first-year book asks for.
func woodwinds() []Instrument {
	wind := Instrument{Family: "woodwind", Clef: score.Treble, Mechanism: Woodwind, Blown: true}
	named := func(id, name string, sounds score.Interval, program int) Instrument {
		i := wind
		i.ID, i.Name, i.Sounds, i.Program = id, name, sounds, program
		i.Thumb = strings.HasSuffix(id, "clarinet") || id == "flute" || id == "piccolo"
		return i
	}
	bassoon := named("bassoon", "bassoon", score.Interval{}, 71)
	bassoon.Clef = score.Bass
	return []Instrument{
		named("piccolo", "piccolo", score.Octaves(1), 73).span("D4", "D4", "Bb4", "G5", "A6"),
		named("flute", "flute", score.Interval{}, 74).span("C4", "D4", "Bb4", "G5", "A6"),
		named("oboe", "oboe", score.Interval{}, 69).span("Bb3", "C4", "A4", "F5", "C6"),
		bassoon.span("Bb1", "E2", "C3", "D4", "Bb4"),
		named("eb-clarinet", "E flat clarinet", sounding(2, 3), 72).span("E3", "E3", "D4", "A4", "C6"),
		named("clarinet", "clarinet", sounding(-1, -2), 72).span("E3", "E3", "D4", "A4", "C6"),
		named("bass-clarinet", "bass clarinet", sounding(-8, -14), 72).span("Eb3", "E3", "D4", "A4", "C6"),
		named("soprano-sax", "soprano saxophone", sounding(-1, -2), 65).span("Bb3", "D4", "A4", "G5", "F6"),
		named("alto-sax", "alto saxophone", sounding(-5, -9), 66).span("Bb3", "D4", "A4", "G5", "F6"),
		named("tenor-sax", "tenor saxophone", sounding(-8, -14), 67).span("Bb3", "D4", "A4", "G5", "F6"),
		named("bari-sax", "baritone saxophone", sounding(-12, -21), 68).span("Bb3", "D4", "A4", "G5", "F6"),
	}
}
