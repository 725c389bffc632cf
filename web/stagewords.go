package web

import (
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
)

// StageTitle says what to do at the stage at hand.
func (v benchView) StageTitle() string {
	switch v.Stage {
	case routine.Count:
		return "Count it aloud"
	case routine.Name:
		if v.Instrument.Unpitched() {
			return "Name each stroke"
		}
		return "Name it in time"
	case routine.Finger:
		if v.Instrument.Unpitched() {
			return "Stick it in the air"
		}
		return "Finger it silently"
	}
	return "Play it"
}

// StageWords says how, for the instrument.
func (v benchView) StageWords() string {
	switch v.Stage {
	case routine.Count:
		return "Foot down on every beat. Say each count where its note starts; think the held beats in brackets; say the rests in square ones."
	case routine.Name:
		if v.Instrument.Unpitched() {
			return "Say “right” or “left” for each stroke, in time, hands still."
		}
		return "Say each letter where its note starts, foot tapping. Long notes keep their beats. No instrument yet."
	case routine.Finger:
		return map[instrument.Mechanism]string{
			instrument.Valves:   "Say the name and press the valves, in time, without air.",
			instrument.Slide:    "Say the name and move the slide to each position, in time, without air.",
			instrument.Woodwind: "Say the name and set the fingers, in time, without air. Fingers stay near their holes.",
			instrument.Strings:  "Say string and finger and set the hand, in time, without the bow.",
			instrument.Bars:     "Say the name and point the mallet of each hand at its bar, in time, without striking.",
			instrument.Drums:    "Say the name and move the hand over its drum, in time, without striking.",
			instrument.Sticks:   "Move the right stick or the left for each stroke, just above the pad.",
		}[v.Instrument.Mechanism]
	}
	if v.Instrument.Unpitched() {
		return v.Instrument.Start + " Keep the beat through the rests."
	}
	return v.Instrument.Start + " Hear the first note. Give every note its full length, and end the last one on the next downbeat."
}
