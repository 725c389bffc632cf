// Package routine holds the stages a chunk is worked through, when to go on and
// when to go back, and the tempos to do it at.
package routine

import "slices"

// metronomeMarks is the traditional metronome scale, in beats a minute. Source: the
// marks of the Maelzel metronome.
var metronomeMarks = []int{
	40, 42, 44, 46, 48, 50, 52, 54, 56, 58, 60, 63, 66, 69, 72, 76, 80, 84, 88, 92, 96, 100, 104, 108, 112, 116,
	120, 126, 132, 138, 144, 152, 160, 168, 176, 184, 192, 200, 208,
}

// MetronomeMarks lists the marks of the scale, slowest first.
func MetronomeMarks() []int { return slices.Clone(metronomeMarks) }

// StepTempo moves a tempo by steps along the scale, faster when positive; from between
// two marks the next one either way is one step, and no step is the lower one. The
// ends of the scale hold.
func StepTempo(tempo, steps int) int {
	i, exact := slices.BinarySearch(metronomeMarks, tempo)
	if !exact && steps >= 0 {
		i--
	}
	return metronomeMarks[min(max(i+steps, 0), len(metronomeMarks)-1)]
}

// NextTempo is the tempo of the next try after one at a tempo: a notch down where the
// last step was to take it slower, up where it was a rung of a ladder; 0 for none stays.
func (s State) NextTempo(tempo int) int {
	switch {
	case tempo == 0:
	case s.Slower:
		return StepTempo(tempo, -1)
	case s.Faster:
		return StepTempo(tempo, 1)
	}
	return tempo
}

// Ladder is the scale with a tempo that may lie between its marks, slowest first.
func Ladder(tempo int) []int {
	i, exact := slices.BinarySearch(metronomeMarks, tempo)
	if exact {
		return MetronomeMarks()
	}
	return slices.Insert(MetronomeMarks(), i, tempo)
}

// StartTempo is where work on an exercise begins: two notches under the tempo it
// is marked with, kept within the beginners' range of 50 to 80; 60 when it has
// none. Source: common practice.
func StartTempo(marked int) int {
	if marked == 0 {
		return 60
	}
	return min(max(StepTempo(marked, -2), 50), 80)
}

// Pass is one time through at a tempo.
type Pass struct {
	As    string // "whole notes"; "" is as it is written
	Tempo int    // in beats a minute
}

// Passes is how a stage goes through a chunk that is worked at a tempo: once for each
// value where longer ones come first. Longer values are taken faster, as a five-note scale
// in whole notes at 90, in halves at 80 and in quarters at 75, to the nearest marks. Source:
// common practice.
func (t TempoRule) Passes(tempo int) []Pass {
	written := Pass{Tempo: tempo}
	switch {
	case t == Free:
		return []Pass{{}}
	case t == LongerFirst && tempo > 0:
		return []Pass{{"whole notes", StepTempo(tempo, 4)}, {"half notes", StepTempo(tempo, 2)}, written}
	}
	return []Pass{written}
}

// Target is the tempo at the top of a stage's ladder, from a tempo at one of its rungs, 0
// for where it starts; without a ladder it is that tempo.
func (s Step) Target(tempo, tempoStep int) int {
	if tempo == 0 {
		return 0
	}
	return StepTempo(tempo, s.faster()-tempoStep)
}
