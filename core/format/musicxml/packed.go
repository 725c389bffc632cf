package musicxml

import (
	"archive/zip"
	"bytes"
	"encoding/binary"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"strings"
	"unicode/utf16"

	"unhurriedbench/core/score"
)

const (
	mostPackedFiles = 200
	// largestUnpacked bounds what one packed file may grow to, as a plain one is bounded.
	largestUnpacked = 5 << 20
)

// Unpack returns the score inside a compressed MusicXML file (.mxl): the first
// rootfile of its container that is MusicXML. The error is a score.Problems.
func Unpack(data []byte) ([]byte, error) {
	archive, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return nil, packedProblem("The compressed MusicXML file is broken.")
	}
	if len(archive.File) > mostPackedFiles {
		return nil, packedProblem("The compressed file holds too many files to be a score.")
	}
	container, err := unpackFile(archive, "META-INF/container.xml")
	if err != nil {
		return nil, err
	}
	var list struct {
		Files []struct {
			Path string `xml:"full-path,attr"`
			Type string `xml:"media-type,attr"`
		} `xml:"rootfiles>rootfile"`
	}
	if err := xml.Unmarshal(container, &list); err != nil {
		return nil, packedProblem("The compressed file's list of contents cannot be read.")
	}
	for _, f := range list.Files {
		if f.Type == "" || strings.Contains(f.Type, "musicxml") {
			return unpackFile(archive, f.Path)
		}
	}
	return nil, packedProblem("The compressed file holds no MusicXML.")
}

func packedProblem(what string) error {
	return score.Problems{score.General(what, "Export it again, if need be as plain MusicXML.")}
}

func unpackFile(archive *zip.Reader, name string) ([]byte, error) {
	for _, f := range archive.File {
		if f.Name != name {
			continue
		}
		if f.UncompressedSize64 > largestUnpacked {
			return nil, packedProblem(fmt.Sprintf("Unpacked the file is larger than %d MB.", largestUnpacked>>20))
		}
		r, err := f.Open()
		if err != nil {
			return nil, packedProblem("The compressed MusicXML file is broken.")
		}
		text, err := io.ReadAll(io.LimitReader(r, largestUnpacked+1))
		if err := errors.Join(err, r.Close()); err != nil {
			return nil, packedProblem("The compressed MusicXML file is broken.")
		}
		if len(text) > largestUnpacked {
			return nil, packedProblem(fmt.Sprintf("Unpacked the file is larger than %d MB.", largestUnpacked>>20))
		}
		return text, nil
	}
	return nil, packedProblem(fmt.Sprintf("The compressed file lacks %s.", score.Clip(name)))
}

// Text returns an XML file as UTF-8: one in UTF-16 with its byte order mark is
// turned over, and its declaration dropped.
func Text(data []byte) []byte {
	var order binary.ByteOrder
	switch {
	case bytes.HasPrefix(data, []byte{0xfe, 0xff}):
		order = binary.BigEndian
	case bytes.HasPrefix(data, []byte{0xff, 0xfe}):
		order = binary.LittleEndian
	default:
		return bytes.TrimPrefix(data, []byte("\ufeff"))
	}
	units := make([]uint16, 0, len(data)/2)
	for i := 2; i+1 < len(data); i += 2 {
		units = append(units, order.Uint16(data[i:]))
	}
	text := string(utf16.Decode(units))
	if strings.HasPrefix(text, "<?xml") {
		if end := strings.Index(text, "?>"); end > 0 {
			text = text[end+2:]
		}
	}
	return []byte(text)
}
