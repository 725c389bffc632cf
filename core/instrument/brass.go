package instrument

import "unhurriedbench/core/score"

// brass lists the brass. Transpositions are facts of the trade; ranges are
// common practice.
func brass() []Instrument {
	named := func(id, name string, sounds score.Interval, clef score.Clef, program, pedal int) Instrument {
		return Instrument{ID: id, Name: name, Family: "brass", Sounds: sounds, Clef: clef, Mechanism: Valves, Valves: 3, Blown: true, Program: program, Pedal: pedal,
			Start: "Buzz the first note on the mouthpiece alone, then glide to the second and back."}
	}
	concert := score.Interval{}
	trombone := named("trombone", "trombone", concert, score.Bass, 58, 34).sits("F3", "F3").clefs(score.Tenor)
	trombone.Mechanism, trombone.Valves = Slide, 0
	attachment := trombone
	attachment.ID, attachment.Name = "trombone-f", "trombone with F attachment"
	return []Instrument{
		named("trumpet", "trumpet", sounding(-1, -2), score.Treble, 57, 48).reach("F#3 C6", "B3 D5", "A3 F5", "F#3 A5").sits("G4", "G4"),
		named("horn-f", "horn in F", sounding(-4, -7), score.Treble, 61, 36).reach("F#3 G5", "Bb3 D5", "G3 E5", "F#3 G5").sits("F4", "G4").clefs(score.Bass),
		named("horn-double", "double horn", sounding(-4, -7), score.Treble, 61, 36).reach("F#3 G5", "Bb3 D5", "G3 E5", "F#3 G5").sits("F4", "G4").clefs(score.Bass),
		trombone.reach("E2 Bb4", "A2 D4", "F2 Eb4", "E2 G4"),
		attachment.reach("C2 Bb4", "A2 D4", "F2 Eb4", "C2 G4"),
		named("euphonium-bc", "euphonium in bass clef", concert, score.Bass, 59, 34).reach("E2 Bb4", "A2 D4", "F2 Eb4", "E2 G4").sits("F3", "F3"),
		named("euphonium-tc", "euphonium in treble clef", sounding(-8, -14), score.Treble, 59, 48).reach("F#3 C6", "B3 E5", "G3 F5", "F#3 A5").sits("G4", "G4"),
		named("tuba-bb", "tuba in B flat", concert, score.Bass, 59, 22).reach("E1 Bb3", "A1 D3", "F1 Eb3", "E1 F3").sits("F2", "F2"),
		named("tuba-eb", "tuba in E flat", concert, score.Bass, 59, 27).reach("A1 Eb4", "A1 Eb3", "A1 G3", "A1 Bb3").sits("F2", "Bb2"),
	}
}
