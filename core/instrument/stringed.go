package instrument

import "unhurriedbench/core/score"

// stringed lists the bowed strings.
func stringed() []Instrument {
	named := func(name string, clef score.Clef, program int, open ...string) Instrument {
		i := Instrument{ID: name, Name: name, Family: "strings", Clef: clef, Mechanism: BowedStrings, Program: program,
			Start: "Pluck the line first, then set the bow on the string and feel its weight before it moves."}
		for _, note := range open {
			i.OpenStrings = append(i.OpenStrings, score.MustPitch(note))
		}
		return i
	}
	cello := named("cello", score.Bass, 43, "C2", "G2", "D3", "A3").clefs(score.Tenor)
	cello.Hand = CelloHand
	bass := named("bass", score.Bass, 44, "E2", "A2", "D3", "G3").clefs(score.Tenor)
	bass.Name, bass.Transposition, bass.Hand, bass.Models = "double bass", score.Octaves(-1), BassHand, bassModels
	violin := named("violin", score.Treble, 41, "G3", "D4", "A4", "E5")
	viola := named("viola", score.Alto, 42, "C3", "G3", "D4", "A4").clefs(score.Treble)
	violin.Hand, violin.Models = UpperHand, openModels
	viola.Hand, viola.Models = UpperHand, openModels
	return []Instrument{
		violin.with(facts{
			ranges: "G3 D6  G3 B5  G3 B5  G3 D6  A4 D4",
			voice:  Voice{"violin", 0},
			called: []string{"violin"},
			short:  []string{"vln", "vn", "vl", "violine", "geige", "violon", "violín", "violino"},
		}),
		viola.with(facts{
			ranges: "C3 G5  C3 E5  C3 E5  C3 G5  A4 D4",
			voice:  Voice{"violin", 7},
			called: []string{"viola"},
			short:  []string{"vla", "va", "bratsche", "br", "alto"},
		}),
		cello.with(facts{
			ranges: "C2 G4  C2 D4  C2 E4  C2 G4  D3",
			voice:  Voice{"cello", 0},
			called: []string{"cello"},
			short:  []string{"vc", "vcl", "vlc", "violoncello", "violoncelle", "violonchelo", "chelo"},
		}),
		bass.with(facts{
			ranges: "E2 G4  E2 D4  E2 D4  E2 G4  D3",
			voice:  Voice{"contrabass", 0},
			called: []string{"double bass", "string bass", "bass"},
			short:  []string{"db", "kb", "cb", "str bass", "st bass", "string bass", "kontrabass", "contrabass", "contrebasse", "contrabajo", "contrabbasso", "bass"},
		}),
	}
}
