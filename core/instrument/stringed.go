package instrument

import "unhurriedbench/core/score"

// stringed lists the bowed strings. Ranges are common practice: first position in
// the first year, third position, and the cello's fourth, in the third.
func stringed() []Instrument {
	named := func(name string, clef score.Clef, program int, open ...string) Instrument {
		i := Instrument{ID: name, Name: name, Family: "strings", Clef: clef, Mechanism: Strings, Program: program,
			Start: "Pluck the line first, then set the bow on the string and feel its weight before it moves."}
		for _, note := range open {
			i.OpenStrings = append(i.OpenStrings, score.MustPitch(note))
		}
		return i
	}
	bass := named("bass", score.Bass, 44, "E2", "A2", "D3", "G3").clefs(score.Tenor)
	bass.Name, bass.Sounds = "double bass", score.Octaves(-1)
	return []Instrument{
		named("violin", score.Treble, 41, "G3", "D4", "A4", "E5").reach("G3 D6", "G3 B5", "G3 B5", "G3 D6").sits("A4", "D4"),
		named("viola", score.Alto, 42, "C3", "G3", "D4", "A4").reach("C3 G5", "C3 E5", "C3 E5", "C3 G5").sits("D4", "D4").clefs(score.Treble),
		named("cello", score.Bass, 43, "C2", "G2", "D3", "A3").reach("C2 G4", "G2 D4", "C2 E4", "C2 G4").sits("F3", "D3").clefs(score.Tenor),
		bass.reach("E2 D4", "E2 B3", "E2 C4", "E2 D4").sits("D3", "D3"),
	}
}
