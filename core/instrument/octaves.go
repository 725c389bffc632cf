package instrument

import (
	"fmt"
	"strings"

	"unhurriedbench/core/score"
)

// OctaveOption is one octave a part could be put in.
type OctaveOption struct {
	Octaves   int // against the source
	Suggested bool
	Low, High score.Pitch // of the part, as written
	Why       string
}

// OctaveOptions lists the octaves in which an instrument can play every note of
// the source, lowest first, each with what speaks for or against it: how many
// notes lie outside the range of the year of playing, and for clarinets how often it
// crosses the break. A source written for that instrument lies as it is written; beside
// is as in a OctaveChoice. Drums have none.
func OctaveOptions(source score.Part, writtenFor string, target Instrument, year int, beside *int) []OctaveOption {
	if target.Unpitched() || source.Unpitched() || target.Mechanism == Drums {
		return nil
	}
	base := baseMove(source, target)
	suggested := seatOf(source, base, target).octaves
	switch {
	case writtenFor == target.ID:
		suggested = 0
	case beside != nil:
		suggested = *beside
	}
	var choices []OctaveOption
	for octaves := suggested - 2; octaves <= suggested+2; octaves++ {
		made := Make(source, "", target, OctaveChoice{Chosen: true, Octaves: octaves})
		if len(made.Outside) > 0 && octaves != suggested {
			continue
		}
		c := OctaveOption{Octaves: octaves, Suggested: octaves == suggested}
		c.Low, c.High = extent(made.Part)
		c.Why = speakFor(made.Part, target, year)
		choices = append(choices, c)
	}
	return choices
}

func extent(part score.Part) (low, high score.Pitch) {
	for i, at := range part.Notes() {
		p := part.At(at).Pitch
		if i == 0 || p.MIDI() < low.MIDI() {
			low = p
		}
		if i == 0 || p.MIDI() > high.MIDI() {
			high = p
		}
	}
	return low, high
}

func speakFor(part score.Part, target Instrument, year int) string {
	comfort, beyond := target.Comfort(year), 0
	for _, at := range part.Notes() {
		if !comfort.Holds(part.At(at).Pitch) {
			beyond++
		}
	}
	within := fmt.Sprintf("the %s range %s to %s", yearNames[yearAt(year)], comfort.Low, comfort.High)
	reasons := []string{"every note lies in " + within}
	if beyond > 0 {
		reasons[0] = fmt.Sprintf("%d of %d notes lie outside %s", beyond, len(part.Notes()), within)
	}
	if target.HasBreak {
		reasons = append(reasons, breakReason(part))
	}
	return strings.Join(reasons, "; ")
}

// lastBelowBreak is the clarinet's highest throat note, B flat 4 as written.
const lastBelowBreak = 70

func breakReason(part score.Part) string {
	crossings := 0
	above, any := false, false
	for k, s := range part.Sounding(part.Written()) {
		now := s.Pitch.MIDI() > lastBelowBreak
		if k > 0 && now != above {
			crossings++
		}
		above = now
		any = any || now
	}
	switch {
	case crossings == 1:
		return "it crosses the break once"
	case crossings > 1:
		return fmt.Sprintf("it crosses the break %d times", crossings)
	case any:
		return "it stays above the break"
	}
	return "it stays below the break"
}
