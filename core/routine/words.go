package routine

import (
	"cmp"

	"unhurriedbench/core/count"
	"unhurriedbench/core/instrument"
)

// text is what is said of a stage for an instrument, and which helps it has beside it.
type text struct {
	title   func(instrument.Instrument) string
	how     func(instrument.Instrument, count.Options) string
	oneNote bool // the rhythm alone is worked at, which sits well on one note
	hands   bool // hands or fingers move: they are shown large, and the hard changes
}

// texts has a row for each stage we have words for. They are common practice, in our own
// words.
var texts = map[Stage]text{
	Count: {
		always("Count it aloud"),
		func(_ instrument.Instrument, o count.Options) string {
			return "Foot down on every beat. " + countWords(o)
		},
		true, false,
	},
	Name: {
		strokesOr("Name each stroke", "Name it in time"),
		however(strokesOr("Say “right” or “left” for each stroke, in time, hands still.",
			"Say each letter where its note starts, foot tapping; point, or finger it on your lap, as you like. Long notes keep their beats. No sound yet.")),
		false, false,
	},
	Finger: {
		strokesOr("Stick it in the air", "Finger it silently"),
		however(func(i instrument.Instrument) string { return fingerWords[i.Mechanism] + inTheRests }),
		false, true,
	},
	Play: {
		always("Play it"),
		however(func(i instrument.Instrument) string { return i.Start + " " + playWords(i) }),
		false, true,
	},
	"air": {
		always("Air, no sound"),
		however(func(i instrument.Instrument) string {
			return Air.Words(i) + " Foot down on every beat; long notes keep their air to the end."
		}),
		true, false,
	},
	"mouthpiece": {
		func(i instrument.Instrument) string { return breathOr(i, "The mouthpiece first", "The rhythm first") },
		however(func(i instrument.Instrument) string {
			return cmp.Or(Mouthpiece.Words(i), Pluck.Words(i), Pad.Words(i)) +
				" One pitch that sits well; start each note cleanly, hold it its full length."
		}),
		true, false,
	},
	"echo": {
		always("Hear it, answer it"),
		however(func(i instrument.Instrument) string {
			return "Hear four counts, answer four counts, by ear: the page stays turned over." +
				breathOr(i, " Breathe in the last beat of the listening.", " Be ready in the last beat of the listening.")
		}),
		false, true,
	},
	"pluck": {
		always("Pluck it"),
		however(func(instrument.Instrument) string {
			return "Say the names and pluck in time. Each finger is down before its string is plucked." + inTheRests
		}),
		false, true,
	},
	"hands": {
		always("In the hands"),
		however(strokesOr("Tap the sticking on your lap with bare hands, saying right and left.",
			"Tap it on your lap with the hand that will play each note, saying its name.")),
		false, true,
	},
	"pad": {
		always("On the pad"),
		however(strokesOr("On the pad: each stroke rebounds to the height it came from. Say the count.",
			"On the knees or the pad: the hands take turns as they will on the instrument. Say the names.")),
		false, true,
	},
	"look": {
		always("Look it over"),
		however(func(instrument.Instrument) string {
			return "Eyes move along in time, foot tapping, without a word. Find what is new, what comes again, and where it is highest and lowest."
		}),
		false, false,
	},
	"listen": {
		always("Listen and finger along"),
		however(func(i instrument.Instrument) string {
			return "Hear it, eyes on the page. " + Along.Words(i)
		}),
		false, true,
	},
}

const inTheRests = " In a rest the hand goes on to the next note at once."

var fingerWords = map[instrument.Mechanism]string{
	instrument.Valves:       "Say the name and press the valves, in time, without air.",
	instrument.Slide:        "Say the name and move the slide to each position, in time, without air.",
	instrument.Woodwind:     "Say the name and set the fingers, in time, without air. Fingers stay near their holes.",
	instrument.BowedStrings: "Say string and finger and set the hand, in time, without the bow.",
	instrument.Bars:         "Say the name and point the mallet of each hand at its bar, in time, without striking.",
	instrument.Drums:        "Say the name and move the hand over its drum, in time, without striking.",
	instrument.Sticks:       "Move the right stick or the left for each stroke, just above the pad.",
}

