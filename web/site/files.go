package site

import (
	"fmt"
	"strings"

	"unhurriedbench/core/count"
	"unhurriedbench/core/format"
	"unhurriedbench/core/format/midi"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Encode writes a score of one part in a format, counted off as it is elsewhere; data is nil
// for an unknown one.
func Encode(s score.Score, target instrument.Instrument, as string, how count.Options) (data []byte, ending,
	kind string, err error) {
	part := s.Parts[0]
	o := midi.Options{Program: target.Program, PerMinute: s.Tempo.Beats(part.Meter())}
	for _, c := range count.CountOff(part, how) {
		o.Cues = append(o.Cues, midi.Cue{At: c.At, Beat: c.Beat})
	}
	data, f, known, err := format.Write(as, s, o)
	if !known {
		return nil, "", "", nil
	}
	return data, f.Ending(), f.Type, err
}

// FileName is a name for the part of an instrument.
func FileName(number int, title, id string) string {
	return fmt.Sprintf("%d-%s-%s", number, ForFile(title), id)
}

// ForFile keeps letters, digits and hyphens.
func ForFile(title string) string {
	clean := strings.Map(func(c rune) rune {
		switch {
		case c >= 'a' && c <= 'z', c >= '0' && c <= '9':
			return c
		case c >= 'A' && c <= 'Z':
			return c + 'a' - 'A'
		}
		return '-'
	}, title)
	return strings.Trim(clean, "-")
}
