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

// warmNotes is how many notes of the day's first chunk are played long before it.
const warmNotes = 3

// Warm is what an instrument begins a day with, as music: the open strings, else the first
// notes of a chunk, as long as a slow breath. ok is false where there is no pitch to hold.
func (read *partAtHome) Warm(chunk Stand) (part Stand, ok bool) {
	i := read.at.Instrument
	pitches, bars, key := firstPitches(chunk.Report), 2, chunk.Report.Part.Key() // eight slow counts
	if i.Bowed() {
		pitches, bars, key = i.OpenStrings, 1, score.Key{}
	}
	if i.Family == "percussion" || len(pitches) == 0 {
		return part, false
	}
	music := longNotes(pitches, bars, key, chunk.Report.Part.Clef())
	at, x := read.at, read.Explained
	o := x.Options
	o.Annotations, o.Chunks, o.Finger.Placed, o.Placed = nil, nil, nil, instrument.OctaveChoice{}
	x.Line, x.Report = breakdown.Alone, breakdown.Read(music, music.Parts[0], i.ID, i, nil, o)
	whole := x.Report.Chunks[len(x.Report.Chunks)-1]
	at.Ask.Chunk = whole.Key().String()
	at.chunksOf(x.Report)
	return NewStand(Work{Choice: at, Routine: at.Routine(), Stage: routine.Play, Tempo: WarmTempo}, x,
		read.saved.Preferences), true
}

// firstPitches are the first notes of a chunk, each once.
func firstPitches(r breakdown.Report) []score.Pitch {
	var list []score.Pitch
	for _, at := range r.Part.Notes() {
		if e := r.Part.At(at); !e.Unpitched && !slices.Contains(list, e.Pitch) && len(list) < warmNotes {
			list = append(list, e.Pitch)
		}
	}
	return list
}

// longNotes writes notes in four quarters, each for a given number of measures.
func longNotes(pitches []score.Pitch, bars int, key score.Key, clef score.Clef) score.Score {
	var part score.Part
	for _, p := range pitches {
		for k := range bars {
			part.Measures = append(part.Measures, score.Measure{
				Number: len(part.Measures) + 1, Meter: score.Meter{Beats: 4, Unit: 4}, Key: key, Clef: clef,
				Length: score.Frac(1, 1),
				Events: []score.Event{{Kind: score.Note, Length: score.Frac(1, 1), Value: score.Value{Base: 1}, Pitch: p,
					Sign: k == 0 && p.Alter != key.Alter(p.Step), TieOn: k < bars-1, Tied: k > 0}},
			})
		}
	}
	return score.Score{Parts: []score.Part{part}}
}
