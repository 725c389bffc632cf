package web

import (
	"cmp"

	"unhurriedbench/core/count"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
)

// stageWord is what the page says of a stage for an instrument, and which helps it has
// beside it.
type stageWord struct {
	title   func(instrument.Instrument) string
	how     func(instrument.Instrument, count.Options) string
	oneNote bool // the rhythm alone is worked at, which sits well on one note
	hands   bool // hands or fingers move: the panel shows them large, and the hard changes
}

// stageWords has a row for each stage we have words for; another has its word from the
// routine alone.
var stageWords = map[routine.Stage]stageWord{
	routine.Count: {
		always("Count it aloud"),
		func(_ instrument.Instrument, o count.Options) string {
			return "Foot down on every beat. " + countWords(o)
		},
		true, false,
	},
	routine.Name: {
		strokesOr("Name each stroke", "Name it in time"),
		however(strokesOr("Say “right” or “left” for each stroke, in time, hands still.",
			"Say each letter where its note starts, foot tapping. Long notes keep their beats. No instrument yet.")),
		false, false,
	},
	routine.Finger: {
		strokesOr("Stick it in the air", "Finger it silently"),
		however(func(i instrument.Instrument) string { return fingerWords[i.Mechanism] }),
		false, true,
	},
	routine.Play: {
		always("Play it"),
		however(func(i instrument.Instrument) string {
			return i.Start + strokesOr(" Keep the beat through the rests.",
				" Hear the first note. Give every note its full length, and end the last one on the next downbeat.")(i)
		}),
		false, true,
	},
}

var fingerWords = map[instrument.Mechanism]string{
	instrument.Valves:   "Say the name and press the valves, in time, without air.",
	instrument.Slide:    "Say the name and move the slide to each position, in time, without air.",
	instrument.Woodwind: "Say the name and set the fingers, in time, without air. Fingers stay near their holes.",
	instrument.Strings:  "Say string and finger and set the hand, in time, without the bow.",
	instrument.Bars:     "Say the name and point the mallet of each hand at its bar, in time, without striking.",
	instrument.Drums:    "Say the name and move the hand over its drum, in time, without striking.",
	instrument.Sticks:   "Move the right stick or the left for each stroke, just above the pad.",
}

// countWords says what is said aloud at the Count stage, as the lane shows it: schools
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

func always(text string) func(instrument.Instrument) string {
	return func(instrument.Instrument) string { return text }
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

// StageTitle says what to do at the stage at hand.
func (w work) StageTitle() string {
	if words, has := stageWords[w.Stage]; has {
		return words.title(w.Instrument)
	}
	return cmp.Or(w.Routine.Word(w.Stage), string(w.Stage))
}

// StageWords says how, for the instrument.
func (w work) StageWords() string {
	if words, has := stageWords[w.Stage]; has {
		return words.how(w.Instrument, w.Counting)
	}
	return ""
}

// WithHands says whether hands or fingers move at the stage at hand.
func (w work) WithHands() bool { return stageWords[w.Stage].hands }

// OnOneNote says whether the stage at hand sits well on one note.
func (w work) OnOneNote() bool { return stageWords[w.Stage].oneNote }
