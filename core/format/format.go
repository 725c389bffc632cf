// Package format recognises music files and reads them into scores.
package format

import (
	"bytes"
	"context"
	"fmt"
	"path/filepath"
	"slices"
	"strings"

	"golang.org/x/text/encoding/charmap"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/format/counted"
	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/core/score"
)

// Largest is the most bytes a file may have: 5 MB.
const Largest = 5 << 20

// File is a file that was read.
type File struct {
	Score score.Score
	Kind  string // the id of a format that text is kept in; of its own where it has not been read yet
	Text  string // what to keep: the file itself, unpacked; ABC for a MIDI or counted file
	For   string // the id of the instrument a counted file is written for, "" where it says none
}

// StoredAsABC says whether a file of a kind is kept as ABC.
func StoredAsABC(kind string) bool {
	f, known := byID(kind)
	return known && f.text == nil
}

// Read reads a file by its name's ending and, failing that, by what it holds.
// The error is a score.Problems; once ctx ends, it is the context's.
func Read(ctx context.Context, name string, data []byte) (File, error) {
	f, err := Unpack(name, data)
	if err != nil {
		return f, err
	}
	by, known := byID(f.Kind)
	if !known {
		return f, unknown()
	}
	if by.text != nil {
		f.Score, _, err = by.read(ctx, []byte(f.Text))
		return f, err
	}
	s, target, err := by.read(ctx, data)
	if err != nil {
		return File{}, err
	}
	return File{s, ABC, abc.Write(s), target}, nil
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

func unpack(id string, data []byte) (File, error) {
	f, known := byID(id)
	switch {
	case !known:
		return File{Text: string(musicxml.Text(data))}, nil // UTF-16 is turned over
	case f.text == nil:
		return File{Kind: id}, nil
	}
	text, err := f.text(data)
	if err != nil {
		return File{}, err
	}
	return File{Kind: f.storedAs(), Text: text}, nil
}

// FromLatin1 turns text in Latin-1, as older programs for western Europe write it, into UTF-8.
func FromLatin1(data []byte) ([]byte, error) { return charmap.Windows1252.NewDecoder().Bytes(data) }

// ByBarLines has a text of a kind read with its measures as their bar lines make them. Text of a
// kind that cannot be read so is left as it is.
func ByBarLines(kind, text string) string {
	if f, known := byID(kind); known && f.byBarLines != nil {
		return f.byBarLines(text)
	}
	return text
}

// ReadKind reads text that is known to be of a kind.
func ReadKind(ctx context.Context, kind string, data []byte) (score.Score, error) {
	if len(data) > Largest {
		return score.Score{}, tooLarge()
	}
	f, known := byID(kind)
	if !known || f.text == nil {
		return score.Score{}, unknown()
	}
	s, _, err := f.read(ctx, data)
	return s, err
}

func unknown() error {
	return problem("This is neither MusicXML nor ABC nor MIDI.", "Choose a file that ends in "+endingsInWords()+".")
}

// kindOf recognises a file by how it begins, where that is beyond doubt, else by the ending of
// its name, else by what it begins like; "" for none of the formats.
func kindOf(name string, data []byte) string {
	for _, f := range formats {
		if f.magic != "" && bytes.HasPrefix(data, []byte(f.magic)) {
			return f.ID
		}
	}
	ending := strings.ToLower(filepath.Ext(name))
	for _, f := range formats {
		if slices.Contains(f.Endings, ending) && f.read != nil {
			return f.ID
		}
	}
	start := bytes.TrimSpace(musicxml.Text(data[:min(len(data), 512)]))
	for _, f := range formats {
		if f.like != nil && f.like(start) {
			return f.ID
		}
	}
	return ""
}

func problem(what, do string) error { return score.Problems{score.General(what, do)} }
