package instrument

import "unhurriedbench/core/score"

// stringed lists the bowed strings, in first position. Ranges are common
// practice.
func stringed() []Instrument {
	named := func(name string, clef score.Clef, program int, open ...string) Instrument {
		i := Instrument{ID: name, Name: name, Family: "strings", Clef: clef, Mechanism: Strings, Program: program}
		for _, note := range open {
			i.OpenStrings = append(i.OpenStrings, score.MustPitch(note))
		}
		return i
	}
	bass := named("bass", score.Bass, 44, "E2", "A2", "D3", "G3")
	bass.Name, bass.Sounds = "double bass", score.Octaves(-1)
	return []Instrument{
		named("violin", score.Treble, 41, "G3", "D4", "A4", "E5").span("G3", "G3", "A4", "B5", "B5"),
		named("viola", score.Alto, 42, "C3", "G3", "D4", "A4").span("C3", "C3", "D4", "E5", "E5"),
		named("cello", score.Bass, 43, "C2", "G2", "D3", "A3").span("C2", "G2", "F3", "D4", "Eb4"),
		bass.span("E2", "E2", "D3", "B3", "D4"),
	}
}
