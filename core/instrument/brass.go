package instrument

import "unhurriedbench/core/score"

// brass lists the brass. Transpositions are facts of the trade.
func brass() []Instrument {
	named := func(id, name string, sounds score.Interval, clef score.Clef, program, pedal int) Instrument {
		return Instrument{
			ID:            id,
			Name:          name,
			Family:        "brass",
			Transposition: sounds,
			Clef:          clef,
			Mechanism:     Valves,
			Valves:        3,
			Blown:         true,
			Program:       program,
			Pedal:         pedal,
			Start:         "Buzz the first note on the mouthpiece alone, then glide to the second and back.",
		}
	}
	concert := score.Interval{}
	horn := named("horn-f", "horn in F", sounding(-4, -7), score.Treble, 61, 36).clefs(score.Bass)
	horn.HandInBell = true
	horn.Horn = true
	double := horn
	double.ID, double.Name, double.ThumbSide = "horn-double", "double horn", true
	trombone := named("trombone", "trombone", concert, score.Bass, 58, 34).clefs(score.Tenor)
	trombone.Mechanism, trombone.Valves = Slide, 0
	attachment := trombone
	attachment.ID, attachment.Name, attachment.Attachment = "trombone-f", "trombone with F attachment", true
	trumpet := named("trumpet", "trumpet", sounding(-1, -2), score.Treble, 57, 48)
	trumpet.ThirdSlide = true
	low := func(id, name string, sounds score.Interval, clef score.Clef, pedal int) Instrument {
		i := named(id, name, sounds, clef, 59, pedal)
		i.Models = valveModels
		return i
	}
	return []Instrument{
		trumpet.with(facts{
			ranges: "F#3 C6  B3 D5  G3 F5  F#3 A5  E4",
			voice:  Voice{"trumpet", 0},
			called: []string{"trumpet", "cornet"},
			short:  []string{"tpt", "trp", "trpt", "tp", "trompete", "trompette", "trompeta", "tromba", "cnt"},
		}),
		horn.with(facts{
			ranges: "C3 A5  Bb3 D5  G3 F5  F3 A5  A4",
			voice:  Voice{"french-horn", 0},
			called: []string{"horn"},
			short:  []string{"hn", "hrn", "f horn", "fr horn", "french horn", "f hn", "waldhorn", "cor", "trompa", "corno"},
		}),
		double.with(facts{
			ranges: "C3 A5  Bb3 D5  G3 F5  F3 A5  A4",
			voice:  Voice{"french-horn", 0},
			called: []string{"double horn"},
		}),
		trombone.with(facts{
			ranges: "E2 Bb4  A2 D4  F2 Eb4  E2 G4  D3",
			breath: [3]float64{7.5, 10, 12},
			voice:  Voice{"trombone", 0},
			called: []string{"trombone"},
			short:  []string{"tbn", "trb", "trom", "posaune", "pos", "trombón", "trombon"},
		}),
		attachment.with(facts{
			ranges: "C2 Bb4  A2 D4  F2 Eb4  C2 G4  D3",
			breath: [3]float64{7.5, 10, 12},
			voice:  Voice{"trombone", 0},
		}),
		low("euphonium-bc", "euphonium in bass clef", concert, score.Bass, 34).with(facts{
			ranges: "E2 Bb4  A2 D4  F2 Eb4  E2 G4  D3",
			breath: [3]float64{7.5, 10, 12},
			voice:  Voice{"tuba", -7},
			called: []string{"euphonium", "baritone", "baritone horn"},
			short:  []string{"euph", "euph bc", "bar bc", "baritone bc", "eufonio", "bombardino", "baritone", "bar", "baryton"},
		}),
		low("euphonium-tc", "euphonium in treble clef", sounding(-8, -14), score.Treble, 48).with(facts{
			ranges: "F#3 C6  B3 E5  G3 F5  F#3 A5  E4",
			breath: [3]float64{7.5, 10, 12},
			voice:  Voice{"tuba", -7},
			called: []string{"euphonium t", "baritone t"},
			short:  []string{"euph tc", "bar tc", "baritone tc", "baritone", "bar", "baryton"},
		}),
		low("tuba-bb", "tuba in B flat", concert, score.Bass, 22).with(facts{
			ranges: "E1 Bb3  A1 D3  F1 Eb3  E1 F3  D2",
			breath: [3]float64{6.5, 8.5, 10},
			voice:  Voice{"tuba", 0},
			called: []string{"tuba"},
			short:  []string{"tba", "sousa", "sousaphone", "bb tuba", "bass"},
		}),
		low("tuba-eb", "tuba in E flat", concert, score.Bass, 27).with(facts{
			ranges: "A1 Eb4  A1 Eb3  A1 G3  A1 Bb3  D2",
			breath: [3]float64{6.5, 8.5, 10.5},
			voice:  Voice{"tuba", 0},
			called: []string{"tuba in e", "eb tuba", "e♭ tuba"},
		}),
	}
}
