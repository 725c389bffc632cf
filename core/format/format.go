// Package format recognises music files and reads them into scores.
package format

import (
	"bytes"
	"context"
	"fmt"
	"path/filepath"
	"strings"

	"golang.org/x/text/encoding/charmap"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/format/counted"
	"unhurriedbench/core/format/midi"
	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/core/score"
)

// Largest is the most bytes a file may have: 5 MB.
const Largest = 5 << 20

// The kinds of text a score is kept as.
const (
	ABC      = "abc"
	MusicXML = "musicxml"
)

// File is a file that was read.
type File struct {
	Score score.Score
	Kind  string // ABC, MusicXML, or MIDI or Counted where it has not been read yet
	Text  string // what to keep: the file itself, unpacked; ABC for a MIDI or counted file
	For   string // the id of the instrument a counted file is written for, "" where it says none
}

// The kinds of files that are kept as ABC once they have been read.
const (
	MIDI    = "midi"
	Counted = "counted"
)

// StoredAsABC says whether a file of a kind is kept as ABC.
func StoredAsABC(kind string) bool { return kind == MIDI || kind == Counted }

// Read reads a file by its name's ending and, failing that, by what it holds.
// The error is a score.Problems; once ctx ends, it is the context's.
func Read(ctx context.Context, name string, data []byte) (File, error) {
	f, err := Unpack(name, data)
	if err != nil {
		return f, err
	}
	if StoredAsABC(f.Kind) {
		var s score.Score
		target := ""
		if f.Kind == MIDI {
			s, err = midi.Read(ctx, data)
		} else {
			s, target, err = readCounted(ctx, string(musicxml.Text(data)))
		}
		if err != nil {
			return File{}, err
		}
		return File{s, ABC, abc.Write(s), target}, nil
	}
	f.Score, err = ReadKind(ctx, f.Kind, []byte(f.Text))
	return f, err
}

// readCounted reads a counted file, and for which instrument it is written.
func readCounted(ctx context.Context, text string) (score.Score, string, error) {
	s, err := counted.Read(ctx, text)
	if err != nil {
		return s, "", err
	}
	e, err := counted.Parse(text)
	return s, e.For, err
}

// Unpack takes the text out of a file without reading it; one of kind MIDI or Counted has none.
// The error is a score.Problems.
func Unpack(name string, data []byte) (File, error) {
	if len(data) > Largest {
		return File{}, tooLarge()
	}
	if len(bytes.TrimSpace(data)) == 0 {
		return File{}, problem("The file is empty.", "Choose a MusicXML, ABC or MIDI file with an exercise in it.")
	}
	f, err := unpack(kindOf(name, data), data)
	if err == nil && len(f.Text) > Largest { // UTF-16 grows when it is turned over
		return File{}, tooLarge()
	}
	return f, err
}

func tooLarge() error {
	return problem(fmt.Sprintf("The file is larger than %d MB.", Largest>>20), "Bring in one exercise at a time.")
}

func unpack(kind string, data []byte) (File, error) {
	switch kind {
	case MIDI, Counted:
		return File{Kind: kind}, nil
	case "mxl":
		unpacked, err := musicxml.Unpack(data)
		if err != nil {
			return File{}, err
		}
		return File{Kind: MusicXML, Text: string(musicxml.Text(unpacked))}, nil
	case MusicXML:
		return File{Kind: MusicXML, Text: string(musicxml.Text(data))}, nil
	default:
		return File{Kind: kind, Text: string(musicxml.Text(data))}, nil // UTF-16 is turned over
	}
}

// FromLatin1 turns text in Latin-1, as older programs for western Europe write it, into UTF-8.
func FromLatin1(data []byte) ([]byte, error) { return charmap.Windows1252.NewDecoder().Bytes(data) }

// ByBarLines has a text of a kind read with its measures as their bar lines make them.
func ByBarLines(kind, text string) string {
	if kind == MusicXML {
		return musicxml.ByBarLines(text)
	}
	return abc.ByBarLines(text)
}

// ReadKind reads text that is known to be of a kind.
func ReadKind(ctx context.Context, kind string, data []byte) (score.Score, error) {
	if len(data) > Largest {
		return score.Score{}, tooLarge()
	}
	switch kind {
	case ABC:
		return abc.Read(ctx, string(data))
	case MusicXML:
		return musicxml.Read(ctx, data)
	}
	return score.Score{}, problem(
		"This is neither MusicXML nor ABC nor MIDI.",
		"Choose a file that ends in .musicxml, .xml, .mxl, .abc, .mid or .counted.",
	)
}

func kindOf(name string, data []byte) string {
	switch {
	case bytes.HasPrefix(data, []byte("MThd")):
		return MIDI
	case bytes.HasPrefix(data, []byte("PK\x03\x04")):
		return "mxl"
	}
	switch strings.ToLower(filepath.Ext(name)) {
	case ".abc":
		return ABC
	case ".counted":
		return Counted
	case ".musicxml", ".xml":
		return MusicXML
	case ".mxl":
		return "mxl"
	case ".mid", ".midi":
		return MIDI
	}
	start := bytes.TrimSpace(musicxml.Text(data[:min(len(data), 512)]))
	switch {
	case bytes.HasPrefix(start, []byte("<")):
		return MusicXML
	case bytes.HasPrefix(start, []byte("X:")), bytes.Contains(start, []byte("\nK:")):
		return ABC
	}
	return ""
}

func problem(what, do string) error { return score.Problems{score.General(what, do)} }
