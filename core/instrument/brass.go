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
		trumpet,
		horn,
		double,
		trombone,
		attachment,
		low("euphonium-bc", "euphonium in bass clef", concert, score.Bass, 34),
		low("euphonium-tc", "euphonium in treble clef", sounding(-8, -14), score.Treble, 48),
		low("tuba-bb", "tuba in B flat", concert, score.Bass, 22),
		low("tuba-eb", "tuba in E flat", concert, score.Bass, 27),
	}
}
