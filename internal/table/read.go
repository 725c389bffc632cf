package table

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strings"
	"unicode/utf8"

	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"
)

// Bounds of what is read.
const (
	Largest  = 1 << 20 // bytes
	MostRows = 2000
)

// Problem is what is wrong with a table, in a sentence.
type Problem string

func (p Problem) Error() string { return string(p) }

// Row is a line of a table with the number it begins on in the file.
type Row struct {
	Line  int
	Cells []string
}

// Text is a file as text: in UTF-8 or UTF-16 as it says itself, else in UTF-8 where it is
// that, else in Windows-1252, as older spreadsheets write.
func Text(data []byte) (string, error) {
	switch {
	case len(data) > Largest:
		return "", Problem(fmt.Sprintf("The table is larger than %d KB. Take it in parts.", Largest>>10))
	case bytes.HasPrefix(data, []byte("\xff\xfe")), bytes.HasPrefix(data, []byte("\xfe\xff")):
		text, err := unicode.UTF16(unicode.LittleEndian, unicode.UseBOM).NewDecoder().Bytes(data)
		if err != nil {
			return "", Problem("The table says that it is in UTF-16, and is not. Save it as CSV in UTF-8.")
		}
		data = text
	case utf8.Valid(data):
		data = bytes.TrimPrefix(data, []byte("\ufeff"))
	default:
		text, err := charmap.Windows1252.NewDecoder().Bytes(data)
		if err != nil {
			return "", fmt.Errorf("decode the table: %w", err)
		}
		data = text
	}
	if bytes.ContainsRune(data, 0) {
		return "", Problem("This is no table of text. Save it as CSV, with commas, semicolons or tabs.")
	}
	return string(data), nil
}

// Read reads a table (RFC 4180) with commas, semicolons or tabs, whichever parts it. Lines
// end in CR LF, LF or CR. Empty lines are left out, an apostrophe before what would be a
// formula is taken off.
func Read(text string) ([]Row, error) {
	text = strings.ReplaceAll(strings.ReplaceAll(text, "\r\n", "\n"), "\r", "\n")
	first := 0
	parted, rest, told := partedBy(text)
	if told {
		text, first = rest, 1
	}
	in := csv.NewReader(strings.NewReader(text))
	in.Comma, in.FieldsPerRecord = parted, -1
	var rows []Row
	for {
		cells, err := in.Read()
		var wrong *csv.ParseError
		switch {
		case errors.Is(err, io.EOF):
			return rows, nil
		case errors.As(err, &wrong):
			return nil, Problem(fmt.Sprintf("Line %d: a quotation mark stands where none can. One in a cell is written twice, and the cell stands in quotation marks.", wrong.StartLine+first))
		case err != nil:
			return nil, fmt.Errorf("read the table: %w", err)
		}
		line, _ := in.FieldPos(0)
		empty := true
		for k := range cells {
			cells[k] = strings.TrimSpace(Typed(cells[k]))
			empty = empty && cells[k] == ""
		}
		if empty {
			continue
		}
		if len(rows) == MostRows {
			return nil, Problem(fmt.Sprintf("The table has more than %d lines. Take it in parts.", MostRows))
		}
		rows = append(rows, Row{line + first, cells})
	}
}

// partedBy finds what parts the cells: what a first line "sep=;" says, else what parts most
// of the first lines into as many cells.
func partedBy(text string) (parted rune, rest string, told bool) {
	line, after, _ := strings.Cut(text, "\n")
	if mark, is := strings.CutPrefix(strings.ToLower(strings.Trim(line, `"`)), "sep="); is && len(mark) == 1 && strings.Contains(",;\t", mark) {
		return rune(mark[0]), after, true
	}
	parted, best := ',', 0
	for _, c := range "\t;," { // a comma stands in text more often than the others do
		if alike := linesAlike(text, c); alike > best {
			parted, best = c, alike
		}
	}
	return parted, text, false
}

// linesAlike is how many of the first lines have as many cells as the first one, where
// that is more than one.
func linesAlike(text string, parted rune) int {
	const looked = 20 // lines
	in := csv.NewReader(strings.NewReader(text))
	in.Comma, in.FieldsPerRecord, in.LazyQuotes = parted, -1, true
	alike, cells := 0, 0
	for range looked {
		row, err := in.Read()
		if err != nil {
			break
		}
		if cells == 0 {
			cells = len(row)
		}
		if len(row) == cells && cells > 1 {
			alike++
		}
	}
	return alike
}
