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
		flute("piccolo", score.Octaves(1), 73).with(facts{
			ranges: "D4 A6  D4 Bb5  D4 D6  D4 G6  D5",
			breath: [3]float64{8, 11, 13},
			voice:  Voice{"flute", -12},
			called: []string{"piccolo"},
			short:  []string{"picc", "pic", "piccoloflöte", "pikkolo", "petite flûte", "flautín", "flautin", "ottavino"},
		}),
		flute("flute", score.Interval{}, 74).with(facts{
			ranges: "C4 C7  D4 Bb5  C4 D6  C4 G6  D5",
			breath: [3]float64{7.5, 10, 12},
			voice:  Voice{"flute", 0},
			called: []string{"flute"},
			short:  []string{"fl", "flöte", "querflöte", "flûte", "flûte traversière", "flauta", "flauta travesera", "flauto"},
		}),
		oboe.with(facts{
			ranges: "Bb3 D6  C4 G5  C4 Bb5  Bb3 D6  D5",
			breath: [3]float64{10, 13, 17},
			voice:  Voice{"bassoon", -12},
			called: []string{"oboe"},
			short:  []string{"ob", "hautbois", "htb"},
		}),
		bassoon.with(facts{
			ranges: "Bb1 D4  F2 C4  C2 D4  Bb1 D4  D3",
			voice:  Voice{"bassoon", 0},
			called: []string{"bassoon"},
			short:  []string{"bsn", "bn", "fagott", "fg", "basson", "fagot", "fagotto"},
		}),
		clarinet("eb-clarinet", "E flat clarinet", sounding(2, 3)).with(facts{
			ranges: "E3 E6  E3 A4  E3 G5  E3 D6  B3",
			voice:  Voice{"clarinet", -5},
			called: []string{"eb clarinet", "e♭ clarinet", "clarinet in eb"},
			short:  []string{"eb cl", "e♭ cl", "es-klarinette", "petite clarinette", "requinto"},
		}),
		clarinet("clarinet", "clarinet", sounding(-1, -2)).with(facts{
			ranges: "E3 E6  E3 A4  E3 G5  E3 D6  E4",
			voice:  Voice{"clarinet", 0},
			called: []string{"clarinet"},
			short:  []string{"cl", "clar", "clt", "bb cl", "bb clarinet", "klarinette", "klar", "kl", "clarinette", "clarinete", "clarinetto"},
		}),
		clarinet("bass-clarinet", "bass clarinet", sounding(-8, -14)).with(facts{
			ranges: "Eb3 C6  E3 A4  E3 E5  Eb3 G5  E4",
			breath: [3]float64{7.5, 10, 12},
			voice:  Voice{"clarinet", 12},
			called: []string{"bass clarinet"},
			short:  []string{"b cl", "bcl", "bs cl", "bass cl", "bass clar", "bassklarinette", "bkl", "clarinette basse", "clarinete bajo", "clarinetto basso", "bass"},
		}),
		sax("soprano-sax", "soprano saxophone", sounding(-1, -2), 65).with(facts{
			ranges: "Bb3 F6  C4 G5  C4 C6  Bb3 F6  E4",
			voice:  Voice{"saxophone", -7},
			called: []string{"soprano sax"},
			short:  []string{"s sax", "sop sax", "sopransaxophon", "saxophone soprano", "saxofón soprano", "sax soprano"},
		}),
		sax("alto-sax", "alto saxophone", sounding(-5, -9), 66).with(facts{
			ranges: "Bb3 F#6  D4 G5  C4 C6  Bb3 F6  B4",
			voice:  Voice{"saxophone", 0},
			called: []string{"alto sax"},
			short:  []string{"a sax", "asax", "alto", "alto sax", "alto saxophone", "altsaxophon", "altsax", "saxophone alto", "sax alto", "saxofón alto", "saxofon alto", "sassofono contralto"},
		}),
		sax("tenor-sax", "tenor saxophone", sounding(-8, -14), 67).with(facts{
			ranges: "Bb3 F6  C4 G5  C4 C6  Bb3 F6  E4",
			voice:  Voice{"saxophone", 5},
			called: []string{"tenor sax"},
			short:  []string{"t sax", "tsax", "tenor", "tenor sax", "tenorsaxophon", "tenorsax", "saxophone ténor", "sax tenor", "saxofón tenor", "saxofon tenor", "sassofono tenore"},
		}),
		sax("bari-sax", "baritone saxophone", sounding(-12, -21), 68).with(facts{
			ranges: "Bb3 F6  D4 G5  C4 C6  Bb3 F6  B4",
			breath: [3]float64{7.5, 10, 12},
			voice:  Voice{"saxophone", 12},
			called: []string{"bari sax", "baritone sax"},
			short:  []string{"b sax", "bsax", "bari", "bari sax", "baritonsaxophon", "baritonsax", "saxophone baryton", "saxofón barítono", "saxofon baritono", "sassofono baritono"},
		}),
	}
}
