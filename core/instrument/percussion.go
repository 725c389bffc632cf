package instrument

import "unhurriedbench/core/score"

// percussion lists keyed bars, the drums that play strokes, and timpani.
func percussion() []Instrument {
	bars := func(id string, sounds score.Interval, program int) Instrument {
		return Instrument{ID: id, Name: id, Family: "percussion", Transposition: sounds, Clef: score.Treble,
			Mechanism: Bars, Program: program,
			Start: "Play it on the knees first, then find each bar with the mallet held just above it."}
	}
	drum := func(id, name, start string) Instrument {
		return Instrument{ID: id, Name: name, Family: "percussion", Clef: score.Percussion, Mechanism: Sticks, Start: start}
	}
	snare := drum("snare", "snare drum", "On the pad first: let every stroke rebound to the height it came from.")
	snare.TwoHands, snare.Models = true, stickingModels
	marimba := bars("marimba", score.Interval{}, 13).clefs(score.Bass)
	timpani := Instrument{
		ID: "timpani", Name: "timpani", Family: "percussion", Clef: score.Bass, Mechanism: Drums, Program: 48,
		Start: "Hum each drum's note, tune up to it from below with the ear close to the head, then strike softly.",
		Drums: kettles(), Models: drumModels,
	}
	return []Instrument{
		bars("bells", score.Octaves(2), 10).with(facts{
			ranges: "G3 C6  A3 Bb5  G3 C6  G3 C6  D5",
			voice:  Voice{"bells", 0},
			called: []string{"bells", "glockenspiel"},
			short:  []string{"glock", "glsp", "orchestra bells", "jeu de timbres", "campanelli", "mallets", "mallet percussion", "perc", "percussion", "schlagzeug", "percussions", "percusión", "percusion", "percussione"},
		}),
		bars("xylophone", score.Octaves(1), 14).with(facts{
			ranges: "F3 C7  A3 Bb5  F3 C6  F3 C7  D5",
			voice:  Voice{"xylophone", 0},
			called: []string{"xylophone"},
			short:  []string{"xyl", "xylo", "xylophon", "xilófono", "xilofono", "mallets", "mallet percussion"},
		}),
		marimba.with(facts{
			ranges: "A2 C7  A3 Bb5  F3 C6  A2 C7  D5",
			voice:  Voice{"xylophone", 12},
			called: []string{"marimba"},
			short:  []string{"mar", "mallets", "mallet percussion"},
		}),
		snare.with(facts{
			voice:  Voice{"snare", 0},
			called: []string{"snare"},
			short:  []string{"sd", "s dr", "snare dr", "kleine trommel", "kl tr", "caisse claire", "caja", "tamburo", "rullante", "perc", "percussion", "drums", "drum", "schlagzeug", "percussions", "percusión", "percusion", "percussione", "batterie", "batería"},
		}),
		drum("bass-drum", "bass drum", "In the air first, then on the head off its centre, the other hand ready to damp.").with(facts{
			voice:  Voice{"bass-drum", 0},
			called: []string{"bass drum"},
			short:  []string{"bd", "b dr", "große trommel", "grosse trommel", "gr tr", "grosse caisse", "bombo", "grancassa", "perc", "percussion", "drums", "drum", "schlagzeug", "percussions", "percusión", "percusion", "percussione"},
		}),
		drum("small-percussion", "cymbals and small percussion", "In the air first, then softly: know how the sound is stopped before it is started.").with(facts{
			voice:  Voice{"small-percussion", 0},
			called: []string{"cymbal", "percussion"},
			short:  []string{"perc", "percussion", "schlagzeug", "percussions", "percusión", "percusion", "percussione", "cym", "cymbals", "becken", "cymbales", "platillos", "piatti"},
		}),
		timpani.with(facts{
			ranges: "D2 A3  F2 F3  F2 F3  D2 A3  C3",
			voice:  Voice{"timpani", 0},
			called: []string{"timpani"},
			short:  []string{"timp", "pauken", "pk", "timbales", "kettledrums"},
		}),
	}
}

// kettles are the four usual sizes of timpani with the fifth or so that each is
// tuned within. Source: common practice.
func kettles() []Drum {
	return []Drum{{32, rangeOf("D2 A2")}, {29, rangeOf("F2 C3")}, {26, rangeOf("Bb2 F3")}, {23, rangeOf("D3 A3")}}
}
