package instrument

import "unhurriedbench/core/score"

// percussion lists keyed bars, the drums that play strokes, and timpani. Ranges
// are common practice.
func percussion() []Instrument {
	bars := func(id string, sounds score.Interval, program int) Instrument {
		return Instrument{ID: id, Name: id, Family: "percussion", Sounds: sounds, Clef: score.Treble, Mechanism: Bars, Program: program,
			Start: "Play it on the knees first, then find each bar with the mallet held just above it."}.sits("Bb4", "Bb4")
	}
	drum := func(id, name, start string) Instrument {
		return Instrument{ID: id, Name: name, Family: "percussion", Clef: score.Percussion, Mechanism: Sticks, Start: start}
	}
	marimba := bars("marimba", score.Interval{}, 13).clefs(score.Bass)
	timpani := Instrument{
		ID: "timpani", Name: "timpani", Family: "percussion", Clef: score.Bass, Mechanism: Drums, Program: 48,
		Start: "Hum each drum's note, tune up to it from below with the ear close to the head, then strike softly.",
		Drums: kettles(),
	}
	return []Instrument{
		bars("bells", score.Octaves(2), 10).reach("G3 C6", "A3 G5", "G3 A5", "G3 C6"),
		bars("xylophone", score.Octaves(1), 14).reach("F3 C7", "A3 G5", "F3 A5", "F3 C7"),
		marimba.reach("A2 C7", "A3 G5", "F3 A5", "A2 C7"),
		drum("snare", "snare drum", "On the pad first: let every stroke rebound to the height it came from."),
		drum("bass-drum", "bass drum", "In the air first, then on the head off its centre, the other hand ready to damp."),
		drum("small-percussion", "cymbals and small percussion", "In the air first, then softly: know how the sound is stopped before it is started."),
		timpani.reach("D2 A3", "F2 F3", "F2 F3", "D2 A3").sits("C3", "C3"),
	}
}

// kettles are the four usual sizes of timpani with the fifth or so that each is
// tuned within. Source: common practice.
func kettles() []Drum {
	return []Drum{{32, span("D2 A2")}, {29, span("F2 C3")}, {26, span("Bb2 F3")}, {23, span("D3 A3")}}
}
