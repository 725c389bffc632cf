package music

import (
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/play"
	"unhurriedbench/teach"
)

// StepMusic is a chunk for an instrument, for the page's script.
type StepMusic struct {
	Sheet SheetData       `json:"sheet"`
	Plan  []teach.Planned `json:"plan"`
	Round PlaybackRound   `json:"round"`
}

// NewStepMusic is the music of a part, whose ids begin with what is given.
func NewStepMusic(p teach.Stand, ids string) StepMusic {
	return StepMusic{
		Sheet: NewSheet(p.Report, p.Instrument, p.Words, p.Strings, mei.Options{Ruler: true, IDs: mei.IDs(ids)}),
		Plan:  p.Plan(), Round: NewPlaybackRound(play.RoundOf(p.Report.Part, p.Played)),
	}
}
