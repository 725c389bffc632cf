package instrument

import "unhurriedbench/core/score"

// woodwinds lists the woodwinds. Transpositions are facts of the trade.
func woodwinds() []Instrument {
	wind := Instrument{Family: "woodwind", Clef: score.Treble, Mechanism: Woodwind, Blown: true}
	named := func(id, name string, sounds score.Interval, program int) Instrument {
		i := wind
		i.ID, i.Name, i.Transposition, i.Program = id, name, sounds, program
		return i
	}
	flute := func(id string, sounds score.Interval, program int) Instrument {
		i := named(id, id, sounds, program)
		i.Thumb, i.Keys = true, FluteKeys
		return i.starts("Blow the head joint alone, its open end covered and then not, until the tone starts at once.")
	}
	clarinet := func(id, name string, sounds score.Interval) Instrument {
		i := named(id, name, sounds, 72)
		i.Thumb, i.HasBreak, i.SwapsLittle, i.Keys, i.Models = true, true, true, ClarinetKeys, clarinetModels
		return i.starts("Blow the mouthpiece and barrel alone: one steady, high sound, the chin flat.")
	}
	sax := func(id, name string, sounds score.Interval, program int) Instrument {
		i := named(id, name, sounds, program)
		i.Keys = SaxophoneKeys
		return i.starts("Blow the mouthpiece and neck alone: one steady sound, the corners of the mouth in.")
	}
	oboe := named("oboe", "oboe", score.Interval{}, 69).
		starts("Crow the soaked reed alone: a C in octaves, with little lip.")
	oboe.Keys, oboe.Forks, oboe.Models = OboeKeys, true, oboeModels
	bassoon := named("bassoon", "bassoon", score.Interval{}, 71).clefs(score.Tenor).
		starts("Crow the soaked reed alone: a free, low buzz of several pitches.")
	bassoon.Keys, bassoon.Clef, bassoon.Thumb = BassoonKeys, score.Bass, true
	return []Instrument{
		flute("piccolo", score.Octaves(1), 73),
		flute("flute", score.Interval{}, 74),
		oboe,
		bassoon,
		clarinet("eb-clarinet", "E flat clarinet", sounding(2, 3)),
		clarinet("clarinet", "clarinet", sounding(-1, -2)),
		clarinet("bass-clarinet", "bass clarinet", sounding(-8, -14)),
		sax("soprano-sax", "soprano saxophone", sounding(-1, -2), 65),
		sax("alto-sax", "alto saxophone", sounding(-5, -9), 66),
		sax("tenor-sax", "tenor saxophone", sounding(-8, -14), 67),
		sax("bari-sax", "baritone saxophone", sounding(-12, -21), 68),
	}
}
