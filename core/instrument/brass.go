package instrument

import "unhurriedbench/core/score"

// brass lists the brass. Transpositions are facts of the trade; ranges are
// common practice.
func brass() []Instrument {
	named := func(id, name string, sounds score.Interval, clef score.Clef, program, pedal int) Instrument {
		return Instrument{ID: id, Name: name, Family: "brass", Sounds: sounds, Clef: clef, Mechanism: Valves, Blown: true, Program: program, Pedal: pedal}
	}
	concert := score.Interval{}
	trombone := named("trombone", "trombone", concert, score.Bass, 58, 34)
	trombone.Mechanism = Slide
	attachment := trombone
	attachment.ID, attachment.Name = "trombone-f", "trombone with F attachment"
	return []Instrument{
		named("trumpet", "trumpet", sounding(-1, -2), score.Treble, 57, 48).span("F#3", "B3", "G4", "D5", "C6"),
		named("horn-f", "horn in F", sounding(-4, -7), score.Treble, 61, 36).span("F#3", "Bb3", "F4", "D5", "G5"),
		named("horn-double", "double horn", sounding(-4, -7), score.Treble, 61, 36).span("F#3", "Bb3", "F4", "D5", "F5"),
		trombone.span("E2", "A2", "F3", "D4", "Bb4"),
		attachment.span("C2", "A2", "F3", "D4", "Bb4"),
		named("euphonium-bc", "euphonium in bass clef", concert, score.Bass, 59, 34).span("E2", "A2", "F3", "D4", "Bb4"),
		named("euphonium-tc", "euphonium in treble clef", sounding(-8, -14), score.Treble, 59, 48).span("F#3", "B3", "G4", "E5", "C6"),
		named("tuba-bb", "tuba in B flat", concert, score.Bass, 59, 22).span("E1", "A1", "F2", "D3", "Bb3"),
		named("tuba-eb", "tuba in E flat", concert, score.Bass, 59, 27).span("A1", "A1", "F2", "Eb3", "Eb4"),
	}
}
