package format

import (
	"bytes"
	"context"
	"slices"
	"strings"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/format/counted"
	"unhurriedbench/core/format/midi"
	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/core/score"
)

// Format is a way in which music is written to a file.
type Format struct {
	ID      string   // by which texts are kept and files asked for
	Endings []string // of the names of its files, the one that is written first
	Type    string   // of a file that is sent

	magic string                  // with which every file begins, "" where there is no such thing
	like  func(start []byte) bool // what a file begins like whose name says nothing
	// text takes what is kept out of a file; nil where a file is read once and kept as ABC.
	text   func(data []byte) (string, error)
	keptAs string // the id of another format that text is of, "" for its own
	// read reads what is kept, or the file where it is kept as ABC; nil for what is only written.
	read       func(ctx context.Context, data []byte) (s score.Score, writtenFor string, err error)
	byBarLines func(text string) string
	write      func(s score.Score, o midi.Options) ([]byte, error)
}

// The ids of formats that a text is kept in.
const (
	ABC      = "abc"
	MusicXML = "musicxml"
)

// formats are all there are, in the order in which they are offered. Another is one more row.
var formats = []Format{
	{
		ID: MusicXML, Endings: []string{".musicxml", ".xml"}, Type: "application/vnd.recordare.musicxml+xml",
		like: func(start []byte) bool { return bytes.HasPrefix(start, []byte("<")) },
		text: plain, read: readMusicXML, byBarLines: musicxml.ByBarLines,
		write: func(s score.Score, _ midi.Options) ([]byte, error) { return musicxml.Write(s), nil },
	},
	{
		ID: "mxl", Endings: []string{".mxl"}, magic: "PK\x03\x04", keptAs: MusicXML, read: readMusicXML,
		text: func(data []byte) (string, error) {
			unpacked, err := musicxml.Unpack(data)
			return string(musicxml.Text(unpacked)), err
		},
	},
	{
		ID: ABC, Endings: []string{".abc"}, Type: "text/vnd.abc; charset=utf-8",
		like: func(start []byte) bool {
			return bytes.HasPrefix(start, []byte("X:")) || bytes.Contains(start, []byte("\nK:"))
		},
		text: plain, byBarLines: abc.ByBarLines,
		read: func(ctx context.Context, data []byte) (score.Score, string, error) {
			s, err := abc.Read(ctx, string(data))
			return s, "", err
		},
		write: func(s score.Score, _ midi.Options) ([]byte, error) { return []byte(abc.Write(s)), nil },
	},
	{
		ID: "midi", Endings: []string{".mid", ".midi"}, Type: "audio/midi", magic: "MThd",
		read: func(ctx context.Context, data []byte) (score.Score, string, error) {
			s, err := midi.Read(ctx, data)
			return s, "", err
		},
		write: writeMIDI,
	},
	{
		ID: "metronome", Endings: []string{".mid"}, Type: "audio/midi", // the same with clicks; it is only written
		write: func(s score.Score, o midi.Options) ([]byte, error) {
			o.Metronome = true
			return writeMIDI(s, o)
		},
	},
	{
		ID: "counted", Endings: []string{".counted"}, Type: "text/plain; charset=utf-8",
		read: func(ctx context.Context, data []byte) (score.Score, string, error) {
			return readCounted(ctx, string(musicxml.Text(data)))
		},
		write: func(s score.Score, _ midi.Options) ([]byte, error) {
			said, err := counted.Write(s)
			return []byte(said), err
		},
	},
}

func plain(data []byte) (string, error) { return string(musicxml.Text(data)), nil }

func readMusicXML(ctx context.Context, data []byte) (score.Score, string, error) {
	s, err := musicxml.Read(ctx, data)
	return s, "", err
}

func writeMIDI(s score.Score, o midi.Options) ([]byte, error) { return midi.Write(s.Parts[0], o) }

// storedAs is the id of the format that its text is kept in.
func (f Format) storedAs() string {
	if f.keptAs != "" {
		return f.keptAs
	}
	return f.ID
}

func byID(id string) (Format, bool) {
	k := slices.IndexFunc(formats, func(f Format) bool { return f.ID == id })
	if k < 0 {
		return Format{}, false
	}
	return formats[k], true
}

// Kept lists the formats that texts are kept in.
func Kept() []Format {
	return slices.DeleteFunc(slices.Clone(formats), func(f Format) bool { return f.text == nil || f.keptAs != "" })
}

// Ending is the ending of a file that is written, with its dot.
func (f Format) Ending() string { return f.Endings[0] }

// Endings lists the endings of files that are read.
func Endings() []string {
	var list []string
	for _, f := range formats {
		if f.read != nil {
			list = append(list, f.Endings...)
		}
	}
	return list
}

// endingsInWords says them as a choice.
func endingsInWords() string {
	list := Endings()
	last := len(list) - 1
	return strings.Join(list[:last], ", ") + " or " + list[last]
}

// Write writes a score in the format of an id; known is false for one that is not there, or is not
// written. The options are those of MIDI, which alone has any; it, and the counted format, hold
// the first part. The error is a score.Problems for what a format cannot hold.
func Write(id string, s score.Score, o midi.Options) (data []byte, f Format, known bool, err error) {
	if f, known = byID(id); !known || f.write == nil {
		return nil, f, false, nil
	}
	data, err = f.write(s, o)
	return data, f, true, err
}
