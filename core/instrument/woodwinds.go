package instrument

import (
	"strings"

	"unhurriedbench/core/score"
)

// woodwinds lists the woodwinds. Transpositions are facts of the trade; ranges
// are common practice: what books of the first, second and third year ask for,
// and the notes that have a fingering in package finger.
func woodwinds() []Instrument {
	wind := Instrument{Family: "woodwind", Clef: score.Treble, Mechanism: Woodwind, Blown: true}
	named := func(id, name string, sounds score.Interval, program int) Instrument {
		i := wind
		i.ID, i.Name, i.Sounds, i.Program = id, name, sounds, program
		i.Thumb = strings.HasSuffix(id, "clarinet") || id == "flute" || id == "piccolo"
		return i
	}
	flute := func(id string, sounds score.Interval, program int, all string, years ...string) Instrument {
		return named(id, id, sounds, program).reach(all, years...).sits("Bb4", "B4").
			starts("Blow the head joint alone, its open end covered and then not, until the tone starts at once.")
	}
	clarinet := func(id, name string, sounds score.Interval) Instrument {
		return named(id, name, sounds, 72).sits("D4", "E4").
			starts("Blow the mouthpiece and barrel alone: one steady, high sound, the chin flat.")
	}
	sax := func(id, name string, sounds score.Interval, program int) Instrument {
		return named(id, name, sounds, program).reach("Bb3 F6", "D4 G5", "C4 C6", "Bb3 F6").sits("A4", "G4").
			starts("Blow the mouthpiece and neck alone: one steady sound, the corners of the mouth in.")
	}
	oboe := named("oboe", "oboe", score.Interval{}, 69).reach("Bb3 C6", "C4 F5", "C4 A5", "Bb3 C6").sits("A4", "B4").
		starts("Crow the soaked reed alone: a C in octaves, with little lip.")
	bassoon := named("bassoon", "bassoon", score.Interval{}, 71).reach("Bb1 D4", "F2 C4", "C2 D4", "Bb1 D4").sits("C3", "C3").clefs(score.Tenor).
		starts("Crow the soaked reed alone: a free, low buzz of several pitches.")
	bassoon.Clef, bassoon.Thumb = score.Bass, true
	return []Instrument{
		flute("piccolo", score.Octaves(1), 73, "D4 A6", "D4 G5", "D4 D6", "D4 G6"),
		flute("flute", score.Interval{}, 74, "C4 A6", "D4 G5", "C4 D6", "C4 G6"),
		oboe,
		bassoon,
		clarinet("eb-clarinet", "E flat clarinet", sounding(2, 3)).reach("E3 E6", "E3 A4", "E3 G5", "E3 D6"),
		clarinet("clarinet", "clarinet", sounding(-1, -2)).reach("E3 E6", "E3 A4", "E3 G5", "E3 D6"),
		clarinet("bass-clarinet", "bass clarinet", sounding(-8, -14)).reach("Eb3 C6", "E3 A4", "E3 E5", "Eb3 G5"),
		sax("soprano-sax", "soprano saxophone", sounding(-1, -2), 65),
		sax("alto-sax", "alto saxophone", sounding(-5, -9), 66),
		sax("tenor-sax", "tenor saxophone", sounding(-8, -14), 67),
		sax("bari-sax", "baritone saxophone", sounding(-12, -21), 68),
	}
}
