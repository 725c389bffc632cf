package instrument

import "unhurriedbench/core/score"

// percussion lists keyed bars and the drums that play strokes. Ranges are
// common practice.
func percussion() []Instrument {
	bars := func(id string, sounds score.Interval, program int) Instrument {
		return Instrument{ID: id, Name: id, Family: "percussion", Sounds: sounds, Clef: score.Treble, Mechanism: Bars, Program: program}
	}
	drum := func(id, name string) Instrument {
		return Instrument{ID: id, Name: name, Family: "percussion", Clef: score.Percussion, Mechanism: Sticks, Program: 1}
	}
	return []Instrument{
		bars("bells", score.Octaves(2), 10).span("G3", "A3", "Bb4", "G5", "C6"),
		bars("xylophone", score.Octaves(1), 14).span("F3", "A3", "Bb4", "G5", "C7"),
		bars("marimba", score.Interval{}, 13).span("A2", "A3", "Bb4", "G5", "C7"),
		drum("snare", "snare drum"),
		drum("bass-drum", "bass drum"),
		drum("small-percussion", "small percussion"),
	}
}
