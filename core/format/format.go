// Package format recognises music files and reads them into scores.
package format

import (
	"bytes"
	"fmt"
	"path/filepath"
	"strings"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/core/score"
)

// Largest is the most bytes a file may have: 5 MB.
const Largest = 5 << 20

// The kinds of source a score is kept as.
const (
	ABC      = "abc"
	MusicXML = "musicxml"
)

// Read reads a file by its name's ending and, failing that, by what it holds.
// It returns the kind it found. The error is a score.Problems.
func Read(name string, data []byte) (score.Score, string, error) {
	if len(data) > Largest {
		return score.Score{}, "", problem(fmt.Sprintf("The file is larger than %d MB.", Largest>>20), "Bring in one exercise at a time.")
	}
	if len(bytes.TrimSpace(data)) == 0 {
		return score.Score{}, "", problem("The file is empty.", "Choose a MusicXML or ABC file with an exercise in it.")
	}
	kind := kindOf(name, data)
	s, err := ReadKind(kind, data)
	return s, kind, err
}

// ReadKind reads data that is known to be of a kind.
func ReadKind(kind string, data []byte) (score.Score, error) {
	s, err := readKind(kind, data)
	if n := len(s.Parts); n > 1 {
		s.Remarks = append(s.Remarks, score.General(fmt.Sprintf("The file holds %d parts; the first of them is used.", n), ""))
	}
	return s, err
}

func readKind(kind string, data []byte) (score.Score, error) {
	switch kind {
	case ABC:
		return abc.Read(string(data))
	case MusicXML:
		return musicxml.Read(data)
	}
	return score.Score{}, problem("This is neither MusicXML nor ABC.", "Choose a file that ends in .musicxml, .xml or .abc.")
}

func kindOf(name string, data []byte) string {
	switch strings.ToLower(filepath.Ext(name)) {
	case ".abc":
		return ABC
	case ".musicxml", ".xml":
		return MusicXML
	}
	start := bytes.TrimSpace(bytes.TrimPrefix(data[:min(len(data), 512)], []byte("\ufeff")))
	switch {
	case bytes.HasPrefix(start, []byte("<")):
		return MusicXML
	case bytes.HasPrefix(start, []byte("X:")), bytes.Contains(start, []byte("\nK:")):
		return ABC
	}
	return ""
}

func problem(what, do string) error { return score.Problems{score.General(what, do)} }
