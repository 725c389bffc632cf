package bench

import (
	"fmt"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// FewerNotes is the address where the chunk grows by a note at a time, "" where nothing
// asks for it.
func (v benchView) FewerNotes() string {
	if !v.State.Fewer {
		return ""
	}
	return fmt.Sprintf("%s&of=%s", v.Link("line", breakdown.AddANote), v.Key)
}

// freshUnder is how many tries at a chunk leave it new.
const freshUnder = 8

// Rest says how long the lips rest after the chunk, "" where they need not.
func (v benchView) Rest() string {
	if v.Step().Form() != routine.Play || v.InDrill() {
		return ""
	}
	return routine.RestFor(v.Instrument, v.seconds(), v.State.Tries < freshUnder || len(v.New) > 0, v.high()).Why
}

// seconds is how long the chunk lasts once, at the tempo at hand.
func (v benchView) seconds() float64 {
	if v.Tempo == 0 {
		return 0
	}
	return breakdown.Beats(v.Report.Part, v.Played) * 60 / float64(v.Tempo)
}

// high says whether the chunk goes to the top of what the instrument plays comfortably in
// the class's year.
func (v benchView) high() bool {
	top := v.Instrument.Years[max(v.Class.Year, 1)-1].High.MIDI()
	for _, p := range v.Passages {
		for _, e := range v.Report.Part.Measures[p.At].Events {
			if e.Kind == score.Note && !e.Unpitched && e.Pitch.MIDI() >= top-nearTheTop {
				return true
			}
		}
	}
	return false
}

// nearTheTop is how many semitones from the top of a comfortable range are high. The figure
// is ours.
const nearTheTop = 2
