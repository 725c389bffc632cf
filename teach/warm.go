package teach

import (
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// WarmTempo is how fast long notes are counted. Source: common practice.
const WarmTempo = 60

// warmNotes is how many notes of the day's first piece are played long before it.
const warmNotes = 3

// Warm is what an instrument begins a day with, as music: the open strings, else the first
// notes of a piece, as long as a slow breath. ok is false where there is no pitch to hold.
func (read *partAtHome) Warm(piece Stand) (part Stand, ok bool) {
	i := read.at.Instrument
	pitches, bars, key := firstPitches(piece.Report), 2, piece.Report.Part.Key() // eight slow counts
	if i.Family == "strings" {
		pitches, bars, key = i.OpenStrings, 1, score.Key{}
	}
	if i.Family == "percussion" || len(pitches) == 0 {
		return part, false
	}
	music := longNotes(pitches, bars, key, piece.Report.Part.Clef())
	at, x := read.at, read.Explained
	o := x.Options
	o.Pencils, o.Pieces, o.Finger.Placed, o.Placed = nil, nil, nil, instrument.Placement{}
	x.Line, x.Report = breakdown.Alone, breakdown.Read(music, music.Parts[0], i.ID, i, nil, o)
	whole := x.Report.Pieces[len(x.Report.Pieces)-1]
	at.Ask.Piece = whole.Key().String()
	at.piecesOf(x.Report)
	return NewStand(Work{Choice: at, Routine: at.Routine(), Stage: routine.Play, Tempo: WarmTempo}, x, read.kept.Preferences), true
}

// firstPitches are the first notes of a piece, each once.
func firstPitches(r breakdown.Report) []score.Pitch {
	var list []score.Pitch
	for _, at := range r.Part.Notes() {
		if e := r.Part.At(at); !e.Unpitched && !slices.Contains(list, e.Pitch) && len(list) < warmNotes {
			list = append(list, e.Pitch)
		}
	}
	return list
}

// longNotes writes notes in four quarters, each for so many measures.
func longNotes(pitches []score.Pitch, bars int, key score.Key, clef score.Clef) score.Score {
	var part score.Part
	for _, p := range pitches {
		for k := range bars {
			part.Measures = append(part.Measures, score.Measure{
				Number: len(part.Measures) + 1, Meter: score.Meter{Beats: 4, Unit: 4}, Key: key, Clef: clef, Length: score.Frac(1, 1),
				Events: []score.Event{{Kind: score.Note, Length: score.Frac(1, 1), Value: score.Value{Base: 1}, Pitch: p, Sign: k == 0 && p.Alter != key.Alter(p.Step), TieOn: k < bars-1, Tied: k > 0}},
			})
		}
	}
	return score.Score{Parts: []score.Part{part}}
}
