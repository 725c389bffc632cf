package web

import (
	"cmp"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
)

// stageWord is what the page says of a stage for an instrument, and which helps it has
// beside it.
type stageWord struct {
	title, how func(instrument.Instrument) string
	oneNote    bool // the rhythm alone is worked at, which sits well on one note
	hands      bool // hands or fingers move: the panel shows them large, and the hard changes
}

// stageWords has a row for each stage we have words for; another has its word from the
// routine alone.
var stageWords = map[routine.Stage]stageWord{
	routine.Count: {
		always("Count it aloud"),
		always("Foot down on every beat. Say each count where its note starts; think the held beats in brackets; say the rests in square ones."),
		true, false,
	},
	routine.Name: {
		strokesOr("Name each stroke", "Name it in time"),
		strokesOr("Say “right” or “left” for each stroke, in time, hands still.",
			"Say each letter where its note starts, foot tapping. Long notes keep their beats. No instrument yet."),
		false, false,
	},
	routine.Finger: {
		strokesOr("Stick it in the air", "Finger it silently"),
		func(i instrument.Instrument) string { return fingerWords[i.Mechanism] },
		false, true,
	},
	routine.Play: {
		always("Play it"),
		func(i instrument.Instrument) string {
			return i.Start + strokesOr(" Keep the beat through the rests.",
				" Hear the first note. Give every note its full length, and end the last one on the next downbeat.")(i)
		},
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
		return words.how(w.Instrument)
	}
	return ""
}

// WithHands says whether hands or fingers move at the stage at hand.
func (w work) WithHands() bool { return stageWords[w.Stage].hands }

// OnOneNote says whether the stage at hand sits well on one note.
func (w work) OnOneNote() bool { return stageWords[w.Stage].oneNote }
