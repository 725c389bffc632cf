// Package table writes CSV files that spreadsheets open as they are meant.
package table

import (
	"bytes"
	"encoding/csv"
	"strings"
)

// Write makes a CSV file (RFC 4180) of a line of column names and of rows. No cell is one
// that a spreadsheet runs as a formula.
func Write(columns []string, rows [][]string) []byte {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	w.UseCRLF = true
	for _, row := range append([][]string{columns}, rows...) {
		cells := make([]string, len(row))
		for k, cell := range row {
			cells[k] = Plain(cell)
		}
		_ = w.Write(cells) // to memory
	}
	w.Flush()
	return b.Bytes()
}

// mistaken are the beginnings of cells that a spreadsheet takes for a formula.
const mistaken = "=+-@\t\r'"

// Plain puts an apostrophe before what a spreadsheet would run; Typed takes it off again.
func Plain(cell string) string {
	if cell != "" && strings.ContainsRune(mistaken, rune(cell[0])) {
		return "'" + cell
	}
	return cell
}

// Typed is a cell as it was before Plain.
func Typed(cell string) string { return strings.TrimPrefix(cell, "'") }