// playWords is what holds for everybody who plays, however their sound starts.
func playWords(i instrument.Instrument) string {
	if i.Unpitched() {
		return "Keep the beat through the rests."
	}
	return "Warm up its first three notes and hear the first. Give every note its full length, and end the last one on the next downbeat. Slurs wait for the second time."
}

// countWords says what is said aloud while counting, as the lane shows it: schools
// differ in what becomes of held beats and rests.
func countWords(o count.Options) string {
	rests := map[count.Rests]string{
		count.InBrackets: "say the rests, in square ones.", count.AsWord: "say “rest” where one starts.",
		count.AtPlace: "say the number of a rest at its place.",
	}[cmp.Or(o.Rests, count.InBrackets)]
	switch o.School {
	case count.Pulsed:
		return "Say every eighth, on long notes too: those in brackets are held under it; " + rests
	case count.Values:
		return "Say the syllable of each note, and its vowel again on the beats in brackets. Rests are silent, and the foot goes on."
	case count.Places, count.Function:
		return "Say each syllable where its note starts, and hold it through the dashes. Rests are silent, and the foot goes on."
	case count.OneTa:
		return "Say ta on each note, one breath to a line, and hold it through the dashes. A rest of a beat is “rest”; longer ones are numbers."
	case count.Words:
		return "Say the words, a syllable to a note, and hold it through the dashes. Rests are silent, and the foot goes on."
	}
	return "Say each count where its note starts; think the held beats in brackets; " + rests
}

// however is what is said whatever the way of counting.
func however(words func(instrument.Instrument) string) func(instrument.Instrument, count.Options) string {
	return func(i instrument.Instrument, _ count.Options) string { return words(i) }
}

func always(words string) func(instrument.Instrument) string {
	return func(instrument.Instrument) string { return words }
}

// strokesOr tells what is struck without pitch from all else.
func strokesOr(strokes, notes string) func(instrument.Instrument) string {
	return func(i instrument.Instrument) string {
		if i.Unpitched() {
			return strokes
		}
		return notes
	}
}

// breathOr tells who breathes before they play from who does not.
func breathOr(i instrument.Instrument, blown, others string) string {
	if i.Blown {
		return blown
	}
	return others
}

// Title says what to do at the stage, for an instrument: "Count it aloud". A stage we have
// no words for has its own word.
func (s Step) Title(i instrument.Instrument) string {
	if t, has := texts[s.Stage]; has {
		return t.title(i)
	}
	return cmp.Or(s.Word, string(s.Stage))
}

// Words says how, for an instrument and a way of counting: what the teacher says to its
// family, or to all, and else our own words; "" where there are none.
func (s Step) Words(i instrument.Instrument, o count.Options) string {
	for _, family := range []string{i.Family, ""} {
		for _, own := range s.Say {
			if own.Family == family && own.Words != "" {
				return own.Words
			}
		}
	}
	if t, has := texts[s.Stage]; has {
		return t.how(i, o)
	}
	return ""
}

// Together says how for a room in which everybody's sound starts in a way of its own, so
// that only what holds for all is said.
func (s Step) Together(i instrument.Instrument, o count.Options) string {
	if words := s.Words(i, o); s.Stage != Play || words != texts[Play].how(i, o) {
		return words
	}
	return playWords(i)
}

// WithHands says whether hands or fingers move at the stage.
func (s Step) WithHands() bool {
	if t, has := texts[s.Stage]; has {
		return t.hands
	}
	return s.Form() == Finger || s.Form() == Play
}

// OnOneNote says whether the stage sits well on one note.
func (s Step) OnOneNote() bool { return texts[s.Stage].oneNote }
